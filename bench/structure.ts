/**
 * What finding structure costs at 20 and at 200 screens, beside a plain loop over the same elements, and how well what
 * is inferred holds: the roles and lists of the demo's drawings against what people say, and its drawings at other
 * widths than they were drawn at.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import {
  addToDesign,
  all,
  applyChange,
  type App,
  type Design,
  EmissionPlan,
  emptyApp,
  emptyDesign,
  extractionOf,
  findComponents,
  findLists,
  inferRoles,
  proposeTokens,
  putComponent,
  readBatch,
  readSvg,
  roleProposals,
  scoreRoles,
  type Screen,
  settle,
  sightOf,
  takeIn,
  takeRoles,
  walkElements,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';
import { measureReflow } from '../packages/reader/src/testing/reflow.ts';

const demo = path.resolve('demo/iteration-1');
const files = await folderFiles(demo);
const row = (what: string, ...cells: string[]): void =>
  console.log(`  ${what.padEnd(44)}${cells.map((cell) => cell.padStart(14)).join('')}`);
const ms = (n: number): string => `${n.toFixed(1)} ms`;

function timed<T>(work: () => T): [value: T, ms: number] {
  const begin = performance.now();
  const value = work();
  return [value, performance.now() - begin];
}

/** The demo's screens over and over, under keys of their own, as values that nothing is known of yet. */
function many(screens: readonly Screen[], n: number): Design {
  const made = Array.from({ length: n }, (_, i): Screen => {
    const screen = screens[i % screens.length];
    const rekeyed = JSON.stringify(screen).replaceAll(`"${screen.key}:`, `"s${i}:`);
    return { ...(JSON.parse(rekeyed) as Screen), key: `s${i}`, name: `${screen.name} ${i}` };
  });
  return { ...emptyDesign, screens: made };
}

const host = new HeadlessHost();
const read = await readBatch(files, host);
await host.close();
const { screens } = addToDesign(emptyDesign, read);

console.log('\nFinding structure, from nothing');
row('', '20 screens', '200 screens', 'times');
const columns = [20, 200].map((n) => {
  const design = many(screens, n);
  const app: App = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const [elements, loop] = timed(() => {
    let count = 0;
    for (const screen of design.screens) walkElements(screen.root, () => void count++);
    return count;
  });
  const [, roles] = timed(() => design.screens.forEach((screen) => inferRoles(screen)));
  const [found, components] = timed(() => findComponents(design.screens));
  const [, tokens] = timed(() => proposeTokens(design.screens, {}));
  const taken = applyChange(
    app,
    all(design.screens.map((screen) => takeRoles(app, roleProposals(app, screen), 0.8))),
  );
  const [settled, settling] = timed(() => settle({ design, app: taken }));
  const withComponents = applyChange(
    taken,
    all(found.slice(0, 20).map(({ name, kind, places }, i) => putComponent(`c${i}`, { name, kind, places }))),
  );
  const [, extracting] = timed(() =>
    extractionOf(new EmissionPlan({ design: settled.design, app: withComponents })),
  );
  return { elements, loop, roles, components, tokens, settling, extracting };
});
const [small, large] = columns;
row('elements', String(small.elements), String(large.elements), (large.elements / small.elements).toFixed(1));
for (const [what, name] of [
  ['a plain loop over them', 'loop'],
  ['roles', 'roles'],
  ['components and lists', 'components'],
  ['tokens', 'tokens'],
  ['settling with all roles that are sure', 'settling'],
  ['emission with 20 components taken out', 'extracting'],
] as const)
  row(what, ms(small[name]), ms(large[name]), (large[name] / Math.max(0.01, small[name])).toFixed(1));

interface Truth {
  readonly roles: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly lists: Readonly<Record<string, readonly (readonly string[])[]>>;
}
const truth = JSON.parse(readFileSync(path.resolve('bench/truth/demo.json'), 'utf8')) as Truth;
const [right, guessed] = [new Map<string, string>(), new Map<string, string>()];
const lists = { hits: 0, found: 0, true: 0 };
for (const file of Object.keys(truth.roles)) {
  const { screen } = readSvg({
    file,
    text: readFileSync(path.join(demo, file), 'utf8'),
    screenKey: 's',
    asset: () => 'a'.repeat(64),
  });
  const guesses = inferRoles(screen!);
  for (const [place, role] of Object.entries(truth.roles[file])) right.set(`${file} ${place}`, role);
  for (const { element } of sightOf(screen!).all) {
    const guess = guesses.get(element.key);
    if (guess) guessed.set(`${file} ${element.source.path}`, guess.role);
  }
  const wanted = new Set((truth.lists[file] ?? []).map((places) => places.join()));
  const own = findLists(screen!).map((list) => list.places.map((key) => key.slice(2)).join());
  lists.true += wanted.size;
  lists.found += own.length;
  lists.hits += own.filter((places) => wanted.has(places)).length;
}
console.log('\nThe demo’s drawings against what people say');
row('roles, macro F1', scoreRoles(right, guessed).macroF1.toFixed(3), `of ${right.size}`);
row('lists, F1', ((2 * lists.hits) / (lists.found + lists.true)).toFixed(3), `of ${lists.true}`);

console.log('\nThe demo’s drawings at 0.75, 1 and 1.5 of their width');
const faults = await measureReflow(files.filter((file) => !file.path.endsWith('.html')));
for (const kind of ['overlap', 'too wide', 'cut off', 'resized'] as const)
  row(kind, String(faults.filter((fault) => fault.kind === kind).length));
for (const fault of faults)
  console.log(`    ${fault.file} at ${fault.width} px: ${fault.kind}, ${fault.what}`);
