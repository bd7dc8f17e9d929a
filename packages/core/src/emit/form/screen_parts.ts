import type { PiecesBefore } from './before.ts';
import { holdsContent } from './components/hollow.ts';
import { FileNames, pascalCase, plural, uniqueCodeName } from '../../model/names.ts';
import { type Expression, propNamed } from '../../expression/expression.ts';
import { type EmittedComponent, propsIn } from './components/extract.ts';
import { holdsRowDeed, ROW_ID } from './live/controls.ts';
import { isElement, isText, mapChildren, type MarkupElement, type MarkupNode, textIn } from './markup.ts';

/** A component is not longer than so many lines; what is, is parted. */
const MOST_LINES = 150;
/** Lines that come of one when it is formatted, at most: a call that is long has a line for each of what it is given. */
const FORMATTED = 1.2;
/** Of what was parted before: a line more does not part it anew. */
const FORMATTED_AS_BEFORE = 1.05;
/** Lines that a part takes up at least, to be worth a file. */
const LEAST_LINES = 12;
/** Lines of a file around its markup: imports, the function and its end. */
const AROUND = 24;

/** A piece of a long screen that has a file of its own beside it. */
export interface ScreenPart {
  readonly name: string;
  readonly root: MarkupElement;
}

/** What boxes are called that nobody named. */
const PLAIN =
  /^(row|group|inner|box|stack|col|column|container|section|content|part|wrapper|grid|body|page)$/i;
/** Words of a heading that a piece can be called after. */
const LONGEST_HEADING = 4;
/** Words of a text that nothing marks as a heading. */
const LONGEST_FIRST = 2;

/** What boxes are called that have no class. */
const BY_TAG: Readonly<Record<string, string>> = {
  thead: 'table head',
  tbody: 'table body',
  tfoot: 'table foot',
  table: 'table',
  form: 'form',
  nav: 'navigation',
  ul: 'list',
  ol: 'list',
};

/**
 * What a piece can be called, the best first: its class; where that says nothing or is another's, its first heading, or the
 * components that it is made of.
 * @param headed the headings before it
 */
function wordsFor(node: MarkupElement, headed: Headed): string[] {
  const own = (node.className ?? BY_TAG[node.tag] ?? 'section').replace(/\d+$/, '');
  const ownHeading = headingIn(node);
  const told = tellingOf(ownHeading);
  const heading = namedIn(ownHeading) || (isRun(node) ? told : namedIn(headed.right));
  const label = namedIn(labelIn(node)) || namedIn(firstTextIn(node), LONGEST_FIRST);
  const above = headed.above ? `${tellingOf(headed.above)} ${own}` : own;
  const [[component, times] = ['', 0]] = [...countUses(node)].sort(([, a], [, b]) => b - a);
  // What holds little else is called after what it holds.
  const isOfThem = times > 1 && times * 2 >= countThings(node) && !ANYTHING.test(component);
  return [
    ...(PLAIN.test(own) ? [] : [own]),
    ...(heading ? [heading] : []),
    ...(isOfThem ? [plural(component)] : []),
    ...(told ? [told] : []),
    ...(heading && PLAIN.test(own) ? [`${heading} ${own}`] : []),
    own,
    ...(label ? [`${label} ${own}`] : []),
    ...(headed.within && !says(heading || own, headed.within) ? [`${headed.within} ${heading || own}`] : []),
    above,
    ...(headed.within ? [`${headed.within} ${above}`] : []),
  ];
}

/** A text as a name, where it is short enough to be one; nothing else. */
function namedIn(text: string, most = LONGEST_HEADING): string {
  const isName = text.split(/\s+/).length <= most && /^[\p{L}\s-]+$/u.test(text);
  return isName ? (text === text.toUpperCase() ? text.toLowerCase() : text) : '';
}

const says = (text: string, words: string): boolean => text.toLowerCase().includes(words.toLowerCase());

/** Words that say little by themselves, as far as they are longer than those that are left out for that. */
const FILLERS = new Set(
  'about after also been before both done each even ever every from have here into just let’s lets like made make many more most much only other over should some such than that their them then there these they this those through very want what when where which will with would your you’re avec cette dans leur nous pour vous votre aber auch dein eine einem einen einer euch oder sind über unser unsere wird con los las para por una'.split(
    ' ',
  ),
);
const SHORTEST = 4;
const MOST_TELLING = 3;

