import { codeOf } from './parts.ts';
import fc from 'fast-check';
import { applyChange, putLayer } from '../../change/change.ts';
import { addToDesign } from '../../intake/batch.ts';
import { cleanScreen } from '../../intake/gate.ts';
import { takeIn } from '../../project/take_in.ts';
import { applyIteration } from '../../iterate/apply.ts';
import { planIteration } from '../../iterate/plan.ts';
import { emptyDesign, type Screen } from '../../model/design.ts';
import { emptyApp } from '../../model/app.ts';
import type { Project } from '../../model/project.ts';
import { packProject, unpackProject } from '../../project/archive.ts';
import { screenOf, svg } from '../../testing/build.ts';
import { keepCode } from './before.ts';
import { emitReact } from '../react/emit_react.ts';

interface Row {
  readonly text: string;
  readonly fill: string;
  readonly x: number;
  readonly icon: string;
}

/** A screen of rows, each with a background, a drawing and a text. */
const drawn = (key: string, rows: readonly Row[]): Screen =>
  cleanScreen(
    screenOf(
      svg(
        rows
          .map(
            ({ text, fill, x, icon }, i) =>
              `<g id="Row_${i}" data-name="Row" transform="translate(${x} ${i * 60})"><rect width="300" height="48" rx="8" fill="${fill}"/><g id="Icon_${i}" data-name="Icon arrow"><path d="${icon}" stroke="#222" fill="none"/></g><text x="50" y="30" font-size="15" fill="#222222">${text}</text></g>`,
          )
          .join(''),
      ),
      key,
    ),
  ).screen!;

const row = fc.record({
  text: fc.constantFrom('Saw', 'Drill', 'Plane', 'Rasp'),
  fill: fc.constantFrom('#ffffff', '#eeeeee', '#123456'),
  x: fc.constantFrom(0, 8, 20),
  icon: fc.constantFrom('M6 3 L11 8 L6 13', 'M2 2 h12 v12 z'),
});
const rows = fc.array(row, { minLength: 1, maxLength: 5 });

const nothing = { assets: [], notices: [] };

function next(project: Project, incoming: readonly Screen[], iteration: number): Project {
  const plan = planIteration(project, incoming, { whole: true });
  const { design, change } = applyIteration(project, plan, nothing, iteration);
  return { design, app: applyChange(project.app, change) };
}

/** A first round, with nothing taken for a component: what one component is given is not one screen's affair. */
function first(screens: readonly Screen[]): Project {
  const design = addToDesign(emptyDesign, { ...nothing, screens });
  return { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens)) };
}

/** The files of a screen, by path. */
function filesOf(project: Project, screens: readonly string[]): Map<string, string> {
  const { files, fileOfScreen } = emitReact(project, 'App');
  const folders = screens.map((key) => fileOfScreen.get(key)!.replace(/[^/]*$/, ''));
  return new Map(
    files.flatMap((file) =>
      'text' in file && folders.some((folder) => file.path.startsWith(folder))
        ? [[file.path, file.text] as const]
        : [],
    ),
  );
}

test('the files of screens that an iteration leaves alone are the same to the byte, also after a save', () => {
  fc.assert(
    fc.property(fc.array(rows, { minLength: 3, maxLength: 4 }), rows, rows, (screens, changed, added) => {
      const came = screens.map((one, i) => drawn(`screen-${i}`, one));
      const project = first(came);
      const alone = came.slice(1).map(({ key }) => key);
      const before = filesOf(project, alone);
      const second = next(project, [drawn('screen-0', changed), ...came.slice(1), drawn('more', added)], 2);
      expect(filesOf(second, alone)).toEqual(before);
      const third = next(
        unpackProject(packProject({ ...second, name: 'App', bytes: new Map() })),
        [drawn('screen-0', added), ...came.slice(1)],
        3,
      );
      expect(filesOf(third, alone)).toEqual(before);
    }),
    { numRuns: 40 },
  );
});

test('code that is kept is written the same', () => {
  fc.assert(
    fc.property(fc.array(rows, { minLength: 1, maxLength: 4 }), (screens) => {
      const project = first(screens.map((one, i) => drawn(`screen-${i}`, one)));
      const kept = { ...project, app: applyChange(project.app, keepCode(project.app, codeOf(project))) };
      expect(emitReact(kept, 'App').files).toEqual(emitReact(project, 'App').files);
      expect(keepCode(kept.app, codeOf(kept))).toEqual({ kind: 'all', changes: [] });
    }),
    { numRuns: 40 },
  );
});

test('a class is called anew when a person names its element', () => {
  const same = { text: 'Saw', fill: '#eeeeee', x: 0, icon: 'M6 3 L11 8 L6 13' };
  const screens = [drawn('a', [same]), drawn('b', [{ ...same, x: 20, fill: '#123456' }])];
  const project = next(first(screens), screens, 2);
  const [, { root }] = project.design.screens;
  const key = root.children[0].key;
  const named = { ...project, app: applyChange(project.app, putLayer(key, { name: 'Shelf' })) };
  const text = [...filesOf(named, ['b']).values()].join('\n');
  expect(text).toMatch(/\.shelf\b/);
});
