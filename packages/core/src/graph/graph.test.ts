import fc from 'fast-check';
import { applyChange, putEdit, putInteraction, putScreen, putStill, setStart } from '../change/change.ts';
import { findingsOf, isAtLeast, stationOf } from '../findings/rules.ts';
import { settle } from '../layers/settle.ts';
import { pressablesOf } from '../links/pressable.ts';
import { editKey } from '../model/edit_key.ts';
import type { Project } from '../model/project.ts';
import { to, wired } from '../testing/wired.ts';
import { graphOf, isDeadEnd, type ScreenGraph } from './graph.ts';

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

test('after edits of links, of what is still and of texts it is what it is from nothing', () => {
  const screen = fc.constantFrom('a', 'b', 'c', 'd');
  const nth = fc.integer({ min: 0, max: 2 });
  const edit = fc.oneof(
    fc.tuple(fc.constant('link'), screen, nth, screen),
    fc.tuple(fc.constant('still'), screen, nth, screen),
    fc.tuple(fc.constant('text'), screen, nth, fc.constantFrom('One', 'More', '')),
    fc.tuple(fc.constant('size'), screen, nth, fc.constantFrom('12px', '20px')),
  );
  const plain = ({ ways: _ways, reached, ...graph }: ScreenGraph): unknown =>
    JSON.parse(
      JSON.stringify({ ...graph, links: graph.links, reached: [...reached] }, (_, value: unknown) =>
        value instanceof Map ? [...value] : value,
      ),
    );
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
      let project = wired('a>b b>c');
      const keys = new Map(
        project.design.screens.map((one) => [one.key, pressablesOf(one).map(({ element }) => element.key)]),
      );
      graphOf(project);
      for (const [kind, on, i, what] of edits) {
        const key = keys.get(on)![i];
        const change =
          kind === 'link'
            ? putInteraction(key, to({ kind: 'screen', screen: what }))
            : kind === 'still'
              ? putStill(key, true)
              : putEdit(editKey(key, kind === 'text' ? 'text' : 'fontSize'), what);
        project = { ...project, app: applyChange(project.app, change) };
        // As the views look at it: after it was settled.
        const settled = graphOf(settle(project));
        const anew = JSON.parse(JSON.stringify(project)) as Project;
        expect(plain(settled)).toEqual(plain(graphOf(settle(anew))));
        expect(plain(graphOf(project))).toEqual(plain(settled));
      }
    }),
    { numRuns: 60 },
  );
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
