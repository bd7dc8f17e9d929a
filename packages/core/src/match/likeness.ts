import { likeSketches, type Traits } from './traits.ts';
import { type Making, WEIGHTS } from './weights.ts';

/** What two elements have in common of their own, whatever stands around them; the names of `ownEvidence`. */
export const OWN = [
  'one',
  'tag',
  'idSame',
  'idDiffers',
  'textSame',
  'textNear',
  'textNumbers',
  'textDiffers',
  'textOneSided',
  'labelSame',
  'labelDiffers',
  'pictureSame',
  'pictureDiffers',
  'classes',
  'classesDiffer',
  'says',
  'saysNothing',
  'built',
  'size',
  'look',
  'width',
  'height',
  'addressSame',
  'addressDiffers',
  'nameSame',
  'nameDiffers',
  'buildSame',
  'exactSame',
  'contentSame',
  'contentRare',
  'placeX',
  'placeY',
] as const;

/** What is known of a pair once others are matched; the names of `contextEvidence`. */
export const CONTEXT = [
  'own',
  'parents',
  'parentElsewhere',
  'before',
  'beforeElsewhere',
  'after',
  'afterElsewhere',
  'inside',
  'insideElsewhere',
  'index',
  'rival',
  'one',
] as const;

const ratio = (a: number, b: number): number => {
  const [low, high] = a < b ? [a, b] : [b, a];
  return high < 1 ? 1 : Math.max(0, low) / high;
};

function dice<T>(a: ReadonlySet<T>, b: ReadonlySet<T>): number {
  if (!a.size && !b.size) return 1;
  const [small, large] = a.size < b.size ? [a, b] : [b, a];
  let both = 0;
  for (const one of small) if (large.has(one)) both++;
  return (2 * both) / (a.size + b.size);
}

/** How alike two texts are by their words, 0 to 1; words that come again count once. */
export function nearText(a: readonly string[], b: readonly string[]): number {
  return a.length || b.length ? dice(new Set(a), new Set(b)) : 1;
}

const unnumbered = (text: string): string => text.replace(/\d+/g, '0');

/** Where an element stands in its container, from 0 to 1 either way. */
function placeIn({ element: { box }, parent }: Traits): readonly [number, number] {
  const outer = parent?.element.box ?? box;
  return [
    (box.x + box.width / 2 - outer.x) / Math.max(1, outer.width),
    (box.y + box.height / 2 - outer.y) / Math.max(1, outer.height),
  ];
}

/** The evidence of two elements themselves, in the order of `OWN`, each from 0 to 1. */
export function ownEvidence(a: Traits, b: Traits): Float64Array {
  const e = new Float64Array(OWN.length);
  const both = (x: string, y: string): boolean => x !== '' && y !== '';
  e[0] = 1;
  e[1] = a.tag === b.tag ? 1 : 0;
  if (both(a.id, b.id)) e[a.id === b.id ? 2 : 3] = 1;
  if (both(a.text, b.text)) {
    if (a.text === b.text) e[4] = 1;
    else {
      const near = nearText(a.words, b.words);
      e[5] = near;
      if (unnumbered(a.text) === unnumbered(b.text)) e[6] = 1;
      else if (near < 0.2) e[7] = 1;
    }
  } else if (a.text || b.text) e[8] = 1;
  if (both(a.label, b.label)) e[a.label === b.label ? 9 : 10] = 1;
  if (a.picture && b.picture) e[a.picture === b.picture ? 11 : 12] = 1;
  if (a.classes.size || b.classes.size) {
    e[13] = dice(a.classes, b.classes);
    if (e[13] === 0) e[14] = 1;
  }
  if (a.hasContent || b.hasContent) e[15] = likeSketches(a.says, b.says);
  else e[16] = 1;
  e[17] = likeSketches(a.built, b.built);
  e[18] = ratio(a.size, b.size);
  e[19] = dice(a.look, b.look);
  e[20] = ratio(a.element.box.width, b.element.box.width);
  e[21] = ratio(a.element.box.height, b.element.box.height);
  if (both(a.address, b.address)) e[a.address === b.address ? 22 : 23] = 1;
  if (both(a.name, b.name)) e[a.name === b.name ? 24 : 25] = 1;
  e[26] = a.build === b.build ? 1 : 0;
  e[27] = a.exact === b.exact ? 1 : 0;
  const [[ax, ay], [bx, by]] = [placeIn(a), placeIn(b)];
  if (a.content === b.content && a.hasContent) {
    e[28] = 1;
    e[29] = 1 / Math.max(a.often, b.often);
  }
  e[30] = Math.max(0, 1 - Math.abs(ax - bx));
  e[31] = Math.max(0, 1 - Math.abs(ay - by));
  return e;
}

