import type { PropsBefore } from '../before.ts';
import { equalJson } from '../../../json/json.ts';
import { capital, uniqueCodeName } from '../../../model/names.ts';
import { isChosen, isFlag } from '../../../vocabulary/attributes.ts';
import {
  allOf,
  atOneOf,
  choice,
  type Expression,
  literal,
  mapExpression,
  not,
  propNamed,
  propsOf,
} from '../../../expression/expression.ts';
import {
  isElement,
  isOpenAtFirst,
  isText,
  type MarkupElement,
  type MarkupNode,
  type MarkupSlot,
  type MarkupText,
  openAt,
  type PropValue,
  type StyleRule,
  type Variant,
  withClasses,
  withOpenAtFirst,
  withoutKeys,
  withTerms,
} from '../markup.ts';
import { valueOf } from '../../../expression/value_of.ts';
import { authoredWords } from '../../../roles/authored_words.ts';
import { lookText } from '../styles/look_text.ts';
import { isDressedOtherwise, lookAspect, lookWord } from '../styles/look_words.ts';
import { partOfRule, unitsOf } from '../styles/units.ts';
import { aspectsOf } from './aspects.ts';
import { alignColumns, isOnlySpace } from './columns.ts';
import {
  areTexts,
  canHoldItems,
  differsMuch,
  isGivenTooMuch,
  isOneItem,
  type Items,
  itemsAt,
  GROUPED,
  itemsWithin,
  itemWords,
  ofItem,
  ownNameOf,
  type Records,
  saidOfPlaces,
  withIds,
  withItem,
  without,
} from './item_list.ts';
import { isCompatible, isSameTerm } from './compatible.ts';
import {
  addressAt,
  keepAddress,
  linkOf,
  NO_LINK,
  OWN_WAY,
  type OwnLink,
  ownLinkOf,
  ownTerms,
  renamedLink,
} from './own_links.ts';
import { canBeProp, flagByAttributes, flagOfAttribute, propNameFor, type PropHint } from './prop_names.ts';
import { isRouteTerm, lookAsked, routeLooks, valuesInOrder } from './route_looks.ts';

/** A prop of a component. */
export interface Prop {
  readonly name: string;
  /** What it is called unless somebody calls it otherwise. */
  readonly proposed: string;
  /** What kind of thing it says, of which attribute. */
  readonly what: string;
  /** Elements of some places that it is given to. */
  readonly at: readonly string[];
  readonly kind: 'text' | 'image' | 'link' | 'flag' | 'choice' | 'drawing' | 'list';
  readonly isOptional: boolean;
  /** Of a text: whether some places say nothing where others say this, and not only where something around it is missing. */
  readonly canBeUnsaid?: true;
  /** What it is where nothing is given; a flag that has none is not set then. */
  readonly byDefault?: string | true;
  /** Of a choice: what it can be. */
  readonly choices?: readonly string[];
  /** Of a list: what each of its records has; nothing where it is one of texts. */
  readonly fields?: readonly Prop[];
  /** What the first place that has it gives. */
  readonly sample?: string;
}

/** What several places have in common, as markup with slots, and what each of them puts into the slots. */
export interface Template {
  readonly root: MarkupElement;
  readonly props: readonly Prop[];
  /** One for each place, in order. */
  readonly values: readonly Readonly<Record<string, PropValue>>[];
}

/** What is known of elements, by their keys, that their markup does not say. */
export interface ElementsKnown {
  /** The fields of records that they show: props are called as fields are. */
  readonly fieldOf: ReadonlyMap<string, string>;
  /** Whether an element shows what a record has by then, and not what was drawn. */
  readonly isBound: (key: string) => boolean;
  /** The classes that they had where they were written: looks are called after what these tell apart. */
  readonly classesOf: (key: string) => string;
}
export const NOTHING_OF_ELEMENTS: ElementsKnown = {
  fieldOf: new Map(),
  isBound: () => false,
  classesOf: () => '',
};

/** A place of a component: its markup, and the rules of the screen that it stands on, by class name. */
export interface Place {
  readonly node: MarkupElement;
  readonly rules: ReadonlyMap<string, StyleRule>;
  /** The route of its screen; null within another component that stands on several. */
  readonly route: string | null;
  /** Within another component, the routes that this stands on; nothing where they are not known. */
  readonly routes?: readonly string[];
  /** Within another component, the props of that one. */
  readonly props?: readonly Prop[];
}

/**
 * Lays the markup of several places over each other. Where they agree it stays; where texts, pictures, links,
 * attributes or drawings differ there is a prop; a part that some lack becomes optional; a class that differs becomes a
 * variant. Null where they are too different to be one (another tag, another kind of link).
 * @param hasDefaults whether what most places say is said by the component itself, and left out by them
 * @param known what is known of the elements that stand there
 * @param before the props that there were, which are called so still and are by themselves what they were
 */
export function templateOf(
  places: readonly Place[],
  names: Readonly<Record<string, string>> = {},
  hasDefaults = false,
  before: PropsBefore = new Map(),
  known: ElementsKnown = NOTHING_OF_ELEMENTS,
): Template | null {
  const builder = new TemplateBuilder(places, names, hasDefaults, before, known);
  const root = builder.element(
    // Whether a place is there at all is said where it stands.
    places.map(({ node }) => withoutWhen(node)),
    true,
  );
  if (!root || !isElement(root)) return null;
  return { root, props: builder.props(), values: builder.values() };
}

function withoutWhen(place: MarkupElement): MarkupElement {
  const { when: _when, ...node } = place;
  keepAddress(place, node);
  return node;
}

/** Routes that one term can name. */
const MOST_ROUTES = 40;

interface Found {
  prop: Prop;
  values: readonly (PropValue | undefined)[];
  /** Whether a place gives nothing only where the part that it is for is not there, which something else decides. */
  isOfPart: boolean;
}

/** Places that a component has at least for what most of them say to be said by itself. */
const LEAST_FOR_DEFAULT = 3;
/** A flag is set by itself where at most one of so many places has it not. */
const MOST_UNSET = 4;
const HAVE_DEFAULTS: ReadonlySet<Prop['kind']> = new Set(['text', 'link', 'choice']);

/** How many elements stand aside before items and after them, in the order in which it is tried. */
const ASIDE = [
  [0, 0],
  [1, 0],
  [0, 1],
] as const;

/** Items that are given as a list, with how many elements stand before and after them. */
interface ItemRun {
  readonly item: MarkupElement;
  readonly before: number;
  readonly after: number;
}

/** An item of a list: without lists in it, or with some. */
type ItemKind = 'plain' | 'holding';

