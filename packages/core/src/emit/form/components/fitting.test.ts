import fc from 'fast-check';
import { fittingTemplate } from './fitting.ts';
import type { MarkupElement, MarkupNode } from '../markup.ts';
import type { Place } from './template.ts';

/** What a part is: its tag, and whether it is there, says something else, or holds another. */
interface Part {
  readonly tag: 'p' | 'b' | 'a' | 'svg';
  readonly said: string;
  readonly inner: 'nothing' | 'one' | 'two';
}

const part: fc.Arbitrary<Part> = fc.record({
  tag: fc.constantFrom('p', 'b', 'a', 'svg'),
  said: fc.constantFrom('Saw', 'Plane', 'Chisel'),
  inner: fc.constantFrom('nothing', 'one', 'two'),
});

const elementOf = (key: string, tag: string, children: readonly MarkupNode[]): MarkupElement => ({
  key,
  tag,
  className: null,
  attributes: tag === 'a' ? { href: `#${key}` } : {},
  children,
});

const nodeOf = ({ tag, said, inner }: Part, key: string): MarkupElement =>
  elementOf(key, tag, [
    ...(tag === 'svg' ? [] : [{ text: said }]),
    ...(inner === 'nothing' ? [] : [elementOf(`${key}.0`, 'i', [{ text: said }])]),
    ...(inner === 'two' ? [elementOf(`${key}.1`, 'u', [])] : []),
  ]);

const placeOf = (parts: readonly Part[], i: number): Place => ({
  node: elementOf(
    `${i}`,
    'div',
    parts.map((one, at) => nodeOf(one, `${i}/${at}`)),
  ),
  rules: new Map(),
  route: `/${i}`,
});

test('what fits has a template, whatever the places are and in whichever order', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(part, { minLength: 1, maxLength: 4 }), { minLength: 2, maxLength: 6 }),
      fc.constantFrom('component' as const, 'list' as const),
      (rows, kind) => {
        const places = rows.map(placeOf);
        const made = fittingTemplate(places, { name: 'Row', kind, places: [] });
        if (!made) return;
        expect(made.template?.root.tag).toBe('div');
        expect(made.places.length).toBeGreaterThan(1);
        // In the order that they were given in.
        expect(made.places).toEqual(places.filter((place) => made.places.includes(place)));
        expect(made.template.values).toHaveLength(made.places.length);
      },
    ),
    { numRuns: 400 },
  );
});
