import { all, applyChange, type Change, putVariable, putInteraction, putScreen } from '../change/change.ts';
import { findingsOf } from '../findings/rules.ts';
import type { Interaction } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { to, wired } from '../testing/wired.ts';
import { shortestWay } from './analysis.ts';
import { graphOf } from './graph.ts';

const signedIn = putVariable('in', { name: 'Signed in', initial: false });
const changed = (project: Project, ...changes: Change[]): Project => ({
  ...project,
  app: applyChange(project.app, all([signedIn, ...changes])),
});
const more = (project: Project, key: string, extra: Partial<Interaction>): Change =>
  putInteraction(key, { ...project.app.interactions[key], ...extra });
const first = (project: Project, screen: string): string =>
  Object.keys(project.app.interactions).find((key) => key.startsWith(`${screen}:`))!;
const guard = ({ app }: Project, screen: string, otherwise: string): Change =>
  putScreen(screen, { ...app.screens[screen], guard: { condition: 'in', is: true, otherwise } });
const reached = (project: Project): string => [...graphOf(project).reached].sort().join('');

const chain = wired('a>b b>c');

test('a link whose condition never holds leads nowhere, until something brings it about', () => {
  const closed = changed(chain, more(chain, first(chain, 'b'), { when: { condition: 'in', is: true } }));
  expect(reached(closed)).toBe('ab');
  const open = changed(
    closed,
    more(closed, first(closed, 'a'), { before: [{ kind: 'set', condition: 'in', value: true }] }),
  );
  expect(reached(open)).toBe('abc');
});

test('a guarded screen leads to the one shown instead while its condition does not hold', () => {
  const project = wired('a>b b>c d>a');
  const guarded = changed(project, guard(project, 'b', 'd'));
  expect(reached(guarded)).toBe('ad');
  expect(shortestWay(graphOf(guarded), 'a', 'd')?.map((way) => [way.to, way.turnedAway])).toEqual([
    ['d', 'b'],
  ]);
  const said = findingsOf(guarded).filter((finding) => finding.code === 'unreachable');
  expect(said.map((finding) => finding.message)).toEqual([
    'Nobody reaches B from A: it is entered only if signed in, which nothing on the way brings about.',
    'Nobody reaches C from A: only B leads there, which nobody reaches either.',
  ]);
});

test('what a link makes so holds when it arrives', () => {
  const project = wired('a>b d>a');
  const through = changed(
    project,
    guard(project, 'b', 'd'),
    more(project, first(project, 'a'), { before: [{ kind: 'set', condition: 'in', value: true }] }),
  );
  expect(shortestWay(graphOf(through), 'a', 'b')).toHaveLength(1);
  // Nobody is turned away any more on that link.
  expect(
    graphOf(through)
      .ways.get('a')!
      .map((way) => way.to),
  ).toEqual(['b']);
});

test('guards that send each other round show nothing, and end', () => {
  const project = wired('a>b');
  const round = changed(project, guard(project, 'b', 'c'), guard(project, 'c', 'b'));
  expect(reached(round)).toBe('a');
});

test('an overlay is reached by what opens it and leads on; closing it leads nowhere new', () => {
  const project = wired('a>c b>d');
  const over = changed(
    project,
    putScreen('b', { ...project.app.screens.b, use: 'overlay' }),
    more(project, first(project, 'a'), { target: { kind: 'open', overlay: 'b' } }),
  );
  expect(reached(over)).toBe('abd');
  expect(graphOf(over).overlays).toEqual(['b']);
  expect(graphOf(over).screens).toEqual(['a', 'c', 'd']);
});

test('an overlay that nothing closes, or nothing opens, is an error with what mends it', () => {
  const project = wired('a>c');
  const stuck = changed(
    project,
    putScreen('b', {
      ...project.app.screens.b,
      use: 'overlay',
      overlay: { kind: 'dialog', modal: true, escape: false, outside: false },
    }),
  );
  const codes = (of: Project): string[] =>
    findingsOf(of)
      .filter((finding) => finding.code.startsWith('overlay-'))
      .map((finding) => finding.code);
  expect(codes(stuck)).toEqual(['overlay-without-exit', 'overlay-unopened']);
  const fix = findingsOf(stuck).find((finding) => finding.code === 'overlay-without-exit')!.fix!;
  expect(codes({ ...stuck, app: applyChange(stuck.app, fix.change) })).toEqual(['overlay-unopened']);
});

test('an edit of one link gives the graph that building it anew gives', () => {
  const base = wired('a>b b>c c>d a>d');
  graphOf(base);
  const key = first(base, 'b');
  for (const change of [
    putInteraction(key, null),
    putInteraction(key, to({ kind: 'screen', screen: 'a' })),
    putInteraction(`${key}|2`, { ...to({ kind: 'back' }), on: 'long-press' }),
    putInteraction('d:2', to({ kind: 'screen', screen: 'a' })),
  ]) {
    const app = applyChange(base.app, change);
    const quick = graphOf({ design: base.design, app });
    const anew = graphOf({ design: base.design, app: { ...app, interactions: { ...app.interactions } } });
    for (const part of [
      'screens',
      'links',
      'reached',
      'counts',
      'departures',
      'arrivals',
      'elements',
    ] as const)
      expect(quick[part]).toEqual(anew[part]);
  }
});
