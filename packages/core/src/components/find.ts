import type { Element, Screen } from '../model/design.ts';
import { pascalCase, singular, uniqueName } from '../model/names.ts';
import { textOf } from '../model/project.ts';
import { wordOfClasses, wordOfLayer } from '../roles/called.ts';
import { inferRoles } from '../roles/infer.ts';
import { hash } from '../json/hash.ts';
import { type Run, runsIn, shapeLikeness, shapeOf } from '../roles/shape.ts';
import { type Sight, sightOf } from '../roles/sight.ts';

/** Several places that are built alike, as a proposal. */
export interface ComponentProposal {
  /** Stays the same while the places do: what was refused does not come back unless they change. */
  readonly id: string;
  readonly kind: 'component' | 'list';
  readonly name: string;
  /** Element keys, in reading order; of a list its rows. */
  readonly places: readonly string[];
  /** Of a list: the element that holds the rows. */
  readonly within?: string;
  /** How many elements need not be written again. */
  readonly saves: number;
  readonly confidence: number;
  readonly reason: string;
}

/** A component has at least this many elements, and at most this many are looked at in one screen. */
const LEAST_ELEMENTS = 3;
const MAX_ELEMENTS = 20_000;
/** Near-equal groups are compared with at most so many others of their kind. */
const MAX_COMPARED = 24;
/** A part holds less than this share of its screen's elements. */
const MOST = 0.6;
/** How alike two groups have to be built to be proposed as one. */
const ALIKE = 0.72;

interface Candidate {
  readonly sight: Sight;
  readonly size: number;
}

/**
 * Finds what repeats, within screens and across them, in the order of what it saves. Subtrees of one form are found by
 * a hash of how they are built; groups that differ in a part or two are joined when they are called the same or stand
 * in the same place; what only ever stands inside a larger repeated part is left to that. Linear in the elements, but
 * for the comparison of groups, which is bounded.
 */
export function findComponents(screens: readonly Screen[]): ComponentProposal[] {
  const lists = sameRows(screens.flatMap(listsOf), screens);
  const inLists = new Set(lists.flatMap((list) => list.places));
  const groups = join([...byForm(screens).values()]);
  const found = outermost(groups)
    .filter((group) => group.length > 1 && !group.every(({ sight }) => inLists.has(sight.element.key)))
    .map((group) => proposalOf(group));
  const names = new Set<string>();
  return [...lists, ...found]
    .sort((a, b) => b.saves - a.saves || (a.id < b.id ? -1 : 1))
    .map(({ others, ...proposal }) => {
      const isTaken = (candidate: string): boolean => names.has(candidate);
      const free = [proposal.name, ...others].find((candidate) => !isTaken(candidate));
      const name = free ?? uniqueName(proposal.name, isTaken, '');
      names.add(name);
      return { ...proposal, name };
    });
}

/** A proposal, with what it could be called besides where another has its name. */
interface Named extends ComponentProposal {
  readonly others: readonly string[];
}

const sizes = new WeakMap<Element, number>();

/** How many elements there are beneath an element, itself among them. */
export function sizeOf(element: Element): number {
  let size = sizes.get(element);
  if (size === undefined)
    sizes.set(
      element,
      (size = element.children.reduce(
        (sum, child) => sum + (child.tag === undefined ? 0 : sizeOf(child)),
        1,
      )),
    );
  return size;
}

/** Subtrees by how they are built and laid out. */
function byForm(screens: readonly Screen[]): Map<string, Candidate[]> {
  const groups = new Map<string, Candidate[]>();
  for (const screen of screens) {
    const { all, root } = sightOf(screen);
    const forms = new Map<Sight, string>();
    const here: [form: string, candidate: Candidate][] = [];
    // From the innermost outwards, so that the forms of children are known.
    for (const sight of all.slice(0, MAX_ELEMENTS).toReversed()) {
      forms.set(sight, formOf(sight, forms));
      const { element } = sight;
      if (sight === root || element.hidden || element.kind !== 'box' || !sight.children.length) continue;
      const size = sizeOf(element);
      const isButton = isFramedText(sight);
      if (size < LEAST_ELEMENTS && !isButton) continue;
      // What is most of a screen is its layout, not a part of it.
      if (size > all.length * MOST) continue;
      const form = forms.get(sight)!;
      here.push([form, { sight, size }]);
    }
    for (const [form, candidate] of here.reverse()) {
      const group = groups.get(form);
      if (group) group.push(candidate);
      else groups.set(form, [candidate]);
    }
  }
  return groups;
}

