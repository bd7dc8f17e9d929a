/** What elements do: on which gesture, under which condition, where that leads, and how it arrives. */

import {
  choice,
  either,
  elementKey,
  fields,
  type FieldsOf,
  flag,
  kinds,
  list,
  optional,
  ownKey,
  type Schema,
  screenKey,
  table,
  text,
  title,
  type ValueOf,
  whole,
  yes,
} from '../schema/schema.ts';
import { isExternalAddress } from '../vocabulary/addresses.ts';
import { hash } from './design.ts';

export const SIDES = ['left', 'right', 'top', 'bottom'] as const;
export const side = choice(SIDES);
export type Side = (typeof SIDES)[number];

export const EASINGS = ['ease-out', 'ease-in', 'ease-in-out', 'linear'] as const;
export type Easing = (typeof EASINGS)[number];

const milliseconds = whole(0, 10_000);
const timed = {
  /** Duration in milliseconds. */
  ms: milliseconds,
  /** `ease-out` where nothing is said. */
  easing: optional(choice(EASINGS)),
  /** Milliseconds before it begins; 0 where nothing is said. */
  delay: optional(milliseconds),
} as const;

const sharedPair = fields({ from: elementKey, to: elementKey });
/** An element of the one screen that becomes an element of the other, by their keys. */
export type SharedPair = ValueOf<typeof sharedPair>;

const arrival = kinds({
  none: {},
  fade: timed,
  slide: { ...timed, from: side },
  push: { ...timed, from: side },
  scale: timed,
  shared: { ...timed, pairs: list(sharedPair, { max: 40 }) },
});
/**
 * How the next screen arrives. It slides over the present one, pushes it out, grows out of the middle, fades in, or
 * fades while the same elements of both screens move from place to place.
 */
export type Arrival = ValueOf<typeof arrival>;

/** The name of a path or query parameter. */
export const parameterName = text(60, {
  min: 1,
  pattern: /^[\w-]+$/,
  says: 'expected a name of letters, digits, _ and -',
  examples: ['id', 'sort-by'],
});
/** Texts by the name of a parameter. */
export const textsByName = (most: number): Schema<Readonly<Record<string, string>>> =>
  table(parameterName, text(most), { max: 100 });

const given = either(
  'a parameter is given a text or a field of the row',
  text(200),
  fields({ field: elementKey }),
);
/**
 * What a path parameter is given: a value, or the text of the element in the same row of a list that
 * is this one in its own row.
 */
export type Given = ValueOf<typeof given>;

/** The name of a prop or of a field of records. */
export const propName = text(61, {
  pattern: /^[a-z]\w*$/i,
  says: 'expected a name of letters and digits',
  examples: ['title'],
});

const listDeed = kinds({
  /** Only records that say what is typed. */
  search: {},
  /** By a field; by the same one again the other way round. */
  sort: { field: propName },
  /** Only records that say this in a field, or hold it within what they say; all of them where nothing is said. */
  filter: { field: propName, value: optional(title(200)), part: optional(yes) },
  /** Only records that say what is chosen in the element; the texts of these choices show all. */
  choose: { field: propName, all: list(title(200), { max: 20 }) },
  /** To another page, or to the page of this number. */
  page: {
    to: either(
      'expected next, previous, first, last or a number',
      choice(['next', 'previous', 'first', 'last'] as const),
      whole(1, 100_000),
    ),
  },
  /** As many again. */
  more: {},
});
/** What can be done with a list of records. */
export type ListDeed = ValueOf<typeof listDeed>;

const saidBy = text(2000, { min: 1, examples: ['tool.name', "'lent'"] });
/** Which records are meant, as a question about each; that of the row or of the screen where nothing is said. */
const where = optional(text(2000, { min: 1, examples: ['tool.name === loan.name'] }));
const recordDeed = kinds({
  /**
   * One more record: what a form is filled in with, by the form's element, and what expressions say of fields, by the name of each.
   */
  add: {
    form: optional(elementKey),
    says: optional({ shape: 'table', key: propName, value: saidBy, max: 200 } as Schema<
      Readonly<Record<string, string>>
    >),
  },
  /** They go. */
  remove: { where },
  /** A field says something else: a text, or what an expression says. */
  set: { field: propName, value: optional(text(500)), says: optional(saidBy), where },
});
/** What can be done to records. */
export type RecordDeed = ValueOf<typeof recordDeed>;

const open = { overlay: screenKey } as const;
const disclose = {
  /** Key of the part. */
  part: elementKey,
  does: choice(['toggle', 'open', 'close'] as const),
} as const;
/**
 * What a browser does with the page: `of` is the element whose text is copied. `tick` ticks the boxes that stand with the element
 * that does it, as it is ticked itself; of a button all of them, or none where all are.
 */
