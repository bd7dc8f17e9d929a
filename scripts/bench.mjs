// npm run bench: prints what Tovel costs, and how near its pictures come to their sources. `npm run bench -- NAME` runs
// one of them: run, fidelity, templates, structure, roles, links, graph, hostile, many_editors, kills, matching, next_versions, history, calm, delivered, pages, targets, parts, merging, causes, machine_drawings.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { checkNode, ensurePackages, ensurePrograms, root } from './lib/setup.mjs';

checkNode();
ensurePackages();
ensurePrograms();
const [only, ...rest] = process.argv.slice(2);
for (const name of only
  ? [only]
  : [
      'run',
      'fidelity',
      'templates',
      'structure',
      'roles',
      'links',
      'graph',
      'hostile',
      'many_editors',
      'kills',
      'matching',
      'next_versions',
      'history',
      'calm',
      'delivered',
      'pages',
      'targets',
      'parts',
      'merging',
      'causes',
      'machine_drawings',
    ]) {
  const { status } = spawnSync(
    process.execPath,
    ['--import', 'tsx', path.join(root, `bench/${name}.ts`), ...rest],
    { cwd: root, stdio: 'inherit' },
  );
  if (status) process.exit(status);
}
