/**
 * The app document: what the design shall do. Refers to the design by keys and never copies it. Each of its tables is
 * declared once, in `tables`: from there come the types, the empty app, the checks of changes and files, the mapping of
 * keys, the published schema and the values of tests.
 */

import {
  choice,
  either,
  elementKey,
  fields,
  type FieldsOf,
  flag,
  kinds,
  list,
  LONGEST_KEY,
  nothing,
  number,
  numberedElementKey,
  optional,
  ownKey,
  type Schema,
  screenKey,
  type Shape,
  table,
  text,
  title,
  type ValueOf,
  whole,
  yes,
  lazy,
} from '../schema/schema.ts';
import { routeFormProblem } from '../paths/pattern.ts';
import { unsafePart } from '../vocabulary/style_values.ts';
import { boxSchema, classStyleSchema, REGION_KINDS } from './design.ts';
import { editProblem } from './edit_key.ts';
import { guardSchema, interactionSchema, parameterName, propName, side, textsByName } from './interaction.ts';

export type * from './interaction.ts';

export const USES = ['screen', 'skip', 'counterpart', 'overlay', 'planned', 'alternative', 'state'] as const;
/**
 * What a drawn screen is in the app: a screen, nothing, the same as another at a different width, something that opens over
 * another, another drawing of one, which waits to be kept in its place, or what one shows while its list has nothing to show. A
 * planned one has not been drawn yet.
 */
export type Use = (typeof USES)[number];

/** Why a list has nothing to show: no record fits, they could not be had, or they are still to come. */
export const DRAWN_STATES = ['empty', 'failed', 'waiting'] as const;
export type DrawnState = (typeof DRAWN_STATES)[number];

export const OVERLAY_KINDS = ['dialog', 'drawer', 'sheet', 'popover', 'menu', 'toast'] as const;
export type OverlayKind = (typeof OVERLAY_KINDS)[number];

const overlayFields = {
  kind: choice(OVERLAY_KINDS),
  /** Of a drawer or sheet: from which side it comes. */
  side: optional(side),
  /** What lies behind cannot be used meanwhile. */
  modal: flag,
  escape: flag,
  /** A press outside closes it. */
  outside: flag,
  /** Has an address of its own, so that Back closes it. */
  url: optional(yes),
  /** Of a toast: milliseconds after which it goes by itself. */
  ms: optional(whole(500, 600_000)),
  /** Keys of the screens that it opens over; any where that is not said. */
  over: optional(list(screenKey, { max: 2000 })),
  /** Key of the element that is the overlay, where the drawing shows it over a screen. */
  panel: optional(elementKey),
} as const;
/** How a screen that is an overlay opens and closes. */
export type Overlay = FieldsOf<typeof overlayFields>;

const windowWidth = whole(1, 10_000);
const screenEntryFields = {
  name: title(200),
  /**
   * Absolute path with what may vary in it: `/`, `/tools/:toolId`, `/loans/:loanId?`, `/help/*`. The screen at `/*` is
   * shown where no other fits. How it is put together may still be wrong, which is a finding.
   */
  route: text(500, {
    pattern: /^\/[A-Za-z0-9\-._~/:?*]*$/,
    says: 'a route begins with / and holds letters, digits, - . _ ~ / : ? and *',
    examples: ['/', '/list', '/list/:id'],
  }),
  /** Values of path parameters to show the screen with where nobody gives any. */
  params: optional(textsByName(200)),
  guard: optional(guardSchema),
  overlay: optional(fields(overlayFields)),
  use: choice(USES),
  /** Of which screen it is a counterpart, an overlay, an alternative or a state. */
  of: optional(screenKey),
  /** Which state it is. */
  state: optional(choice(DRAWN_STATES)),
  /** As a counterpart: the window width in px at which the one layout gives way to the other. */
  turn: optional(windowWidth),
  /** Sorts the screens; any finite number, so that a move touches one entry. */
  order: number(-Number.MAX_VALUE, Number.MAX_VALUE),
} as const;
/** How a screen takes part in the app. A screen that has no entry has been deleted from it. */
export type ScreenEntry = FieldsOf<typeof screenEntryFields>;

/**
 * What a variable can be: yes or no where nothing is said. A date is written as `2026-03-01`; a list is one of texts; a record is
 * one of a collection, remembered by its id.
 */
export const VARIABLE_TYPES = ['yes-no', 'text', 'number', 'date', 'one-of', 'list', 'record'] as const;
export type VariableType = (typeof VARIABLE_TYPES)[number];

/**
 * For how long a variable is remembered: until the address of the page changes, as long as the address says it, or for good
 * on the device. Where nothing is said it is while the tab is open.
 */
export const KEEPINGS = ['screen', 'address', 'device'] as const;
export type Keeping = (typeof KEEPINGS)[number];

