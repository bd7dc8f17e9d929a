import { atOneOf, choice, type Expression, literal, not } from '../../../expression/expression.ts';
import { grouped } from '../../../json/grouped.ts';
import { uniqueCodeName } from '../../../model/names.ts';
import {
  type EmittedScreen,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  type MarkupOutlet,
  type PropValue,
  type StyleRule,
  withoutKeys,
} from '../markup.ts';

/** What several screens share around the part in which they differ. */
export interface Frame {
  /** With `<Outlet />` where the screens' own parts go. */
  readonly root: MarkupElement;
  readonly rules: readonly StyleRule[];
  /** The same without what it says on single screens. */
  readonly usual: MarkupElement;
  /** What is left of each screen, in their order. */
  readonly insides: readonly MarkupElement[];
}

/** One screen as it is emitted, after components were taken out. */
export interface Framed {
  readonly root: MarkupElement;
  readonly rules: EmittedScreen['rules'];
  /** The address of the screen, where it is always the same. */
  readonly route: string | null;
  /** What stands within the layout and not in it, as it was written before: keys of elements. */
  readonly inside: ReadonlySet<string>;
}

const OUTLET: MarkupOutlet = { outlet: true };

/**
 * Finds what screens have in common from the outside in: the same elements around and beside the one place where they
 * differ. What a component around them is told otherwise on a few screens is told there by the present address. Null where
 * nothing is, or where a screen would have nothing left.
 * @param signs what is known of screens already, where several groups of them are looked at
 */
export function frameOf(screens: readonly Framed[], signs: Signs = new Signs()): Frame | null {
  if (screens.length < 2) return null;
  const taken: StyleRule[] = [];
  const found = shared(
    screens.map(({ root }) => root),
    {
      looks: screens.map(({ rules }) => signs.looksOf(rules)),
      routes: screens.map(({ route }) => route),
      taken,
    },
    screens.map(({ inside }) => inside),
  );
  if (!found || !found.common) return null;
  const insides = found.insides.map((nodes): MarkupElement => {
    const [only] = nodes;
    if (nodes.length === 1 && isElement(only)) return only;
    return { tag: '', key: null, className: null, attributes: {}, children: nodes };
  });
  const rules = [...screens[0].rules, ...taken];
  return { root: found.root, usual: usualOf(found.root), rules, insides };
}

/** What a rule says, whatever it is called and wherever it comes from. */
const lookSign = ({ className: _className, key: _key, ...look }: StyleRule): string => JSON.stringify(look);

/** What the classes of a screen say, and the signs that its elements share with those of other screens. */
interface Looks {
  readonly rules: EmittedScreen['rules'];
  readonly ofClass: ReadonlyMap<string, string>;
  readonly signs: Signs;
  /** Signs of the screen's elements, each worked out once. */
  readonly known: Map<MarkupElement, string | null>;
}

/** Short names for what is said at length: the same for the same. */
export class Signs {
  readonly #known = new Map<string, string>();
  readonly #looks = new Map<EmittedScreen['rules'], Looks>();

  /** What the classes of a screen say, worked out once. */
  looksOf(rules: EmittedScreen['rules']): Looks {
    let looks = this.#looks.get(rules);
    if (!looks) {
      const ofClass = new Map(rules.map((rule) => [rule.className, lookSign(rule)]));
      this.#looks.set(rules, (looks = { rules, ofClass, signs: this, known: new Map() }));
    }
    return looks;
  }

  of(says: string): string {
    let sign = this.#known.get(says);
    if (sign === undefined) this.#known.set(says, (sign = `#${this.#known.size}`));
    return sign;
  }
}

interface Shared {
  readonly root: MarkupElement;
  readonly insides: readonly (readonly MarkupNode[])[];
  /** How many elements stand beside the outlet. */
  readonly common: number;
}

/** What the elements at one place of each screen are put together by. */
interface Beside {
  readonly looks: readonly Looks[];
  readonly routes: readonly (string | null)[];
  /** Rules that were taken of other screens than the first. */
  readonly taken: StyleRule[];
}

/** On so many screens at most a bar can say something else, for so many that agree at least. */
const MOST_EXCEPTIONS = 2;
const LEAST_AGREEING = 2;

