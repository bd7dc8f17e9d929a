import { applyChange, putEdit, putInteraction } from '../change/change.ts';
import { pressablesOf } from '../links/pressable.ts';
import { pressTo } from '../model/interaction.ts';
import { editKey } from '../model/edit_key.ts';
import { type Project, walkElements } from '../model/project.ts';
import type { Screen } from '../model/design.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { type Answers } from './answers.ts';
import { Round } from './round.ts';
import { answered } from './answers.ts';
import { applyIteration } from './apply.ts';
import { planIteration } from './plan.ts';
import { moveDecided } from './resolve.ts';

const nothing = { assets: [], notices: [] };
const home = screenWith('home', 'Browse', 'Loans', 'Sign out');
const list = screenWith('list', 'Back', 'Reserve');
const project: Project = (() => {
  const made = projectOf(home, list);
  const [browse] = pressablesOf(home);
  return {
    ...made,
    app: applyChange(
      made.app,
      putInteraction(browse.element.key, pressTo({ kind: 'screen', screen: 'list' })),
    ),
  };
})();
const browse = pressablesOf(home)[0].element.key;
const next = screenWith('home', 'Loans', 'Sign out', 'Discover');
const keyOf = (screen: Screen, label: string): string =>
  pressablesOf(screen).find((one) => one.label === label)!.element.key;

function taken(answers: Answers, incoming: readonly Screen[] = [next, list], from = project) {
  const plan = answered(planIteration(from, incoming, { whole: true, sure: 0.99 }), answers);
  const { design, change } = applyIteration(from, plan, nothing, 2);
  return { plan, design, app: applyChange(from.app, change) };
}

test('what is answered goes where it was put, with its key, and is asked no more', () => {
  const { plan, design, app } = taken({ [browse]: { kind: 'on', element: keyOf(next, 'Discover') } });
  const screen = design.screens.find(({ key }) => key === 'home')!;
  expect(keyOf(screen, 'Discover')).toBe(browse);
  expect(app.interactions[browse].target).toEqual({ kind: 'screen', screen: 'list' });
  expect([plan.asks, plan.letGo]).toEqual([[], []]);
  expect(app.iterations['2']).toMatchObject({ kept: 1, byHand: 1, asked: 0, letGo: 0 });
  expect(app.setAside).toEqual({});
});

test('what is put on an element that stays another one is added to what that does', () => {
  const loans = keyOf(home, 'Loans');
  const wired = {
    ...project,
    app: applyChange(project.app, putInteraction(loans, pressTo({ kind: 'back' }))),
  };
  const plan = planIteration(wired, [next, list], { whole: true, sure: 0.1 });
  const kept = plan.kept.map(({ old }) => old.key);
  expect(kept).toContain(loans);
  const unsure = { ...plan, kept: plan.kept.filter(({ old }) => old.key !== browse) };
  const done = answered(
    {
      ...unsure,
      asks: [
        {
          id: browse,
          element: home.root.children.find(({ key }) => key === browse) ?? pressablesOf(home)[0].element,
          screen: home,
          about: {
            own: [{ table: 'interactions', key: browse, value: project.app.interactions[browse] }],
            named: [],
            minor: [],
          },
          why: 'gone',
          candidates: [],
          clashes: [],
        },
      ],
      letGo: [],
    },
    { [browse]: { kind: 'on', element: keyOf(next, 'Loans') } },
  );
  const { change } = applyIteration(wired, done, nothing, 2);
  const app = applyChange(wired.app, change);
  expect(app.interactions[loans].target).toEqual({ kind: 'back' });
  expect(app.interactions[`${loans}|2`].target).toEqual({ kind: 'screen', screen: 'list' });
  expect(app.interactions[browse]).toBeUndefined();
});

test('what is let go is listed, and answers about what is not asked say nothing', () => {
  const { plan, app } = taken({ [browse]: { kind: 'letGo' }, 'home:nowhere': { kind: 'letGo' } });
  expect(plan.letGo).toHaveLength(1);
  expect(Object.values(app.setAside)).toMatchObject([{ standing: 'letGo', label: 'Browse' }]);
});