const source = text(2000, { min: 1, examples: ['count(tools)', '`${count(tools)} tools`'] });
const variableFields = {
  name: title(200),
  type: optional(choice(VARIABLE_TYPES)),
  /** Of one-of: what it can be. */
  choices: optional(list(title(200), { min: 1, max: 200 })),
  /** Of a record: the id of its collection. */
  of: optional(ownKey),
  /** What it is when the app opens. */
  initial: either(
    'expected true or false, a number, a text or a list of texts',
    flag,
    number(-Number.MAX_VALUE, Number.MAX_VALUE),
    text(2000),
    list(text(2000), { max: 1000 }),
  ),
  kept: optional(choice(KEEPINGS)),
  /** What it is, as an expression of other variables; it is never set then. */
  says: optional(source),
} as const;
/** Something that the app remembers while it runs, such as whether one is signed in, or how many are chosen. */
export type Variable = FieldsOf<typeof variableFields>;

/** What is wrong with what a variable is at first; null where nothing is. */
export function variableProblem({ type = 'yes-no', initial, choices, of }: Variable): string | null {
  if (type === 'yes-no') return typeof initial === 'boolean' ? null : 'expected true or false at first';
  if (type === 'list') return Array.isArray(initial) ? null : 'expected a list of texts at first';
  if (type === 'number') return typeof initial === 'number' ? null : 'expected a number at first';
  if (typeof initial !== 'string') return 'expected a text at first';
  if (type === 'record')
    return of === undefined
      ? 'expected the collection that it is a record of'
      : initial === ''
        ? null
        : 'expected no record at first';
  if (type === 'date')
    return initial === '' || /^\d{4}-\d{2}-\d{2}$/.test(initial)
      ? null
      : 'expected a date such as 2026-03-01';
  if (type === 'one-of' && !choices?.includes(initial))
    return `expected one of ${(choices ?? []).slice(0, 8).join(', ') || 'its choices'} at first`;
  return null;
}

const layoutFields = {
  name: title(200),
  /** Keys of the screens. */
  screens: list(screenKey, { min: 1, max: 2000 }),
  /** Screens that were in it until an iteration drew something else around them. */
  apart: optional(list(screenKey, { max: 2000 })),
} as const;
/** What several screens share, written once around them: a layout route with an outlet. */
export type Layout = FieldsOf<typeof layoutFields>;

const redirectFields = {
  /** Key of a screen. */
  to: screenKey,
} as const;
/** Where a path that no screen lives at leads. */
export type Redirect = FieldsOf<typeof redirectFields>;

const journeyStep = kinds({
  /** An interaction, by its key, and the screen that it leads to. */
  do: { interaction: numberedElementKey, to: screenKey },
  /** Something entered into a field, by the element's key. */
  enter: { element: elementKey, text: text(2000) },
});
/** One thing that is done on the way. */
export type JourneyStep = ValueOf<typeof journeyStep>;

const journeyFields = {
  name: title(200),
  /** Key of the screen that it begins at. */
  start: screenKey,
  steps: list(journeyStep, { max: 500 }),
} as const;
/** A named way through the app. */
export type Journey = FieldsOf<typeof journeyFields>;

/** What a text field takes: the `type` of an input, or several lines of text. */
export const INPUT_TYPES = [
  'text',
  'email',
  'password',
  'search',
  'number',
  'date',
  'tel',
  'url',
  'multiline',
] as const;
export const CHART_KINDS = ['bar', 'line', 'pie'] as const;

const role = text(40, { pattern: /^[a-z]+$/, says: 'expected a role', examples: ['button', 'none'] });
const layerFields = {
  /** Whether it is part of the app, whatever the design says. */
  show: optional(flag),
  name: optional(title(200)),
  /** A role in ARIA terms; `none` for an element that only looks as if it had one. */
  role: optional(role),
  /** Of a text field: what it takes. */
  input: optional(choice(INPUT_TYPES)),
  /** Of a heading, 1 to 6. */
  level: optional(whole(1, 6)),
  /** The accessible name, of a picture its alternative text. */
  label: optional(text(500)),
  /** Of a chart. */
  chart: optional(choice(CHART_KINDS)),
  /** Shown as one picture, with nothing in it that can be pressed. */
  flat: optional(yes),
  /** Lets presses through to what lies beneath. */
  through: optional(yes),
  /** Scrolls what does not fit. */
  scrolls: optional(yes),
} as const;
/** What somebody decided about one element; what is not said is as the design has it. */
export type Layer = FieldsOf<typeof layerFields>;

const regionFields = {
  /** Key of the screen; where it is not said, the key of the region begins with it. */
  screen: optional(screenKey),
  kind: choice(REGION_KINDS),
  box: boxSchema,
  name: title(200),
  role: optional(role),
  text: optional(text(5000)),
} as const;
/** An element drawn by hand, or taken from what was found, on a screen that is a picture. */
export type Region = FieldsOf<typeof regionFields>;

