/**
 * 20,000 documents and screens, each with one thing of it made hostile: whether each is refused in words, or its code
 * still compiles. The same seeds as in the tests, which try fewer. `npm run bench -- hostile [COUNT]`
 */
import { spawnSync } from 'node:child_process';
import path from 'node:path';

const count = Number(process.argv[2] ?? 10_000);
const begun = Date.now();
const { status } = spawnSync(
  process.execPath,
  [
    path.resolve('node_modules/jest/bin/jest.js'),
    '--selectProjects',
    'core',
    '--testPathPatterns',
    'hostile_documents',
  ],
  { stdio: 'inherit', env: { ...process.env, TOVEL_HOSTILE_DOCUMENTS: String(count) } },
);
console.log(
  `${2 * count} documents and pages, each with one thing made hostile: ${status ? 'NOT all' : 'all'} were refused in words or compile; ${((Date.now() - begun) / 1000 / 60).toFixed(1)} minutes`,
);
process.exit(status ?? 1);
