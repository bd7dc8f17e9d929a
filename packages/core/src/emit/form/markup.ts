import { eachPart, type Expression, usesAddress } from '../../expression/expression.ts';
import type { Arrival, DisclosureKind, DrawnState, Gesture, ListDeed, Side } from '../../model/app.ts';
import type { RecordsMeant } from '../../records/deeds.ts';

/** How the next screen arrives, as it is written: what is shared is known by its name. */
export type EmittedArrival =
  | Exclude<Arrival, { readonly kind: 'shared' }>
  | (Omit<Extract<Arrival, { readonly kind: 'shared' }>, 'pairs'> & { readonly names: readonly string[] });

/** Where an emitted element leads. Addresses are routes of the app, with `#id` for a place on a screen. */
export type EmittedLink =
  | { readonly kind: 'go'; readonly to: string; readonly arrival: EmittedArrival }
  | { readonly kind: 'back'; readonly fallback: string; readonly arrival: EmittedArrival }
  | { readonly kind: 'external'; readonly href: string }
  /** Saves a file, by the hash of its asset. */
  | { readonly kind: 'file'; readonly asset: string; readonly name: string }
  /** Opens what has this id. */
  | { readonly kind: 'drawer'; readonly id: string }
  /** Opens or closes the part that has this id; `choice` where it is one of several. */
  | {
      readonly kind: 'disclose';
      readonly id: string;
      readonly does: 'toggle' | 'open' | 'close';
      /** Whether the part is open at first; in a component it may depend on where it stands. */
      readonly isOpen?: boolean | Expression;
      readonly choice?: DisclosureChoice;
    };

/** Parts of which one is shown: the constant in a component that knows which, and the part that is shown at first. */
export interface DisclosureChoice {
  readonly name: string;
  readonly first: string;
  /** Their ids, in order. */
  readonly all: readonly string[];
}

/** A part that is opened and closed; its id is among its attributes. */
export interface DisclosedPart {
  readonly kind: DisclosureKind;
  /** At first; in a component it may depend on where it stands. */
  readonly isOpen: boolean | Expression;
  /** Whether only narrow windows close it, by what its class says there. */
  readonly isNarrow?: true;
  readonly choice?: DisclosureChoice;
}

/** The record of the row that something is done in, where it is spoken of: what it is called, and what holds it. */
export interface RowAtHand {
  readonly name: string;
  readonly records: string;
}

/** The record of the screen, where it is meant or spoken of: what it is called, its collection, and what gives it. */
export interface ShownAtHand {
  readonly name: string;
  readonly of: string;
  readonly hook: string;
}

/** One of the things that an element does, in order. */
export type EmittedStep =
  | EmittedLink
  | { readonly kind: 'open'; readonly overlay: string; readonly arrival: EmittedArrival }
  | { readonly kind: 'close' }
  /** Gives a variable a value, which may be worked out from others and from what was entered. */
  | {
      readonly kind: 'set';
      readonly condition: string;
      readonly to: Expression;
      readonly takesEntered: boolean;
      /** Whether it is what was chosen among what the variable can be. */
      readonly isChosen?: true;
      readonly row?: RowAtHand;
      readonly shown?: ShownAtHand;
      /** Records that it looks at and an API keeps, which have to be asked for first. */
      readonly asks?: readonly string[];
    }
  /** Says something over the screen. */
  | {
      readonly kind: 'say';
      readonly to: Expression;
      readonly takesEntered: boolean;
      readonly row?: RowAtHand;
      readonly shown?: ShownAtHand;
      readonly asks?: readonly string[];
    }
  /** What a browser does with the page; of copying, the text. */
  /** `refetch` asks anew for what came over the network and leaves the page as it is. */
  | { readonly kind: 'browser'; readonly does: 'print' | 'reload' | 'refetch' }
  | { readonly kind: 'browser'; readonly does: 'copy'; readonly text: string }
  /** Ticks the boxes that stand with a control, by what that is called on the page. */
  | { readonly kind: 'browser'; readonly does: 'tick'; readonly name: string }
  /** Shows the next, or the last, of several parts. */
  | { readonly kind: 'turn'; readonly choice: DisclosureChoice; readonly by: 1 | -1 }
  /** Changes which records a list shows: the constant in a component that holds it, and the function that gives that. */
  | {
      readonly kind: 'list';
      readonly listing: { readonly name: string; readonly hook: string };
      /** What people do to lists; and asking anew for one that did not come. */
      readonly deed: ListDeed | { readonly kind: 'retry' };
    }
  /** Asks an operation of an API: its file, the function that does, and what is given for each property that it takes. */
  | {
      readonly kind: 'call';
      readonly api: string;
      readonly name: string;
      /** Names of properties and of the fields of the form that say them; none where nothing is sent. */
      readonly sends: readonly (readonly [property: string, field: string])[] | null;
    }
  /** Changes records: the constant that holds them, and what is called otherwise in what it says. */
  | {
      readonly kind: 'record';
      readonly records: string;
      /** Whether an API keeps them, so that it takes a while and can be refused. */
      readonly isRemote?: true;
      readonly row?: RowAtHand;
      readonly shown?: ShownAtHand;
      readonly asks?: readonly string[];
      readonly deed: EmittedRecordDeed;
    };

