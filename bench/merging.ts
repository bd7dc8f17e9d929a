/**
 * Whether hand-written lines survive a redesign. Templates from the registry are taken in and written as code; somebody edits a
 * file of it (a handler, a wrapper, a hook, a class, a rule, a text …); the pages come in again, edited as in a second round;
 * what is written then is merged with the edited file. What is right is known apart: the same edit made by hand on what is
 * written now, on the element that the design says is the same. Where the design took that element away, or changed the very
 * text, asking is right. Beside it, a merge line by line. `npm run bench -- merging PACKAGE...` measures others.
 */
import path from 'node:path';
import {
  applyChange,
  applyIteration,
  deliveredCode,
  elementsByKey,
  type Merged,
  emptyApp,
  mergeFile,
  mergeLines,
  partedAtFirst,
  planIteration,
  type Project,
  type Screen,
  takeIn,
  type Versions,
} from '@tovel/core';
import { diffLines } from 'diff';
import { chance } from '../packages/core/src/testing/chance.ts';
import { bareName, installed } from './installed.ts';
import { editsOf, sameCode, settled } from './merging/hand_edits.ts';
import { editedRevision } from './revisions/prepare.ts';

const LOOKED_AT = ['startbootstrap-sb-admin-2@4.1.4', 'now-ui-kit@1.3.0', 'paper-dashboard@1.1.0'];
const MEASURED = ['soft-ui-dashboard@1.0.1', 'black-dashboard@1.0.0', 'now-ui-dashboard@1.0.1'];

/** Hand edits made on each template, at most. */
const EDITS = 300;

interface Tally {
  right: number;
  asked: number;
  wrong: number;
}

const packages = process.argv.length > 2 ? process.argv.slice(2) : [...LOOKED_AT, ...MEASURED];
const packaged = await installed(packages);
try {
  console.log(
    `  ${'template'.padEnd(34)}${['pairs', 'right', 'asked in vain', 'wrong, silent', 'lines: right', 'asked', 'wrong', 'ms a merge'].map((cell) => cell.padStart(15)).join('')}`,
  );
  for (const name of packages) await measure(name);
} finally {
  await packaged.remove();
}

async function measure(name: string): Promise<void> {
  const { before, after } = await editedRevision(
    bareName(name),
    packaged.rootOf(name),
    1,
    path.join(packaged.folder, 'revisions'),
  );
  // As screens that come in are: with their layouts and components.
  const came = applyChange(emptyApp, takeIn({ design: before, app: emptyApp }, before.screens));
  const app = applyChange(came, partedAtFirst({ design: before, app: came }));
  const first: Project = { design: before, app };
  const second = roundOf(first, after.screens);
  const [was, is] = await Promise.all(
    [first, second].map((project) => deliveredCode(project, 'App', 'react')),
  );
  const random = chance(7);
  const trees = { right: 0, asked: 0, wrong: 0 };
  const lines = { right: 0, asked: 0, wrong: 0 };
  const kinds = new Map<string, Tally>();
  let [pairs, spent] = [0, 0];
  const there = second.design.screens.flatMap((screen) => [...elementsByKey(screen).keys()]);
  const edits = editsOf(was.files, is.files, new Set(there), random);
  for (const edit of edits.slice(0, EDITS)) {
    const { kind, path: file, base, theirs, ours, expected, or = [], mayAsk, lines: known } = edit;
    pairs++;
    const start = performance.now();
    const versions = { base, theirs, ours, lines: known };
    const merged = mergeFile(file, versions);
    spent += performance.now() - start;
    const tally = kinds.get(kind) ?? { right: 0, asked: 0, wrong: 0 };
    kinds.set(kind, tally);
    const isAsked = mayAsk && merged.conflicts.length > 0;
    const right = expected === null ? [null] : [expected, ...or];
    const outcome = isAsked ? 'right' : await judge(file, merged, right, versions);
    trees[outcome]++;
    tally[outcome]++;
    if (outcome !== 'right' && process.env.TOVEL_BENCH_SHOW === outcome)
      await show(kind, file, merged, expected, versions);
    lines[await judge(file, mergeLines(versions), right, versions)]++;
  }
  const share = (count: number): string => `${((100 * count) / pairs).toFixed(1)} %`;
  console.log(
    `  ${name.padEnd(34)}${[
      String(pairs),
      share(trees.right),
      share(trees.asked),
      share(trees.wrong),
      share(lines.right),
      share(lines.asked),
      share(lines.wrong),
      (spent / pairs).toFixed(1),
    ]
      .map((cell) => cell.padStart(15))
      .join('')}`,
  );
  for (const [kind, { right, asked, wrong }] of kinds)
    console.log(
      `    ${kind.padEnd(32)}${[right, asked, wrong].map((cell) => String(cell).padStart(15)).join('')}`,
    );
}

/** Where nothing is expected, asking is right. */
async function judge(
  file: string,
  { text, conflicts }: { readonly text: string; readonly conflicts: readonly unknown[] },
  right: readonly (string | null)[],
  versions: Versions,
): Promise<keyof Tally> {
  if (conflicts.length) return right.includes(null) ? 'right' : 'asked';
  for (const expected of right)
    if (expected !== null && (await sameCode(file, text, expected, versions))) return 'right';
  return 'wrong';
}

function roundOf(project: Project, screens: readonly Screen[]): Project {
  const plan = planIteration(project, screens, { whole: true });
  const made = applyIteration(project, plan, { assets: [], notices: [] }, project.design.iteration + 1);
  return { design: made.design, app: applyChange(project.app, made.change) };
}

/** What is otherwise than expected, for whoever looks for the cause. */
async function show(
  kind: string,
  file: string,
  merged: Merged,
  expected: string | null,
  versions: Versions,
): Promise<void> {
  console.log(`--- ${kind} ${file}${expected === null ? ', should have asked' : ''}`);
  for (const { why, base, theirs, ours } of merged.conflicts) console.log({ why, base, theirs, ours });
  if (expected === null) {
    for (const side of ['theirs', 'ours'] as const) {
      console.log(side);
      for (const { added, removed, value } of diffLines(versions.base, versions[side]))
        if (added || removed) console.log(value.replace(/^(?=.)/gm, removed ? '- ' : '+ ').trimEnd());
    }
    console.log('merged against ours');
    for (const { added, removed, value } of diffLines(versions.ours, merged.text))
      if (added || removed) console.log(value.replace(/^(?=.)/gm, removed ? '- ' : '+ ').trimEnd());
    return;
  }
  const [a, b] = await Promise.all([settled(file, expected), settled(file, merged.text)]);
  for (const { added, removed, value } of diffLines(a, b))
    if (added || removed) console.log(value.replace(/^(?=.)/gm, removed ? '- ' : '+ ').trimEnd());
}
