import { all, applyChange, putComponent } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { emitVue } from '../emit/vue/emit_vue.ts';
import { findingsOf } from '../findings/rules.ts';
import { surelyShared } from '../layouts/propose.ts';
import type { Component } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey, type Project } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { TABS, tabbed, wired } from '../testing/tabbed.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { vueProblems } from '../testing/vue_problems.ts';
import { applyIteration } from './apply.ts';
import { planIteration } from './plan.ts';

const screens = TABS.map((name) => tabbed(name));
const project = ((): Project => {
  const made = wired(...screens);
  return { ...made, app: applyChange(made.app, surelyShared(made)) };
})();
const [[id]] = Object.entries(project.app.components);
const [[layout]] = Object.entries(project.app.layouts);

function next(before: Project, incoming: readonly Screen[], iteration: number): Project {
  const plan = planIteration(before, incoming, { whole: true });
  const { design, change } = applyIteration(before, plan, { assets: [], notices: [] }, iteration);
  return { design, app: applyChange(before.app, change) };
}
/** The pile with its first screen changed. */
const withFirst = (change: (screen: Screen) => Screen): readonly Screen[] => [
  change(screens[0]),
  ...screens.slice(1),
];
const mapped = (element: Element, change: (element: Element) => Element): Element =>
  change({ ...element, children: element.children.map((child) => mapped(child, change)) });
/** A bar whose last entry says something else. */
const renamed = (screen: Screen): Screen => ({
  ...screen,
  root: mapped(screen.root, (one) => (one.text === 'Help' ? { ...one, text: 'Help us' } : one)),
});
/** A bar without its first two entries. */
const shorter = (screen: Screen): Screen => tabbed(screen.name, ['Loans', 'Help']);

/** The files of the screens that nothing happened to. */
const others = (one: Project): [string, string][] => {
  const { files, fileOfScreen } = emitReact(one, 'App');
  const folders = screens.slice(1).map(({ key }) => fileOfScreen.get(key)!.replace(/[^/]*$/, ''));
  return files.flatMap((file): [string, string][] =>
    'text' in file && folders.some((folder) => file.path.startsWith(folder)) ? [[file.path, file.text]] : [],
  );
};

test('a bar that says something else on one screen is still the same component, and others know nothing of it', () => {
  const made = next(project, withFirst(renamed), 2);
  expect(made.app.components[id].places).toHaveLength(TABS.length);
  expect(others(made)).toEqual(others(project));
  const text = emitReact(made, 'App').files.flatMap((file) => ('text' in file ? [file.text] : []));
  expect(text.filter((one) => one.includes("= 'Help'"))).toHaveLength(1);
  // It stays in the layout, which says by the address what is so on that screen alone.
  expect(made.app.layouts[layout]).toEqual(project.app.layouts[layout]);
  const linesOf = (one: Project): string[] =>
    emitReact(one, 'App').files.flatMap((file) =>
      'text' in file && file.path.startsWith('src/layouts/') ? file.text.split('\n') : [],
    );
  const before = new Set(linesOf(project));
  const come = linesOf(made).filter((line) => !before.has(line));
  expect(come.join('\n')).toMatch(/pathname === '\/home' \? 'Help us' : undefined/);
  expect(come.length).toBeLessThanOrEqual(8);
  expect(typeErrors([emitReact(made, 'App')])).toEqual([]);
  expect(vueProblems([emitVue(made, 'App')])).toEqual([]);
});

test('a bar that is built otherwise on one screen stands by itself, is told, and comes back when it fits again', () => {
  const made = next(project, withFirst(shorter), 2);
  expect(made.app.components[id].apart).toHaveLength(1);
  expect(others(made)).toEqual(others(project));
  const told = findingsOf(made).filter(({ code }) => code.endsWith('-apart'));
  expect(told.map(({ code, screen }) => [code, screen])).toEqual([
    ['component-apart', 'home'],
    ['layout-apart', 'home'],
  ]);
  const mended = told.reduce((app, { fix }) => applyChange(app, fix!.change), made.app);
  expect(mended.components[id]).toMatchObject({ apart: [] });
  expect(mended.layouts[layout].screens).toHaveLength(TABS.length);

  const again = next(made, screens, 3);
  expect(again.app.components[id].places).toHaveLength(TABS.length);
  expect(again.app.layouts[layout].screens.toSorted()).toEqual(
    TABS.map((name) => name.toLowerCase()).toSorted(),
  );
  expect(others(again)).toEqual(others(project));
});

test('where the bars of all screens changed, all go on together', () => {
  const made = next(
    project,
    screens.map((one) => renamed(one)),
    2,
  );
  expect(made.app.components[id]).toEqual(project.app.components[id]);
  expect(made.app.layouts).toEqual(project.app.layouts);
});

