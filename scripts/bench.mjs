// npm run bench: prints what Tovel costs, and how near its pictures come to their sources.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { checkNode, ensurePackages, ensurePrograms, root } from './lib/setup.mjs';

checkNode();
ensurePackages();
ensurePrograms();
for (const script of ['bench/run.ts', 'bench/fidelity.ts']) {
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', path.join(root, script)], {
    cwd: root,
    stdio: 'inherit',
  });
  if (status) process.exit(status);
}
