import { type Expression, mapExpression, mentions, propNamed } from '../../../expression/expression.ts';
import { kebabCase, plural, uniqueName } from '../../../model/names.ts';
import { grouped } from '../../../json/grouped.ts';
import {
  elementsIn,
  findMarkup,
  isElement,
  isSpace,
  isText,
  type MarkupElement,
  type PropValue,
  variantsOf,
  visitTerms,
  withAllTerms,
  withClasses,
  withoutKeys,
} from '../markup.ts';
import { mostElements, mostGiven } from '../../../components/one_thing.ts';
import type { Prop } from './template.ts';

/** Items that stand in one element: so many somewhere at least, and so many wherever it is. */
const LEAST_ITEMS = 3;
const LEAST_ANYWHERE = 1;
/** Items are given so many things each at most; what is given more is a thing of its own. */
const MOST_GIVEN = 9;
/** So many things differ at least from place to place; fewer are given one by one. Rows of a table are records, whatever differs. */
const LEAST_DIFFERENT = 4;
const LEAST_DIFFERENT_ROWS = 2;
/** So much of what is given is not what most places say. */
const LEAST_ODD = 0.25;
/** So many things that differ are no props one by one, even if most places say the same of each. */
const MANY_DIFFERENT = 6;
const LEAST_ODD_OF_MANY = 0.1;
/** Of one item, such a part is there wherever it stands. */
const LEAST_ALWAYS = 0.5;
/** What names something that may stand elsewhere. */
const NAMES_ELSEWHERE = /^(list|form|usemap|headers|aria-(labelledby|describedby|controls))$/;

/** The items at each place, and whether there is a space between one and the next. */
export interface Items {
  readonly lists: readonly (readonly MarkupElement[])[];
  readonly areApart: boolean;
}

/**
 * The items that an element consists of at each place: elements of one kind, and nothing else, of which nothing depends on anything
 * yet. Null where it does not consist of such.
 * @param before how many other elements stand before them
 * @param after how many stand after them
 * @param isBound whether an element shows what a record has by then
 */
export function itemsAt(
  nodes: readonly (MarkupElement | null)[],
  before: number,
  after: number,
  isBound: (key: string) => boolean,
): Items | null {
  const lists: MarkupElement[][] = [];
  const areApart = new Set<boolean>();
  for (const node of nodes) {
    const children = node?.children ?? [];
    const all = children.filter(isElement);
    // A space between two of them is seen, too: there is one everywhere, or nowhere.
    if (children.length > all.length) {
      const isSpaced = children.every((child, i) => (i % 2 ? isSpace(child) : isElement(child)));
      if (!isSpaced || children.length % 2 === 0 || before || after) return null;
    }
    if (all.length > 1) areApart.add(children.length > all.length);
    const items = all.slice(before, all.length - after);
    if (node && items.length < LEAST_ANYWHERE) return null;
    lists.push(items);
  }
  const all = lists.flat();
  if (!lists.some(({ length }) => length >= LEAST_ITEMS)) return null;
  if (new Set(all.map(({ tag }) => tag)).size > 1) return null;
  if (areApart.size > 1 || !all.every((item) => isPlain(item, isBound))) return null;
  return { lists, areApart: areApart.has(true) };
}

const isPlain = (node: MarkupElement, isBound: (key: string) => boolean): boolean =>
  !/^[A-Z]/.test(node.tag) &&
  !node.use &&
  !node.when &&
  !node.each &&
  !variantsOf(node).length &&
  !node.slots &&
  !node.part &&
  !node.acts &&
  !node.states &&
  !node.isChecked &&
  (node.link === undefined || node.link.kind === 'go' || node.link.kind === 'external') &&
  !(node.key !== null && isBound(node.key)) &&
  !Object.keys(node.attributes).some((name) => NAMES_ELSEWHERE.test(name)) &&
  node.children.every((child) =>
    isElement(child) ? isPlain(child, isBound) : isText(child) && !child.given,
  );

/** Whether an element or something in it may consist of items itself. */
export const canHoldItems = (item: MarkupElement): boolean =>
  findMarkup(item, ({ children }) => {
    const tags = grouped(children.filter(isElement), ({ tag }) => tag);
    return [...tags.values()].some(({ length }) => length >= LEAST_ITEMS);
  }) !== null;

/**
 * Whether what is found of an item says already that it is none: it would be given too much. Of flags and choices it is not known
 * before the end, since what all items of a place say the same is said of the place, and of rows of a table not before their cells are.
 */
export const isGivenTooMuch = (tag: string, found: readonly { readonly prop: Prop }[]): boolean =>
  tag !== 'tr' &&
  found.filter(({ prop: { kind } }) => kind !== 'flag' && kind !== 'choice').length > MOST_GIVEN;

