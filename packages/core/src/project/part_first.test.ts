import { applyChange } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { partedAtFirst } from './part_first.ts';

const card = (name: string, i: number): string =>
  `<g data-name="Tool card ${i}"><rect x="24" y="${80 + i * 90}" width="342" height="80" rx="8" fill="#eee"/><circle cx="60" cy="${120 + i * 90}" r="20" fill="#a33"/><text x="100" y="${115 + i * 90}" font-size="16">${name}</text><text x="100" y="${140 + i * 90}" font-size="12">on shelf ${i}</text></g>`;
const shelf = (key: string, names: readonly string[]) =>
  screenOf(svg(`<text x="24" y="50" font-size="24">Shelf ${key}</text>${names.map(card).join('')}`), key);
const parted = (project: Project): Project => ({
  ...project,
  app: applyChange(project.app, partedAtFirst(project)),
});

test('what surely repeats is taken, by a name without numbers, and the code is shorter for it', () => {
  const project = projectOf(
    shelf('a', ['Saw', 'Drill', 'Ladder', 'Press', 'Planer']),
    shelf('b', ['Lathe', 'Vice', 'Anvil', 'Hoist']),
  );
  const made = parted(project);
  const components = Object.values(made.app.components);
  expect(components.map(({ name }) => name)).toEqual(['ToolCard']);
  expect(components[0].places.length).toBe(9);
  const emitted = emitReact(made, 'Made');
  expect(typeErrors([emitted])).toEqual([]);
  const lines = (files: typeof emitted.files): number =>
    files.reduce(
      (sum, file) => sum + ('text' in file && /screens|components/.test(file.path) ? file.text.length : 0),
      0,
    );
  expect(lines(emitted.files)).toBeLessThan(lines(emitReact(project, 'Made').files));
}, 60_000);

test('what does not repeat is left as it is', () => {
  const project = projectOf(shelf('a', ['Saw']), screenOf(svg('<text x="24" y="50">Help</text>'), 'b'));
  expect(parted(project).app).toEqual(project.app);
});
