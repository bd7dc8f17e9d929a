// Builds the server bundle and the interface. Packages stay packages; only Tovel's own code is bundled.
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { build } from 'esbuild';
import { forNode, ownCodeOnly, root } from './lib/own_code.mjs';

const outdir = path.join(root, 'packages/server/dist');

await build({
  ...forNode,
  entryPoints: {
    main: path.join(root, 'packages/server/src/main.ts'),
    jobs: path.join(root, 'packages/server/src/work/jobs.ts'),
    build_thread: path.join(root, 'packages/server/src/run/build_thread.ts'),
  },
  outdir,
  sourcemap: true,
  plugins: [ownCodeOnly(outdir)],
});
execFileSync(
  process.execPath,
  [path.join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'],
  {
    cwd: path.join(root, 'packages/web'),
    stdio: 'inherit',
  },
);