/** Whether what items have in common is about as large as each of them, and is given little. */
export function isOneItem(
  root: MarkupElement,
  fields: readonly Prop[],
  items: readonly MarkupElement[],
): boolean {
  const size = elementsIn(root);
  const most = root.tag === 'tr' ? mostGiven('list', root.children.length) : MOST_GIVEN;
  return (
    fields.length > 0 &&
    fields.length <= most &&
    size <= mostElements(items.map((item) => elementsIn(item))) &&
    elementsIn(root, ({ when }) => !when) >= size * LEAST_ALWAYS
  );
}

/** What each item of each place is given. */
export type Records = readonly (readonly Readonly<Record<string, PropValue>>[])[];

/** Flags and choices that say the same of all items of a place, wherever it is: they are said of the place. */
export const saidOfPlaces = (fields: readonly Prop[], records: Records): readonly Prop[] =>
  fields.filter(
    ({ name, kind }) =>
      (kind === 'flag' || kind === 'choice') &&
      records.every(([first, ...others]) => others.every((other) => other[name] === first[name])),
  );

/** Records without fields. */
export const without = (records: Records, fields: readonly Prop[]): Records =>
  fields.length
    ? records.map((list) =>
        list.map((one) =>
          Object.fromEntries(
            Object.entries(one).filter(([name]) => !fields.some((field) => field.name === name)),
          ),
        ),
      )
    : records;

/**
 * Whether so much differs from place to place that it is given as a list: of what each item is given, and of whether it is there.
 * Of what most places say the same it is said less by telling what the others say.
 */
export function differsMuch(records: Records, areRows: boolean): boolean {
  let [different, odd, all] = [0, 0, 0];
  for (let at = 0; at < Math.max(...records.map(({ length }) => length)); at++) {
    const names = new Set(records.flatMap((list) => Object.keys(list[at] ?? {})));
    for (const values of [
      records.map((list) => at in list),
      ...[...names].map((name) => records.map((list) => list[at]?.[name])),
    ]) {
      const usual = mostOf(values.map((value) => JSON.stringify(value, withoutKeys)));
      if (usual < values.length) different++;
      odd += values.length - usual;
      all += values.length;
    }
  }
  if (areRows) return different >= LEAST_DIFFERENT_ROWS;
  if (different < LEAST_DIFFERENT) return false;
  return odd >= all * (different < MANY_DIFFERENT ? LEAST_ODD : LEAST_ODD_OF_MANY);
}

/** How often the most frequent one is there. */
const mostOf = (signs: readonly (string | undefined)[]): number =>
  Math.max(...[...grouped(signs, (sign) => sign ?? '').values()].map(({ length }) => length));

/** Whether items are texts that differ wherever they are, and nothing else. */
export const areTexts = ([only, ...others]: readonly Prop[], records: Records): boolean =>
  !others.length &&
  only.kind === 'text' &&
  !only.isOptional &&
  records.every((list) => new Set(list.map((one) => one[only.name])).size === list.length);

/** Records with ids by which each is known among its own: after what tells most of them apart. */
export function withIds(
  records: readonly Readonly<Record<string, PropValue>>[],
): Readonly<Record<string, PropValue>>[] {
  const names = [...new Set(records.flatMap(Object.keys))].filter((name) => !SAYS_LOOK.test(name));
  const wordsAt = (name: string): Set<string> =>
    new Set(records.flatMap((one) => (isSaid(one[name]) ? [one[name]] : [])));
  const [telling = ''] = names.toSorted((a, b) => wordsAt(b).size - wordsAt(a).size);
  const taken = new Set<string>();
  return records.map((record, i) => {
    const said = record[telling] ?? firstOf(record);
    const wanted = (isSaid(said) && kebabCase(said).slice(0, LONGEST_ID)) || String(i + 1);
    const id = uniqueName(wanted, (one) => taken.has(one));
    taken.add(id);
    return { id, ...record };
  });
}

/** What the first thing in a list that a record holds says: a row is known by its first cell. */
function firstOf(record: Readonly<Record<string, PropValue>>): PropValue | undefined {
  const list = Object.values(record).find((value) => typeof value === 'object' && 'items' in value);
  const [first] = list && typeof list === 'object' && 'items' in list ? list.items : [];
  return typeof first === 'object'
    ? Object.entries(first).find(
        ([name, value]) => name !== 'id' && !SAYS_LOOK.test(name) && isSaid(value),
      )?.[1]
    : first;
}

const SAYS_LOOK = /variant|color|size|shape|^(to|type)$/i;
const LONGEST_ID = 40;
const isSaid = (value: PropValue | undefined): value is string =>
  typeof value === 'string' && /\p{L}/u.test(value);