export const logistic = (z: number): number => 1 / (1 + Math.exp(-z));

function sum(evidence: Float64Array, weights: readonly number[]): number {
  let z = 0;
  for (let i = 0; i < evidence.length; i++) z += evidence[i] * weights[i];
  return z;
}

/** How likely it is that two elements are one and the same, from what they are themselves, 0 to 1. */
export const likeness = (a: Traits, b: Traits, making: Making): number =>
  logistic(sum(ownEvidence(a, b), WEIGHTS[making].own));

/** Which element of the other side each is, as far as it is known. */
export interface Pairs {
  readonly newOf: ReadonlyMap<Traits, Traits>;
  readonly oldOf: ReadonlyMap<Traits, Traits>;
}

const oddsOf = (p: number): number => Math.log(Math.max(1e-4, p) / Math.max(1e-4, 1 - p));

/** The nearest sibling that is matched, in a direction. */
function neighbour(of: Traits, step: 1 | -1, matched: (one: Traits) => boolean): Traits | null {
  const all = of.parent?.children ?? [];
  for (let i = of.index + step, far = 0; i >= 0 && i < all.length && far < 4; i += step, far++)
    if (matched(all[i])) return all[i];
  return null;
}

/**
 * The evidence of what stands around and in two elements, in the order of `CONTEXT`.
 * @param rival how likely the next best partner of either is, 0 to 1
 */
export function contextEvidence(
  a: Traits,
  b: Traits,
  pairs: Pairs,
  own: number,
  rival: number,
): Float64Array {
  const e = new Float64Array(CONTEXT.length);
  e[0] = oddsOf(own) / 10;
  if (!a.parent || !b.parent) e[1] = !a.parent && !b.parent ? 1 : 0;
  else {
    const to = pairs.newOf.get(a.parent);
    if (to === b.parent) e[1] = 1;
    else if (to || pairs.oldOf.has(b.parent)) e[2] = 1;
  }
  for (const [step, at] of [
    [-1, 3],
    [1, 5],
  ] as const) {
    const old = neighbour(a, step, (one) => pairs.newOf.has(one));
    const now = neighbour(b, step, (one) => pairs.oldOf.has(one));
    if (old && now) e[pairs.newOf.get(old) === now ? at : at + 1] = 1;
  }
  let [inside, elsewhere] = [0, 0];
  for (const child of a.children) {
    const to = pairs.newOf.get(child);
    if (!to) continue;
    if (to.order > b.order && to.order < b.end) inside++;
    else elsewhere++;
  }
  if (a.children.length) {
    e[7] = inside / a.children.length;
    e[8] = elsewhere / a.children.length;
  }
  e[9] = a.index === b.index ? 1 : 0;
  e[10] = Math.min(1.5, Math.max(0, 1 - (oddsOf(own) - oddsOf(rival)) / 4));
  e[11] = 1;
  return e;
}

/** How sure it is that a pair that was found is right, 0 to 1. */
export const certainty = (evidence: Float64Array, making: Making): number =>
  logistic(sum(evidence, WEIGHTS[making].context));

/** How a pair of screens was made: what classes say in pages has to be told from the look in drawings. */
export const makingOf = (...roots: readonly Traits[]): Making =>
  roots.some((root) => root.hasClasses) ? 'page' : 'drawing';