/** What is done to records, as it is written. */
export type EmittedRecordDeed =
  | {
      readonly kind: 'add';
      /** Fields of the form that it is made of, and what is said of others; its constant, where it is spoken of later. */
      readonly fields: readonly string[];
      readonly says: readonly (readonly [field: string, says: Expression])[];
      readonly as?: string;
    }
  | { readonly kind: 'remove'; readonly of: RecordsMeant }
  /** What fields say then. */
  | {
      readonly kind: 'set';
      readonly to: readonly (readonly [field: string, says: Expression])[];
      readonly of: RecordsMeant;
    };

/** What a step says by expressions. */
export const saidByDeed = (deed: EmittedRecordDeed): readonly Expression[] =>
  deed.kind === 'add'
    ? deed.says.map(([, says]) => says)
    : [
        ...(deed.kind === 'set' ? deed.to.map(([, says]) => says) : []),
        ...(deed.of.kind === 'where' ? [deed.of.holds] : []),
      ];

/** What an element does on a gesture, where that is more than a link by pressing. */
export interface EmittedAct {
  readonly on: Gesture;
  readonly key?: string;
  readonly side?: Side;
  readonly ms?: number;
  /** In order; the first whose condition holds is done. */
  readonly ways: readonly {
    readonly when?: Expression;
    readonly steps: readonly EmittedStep[];
  }[];
}

/** Looks of which one is there, by what tells which. */
export interface Variant {
  readonly by: Expression;
  readonly classes: Readonly<Record<string, string | null>>;
}

/** How the link is written: as a link, as a button, or as another element that acts as a link. */
export type LinkForm = 'anchor' | 'button' | 'other';

/** An element of a screen as it will be written, in React or in HTML. Attribute names are those of HTML. */
export interface MarkupElement {
  readonly tag: string;
  /** Key of the design element that it was made from. */
  readonly key: string | null;
  readonly className: string | null;
  readonly attributes: Readonly<Record<string, string | true>>;
  /** A picture by the hash of its asset. */
  readonly asset?: string;
  readonly link?: EmittedLink;
  readonly form?: LinkForm;
  /** Of what does something and says otherwise by now: what it was drawn to say. */
  readonly drawnText?: string;
  /** Whether a link was drawn as what does something: `Reserve`, which leads to what was reserved. */
  readonly isDeed?: true;
  readonly part?: DisclosedPart;
  /** What it does besides; also by pressing, where that is no plain link. */
  readonly acts?: readonly EmittedAct[];
  readonly children: readonly MarkupNode[];
  /** Of what gives way while a list has nothing to show: for which reasons something was drawn. */
  readonly states?: readonly DrawnState[];
  /** Of a form: its fields are checked before it is sent. */
  readonly isChecked?: boolean;
  /** Of a field: it says what the app remembers at each moment, and not only at first. */
  readonly isFollowing?: true;
  /** Of a drawing: what it is called, if by anything but its text, and whether it is no larger than an icon. */
  readonly drawing?: { readonly name: string; readonly isSmall: boolean };
  /** In a component: what gives an attribute (`@alt`), the picture (`asset`) or where it leads (`to`). */
  readonly slots?: Readonly<Record<string, Expression>>;
  /** In a component: what it is left out without. */
  readonly when?: Expression;
  /** It stands once for each text or record of a list, which is called so in it; what a list of texts says at first. */
  readonly each?: {
    readonly item: string;
    readonly of: Expression;
    readonly firsts: readonly string[];
    /** Of a list of records: the field that tells one from the others. */
    readonly by?: string;
    /** Whether there is a space between one and the next. */
    readonly isApart?: true;
  };
  /** Of the root of a component: it is given a class where it stands, at all of its places or at some. */
  readonly takesClass?: 'always' | 'sometimes';
  /** In a component: what decides the class, and the class for each of its values. */
  readonly variant?: Variant;
  /** What it looks like besides its class, each told by something of its own: its colours, and its size. */
  readonly aspects?: readonly Variant[];
  /** A component stands here. */
  readonly use?: ComponentUse;
  /** A component of the team's own stands here. */
  readonly theirs?: TheirUse;
}

