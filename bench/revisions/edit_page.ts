import { chance } from '../../packages/core/src/testing/chance.ts';
import { parse, serialize, defaultTreeAdapter as tree, type DefaultTreeAdapterTypes as T } from 'parse5';

/** What share of the elements of a page each kind of edit takes. */
export interface EditShares {
  readonly removed: number;
  readonly added: number;
  readonly moved: number;
  readonly reordered: number;
  readonly classes: number;
  readonly words: number;
  readonly wrapped: number;
}

export const USUAL_EDITS: EditShares = {
  removed: 0.05,
  added: 0.05,
  moved: 0.03,
  reordered: 0.03,
  classes: 0.1,
  words: 0.08,
  wrapped: 0.03,
};

export interface EditedPage {
  readonly before: string;
  readonly after: string;
  /** Where each element that stayed is now, by where it was; as in `source.path`. */
  readonly truth: ReadonlyMap<string, string>;
}

const MARK = 'data-bench-mark';
const LEFT_OUT = new Set(['script', 'noscript', 'template']);
/** What may stand only in certain places is not moved, wrapped or copied. */
const FIXED = new Set(
  'html head body table thead tbody tfoot tr td th colgroup col caption li dt dd option optgroup source track legend summary svg path g circle rect line polygon title'.split(
    ' ',
  ),
);
const VOID = new Set('img input br hr area embed wbr'.split(' '));

type Node = T.ChildNode;
const isElement = (node: T.Node): node is T.Element => tree.isElementNode(node as T.ChildNode);
const kids = (node: T.Element): T.Element[] => node.childNodes.filter(isElement);
const attribute = (node: T.Element, name: string): T.Element['attrs'][number] | undefined =>
  node.attrs.find((attr) => attr.name === name);

function walk(node: T.Element, visit: (node: T.Element, path: string) => void, path = ''): void {
  visit(node, path);
  kids(node).forEach((child, i) => walk(child, visit, path === '' ? String(i) : `${path}/${i}`));
}

const rootOf = (document: T.Document): T.Element => document.childNodes.filter(isElement)[0];

/** A page without its scripts. */
export function withoutScripts(html: string): T.Document {
  const document = parse(html);
  const clean = (node: T.Element): void => {
    node.childNodes = node.childNodes.filter(
      (child: Node) => !(isElement(child) && LEFT_OUT.has(child.tagName)),
    );
    node.attrs = node.attrs.filter(({ name }) => !name.startsWith('on'));
    kids(node).forEach(clean);
  };
  clean(rootOf(document));
  return document;
}

const WORDS =
  'harbour lantern meadow copper willow ledger anchor bramble kettle signal orchard timber pocket velvet marble saddle'.split(
    ' ',
  );