const isFramedText = (sight: Sight): boolean =>
  sight.children.length === 1 &&
  sight.children[0].element.kind === 'text' &&
  (sight.look.hasFill || sight.look.hasBorder);

/** A word for how an element is built: kinds, layout, sizes of type; not what it says, and not its colours. */
function formOf(sight: Sight, forms: ReadonlyMap<Sight, string>): string {
  const { element, look, children } = sight;
  const { base } = element.style;
  const own = [
    element.kind[0],
    sight.isAuthored ? element.tag : '',
    base.display ?? '',
    base['flex-direction'] ?? '',
    look.hasBorder ? 'b' : '',
    Math.round(Math.min(look.radius, 99)),
    sight.hasOwnText ? `${sight.fontSize} ${sight.fontWeight >= 600}` : '',
    isFramedText(sight) ? Math.round(element.box.height / 4) : '',
  ];
  const inner: string[] = [];
  // Runs of one form count as one, since rows come in any number.
  for (const child of children) {
    const form = forms.get(child) ?? '';
    if (form !== inner.at(-1)) inner.push(form);
  }
  return hash(`${own.join(' ')}(${inner.join(' ')})`);
}

/** Joins groups that differ in a part or two and are called the same. */
function join(groups: readonly Candidate[][]): Candidate[][] {
  const joined: Candidate[][] = [];
  const buckets = new Map<string, Candidate[][]>();
  for (const group of groups.toSorted((a, b) => b.length - a.length)) {
    const name = wordOf(group[0].sight);
    const bucket = name ? (buckets.get(name) ?? []) : [];
    const near = bucket
      .slice(0, MAX_COMPARED)
      .find((other) => shapeLikeness(other[0].sight.element, group[0].sight.element) >= ALIKE);
    if (near) near.push(...group);
    else {
      const own = [...group];
      joined.push(own);
      if (name) {
        bucket.push(own);
        buckets.set(name, bucket);
      }
    }
  }
  return joined;
}

/** How an element is called without numbers, if by anything but its text. */
function wordOf(sight: Sight): string {
  const { element } = sight;
  const name = sight.isAuthored ? (element.classes ?? '').split(/\s+/)[0] : element.name;
  const plain = name
    .replace(/[\d_]+/g, ' ')
    .trim()
    .toLowerCase();
  return plain && !['box', 'group'].includes(plain) && !sight.text.toLowerCase().startsWith(plain)
    ? plain
    : '';
}

/** Leaves out groups that only ever stand, once each, within places of a larger one. */
function outermost(groups: readonly Candidate[][]): Candidate[][] {
  const bySize = groups.filter((group) => group.length > 1).sort((a, b) => b[0].size - a[0].size);
  const owner = new Map<string, number>();
  bySize.forEach((group, i) => group.forEach(({ sight }) => owner.set(sight.element.key, i)));
  return bySize.filter((group, i) => {
    const holders = new Map<number, Set<string>>();
    for (const { sight } of group)
      for (let parent = sight.parent; parent; parent = parent.parent) {
        const at = owner.get(parent.element.key);
        if (at === undefined || at === i) continue;
        const set = holders.get(at) ?? new Set();
        set.add(parent.element.key);
        holders.set(at, set);
      }
    // The same number of places, one in each: the larger group says all there is to say.
    return ![...holders.values()].some((set) => set.size === group.length);
  });
}

const rootOf = (sight: Sight): Sight => (sight.parent ? rootOf(sight.parent) : sight);

