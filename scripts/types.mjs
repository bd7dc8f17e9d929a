// npm run types: checks the types of the whole workspace, of the benches, and of the files that delivered apps are
// given, which have settings of their own. The compiler that is built ahead does what it can: it needs a fourth of the
// time. Single-file components need the one that can be asked from JavaScript.
import { spawn } from 'node:child_process';
import path from 'node:path';
import { root } from './lib/setup.mjs';

const COMPILER = 'node_modules/typescript-7/bin/tsc';
const RUNTIMES = ['html/runtime', 'bundled/runtime', 'bundled/stand_in', 'react/runtime'];

/** Whether a program of Node ended well. */
const ran = (script, ...args) =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, [path.join(root, script), ...args], {
      cwd: root,
      stdio: 'inherit',
    });
    child.once('close', (code) => resolve(code === 0));
  });

const parts = await Promise.all([
  ran(COMPILER, '-b').then((ok) => ok && ran(COMPILER, '-p', 'bench')),
  ran('node_modules/vue-tsc/bin/vue-tsc.js', '-p', 'packages/core/src/emit/vue/runtime'),
  ...RUNTIMES.map((folder) => ran(COMPILER, '-p', `packages/core/src/emit/${folder}`)),
]);
process.exit(parts.every(Boolean) ? 0 : 1);