/** One node for those that stand at the same place of each screen; null where they have too little in common. */
function merged(nodes: readonly MarkupNode[], beside: Beside): MarkupNode | null {
  const { looks, routes } = beside;
  const [first] = nodes;
  const signs = nodes.map((node, i) => signOf(node, looks[i]));
  if (signs.every((sign) => sign !== null && sign === signs[0])) return first;
  const elements = nodes.filter(isElement);
  if (!isElement(first) || elements.length < nodes.length) return null;
  const shells = elements.map(({ use, ...node }, i) =>
    JSON.stringify([shellSign({ ...node, className: null }, looks[i]), use?.component, node.children.length]),
  );
  if (shells.some((shell) => shell !== shells[0])) return null;
  const look = lookBy(elements, beside);
  if (!look) return null;
  const use = first.use && {
    component: first.use.component,
    props: toldBy(
      elements.map((node) => node.use!.props),
      routes,
    ),
  };
  if (use && !use.props) return null;
  const children = first.children.map((_, at) =>
    merged(
      elements.map((node) => node.children[at]),
      beside,
    ),
  );
  if (!children.every((child) => child !== null)) return null;
  return { ...first, ...look, children, ...(use ? { use: use as MarkupElement['use'] } : {}) };
}

/**
 * The class of an element that looks the same on all screens, or otherwise on a few, as the entry of a menu that is marked there:
 * that is told by the present address. Null where it looks otherwise in more ways.
 */
function lookBy(
  elements: readonly MarkupElement[],
  { looks, routes, taken }: Beside,
): Pick<MarkupElement, 'className' | 'variant'> | null {
  const [first] = elements;
  const says = elements.map(({ className }, i) => (className && looks[i].ofClass.get(className)) ?? '');
  const told = usualAmong(says, routes);
  if (!told) return null;
  const { at, others } = told;
  if (!others.length) return { className: first.className };
  if (first.variant || others.some((i) => says[i] !== says[others[0]])) return null;
  const classOf = (i: number): string | null => {
    if (says[i] === '') return null;
    const own = [...looks[0].ofClass].find(([, look]) => look === says[i])?.[0];
    const known = own ?? taken.find((rule) => lookSign(rule) === says[i])?.className;
    if (known !== undefined) return known;
    const rule = looks[i].rules.find(({ className }) => className === elements[i].className)!;
    const isTaken = (name: string): boolean =>
      looks[0].ofClass.has(name) || taken.some(({ className }) => className === name);
    const className = uniqueCodeName(rule.className, rule.className, isTaken);
    taken.push({ ...rule, className });
    return className;
  };
  const by = atOneOf(...others.map((i) => literal(routes[i]!)));
  return { className: null, variant: { by, classes: { true: classOf(others[0]), false: classOf(at) } } };
}

/**
 * Where the usual one of several values stands, and where there are others; null where there are too many of those, or where no
 * address tells them.
 */
function usualAmong(
  signs: readonly (string | undefined)[],
  routes: readonly (string | null)[],
): { readonly at: number; readonly others: readonly number[] } | null {
  const counts = grouped(signs, String);
  const [usual] = [...counts].reduce((most, one) => (one[1].length > most[1].length ? one : most));
  const at = signs.findIndex((sign) => String(sign) === usual);
  const others = signs.flatMap((sign, i) => (String(sign) === usual ? [] : [i]));
  const isTold = others.every((i) => routes[i] && !/[:*]/.test(routes[i]));
  const areFew = others.length <= MOST_EXCEPTIONS && signs.length - others.length >= LEAST_AGREEING;
  return !others.length || (areFew && isTold) ? { at, others } : null;
}

type Plain = string | boolean | undefined;

const isFlag = (value: unknown): value is boolean | undefined =>
  value === undefined || typeof value === 'boolean';

const isPlain = (value: PropValue | undefined): value is Plain => typeof value !== 'object';

/** What a component is told by all screens, and by its address on the few that tell it something else. */
function toldBy(
  all: readonly Readonly<Record<string, PropValue>>[],
  routes: readonly (string | null)[],
): Readonly<Record<string, PropValue>> | null {
  const props: Record<string, PropValue> = {};
  for (const name of new Set(all.flatMap(Object.keys))) {
    const values = all.map((one) => one[name]);
    const signs = values.map((value) => JSON.stringify(value, withoutKeys));
    const told = usualAmong(signs, routes);
    if (!told) return null;
    const { at, others } = told;
    if (!others.length) {
      if (values[at] !== undefined) props[name] = values[at];
      continue;
    }
    const usually = values[at];
    if (!isPlain(usually) || others.some((i) => !isPlain(values[i]))) return null;
    if (isFlag(usually) && others.every((i) => isFlag(values[i]))) {
      // What is not said is the other one.
      const isElsewhere = values[others[0]] ?? !usually;
      const there = atOneOf(...others.map((i) => literal(routes[i]!)));
      props[name] = { given: isElsewhere ? there : not(there) };
      continue;
    }
    props[name] = {
      given: [...grouped(others, (i) => String(signs[i])).values()].reduceRight<Expression>(
        (otherwise, some) =>
          choice(
            atOneOf(...some.map((i) => literal(routes[i]!))),
            literal(values[some[0]] as Plain),
            otherwise,
          ),
        literal(usually),
      ),
    };
  }
  return props;
}