test('what the screens of a layout still have in common when one leaves it stays with them', () => {
  const heading = (screen: Screen): Screen => ({
    ...screen,
    root: mapped(screen.root, (one) =>
      one.text?.endsWith('of the library') ? { ...one, text: 'Library' } : one,
    ),
  });
  const pile = [screens[0], ...screens.slice(1).map(heading)];
  const made = wired(...pile);
  const before = next({ ...made, app: applyChange(made.app, surelyShared(made)) }, pile, 2);
  const inLayout = (one: Project): string =>
    emitReact(one, 'App')
      .files.flatMap((file) => ('text' in file && /^src\/layouts\/.*tsx$/.test(file.path) ? [file.text] : []))
      .join();
  expect(inLayout(before)).not.toContain('Library');
  const after = next(before, [shorter(screens[0]), ...pile.slice(1)], 3);
  expect(Object.values(after.app.layouts)[0].screens).toHaveLength(TABS.length - 1);
  expect(inLayout(after)).not.toContain('Library');
  expect(others(after)).toEqual(others(before));
});

test('what stands in a larger component stays with it: that is told what differs on one screen', () => {
  const menu = (label: string, y: number, ...entries: readonly string[]): string =>
    `<g data-name="${label} menu"><rect x="20" y="${y}" width="350" height="60" rx="6" fill="#fff"/><text x="30" y="${y + 20}" font-size="13">${label}</text>${entries.map((entry, i) => `<g data-name="${label} entry"><rect x="${30 + 110 * i}" y="${y + 30}" width="100" height="24" fill="#dde"/><text x="${40 + 110 * i}" y="${y + 46}" font-size="12">${entry}</text></g>`).join('')}</g>`;
  const withMenus = (name: string, last = 'Another'): Screen =>
    screenOf(
      svg(
        `<g id="Content"><text x="24" y="60" font-size="26">${name}</text></g><g id="Bar" data-name="Bar"><rect x="0" y="600" width="390" height="200" fill="#eee"/>${menu('Notices', 610, 'Late', 'Due', last)}${menu('Account', 690, 'Profile', 'Sign out')}</g>`,
      ),
      name.toLowerCase(),
    );
  const pile = TABS.map((name) => withMenus(name));
  const named = (pattern: RegExp): string[] =>
    pile.flatMap((screen) =>
      [...elementsByKey(screen).values()].flatMap(({ key, name }) => (pattern.test(name) ? [key] : [])),
    );
  const component = (name: string, places: readonly string[]): Component => ({
    ...Object.values(project.app.components)[0],
    kind: 'component',
    name,
    places,
  });
  const bare = projectOf(...pile);
  const before: Project = {
    ...bare,
    app: applyChange(
      bare.app,
      all([
        putComponent('bar', component('Bar', named(/^Bar$/))),
        putComponent('menu', component('Menu', named(/ menu$/))),
      ]),
    ),
  };
  expect(before.app.components.menu.places).toHaveLength(2 * TABS.length);
  const made = next(before, [withMenus(TABS[0], 'Missing'), ...pile.slice(1)], 2);
  expect(made.app.components).toEqual(before.app.components);
  const text = (file: string): string =>
    emitReact(made, 'App').files.flatMap((one) =>
      'text' in one && one.path.endsWith(file) ? [one.text] : [],
    )[0];
  expect(text('Bar.tsx')).toMatch(/= 'Another'/);
  expect(text('Home.tsx')).toContain('Missing');
  expect(typeErrors([emitReact(made, 'App')])).toEqual([]);
});

test('of several places on one screen the one that is built otherwise stands by itself', () => {
  const tool = (name: string, more = ''): string =>
    `<article class="tool"><h2>${name}</h2><p>Free today</p>${more}</article>`;
  const page = (more = ''): Screen =>
    pageOfHtml(
      `<main><h1>Tools</h1><section>${['Saw', 'Drill', 'Ladder', 'Cutter'].map((name, i) => tool(name, i ? '' : more)).join('')}</section></main>`,
      'tools',
    );
  const places = [...elementsByKey(page()).values()].flatMap(({ key, classes }) =>
    classes === 'tool' ? [key] : [],
  );
  const bare = projectOf(page());
  const before: Project = {
    ...bare,
    app: applyChange(bare.app, putComponent('tool', { name: 'Tool', kind: 'component', places })),
  };
  const text = (one: Project): string =>
    emitReact(one, 'App').files.flatMap((file) =>
      'text' in file && file.path.endsWith('Tool.tsx') ? [file.text] : [],
    )[0];
  const made = next(before, [page('<p>Due on Friday</p><ul><li>Bring it clean</li></ul>')], 2);
  expect(made.app.components.tool.apart).toHaveLength(1);
  expect(text(made)).toBe(text(before));
});
