import { normalValue } from '../tokens/values.ts';
import {
  BOX_LOOKS,
  lookOf,
  type Look,
  MISSING_PICTURE,
  PLACE_LOOKS,
  type RenderedElement,
  TEXT_LOOKS,
} from './rendering.ts';

/** A property that two renderings of an element compute otherwise; values as people write them. */
export interface StyleDifference {
  /** A longhand, or what stands for all its sides where they say the same: `border-color`, `padding`. */
  readonly property: string;
  readonly was: string;
  readonly is: string;
  readonly kind: 'text' | 'box' | 'place';
  /** What would make it as it was: longhands with their values. */
  readonly sets: Readonly<Record<string, string>>;
}

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
/** Longhands of four sides, and what they are called together. */
const FOLDED: readonly (readonly [string, readonly Look[]])[] = [
  ['padding', SIDES.map((side) => `padding-${side}` as const)],
  ['margin', SIDES.map((side) => `margin-${side}` as const)],
  ['border-width', SIDES.map((side) => `border-${side}-width` as const)],
  ['border-style', SIDES.map((side) => `border-${side}-style` as const)],
  ['border-color', SIDES.map((side) => `border-${side}-color` as const)],
  [
    'border-radius',
    [
      'border-top-left-radius',
      'border-top-right-radius',
      'border-bottom-right-radius',
      'border-bottom-left-radius',
    ],
  ],
  ['gap', ['row-gap', 'column-gap']],
];
/** By how many px lengths may differ: browsers round. */
const NEAR = 0.51;

/** What two renderings of one element compute otherwise, as far as it can be seen. */
export function styleDifferences(was: RenderedElement, is: RenderedElement): StyleDifference[] {
  const hasText = !!was.text && !!is.text;
  const found = new Map<Look, StyleDifference>();
  const look = (names: readonly Look[], kind: StyleDifference['kind']): void => {
    for (const name of names) {
      const [before, now] = [lookOf(was, name), lookOf(is, name)];
      if (isSame(name, before, now) || !isSeen(name, was, is)) continue;
      found.set(name, {
        property: name,
        was: inWords(name, before),
        is: inWords(name, now),
        kind,
        sets: { [name]: before },
      });
    }
  };
  if (hasText) look(TEXT_LOOKS, 'text');
  look(BOX_LOOKS, 'box');
  look(PLACE_LOOKS, 'place');
  return folded(found);
}

function folded(found: Map<Look, StyleDifference>): StyleDifference[] {
  const made: StyleDifference[] = [];
  for (const [name, longhands] of FOLDED) {
    const own = longhands.flatMap((longhand) => found.get(longhand) ?? []);
    const isOne =
      own.length === longhands.length && own.every((one) => one.was === own[0].was && one.is === own[0].is);
    if (!isOne) continue;
    for (const longhand of longhands) found.delete(longhand);
    made.push({
      ...own[0],
      property: name,
      sets: Object.assign({}, ...own.map(({ sets }) => sets)) as Record<string, string>,
    });
  }
  // A border that is there on one side only says so once, by its width.
  for (const name of found.keys()) {
    const side = /^border-(\w+)-(style|color)$/.exec(name)?.[1];
    const width =
      side &&
      (found.has(`border-${side}-width` as Look) || made.some((one) => one.property === 'border-width'));
    if (width) found.delete(name);
  }
  const hasWidth = made.some(({ property }) => property === 'border-width');
  return [
    ...found.values(),
    ...made.filter(
      ({ property }) => !hasWidth || (property !== 'border-style' && property !== 'border-color'),
    ),
  ];
}

const LENGTH = /^-?[\d.]+px$/;