describe('what went along with the wrong one', () => {
  const loans = keyOf(home, 'Loans');
  const wired = {
    ...project,
    app: applyChange(project.app, putInteraction(loans, pressTo({ kind: 'back' }))),
  };
  const same = screenWith('home', 'Browse', 'Loans', 'Sign out');
  const [toBrowse, toLoans] = ['Browse', 'Loans'].map((label) => keyOf(same, label));
  const targets = (app: Project['app']): Record<string, string> =>
    Object.fromEntries(Object.entries(app.interactions).map(([key, { target }]) => [key, target.kind]));

  test('is put on another element, which takes over its key', () => {
    const { design, app, plan } = taken(
      { [browse]: { kind: 'on', element: keyOf(same, 'Sign out') } },
      [same, list],
      wired,
    );
    expect(keyOf(design.screens[0], 'Sign out')).toBe(browse);
    expect(keyOf(design.screens[0], 'Browse')).not.toBe(browse);
    expect(plan.kept.find(({ isByHand }) => isByHand)).toMatchObject({
      old: { key: browse },
      now: { key: keyOf(same, 'Sign out') },
    });
    expect([targets(app), plan.byHand]).toEqual([{ [browse]: 'screen', [loans]: 'back' }, 1]);
  });

  test('two change places', () => {
    const { design, app } = taken(
      { [browse]: { kind: 'on', element: toLoans }, [loans]: { kind: 'on', element: toBrowse } },
      [same, list],
      wired,
    );
    expect([keyOf(design.screens[0], 'Loans'), keyOf(design.screens[0], 'Browse')]).toEqual([browse, loans]);
    expect(targets(app)).toEqual({ [browse]: 'screen', [loans]: 'back' });
  });

  test('is let go, and listed', () => {
    const { app, plan } = taken({ [browse]: { kind: 'letGo' } }, [same, list], wired);
    expect(plan.letGo.map(({ element }) => element.key)).toEqual([browse]);
    expect(targets(app)).toEqual({ [loans]: 'back' });
    expect(Object.values(app.setAside)).toMatchObject([{ label: 'Browse', standing: 'letGo' }]);
  });

  test('is moved after it was taken in, and what the other does stays', () => {
    const moved = applyChange(wired.app, moveDecided(wired.app, browse, loans));
    expect(targets(moved)).toEqual({ [loans]: 'back', [`${loans}|2`]: 'screen' });
  });
});

describe('a text that both changed', () => {
  const text = (screen: Screen, says: string): string => {
    let key = '';
    walkElements(screen.root, (element) => {
      if (element.text === says) ({ key } = element);
    });
    return key;
  };
  const edited = {
    ...project,
    app: applyChange(project.app, putEdit(editKey(text(home, 'Loans'), 'text'), 'My loans')),
  };
  const incoming = [screenWith('home', 'Browse', 'Your loans', 'Sign out'), list];
  const key = text(home, 'Loans');

  test.each([
    ['waits as it was made', undefined, 'My loans', ['both']],
    ['stays one’s own', { kind: 'own' } as const, 'My loans', []],
    ['gives way to the design’s', { kind: 'design' } as const, undefined, []],
  ])('%s', (_, answer, edit, waiting) => {
    const plan = planIteration(edited, incoming, { whole: true, sure: 0 });
    expect(plan.asks).toMatchObject([
      {
        why: 'bothChanged',
        clashes: [{ property: 'text', was: 'Loans', mine: 'My loans', design: 'Your loans' }],
      },
    ]);
    const { change } = applyIteration(edited, answered(plan, answer ? { [key]: answer } : {}), nothing, 2);
    const app = applyChange(edited.app, change);
    expect(app.edits[editKey(key, 'text')]).toBe(edit);
    expect(Object.values(app.setAside).map(({ standing }) => standing)).toEqual(waiting);
  });
});

test('a round tells what it does, draws both sides, and changes nothing', () => {
  const round = new Round(project, { screens: [next, list], ...nothing }, true, (hash) => `/${hash}`);
  const report = round.report({});
  expect(report.screens.map(({ name, standing }) => `${name} ${standing}`)).toEqual([
    'Home changed',
    'List same',
  ]);
  expect(report.links.kept + report.links.asked + report.links.letGo).toBe(1);
  const { before, after, differences, shown, incoming, named } = round.screen(0, {});
  expect(before!.html).toContain('Browse');
  expect(after!.html).toContain('Discover');
  expect(differences.length).toBeGreaterThan(0);
  for (const one of differences)
    for (const key of one.nows) expect(after!.html).toContain(`data-key="${key}"`);
  const discover = keyOf(next, 'Discover');
  expect(incoming[shown[discover]]).toBe(discover);
  expect(named.map(({ label }) => label)).toContain('Discover');
  const effects = round.effects({ [browse]: { kind: 'letGo' } });
  expect([...effects.graph.links]).toEqual([['home list', 'gone']]);
  expect(effects.lost).toEqual(['List']);
});
