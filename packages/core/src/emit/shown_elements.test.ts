import fc from 'fast-check';
import { projectOf, screenWith } from '../testing/build.ts';
import { EmissionPlan } from './form/plan.ts';
import { elementSeen, seenAs, type ShownElement, shownElements } from './shown_elements.ts';

test('what a screen shows is told by its words, in order', () => {
  const project = projectOf(screenWith('home', 'Saw', 'Saw', 'Drill'));
  const buttons = shownElements(new EmissionPlan(project), 'home').filter(({ tag }) => tag === 'button');
  expect(buttons).toEqual([
    { key: 'home:0', tag: 'button', says: 'Saw' },
    { key: 'home:1', tag: 'button', says: 'Saw' },
    { key: 'home:2', tag: 'button', says: 'Drill' },
  ]);
});

test('what somebody points at is found again, whatever stands around it', () => {
  const one = fc.record({
    tag: fc.constantFrom('a', 'p', 'button'),
    says: fc.constantFrom('', 'Saw', 'Drill'),
  });
  fc.assert(
    fc.property(fc.array(one, { minLength: 1, maxLength: 12 }), (list) => {
      const elements = list.map((element, i): ShownElement => ({ ...element, key: String(i) }));
      for (const { key } of elements) expect(elementSeen(elements, seenAs(elements, key)!)).toBe(key);
    }),
  );
});

test.each([
  ['says something else now: by its place', { tag: 'a', says: 'Was', nth: 0, nthOfTag: 1 }, 'b'],
  ['fewer say the same now: the first', { tag: 'a', says: 'Saw', nth: 4, nthOfTag: 4 }, 'a'],
  ['is of a tag that is not there', { tag: 'svg', says: '', nth: 0, nthOfTag: 0 }, null],
])('of what %s', (_, seen, expected) => {
  const elements = [
    { key: 'a', tag: 'a', says: 'Saw' },
    { key: 'b', tag: 'a', says: 'Drill' },
  ];
  expect(elementSeen(elements, seen)).toBe(expected);
});