function proposalOf(group: readonly Candidate[]): Named {
  const [first] = group;
  const places = group.map(({ sight }) => sight.element.key);
  const screens = new Set(group.map(({ sight }) => rootOf(sight)));
  const isOneForm = group.every(({ sight }) => shapeOf(sight.element) === shapeOf(first.sight.element));
  const size = Math.round(group.reduce((sum, candidate) => sum + candidate.size, 0) / group.length);
  return {
    id: idOf('component', places),
    kind: 'component',
    ...namesOf(
      first.sight,
      'component',
      group.map(({ sight }) => sight),
    ),
    places,
    saves: (group.length - 1) * size,
    confidence: Math.min(0.95, (isOneForm ? 0.7 : 0.55) + Math.min(0.25, 0.05 * group.length)),
    reason: `${group.length} places${screens.size > 1 ? ` on ${screens.size} screens` : ''} are built ${isOneForm ? 'the same' : 'nearly the same'}`,
  };
}

const idOf = (kind: string, places: readonly string[]): string =>
  `${kind} ${hash(places.toSorted().join(' '))}`;

/** The lists of a screen: rows that repeat within one element. */
export const findLists = (screen: Screen): ComponentProposal[] =>
  listsOf(screen).map(({ others: _others, ...list }) => list);

function listsOf(screen: Screen): Named[] {
  const { all } = sightOf(screen);
  const guesses = inferRoles(screen);
  const found: Named[] = [];
  const used = new Set<string>();
  for (const parent of all) {
    if (parent.element.hidden || isWithin(parent, used)) continue;
    for (const run of runsOf(parent, guesses)) {
      const places = run.items.map((item) => item.element.key);
      if (places.some((key) => used.has(key))) continue;
      const size = sizeOf(run.items[0].element);
      places.forEach((key) => used.add(key));
      const areItems = run.items.every((item) =>
        ['listitem', 'row'].includes(guesses.get(item.element.key)?.role ?? ''),
      );
      found.push({
        id: idOf('list', places),
        kind: 'list',
        ...namesOf(run.items[0], 'list', run.items),
        places,
        within: parent.element.key,
        saves: (places.length - 1) * size,
        confidence: Math.min(0.95, (areItems ? 0.75 : 0.55) + 0.03 * places.length),
        reason: `${places.length} rows of one kind stand ${run.axis === 'y' ? 'beneath each other' : run.axis === 'x' ? 'side by side' : 'in a grid'}`,
      });
    }
  }
  return found;
}

/** Lists on several screens whose rows are built and called the same are one list with several runs. */
function sameRows(lists: readonly Named[], screens: readonly Screen[]): Named[] {
  const sights = new Map<string, { readonly sight: Sight; readonly screen: string }>();
  for (const screen of screens)
    for (const [key, sight] of sightOf(screen).byKey) sights.set(key, { sight, screen: screen.key });
  const merged = new Map<string, Named[]>();
  for (const list of lists) {
    const [key] = list.places;
    const first = sights.get(key)!.sight;
    const form = `${list.name} ${shapeOf(first.element)} ${first.fontSize}`;
    merged.set(form, [...(merged.get(form) ?? []), list]);
  }
  return [...merged.values()].map((group) => {
    if (group.length === 1) return group[0];
    const places = group.flatMap((list) => list.places);
    return {
      ...group[0],
      id: idOf('list', places),
      places,
      saves: group.reduce((sum, list) => sum + list.saves, 0),
      reason: `${group.length} lists on ${new Set(places.map((key) => sights.get(key)!.screen)).size} screens have rows of one kind`,
    };
  });
}

/** A row of a list may hold a list of its own, but not a cell of a row. */
const isWithin = (sight: Sight, used: ReadonlySet<string>): boolean => {
  for (let at: Sight | null = sight; at; at = at.parent)
    if (used.has(at.element.key)) return at === sight ? sizeOf(at.element) < 6 : false;
  return false;
};

