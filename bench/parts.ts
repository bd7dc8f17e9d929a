/**
 * What pages hide until something opens it, on multi-page templates from the registry: how much of what is hidden is found to
 * be opened by something, how much of that is taken when the pages come in since they say so themselves, of what kinds it is,
 * and what the compilers of React and of Vue say of the code. What the markup says by ids and by its words is the truth that
 * is left out of no page. `npm run bench -- parts [PACKAGE...]` measures others; `--why` lists what stays out.
 */
import { emitReact, findDisclosures, walkElements } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { emitVue } from '../packages/core/src/emit/vue/emit_vue.ts';
import { typeErrors } from '../packages/core/src/testing/typecheck.ts';
import { vueProblems } from '../packages/core/src/testing/vue_problems.ts';
import { bareName, installed } from './installed.ts';
import { partedPile, pileFiles } from './parted_pile.ts';

/** Those that rules were made on, and those that were only measured. */
const DEVELOPED = [
  'startbootstrap-sb-admin-2@4.1.4',
  'now-ui-kit@1.3.0',
  'startbootstrap-modern-business@5.0.7',
  'material-dashboard@3.1.0',
  'admin-lte@3.2.0',
];
const MEASURED = [
  'soft-ui-dashboard@1.0.1',
  'black-dashboard@1.0.0',
  'startbootstrap-sb-admin@7.0.7',
  'paper-kit-2@2.1.0',
  'soft-ui-design-system@1.0.4',
  'blk-design-system@1.0.2',
];

const says = process.argv.slice(2);
const asked = says.filter((one) => !one.startsWith('--'));
const packages = asked.length ? asked : [...DEVELOPED, ...MEASURED];
const packaged = await installed(packages);
const host = new HeadlessHost();
console.log(
  'template                     screens hidden opened taken narrow kinds                                        React Vue',
);
for (const name of packages) {
  const { project } = await partedPile(await pileFiles(name, packaged.rootOf), host);
  const left: string[] = [];
  const kinds = new Map<string, number>();
  let [hidden, opened, narrow] = [0, 0, 0];
  for (const screen of project.design.screens) {
    const parts = new Map(findDisclosures(screen).flatMap((proposal) => proposal.parts));
    for (const { kind, below } of parts.values())
      if (below === undefined) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
      else narrow++;
    walkElements(screen.root, (element) => {
      if (!element.hidden) return;
      hidden++;
      if (parts.has(element.key)) opened++;
      else
        left.push(
          `${screen.source.file}: ${element.tag} ${element.classes ?? ''} ${element.name.slice(0, 40)}`,
        );
    });
  }
  const react = typeErrors([emitReact(project, name)]);
  const vue = vueProblems([emitVue(project, name)]);
  const taken = Object.keys(project.app.disclosures).length;
  console.log(
    [
      bareName(name).padEnd(30),
      String(project.design.screens.length).padStart(5),
      String(hidden).padStart(6),
      String(opened).padStart(6),
      String(taken).padStart(5),
      String(narrow).padStart(6),
      [...kinds]
        .map(([kind, count]) => `${kind} ${count}`)
        .join(', ')
        .padEnd(44),
      String(react.length).padStart(5),
      String(vue.length).padStart(3),
    ].join(' '),
  );
  for (const problem of [...react, ...vue].slice(0, 5)) console.log(`  ${problem}`);
  if (says.includes('--why')) for (const one of left.slice(0, 40)) console.log(`  stays out: ${one}`);
}
await host.close();
await packaged.remove();