/** The key of the screen that a person put a region or a control on. */
export const screenOfOwn = (key: string, { screen }: Pick<Region | Added, 'screen'>): string =>
  screen ?? key.split(':')[0];

const SETTINGS = {
  groups: ['container', 'picture'],
  /** Whether a layer's name gives its role. */
  names: ['role', 'plain'],
  hidden: ['out', 'in'],
} as const;
/** What layers of layered files become where nothing is said of the layer itself. */
export type Settings = { readonly [N in keyof typeof SETTINGS]: (typeof SETTINGS)[N][number] };

export const defaultSettings: Settings = { groups: 'container', names: 'role', hidden: 'out' };

const settingProblem = (name: string, value: unknown): string | null =>
  Object.hasOwn(SETTINGS, name) &&
  (value === null || (SETTINGS[name as keyof Settings] as readonly unknown[]).includes(value))
    ? null
    : `there is no setting "${name}" of that value`;

/** In what ways the code can be written, by the name of the choice; the first is how it is written where nobody says. */
export const DELIVERY = {
  target: ['react', 'vue', 'html'],
  /** Of React: whether it comes with tests of its own. */
  tests: ['with', 'without'],
  /** Of React: how files and folders of components are called. */
  naming: ['pascal', 'kebab'],
  /** Which screens come with a file in which people hook in: those on which something is done, every one, none. */
  logic: ['acting', 'every', 'without'],
} as const;
export type Delivery = { readonly [N in keyof typeof DELIVERY]: (typeof DELIVERY)[N][number] };

const deliveryProblem = (name: string, value: unknown): string | null =>
  Object.hasOwn(DELIVERY, name) &&
  (value === null || (DELIVERY[name as keyof Delivery] as readonly unknown[]).includes(value))
    ? null
    : `code has no choice "${name}" of that value`;

/** What a prop of somebody's component takes, as far as its type tells. */
export const LIBRARY_PROP_TYPES = ['text', 'number', 'yes-no', 'one-of', 'node', 'press', 'other'] as const;

/** What a component or one of its props is called in somebody's code. */
const foreignName = text(100, {
  min: 1,
  pattern: /^[A-Za-z_$][\w$-]*$/,
  says: 'the name of a component or a prop',
  examples: ['Button', 'aria-label'],
});
const SPECIFIER = /^(@[a-z0-9~][\w.~-]*\/)?[a-z0-9~][\w.~-]*(\/[\w.~-]+)*$/;
/** Whether a text can stand after `from` in an import: a package, and a path in it. */
export const isSpecifier = (name: string): boolean => name.length <= 214 && SPECIFIER.test(name);
const specifier = text(214, {
  min: 1,
  pattern: SPECIFIER,
  says: 'the name of a package, with a path in it or without',
  examples: ['mossgate-parts', '@mossgate/parts/buttons'],
});

const libraryPropFields = {
  name: foreignName,
  type: choice(LIBRARY_PROP_TYPES),
  /** Of one-of: what it can be. */
  choices: optional(list(text(100), { max: 200 })),
  isRequired: optional(yes),
  byDefault: optional(text(200)),
} as const;
/** A prop of a component of the team's own. */
export type LibraryProp = FieldsOf<typeof libraryPropFields>;

const libraryLookFields = {
  /** What it was given to look so: choices by the names of their props. */
  given: table(foreignName, text(100), { max: 20 }),
  /** The element that is outermost. */
  tag: text(40),
  background: text(100),
  color: text(100),
  /** All in CSS pixels. */
  radius: number(0, 10_000),
  height: number(0, 100_000),
  fontSize: number(0, 1000),
  fontWeight: number(0, 1000),
} as const;
/** How a component of the team's own looked when it was drawn by a browser. */
export type LibraryLook = FieldsOf<typeof libraryLookFields>;

const libraryComponentFields = {
  name: foreignName,
  /** Where it is imported from, unless that is the library itself. */
  from: optional(specifier),
  isDefault: optional(yes),
  props: list(fields(libraryPropFields), { max: 300 }),
  looks: optional(list(fields(libraryLookFields), { max: 60 })),
} as const;
/** A component of the team's own. */
export type LibraryComponent = FieldsOf<typeof libraryComponentFields>;

const libraryFields = {
  /** What it is imported by. */
  name: specifier,
  /** The range of versions that the delivered project asks for. */
  version: optional(
    text(60, {
      pattern: /^[\^~]?\d[\w.+-]*$/,
      says: 'a version',
      examples: ['^1.2.0'],
    }),
  ),
  components: list(fields(libraryComponentFields), { max: 2000 }),
} as const;
/** Components that the team has already, as they were read from its sources. */
export type Library = FieldsOf<typeof libraryFields>;