function runsOf(parent: Sight, guesses: ReturnType<typeof inferRoles>): Run[] {
  const roleOf = (sight: Sight): string => guesses.get(sight.element.key)?.role ?? '';
  const own = roleOf(parent);
  if (['button', 'link', 'textbox', 'combobox', 'row', 'chart', 'heading', 'paragraph'].includes(own))
    return [];
  // What lists itself as such is one list, however its items differ.
  const items = parent.children.filter((child) => roleOf(child) === 'listitem' && !child.element.hidden);
  if (items.length >= 2 && (own === 'list' || items.length >= parent.children.length * 0.5))
    return items.some((item) => item.children.length > 0 || item.text !== '')
      ? [{ parent, items, axis: axisOf(items) }]
      : [];
  const rows = parent.children.filter((child) => roleOf(child) === 'row');
  const body = rows.filter((row) => !row.children.every((cell) => roleOf(cell) === 'columnheader'));
  if (body.length >= 2) return [{ parent, items: body, axis: 'y' }];
  if (own === 'table') return [];
  return runsIn(parent, 3).filter(({ items: run }) => {
    const [first] = run;
    if (first.element.kind !== 'box') return false;
    if (
      run.every((item) =>
        [
          'button',
          'textbox',
          'separator',
          'radio',
          'checkbox',
          'cell',
          'columnheader',
          'heading',
          'paragraph',
        ].includes(roleOf(item)),
      )
    )
      return false;
    if (run.every((item) => item.children.some((child) => ['textbox', 'combobox'].includes(roleOf(child)))))
      return false;
    return run.every((item) => contents(item) >= 2);
  });
}

const contents = (sight: Sight): number =>
  sight.children.length
    ? sight.children.reduce((sum, child) => sum + contents(child), sight.hasOwnText ? 1 : 0)
    : sight.hasOwnText || sight.element.kind !== 'box'
      ? 1
      : 0;

const axisOf = (items: readonly Sight[]): Run['axis'] => {
  const boxes = items.map((item) => item.element.box);
  if (boxes.every((box, i) => i === 0 || box.y >= boxes[i - 1].y + boxes[i - 1].height - 2)) return 'y';
  return boxes.every((box, i) => i === 0 || box.x >= boxes[i - 1].x + boxes[i - 1].width - 2) ? 'x' : 'grid';
};

/** What the names of several layers have in common: `Chip All`, `Chip Wood` → `Chip`. */
function commonWords(all: readonly Sight[]): string {
  if (all.length < 2 || all[0].isAuthored) return '';
  const words = all.map((sight) => new Set(wordOf(sight).split(/\s+/).filter(Boolean)));
  const [first] = words;
  const shared = [...first].filter(
    (word) => words.filter((set) => set.has(word)).length >= words.length * 0.8,
  );
  return shared.length ? pascalCase(shared.join(' ')) : '';
}

/** How many containers further out a part may be called after. */
const FURTHEST = 4;

/**
 * A name for a component, and others for where another has that: by what it holds, by more of its author's words, and by what
 * it stands in.
 */
function namesOf(
  sight: Sight,
  kind: 'component' | 'list',
  all: readonly Sight[],
): Pick<Named, 'name' | 'others'> {
  const name = nameOf(sight, kind, all);
  const told = [holdsWord(all), ...moreWords(all), ...outerWords(sight)].filter(
    (word) => word.length > 2 && !name.toLowerCase().includes(word.toLowerCase()),
  );
  const is = kindName(sight, kind);
  const heading = kind === 'list' ? headingOver(sight) : '';
  return {
    name,
    others: [
      ...(heading ? [`${pascalCase(singular(heading))}${is}`] : []),
      ...[...new Set(told)].map((word) => `${pascalCase(word)}${name}`),
    ],
  };
}

