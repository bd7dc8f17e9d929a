import type { Element, VectorNode } from '../model/design.ts';

/** What matching looks at in one element of a screen; computed once per screen. */
export interface Traits {
  readonly element: Element;
  /** Place in reading order within the screen. */
  readonly order: number;
  readonly parent: Traits | null;
  /** Place among its siblings. */
  readonly index: number;
  readonly children: readonly Traits[];
  /** Elements in its subtree, itself included. */
  readonly size: number;
  /** The end of its subtree in reading order: `order <= other.order < end` says that another stands in it. */
  readonly end: number;
  readonly tag: string;
  readonly id: string;
  /** Its own text in small letters, without more space than needed. */
  readonly text: string;
  readonly words: readonly string[];
  /** What it is called where it shows no text: label, alternative text, placeholder. */
  readonly label: string;
  /** The name of its layer, where somebody gave it one. */
  readonly name: string;
  readonly address: string;
  readonly classes: ReadonlySet<string>;
  /** What it shows without text: hash of its picture or of its drawing, 0 for none. */
  readonly picture: number;
  /** Hashed declarations of its base style. */
  readonly look: ReadonlySet<number>;
  /** Hash of what its subtree is and shows, with classes and look. */
  readonly exact: number;
  /** Hash of what its subtree says and shows, without classes and look. */
  readonly content: number;
  /** How many elements of its screen have the same content. */
  readonly often: number;
  /** Hash of how its subtree is built. */
  readonly build: number;
  /** Whether anything in the subtree is told apart by text, picture, label or id. */
  readonly hasContent: boolean;
  /** Whether anything in its subtree has classes, as in pages. */
  readonly hasClasses: boolean;
  /** Sketch of what its subtree says and shows; see `sketchOf`. */
  readonly says: Sketch;
  /** Sketch of the tags and classes of its subtree. */
  readonly built: Sketch;
}

/**
 * The smallest hashes of a multiset, in order: two sketches tell how alike the sets are without comparing them whole
 * (bottom-k sketches, Cohen and Kaplan 2007). `total` is the size of the multiset.
 */
export interface Sketch {
  readonly least: Int32Array;
  readonly total: number;
}

/** Hashes that a sketch keeps. */
const KEPT = 48;

/** FNV-1a over UTF-16 units, mixed so that short words spread. */
export function hashText(text: string, seed = 0): number {
  let hash = 0x811c9dc5 ^ seed;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
  return (hash ^ (hash >>> 13)) | 0;
}

const mix = (hash: number, value: number): number => {
  const mixed = Math.imul(hash ^ value, 0x9e3779b1);
  return (mixed ^ (mixed >>> 16)) | 0;
};

/** How alike two multisets are by their sketches: estimated size of what they share over that of both, 0 to 1. */
export function likeSketches(a: Sketch, b: Sketch): number {
  if (!a.total && !b.total) return 1;
  if (!a.total || !b.total) return 0;
  let [i, j, both, seen] = [0, 0, 0, 0];
  // As far as both sketches are known, and no further.
  const most = a.total <= KEPT && b.total <= KEPT ? Infinity : KEPT;
  while ((i < a.least.length || j < b.least.length) && seen < most) {
    const x = i < a.least.length ? a.least[i] : Infinity;
    const y = j < b.least.length ? b.least[j] : Infinity;
    if (x === y) {
      both++;
      i++;
      j++;
    } else if (x < y) i++;
    else j++;
    seen++;
  }
  return both / seen;
}

const NOTHING: Sketch = { least: new Int32Array(), total: 0 };

/** A sketch of own hashes and those of the parts. Hashes that come again are told apart by how often they came. */
function sketchOf(own: readonly number[], parts: readonly Sketch[]): Sketch {
  const full = parts.filter((part) => part.total > 0);
  if (!own.length && full.length < 2) return full[0] ?? NOTHING;
  let total = own.length;
  const all: number[] = [...own];
  for (const part of full) {
    total += part.total;
    for (const hash of part.least) all.push(hash);
  }
  const sorted = Int32Array.from(all).sort();
  const least: number[] = [];
  let last = NaN;
  let again = 0;
  let isAgain = false;
  for (const hash of sorted) {
    again = hash === last ? again + 1 : 0;
    last = hash;
    isAgain ||= again > 0;
    least.push(again ? mix(hash, again * 7919) : hash);
  }
  const made = isAgain ? Int32Array.from(least).sort() : Int32Array.from(least);
  return { least: made.length > KEPT ? made.slice(0, KEPT) : made, total };
}

const squeeze = (text: string | undefined): string => (text ?? '').replace(/\s+/g, ' ').trim().toLowerCase();
export const wordsOf = (text: string): string[] => text.match(/[\p{L}\p{N}]+/gu) ?? [];

/** Names that intake gives where the file has none. */
const GIVEN = new Set(['box', 'group', 'vector', 'image', 'text', 'picture', 'drawing', 'space', 'control']);

function drawingHash(node: VectorNode): number {
  let hash = hashText(node.tag);
  // A document that was saved and opened has them in another order.
  for (const name of Object.keys(node.attributes).sort())
    if (name !== 'id' && name !== 'class') hash = mix(hash, hashText(node.attributes[name], hashText(name)));
  if (node.text) hash = mix(hash, hashText(node.text));
  for (const child of node.children) hash = mix(hash, drawingHash(child));
  return hash;
}

const known = new WeakMap<Element, readonly Traits[]>();

