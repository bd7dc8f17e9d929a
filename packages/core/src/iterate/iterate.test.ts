import { type EmittedProject } from '../emit/emitted.ts';
import fc from 'fast-check';
import {
  all,
  applyChange,
  invertChange,
  putDismissed,
  putEdit,
  putInteraction,
  putLayer,
  putRefused,
} from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import type { Screen } from '../model/design.ts';
import { editKey } from '../model/edit_key.ts';
import { pressTo } from '../model/interaction.ts';
import { stringifySorted } from '../json/json.ts';
import { findElement, screenOf as screenHolding } from '../model/places.ts';
import { elementsByKey, type Project, walkElements } from '../model/project.ts';
import { packProject, unpackProject } from '../project/archive.ts';
import { projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { editScreen } from '../testing/edit_tree.ts';
import { applyIteration } from './apply.ts';
import { planIteration, type PlanOptions } from './plan.ts';
import { letGoOf, putOn } from './resolve.ts';

const nothing = { assets: [], notices: [] };

/** The project after an iteration, with what it planned. */
function iterated(
  project: Project,
  incoming: readonly Screen[],
  options: Partial<PlanOptions> = {},
  iteration = 2,
) {
  const plan = planIteration(project, incoming, { whole: true, ...options });
  const { design, change } = applyIteration(project, plan, nothing, iteration);
  return { plan, design, app: applyChange(project.app, change), change };
}

/** A key of an element whose text is this. */
function keyOf(screen: Screen, text: string): string {
  let key = '';
  walkElements(screen.root, (element, parents) => {
    if (element.text === text) key = parents.at(-1)!.key;
  });
  return key;
}

const home = screenWith('home', 'Browse', 'Loans', 'Sign out');
const list = screenWith('list', 'Hedge trimmer', 'Pillar drill', 'Back');
const wiredProject = (): Project => {
  const project = projectOf(home, list);
  const links = ['Browse', 'Loans'].map((text) =>
    putInteraction(keyOf(home, text), pressTo({ kind: 'screen', screen: 'list' })),
  );
  return { ...project, app: links.reduce(applyChange, project.app) };
};

test('with something put first, every decision stays on its element', () => {
  const project = wiredProject();
  const next = screenWith('home', 'New here?', 'Browse', 'Loans', 'Sign out');
  const { design, app, plan } = iterated(project, [next, list]);
  for (const text of ['Browse', 'Loans']) {
    const key = keyOf(design.screens[0], text);
    expect(key).toBe(keyOf(home, text));
    expect(app.interactions[key]?.target).toEqual({ kind: 'screen', screen: 'list' });
  }
  expect([plan.kept.length, plan.asks, plan.letGo]).toEqual([2, [], []]);
  expect(app.iterations['2']).toMatchObject({ kept: 2, asked: 0, letGo: 0 });
});

test('new elements get keys that no element had, also when one goes and another comes', () => {
  const project = wiredProject();
  const without = iterated(project, [screenWith('home', 'Browse', 'Loans'), list]);
  const again = iterated(without, [screenWith('home', 'Browse', 'Loans', 'Help'), list], {}, 3);
  const keys = [home, list, ...without.design.screens].flatMap((screen) => [...elementsByKey(screen).keys()]);
  expect(keys).not.toContain(keyOf(again.design.screens[0], 'Help'));
});

test('what is gone with nothing like it is let go, listed, and can be put on another element', () => {
  const project = wiredProject();
  const { app, design } = iterated(project, [
    screenOf(svg('<text x="20" y="60" font-size="28">All is new</text>'), 'home'),
    list,
  ]);
  const aside = Object.entries(app.setAside);
  expect(aside.map(([, { screen, entries }]) => [screen, entries.length])).toEqual([
    ['home', 1],
    ['home', 1],
  ]);
  expect(Object.keys(app.interactions)).toEqual([]);
  const target = design.screens[0].root.children[0].key;
  const put = applyChange(app, putOn(app, aside[0][0], target));
  expect(put.interactions[target]?.target).toEqual({ kind: 'screen', screen: 'list' });
  expect(Object.keys(put.setAside)).toHaveLength(1);
  const letGo = applyChange(app, letGoOf(app, aside[1][0]));
  expect(letGo.setAside[aside[1][0]].standing).toBe('letGo');
});

test('what may be another element now is asked about, and nothing moves by itself', () => {
  const project = wiredProject();
  const { app, design, plan } = iterated(project, [screenWith('home', 'Tools', 'Lanterns'), list]);
  expect(plan.asks.length).toBeGreaterThan(0);
  for (const ask of plan.asks) {
    expect(app.interactions[ask.element.key]).toBeUndefined();
    expect(findElement(design, ask.element.key)).toBeNull();
  }
  const waiting = Object.values(app.setAside).filter(({ standing }) => standing === 'asked');
  expect(waiting).toHaveLength(plan.asks.length);
  for (const { candidates } of waiting)
    for (const key of candidates) expect(findElement(design, key)).not.toBeNull();
});

test('a screen in a renamed file keeps its key, its name and its route; of a few files the others stay', () => {
  const project = wiredProject();
  const renamed = { ...list, key: 'x', source: { ...list.source, file: 'shelf.svg' } };
  const whole = iterated(project, [home, renamed]);
  expect(whole.plan.screens.map(({ standing }) => standing)).toEqual(['same', 'renamed']);
  expect(whole.app.screens).toEqual(project.app.screens);
  const few = iterated(project, [home], { whole: false });
  expect(few.design.screens.map(({ key }) => key)).toEqual(['home', 'list']);
  const fewer = iterated(project, [home], { whole: true });
  expect([fewer.design.screens.length, Object.keys(fewer.app.screens)]).toEqual([1, ['home']]);
  expect(Object.values(fewer.app.setAside)).toMatchObject([{ screen: 'list', standing: 'letGo' }]);
});

test('elements that went to a screen of their own keep what was decided, and the project opens again', () => {
  const row = (i: number, name: string): string =>
    `<g data-name="Row"><rect x="24" y="${100 + i * 70}" width="342" height="60" fill="#eee"/><text x="40" y="${135 + i * 70}" font-size="16">${name}</text></g>`;
  const shelf = screenOf(
    svg(['Saw', 'Drill', 'Press', 'Ladder'].map((name, i) => row(i, name)).join('')),
    'shelf',
  );
  const base = projectOf(shelf);
  const key = keyOf(shelf, 'Ladder');
  const app = applyChange(base.app, putInteraction(key, pressTo({ kind: 'back' })));
  const first = screenOf(svg(row(0, 'Saw') + row(1, 'Drill')), 'shelf');
  const rest = screenOf(svg(row(0, 'Press') + row(1, 'Ladder')), 'more');
  const made = iterated({ ...base, app }, [first, rest]);
  const known = Object.values(made.app.setAside).map(({ element }) => element);
  if (!known.includes(key)) {
    expect(screenHolding(made.design, key)).toBe('more');
    expect(made.app.interactions[key]?.target).toEqual({ kind: 'back' });
  }
  const archive = packProject({ name: 'Parted', design: made.design, app: made.app, bytes: new Map() });
  const opened = unpackProject(archive);
  expect(stringifySorted([opened.design, opened.app])).toBe(stringifySorted([made.design, made.app]));
});

test('new screens get keys apart from those of the project and from each other', () => {
  const from = (screen: Screen, key: string, file: string): Screen => ({
    ...screen,
    key,
    source: { ...screen.source, file },
  });
  const { design } = iterated(
    wiredProject(),
    [from(screenWith('home', 'One'), 'home', 'a.svg'), from(screenWith('home', 'Two'), 'home-2', 'b.svg')],
    { whole: false },
  );
  expect(design.screens.map(({ key }) => key)).toEqual(['home', 'list', 'home-2', 'home-2-2']);
});

test('what somebody changed by hand and the design changes, too, is asked about', () => {
  const project = wiredProject();
  const [leaf] = [...elementsByKey(home).values()].filter(({ text }) => text === 'Browse');
  const app = applyChange(project.app, putEdit(editKey(leaf.key, 'text'), 'Have a look'));
  const { plan, app: after } = iterated({ ...project, app }, [
    screenWith('home', 'Browse all', 'Loans', 'Sign out'),
    list,
  ]);
  const both = plan.asks.filter(({ why }) => why === 'bothChanged');
  const unsure = plan.asks.filter(({ why }) => why !== 'bothChanged');
  // Kept and said, or set aside: never lost, never silently over the new text.
  expect(both.length + unsure.filter(({ element }) => element.key === leaf.key).length).toBe(1);
  if (both.length) expect(after.edits[editKey(leaf.key, 'text')]).toBe('Have a look');
});

test('the same screens again change nothing but the record, and how code goes on being written', () => {
  const project = wiredProject();
  const { design, app, plan } = iterated(project, structuredClone([home, list]));
  expect(design.screens.map((screen) => stringifySorted(screen))).toEqual(
    [home, list].map((one) => stringifySorted(one)),
  );
  expect({ ...app, iterations: {}, code: {} }).toEqual({ ...project.app, iterations: {}, code: {} });
  expect(plan.screens.map(({ standing }) => standing)).toEqual(['same', 'same']);
});

const linesOf = ({ files }: EmittedProject): Map<string, string> =>
  new Map(files.flatMap((file) => ('text' in file ? [[file.path, file.text] as const] : [])));

/** Lines of the code that a round changed, each with its file. */
function linesChanged(project: Project, incoming: readonly Screen[]): string[] {
  const { design, app } = iterated(project, incoming);
  const [before, after] = [linesOf(emitReact(project, 'Test')), linesOf(emitReact({ design, app }, 'Test'))];
  expect([...after.keys()]).toEqual([...before.keys()]);
  return [...after].flatMap(([path, text]) => {
    const old = before.get(path)!.split('\n');
    return text.split('\n').flatMap((line, i) => (line === old[i] ? [] : [`${path}: ${line.trim()}`]));
  });
}

test('the code stays calm: one text that changed changes one line, and other screens are the same bytes', () => {
  const changed = linesChanged(wiredProject(), [
    screenWith('home', 'Browse', 'My loans', 'Sign out'),
    structuredClone(list),
  ]);
  // The words on the screen, and the same words in the test that presses them.
  expect(changed.filter((line) => line.includes('screens/'))).toHaveLength(1);
  expect(changed.every((line) => line.includes('My loans'))).toBe(true);
});

test('an element is called in code after what it is, though what it says and is called changes', () => {
  const drawn = (text: string, id: string): Screen =>
    screenOf(
      svg(
        `<text x="20" y="60" font-size="28">Tools</text><g id="${id}"><rect x="20" y="90" width="300" height="44" fill="#ddd"/><text x="40" y="118">${text}</text></g>`,
      ),
      'home',
    );
  const project = projectOf(drawn('Search 214 tools', 'Search_field'));
  const renamed = linesChanged(project, [drawn('Search 230 tools', 'Search_bar')]);
  expect(renamed).toHaveLength(1);
  expect(renamed[0]).toContain('styles.fieldText');
  expect(renamed[0]).toContain('Search 230 tools');
});

test('an iteration is one change, and its inverse gives back the very same bytes', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      const project = wiredProject();
      const { change, app } = iterated(project, [editScreen(home, seed, 6).screen, list]);
      const back = applyChange(app, invertChange(project.app, change));
      expect(stringifySorted(back)).toBe(stringifySorted(project.app));
    }),
    { numRuns: 30 },
  );
});

