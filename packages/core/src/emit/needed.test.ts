import { applyChange, putComponent } from '../change/change.ts';
import { findComponents } from '../components/find.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { figuresOf } from './figures.ts';
import { withWhatItNeeds } from './needed.ts';
import { targets } from './targets.ts';

const project = ((): Project => {
  const made = projectOf(
    screenWith('home', 'One', 'Two', 'Three'),
    screenWith('list', 'Four', 'Five', 'Six'),
  );
  const [{ name, kind, places }] = findComponents(made.design.screens);
  return { ...made, app: applyChange(made.app, putComponent('c1', { name, kind, places })) };
})();
const react = targets.react.emit(project, 'App');
const html = targets.html.emit(project, 'App');

test('a screen comes with its styles, records and components, and not with other screens or the project around it', () => {
  const path = react.fileOfScreen.get('home')!;
  const paths = withWhatItNeeds(react, path).map((file) => file.path);
  expect(paths[0]).toBe(path);
  expect(paths.filter((one) => one.startsWith('src/components/')).length).toBeGreaterThan(1);
  expect(paths).toContain('src/styles/shared.module.css');
  expect(paths.filter((one) => /screens\/(?!Home)|main|routes|package/.test(one))).toEqual([]);
});

test('a page comes with its sheets and modules', () => {
  const paths = withWhatItNeeds(html, html.fileOfScreen.get('home')!).map((file) => file.path);
  expect(paths).toEqual(expect.arrayContaining(['app/arrival.js', 'app/go.js', 'styles/base.css']));
  expect(paths.filter((one) => one.endsWith('.html'))).toHaveLength(1);
});

test('all that is asked for by any file is there', () => {
  for (const emitted of [react, html])
    for (const { path } of emitted.files) expect(withWhatItNeeds(emitted, path)[0].path).toBe(path);
  expect(() => withWhatItNeeds(react, 'src/nowhere.ts')).toThrow('there is no file "src/nowhere.ts"');
});

test('figures say how large code is, and how much of it is said again', () => {
  const figures = figuresOf(react);
  expect(figures).toMatchObject({ sameRules: 0, hardColors: expect.any(Number) });
  const parts = react.files.filter(({ path }) => /^src\/(screens|components)\/.*\.tsx$/.test(path));
  expect(figures.parts).toBe(parts.length);
  expect(figures.codeLines).toBeGreaterThan(20);
  expect(figures.longest!.path).toMatch(/\.tsx$/);
  expect(figuresOf(html)).toMatchObject({ mostGiven: null });
});

test('a prop that can be one of many counts once', () => {
  const text = "export interface AProps {\n  color:\n    | 'blue'\n    | 'red';\n  name?: string;\n}\n";
  const figures = figuresOf({
    files: [
      { path: 'package.json', text: '{}' },
      { path: 'src/components/A/A.tsx', text },
    ],
    fileOfScreen: new Map(),
  });
  expect(figures.mostGiven).toEqual({ path: 'src/components/A/A.tsx', props: 2 });
});