/** A component of the team's own, and what it is given besides what it does. */
export interface TheirUse {
  readonly name: string;
  /** What it is imported from. */
  readonly from: string;
  readonly isDefault: boolean;
  readonly props: Readonly<Record<string, PropValue | number>>;
  /** The prop that is called when it is pressed, and what it leads to by itself; null where it has no such. */
  readonly press: string | null;
  /** Props that have to be given something to call, also where nothing is done. */
  readonly idle: readonly string[];
  readonly leads: 'to' | 'href' | null;
}

export interface ComponentUse {
  readonly component: string;
  readonly props: Readonly<Record<string, PropValue>>;
}

export interface ListUse {
  readonly component: string;
  /** Name of the constant that holds the records. */
  readonly data: string;
  readonly records: readonly Readonly<Record<string, PropValue>>[];
  /** Of a list whose records change while the app runs. */
  readonly live?: LiveUse;
  /** Whether a row is given the id of its record. */
  readonly givesId?: boolean;
  /** The class that each row is given, and whether there is a space between one and the next. */
  readonly className?: string;
  readonly isApart?: true;
}

/** What a list whose records change shows. */
export interface LiveUse {
  /** Whether an API keeps the records, so that they can be waited for and stay away. */
  readonly isRemote?: true;
  /** The constant in a component that holds it, and the function that gives that. */
  readonly listing: { readonly name: string; readonly hook: string };
  /** What gives each prop of a row: a property of its record, or that it is the first or the last one. */
  readonly given: Readonly<
    Record<
      string,
      | { readonly property: string }
      | { readonly is: 'first' | 'last' }
      /** The id of its record within an address: what stands before and behind it. */
      | { readonly before: string; readonly behind: string }
    >
  >;
}

/** What a prop is given: text, a yes, a picture, a drawing, what comes of an expression, or a list of texts or records. */
export type PropValue =
  | string
  | boolean
  | { readonly asset: string }
  | { readonly node: MarkupElement }
  | { readonly given: Expression }
  | {
      readonly items: readonly (string | Readonly<Record<string, PropValue>>)[];
      /** The constant that holds them, where they do not stand where they are given. */
      readonly as?: string;
    };

export interface MarkupText {
  readonly text: string;
  /** In a component: what gives the text. */
  readonly given?: Expression;
}

/** In a component: a drawing that it is given whole stands here. */
export interface MarkupSlot {
  readonly slot: Expression;
}

/** A list stands here: one use of a component for each record. */
export interface MarkupList {
  readonly list: ListUse;
  /** Key of the first row. */
  readonly key: string | null;
}

/** In a layout: here stands what is particular to each screen. */
export interface MarkupOutlet {
  readonly outlet: true;
}

/** In a component: here stands what is written within it where it is used. */
export interface MarkupContent {
  readonly content: true;
}

export type MarkupNode = MarkupElement | MarkupText | MarkupSlot | MarkupList | MarkupOutlet | MarkupContent;

/** For `JSON.stringify`: markup without the design elements that it was made from. */
export const withoutKeys = (name: string, value: unknown): unknown => (name === 'key' ? undefined : value);

/** Of what is a part that opens and closes, or opens one: whether that is open at first; nothing where it is neither. */
export const isOpenAtFirst = ({ part, link }: MarkupElement): boolean | Expression | undefined =>
  part ? part.isOpen : link?.kind === 'disclose' ? (link.isOpen ?? false) : undefined;

/** What says so of it where it depends on something. */
export function openAt(node: MarkupElement): Expression | undefined {
  const isOpen = isOpenAtFirst(node);
  return typeof isOpen === 'object' ? isOpen : undefined;
}

/** The same part, or the same control, of one that is open at first or not. */
export const withOpenAtFirst = (
  { part, link }: MarkupElement,
  isOpen: boolean | Expression,
): Pick<MarkupElement, 'part' | 'link'> =>
  part ? { part: { ...part, isOpen } } : link?.kind === 'disclose' ? { link: { ...link, isOpen } } : {};

/** The expressions that an element itself depends on. */
export function termsOf(node: MarkupElement): Expression[] {
  const { when, each, slots = {} } = node;
  const open = openAt(node);
  return [
    ...(when ? [when] : []),
    ...(each ? [each.of] : []),
    ...(open ? [open] : []),
    ...variantsOf(node).map(({ by }) => by),
    ...Object.values(slots),
  ];
}

