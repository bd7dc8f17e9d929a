// npm start: sets up everything that is missing, starts Tovel and prints where it is. Ctrl-C stops all of it.
import { spawn } from 'node:child_process';
import path from 'node:path';
import { checkNode, ensureBuilt, ensurePackages, ensurePrograms, root } from './lib/setup.mjs';

checkNode();
ensurePackages();
ensurePrograms();
ensureBuilt();

const server = spawn(
  process.execPath,
  ['--enable-source-maps', path.join(root, 'packages/server/dist/main.mjs')],
  {
    cwd: root,
    stdio: 'inherit',
  },
);
// The terminal sends Ctrl-C to the server as well; this one only waits for it to finish.
process.on('SIGINT', () => {});
process.on('SIGTERM', () => server.kill('SIGTERM'));
server.on('exit', (code) => process.exit(code ?? 1));
