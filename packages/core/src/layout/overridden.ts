import type { Declarations, ElementStyle } from '../model/design.ts';
import { always, type EditCondition } from '../model/edit_key.ts';

/** Properties of an element that are said otherwise at a width than under the condition that was asked about. */
export interface Overriding {
  /** Under which they are said so that it holds. */
  readonly condition: EditCondition;
  /** By name, with the value that holds. */
  readonly values: Declarations;
}

/** What is said of an element at a width, in the order in which it is written; the last of each property holds. */
function saidAt({ base, at, from }: ElementStyle, width: number): Overriding[] {
  const widths = (table: ElementStyle['at']): number[] => Object.keys(table ?? {}).map(Number);
  return [
    { condition: always, values: base },
    ...widths(at)
      .filter((one) => one >= width)
      .sort((a, b) => b - a)
      .map((one) => ({ condition: { kind: 'upTo', width: one } as const, values: at![one] })),
    ...widths(from)
      .filter((one) => one <= width)
      .sort((a, b) => a - b)
      .map((one) => ({ condition: { kind: 'from', width: one } as const, values: from![one] })),
  ];
}

/**
 * What of an element does not hold at a width as it is said under a condition, since something that is written later says
 * otherwise; by the condition under which that is said. What says the same is none of it.
 * @param width of the window, in CSS px
 */
export function overriddenAt(style: ElementStyle, condition: EditCondition, width: number): Overriding[] {
  if (condition.kind === 'state') return [];
  const said = saidAt(style, width);
  const place = said.findIndex(
    (one) =>
      one.condition.kind === condition.kind &&
      (condition.kind === 'always' || (one.condition as typeof condition).width === condition.width),
  );
  // Nothing is said under it yet, or it holds at other widths.
  if (place < 0) return [];
  const holds = new Map<string, { readonly by: number; readonly value: string }>();
  for (const [by, { values }] of said.entries())
    for (const [property, value] of Object.entries(values)) holds.set(property, { by, value });
  const own = said.slice(0, place + 1).reduce<Declarations>((all, { values }) => ({ ...all, ...values }), {});
  return said.slice(place + 1).flatMap(({ condition: other }, i) => {
    const values = [...holds].flatMap(([property, { by, value }]) =>
      by === place + 1 + i && value !== own[property] ? [[property, value] as const] : [],
    );
    return values.length ? [{ condition: other, values: Object.fromEntries(values) }] : [];
  });
}
