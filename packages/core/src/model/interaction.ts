/** What elements do: on which gesture, under which condition, where that leads, and how it arrives. */

export type Side = 'left' | 'right' | 'top' | 'bottom';

export type Easing = 'ease-out' | 'ease-in' | 'ease-in-out' | 'linear';

interface Timed {
  /** Duration in milliseconds. */
  readonly ms: number;
  /** `ease-out` where nothing is said. */
  readonly easing?: Easing;
  /** Milliseconds before it begins; 0 where nothing is said. */
  readonly delay?: number;
}

/** An element of the one screen that becomes an element of the other, by their keys. */
export interface SharedPair {
  readonly from: string;
  readonly to: string;
}

/**
 * How the next screen arrives. It slides over the present one, pushes it out, grows out of the middle, fades in, or
 * fades while the same elements of both screens move from place to place.
 */
export type Arrival =
  | { readonly kind: 'none' }
  | ({ readonly kind: 'fade' } & Timed)
  | ({ readonly kind: 'slide'; readonly from: Side } & Timed)
  | ({ readonly kind: 'push'; readonly from: Side } & Timed)
  | ({ readonly kind: 'scale' } & Timed)
  | ({ readonly kind: 'shared'; readonly pairs: readonly SharedPair[] } & Timed);

/** What a path parameter is given: a value, or the text of an element in the same row of a list, by its path from there. */
export type Given = string | { readonly field: string };

export interface ScreenTarget {
  readonly kind: 'screen';
  readonly screen: string;
  /** Path parameters by name. Those that are not given are those of the present address. */
  readonly params?: Readonly<Record<string, Given>>;
  readonly query?: Readonly<Record<string, string>>;
}

export type Target =
  | ScreenTarget
  /** One step back in the browser's history; `fallback` is the screen to show where there is no history. */
  | { readonly kind: 'back'; readonly fallback?: string }
  | { readonly kind: 'anchor'; readonly screen: string; readonly element: string }
  /** Opens an overlay, by its screen's key. */
  | { readonly kind: 'open'; readonly overlay: string }
  /** Closes the overlay that the element stands in, or the uppermost one. */
  | { readonly kind: 'close' }
  /** An address outside the app, also of mail (`mailto:`) and telephone (`tel:`). */
  | { readonly kind: 'external'; readonly href: string }
  /** Saves a file of the project, by the hash of its asset. */
  | { readonly kind: 'file'; readonly asset: string; readonly name: string }
  /** Makes a condition hold or not. */
  | { readonly kind: 'set'; readonly condition: string; readonly value: boolean }
  /** Opens the drawer that a part of the screen becomes on narrow windows. */
  | { readonly kind: 'drawer'; readonly element: string };

export type TargetKind = Target['kind'];

/** What can be done before something else: it stays on the screen. */
export type Step = Extract<Target, { readonly kind: 'open' | 'close' | 'set' }>;

export const GESTURES = [
  'press',
  'double-press',
  'long-press',
  'submit',
  'change',
  'hover',
  'key',
  'swipe',
  'after',
  'load',
] as const;
export type Gesture = (typeof GESTURES)[number];

/** Holds when the named condition is, or is not, true. */
export interface When {
  readonly condition: string;
  readonly is: boolean;
}

/** One thing that an element does. What belongs to the whole screen is kept at the screen's root. */
export interface Interaction {
  readonly on: Gesture;
  /** Of `key`: the key as `KeyboardEvent.key` names it. */
  readonly key?: string;
  /** Of `swipe`: to which side. */
  readonly side?: Side;
  /** Of `after`: milliseconds. */
  readonly ms?: number;
  readonly when?: When;
  /** What happens first, in order. */
  readonly before?: readonly Step[];
  readonly target: Target;
  readonly arrival: Arrival;
  /** Counts at all places of the component or list that the element stands in, except where another is said. */
  readonly everywhere?: true;
}

/**
 * Interactions are kept under the key of their element; further ones of the same element under that key with `|2`,
 * `|3` and so on. Of those for one gesture the first whose condition holds is done.
 */
export const elementOfInteraction = (key: string): string => {
  const at = key.indexOf('|');
  return at < 0 ? key : key.slice(0, at);
};

/** A key for one more interaction of an element. */
export function freeInteractionKey(
  interactions: Readonly<Record<string, Interaction>>,
  element: string,
): string {
  if (!interactions[element]) return element;
  let n = 2;
  while (interactions[`${element}|${n}`]) n++;
  return `${element}|${n}`;
}

/** A link by pressing, without a transition. */
export const pressTo = (target: Target): Interaction => ({ on: 'press', target, arrival: { kind: 'none' } });