/** An element with each expression that it itself depends on replaced. */
export function withTerms(node: MarkupElement, change: (term: Expression) => Expression): MarkupElement {
  const open = openAt(node);
  return {
    ...node,
    ...(node.when ? { when: change(node.when) } : {}),
    ...(node.each ? { each: { ...node.each, of: change(node.each.of) } } : {}),
    ...(node.variant ? { variant: { ...node.variant, by: change(node.variant.by) } } : {}),
    ...(node.aspects ? { aspects: node.aspects.map((one) => ({ ...one, by: change(one.by) })) } : {}),
    ...(open ? withOpenAtFirst(node, change(open)) : {}),
    ...(node.slots
      ? {
          slots: Object.fromEntries(Object.entries(node.slots).map(([name, term]) => [name, change(term)])),
        }
      : {}),
  };
}

/** Markup with each expression in it replaced. */
export function withAllTerms(root: MarkupElement, change: (term: Expression) => Expression): MarkupElement {
  const given = (value: PropValue): PropValue => {
    if (typeof value !== 'object') return value;
    if ('given' in value) return { given: change(value.given) };
    return 'node' in value ? { node: withAllTerms(value.node, change) } : value;
  };
  const child = (node: MarkupNode): MarkupNode => {
    if (isElement(node)) return withAllTerms(node, change);
    if (isText(node)) return node.given ? { ...node, given: change(node.given) } : node;
    return 'slot' in node ? { slot: change(node.slot) } : node;
  };
  const { use } = root;
  const props = Object.entries(use?.props ?? {}).map(([name, value]) => [name, given(value)]);
  return {
    ...withTerms(root, change),
    ...(use ? { use: { ...use, props: Object.fromEntries(props) } } : {}),
    children: root.children.map(child),
  };
}

/** Visits all that markup works out, each with the element that it is of. */
export function visitTerms(root: MarkupElement, visit: (term: Expression, at: MarkupElement) => void): void {
  for (const term of termsOf(root)) visit(term, root);
  for (const value of [...givenIn(root), ...Object.values(root.theirs?.props ?? {})]) {
    if (typeof value !== 'object') continue;
    if ('given' in value) visit(value.given, root);
    else if ('node' in value) visitTerms(value.node, visit);
  }
  for (const child of root.children) {
    if (isElement(child)) visitTerms(child, visit);
    else if ('slot' in child) visit(child.slot, root);
    else if (isText(child) && child.given) visit(child.given, root);
  }
}

/** What the expressions of markup speak of. */
export interface Spoken {
  /** Lists that are asked something, each with what gives it. */
  readonly listings: Map<string, string>;
  /** Collections whose records are looked at. */
  readonly all: Set<string>;
  /** Single records that are looked at, by their names, each with its collection and what gives it. */
  readonly singles: Map<string, { readonly of: string; readonly hook: string }>;
  readonly variables: Set<string>;
  /** What says which parts are open at first, as it is written, where it is asked which are open; null where nothing asks. */
  disclosed: Set<string> | null;
  /** Of parts of which one is shown, by the constant that knows which: the first one, and all where one goes on. */
  readonly choices: Map<string, { readonly first: string; readonly inOrder: readonly string[] }>;
  callsFunctions: boolean;
}

/** Notes that something looks at which part is open, or changes that. */
export function noteDisclosed(
  spoken: Pick<Spoken, 'disclosed' | 'choices'>,
  choice: { readonly name: string; readonly first: string; readonly inOrder?: readonly string[] } | undefined,
  openAtFirst?: string,
): void {
  if (!choice) {
    spoken.disclosed ??= new Set();
    if (openAtFirst !== undefined) spoken.disclosed.add(openAtFirst);
    return;
  }
  const known = spoken.choices.get(choice.name);
  const inOrder = choice.inOrder ?? known?.inOrder ?? [];
  spoken.choices.set(choice.name, { first: choice.first, inOrder });
}

/** Notes what the expressions of markup speak of. */
export function noteSpoken(root: MarkupElement, spoken: Spoken): void {
  visitTerms(root, (term) =>
    eachPart(term, (part) => {
      if (part.kind === 'listing') spoken.listings.set(part.of, part.from);
      if (part.kind === 'records') spoken.all.add(part.name);
      if (part.kind === 'record') spoken.singles.set(part.name, { of: part.of, hook: part.from });
      if (part.kind === 'variable') spoken.variables.add(part.name);
      if (part.kind === 'disclosed')
        noteDisclosed(spoken, part.first === undefined ? undefined : { name: part.of, first: part.first });
      if (part.kind === 'call' || part.kind === 'each') spoken.callsFunctions = true;
    }),
  );
}