/** The traits of all elements of a tree, in reading order; the first is the root's. */
export function traitsOf(root: Element): readonly Traits[] {
  let list = known.get(root);
  if (!list) known.set(root, (list = collect(root)));
  return list;
}

/** What a font of icons draws in an element, by the character's number. */
function glyphOf({ style }: Element): string | undefined {
  const drawn = style.before?.content;
  if (!drawn) return undefined;
  const glyph = drawn.replace(/^["']|["']$/g, '').replace(/^\\/, '');
  if (!glyph) return undefined;
  return `glyph ${[...glyph].length === 1 ? glyph.codePointAt(0)!.toString(16) : glyph.toLowerCase()}`;
}

/** How many elements of a tree have each class. */
function classCounts(root: Element): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  const visit = ({ classes, children }: Element): void => {
    for (const word of classes?.split(/\s+/) ?? []) counts.set(word, (counts.get(word) ?? 0) + 1);
    children.forEach(visit);
  };
  visit(root);
  return counts;
}

/** Classes that at most so many elements of a screen have say which one it is, where it shows nothing that does. */
const RARE = 2;

function rareClassOf(
  { text, asset, vector, children, classes }: Element,
  often: ReadonlyMap<string, number>,
): string | undefined {
  if (text || asset || vector || children.length || !classes) return undefined;
  const rare = classes.split(/\s+/).filter((word) => (often.get(word) ?? 0) <= RARE);
  return rare.length ? `class ${rare.sort().join(' ')}` : undefined;
}

type Draft = { -readonly [K in keyof Traits]: Traits[K] };

/** An id without the number at its end. */
const stemOf = (id: string): string => id.replace(/[-_. ]?\d+$/, '');

/** Ids that number elements of one name in their order: they say where an element stands, not which it is. */
function numberedIds(root: Element): ReadonlySet<string> {
  const byStem = new Map<string, string[]>();
  const visit = (element: Element): void => {
    const { id } = element.source;
    if (id && stemOf(id) !== id) byStem.set(stemOf(id), [...(byStem.get(stemOf(id)) ?? []), id]);
    element.children.forEach(visit);
  };
  visit(root);
  return new Set([...byStem.values()].filter((ids) => ids.length > 1).flat());
}

function collect(root: Element): Traits[] {
  const list: Draft[] = [];
  const numbered = numberedIds(root);
  const often = classCounts(root);
  const visit = (element: Element, parent: Draft | null, index: number): Draft => {
    const { attributes = {} } = element;
    const tag = element.tag ?? '#text';
    const text = squeeze(element.text);
    const label = squeeze(
      attributes['aria-label'] ??
        attributes.alt ??
        attributes.placeholder ??
        attributes.title ??
        attributes.name ??
        glyphOf(element) ??
        rareClassOf(element, often),
    );
    const isNamed =
      element.kind !== 'text' && !GIVEN.has(element.name) && element.name !== element.tag && !element.classes;
    const name = isNamed && element.source.id !== element.name ? squeeze(element.name).slice(0, 80) : '';
    const draft: Draft = {
      element,
      order: list.length,
      parent,
      index,
      children: [],
      size: 1,
      end: 0,
      tag,
      id: numbered.has(element.source.id ?? '') ? '' : (element.source.id ?? ''),
      text,
      words: wordsOf(text),
      label,
      name,
      address: attributes.href ?? '',
      classes: new Set(element.classes?.split(/\s+/).filter(Boolean)),
      picture: element.asset ? hashText(element.asset) : element.vector ? drawingHash(element.vector) : 0,
      look: new Set(
        Object.entries(element.style.base).map(([property, value]) => hashText(value, hashText(property))),
      ),
      exact: 0,
      content: 0,
      often: 1,
      build: 0,
      hasContent: false,
      hasClasses: false,
      says: NOTHING,
      built: NOTHING,
    };
    list.push(draft);
    draft.children = element.children.map((child, i) => visit(child, draft, i));
    draft.end = list.length;
    draft.size = draft.end - draft.order;
    finish(draft);
    return draft;
  };
  visit(root, null, 0);
  const counts = new Map<number, number>();
  for (const { content } of list) counts.set(content, (counts.get(content) ?? 0) + 1);
  for (const draft of list) draft.often = counts.get(draft.content)!;
  return list;
}

function finish(draft: Draft): void {
  const { tag, text, label, id, picture, children } = draft;
  draft.hasContent = Boolean(text || label || picture) || children.some((child) => child.hasContent);
  draft.hasClasses = draft.classes.size > 0 || children.some((child) => child.hasClasses);
  let build = hashText(tag);
  let content = mix(mix(mix(hashText(tag), hashText(text)), hashText(label)), picture);
  let exact = mix(content, hashText(id));
  let classes = 0;
  for (const word of draft.classes) classes = (classes + hashText(word)) | 0;
  let look = 0;
  for (const hash of draft.look) look = (look + hash) | 0;
  exact = mix(mix(exact, classes), look);
  for (const child of children) {
    build = mix(build, child.build);
    content = mix(content, child.content);
    exact = mix(exact, child.exact);
  }
  Object.assign(draft, { build, content, exact });
  const said = draft.words.map((word) => hashText(word));
  if (label) for (const word of wordsOf(label)) said.push(hashText(word, 3));
  if (picture) said.push(mix(picture, 5));
  if (id) said.push(hashText(id, 7));
  draft.says = sketchOf(
    said,
    children.map((child) => child.says),
  );
  const own = [hashText(tag, 11)];
  for (const word of draft.classes) own.push(hashText(word, 13));
  draft.built = sketchOf(
    own,
    children.map((child) => child.built),
  );
}