const theirsFields = {
  /** Id of the library. */
  library: ownKey,
  /** The component of it that is written in the place of the drawn one. */
  component: foreignName,
  /**
   * What each prop of theirs is given: a prop of the drawn component, what always stands there, what is written within it where it
   * is used, what a button within does, or all that is drawn within, as it is drawn.
   */
  props: table(
    foreignName,
    kinds({
      prop: { name: propName },
      fixed: { value: either('expected a text, a number or yes or no', text(1000), number(-1e9, 1e9), flag) },
      content: {},
      deed: {},
      drawn: {},
    }),
    { max: 300 },
  ),
} as const;
/** Which component of the team's own a drawn one is. */
export type Theirs = FieldsOf<typeof theirsFields>;
export type TheirValue = Theirs['props'][string];

const componentFields = {
  name: title(100),
  kind: choice(['component', 'list'] as const),
  /** Element keys of the places; of a list its rows, in order. */
  places: list(elementKey, { min: 1, max: 20_000 }),
  /** Places that were among them until an iteration drew them otherwise than the others. */
  apart: optional(list(elementKey, { max: 20_000 })),
  /** Names that a person gave to props, by the name that Tovel found. */
  props: optional(
    // The names that Tovel found are words of any kind.
    { shape: 'table', key: text(200), value: propName, max: 1000 } as Schema<
      Readonly<Record<string, string>>
    >,
  ),
  /** The team's own component that it is. */
  theirs: optional(fields(theirsFields)),
} as const;
/** Several places that are one component, or rows of one list. */
export type Component = FieldsOf<typeof componentFields>;

/** What the values of a field of a record are. */
export const FIELD_TYPES = [
  'text',
  'number',
  'money',
  'percent',
  'date',
  'time',
  'yes-no',
  'one-of',
  'email',
  'phone',
  'link',
  'picture',
] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/** Whether a text is a regular expression. */
function isPattern(source: string): boolean {
  try {
    return new RegExp(source, 'v').source !== '';
  } catch {
    return false;
  }
}

const recordFieldFields = {
  name: propName,
  /** How it is called on the screens, where something calls it. */
  label: optional(title(200)),
  type: choice(FIELD_TYPES),
  /** Of one-of: what it can be. */
  choices: optional(list(title(200), { max: 200 })),
  /** There is no record that says nothing in it. */
  required: optional(yes),
  /** What a new record says in it where nobody says. */
  byDefault: optional(text(2000)),
  /** Id of the collection that it refers to: it says what one of its records is called. */
  of: optional(ownKey),
} as const;
/** A field of the records of a collection. */
export type RecordField = FieldsOf<typeof recordFieldFields>;

const drawnRowFields = {
  element: elementKey,
  /** What holds the rows that it is one of. */
  within: elementKey,
  /** The element that shows each field, by the name of the field. */
  shows: { shape: 'table', key: propName, value: elementKey, max: 200 } as Schema<
    Readonly<Record<string, string>>
  >,
} as const;
/** A row as it was drawn: one appearance of a record. */
export type DrawnRow = FieldsOf<typeof drawnRowFields>;

/** So many records can be kept beyond those that are drawn. */
export const MOST_RECORDS = 5000;
const saidInFields = { shape: 'table', key: propName, value: text(2000), max: 200 } as Schema<
  Readonly<Record<string, string>>
>;

const operationId = text(300, { min: 1, examples: ['listTools', 'get /tools'] });
const behindFields = {
  /** Id of the API. */
  api: ownKey,
  /** Ids of the operations that give all records, one of them, and that add, change and remove one. */
  list: operationId,
  read: optional(operationId),
  add: optional(operationId),
  change: optional(operationId),
  remove: optional(operationId),
  /** The property that a record is known by. */
  key: text(200, { min: 1, examples: ['id'] }),
  /** The property that each field is, by the name of the field. */
  fields: { shape: 'table', key: propName, value: text(200, { min: 1 }), max: 200 } as Schema<
    Readonly<Record<string, string>>
  >,
} as const;
/** Where records come from that are not kept in the app: the operations of a described API. */
export type Behind = FieldsOf<typeof behindFields>;

/** Longest document of an API that is kept, in characters, without what nothing is read from. */
export const LONGEST_API = 1_500_000;
const apiFields = {
  name: title(200),
  /** An OpenAPI document (3.0 or 3.1) as JSON, as far as something is read from it. */
  document: text(LONGEST_API, { min: 2, examples: ['{"openapi":"3.1.0","paths":{}}'] }),
} as const;
/** An API that somebody described. */
export type Api = FieldsOf<typeof apiFields>;

const collectionFields = {
  name: propName,
  fields: list(fields(recordFieldFields), { min: 1, max: 200 }),
  rows: list(fields(drawnRowFields), { max: 20_000 }),
  /** What drawn records say in fields that no row shows, by the key of the first row of each. */
  said: optional(table(elementKey, saidInFields, { max: 20_000 })),
  /** Records that no screen shows as they are drawn. */
  more: optional(list(fields({ id: text(60, { min: 1 }), says: saidInFields }), { max: MOST_RECORDS })),
  /** Where the records come from; where that is not said, they are kept in the app. */
  behind: optional(fields(behindFields)),
} as const;
/** Records of one kind that screens show. What they say is what the screens say. */
export type Collection = FieldsOf<typeof collectionFields>;

