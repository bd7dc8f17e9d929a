import { labelOf } from '../links/pressable.ts';
import { makingOf } from '../match/likeness.ts';
import { traitsOf } from '../match/traits.ts';
import { commonSubsequence } from '../match/sequence.ts';
import type { Declarations, Element, Screen } from '../model/design.ts';
import { equalJson } from '../json/json.ts';
import { elementsByKey, parentsByKey, walkElements } from '../model/places.ts';

/** One thing that differs between two versions of a screen, in words. */
export interface Difference {
  /** Keys of the elements that it is about, as they were and as they are; one of both is empty for what is new or gone. */
  readonly olds: readonly string[];
  readonly nows: readonly string[];
  /** What the elements are called: the first of them, and how many more. */
  readonly label: string;
  /** What differs: `text was “back Thursday”, is “free today”`, `24 px lower`. */
  readonly says: string;
  readonly kind:
    'new' | 'gone' | 'inside' | 'order' | 'text' | 'picture' | 'what' | 'look' | 'size' | 'place';
}

interface Pair {
  readonly old: Element;
  readonly now: Element;
}

/** Kinds in the order in which a person would ask for them. */
const KINDS: readonly Difference['kind'][] = [
  'new',
  'gone',
  'text',
  'picture',
  'what',
  'inside',
  'order',
  'look',
  'size',
  'place',
];

/** Least px that something has to move or grow to be said. */
const LEAST_PX = 1;
/** So many siblings are held against each other for their order, at most. */
const MOST_ORDERED = 400;

/**
 * What differs between two versions of a screen, by element. What many share is said once: a move of all that follows by
 * the same distance, the same change of colour. Elements without a partner are new or gone.
 * @param pairs which elements are which
 */
export function differencesOf(old: Screen, now: Screen, pairs: readonly Pair[]): Difference[] {
  const nowOf = new Map(pairs.map((pair) => [pair.old, pair.now]));
  const oldOf = new Map(pairs.map((pair) => [pair.now, pair.old]));
  const olds = parentsByKey(old);
  const nows = parentsByKey(now);
  const [holdsOld, holdsNew] = [holdersOf(now.root, oldOf), holdersOf(old.root, nowOf)];
  const isDrawn = makingOf(traitsOf(old.root)[0], traitsOf(now.root)[0]) === 'drawing';
  const found: Difference[] = [];
  const alike = new Map<
    string,
    { readonly kind: Difference['kind']; readonly says: string; readonly pairs: Pair[] }
  >();
  const note = (kind: Difference['kind'], says: string, pair: Pair): void => {
    const known = alike.get(`${kind} ${says}`);
    if (known) known.pairs.push(pair);
    else alike.set(`${kind} ${says}`, { kind, says, pairs: [pair] });
  };
  walkElements(now.root, (element) => {
    const before = oldOf.get(element);
    const parent = nows.get(element.key);
    if (!before) {
      // Of what is new, what it stands in says it; a new container around what was there is said for itself.
      if (!parent || oldOf.has(parent) || holdsOld.has(parent)) {
        const says = holdsOld.has(element) ? 'new, around what was there' : `new${inWords(parent, now)}`;
        found.push({ olds: [], nows: [element.key], label: calledOf(element), says, kind: 'new' });
      }
      return;
    }
    const pair = { old: before, now: element };
    const container = olds.get(before.key);
    if (parent && container && oldOf.get(parent) !== container)
      note(
        'inside',
        oldOf.has(parent) ? `now${inWords(parent, now) || ' at the top'}` : `now in something new`,
        pair,
      );
    for (const [kind, says] of ownDifferences(pair, isDrawn)) note(kind, says, pair);
    const moved = moveOf(pair);
    const along = parent && oldOf.get(parent) ? moveOf({ old: oldOf.get(parent)!, now: parent }) : [0, 0];
    if (Math.abs(moved[0] - along[0]) >= LEAST_PX || Math.abs(moved[1] - along[1]) >= LEAST_PX)
      note('place', moveInWords(moved), pair);
    orderIn(pair, nowOf, (one) => note('order', 'in another place of the order', one));
  });
  walkElements(old.root, (element) => {
    if (nowOf.has(element)) return true;
    const holdsSome = holdsNew.has(element);
    found.push({
      olds: [element.key],
      nows: [],
      label: calledOf(element),
      says: holdsSome ? 'gone, what was in it stayed' : `gone${inWords(olds.get(element.key), old)}`,
      kind: 'gone',
    });
    return holdsSome;
  });
  for (const { kind, says, pairs: some } of alike.values())
    found.push({
      olds: some.map((pair) => pair.old.key),
      nows: some.map((pair) => pair.now.key),
      label: calledOf(some[0].now),
      says,
      kind,
    });
  return found.sort((a, b) => KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind));
}