/** Whether markup looks at the present address. */
export function looksAtAddress(root: MarkupElement): boolean {
  let found = false;
  visitTerms(root, (term) => (found ||= usesAddress(term)));
  return found;
}

/** The first element in markup that a test holds for, the outermost one included. */
export function findMarkup(
  node: MarkupElement,
  test: (node: MarkupElement) => boolean,
): MarkupElement | null {
  if (test(node)) return node;
  for (const child of node.children) {
    const found = isElement(child) ? findMarkup(child, test) : null;
    if (found) return found;
  }
  return null;
}

/** All text within an element, as it is read. */
export const textIn = (node: MarkupElement): string =>
  node.children
    .map((child) => (isText(child) ? child.text : isElement(child) ? textIn(child) : ''))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();

/** A choice of looks with each class replaced. */
export const withClasses = (
  { by, classes }: Variant,
  change: (className: string) => string | null,
): Variant => ({
  by,
  classes: Object.fromEntries(
    Object.entries(classes).map(([value, name]) => [value, name === null ? null : change(name)]),
  ),
});

/** All choices of looks that an element has. */
export const variantsOf = ({ variant, aspects = [] }: MarkupElement): readonly Variant[] =>
  variant ? [variant, ...aspects] : aspects;

/** Whether an element is one of the links and buttons that tests and journeys count on a page. */
export const isCounted = ({ tag, form, attributes }: MarkupElement): boolean =>
  tag === 'a' || tag === 'button' || form === 'other' || attributes.role === 'link';

export const isText = (node: MarkupNode): node is MarkupText => 'text' in node;
/** Whether it is nothing but the space between two elements. */
export const isSpace = (node: MarkupNode): node is MarkupText =>
  isText(node) && !node.given && /^ +$/.test(node.text);
export const isElement = (node: MarkupNode): node is MarkupElement => 'tag' in node;

/** What is given to the component that an element is a use of, and by lists among its children; of a list each thing in it. */
export const givenIn = ({ use, children }: MarkupElement): PropValue[] =>
  [
    ...Object.values(use?.props ?? {}),
    ...children.flatMap((child) =>
      'list' in child ? child.list.records.flatMap((record) => Object.values(record)) : [],
    ),
  ].flatMap(eachGiven);

/** What a component is given by one prop: of a list each thing in it. */
export function eachGiven(value: PropValue): PropValue[] {
  if (typeof value !== 'object' || !('items' in value)) return [value];
  return value.items.flatMap((item) =>
    typeof item === 'string' ? item : Object.values(item).flatMap(eachGiven),
  );
}

/** Visits markup from the outside inwards; return false to leave out what is inside. */
export function visitMarkup(root: MarkupElement, visit: (node: MarkupElement) => boolean): void {
  if (!visit(root)) return;
  for (const child of root.children) if (isElement(child)) visitMarkup(child, visit);
}

/** How many elements there are in markup, itself among them; of what is not counted, none of what stands in it either. */
export const elementsIn = (
  node: MarkupElement,
  counts: (node: MarkupElement) => boolean = () => true,
): number =>
  counts(node)
    ? node.children.reduce((sum, child) => sum + (isElement(child) ? elementsIn(child, counts) : 0), 1)
    : 0;

/** An element with its children replaced; the same element where none is. */
export function mapChildren(node: MarkupElement, change: (child: MarkupNode) => MarkupNode): MarkupElement {
  const children = node.children.map(change);
  return children.every((child, i) => child === node.children[i]) ? node : { ...node, children };
}

/** A screen as it will be written: its elements and its style rules. Every picture of a screen is made from this. */
export interface EmittedScreen {
  readonly root: MarkupElement;
  readonly rules: readonly StyleRule[];
}

/** One class and all that is said about it. */
export interface StyleRule {
  readonly className: string;
  /** What the class is called that says what this rule has by itself, where others of its name share the rest. */
  readonly ownName?: string;
  /** In a component: the class of the same element that this one only differs from. */
  readonly over?: string;
  /** Whether it says otherwise what a class before it in its sheet says of the same element. */
  readonly isOver?: true;
  /** The first element that has it. */
  readonly key: string | null;
  readonly base: Readonly<Record<string, string>>;
  readonly at: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly from: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly states: Readonly<Record<string, Readonly<Record<string, string>>>>;
}