const bindingFields = {
  /** What it says, as an expression. */
  text: optional(source),
  /** When it is there, as an expression. */
  shown: optional(source),
  /** Of a picture: which one it is, as an expression. */
  picture: optional(source),
  /** Of a field or a gauge: what stands in it, as an expression. */
  value: optional(source),
  /** Of a button or a field: when it can be used, as an expression. */
  enabled: optional(source),
  /** Of a choice: what can be chosen, as an expression. */
  options: optional(source),
  /** Of a list: which records it shows and in which order, as an expression. */
  rows: optional(source),
  /** Of a link: the address outside the app that it leads to, as an expression. */
  to: optional(source),
  /** When it looks like another element of its screen, as an expression; and the key of that. */
  marked: optional(source),
  like: optional(elementKey),
  /** Of a chart: what stands beneath its points, and how large each is, as expressions. */
  labels: optional(source),
  values: optional(source),
} as const;
/** What an element shows of what is worked out while the app runs. */
export type Binding = FieldsOf<typeof bindingFields>;

const detailFields = {
  /** Id of the collection. */
  collection: ownKey,
  /** The parameter of its path that says which record it is, by its id. */
  parameter: parameterName,
} as const;
/** Which record a screen shows. */
export type Detail = FieldsOf<typeof detailFields>;

const mustHold = kinds({
  /** Nobody is on a screen or overlay unless a condition is, or is not, true. */
  unless: { screen: screenKey, condition: ownKey, is: flag },
  /** Nobody gets to a screen or overlay without having been on another one. */
  through: { screen: screenKey, gate: screenKey },
});
/** Something that somebody states of the app, and that has to hold whatever is pressed. */
export type MustHold = ValueOf<typeof mustHold>;

const formFieldFields = {
  /** Key of the field's element. */
  element: elementKey,
  /** What it is called in a record. */
  field: propName,
  required: optional(yes),
  /** Fewest and most letters. */
  least: optional(whole(0, 10_000)),
  most: optional(whole(1, 100_000)),
  /** Smallest and largest value of a number or a date. */
  from: optional(text(40)),
  to: optional(text(40)),
  /** A regular expression that the whole of it fits. */
  pattern: optional(
    text(500, { holds: isPattern, says: 'expected a regular expression', examples: ['[a-z]+', '\\d{4}'] }),
  ),
  /** The field that it must say the same as. */
  same: optional(propName),
  /** What is said where it is filled in wrongly. */
  message: optional(title(200)),
} as const;
/** A field of a form, and what it must be. */
export type FormField = FieldsOf<typeof formFieldFields>;

const formFields = {
  fields: list(fields(formFieldFields), { min: 1, max: 200 }),
  /** Key of what is pressed to send it. */
  submit: optional(elementKey),
} as const;
/** Fields that are filled in and sent together. */
export type Form = FieldsOf<typeof formFields>;

export const TOKEN_KINDS = ['color', 'size', 'weight', 'space', 'radius', 'shadow'] as const;
export type TokenKind = (typeof TOKEN_KINDS)[number];