/** The first words of a text that tell what it is about, as a name. */
const tellingOf = (text: string): string =>
  (text.match(/[\p{L}\p{M}]+(?:[’'-]\p{L}+)*/gu) ?? [])
    .filter((word) => word.length >= SHORTEST && !FILLERS.has(word.toLowerCase().replace("'", '’')))
    .slice(0, MOST_TELLING)
    .join(' ');

/** What components are called that can be anything, or were told from others by a number. */
const ANYTHING = /(^|[a-z])(item|block|container|section|inner|group|row|box)$|\d$/i;

/** How many things a piece consists of: components, texts and pictures. */
function countThings({ use, tag, children }: MarkupElement): number {
  if (use && !children.length) return 1;
  if (tag === 'img' || children.some((child) => isText(child) && /\p{L}/u.test(child.text))) return 1;
  return children.reduce((sum, child) => sum + (isElement(child) ? countThings(child) : 0), use ? 1 : 0);
}

/** What the first element with a text says, as the head of what follows does. */
function firstTextIn(node: MarkupElement): string {
  for (const child of node.children) {
    if (isText(child) && /\p{L}/u.test(child.text)) return child.text.trim();
    const found = isElement(child) ? firstTextIn(child) : '';
    if (found) return found;
  }
  return '';
}

/** What the only link, button or label of a field in an element says. */
function labelIn(node: MarkupElement): string {
  const found: string[] = [];
  const visit = (one: MarkupElement): void => {
    const { label } = one.use?.props ?? {};
    if (/^(a|button|label)$/.test(one.tag) || one.link) found.push(textIn(one).trim());
    else if (typeof label === 'string') found.push(label.trim());
    else for (const child of one.children) if (isElement(child)) visit(child);
  };
  visit(node);
  return found.length === 1 ? found[0] : '';
}

/** The first heading in an element, or the title that it gives to a component. */
function headingIn(node: MarkupElement): string {
  if (/^h[1-6]$/.test(node.tag) || (TITLE.test(node.className ?? '') && isTitle(node))) {
    // What stands in it in smaller letters says more than what it is the heading of.
    const own = node.children.map((child) => (isText(child) ? child.text : '')).join('');
    return namedIn(own.trim()) ? own.trim() : textIn(node);
  }
  if (typeof node.use?.props.title === 'string') return node.use.props.title;
  for (const child of node.children) {
    const found = isElement(child) ? headingIn(child) : '';
    if (found) return found;
  }
  return '';
}

/** The heading in what stands right before a child, and the last one of those that stand before it. */
function headingsBefore(children: readonly MarkupNode[], at: number, outer: Headed): Headed {
  const before = children.slice(0, at);
  const last = before.findLast(isElement);
  const heading = before.findLast((child) => levelOf(child) > 0);
  return {
    right: (last && headingIn(last)) || outer.right,
    above: heading && isElement(heading) ? headingIn(heading) : outer.above,
    within: outer.within,
  };
}

/** What a piece stands under and in: headings, and the id of what opens and closes. */
interface Headed {
  readonly right: string;
  readonly above: string;
  readonly within: string;
}
const UNHEADED: Headed = { right: '', above: '', within: '' };

/** What a part that opens is known by: `badges` of `badges-section`. */
const nameOfPart = ({ part, attributes }: MarkupElement): string =>
  part && typeof attributes.id === 'string' ? attributes.id.replace(/-[a-z]+$/, '').replace(/-/g, ' ') : '';

/** What paragraphs are called that are the head of what follows. */
const TITLE = /(^|[a-z])(title|heading)\d*$/i;
/** Whether an element holds words, and besides them only what is linked or marked among them. */
const isTitle = ({ tag, children }: MarkupElement): boolean =>
  /^(p|div|span)$/.test(tag) && children.some((child) => isText(child) && /\p{L}/u.test(child.text));

function countUses(node: MarkupElement, counts = new Map<string, number>()): ReadonlyMap<string, number> {
  if (node.use) counts.set(node.use.component, (counts.get(node.use.component) ?? 0) + 1);
  for (const child of node.children) if (isElement(child)) countUses(child, counts);
  return counts;
}

/** Whether an element can have a file of its own: what it depends on, and what it holds for others, stays. */
const canBePiece = (node: MarkupElement): boolean =>
  (!node.use || node.children.length > 0) && !node.when && !node.each && !holdsContent(node);

/**
 * Parts a long screen into pieces that a person can read, each with its own file in the screen's folder; the longest that
 * fit go first. What is short stays whole, and what was a piece goes on being one.
 * @param linesOf how many lines an element is written as
 * @param before the pieces that there were
 */
export function partScreen(
  root: MarkupElement,
  isTaken: (name: string) => boolean,
  linesOf: (node: MarkupElement) => number,
  before: PiecesBefore = new Map(),
  around = AROUND,
): { readonly root: MarkupElement; readonly parts: readonly ScreenPart[] } {
  const parts: ScreenPart[] = [];
  const names = new FileNames();
  const most = (MOST_LINES - around) / (before.size ? FORMATTED_AS_BEFORE : FORMATTED);
  const nameBefore = ({ key }: MarkupElement): string | undefined =>
    key === null ? undefined : before.get(key);
  const wasPiece = (node: MarkupElement): boolean => canBePiece(node) && nameBefore(node) !== undefined;
  const held = new FileNames(before.values());
  const out = (node: MarkupElement, headed: Headed): MarkupElement => {
    const known = nameBefore(node);
    const wanted = known === undefined ? wordsFor(node, headed).map(pascalCase) : [known];
    const isFree = (one: string): boolean =>
      !names.has(one) && !isTaken(one) && (one === known || !held.has(one));
    const name = uniqueCodeName(wanted.find(isFree) ?? wanted[0], 'Part', (one) => !isFree(one));
    names.add(name);
    parts.push({ name, root: node });
    return {
      tag: 'div',
      key: node.key,
      className: null,
      attributes: {},
      children: [],
      use: { component: name, props: {} },
    };
  };
  /** How many lines there are of children once all that can be a piece is one. */
  const restOf = (children: readonly MarkupNode[]): number =>
    children.reduce((sum, child) => {
      const lines = isElement(child) ? linesOf(child) : 1;
      return sum + (isElement(child) && canBePiece(child) && lines >= LEAST_LINES ? 1 : lines);
    }, 0);
  const shorten = (node: MarkupElement, headed = UNHEADED): MarkupElement => {
    // What stands once for each of a list knows which.
    if (node.each) return node;
    const isLong = linesOf(node) > most;
    if (!isLong && !(before.size && holdsAny(node, wasPiece))) return node;
    const wasRun = (run: MarkupElement): boolean => nameBefore(run) !== undefined;
    const headedAll = headedRuns(node.children);
    const isParted =
      isLong && headedAll.length > 0 && (headedAll.length >= LEAST_RUNS || restOf(node.children) > most);
    const runs = headedAll.filter((run) => (isParted || wasRun(run)) && linesOf(run) >= LEAST_LINES);
    const own = runs.length ? withRuns(node.children, runs) : node.children;
    const outer = { ...headed, within: nameOfPart(node) || headed.within };
    const headedAt = (i: number): Headed => headingsBefore(own, i, outer);
    let children = own.map((child, i) => {
      if (!isElement(child)) return child;
      const made = shorten(child, headedAt(i));
      if (isRun(child)) return out(made, { ...UNHEADED, within: outer.within });
      return wasPiece(child) && !levelOf(child) ? out(made, headedAt(i)) : made;
    });
    if (!isLong) return { ...node, children };
    let total = linesOf({ ...node, children });
    const large = children
      .flatMap((child, i) => (isElement(child) && canBePiece(child) ? [{ i, lines: linesOf(child) }] : []))
      .sort((a, b) => b.lines - a.lines);
    const gone = new Map<number, MarkupElement>();
    for (const { i, lines } of large) {
      if (total <= most || lines < LEAST_LINES) break;
      gone.set(i, children[i] as MarkupElement);
      total -= lines - 1;
    }
    // Names in reading order.
    children = children.map((child, i) => (gone.has(i) ? out(gone.get(i)!, headedAt(i)) : child));
    return { ...node, children };
  };
  return { root: shorten(root), parts };
}

/** So many headings of one level part what stands beside them, and not what it holds. */
const LEAST_RUNS = 3;

/** The level of a heading; 0 for what is none. */
const levelOf = (node: MarkupNode): number =>
  isElement(node) && !node.use && /^h[1-6]$/.test(node.tag) ? Number(node.tag[1]) : 0;

/** Whether an element is none, but what stands between two headings. */
const isRun = (node: MarkupNode): node is MarkupElement => isElement(node) && node.tag === '' && !node.use;

/**
 * What follows each heading of the highest level that parts children, with it, up to the next that is not lower; each known by
 * its heading. What stands before the first is in none.
 */
function headedRuns(children: readonly MarkupNode[]): MarkupElement[] {
  const first = children.findIndex(saysSomething);
  const levels = children.map(levelOf);
  const parting = [1, 2, 3, 4, 5, 6].find((level) => levels.some((one, i) => one === level && i > first));
  if (!parting || children.some((child) => isElement(child) && holdsContent(child))) return [];
  const runs: MarkupNode[][] = [];
  children.forEach((child, i) => {
    if (levels[i] === parting) runs.push([child]);
    else runs.at(-1)?.push(child);
  });
  return runs.map((run) => {
    const end = run.findLastIndex(saysSomething);
    return {
      tag: '',
      key: (run[0] as MarkupElement).key,
      className: null,
      attributes: {},
      children: run.slice(0, end + 1),
    };
  });
}

const saysSomething = (node: MarkupNode): boolean => !isText(node) || node.text.trim() !== '';

/** Children with those that are in runs in them. */
function withRuns(children: readonly MarkupNode[], runs: readonly MarkupElement[]): MarkupNode[] {
  const runOf = new Map(runs.map((run) => [run.children[0], run]));
  const within = new Set(runs.flatMap((run) => run.children));
  return children.flatMap((child) => runOf.get(child) ?? (within.has(child) ? [] : [child]));
}

/** Whether any element within one is such. */
const holdsAny = (node: MarkupElement, isSuch: (node: MarkupElement) => boolean): boolean =>
  node.children.some((child) => isElement(child) && (isSuch(child) || holdsAny(child, isSuch)));

/** The pieces of a file as they are kept. */
export const keptPieces = (parts: readonly ScreenPart[]): PiecesBefore =>
  new Map(parts.flatMap(({ name, root: { key } }) => (key === null ? [] : [[key, name] as const])));

/**
 * Parts a long component as `partScreen` does screens; each piece is given those props that it looks at.
 * @returns the component without its pieces, and them as components of their own
 */
export function partComponent(
  component: EmittedComponent,
  isTaken: (name: string) => boolean,
  linesOf: (node: MarkupElement) => number,
  before?: PiecesBefore,
): { readonly component: EmittedComponent; readonly pieces: readonly EmittedComponent[] } {
  const { root, props } = component;
  const fields = props.reduce((sum, prop) => sum + (prop.fields ? prop.fields.length + 2 : 0), 0);
  const around = AROUND + LINES_A_PROP * props.length + fields;
  const { root: left, parts } = partScreen(root, isTaken, linesOf, before, around);
  if (!parts.length) return { component, pieces: [] };
  // Those that a piece hands on to pieces within it are among its own.
  const looks = new Map(parts.map((part) => [part.name, part.root]));
  const needed = (node: MarkupElement): Set<string> => {
    const names = propsIn(node);
    if (holdsRowDeed(node)) names.add(ROW_ID);
    const visit = (one: MarkupElement): void => {
      const inner = one.use && looks.get(one.use.component);
      if (inner) for (const name of needed(inner)) names.add(name);
      for (const child of one.children) if (isElement(child)) visit(child);
    };
    visit(node);
    return names;
  };
  const given = new Map(parts.map((part) => [part.name, needed(part.root)]));
  const there = thereFor(left, looks);
  const handing = (node: MarkupElement): MarkupElement => {
    const made = mapChildren(node, (child) => (isElement(child) ? handing(child) : child));
    const names = node.use && given.get(node.use.component);
    if (!names) return made;
    const values = props.flatMap(({ name }) => (names.has(name) ? [[name, { given: propNamed(name) }]] : []));
    return { ...made, use: { ...node.use!, props: Object.fromEntries(values) } };
  };
  return {
    component: { ...component, root: handing(left) },
    pieces: parts.map((part) => ({
      ...component,
      name: part.name,
      root: handing(part.root),
      // What the component says by itself it hands on.
      props: props
        .filter(({ name }) => given.get(part.name)!.has(name))
        .map(({ byDefault, ...prop }) =>
          byDefault === undefined && !there.get(part.name)?.has(prop.name)
            ? prop
            : { ...prop, isOptional: false },
        ),
    })),
  };
}

/** For each piece the props that are there wherever it stands: what it stands in is left out without them. */
function thereFor(
  root: MarkupElement,
  looks: ReadonlyMap<string, MarkupElement>,
): ReadonlyMap<string, ReadonlySet<string>> {
  const there = new Map<string, ReadonlySet<string>>();
  const visit = (node: MarkupElement, before: ReadonlySet<string>): void => {
    const sure = new Set([...before, ...askedFor(node.when)]);
    const piece = node.use && looks.get(node.use.component);
    if (piece) {
      there.set(node.use.component, sure);
      visit(piece, sure);
    }
    for (const child of node.children) if (isElement(child)) visit(child, sure);
  };
  visit(root, new Set());
  return there;
}

/** Names of the props that are there where something holds. */
function askedFor(when: Expression | undefined): readonly string[] {
  if (when?.kind === 'prop') return [when.name];
  return when?.kind === 'and' ? when.of.flatMap(askedFor) : [];
}

/** Lines that a prop takes up in its component: in what it is given, and where it is taken. */
const LINES_A_PROP = 2;
