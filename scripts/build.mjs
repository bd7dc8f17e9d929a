// Builds the server bundle and the interface. Packages stay packages; only Tovel's own code is bundled.
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

await build({
  entryPoints: {
    main: path.join(root, 'packages/server/src/main.ts'),
    jobs: path.join(root, 'packages/server/src/work/jobs.ts'),
    build_thread: path.join(root, 'packages/server/src/run/build_thread.ts'),
  },
  outdir: path.join(root, 'packages/server/dist'),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [
    {
      name: 'own-code-only',
      setup({ onResolve }) {
        onResolve({ filter: /^[^./]/ }, ({ path: wanted }) =>
          wanted.startsWith('@tovel/') ? undefined : { path: wanted, external: true },
        );
      },
    },
  ],
});
execFileSync(
  process.execPath,
  [path.join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'],
  {
    cwd: path.join(root, 'packages/web'),
    stdio: 'inherit',
  },
);