function isSame(name: Look, a: string, b: string): boolean {
  if (a === b) return true;
  if (LENGTH.test(a) && LENGTH.test(b)) return Math.abs(parseFloat(a) - parseFloat(b)) <= NEAR;
  if (name === 'background-image') return withoutAddresses(a) === withoutAddresses(b);
  if (name === 'line-height' && (a === 'normal' || b === 'normal')) return true;
  if (name === 'text-align') return edgeOf(a) === edgeOf(b);
  if (name === 'transform') return unmoved(a) === unmoved(b);
  if (name === 'display') return boxOf(a) === boxOf(b);
  if (name === 'position') return isPlaced(a) === isPlaced(b);
  if (name.startsWith('margin') && (a === 'auto' || b === 'auto')) return true;
  if (name.endsWith('gap')) return isNothing(a) && isNothing(b);
  return squeezed(a) === squeezed(b);
}

const withoutAddresses = (value: string): string =>
  value === MISSING_PICTURE ? 'none' : value.replace(/url\((?:"(?:[^"\\]|\\.)*"|[^)]*)\)/g, 'url()');
const squeezed = (value: string): string => value.replace(/\s+/g, '');
const edgeOf = (value: string): string =>
  ({ start: 'left', '-webkit-auto': 'left', end: 'right' })[value] ?? value;
/** How an element takes part in the flow around it, and what it is for its own content. */
const boxOf = (value: string): string =>
  ({ 'flow-root': 'block', 'list-item': 'block', 'inline-block': 'inline' })[value] ?? value;
const unmoved = (value: string): string =>
  squeezed(value) === 'matrix(1,0,0,1,0,0)' ? 'none' : squeezed(value);
const isPlaced = (value: string): boolean => value === 'absolute' || value === 'fixed';
const isNothing = (value: string): boolean => value === 'normal' || parseFloat(value) === 0;

/** Whether a property shows at all, on either side. */
function isSeen(name: Look, was: RenderedElement, is: RenderedElement): boolean {
  const some = (holds: (element: RenderedElement) => boolean): boolean => holds(was) || holds(is);
  const border = /^border-(\w+)-(style|color|width)$/.exec(name);
  if (border && SIDES.includes(border[1] as 'top')) return some((element) => hasBorder(element, border[1]));
  if (/^border-.*radius$/.test(name))
    return some(
      (element) => isPainted(element) || lookOf(element, 'overflow-x') !== 'visible' || element.tag === 'img',
    );
  if (name === 'background-size' || name === 'background-position')
    return lookOf(was, 'background-image') !== 'none' && lookOf(is, 'background-image') !== 'none';
  if (name === 'background-color')
    return some((element) => !isTransparent(lookOf(element, 'background-color')));
  if (name === 'object-fit') return was.tag === 'img';
  if (name === 'text-align') return some((element) => !lookOf(element, 'display').startsWith('inline'));
  if (name === 'row-gap' || name === 'column-gap')
    return was.children.length > 1 && some((element) => /flex|grid/.test(lookOf(element, 'display')));
  if (/^(flex-|justify-content|align-items)/.test(name))
    return some((element) => /flex|grid/.test(lookOf(element, 'display')));
  return true;
}

const hasBorder = (element: RenderedElement, side: string): boolean =>
  parseFloat(lookOf(element, `border-${side}-width` as Look)) > 0 &&
  lookOf(element, `border-${side}-style` as Look) !== 'none';

const isTransparent = (value: string): boolean => value === 'transparent' || /^rgba\(.*,\s*0\)$/.test(value);

/** Whether an element shows something of its own beside text. */
export const isPainted = (element: RenderedElement): boolean =>
  !isTransparent(lookOf(element, 'background-color')) ||
  lookOf(element, 'background-image') !== 'none' ||
  lookOf(element, 'box-shadow') !== 'none' ||
  SIDES.some((side) => hasBorder(element, side));

/** A computed value as people write it: colours in hex, lengths in whole px where they are. */
function inWords(name: string, value: string): string {
  if (name === 'background-image') {
    const plain = withoutAddresses(value);
    return value === MISSING_PICTURE ? 'a picture that is missing' : plain === 'url()' ? 'a picture' : plain;
  }
  return value
    .replace(/rgba?\([^)]*\)/g, (colour) =>
      isTransparent(colour) ? 'transparent' : normalValue('color', colour),
    )
    .replace(/(-?\d+\.\d+|-?\d+)px/g, (_, number: string) => `${Math.round(Number(number) * 10) / 10} px`);
}
