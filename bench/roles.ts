/**
 * How often Tovel says rightly what an element is: pages of templates from the registry whose tags, roles and telling
 * attributes were hidden, and the demo's drawings. `npm run bench -- roles [PACKAGE...]` measures others.
 */
import { findLists, inferRoles, type Role, scoreRoles } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { type Sight, sightOf } from '../packages/core/src/roles/sight.ts';
import { installed } from './installed.ts';
import { COUNTED } from './roles/learning.ts';
import { hiddenPages, TO_MEASURE } from './roles/piles.ts';

const wanted = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
const isLong = process.argv.includes('--misses');
const packages = wanted.length ? wanted : TO_MEASURE;
const packaged = await installed(packages);
const host = new HeadlessHost();
try {
  for (const name of packages)
    for (const isNeutral of [false, true])
      measure(name, isNeutral, await hiddenPages(name, packaged.rootOf(name), isNeutral, host));
} finally {
  await host.close();
  await packaged.remove();
}

function isHidden(sight: Sight): boolean {
  return !!sight.element.hidden || (sight.parent !== null && isHidden(sight.parent));
}

function measure(name: string, isNeutral: boolean, pages: Awaited<ReturnType<typeof hiddenPages>>): void {
  const truth = new Map<string, string>();
  const found = new Map<string, string>();
  const misses = new Map<string, number>();
  const lists = { right: 0, found: 0, true: 0 };
  let elements = 0;
  let spent = 0;
  for (const { screen, truth: told, lists: drawn } of pages) {
    const { file } = screen.source;
    const begin = performance.now();
    const guesses = inferRoles(screen);
    spent += performance.now() - begin;
    // A list that is not shown at any width has no size to be seen by.
    const shown = new Set(
      sightOf(screen)
        .all.filter((sight) => !isHidden(sight))
        .map((sight) => sight.element.source.path),
    );
    const right = new Set(
      drawn.filter((items) => items.every((item) => shown.has(item))).map((items) => items.join()),
    );
    const own = findLists(screen).map((list) =>
      list.places.map((key) => key.slice(key.indexOf(':') + 1)).join(),
    );
    lists.true += right.size;
    lists.found += own.length;
    lists.right += own.filter((items) => right.has(items)).length;
    if (isLong)
      for (const items of own)
        if (!right.has(items)) console.log(`    list only found  ${file} ${items.slice(0, 90)}`);
    if (isLong)
      for (const items of right)
        if (!own.includes(items)) console.log(`    list only true   ${file} ${items.slice(0, 90)}`);
    for (const sight of sightOf(screen).all) {
      elements++;
      const place = `${file} ${sight.element.source.path}`;
      const right = told.get(sight.element.source.path);
      const guess = guesses.get(sight.element.key)?.role;
      if (right && COUNTED.has(right)) truth.set(place, right);
      const said: Role | undefined = guess === 'avatar' ? 'image' : guess;
      if (said && COUNTED.has(said)) found.set(place, said);
      if ((right && COUNTED.has(right) ? right : '-') !== (said && COUNTED.has(said) ? said : '-')) {
        const what = `${right ?? '-'} taken for ${said ?? '-'}`;
        misses.set(what, (misses.get(what) ?? 0) + 1);
        if (isLong)
          console.log(
            `    ${what.padEnd(34)} ${place} ${sight.words.slice(0, 60)}| ${sight.text.slice(0, 40)} | ${guesses.get(sight.element.key)?.reason ?? ''}`,
          );
      }
    }
  }
  const score = scoreRoles(truth, found);
  console.log(`\nRoles with tags hidden${isNeutral ? ' and names neutral' : ''}: ${name}`);
  for (const [role, { precision, recall, f1, support }] of [...score.byRole].sort(
    (a, b) => b[1].support - a[1].support,
  ))
    console.log(
      `  ${role.padEnd(14)} precision ${precision.toFixed(2)}  recall ${recall.toFixed(2)}  F1 ${f1.toFixed(2)}  of ${support}`,
    );
  const [precision, recall] = [lists.right / Math.max(1, lists.found), lists.right / Math.max(1, lists.true)];
  console.log(
    `  lists: precision ${precision.toFixed(2)}  recall ${recall.toFixed(2)}  F1 ${((2 * precision * recall) / Math.max(0.001, precision + recall)).toFixed(2)}  of ${lists.true}`,
  );
  console.log(
    `  macro F1 ${score.macroF1.toFixed(3)}; ${elements} elements, ${((1000 * spent) / elements).toFixed(0)} µs an element`,
  );
  console.log(
    `  most often: ${[...misses]
      .sort((a, b) => b[1] - a[1])
      .slice(0, 12)
      .map(([what, n]) => `${what} (${n})`)
      .join(', ')}`,
  );
}