class TemplateBuilder {
  readonly #places: readonly Place[];
  readonly #hasDefaults: boolean;
  /** Whether it is an item of a list that is given as a whole, so that nothing is said by itself; and whether it can hold one. */
  readonly #itemOf: ItemKind | null;
  readonly #before: PropsBefore;
  readonly #known: ElementsKnown;
  readonly #names: Readonly<Record<string, string>>;
  readonly #links: ReadonlySet<string>;
  readonly #found: Found[] = [];
  /** What props that are found now are given to, at each place. */
  #at: readonly (MarkupElement | null)[] = [];
  /** Flags and choices by how they part the places, so that what goes together is one prop. */
  readonly #partitions = new Map<string, Expression>();
  /** How what is said by the present route parts the places. */
  readonly #saidByRoute = new Set<string>();
  /** What the looks of choices are called, by how they part the places. */
  readonly #words = new Map<string, readonly string[]>();
  readonly #taken = new Set<string>();
  /** Whether it is something that is pressed, with one text. */
  readonly #isLabelled: boolean;
  /** Within how many elements it is that are there or not by what an outer component is given. */
  #depth = 0;
  /** Props of outer components that are handed on, by their names there. */
  readonly #handedOn = new Map<string, Found[]>();
  #ownLink: { readonly link: OwnLink; readonly given: Expression } | null = null;

  constructor(
    places: readonly Place[],
    names: Readonly<Record<string, string>>,
    hasDefaults: boolean,
    before: PropsBefore,
    known: ElementsKnown,
    itemOf: ItemKind | null = null,
  ) {
    this.#itemOf = itemOf;
    this.#known = known;
    this.#before = before;
    this.#places = places;
    this.#hasDefaults = hasDefaults;
    this.#names = names;
    const [{ node }] = places;
    this.#isLabelled = (node.tag === 'button' || node.tag === 'a') && textsIn(node) === 1;
    this.#links = new Set(places.flatMap(({ node }) => [...linksIn(node)]));
  }