/** The pairs of two versions of a screen whose elements kept their keys. */
export function pairsByKey(old: Screen, now: Screen): Pair[] {
  const before = elementsByKey(old);
  return [...elementsByKey(now)].flatMap(([key, element]) => {
    const other = before.get(key);
    return other ? [{ old: other, now: element }] : [];
  });
}

const inWords = (parent: Element | undefined, { root }: Screen): string => {
  const label = parent && parent !== root ? calledOf(parent) : '';
  return label ? ` inside “${label}”` : '';
};

/** Longer than this, and what a container says is no name for it. */
const LONGEST_NAME = 32;

/** What an element is called in a list: what it says; a container that says much, by its layer. */
function calledOf(element: Element): string {
  const label = labelOf(element);
  if (!element.children.length || label.length <= LONGEST_NAME) return label;
  return element.name.length <= LONGEST_NAME ? element.name : `${label.slice(0, LONGEST_NAME)}…`;
}

/** Elements in which something is that has a partner. */
function holdersOf(root: Element, partner: ReadonlyMap<Element, Element>): ReadonlySet<Element> {
  const holders = new Set<Element>();
  const visit = (element: Element): boolean => {
    let holds = false;
    for (const child of element.children) if (visit(child) || partner.has(child)) holds = true;
    if (holds) holders.add(element);
    return holds;
  };
  visit(root);
  return holders;
}

const moveOf = ({ old, now }: Pair): [x: number, y: number] => [
  Math.round(now.box.x - old.box.x),
  Math.round(now.box.y - old.box.y),
];

function moveInWords([x, y]: readonly [number, number]): string {
  const parts = [
    ...(Math.abs(x) >= LEAST_PX ? [`${Math.abs(x)} px further ${x > 0 ? 'right' : 'left'}`] : []),
    ...(Math.abs(y) >= LEAST_PX ? [`${Math.abs(y)} px ${y > 0 ? 'lower' : 'higher'}`] : []),
  ];
  return parts.join(', ') || 'stays, while what it stands in moves';
}

const quoted = (text: string | undefined): string => {
  const plain = (text ?? '').replace(/\s+/g, ' ').trim();
  if (!plain) return 'empty';
  return `“${plain.length > 80 ? `${plain.slice(0, 77)}…` : plain}”`;
};

/** Attributes that say what an element is or does, in words. */
const ATTRIBUTES: Readonly<Record<string, string>> = {
  href: 'the address',
  type: 'the kind of field',
  placeholder: 'the placeholder',
  alt: 'the alternative text',
  value: 'the value',
  'aria-label': 'the label',
};

/** What an element says, shows and looks like otherwise, apart from where it is. */
function ownDifferences({ old, now }: Pair, isDrawn: boolean): [Difference['kind'], string][] {
  const found: [Difference['kind'], string][] = [];
  if ((old.text ?? '') !== (now.text ?? ''))
    found.push(['text', `text was ${quoted(old.text)}, is ${quoted(now.text)}`]);
  if (old.asset !== now.asset) found.push(['picture', now.asset ? 'another picture' : 'its picture is gone']);
  else if (!equalJson(old.vector ?? null, now.vector ?? null)) found.push(['picture', 'drawn differently']);
  if (old.kind !== now.kind || old.tag !== now.tag || old.role !== now.role)
    found.push(['what', `was ${whatOf(old)}, is ${whatOf(now)}`]);
  if (Boolean(old.hidden) !== Boolean(now.hidden))
    found.push(['what', now.hidden ? 'hidden now' : 'shown now']);
  for (const name of new Set([...Object.keys(old.attributes ?? {}), ...Object.keys(now.attributes ?? {})])) {
    const [was, is] = [old.attributes?.[name], now.attributes?.[name]];
    if (quoted(was) !== quoted(is) && ATTRIBUTES[name])
      found.push(['what', `${ATTRIBUTES[name]} was ${quoted(was)}, is ${quoted(is)}`]);
  }
  found.push(...styleDifferences(old, now, isDrawn));
  // A container grows with what is in it, and that is said there.
  if (!now.children.length || !old.children.length) {
    const [width, height] = [now.box.width - old.box.width, now.box.height - old.box.height].map(Math.round);
    const isText = now.text !== undefined && now.text !== old.text;
    const parts = [
      ...(width && !isText ? [`${Math.abs(width)} px ${width > 0 ? 'wider' : 'narrower'}`] : []),
      ...(height && !isText ? [`${Math.abs(height)} px ${height > 0 ? 'taller' : 'less tall'}`] : []),
    ];
    if (parts.length) found.push(['size', parts.join(', ')]);
  }
  return found;
}

