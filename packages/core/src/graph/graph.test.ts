import fc from 'fast-check';
import { applyChange, putInteraction, putScreen, setStart } from '../change/change.ts';
import { findingsOf, isAtLeast, stationOf } from '../findings/rules.ts';
import type { Project } from '../model/project.ts';
import { to, wired } from '../testing/wired.ts';
import { graphOf, isDeadEnd } from './graph.ts';

test.each([
  ['', 'a', 'abcd'],
  ['a>b b>c', 'abc', 'cd'],
  ['a>b b>a c>d', 'ab', 'd'],
  ['a>b b>b', 'ab', 'bcd'],
  ['a>b b><', 'ab', 'cd'],
  ['a>b b>^', 'ab', 'cd'],
  ['a>b b>c b!', 'a', 'acd'],
])('%j reaches %s, and %s have no way out', (script, reached, deadEnds) => {
  const graph = graphOf(wired(script));
  expect([...graph.reached].join('')).toBe(reached);
  expect(graph.screens.filter((key) => isDeadEnd(graph.departures.get(key)!, key)).join('')).toBe(deadEnds);
});

test('elements are counted by how they stand', () => {
  const { counts } = graphOf(wired('a>b a>c a. b>c c!'));
  expect(counts).toEqual({
    elements: 8,
    live: 1,
    open: 5,
    broken: 2,
    still: 1,
    unreachable: 1,
    deadEnds: 2,
    planned: 0,
  });
});

test('a broken link stays listed with the name that it had', () => {
  const skipped = graphOf(wired('a>b b!'));
  expect(skipped.links).toEqual([
    expect.objectContaining({ from: 'a', to: 'b', label: 'One', problem: 'B is skipped' }),
  ]);
  expect(graphOf(wired('a>b b-')).links[0].problem).toBe('B is gone');
  expect(skipped.arrivals.has('b')).toBe(false);
});

test('what does not look pressable can be wired and is numbered last', () => {
  const { design, app } = wired('');
  const graph = graphOf({
    design,
    app: applyChange(app, putInteraction('a:', to({ kind: 'screen', screen: 'b' }))),
  });
  expect(graph.elements.get('a')!.map((state) => [state.number, state.standing])).toEqual([
    [1, 'open'],
    [2, 'open'],
    [3, 'open'],
    [4, 'live'],
  ]);
});

test('the graph is computed once for a pair of documents', () => {
  const project = wired('a>b');
  expect(graphOf({ ...project })).toBe(graphOf(project));
});

test('reachability is what walking gives', () => {
  const letter = fc.constantFrom('a', 'b', 'c', 'd');
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(letter, letter), { maxLength: 10, selector: ([x, y]) => x + y }),
      (pairs) => {
        const uses = new Map<string, number>();
        const kept = pairs.filter(
          ([from]) => (uses.set(from, (uses.get(from) ?? 0) + 1), uses.get(from)! <= 3),
        );
        const graph = graphOf(wired(kept.map(([x, y]) => `${x}>${y}`).join(' ')));
        const walked = new Set(['a']);
        for (let i = 0; i < 4; i++) for (const [x, y] of kept) if (walked.has(x)) walked.add(y);
        expect([...graph.reached].sort()).toEqual([...walked].sort());
      },
    ),
  );
});

describe('findings', () => {
  // The screens of these tests are drawn alike, which intake has something to say about.
  const ofGraph = (project: Project) => findingsOf(project).filter(({ code }) => stationOf(code) === 'map');
  const codes = (project: Project): string[] =>
    ofGraph(project).map((finding) => `${finding.code} ${finding.screen ?? '·'}`);

  test('each rule says what it is for', () => {
    expect(codes(wired('a>b a>c a. b>a b. b. c>a c. c. d>a d. d.'))).toEqual(['unreachable d']);
    expect(codes(wired('a>b a. a. b. b. b. c- d-'))).toEqual(['dead-end b']);
    expect(codes(wired('a>b a. a. b!  c- d-'))).toEqual(['broken-link a', 'dead-end a', 'skipped-screen b']);
    expect(codes(wired('a. a. b- c- d-'))).toEqual(['dead-end a', 'open-end a']);
  });

  test('a fix mends what it is for', () => {
    for (const script of ['a>b b!', 'a>b c.', '']) {
      let project = wired(script);
      for (const finding of ofGraph(project)) {
        if (!finding.fix) continue;
        project = { ...project, app: applyChange(project.app, finding.fix.change) };
        expect(
          ofGraph(project).filter(
            ({ code, element }) => code === finding.code && element === finding.element,
          ),
        ).toEqual([]);
      }
    }
  });

  test('clashing routes, a lost start and lost elements are errors', () => {
    const project = wired('');
    let { app } = project;
    app = applyChange(app, putScreen('b', { ...app.screens.b, route: '/A' }));
    app = applyChange(app, setStart('gone'));
    app = applyChange(app, putInteraction('a:99', to({ kind: 'back' })));
    const errors = findingsOf({ ...project, app }).filter((finding) => isAtLeast(finding, 'error'));
    expect(errors.map((finding) => finding.code)).toEqual([
      'lost-element',
      'no-start',
      'route-clash',
      'route-clash',
    ]);
    expect(errors[1].fix!.label).toBe('Start with A');
  });
});