/** The heading of what rows stand in, where it is short enough to be a name of them. */
function headingOver(sight: Sight): string {
  const headings = (element: Element): Element[] =>
    /^h[1-6]$/.test(element.tag ?? '') ? [element] : element.children.flatMap(headings);
  for (let outer = sight.parent; outer; outer = outer.parent) {
    const said = headings(outer.element).filter(({ box }) => box.y < sight.element.box.y);
    const nearest = said.at(-1);
    if (!nearest) continue;
    const words = textOf(nearest).split(/\s+/);
    return words.length <= LONGEST_HEADING && /^[\p{L}\s]+$/u.test(words.join(' ')) ? words.join(' ') : '';
  }
  return '';
}

/** Words of a heading that can be the name of rows. */
const LONGEST_HEADING = 2;

/** What all places hold that other parts do not: a table, a chart, a form, a picture. */
function holdsWord(all: readonly Sight[]): string {
  const holds = (element: Element, test: (one: Element) => boolean): boolean =>
    test(element) || element.children.some((child) => holds(child, test));
  const found = HOLDS.find(([, test]) =>
    all.every(({ element }) => element.children.some((child) => holds(child, test))),
  );
  return found?.[0] ?? '';
}
const HOLDS: readonly (readonly [string, (element: Element) => boolean])[] = [
  ['Table', ({ tag }) => tag === 'table'],
  ['Form', ({ tag }) => tag === 'form'],
  ['Chart', ({ tag, role }) => tag === 'canvas' || role === 'chart'],
  ['Field', ({ tag }) => tag === 'input' || tag === 'select' || tag === 'textarea'],
  ['List', ({ tag }) => tag === 'ul' || tag === 'ol'],
  ['Picture', ({ kind }) => kind === 'image'],
  ['Button', ({ tag }) => tag === 'button'],
  ['Titled', ({ tag }) => tag !== undefined && /^h[1-6]$/.test(tag)],
];

/** Words that an author has for all places besides the first. */
function moreWords(all: readonly Sight[]): string[] {
  if (!all[0].isAuthored) return [];
  const [first, ...rest] = all.map(({ element }) => new Set((element.classes ?? '').split(/\s+/)));
  return [...first]
    .filter((word) => rest.every((other) => other.has(word)))
    .flatMap((word) => wordOfClasses(word));
}

/** What the containers around a part are called, from the inside out. */
function outerWords({ parent }: Sight): string[] {
  const words: string[] = [];
  let outer = parent;
  for (let i = 0; outer?.parent && i < FURTHEST; i++, outer = outer.parent) words.push(wordFor(outer));
  return words;
}

/** A name for a component: its author's word for it, or what it is within what it stands in. */
function nameOf(sight: Sight, kind: 'component' | 'list', all: readonly Sight[] = [sight]): string {
  const common = commonWords(all);
  if (common.length > 2) return common;
  const own = wordFor(sight);
  if (own.length > 2) return pascalCase(own);
  const is = kindName(sight, kind);
  if (is === 'Footer' || is === 'Header' || is === 'Navigation') return is;
  let outer = sight.parent;
  for (let i = 0; outer?.parent && i < FURTHEST; i++, outer = outer.parent) {
    const word = pascalCase(wordFor(outer)).replace(/(List|s)$/, '');
    if (word.length > 2) return word.endsWith(is) ? word : `${word}${is}`;
  }
  return is;
}

const wordFor = ({ isAuthored, element }: Sight): string =>
  isAuthored ? wordOfClasses(element.classes ?? '') : wordOfLayer(element);

/** What a part is, where it has no name. */
function kindName({ element, children }: Sight, kind: 'component' | 'list'): string {
  const { tag, role } = element;
  if (role === 'navigation' || tag === 'nav') return 'Navigation';
  if (tag === 'footer') return 'Footer';
  if (tag === 'header') return 'Header';
  if (tag === 'tr') return 'Row';
  if (tag === 'td' || tag === 'th') return 'Cell';
  if (tag === 'a') return 'Link';
  if (tag === 'form') return 'Form';
  if (tag === 'button' || (children.length === 1 && children[0].element.kind === 'text')) return 'Button';
  return tag === 'li' || kind === 'list' ? 'Item' : 'Block';
}
