import { all, applyChange, putComponent } from '../../../change/change.ts';
import type { Screen } from '../../../model/design.ts';
import { walkElements } from '../../../model/places.ts';
import { pascalCase } from '../../../model/names.ts';
import type { Project } from '../../../model/project.ts';
import { partedAtFirst } from '../../../project/part_first.ts';
import { projectOf } from '../../../testing/build.ts';
import { drawn } from '../../../testing/expand.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';
import { EmissionPlan, emitScreenOf } from '../plan.ts';
import { extractionOf, previewComponent } from './extraction.ts';

const card = (title: string, inner: string): string =>
  `<div class="card" style="border-radius:8px;box-shadow:0 1px 3px #ccc;border-top-width:1px;border-top-style:solid"><div class="card-header" style="padding:8px"><h4>${title}</h4><i class="dot">•</i></div><div class="card-body" style="padding:16px">${inner}</div></div>`;
const HELD = [
  '<p>Open on Tuesdays.</p><p>Ring at the door.</p>',
  '<ul><li>Saw</li><li>Drill</li></ul>',
  '<table><tbody><tr><td>Rasp</td><td>3</td></tr></tbody></table><p>Three in all.</p>',
  '<form><label>Name <input name="name"></label></form>',
];
const pages = HELD.map((inner, i): Screen =>
  pageOfHtml(
    `<main><h1>Page ${i}</h1>${card(`About ${i}`, inner)}<p>Beneath it, ${i}.</p></main>`,
    `page-${i}`,
  ),
);
const parted = (project: Project): Project => ({
  ...project,
  app: applyChange(project.app, partedAtFirst(project)),
});
const textOf = (files: ReturnType<typeof emitReact>['files'], name: string): string =>
  files.flatMap((file) => ('text' in file && file.path.endsWith(name) ? [file.text] : [])).join();

test('what stands around something else on each screen is a component that holds it', () => {
  const project = parted(projectOf(...pages));
  const react = emitReact(project, 'Made');
  expect(textOf(react.files, '/Card.tsx')).toMatch(/title: string;\s+children: ReactNode;/);
  expect(textOf(react.files, '/Card.tsx')).toMatch(/card-?[bB]ody\}>\{children\}<\/div>/);
  expect(textOf(react.files, '/Page1.tsx')).toMatch(/<Card title="About 1">\s*<ul>[\s\S]*<\/ul>\s*<\/Card>/);
  expect(typeErrors([react])).toEqual([]);
  const vue = emitVue(project, 'Made');
  expect(textOf(vue.files, '/Card.vue')).toContain('<slot />');
  expect(vueProblems([vue])).toEqual([]);
});

test('it draws what was drawn', () => {
  const bare = projectOf(...pages);
  const places = pages.map(({ root }) => root.children[0].children[1].key);
  const app = applyChange(bare.app, putComponent('card', { name: 'Card', kind: 'component', places }));
  const project = { ...bare, app };
  const plan = new EmissionPlan(project);
  const extraction = extractionOf(plan);
  expect(extraction.failed.size).toBe(0);
  expect(previewComponent(new EmissionPlan(bare), { name: 'Card', kind: 'component', places })).toMatchObject(
    {
      holds: true,
      problem: null,
    },
  );
  for (const { key } of pages) {
    const whole = emitScreenOf(plan, key);
    expect(drawn(extraction.roots.get(key)!, extraction.rules.get(key)!, extraction, '/')).toEqual(
      drawn(whole.root, whole.rules, null, '/'),
    );
  }
});

test('a box around a box is no component, nor is what differs in more than what it holds', () => {
  const boxes = HELD.map((inner, i) =>
    pageOfHtml(
      `<main><h1>Page ${i}</h1><div class="card" style="border-radius:8px;box-shadow:0 1px 3px #ccc"><div class="card-body"><div class="card-inner">${inner}</div></div></div></main>`,
      `box-${i}`,
    ),
  );
  expect(Object.values(parted(projectOf(...boxes)).app.components)).toEqual([]);
});

test('what is given a drawing within a component is written as Vue, too', () => {
  const icon = (d: string): string => `<svg viewBox="0 0 24 24" width="24"><path d="${d}"></path></svg>`;
  const note = (name: string, d: string): string =>
    `<article class="note" style="border-top-width:1px;border-top-style:solid"><b>${name}</b><span class="mark" style="background-color:#eef;border-radius:9px">${icon(d)}<i>New</i><em>${name}</em></span></article>`;
  const shelf = (key: string, isOpen: boolean): Screen =>
    pageOfHtml(
      `<main><h1>${key}</h1><section class="panel" style="box-shadow:0 1px 2px #999"><h2>${isOpen ? 'Open' : 'Closed'}</h2>${note('Saw', 'M0 0h9')}${note('Drill', 'M0 0v9')}</section><p>${key} says more: <span class="mark" style="background-color:#eef;border-radius:9px">${icon('M9 9h9')}<i>New</i><em>${key}</em></span></p></main>`,
      key,
    );
  const bare = projectOf(shelf('a', true), shelf('b', false), shelf('c', true));
  const placesOf = (word: string): string[] =>
    bare.design.screens.flatMap(({ root }) => {
      const found: string[] = [];
      walkElements(root, ({ key, classes }) => {
        if (classes === word) found.push(key);
        return true;
      });
      return found;
    });
  const made = ['panel', 'mark'].map((word) =>
    putComponent(word, { name: pascalCase(word), kind: 'component', places: placesOf(word) }),
  );
  const vue = emitVue({ ...bare, app: applyChange(bare.app, all(made)) }, 'Made');
  expect(textOf(vue.files, '/Panel.vue')).toMatch(/<Mark [^>]*:icon=/);
  expect(vueProblems([vue])).toEqual([]);
});