test('after edits by chance nothing is lost, and what is kept is on its own element', () => {
  const base = projectOf(home, list);
  const decided = [...elementsByKey(home).values()].filter(({ kind }) => kind === 'box').slice(1);
  const app = decided.reduce((at, { key }) => applyChange(at, putLayer(key, { role: 'button' })), base.app);
  let [kept, moved] = [0, 0];
  for (let seed = 1; seed <= 400; seed++) {
    const edited = editScreen(home, seed, 1 + (seed % 4));
    const { design, app: after, plan } = iterated({ ...base, app }, [edited.screen, list]);
    const places = new Map(
      [...elementsByKey(edited.screen).values()].map((one) => [one.source.path, one.key]),
    );
    let here = 0;
    for (const key of Object.keys(after.layers)) {
      const element = findElement(design, key);
      if (!element || screenHolding(design, key) !== 'home') continue;
      here++;
      if (edited.was.get(places.get(element.source.path)!) !== key) moved++;
    }
    // Each is kept, asked about or let go.
    expect(here + plan.asks.length + plan.letGo.length).toBe(decided.length);
    kept += here;
  }
  // Two buttons that lost their labels and changed places cannot be told apart.
  expect([kept > 900, moved / kept < 0.002]).toEqual([true, true]);
});

test('what was refused and let stand about an element goes along with it, and is no reason to ask', () => {
  const project = projectOf(home, list);
  const from = keyOf(home, 'Browse');
  const said = all([
    putRefused(`role ${from} link`, true),
    putDismissed(`tap-size ${from}`, 'small by wish'),
  ]);
  const app = applyChange(project.app, said);
  const { plan } = iterated({ ...project, app }, [screenWith('home', 'Loans', 'Sign out'), list]);
  expect([plan.asks, plan.letGo, plan.kept]).toEqual([[], [], []]);
  // Put on another element, with something that waits, it is said of that one.
  const wired = applyChange(app, putInteraction(from, pressTo({ kind: 'screen', screen: 'list' })));
  const next = screenOf(svg('<text x="20" y="60" font-size="28">All is new</text>'), 'home');
  const after = iterated({ ...project, app: wired }, [next, list]);
  const [id] = Object.keys(after.app.setAside);
  const to = after.design.screens[0].root.key;
  const put = applyChange(after.app, putOn(after.app, id, to));
  expect(put.refused[`role ${to} link`]).toBe(true);
  expect(put.dismissed[`tap-size ${to}`]).toBe('small by wish');
});

test('what comes back gets what was decided about it back, under its own key', () => {
  const project = wiredProject();
  const key = keyOf(home, 'Browse');
  const without = iterated(project, [screenWith('home', 'Loans', 'Sign out'), list]);
  const gone = { design: without.design, app: without.app };
  // Where something was like it, it waits as asked; either way it is not on the screen any more.
  expect(gone.app.interactions[key]).toBeUndefined();
  expect(Object.values(gone.app.setAside).map(({ label }) => label)).toContain('Browse');
  const again = iterated(gone, [screenWith('home', 'Loans', 'Sign out', 'Browse'), list], {}, 3);
  expect(
    keyOf(
      again.design.screens.find((screen) => screen.key === 'home')!,
      'Browse',
    ),
  ).toBe(key);
  expect(again.app.interactions[key]?.target).toEqual({ kind: 'screen', screen: 'list' });
  expect(Object.values(again.app.setAside).map(({ label }) => label)).not.toContain('Browse');
  expect(again.app.iterations['3'].back).toBe(1);
  const back = applyChange(again.app, invertChange(gone.app, again.change));
  expect(stringifySorted(back)).toBe(stringifySorted(gone.app));
});
