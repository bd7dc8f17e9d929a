import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

/** The packages that generated apps import; bundled once, shared by all of them. */
export const VENDOR: Readonly<Record<string, string>> = {
  react: 'react',
  'react/jsx-runtime': 'react-jsx-runtime',
  'react-dom': 'react-dom',
  'react-dom/client': 'react-dom-client',
  'react-router': 'react-router',
  'react-router/dom': 'react-router-dom',
  '@tanstack/react-query': 'react-query',
  'chart.js/auto': 'chart',
};

let vendor: Promise<ReadonlyMap<string, Uint8Array>> | null = null;

/** The vendor files by name, bundled once. One React for all of them, since they are split where they share. */
export const buildVendor = (): Promise<ReadonlyMap<string, Uint8Array>> => (vendor ??= bundled());

async function bundled(): Promise<Map<string, Uint8Array>> {
  const require = createRequire(import.meta.url);
  const sources = new Map<string, string>();
  for (const [specifier, name] of Object.entries(VENDOR)) {
    // CommonJS packages have no names to re-export, so they are asked for them.
    const names = Object.keys(require(specifier) as object).filter(
      (key) => key !== 'default' && /^[A-Za-z_$][\w$]*$/.test(key),
    );
    sources.set(
      name,
      `import * as all from '${specifier}';\nexport const { ${names.join(', ')} } = all;\nexport default all.default ?? all;\n`,
    );
  }
  const result = await build({
    entryPoints: [...sources.keys()].map((name) => `vendor:${name}`),
    bundle: true,
    write: false,
    splitting: true,
    format: 'esm',
    target: 'es2022',
    minify: true,
    outdir: '/vendor',
    entryNames: '[name]',
    define: { 'process.env.NODE_ENV': '"production"' },
    logLevel: 'silent',
    plugins: [
      {
        name: 'vendor',
        setup(context) {
          context.onResolve({ filter: /^vendor:/ }, ({ path: name }) => ({
            path: name.slice(7),
            namespace: 'vendor',
          }));
          context.onLoad({ filter: /.*/, namespace: 'vendor' }, ({ path: name }) => ({
            contents: sources.get(name)!,
            resolveDir: path.dirname(fileURLToPath(import.meta.url)),
          }));
        },
      },
    ],
  });
  return new Map(
    result.outputFiles.map((file) => [path.posix.basename(file.path).replace('vendor_', ''), file.contents]),
  );
}