  props(): Prop[] {
    return this.#found.map((found) => {
      const { prop, values } = found;
      const sample = values.find((value) => typeof value === 'string');
      const byDefault = this.#defaultOf(found);
      return {
        ...prop,
        ...(byDefault === undefined ? {} : { byDefault, isOptional: true }),
        ...(typeof sample === 'string' ? { sample: sample.trim().slice(0, 80) } : {}),
      };
    });
  }

  values(): Record<string, PropValue>[] {
    const defaults = this.#found.map((found) => this.#defaultOf(found));
    return this.#places.map((_, i) =>
      Object.fromEntries(
        this.#found.flatMap(({ prop, values }, at) => {
          const value = values[i];
          return value === undefined ||
            value === defaults[at] ||
            (prop.kind === 'flag' && value === false && defaults[at] !== true)
            ? []
            : [[prop.name, value] as const];
        }),
      ),
    );
  }

  /** What more than half of the places give, where all that have the part give something. */
  #defaultOf({ prop, values, isOfPart }: Found): string | true | undefined {
    if (this.#itemOf) return undefined;
    const before = this.#before.get(prop.proposed);
    const isFlag = prop.kind === 'flag';
    const canBe = isFlag || isOfPart || !values.includes(undefined);
    if (before && (before.byDefault === undefined || canBe)) return before.byDefault;
    if (isFlag) {
      const given = values.filter((value) => value !== undefined);
      const unset = given.filter((value) => value !== true).length;
      return given.length >= LEAST_FOR_DEFAULT && unset <= given.length / MOST_UNSET ? true : undefined;
    }
    if (!this.#hasDefaults || !HAVE_DEFAULTS.has(prop.kind)) return undefined;
    if (values.includes(undefined) && !isOfPart) return undefined;
    const given = values.filter((value) => value !== undefined);
    if (given.length < LEAST_FOR_DEFAULT) return undefined;
    const counts = new Map<string, number>();
    for (const value of given) if (typeof value === 'string') counts.set(value, (counts.get(value) ?? 0) + 1);
    const usual = [...counts].find(([, count]) => count > given.length / 2)?.[0];
    // What has no word needs none.
    return usual ?? (prop.kind === 'choice' && counts.has('plain') ? 'plain' : undefined);
  }

  /** The template of nodes that stand at the same place; null in `nodes` where a place has none. */
  element(
    nodes: readonly (MarkupElement | null)[],
    isRoot = false,
    /** The places that could have it: those that have what it stands in. */
    could: readonly boolean[] = nodes.map(() => true),
  ): MarkupElement | MarkupSlot | null {
    if (this.#itemOf !== null && isGivenTooMuch(this.#places[0].node.tag, this.#found)) return null;
    this.#at = nodes;
    const there = nodes.filter((node) => node !== null);
    const isMissing = nodes.some((node, i) => node === null && could[i]);
    // What looks whether its link is the present one says how all do.
    const first = there.find(({ variant }) => variant) ?? there[0];
    if (!there.every((node) => isCompatible(first, node))) return null;
    if (first.variant && !this.#haveSameVariants(nodes)) return null;
    if (first.aspects && !this.#haveSameAspects(nodes)) return null;
    // A drawing that differs is given as a whole.
    if (first.tag === 'svg' && there.some((node) => bodyOf(node) !== bodyOf(first))) {
      if (isRoot || isMissing) return null;
      const slot = this.#slot(
        'drawing',
        nodes.map((node) => (node ? { node } : undefined)),
        { tag: 'svg', node: first },
      );
      return { slot };
    }
    if (first.when) this.#depth++;
    const made: MarkupElement = {
      ...first,
      ...this.#class(nodes, first),
      ...this.#content(nodes, first),
      ...this.#openAtFirst(nodes, first),
      // What depended on a prop of the outer component depends on it still.
      ...(first.when ? { when: this.#carried(first.when, nodes) } : {}),
      children: [],
    };
    const outer = this.#ownLink;
    const link = linkOf(first) ?? NO_LINK;
    if (made.slots?.to && link !== NO_LINK) this.#ownLink = { link, given: made.slots.to };
    const children = this.#children(nodes);
    const renamed = this.#renamed(made, ownLinkOf(first));
    this.#ownLink = outer;
    if (first.when) this.#depth--;
    if (!children) return null;
    this.#at = nodes;
    const when = allOf([
      ...(renamed.when ? [renamed.when] : []),
      ...(isMissing ? [this.#presence(nodes, could, first)] : []),
    ]);
    return { ...renamed, children, ...(when ? { when } : {}) };
  }

  /** What looks whether its own link is the present one looks at the prop that says where the link leads, or what it opens. */
  #renamed(node: MarkupElement, link: OwnLink): MarkupElement {
    const own = this.#ownLink;
    return own && node.key
      ? withTerms(node, (term) => renamedLink(term, link === NO_LINK ? own.link : link, own.given))
      : node;
  }

  /**
   * A term of the outer component, whose props are handed on: under the same names, unless this one calls something else so.
   * @param nodes where it stands; a place without it may stand in another component, which has no such prop
   */
  #carried(
    term: Expression,
    nodes: readonly (MarkupNode | null)[],
    kind: Prop['kind'] = 'flag',
    choices?: readonly string[],
  ): Expression {
    const names = new Map<string, string>();
    for (const name of propsOf(term)) {
      const given = nodes.map((node) => (node ? { given: propNamed(name) } : choices?.[0]));
      const all = this.#handedOn.get(name) ?? [];
      // What a place gives for something that others lack says whether that is there, and is given for nothing else.
      const known = all.find(({ values }) =>
        nodes.every((node, i) => !node || equalJson(values[i], given[i])),
      );
      if (known) {
        names.set(name, known.prop.name);
        continue;
      }
      // It is what it is in the outer component.
      const outer = this.#places.flatMap(({ props }) => props?.find((prop) => prop.name === name) ?? [])[0];
      const own = uniqueCodeName(ownNameOf(name), 'given', (one) => this.#taken.has(one));
      const as = own === name ? {} : { name: own, proposed: own };
      this.#taken.add(own);
      const found: Found = {
        prop: outer
          ? { ...handedOn(outer), ...as, ...(given.includes(undefined) ? { isOptional: true } : {}) }
          : {
              name: own,
              proposed: own,
              what: 'handed on',
              at: [],
              kind: choices ? 'choice' : kind,
              isOptional: !choices,
              ...(choices ? { choices } : {}),
            },
        values: given,
        isOfPart: false,
      };
      this.#handedOn.set(name, [...all, found]);
      this.#found.push(found);
      names.set(name, own);
    }
    return mapExpression(term, (part) => (part.kind === 'prop' ? propNamed(names.get(part.name)!) : part));
  }

  /** A term of a node with its own link made neutral. */
  #own(node: MarkupElement | null, term: Expression | undefined): string {
    return node ? ownTerms(node, [term]) : '';
  }

  /**
   * Items of one kind that an element consists of, but for a few before and after them, where they differ from place to place: they
   * are given as one list.
   */
  #items(nodes: readonly (MarkupElement | null)[]): ItemRun | null {
    if (this.#itemOf === 'plain' || nodes.includes(null)) return null;
    for (const [before, after] of ASIDE) {
      const items = itemsAt(nodes, before, after, this.#known.isBound);
      if (!items) continue;
      // Rows of which some have more cells than others hold lists themselves.
      const canHold = (): boolean => !this.#itemOf && items.lists.some((list) => list.some(canHoldItems));
      const item =
        this.#item(items, nodes, 'plain') ?? (canHold() ? this.#item(items, nodes, 'holding') : null);
      if (item) return { item, before, after };
    }
    return null;
  }

  #item(
    { lists, areApart }: Items,
    nodes: readonly (MarkupElement | null)[],
    kind: ItemKind,
  ): MarkupElement | null {
    const items = lists.flat();
    // Items ask for no route; where they would have to, they are no list.
    const places = lists.flatMap((list, at) => {
      const { rules } = this.#places[at];
      return list.map((node) => ({ at, place: { node, rules, route: null } }));
    });
    const builder = new TemplateBuilder(
      places.map(({ place }) => place),
      {},
      false,
      new Map(),
      this.#known,
      kind,
    );
    const root = builder.element(items, true);
    if (!root || !isElement(root)) return null;
    const [found, values] = [builder.props(), builder.values()];
    const given = lists.map((_, at) => values.filter((__, i) => places[i].at === at));
    const apart = saidOfPlaces(found, given).filter((one) => this.#canBeSaid(one, given));
    const fields = found.filter((one) => !apart.includes(one));
    const records = without(given, apart);
    if (!isOneItem(root, fields, items) || !differsMuch(records, root.tag === 'tr')) return null;
    // Which entry of a menu is the present one is told by the route.
    const isTold = fields.some(({ kind }) => kind === 'flag' || kind === 'choice');
    if (isTold && items.some((item) => linksIn(item).size)) return null;
    const isText = areTexts(fields, records);
    const within = itemsWithin(root);
    const own = itemWords(root);
    const words = within.has(own.one) ? GROUPED : own;
    const parent = nodes.find((node) => node !== null)!;
    this.#at = nodes;
    const ofPlace = new Map(apart.map((one) => [one.name, this.#saidOfPlaces(one, given, parent)]));
    const of = this.#slot(
      'list',
      records.map((some) => ({
        items: isText ? some.map((one) => String(one[fields[0].name])) : withIds(some),
      })),
      { tag: parent.tag, node: parent, word: words.all },
    );
    const list = this.#found.at(-1)!;
    list.prop = { ...list.prop, ...(isText ? {} : { fields }) };
    const item = uniqueCodeName(words.one, 'item', (one) => this.#taken.has(one) || within.has(one));
    this.#taken.add(item);
    const made = withItem(
      root,
      (prop) => ofPlace.get(prop) ?? ofItem(item, prop, isText),
      (ref) => {
        const { place, className, kins } = parseClassRef(ref);
        return classRef(places[place].at, className, kins)!;
      },
    );
    return {
      ...made,
      each: { item, of, firsts: [], ...(isText ? {} : { by: 'id' }), ...(areApart ? { isApart: true } : {}) },
    };
  }

  /** Whether what all items of a place say the same can be said of the place: what parts the places alike is called alike. */
  #canBeSaid(field: Prop, records: Records): boolean {
    if (field.kind === 'flag') return true;
    const { pattern, distinct } = partedBy(records.map(([first]) => first[field.name]));
    const known = this.#words.get(pattern.join());
    return (!known || equalJson(known, distinct)) && distinct.every((one) => typeof one === 'string');
  }

  #saidOfPlaces({ name, kind }: Prop, records: Records, node: MarkupElement): Expression {
    const values = records.map(([first]) => first[name]);
    const { pattern, distinct } = partedBy(values);
    if (kind === 'flag') {
      const flags = values.map((value) => value === true);
      // What is told already where it is not so is not told again.
      const other = this.#partitions.get(flagKey(flags.map((is) => !is)));
      return other ? not(other) : this.#partition(pattern, 'flag', flags, node, undefined, { called: name });
    }
    const words = distinct.map(String);
    this.#words.set(pattern.join(), words);
    return this.#partition(pattern, 'choice', values, node, words, { called: name });
  }

  #children(nodes: readonly (MarkupElement | null)[]): MarkupNode[] | null {
    const run = this.#items(nodes);
    if (run) {
      // What stands before and after them stands there at each place.
      const around = [0, 1].map((end) =>
        this.#columns(
          nodes.map((node) => {
            const all = node!.children.filter(isElement);
            return end ? all.slice(all.length - run.after) : all.slice(0, run.before);
          }),
          nodes,
        ),
      );
      const [before, after] = around;
      return before && after ? [...before, run.item, ...after] : null;
    }
    return this.#columns(
      nodes.map((node) => node?.children ?? null),
      nodes,
    );
  }

  #columns(
    children: readonly (readonly MarkupNode[] | null)[],
    nodes: readonly (MarkupElement | null)[],
  ): MarkupNode[] | null {
    const columns = alignColumns(children);
    const made: MarkupNode[] = [];
    for (const [at, column] of columns.entries()) {
      const first = column.find((node) => node !== null)!;
      if (isText(first) && isOnlySpace(columns, at)) made.push({ text: first.text });
      else if (isText(first)) made.push(this.#text(column as (MarkupText | null)[], nodes));
      else if ('slot' in first) made.push(this.#drawing(column as (MarkupSlot | null)[], nodes));
      else if ('content' in first) {
        if (column.some((node, i) => !node && nodes[i])) return null;
        made.push(first);
      }
      // Lists and outlets belong to screens and layouts.
      else if (!isElement(first)) return null;
      else {
        const child = this.element(
          column as (MarkupElement | null)[],
          false,
          nodes.map((node) => node !== null),
        );
        if (!child) return null;
        made.push(child);
      }
    }
    return made;
  }

  #text(column: readonly (MarkupText | null)[], parents: readonly (MarkupElement | null)[]): MarkupText {
    const [text] = column.filter((node) => node !== null);
    const isSame = column.every((node, i) =>
      node ? node.text === text.text && isSameTerm(node.given, text.given) : !parents[i],
    );
    // What an outer component is given is handed on, under the same name.
    if (isSame) return text.given ? { ...text, given: this.#carried(text.given, column, 'text') } : text;
    const values = column.map((node) =>
      node ? (node.given ? { given: node.given } : node.text) : undefined,
    );
    const parent = parents.find((node) => node !== null)!;
    this.#at = parents;
    return {
      text: text.text,
      given: this.#slot(
        'text',
        values,
        { tag: parent.tag, node: parent, texts: values },
        undefined,
        column.every((node, i) => node !== null || !parents[i]),
      ),
    };
  }

  /** A drawing that an outer component is given whole. */
  #drawing(column: readonly (MarkupSlot | null)[], parents: readonly (MarkupElement | null)[]): MarkupSlot {
    const [first] = column.filter((node) => node !== null);
    const isSame = column.every((node, i) => (node ? isSameTerm(node.slot, first.slot) : !parents[i]));
    if (isSame) return { slot: this.#carried(first.slot, column, 'drawing') };
    const values = column.map((node) => (node ? { given: node.slot } : undefined));
    const parent = parents.find((node) => node !== null)!;
    this.#at = parents;
    return { slot: this.#slot('drawing', values, { tag: 'svg', node: parent }) };
  }

  #content(nodes: readonly (MarkupElement | null)[], first: MarkupElement): Partial<MarkupElement> {
    const slots: Record<string, Expression> = { ...first.slots };
    const there = nodes.filter((node) => node !== null);
    const names = new Set(
      there.flatMap((node) => [
        ...Object.keys(node.attributes),
        ...Object.keys(node.slots ?? {}).flatMap((name) => (name.startsWith('@') ? [name.slice(1)] : [])),
      ]),
    );
    const attributes: Record<string, string | true> = {};
    for (const name of names) {
      // What is a slot already, within another component, is handed on.
      if (there.some((node) => node.slots?.[`@${name}`])) {
        const exprs = nodes.map((node) => this.#own(node, node?.slots?.[`@${name}`]));
        if (new Set(exprs.filter((_, i) => nodes[i])).size === 1) {
          slots[`@${name}`] = this.#carried(
            first.slots![`@${name}`],
            nodes,
            first.slots![`@${name}`].kind === 'choice' || isFlag(first.tag, name) ? 'flag' : 'text',
          );
          continue;
        }
        const isYesNo = isFlag(first.tag, name);
        const chosen = isChosen(name) ? this.#chosenAs(nodes, name) : null;
        slots[`@${name}`] = this.#slot(
          isYesNo ? 'flag' : chosen ? 'choice' : 'text',
          nodes.map((node) => {
            const expr = node?.slots?.[`@${name}`];
            const value = node?.attributes[name];
            if (expr) return { given: expr };
            return isYesNo && node ? value !== undefined : value;
          }),
          { tag: first.tag, node: first, attribute: name },
          chosen ?? undefined,
        );
        continue;
      }
      const values = nodes.map((node) => node?.attributes[name]);
      const given = [...new Set(there.map((node) => node.attributes[name]))];
      const [sample] = given.filter((value) => value !== undefined);
      if (given.length === 1) attributes[name] = sample;
      // An attribute that is there or not depends on a flag; its value stays where it is.
      else if (given.filter((value) => value !== undefined).length === 1) {
        const flag = this.#partition(
          values.map((value) => (value === undefined ? 0 : 1)),
          'flag',
          nodes.map((node) => node && node.attributes[name] !== undefined),
          first,
          undefined,
          { called: flagOfAttribute(name) },
        );
        slots[`@${name}`] = sample === true ? flag : choice(flag, literal(sample), literal(undefined));
      } else if (isChosen(name)) {
        const choices = given.filter((value): value is string => typeof value === 'string');
        slots[`@${name}`] = this.#slot(
          'choice',
          values,
          { tag: first.tag, node: first, attribute: name },
          choices,
        );
      } else
        slots[`@${name}`] = this.#slot(
          'text',
          values,
          { tag: first.tag, node: first, attribute: name, texts: values },
          undefined,
          there.every((node) => node.attributes[name] !== undefined),
        );
    }
    const isSameAsset = there.every(
      (node) => node.asset === first.asset && isSameTerm(node.slots?.asset, first.slots?.asset),
    );
    if (!isSameAsset)
      slots.asset = this.#slot(
        'image',
        nodes.map((node) =>
          node?.slots?.asset ? { given: node.slots.asset } : node?.asset ? { asset: node.asset } : undefined,
        ),
        { tag: 'img', node: first },
      );
    else if (slots.asset) slots.asset = this.#carried(slots.asset, nodes, 'image');
    const targets = nodes.map((node) =>
      node?.slots?.to ? { given: node.slots.to } : node?.link ? addressOf(node.link) : undefined,
    );
    const isSameTarget = there.every(
      (node) =>
        !node.link ||
        (addressOf(node.link) === addressOf(first.link!) && isSameTerm(node.slots?.to, first.slots?.to)),
    );
    if (!isSameTarget)
      slots.to = this.#slot('link', targets, { tag: first.tag, node: first }, undefined, true);
    else if (slots.to) slots.to = this.#carried(slots.to, nodes, 'link');
    return { attributes, ...(Object.keys(slots).length ? { slots } : {}) };
  }

  /** What an attribute of few values is at some nodes, as it stands there or as an outer component may be given it; null where that is not known. */
  #chosenAs(nodes: readonly (MarkupElement | null)[], name: string): readonly string[] | null {
    const found = new Set<string>();
    for (const [i, node] of nodes.entries()) {
      const value = node?.attributes[name];
      if (typeof value === 'string') found.add(value);
      const term = node?.slots?.[`@${name}`];
      if (!term) continue;
      mapExpression(term, (part) => {
        if (part.kind === 'literal' && typeof part.value === 'string') found.add(part.value);
        return part;
      });
      for (const prop of propsOf(term)) {
        const outer = this.#places[i].props?.find((one) => one.name === prop);
        if (outer?.kind === 'text' || outer?.kind === 'list') return null;
        for (const one of outer?.choices ?? []) found.add(one);
      }
    }
    return found.size ? [...found] : null;
  }

  /** Of a part that opens and closes, and of what opens one, what says whether it is open at first. */
  #openAtFirst(nodes: readonly (MarkupElement | null)[], first: MarkupElement): Partial<MarkupElement> {
    const sample = isOpenAtFirst(first);
    // Of several of which one is shown it is said for all which that is at first.
    if (sample === undefined || first.part?.choice) return {};
    if (nodes.some((node) => node && openAt(node))) {
      const isOpen = this.#byRoute(nodes, openAt, (node) => isOpenAtFirst(node) === true, first);
      if (isOpen) return withOpenAtFirst(first, isOpen);
    }
    if (typeof sample === 'object') return withOpenAtFirst(first, this.#carried(sample, nodes));
    const open = nodes.map((node) => (node ? isOpenAtFirst(node) : undefined));
    if (open.every((is) => is === undefined || is === sample)) return {};
    const isOpen = this.#partition(
      open.map((is) => (is === undefined ? -1 : is === true ? 1 : 0)),
      'flag',
      open.map((is) => (is === undefined ? undefined : is === true)),
      first,
    );
    return withOpenAtFirst(first, isOpen);
  }

  /**
   * Whether the variants that nodes have within an outer component look the same. One that has none, where the others look
   * whether their links are the present ones, looks as they do then.
   */
  #haveSameVariants(nodes: readonly (MarkupElement | null)[]): boolean {
    const withOne = nodes.findIndex((node) => node?.variant);
    const told = routeLooks(nodes[withOne]!.variant!);
    const asOthers = nodes.every(
      (node, i) => !node || node.variant || this.#valueAt(node, i, nodes[withOne]!, withOne) !== null,
    );
    if (!asOthers) return false;
    const looks = nodes.flatMap((node, i) => {
      if (!node?.variant) return [];
      const { classes: own } = node.variant;
      const isByRoute = told !== null && routeLooks(node.variant) !== null;
      // What each asks of the route is its own; by which words it tells the looks apart is, too.
      return JSON.stringify(
        valuesInOrder(node.variant).map((value) => [
          isByRoute ? '' : value,
          lookOf(this.#places[i], own[value] ?? null),
        ]),
      );
    });
    return new Set(looks).size === 1;
  }

  /** Whether the aspects that nodes have within an outer component look the same. */
  #haveSameAspects(nodes: readonly (MarkupElement | null)[]): boolean {
    const looks = nodes.flatMap((node, i) =>
      node
        ? JSON.stringify([
            lookOf(this.#places[i], node.className),
            (node.aspects ?? []).map(({ classes }) =>
              Object.entries(classes).map(([value, name]) => [value, lookOf(this.#places[i], name)]),
            ),
          ])
        : [],
    );
    return new Set(looks).size === 1;
  }

  /**
   * Which of the looks of a variant a node has that has one alone; null for another one. What the present route decides is as it
   * is there; whatever else decides it is not so.
   */
  #valueAt(node: MarkupElement, place: number, varied: MarkupElement, at: number): string | null {
    const { classes } = varied.variant!;
    const told = routeLooks(varied.variant!);
    const look = lookOf(this.#places[place], node.className);
    const first = 'true' in classes ? String(this.#isThere(node, place)) : (told?.otherwise ?? '');
    const found = [first, ...(told ? Object.keys(classes) : [])].find(
      (value) => look === lookOf(this.#places[at], classes[value] ?? null),
    );
    return found ?? null;
  }

  /** Whether a place is on the screen that its node leads to. */
  #isThere(node: MarkupElement, place: number): boolean {
    return this.#places[place].route !== null && this.#places[place].route === addressAt(node);
  }

  /** A flag that each place gives by the present route, since the routes are others for each; null where all ask the same. */
  #byRoute(
    nodes: readonly (MarkupElement | null)[],
    termOf: (node: MarkupElement) => Expression | undefined,
    isSet: (node: MarkupElement, place: number) => boolean,
    first: MarkupElement,
    word = 'active',
  ): Expression | null {
    const own = nodes.flatMap((node) => (node && termOf(node) ? [ownTerms(node, [termOf(node)])] : []));
    const areOwnWay = (): boolean =>
      own[0] === OWN_WAY &&
      nodes.every((node, i) => !node || termOf(node) || isSet(node, i) === this.#isThere(node, i));
    if (new Set(own).size === 1 && (own.length === nodes.filter(Boolean).length || areOwnWay())) return null;
    const said = this.#saidForAll(nodes, termOf, isSet);
    if (said) return said;
    const values = nodes.map((node, i): PropValue | undefined => {
      const given = node ? termOf(node) : undefined;
      return given ? { given } : node ? isSet(node, i) : undefined;
    });
    const key = `route ${JSON.stringify(values.map((value) => value || false))}`;
    const known = this.#partitions.get(key);
    if (known) return known;
    this.#at = nodes;
    const flag = this.#slot('flag', values, { tag: first.tag, node: first, prefix: 'is', word });
    this.#partitions.set(key, flag);
    return flag;
  }

  /** What asks for all routes at once for which nodes say that something is so, where none of them says otherwise of one. */
  #saidForAll(
    nodes: readonly (MarkupElement | null)[],
    termOf: (node: MarkupElement) => Expression | undefined,
    isSet: (node: MarkupElement, place: number) => boolean,
  ): Expression | null {
    const [yes, no] = [new Set<string>(), new Set<string>()];
    for (const [i, node] of nodes.entries()) {
      if (!node) continue;
      const routes = routesOf(this.#places[i]);
      if (!routes || routes.some((one) => one.includes(':'))) return null;
      const term = termOf(node);
      if (!isRouteTerm(term)) return null;
      for (const path of routes) {
        const is = term ? !!valueOf(term, { path }) : isSet(node, i);
        (is ? yes : no).add(path);
      }
    }
    if (!yes.size || yes.size > MOST_ROUTES || [...yes].some((one) => no.has(one))) return null;
    return atOneOf(...[...yes].sort().map(literal));
  }

  /** The class where all agree on its rule, else the prop that tells the variants apart. */
  #class(
    nodes: readonly (MarkupElement | null)[],
    first: MarkupElement,
  ): Pick<MarkupElement, 'className' | 'variant' | 'aspects'> {
    // A variant of the outer component stays as it is; that all have the same one was seen before.
    if (first.variant) {
      const at = nodes.indexOf(first);
      const { classes } = withClasses(first.variant, (name) => classRef(at, name));
      const told = routeLooks(first.variant);
      const whens = told?.looks.map((_, j) =>
        this.#byRoute(
          nodes,
          ({ variant }) => (variant ? routeLooks(variant)?.looks[j]?.when : undefined),
          (node, i) => this.#valueAt(node, i, first, at) === told.looks[j].value,
          first,
          j > 0 ? 'inGroup' : 'active',
        ),
      );
      if (told && whens?.some((when) => when !== null)) {
        const by = lookAsked(
          told,
          told.looks.map(({ when }, j) => whens[j] ?? when),
        );
        return { className: null, variant: { by, classes } };
      }
      return { className: null, variant: this.#variantCarried(first.variant, nodes, at) };
    }
    const looks = nodes.map((node, i) => (node ? lookOf(this.#places[i], node.className) : undefined));
    const distinct = [...new Set(looks.filter((look) => look !== undefined))];
    const at = nodes.findIndex((node) => node !== null);
    if (distinct.length === 1) {
      const className = classRef(at, first.className);
      if (!first.aspects) return { className };
      return { className, aspects: first.aspects.map((one) => this.#variantCarried(one, nodes, at)) };
    }
    const ruleAt = (where: number): StyleRule | undefined =>
      this.#places[where].rules.get(nodes[where]!.className ?? '');
    const rules = distinct.map((look) => ruleAt(looks.indexOf(look)));
    const aspects = this.#isToldByOne(nodes) ? null : aspectsOf(rules);
    if (!aspects) {
      const refAt = (where: number): string | null => classRef(where, nodes[where]!.className);
      return { className: null, variant: this.#told(nodes, looks, first, refAt, ruleAt) };
    }
    const alike = new Set(rules.flatMap((rule) => (rule ? unitsOf(rule) : []).map(({ of }) => of)));
    for (const { kins } of aspects) for (const kin of kins) alike.delete(kin);
    const partAt = (where: number, kins: ReadonlySet<string>): StyleRule | undefined => {
      const rule = ruleAt(where);
      return rule && partOfRule(rule, kins);
    };
    const refOfPart = (where: number, kins: ReadonlySet<string>): string | null =>
      partAt(where, kins) ? classRef(where, nodes[where]!.className, kins) : null;
    return {
      className: refOfPart(at, alike),
      aspects: aspects.map(({ kins, values, of: aspect }) =>
        this.#told(
          nodes,
          looks.map((look) => (look === undefined ? undefined : String(values[distinct.indexOf(look)]))),
          first,
          (where) => refOfPart(where, kins),
          (where) => partAt(where, kins),
          aspect,
        ),
      ),
    };
  }

  /** Whether an element that was written before tells its looks apart by one prop, and goes on doing so. */
  #isToldByOne(nodes: readonly (MarkupElement | null)[]): boolean {
    const keys = new Set(nodes.flatMap((node) => node?.key ?? []));
    const telling = [...this.#before.values()].filter(
      ({ what, at }) => TELLS_LOOKS.test(what) && at.some((key) => keys.has(key)),
    );
    return telling.length === 1;
  }

  /** A choice of looks of the outer component, which is handed on. */
  #variantCarried(variant: Variant, nodes: readonly (MarkupElement | null)[], at: number): Variant {
    const choices = 'true' in variant.classes ? undefined : Object.keys(variant.classes);
    const by = this.#carried(variant.by, nodes, 'flag', choices);
    return { ...withClasses(variant, (name) => classRef(at, name)), by };
  }

  /**
   * What tells looks apart, and the class of each.
   * @param looks which one each node has; undefined where it is not there
   * @param refAt the class of that which stands at a place
   * @param ruleAt what that says
   * @param of where it is one aspect of several: which
   */
  #told(
    nodes: readonly (MarkupElement | null)[],
    looks: readonly (string | undefined)[],
    first: MarkupElement,
    refAt: (where: number) => string | null,
    ruleAt: (where: number) => StyleRule | undefined,
    of?: string,
  ): Variant {
    const distinct = [...new Set(looks.filter((look) => look !== undefined))];
    const counts = distinct.map((look) => looks.filter((other) => other === look).length);
    const isKnown = (look: string): boolean =>
      this.#partitions.has(flagKey(looks.map((one) => one !== undefined && one !== look)));
    const usual =
      distinct.length === 2
        ? (distinct.find(isKnown) ?? this.#elsewhere(nodes, looks, distinct) ?? usualOf(distinct, counts))
        : usualOf(distinct, counts);
    const others = distinct.filter((look) => look !== usual);
    const classAt = (look: string): string | null => refAt(looks.indexOf(look));
    const ruleOfLook = (look: string): StyleRule | undefined => ruleAt(looks.indexOf(look));
    const pattern = looks.map((look) => (look === undefined ? -1 : distinct.indexOf(look)));
    if (others.length === 1) {
      const values = looks.map((look) => (look === undefined ? undefined : look === others[0]));
      const [other, plain] = [ruleOfLook(others[0]), ruleOfLook(usual)];
      const authored = this.#authoredWords(nodes, looks, [usual, others[0]])[1];
      const otherwise = lookWord(other, plain);
      const word = authored ?? (isDressedOtherwise(other, plain) ? null : otherwise);
      const by = this.#partition(pattern, 'flag', values, first, undefined, { word, otherwise, of });
      return { by, classes: { true: classAt(others[0]), false: classAt(usual) } };
    }
    const authored = this.#authoredWords(nodes, looks, distinct);
    const letters = this.#choiceWords(pattern, distinct, usual, ruleOfLook, authored);
    // Where the part is not there at all its choice says nothing, and need not be left unsaid.
    const values = looks.map((look) => letters[distinct.indexOf(look ?? usual)]);
    const aspect = lookAspect(distinct.map(ruleOfLook));
    const by = this.#partition(pattern, 'choice', values, first, letters, { word: aspect, of });
    return { by, classes: Object.fromEntries(letters.map((letter, i) => [letter, classAt(distinct[i])])) };
  }

  /** The words by which whoever wrote the elements told looks apart. */
  #authoredWords(
    nodes: readonly (MarkupElement | null)[],
    looks: readonly (string | undefined)[],
    distinct: readonly string[],
  ): readonly (string | null)[] {
    return authoredWords(
      distinct.map((look) =>
        nodes.flatMap((node, i) =>
          node && looks[i] === look ? [node.key === null ? '' : this.#known.classesOf(node.key)] : [],
        ),
      ),
    );
  }

  /**
   * What the looks of a choice are called: as they are where the same places were told apart before, else as they were by
   * whoever wrote them, else by how they look.
   */
  #choiceWords(
    pattern: readonly number[],
    looks: readonly string[],
    usual: string,
    ruleAt: (look: string) => StyleRule | undefined,
    authored: readonly (string | null)[],
  ): readonly string[] {
    const known = this.#words.get(pattern.join());
    if (known) return known;
    const firsts = new Map<string, string>();
    const inOrder = [usual, ...looks.filter((look) => look !== usual)];
    for (const look of inOrder) {
      const word = authored[looks.indexOf(look)];
      if (word !== null && !firsts.has(word)) firsts.set(word, look);
    }
    const taken = new Set(['plain', ...firsts.keys()]);
    const words = looks.map((look, i) => {
      const said = authored[i];
      if (said !== null && firsts.get(said) === look) return said;
      if (said === null && look === usual) return 'plain';
      // Of those that were told apart by nothing it is told how they look, beside the one that was called the same.
      const beside = said === null ? usual : firsts.get(said)!;
      const named = (word: string): string => (said === null ? word : `${said}${capital(word)}`);
      const word = lookWord(ruleAt(look), ruleAt(beside), (other) => taken.has(named(other)));
      const name =
        word === null ? uniqueCodeName(said ?? 'variant', 'variant', (one) => taken.has(one)) : named(word);
      taken.add(name);
      return name;
    });
    this.#words.set(pattern.join(), words);
    return words;
  }

  /** The prop on which an optional part depends: what it shows, if that differs, else a flag. */
  #presence(
    nodes: readonly (MarkupElement | null)[],
    could: readonly boolean[],
    first: MarkupElement,
  ): Expression {
    const pattern = nodes.map((node) => (node ? 1 : 0));
    const is = pattern.map((one) => one === 1);
    const term = this.#pathTerm(is, NO_LINKS);
    if (term) return term;
    const shown = this.#found.find(
      ({ prop: { kind }, values }) =>
        kind !== 'flag' &&
        kind !== 'choice' &&
        values.every(
          (value, i) =>
            (!could[i] || (value !== undefined) === (pattern[i] === 1)) &&
            // What may be unsaid in an outer component tells nothing.
            !this.#canBeUnsaid(i, value),
        ),
    );
    if (shown) {
      shown.isOfPart = false;
      return propNamed(shown.prop.name);
    }
    const told = is.map((one, i) => (one || could[i] ? one : undefined));
    return this.#partition(pattern, 'flag', told, first, undefined, { prefix: 'has' });
  }

  #partition(
    pattern: readonly number[],
    kind: 'flag' | 'choice',
    given: readonly (PropValue | null | undefined)[],
    node: MarkupElement,
    choices?: readonly string[],
    hint: Pick<PropHint, 'prefix' | 'word' | 'otherwise' | 'called' | 'of'> = {},
  ): Expression {
    const values = given.map((value) => value ?? undefined);
    const term =
      kind === 'flag'
        ? (this.#ownWayTerm(values, node) ?? this.#pathTerm(values, new Set(linksIn(node))))
        : this.#choiceTerm(values, node);
    if (term !== null) return term;
    const key = kind === 'flag' ? flagKey(values) : `${kind} ${pattern.join()}`;
    const known = this.#partitions.get(key);
    if (known) return known;
    const called = (kind === 'flag' ? flagByAttributes(this.#at, values) : undefined) ?? hint.called;
    const name = this.#slot(kind, values, { tag: node.tag, node, prefix: 'is', ...hint, called }, choices);
    this.#partitions.set(key, name);
    return name;
  }

  /**
   * What says that the present route is one of those where a flag is set, or none of those where it is not: exactly there, and
   * links lead to nearly all of them, as the entries of a menu and the head of a group of them do.
   */
  #pathTerm(values: readonly (PropValue | undefined)[], own: ReadonlySet<string>): Expression | null {
    const is = values.map((value) => value === true);
    if (is.every(Boolean)) return null;
    const term = this.#routeTerm(is, own);
    if (term) return term;
    const other = this.#routeTerm(
      is.map((one) => !one),
      own,
    );
    return other && not(other);
  }

  /**
   * What says by the present route which of a few looks it is: of an entry of a menu that of the page, that of its group, or that
   * of all others. The last one needs no route.
   */
  #choiceTerm(values: readonly (PropValue | undefined)[], node: MarkupElement): Expression | null {
    const all = [...new Set(values)].filter((value) => typeof value === 'string');
    if (all.length < 2 || all.length > MOST_LOOKS_BY_ROUTE) return null;
    const terms = new Map<string, Expression>();
    // That of the page is asked first, so that of its group need not leave it out.
    let own: string | undefined;
    for (const one of all) {
      const is = values.map((value) => (value === undefined ? undefined : value === one));
      const term = own === undefined ? this.#ownWayTerm(is, node) : null;
      if (!term) continue;
      own = one;
      terms.set(one, term);
    }
    // That of the fewest pages is asked before that of all others.
    const places = (one: PropValue | undefined): number => values.filter((value) => value === one).length;
    for (const one of all.toSorted((a, b) => places(a) - places(b))) {
      if (terms.has(one) || terms.size === all.length - 1) continue;
      const term =
        (own === undefined ? null : this.#routeTerm(values.map((value) => value === one || value === own))) ??
        this.#routeTerm(values.map((value) => value === one));
      if (term) terms.set(one, term);
    }
    const rest = all.filter((one) => !terms.has(one));
    if (rest.length > 1) return null;
    const asked = [...terms.keys()];
    const last = rest[0] ?? asked.pop()!;
    return asked.reduceRight<Expression>(
      (no, one) => choice(terms.get(one)!, literal(one), no),
      literal(last),
    );
  }

  /**
   * Of two looks that the present route decides between, the one that is not said: what is said is where something is the present
   * one. Of a group that is where its own links lead, of what stands in it the same, and of anything else at fewer routes.
   */
  #elsewhere(
    nodes: readonly (MarkupElement | null)[],
    looks: readonly (string | undefined)[],
    distinct: readonly string[],
  ): string | null {
    const own = new Set(nodes.flatMap((node) => (node ? [...linksIn(node)] : [])));
    const found = distinct.map((look) => {
      const is = looks.map((one) => one === look);
      const term = this.#routeTerm(is, own);
      const routes = term?.kind === 'at' ? term.addresses : [];
      const led = routes.filter((one) => one.kind === 'literal' && own.has(String(one.value))).length;
      return { key: flagKey(is), routes: routes.length, share: led / (routes.length || 1) };
    });
    const [one, other] = found;
    if (!one.routes || !other.routes) return null;
    const said = found.findIndex(({ key }) => this.#saidByRoute.has(key));
    const isFirst =
      said >= 0
        ? said === 0
        : one.share === other.share
          ? one.routes < other.routes
          : one.share > other.share;
    if (said < 0 && one.share === other.share && one.routes === other.routes) return null;
    this.#saidByRoute.add(found[isFirst ? 0 : 1].key);
    return distinct[isFirst ? 1 : 0];
  }

  /** @param own where links of the element lead, or those in it */
  #routeTerm(is: readonly boolean[], own: ReadonlySet<string> = NO_LINKS): Expression | null {
    const [on, off] = [new Set<string>(), new Set<string>()];
    for (const [i, place] of this.#places.entries()) {
      const routes = routesOf(place);
      if (!routes) return null;
      for (const route of routes) (is[i] ? on : off).add(route);
    }
    if (!on.size || on.size > MOST_ROUTES) return null;
    if ([...on].some((route) => off.has(route) || route.includes(':'))) return null;
    const unlinked = [...on].filter((route) => !this.#links.has(route)).length;
    // An entry is marked on pages beneath its own, too, to which no link of a bar leads.
    const isOwn = on.size < off.size && [...on].some((route) => own.has(route));
    if (unlinked > on.size * (isOwn ? MOST_BENEATH : MOST_UNLINKED)) return null;
    return atOneOf(...[...on].map(literal));
  }

  /** What says that the present route is where the link leads that it stands in, where a flag is set exactly then. */
  #ownWayTerm(values: readonly (PropValue | undefined)[], node: MarkupElement): Expression | null {
    const address = addressAt(node);
    if (address === undefined || address.includes(':')) return null;
    const isIt = this.#at.every((one, i) => {
      const { route } = this.#places[i];
      // What is missing at a place has no address there; where its link leads, it would not be missing.
      if (!one) return values[i] === undefined || (route !== null && route !== address);
      const own = addressAt(one);
      return route !== null && own !== undefined && (values[i] === true) === (route === own);
    });
    // Within a link that differs from place to place its address is taken for what the place gives.
    return isIt ? atOneOf(literal(address)) : null;
  }

  /** What a text or picture is called as a field of a record, if that is no prop yet. */
  #fieldNamed(kind: Prop['kind'], at: readonly string[], proposed: string): string | undefined {
    if (kind !== 'text' && kind !== 'image') return undefined;
    const [field, ...others] = new Set(at.flatMap((key) => this.#known.fieldOf.get(key) ?? []));
    return field !== undefined &&
      !others.length &&
      canBeProp(field) &&
      (field === proposed || !this.#taken.has(field))
      ? field
      : undefined;
  }

  /**
   * Whether an outer component that stands at a place may not be given what it gives.
   * @param isThere whether what it is for is there all the same
   */
  #canBeUnsaid(place: number, value: PropValue | undefined, isThere = false): boolean {
    if (typeof value !== 'object' || !('given' in value)) return false;
    const unsaid = this.#places[place].props?.filter(
      ({ kind, isOptional, byDefault, canBeUnsaid }) =>
        isOptional && byDefault === undefined && kind !== 'flag' && (canBeUnsaid || !isThere),
    );
    return canBeNothing(value.given, (prop) => !!unsaid?.some(({ name }) => name === prop));
  }

  #slot(
    kind: Prop['kind'],
    values: readonly (PropValue | undefined)[],
    hint: Omit<PropHint, 'kind' | 'isLabel'>,
    choices?: readonly string[],
    isOfPart = false,
  ): Expression {
    const aspect = hint.of === undefined ? '' : ` of ${hint.of}`;
    const what = `${kind} ${hint.attribute ?? hint.prefix ?? ''}`.trim() + aspect;
    const at = this.#at.flatMap((node) => node?.key ?? []);
    // What opens a part and the part itself say the same id.
    const same =
      hint.attribute === 'id' && hint.node.part
        ? this.#found.find(({ prop, values: other }) => prop.kind === 'link' && equalJson(other, values))
        : undefined;
    if (same) return propNamed(same.prop.name);
    // A label and its field, or what else names an element, say the same id.
    const naming = NAMES_ID.has(hint.attribute ?? '')
      ? this.#found.find(({ prop, values: other }) => namesId(prop) && equalJson(other, values))
      : undefined;
    if (naming) return propNamed(naming.prop.name);
    const known = [...this.#before].find(
      ([name, before]) =>
        !this.#taken.has(name) && before.what === what && before.at.some((key) => at.includes(key)),
    );
    const others = new Set([...this.#taken, ...this.#before.keys()]);
    const proposed = known?.[0] ?? propNameFor({ ...hint, kind, isLabel: this.#isLabelled }, others);
    // What is said besides a field, as a title does, is another thing.
    const isField = hint.attribute === undefined || hint.attribute === 'value';
    const field = isField ? this.#fieldNamed(kind, at, proposed) : undefined;
    const name = this.#names[proposed] ?? field ?? proposed;
    this.#taken.add(name);
    this.#taken.add(proposed);
    const isUnsaid = values.some((value, i) => value === undefined || this.#canBeUnsaid(i, value, true));
    this.#found.push({
      prop: {
        name,
        proposed,
        what,
        at: at.slice(0, MOST_PLACES_KEPT),
        kind,
        isOptional:
          kind === 'flag' ||
          isUnsaid ||
          (this.#depth > 0 && values.some((value, i) => this.#canBeUnsaid(i, value))),
        ...(kind === 'text' && !isOfPart && isUnsaid ? { canBeUnsaid: true } : {}),
        ...(choices ? { choices } : {}),
      },
      values,
      isOfPart,
    });
    return propNamed(name);
  }
}

/** What tells looks apart, of what props say. */
const TELLS_LOOKS = /^(choice|flag) is( of .+)?$/;

/** The routes that a place is on; null where they are not known. */
export const routesOf = ({ route, routes }: Place): readonly string[] | null =>
  routes ?? (route === null ? null : [route]);

/** Attributes that give an element its name, or say that of another. */
const NAMES_ID: ReadonlySet<string> = new Set([
  'id',
  'for',
  'list',
  'aria-labelledby',
  'aria-describedby',
  'aria-controls',
]);
const namesId = ({ what }: Prop): boolean => NAMES_ID.has(/^text (.+)$/.exec(what)?.[1] ?? '');

const textsIn = (node: MarkupElement): number =>
  node.children.reduce((sum, child) => sum + (isText(child) ? 1 : isElement(child) ? textsIn(child) : 0), 0);

/** How values part the places, and what they are, in order. */
function partedBy(values: readonly (PropValue | undefined)[]): {
  readonly pattern: readonly number[];
  readonly distinct: readonly (PropValue | undefined)[];
} {
  const distinct = [...new Set(values)];
  return { pattern: values.map((value) => distinct.indexOf(value)), distinct };
}

/** What flags that part the places in one way have in common. */
const flagKey = (values: readonly (PropValue | undefined)[]): string =>
  `flag ${values.map((value) => (value ? 1 : 0)).join()}`;

/** Routes that links within a node lead to. */
function linksIn(node: MarkupElement, found = new Set<string>()): Set<string> {
  if (node.link?.kind === 'go') found.add(node.link.to);
  for (const child of node.children) if (isElement(child)) linksIn(child, found);
  return found;
}

function addressOf(link: NonNullable<MarkupElement['link']>): string {
  switch (link.kind) {
    case 'go':
      return link.to;
    case 'back':
      return link.fallback;
    case 'external':
      return link.href;
    case 'drawer':
    case 'disclose':
      return link.id;
    case 'file':
      return link.asset;
  }
}

/** Of the routes that a group of entries is open at, so many may have no entry: that which sums up the group. */
const MOST_UNLINKED = 0.25;
const MOST_BENEATH = 0.5;
const NO_LINKS: ReadonlySet<string> = new Set();

/** So many looks are told by the present route: that of the page, that of its group, and that of all others. */
const MOST_LOOKS_BY_ROUTE = 3;
/** The inside of a drawing, without the keys. */
const bodyOf = (node: MarkupElement): string => JSON.stringify([node.attributes, node.children], withoutKeys);

/** What a class says, so that classes of different screens compare. */
export function lookOf({ rules }: Place, className: string | null): string {
  const rule = className === null ? undefined : rules.get(className);
  return rule ? lookText(rule) : `none ${className ?? ''}`;
}

/**
 * The look that is told apart from the others by nothing: what most have where those are far more, else what says least, so
 * that one place more or less changes nothing.
 */
function usualOf(looks: readonly string[], counts: readonly number[]): string {
  const most = Math.max(...counts);
  if (looks.length > 2 || most > CLEARLY_MORE * Math.min(...counts)) return looks[counts.indexOf(most)];
  return looks.toSorted((a, b) => a.length - b.length || (a < b ? -1 : 1))[0];
}
const CLEARLY_MORE = 2;

/** Of so many places it is kept what a prop is given to. */
const MOST_PLACES_KEPT = 8;

/** A class of one of the places: names of classes are only known within a screen. */
const classRef = (
  place: number,
  className: string | null,
  kins: ReadonlySet<string> = new Set(),
): string | null => (className === null ? null : [place, className, ...kins].join(' '));

/** What `classRef` wrote. */
export function parseClassRef(ref: string): {
  readonly place: number;
  readonly className: string;
  /** Where it is but a part of a look: the kin that it says something of. */
  readonly kins?: ReadonlySet<string>;
} {
  const [place, className, ...kins] = ref.split(' ');
  return { place: Number(place), className, ...(kins.length ? { kins: new Set(kins) } : {}) };
}

/** Whether a term says nothing in some case. @param isUnsaid whether that is so of a prop */
export function canBeNothing(term: Expression, isUnsaid: (prop: string) => boolean): boolean {
  if (term.kind === 'choice') return [term.yes, term.no].some((one) => canBeNothing(one, isUnsaid));
  return term.kind === 'prop' ? isUnsaid(term.name) : term.kind === 'literal' && term.value === undefined;
}

/** A prop of the outer component in one that it is given to: what it is where nothing is given, the outer one says. */
const handedOn = ({ byDefault, ...prop }: Prop): Prop =>
  byDefault === undefined ? prop : { ...prop, isOptional: prop.kind === 'flag' };