const whatOf = ({ kind, tag, role }: Element): string => role ?? (tag ? `<${tag}>` : kind);

/** Places and sizes are said as px of the picture. */
const PLACED = /^(top|left|right|bottom|inset|(min-|max-)?(width|height)|transform|flex-basis|grid-)/;
/** What Tovel makes of the places of a drawing, where nobody wrote it. */
const ARRANGED = /^(margin|padding|gap|row-gap|column-gap|align|justify|display|flex|order|position)/;

function styleDifferences(old: Element, now: Element, isDrawn: boolean): [Difference['kind'], string][] {
  const found: [Difference['kind'], string][] = [];
  const said = (was: Declarations | undefined, is: Declarations | undefined, when: string): void => {
    for (const [name, a, b] of longhandDifferences(was ?? {}, is ?? {}))
      if (!isDrawn || !ARRANGED.test(name)) found.push(['look', `${name}${when} was ${a}, is ${b}`]);
  };
  said(old.style.base, now.style.base, '');
  for (const [state, when] of [
    ['hover', ' on hover'],
    ['focus', ' with focus'],
    ['disabled', ' while disabled'],
  ] as const)
    said(old.style[state], now.style[state], when);
  if (
    !equalJson([old.style.at ?? null, old.style.from ?? null], [now.style.at ?? null, now.style.from ?? null])
  )
    found.push(['look', 'looks different at other widths']);
  if (
    !equalJson(
      [old.style.before ?? null, old.style.after ?? null, old.style.states ?? null],
      [now.style.before ?? null, now.style.after ?? null, now.style.states ?? null],
    )
  )
    found.push(['look', 'looks different in what is drawn around it']);
  return found;
}

const SIDES = ['top', 'right', 'bottom', 'left'];

/** Properties that differ, the four sides of one as one where they say the same. */
function longhandDifferences(was: Declarations, is: Declarations): [name: string, was: string, is: string][] {
  const found = new Map<string, [string, string]>();
  for (const name of new Set([...Object.keys(was), ...Object.keys(is)])) {
    if (was[name] === is[name] || PLACED.test(name)) continue;
    found.set(name, [was[name] ?? 'not set', is[name] ?? 'not set']);
  }
  for (const name of found.keys()) {
    const side = /^(margin|padding|border)-top(-\w+)?$/.exec(name);
    if (!side) continue;
    const all = SIDES.map((one) => `${side[1]}-${one}${side[2] ?? ''}`);
    const first = found.get(name)!;
    if (!all.every((one) => equalJson(found.get(one) ?? null, first))) continue;
    for (const one of all) found.delete(one);
    found.set(`${side[1]}${side[2] ?? ''}`, first);
  }
  return [...found].map(([name, [a, b]]) => [name, a, b]);
}

/** Children of a pair that stayed in it and changed places with each other. */
function orderIn({ old, now }: Pair, nowOf: ReadonlyMap<Element, Element>, note: (pair: Pair) => void): void {
  const here = new Set(now.children);
  const stayed = old.children.filter((child) => here.has(nowOf.get(child)!));
  if (stayed.length < 2 || stayed.length > MOST_ORDERED) return;
  const before = stayed.map((child) => nowOf.get(child)!);
  const kept = new Set(before);
  const after = now.children.filter((child) => kept.has(child));
  if (before.every((child, i) => child === after[i])) return;
  const inOrder = new Set(commonSubsequence(before, after).map(([i]) => i));
  stayed.forEach((child, i) => {
    if (!inOrder.has(i)) note({ old: child, now: before[i] });
  });
}