/** Markup without what it says by the address alone. */
function usualOf(node: MarkupElement): MarkupElement {
  const { variant, ...plain } = mapChildren(node, (child) => (isElement(child) ? usualOf(child) : child));
  const made: MarkupElement =
    variant?.by.kind === 'at'
      ? { ...plain, className: variant.classes.false }
      : { ...plain, ...(variant && { variant }) };
  if (!made.use) return made;
  const props = Object.entries(made.use.props).flatMap(([name, value]): [string, PropValue][] => {
    if (typeof value !== 'object' || !('given' in value)) return [[name, value]];
    let term = value.given;
    // Where it is told by the address alone, it is not told elsewhere.
    if (term.kind === 'at' || (term.kind === 'not' && term.of.kind === 'at')) return [];
    while (term.kind === 'choice' && term.when.kind === 'at') term = term.no;
    if (term === value.given || term.kind !== 'literal') return [[name, value]];
    return term.value === undefined ? [] : [[name, term.value as string | boolean]];
  });
  return { ...made, use: { ...made.use, props: Object.fromEntries(props) } };
}

function shared(
  nodes: readonly MarkupElement[],
  beside: Beside,
  kept: readonly ReadonlySet<string>[],
): Shared | null {
  const { looks } = beside;
  const [first] = nodes;
  const shells = nodes.map((node, i) => shellOf(node, looks[i]));
  if (shells.some((shell) => shell === null || shell !== shells[0])) return null;
  const shortest = Math.min(...nodes.map(({ children }) => children.length));
  const staysInside = (node: MarkupNode, i: number): boolean =>
    isElement(node) && node.key !== null && kept[i].has(node.key);
  /** What all have at a place, counted from the front or from the back. */
  const common = (placeIn: (count: number) => number): MarkupNode | null => {
    const there = nodes.map(({ children }) => children[placeIn(children.length)]);
    return there.some(staysInside) ? null : merged(there, beside);
  };
  const front: MarkupNode[] = [];
  while (front.length < shortest) {
    const node = common(() => front.length);
    if (!node) break;
    front.push(node);
  }
  const back: MarkupNode[] = [];
  while (back.length < shortest - front.length) {
    const node = common((count) => count - 1 - back.length);
    if (!node) break;
    back.unshift(node);
  }
  const [before, after] = [front.length, back.length];
  const insides = nodes.map(({ children }) => children.slice(before, children.length - after));
  if (insides.some((list) => !list.length)) return null;
  const around = (inner: MarkupElement | MarkupOutlet): MarkupElement => ({
    ...first,
    children: [...front, inner, ...back],
  });
  const singles = insides.flatMap((list) => (list.length === 1 && isElement(list[0]) ? [list[0]] : []));
  const isDeeper = singles.length === nodes.length && !singles.some(staysInside);
  const deeper = isDeeper ? shared(singles, beside, kept) : null;
  if (deeper && deeper.common)
    return { root: around(deeper.root), insides: deeper.insides, common: before + after + deeper.common };
  return { root: around(OUTLET), insides, common: before + after };
}

/** An element without its children, with what its class says instead of the name; null for what must stay whole. */
function shellOf(node: MarkupElement, looks: Looks): string | null {
  return node.link || node.acts || node.use || node.when ? null : shellSign(node, looks);
}

function shellSign(
  { key: _key, children: _children, className, ...rest }: MarkupElement,
  looks: Looks,
): string {
  return JSON.stringify([rest, className ? looks.ofClass.get(className) : null]);
}

/** The same for the same element of any screen; null for what belongs to one screen, such as its records. */
function signOf(node: MarkupNode, looks: Looks): string | null {
  if (!isElement(node)) return 'list' in node ? null : looks.signs.of(JSON.stringify(node));
  let sign = looks.known.get(node);
  if (sign === undefined) looks.known.set(node, (sign = elementSign(node, looks)));
  return sign;
}

function elementSign(node: MarkupElement, looks: Looks): string | null {
  const { key: _key, children, className, ...rest } = node;
  const inner = children.map((child) => signOf(child, looks));
  if (inner.includes(null)) return null;
  return looks.signs.of(
    JSON.stringify([rest, className ? looks.ofClass.get(className) : null, inner], withoutKeys),
  );
}
