// npm test: sets up what is missing, then runs the unit tests and the interface tests, on databases, folders and
// ports of their own. `npm test -- unit` or `npm test -- e2e` runs one half.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { checkNode, ensureBuilt, ensurePackages, ensurePrograms, root } from './lib/setup.mjs';

checkNode();
ensurePackages();
ensurePrograms();

const [half = 'all', ...rest] = process.argv.slice(2);
const run = (script, args, env = {}) =>
  spawnSync(process.execPath, [path.join(root, script), ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  }).status ?? 1;

/** Two ports next to each other, for the application and for what it runs. */
async function freePorts() {
  const isFree = (port) =>
    new Promise((resolve) => {
      const probe = net.createServer();
      probe.once('error', () => resolve(false));
      probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
    });
  for (let port = 4410; port < 4600; port += 2)
    if ((await isFree(port)) && (await isFree(port + 1))) return port;
  throw new Error('No two free ports from 4410 to 4600.');
}

let status = 0;
if (half !== 'e2e') status = run('node_modules/jest/bin/jest.js', ['--maxWorkers=2', ...rest]);
if (status === 0 && half !== 'unit') {
  ensureBuilt();
  const data = mkdtempSync(path.join(os.tmpdir(), 'tovel-e2e-'));
  const port = String(await freePorts());
  status = run('node_modules/@playwright/test/cli.js', ['test', ...rest], {
    TOVEL_TEST_PORT: port,
    TOVEL_TEST_DATA: data,
    TOVEL_RUN_PORT: '',
  });
  rmSync(data, { recursive: true, force: true });
}
process.exit(status);