/** What items are called by what they are, and one of them. */
export function itemWords(item: MarkupElement): { readonly all: string; readonly one: string } {
  if (findMarkup(item, ({ tag }) => /^(input|select|textarea)$/.test(tag)))
    return { one: 'field', all: 'fields' };
  const { tag, children } = item;
  const [only] = children.filter(isElement);
  const inner = tag === 'li' && children.length === 1 && only ? only.tag : tag;
  const one = WORDS[inner] ?? 'item';
  return { one, all: plural(one) };
}
const WORDS: Readonly<Record<string, string>> = {
  a: 'link',
  td: 'cell',
  th: 'head',
  option: 'option',
  img: 'picture',
  button: 'button',
  p: 'paragraph',
  tr: 'row',
};

/** What items are called that consist of items themselves. */
export const GROUPED = { one: 'group', all: 'groups' } as const;

/** What the items of lists are called that stand in an item. */
export function itemsWithin(node: MarkupElement, found = new Set<string>()): ReadonlySet<string> {
  for (const child of node.children) {
    if (!isElement(child)) continue;
    if (child.each) found.add(child.each.item);
    itemsWithin(child, found);
  }
  return found;
}

/** What an item gives under a name. @param isText whether an item is a text and nothing else */
export const ofItem = (item: string, name: string, isText: boolean): Expression =>
  isText ? { kind: 'item', name: item } : { kind: 'field', of: { kind: 'item', name: item }, name };

/** Markup with each prop that it looks at replaced, and each class. */
export function withItem(
  node: MarkupElement,
  given: (prop: string) => Expression,
  className: (ref: string) => string,
): MarkupElement {
  const visit = (made: MarkupElement): MarkupElement => {
    return {
      ...made,
      className: made.className === null ? null : className(made.className),
      ...(made.variant ? { variant: withClasses(made.variant, className) } : {}),
      ...(made.aspects ? { aspects: made.aspects.map((one) => withClasses(one, className)) } : {}),
      children: made.children.map((child) => (isElement(child) ? visit(child) : child)),
    };
  };
  return visit(
    withAllTerms(node, (term) =>
      mapExpression(term, (part) => (part.kind === 'prop' ? given(part.name) : part)),
    ),
  );
}

/** Whether anything in a node looks at an item of a list. */
function looksAtItem(node: MarkupElement): boolean {
  let found = false;
  visitTerms(node, (term) => {
    found ||= mentions(term, ({ kind }) => kind === 'item');
  });
  return found;
}

/** Whether something in a node stands once for each of a list. */
export const holdsItems = (node: MarkupElement): boolean =>
  node.children.some((child) => isElement(child) && (!!child.each || holdsItems(child)));

/** What stands within the items of a list, as if what those are given were props of what it stands in. */
export interface Unbound {
  readonly node: MarkupElement;
  readonly props: readonly Prop[];
}

/**
 * A node that is, or stands in, the item of a list, so that it can be a component of its own. Null for one that looks at none.
 * @param outer what it stands in, and the props of that
 */
export function unbound(
  node: MarkupElement,
  outer: { readonly root: MarkupElement; readonly props: readonly Prop[] },
): Unbound | null {
  if (!looksAtItem(node)) return null;
  const props: Prop[] = [...outer.props];
  const visit = (one: MarkupElement, lists: readonly Prop[]): void => {
    const { each } = one;
    const list = each?.of.kind === 'prop' || each?.of.kind === 'field' ? each.of.name : null;
    const known = list === null ? undefined : lists.findLast(({ name }) => name === list);
    const fields = known?.fields ?? [];
    if (each && known)
      for (const field of known.fields ?? [{ ...known, kind: 'text' as const, name: '' }])
        props.push({ ...field, name: unboundName(each.item, field.name) });
    for (const child of one.children) if (isElement(child)) visit(child, [...lists, ...fields]);
  };
  visit(outer.root, outer.props);
  const change = (term: Expression): Expression => {
    if (term.kind === 'item') return propNamed(unboundName(term.name, ''));
    return term.kind === 'field' && term.of.kind === 'prop' && term.of.name.endsWith(DOT)
      ? propNamed(`${term.of.name}${term.name}`)
      : term;
  };
  const { each: _each, ...plain } = node;
  return { node: withAllTerms(plain, (term) => mapExpression(term, change)), props };
}

/** The use of a component in the place of what was unbound, which says what that is given as it is said there. */
export function boundAgain(node: MarkupElement, each: MarkupElement['each']): MarkupElement {
  const bound = withAllTerms(node, (term) =>
    mapExpression(term, (part) => {
      const [item, field] = part.kind === 'prop' ? part.name.split(DOT) : [];
      return field === undefined ? part : ofItem(item, field, field === '');
    }),
  );
  return each ? { ...bound, each } : bound;
}

/** Between the name of an item and that of its field: no name in code has it. */
const DOT = '.';
const unboundName = (item: string, field: string): string => `${item}${DOT}${field}`;

/** What a prop is called that stands for another, which may be the field of an item. */
export const ownNameOf = (name: string): string => {
  const [item, field] = name.split(DOT);
  return field || item;
};