const browser = {
  does: choice(['print', 'reload', 'copy', 'tick'] as const),
  of: optional(elementKey),
} as const;
/** Of parts of which one is open, by the id that they share. */
const turn = { among: ownKey, to: choice(['next', 'previous'] as const) } as const;
/** What a variable is then: yes or no, or an expression of variables and of what was `entered`. */
const set = {
  condition: ownKey,
  value: either(
    'expected true, false or an expression',
    flag,
    text(2000, { min: 1, examples: ['count + 1', "'list'"] }),
  ),
} as const;
/** What is said over the screen for a while, as an expression of variables and of what was `entered`. */
const say = { text: text(2000, { min: 1, examples: ["'Saved'", '`${count} chosen`'] }) } as const;
const record = { collection: ownKey, deed: recordDeed } as const;
/** Asks an operation of a described API, with what a form is filled in with; what follows is done when it has worked. */
const call = {
  api: ownKey,
  operation: text(300, { min: 1, examples: ['signIn'] }),
  form: optional(elementKey),
} as const;
const target = kinds({
  screen: {
    screen: screenKey,
    /** Path parameters by name. Those that are not given are those of the present address. */
    params: optional(table(parameterName, given, { max: 100 })),
    query: optional(textsByName(500)),
  },
  /** One step back in the browser's history; `fallback` is the screen to show where there is no history. */
  back: { fallback: optional(screenKey) },
  anchor: { screen: screenKey, element: elementKey },
  /** Opens an overlay, by its screen's key. */
  open,
  /** Closes the overlay that the element stands in, or the uppermost one. */
  close: {},
  /** An address outside the app, also of mail (`mailto:`) and telephone (`tel:`). */
  external: {
    href: text(2000, {
      says: 'an external address starts with https:, http:, mailto: or tel:',
      holds: isExternalAddress,
      examples: ['https://example.org/', 'mailto:desk@example.org'],
    }),
  },
  /** Saves a file of the project, by the hash of its asset. */
  file: { asset: hash, name: title(200) },
  /** Gives a variable a value. */
  set,
  /** Opens the drawer that a part of the screen becomes on narrow windows. */
  drawer: { element: elementKey },
  /** Opens or closes a part of the screen. */
  disclose,
  /** Opens the part after, or before, the one that is open. */
  turn,
  browser,
  /** Changes which records of a collection the lists of the screen show, by the id of the collection. */
  list: { collection: ownKey, deed: listDeed },
  /** Changes the records of a collection, by its id. */
  record,
  call,
  say,
});
export type Target = ValueOf<typeof target>;
export type TargetKind = Target['kind'];
export type ScreenTarget = Extract<Target, { readonly kind: 'screen' }>;

const steps = { open, close: {}, set, disclose, turn, browser, record, call, say } as const;
const step = kinds(steps);
/** What can be done before something else: it stays on the screen. */
export type Step = ValueOf<typeof step>;
export const isStep = (target: Target): target is Step => Object.hasOwn(steps, target.kind);

/** The expressions of a step, as they are written. */
export function sourcesOfStep(step: Target): string[] {
  if (step.kind === 'say') return [step.text];
  if (step.kind === 'set') return typeof step.value === 'string' ? [step.value] : [];
  if (step.kind !== 'record') return [];
  const { deed } = step;
  if (deed.kind === 'add') return Object.values(deed.says ?? {});
  return [deed.where, deed.kind === 'set' ? deed.says : undefined].filter((one) => one !== undefined);
}

/**
 * A step whose expressions are written otherwise.
 * @param isWhere whether one asks which records are meant
 */
export function withSources(step: Target, write: (source: string, isWhere: boolean) => string): Target {
  if (step.kind === 'say') return { ...step, text: write(step.text, false) };
  if (step.kind === 'set')
    return typeof step.value === 'string' ? { ...step, value: write(step.value, false) } : step;
  if (step.kind !== 'record') return step;
  const { deed } = step;
  if (deed.kind === 'add')
    return deed.says
      ? { ...step, deed: { ...deed, says: mapValues(deed.says, (one) => write(one, false)) } }
      : step;
  const which = deed.where === undefined ? {} : { where: write(deed.where, true) };
  return deed.kind === 'set' && deed.says !== undefined
    ? { ...step, deed: { ...deed, says: write(deed.says, false), ...which } }
    : { ...step, deed: { ...deed, ...which } };
}

const mapValues = (
  table: Readonly<Record<string, string>>,
  map: (value: string) => string,
): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(table).map(([key, value]) => [key, map(value)]));

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

const whenFields = { condition: ownKey, is: flag } as const;
/** Holds when the named condition is, or is not, true. */
export type When = FieldsOf<typeof whenFields>;

const guardFields = {
  ...whenFields,
  /** Key of the screen to show instead. */
  otherwise: screenKey,
} as const;
export const guardSchema = fields(guardFields);
/** A condition that a screen needs, and where one goes when it does not hold. */
export type Guard = FieldsOf<typeof guardFields>;

const interactionFields = {
  on: choice(GESTURES),
  /** Of `key`: the key as `KeyboardEvent.key` names it. */
  key: optional(text(40, { min: 1, examples: ['Enter', '/'] })),
  /** Of `swipe`: to which side. */
  side: optional(side),
  /** Of `after`: milliseconds. */
  ms: optional(whole(0, 3_600_000)),
  when: optional(fields(whenFields)),
  /** What happens first, in order. */
  before: optional(list(step, { max: 20 })),
  target,
  arrival,
  /** Counts at all places of the component or list that the element stands in, except where another is said. */
  everywhere: optional(yes),
} as const;
export const interactionSchema = fields(interactionFields);
/** One thing that an element does. What belongs to the whole screen is kept at the screen's root. */
export type Interaction = FieldsOf<typeof interactionFields>;

/**
 * Interactions are kept under the key of their element; further ones of the same element under that key with `|2`,
 * `|3` and so on. Of those for one gesture the first whose condition holds is done.
 */
export const elementOfInteraction = (key: string): string => {
  const at = key.indexOf('|');
  return at < 0 ? key : key.slice(0, at);
};

/** Which interaction of its element it is, from 1 on. */
export const numberOfInteraction = (key: string): number => Number(key.split('|')[1] ?? 1);

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