/** A CSS value that stays within its declaration and fetches nothing. */
export const isSafeCssValue = (value: string): boolean =>
  value.length <= 2000 && unsafePart(value) === null && !/\burl\(/i.test(value);

const cssValue = text(2000, {
  says: 'a value of a style is plain: no addresses, braces or semicolons',
  holds: isSafeCssValue,
  examples: ['#123456', '8px', '9px'],
});
const tokenFields = {
  kind: choice(TOKEN_KINDS),
  value: cssValue,
  /** The values of the design that it stands for. */
  from: list(cssValue, { max: 500 }),
} as const;
/** A value that recurs, under a name. The name is the key under which it is kept. */
export type Token = FieldsOf<typeof tokenFields>;

export const ADDED_KINDS = ['button', 'field', 'select', 'list', 'table', 'divider', 'message'] as const;
export type AddedKind = (typeof ADDED_KINDS)[number];

const addedFields = {
  /** Key of the screen; where it is not said, the key of the control begins with it. */
  screen: optional(screenKey),
  kind: choice(ADDED_KINDS),
  text: text(2000),
  /** Key of the element that it stands in. */
  within: elementKey,
  /** Key of the element that it follows; the first in its container where that is not said. */
  after: optional(elementKey),
} as const;
/** A plain control that a person put on a screen. */
export type Added = FieldsOf<typeof addedFields>;

const drawerFields = {
  /** Widest window, in px, at which the part is a drawer. */
  below: windowWidth,
  side: choice(['left', 'right'] as const),
  name: title(100),
  /** Key of the element that opens it. */
  opener: optional(elementKey),
} as const;
/** A part of a screen that on narrow windows is a drawer. */
export type Drawer = FieldsOf<typeof drawerFields>;

export const DISCLOSURE_KINDS = ['section', 'menu', 'dialog', 'panel', 'slide'] as const;
export type DisclosureKind = (typeof DISCLOSURE_KINDS)[number];
const disclosureFields = {
  name: title(100),
  /**
   * A section opens in its place; a menu closes when one presses elsewhere or chooses; a dialog keeps one in it; of panels
   * and slides one is always open.
   */
  kind: choice(DISCLOSURE_KINDS),
  /** At first. */
  open: optional(yes),
  /** Widest window, in px, at which it is closed at first; where there is more room it is always there. */
  below: optional(windowWidth),
  /** Of those that share this only one is open. */
  among: optional(ownKey),
} as const;
/** A part of a screen that is opened and closed. */
export type Disclosure = FieldsOf<typeof disclosureFields>;

export const LAYER_KINDS = ['text', 'image', 'vector', 'box'] as const;
/** Kinds of layers that a project can have a default role for. */
export type LayerKind = (typeof LAYER_KINDS)[number];

/** An entry of one of the tables. */
export interface TableEntry {
  readonly table: string;
  readonly key: string;
  readonly value: unknown;
}
const entry: Schema<TableEntry> = lazy('entry', () => entryShape);

/** Longest file in which something is written by hand, in characters. */
export const LONGEST_WRITTEN = 200_000;
const handWrittenFields = {
  /** The file as it was generated when somebody wrote into it, and as they left it. */
  base: text(LONGEST_WRITTEN),
  text: text(LONGEST_WRITTEN),
  /** Key of the element that the file is about first of all, by which it is found where it is called otherwise. */
  about: optional(elementKey),
} as const;
/** What somebody wrote by hand into a file of the delivered code. */
export type HandWritten = FieldsOf<typeof handWrittenFields>;

const setAsideFields = {
  /** Key of the screen that it was on. */
  screen: screenKey,
  /** Key of the element that it was about; not there where it was the screen itself. */
  element: optional(elementKey),
  /** What the element or the screen was called, and the screen that the element was on. */
  label: text(300),
  on: text(300),
  /** Where it stood in its file. */
  place: text(2000),
  /**
   * Whether it waits for somebody to say where it belongs, or was let go; or, `both`, still holds where it is, while the
   * design now says something else.
   */
  standing: choice(['asked', 'letGo', 'both'] as const),
  /** The iteration that set it aside. */
  iteration: whole(0, 1_000_000),
  /** Keys of the elements that it may be now, the likeliest first. */
  candidates: list(elementKey, { max: 20 }),
  entries: list(entry, { max: 10_000 }),
} as const;
/** What was decided about an element that an iteration no longer has, or that it is not sure of. */
export type SetAside = FieldsOf<typeof setAsideFields>;

const iterationScreen = fields({
  /** Key of the screen; of one that is gone, the one it had. */
  screen: screenKey,
  name: text(300),
  standing: choice([
    'same',
    'changed',
    'renamed',
    'overlay',
    'part',
    'joined',
    'width',
    'new',
    'gone',
  ] as const),
});
const iterationFields = {
  screens: list(iterationScreen, { max: 10_000 }),
  /** How many elements kept what was decided about them, how many were asked about, how many let go. */
  kept: whole(0, 1_000_000),
  /** How many of them a person put where they are. */
  byHand: optional(whole(0, 1_000_000)),
  /** How many came back that an earlier iteration had let go, with what was decided about them. */
  back: optional(whole(0, 1_000_000)),
  asked: whole(0, 1_000_000),
  letGo: whole(0, 1_000_000),
} as const;
/** What an iteration did, as long as the project lives. */
export type IterationRecord = FieldsOf<typeof iterationFields>;

const className = text(200, {
  pattern: /^[A-Za-z][\w-]*$/,
  says: 'expected the name of a class',
  examples: ['card', 'row-title'],
});
const classNames = list(className, { max: 50 });
const codeEntry = kinds({
  /** A class of the sheet that all share. */
  class: { name: className, style: classStyleSchema },
  /** A custom property. */
  value: { name: className, value: cssValue },
  /** A drawing that is a component, by a hash of it. */
  drawing: { name: className, sign: text(100), isSmall: optional(flag) },
  /** A file with styles. */
  file: {
    /** The screen that it is of, or which layout or component. */
    screen: optional(screenKey),
    part: optional(text(300, { min: 1 })),
    /** Classes of its own sheet that several of its looks share. */
    own: table(className, classStyleSchema, { max: 20_000 }),
    /** Values that it says by a custom property. */
    values: list(cssValue, { max: 5000 }),
    /**
     * How each of its looks is written, by the first element that has it, with a number where that has several: a hash of the
     * look, the shared classes of the one and the other sheet, and the class that says the rest.
     */
    looks: table(
      numberedElementKey,
      fields({ sign: text(100), name: optional(className), shared: classNames, own: classNames }),
      { max: 20_000 },
    ),
  },
  /** What the props of a component are called, where each of them is given to, and what it is where nothing is given. */
  component: {
    component: text(300, { min: 1 }),
    props: list(
      fields({
        name: className,
        what: text(300),
        at: list(elementKey, { max: 20 }),
        text: optional(text(10_000)),
        isSet: optional(yes),
      }),
      { max: 1000 },
    ),
  },
  /** What of a screen stood within a layout, by the key that the layout has among all. */
  inside: {
    layout: text(300, { min: 1 }),
    screen: optional(screenKey),
    keys: list(elementKey, { max: 5000 }),
  },
  /** What the functions of a screen are called that do something, by the element that they are of and what it is done on. */
  acts: {
    screen: optional(screenKey),
    names: list(fields({ at: elementKey, on: text(50), name: className }), { max: 5000 }),
  },
  /** What of a long file has a file of its own beside it, by its outermost element, and what that is called. */
  pieces: {
    screen: optional(screenKey),
    part: optional(text(300, { min: 1 })),
    names: list(fields({ at: elementKey, name: className }), { max: 1000 }),
  },
  /** What the rows of a screen are known by among their records, and what the constant with those is called. */
  rows: {
    screen: optional(screenKey),
    rows: list(fields({ at: elementKey, id: text(100, { min: 1 }), list: optional(className) }), {
      max: 20_000,
    }),
  },
});
/** Something that the code said by a choice that could have fallen otherwise. */
export type CodeEntry = ValueOf<typeof codeEntry>;

/** How a table of the app is keyed and what it holds. */
interface TableOf<T> {
  readonly key: Schema<string>;
  readonly value: Schema<T>;
  /** What is wrong with a value under its key, beyond what each of them must be; also of removing (`null`). */
  readonly problem?: (key: string, value: unknown) => string | null;
}

const held = <T>(key: Schema<string>, value: Schema<T>, problem?: TableOf<T>['problem']): TableOf<T> => ({
  key,
  value,
  ...(problem ? { problem } : {}),
});

const own = (examples: readonly string[], problem?: (key: string) => string | null): Schema<string> => ({
  shape: 'key',
  of: 'own',
  examples,
  ...(problem ? { problem } : {}),
});

const tokenName = own(['ink', 'gap-2'], (name) =>
  /^[a-z][a-z0-9-]{0,60}$/.test(name)
    ? null
    : `a token is named in small letters, digits and -, not "${name}"`,
);

const lookFields = {
  name: title(200),
  /** What each value is in it, under the name that it had. */
  tokens: table(tokenName, fields(tokenFields), { max: 1000 }),
} as const;
/** Another look of the whole app: the values of its tokens. */
export type Look = FieldsOf<typeof lookFields>;

/** A rule and what it is about, as words. */
const naming = (examples: readonly string[]): Schema<string> =>
  ({ ...own(examples), names: true }) as Schema<string>;

/** All tables of the app. What is not here is in no app. */
export const tables = {
  screens: held(screenKey, fields(screenEntryFields) as Schema<ScreenEntry>),
  /** By element key, further ones of the same element with `|2` and so on. */
  interactions: held(numberedElementKey, interactionSchema),
  /** Elements that look pressable and are meant to do nothing, by element key. */
  still: held(elementKey, yes),
  /** By element key. */
  layers: held(elementKey, fields(layerFields)),
  /** By the key that the element gets. */
  regions: held(elementKey, fields(regionFields)),
  /** By the name of the setting. */
  settings: held(
    own(Object.keys(SETTINGS)),
    choice(Object.values(SETTINGS).flat()) as Schema<Settings[keyof Settings]>,
    settingProblem,
  ),
  /** How the code is written, by the name of the choice. */
  delivery: held(
    own(Object.keys(DELIVERY)),
    choice(Object.values(DELIVERY).flat()) as Schema<Delivery[keyof Delivery]>,
    deliveryProblem,
  ),
  /** What people wrote by hand into files of the code, by path. */
  handWritten: held(
    own(['src/App.tsx', 'src/styles/base.css'], (path) =>
      /^[\w.-]+(\/[\w.@-]+)*$/.test(path) && !path.split('/').includes('..')
        ? null
        : `"${path}" is no path of a file`,
    ),
    fields(handWrittenFields),
  ),
  /** Findings that somebody has looked at and let stand, by their id; with the reason where one was given. */
  dismissed: held(
    naming(['finding a', 'finding b']),
    either('expected true or a reason', yes, text(500, { min: 1 })),
  ),
  /** What is shown in another way than it was drawn, by element, condition and property (`editKey`). */
  edits: held(
    {
      shape: 'key',
      of: 'element',
      suffix: /^\|[^|]*\|[^|]+$/,
      says: 'names no edit: expected element, condition and property, parted by |',
      examples: ['home:0||color', 'home:0|hover|color', 'list:2|<=600|padding-top', 'list:2||text'],
    },
    text(5000, { examples: ['12px', '1px'] }),
    editProblem,
  ),
  /** By an id of their own. */
  components: held(own(['c1', 'c2']), fields(componentFields)),
  /** By an id of their own. */
  libraries: held(own(['parts', 'kit']), fields(libraryFields)),
  /** By an id of their own. */
  collections: held(own(['tools', 'members']), fields(collectionFields)),
  /** By an id of their own. */
  apis: held(own(['library', 'shop']), fields(apiFields)),
  /** By an id of their own. */
  mustHold: held(own(['h1', 'h2']), mustHold),
  /** Screens that show one record, by their keys. */
  details: held(screenKey, fields(detailFields)),
  /** By element key. */
  bindings: held(elementKey, fields(bindingFields)),
  /** By the key of the element around their fields. */
  forms: held(elementKey, fields(formFields)),
  /** By name. */
  tokens: held(tokenName, fields(tokenFields)),
  /** Other looks of the app that were put aside, by an id of their own. */
  looks: held(own(['k1', 'k2']), fields(lookFields)),
  /** By the key that the element gets. */
  added: held(elementKey, fields(addedFields)),
  /** By the key of the part. */
  drawers: held(elementKey, fields(drawerFields)),
  /** By the key of the part. */
  disclosures: held(elementKey, fields(disclosureFields)),
  /** Roles of layers that nothing else is known of; by `LayerKind`. */
  defaults: held(
    own(LAYER_KINDS, (name) =>
      (LAYER_KINDS as readonly string[]).includes(name) ? null : `there is no kind of layer "${name}"`,
    ),
    role,
  ),
  /** Proposals that were refused, by their id. */
  refused: held(naming(['role home:0 button', 'component x']), yes),
  /** By an id of their own. */
  variables: held(own(['signed-in', 'open']), fields(variableFields), (_key, value) =>
    value === null ? null : variableProblem(value as Variable),
  ),
  /** By the path, as a route is written. */
  redirects: held(own(['/old', '/old/:id'], routeFormProblem), fields(redirectFields)),
  /** By an id of their own. */
  layouts: held(own(['l1', 'l2']), fields(layoutFields)),
  /** By an id of their own. */
  journeys: held(own(['j1', 'j2']), fields(journeyFields)),
  /** What iterations set aside, by an id of its own: it waits for as long as the project lives. */
  setAside: held(own(['2-1', '2-2']), fields(setAsideFields)),
  /** What iterations did, by their number. */
  iterations: held(own(['2', '3']), fields(iterationFields)),
  /**
   * How the code was written when the last iteration came in, by an id of its own: it goes on being written that way, so
   * that what an iteration leaves alone stays the same to the byte.
   */
  code: held(own(['class card', 'file home']), codeEntry),
  /** Words that mean the same in this project, by word. */
  synonyms: held(own(['basket', 'help']), title(60)),
} as const;

const entryShape: Schema<TableEntry> = {
  shape: 'either',
  says: 'expected an entry of a table',
  of: Object.entries(tables as Readonly<Record<string, TableOf<unknown>>>).flatMap(
    ([table, { key, value }]): Shape[] =>
      table === 'setAside'
        ? []
        : [{ shape: 'fields', required: { table: choice([table]), key, value }, optional: {} }],
  ),
};

export type TableName = keyof typeof tables;
/** What each table holds. */
export type Tables = { [T in TableName]: ValueOf<(typeof tables)[T]['value']> };

export const TABLE_NAMES = Object.keys(tables) as readonly TableName[];

type Keyed = {
  readonly [T in Exclude<TableName, 'settings' | 'delivery'>]: Readonly<Record<string, Tables[T]>>;
};

export interface App extends Keyed {
  readonly format: 'tovel-app/1';
  /** Key of the screen that opens first. */
  readonly start: string | null;
  readonly settings: Readonly<Partial<Settings>>;
  readonly delivery: Readonly<Partial<Delivery>>;
}

/** Entries that a table can have. */
const MOST_ENTRIES = 200_000;

const tableShape = ({ key, value, problem }: TableOf<unknown>): Shape => ({
  shape: 'table',
  key,
  value,
  max: MOST_ENTRIES,
  ...(problem ? { problem } : {}),
});

export const startSchema = either(
  'expected the key of a screen, or null',
  text(LONGEST_KEY, { min: 1 }),
  nothing,
);

/** The whole document. Tables that came later may be missing in older files. */
export const appSchema: Schema<Partial<App>> = {
  shape: 'fields',
  required: { format: choice(['tovel-app/1']), start: startSchema },
  optional: Object.fromEntries(TABLE_NAMES.map((name) => [name, tableShape(tables[name])])),
};

export const emptyApp: App = {
  format: 'tovel-app/1',
  start: null,
  ...(Object.fromEntries(TABLE_NAMES.map((name) => [name, {}])) as unknown as Pick<App, TableName>),
};