/** Edits a page as a person would in a second round, and remembers which element is which. */
export function editPage(html: string, seed: number, shares: EditShares = USUAL_EDITS): EditedPage {
  const document = withoutScripts(html);
  const before = serialize(document);
  const random = chance(seed);
  const pick = <V>(from: readonly V[]): V => from[Math.floor(random() * from.length)];
  const root = rootOf(document);
  const body = kids(root).find(({ tagName }) => tagName === 'body')!;
  const oldPath = new Map<T.Element, string>();
  walk(root, (node, path) => void oldPath.set(node, path));
  const all = (): T.Element[] => {
    const found: T.Element[] = [];
    walk(body, (node) => void (node !== body && found.push(node)));
    return found;
  };
  const isIn = (node: T.Element, holder: T.Element): boolean => {
    for (let at: T.Node | null = node; at; at = 'parentNode' in at ? at.parentNode : null)
      if (at === holder) return true;
    return false;
  };
  const sizeOf = (node: T.Element): number => {
    let size = 0;
    walk(node, () => void size++);
    return size;
  };
  const total = all().length;
  const free = (): T.Element[] => all().filter(({ tagName }) => !FIXED.has(tagName));
  const insert = (node: Node, into: T.Element, at: number): void => {
    node.parentNode = into;
    into.childNodes.splice(at, 0, node);
  };
  const detach = (node: T.Element): void => tree.detachNode(node);
  const few = Math.max(2, total * 0.04);
  /** Does something to elements until a share of all have had it. */
  const until = (share: number, act: () => number): void => {
    let done = 0;
    for (let tries = 0; done < share * total && tries < 2000; tries++) done += act();
  };

  until(shares.removed, () => {
    const node = pick(all());
    const size = sizeOf(node);
    if (size > few) return 0;
    detach(node);
    return size;
  });
  until(shares.moved, () => {
    const node = pick(free());
    const size = sizeOf(node);
    const into = pick(free().filter((other) => kids(other).length > 0 && !isIn(other, node)));
    if (!into || size > few || node.parentNode === into) return 0;
    detach(node);
    insert(node, into, Math.floor(random() * (into.childNodes.length + 1)));
    return size;
  });
  until(shares.reordered, () => {
    const holder = pick(all());
    const inner = kids(holder);
    if (inner.length < 2) return 0;
    const node = pick(inner);
    const other = pick(inner.filter((one) => one !== node));
    const [a, b] = [holder.childNodes.indexOf(node), holder.childNodes.indexOf(other)];
    [holder.childNodes[a], holder.childNodes[b]] = [other, node];
    return 2;
  });
  const classes = all().flatMap((node) => attribute(node, 'class')?.value.split(/\s+/).filter(Boolean) ?? []);
  until(shares.classes, () => {
    const classed = attribute(pick(all()), 'class');
    if (!classed?.value.trim()) return 0;
    const own = classed.value.trim().split(/\s+/);
    own[Math.floor(random() * own.length)] = pick(classes);
    classed.value = own.join(' ');
    return 1;
  });
  const texts = all().flatMap((node) =>
    node.childNodes.filter(
      (child): child is T.TextNode => tree.isTextNode(child) && child.value.trim() !== '',
    ),
  );
  for (const text of texts)
    text.value = text.value.replace(/[\p{L}\p{N}]+/gu, (word) =>
      random() < shares.words
        ? /^\d+$/.test(word)
          ? String(Math.floor(random() * 1000))
          : pick(WORDS)
        : word,
    );
  until(shares.wrapped, () => {
    const node = pick(free());
    const into = node.parentNode as T.Element;
    const at = into.childNodes.indexOf(node);
    const wrapper = tree.createElement('div', node.namespaceURI, [
      { name: 'class', value: pick(classes) ?? 'x' },
    ]);
    tree.detachNode(node);
    insert(node, wrapper, 0);
    insert(wrapper, into, at);
    return 1;
  });
  until(shares.added, () => {
    const model = pick(free().filter((node) => oldPath.has(node)));
    const size = sizeOf(model);
    if (size > few) return 0;
    const copy = copyOf(model);
    // Half of what is added stands beside what it was copied from.
    const into =
      random() < 0.5 ? (model.parentNode as T.Element) : pick(free().filter((one) => kids(one).length > 0));
    if (!into || VOID.has(into.tagName)) return 0;
    const retext = (node: T.Element): void => {
      for (const child of node.childNodes)
        if (tree.isTextNode(child) && child.value.trim())
          child.value = child.value.replace(/[\p{L}\p{N}]+/gu, () => pick(WORDS));
        else if (isElement(child)) retext(child);
    };
    retext(copy);
    const beside = into === model.parentNode ? into.childNodes.indexOf(model) + (random() < 0.5 ? 0 : 1) : -1;
    insert(copy, into, beside >= 0 ? beside : Math.floor(random() * (into.childNodes.length + 1)));
    return size;
  });

  const marks = new Map<string, string>();
  walk(root, (node) => {
    const path = oldPath.get(node);
    if (path === undefined) return;
    const mark = String(marks.size);
    marks.set(mark, path);
    node.attrs.push({ name: MARK, value: mark });
  });
  // As a browser would read it, which may put things in other places than they were written at.
  const read = parse(serialize(document));
  const truth = new Map<string, string>();
  walk(rootOf(read), (node, path) => {
    const mark = attribute(node, MARK);
    if (!mark) return;
    const from = marks.get(mark.value)!;
    if (!truth.has(from)) truth.set(from, path);
    node.attrs = node.attrs.filter((attr) => attr !== mark);
  });
  return { before, after: serialize(read), truth };
}

function copyOf(node: T.Element): T.Element {
  const copy = tree.createElement(
    node.tagName,
    node.namespaceURI,
    node.attrs.filter(({ name }) => name !== 'id').map((attr) => ({ ...attr })),
  );
  for (const child of node.childNodes) {
    const made = isElement(child)
      ? copyOf(child)
      : tree.isTextNode(child)
        ? tree.createTextNode(child.value)
        : null;
    if (made) tree.appendChild(copy, made);
  }
  return copy;
}
