import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');

/**
 * For esbuild: only Tovel's own code is bundled, packages stay packages. One that a workspace has in a version of its own is
 * named by its way from the bundle, where nothing else would find it.
 * @param {string} outdir folder of the bundle
 * @returns {import('esbuild').Plugin}
 */
export const ownCodeOnly = (outdir) => ({
  name: 'own-code-only',
  setup({ onResolve, resolve }) {
    onResolve({ filter: /^[^./]/ }, async ({ path: wanted, importer, kind, resolveDir, pluginData }) => {
      if (wanted.startsWith('@tovel/') || pluginData === 'asked' || wanted.startsWith('node:'))
        return undefined;
      const found = await resolve(wanted, { importer, kind, resolveDir, pluginData: 'asked' });
      const isOwn = /[\\/]packages[\\/]\w+[\\/]node_modules[\\/]/.test(found.path);
      const way = path.relative(outdir, found.path).replaceAll('\\', '/');
      return { path: isOwn ? way : wanted, external: true };
    });
  },
});

/** How all that runs in Node is bundled. */
export const forNode = /** @type {const} */ ({
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  logLevel: 'warning',
});
