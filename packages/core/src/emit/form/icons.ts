import { stringifySorted } from '../../json/json.ts';
import { keptFlat } from '../../json/kept.ts';
import { FileNames, isCodeName, pascalCase, uniqueCodeName } from '../../model/names.ts';
import { hash } from '../../json/hash.ts';
import type { NamedDrawing } from './before.ts';
import {
  eachGiven,
  isElement,
  isText,
  type MarkupElement,
  type MarkupNode,
  type PropValue,
  textIn,
} from './markup.ts';
import { onceFor } from '../../json/once_for.ts';

/** A drawing that is written once, as a component of its own. */
export interface EmittedIcon {
  readonly name: string;
  /** The drawing with what all its places have in common. */
  readonly node: MarkupElement;
  /** Whether it is small enough to stand in a line of text. */
  readonly isSmall: boolean;
}

export interface Icons {
  readonly all: readonly EmittedIcon[];
  readonly of: (node: MarkupElement) => EmittedIcon | null;
  /** What they are called and how large they are, by a hash of each. */
  readonly names: ReadonlyMap<string, NamedDrawing>;
}

/** Attributes of a drawing itself; what else an `svg` has belongs to the place where it stands. */
const OWN = new Set([
  'viewBox',
  'fill',
  'stroke',
  'preserveAspectRatio',
  'stroke-width',
  'fill-rule',
  'aria-hidden',
]);
export const isOwnOfIcon = (attribute: string): boolean => OWN.has(attribute);

/**
 * Drawings without parts that anything is said of, written once each. Same input, same names.
 * @param before what drawings were called, by their hash; they are called so still
 */
export function iconsOf(
  roots: readonly MarkupElement[],
  taken: (name: string) => boolean,
  before: ReadonlyMap<string, NamedDrawing> = new Map(),
): Icons {
  const bySign = new Map<string, EmittedIcon>();
  const names = new FileNames([...before.values()].map(({ name }) => name));
  const note = ({ sign, node, beside }: Drawn): void => {
    if (bySign.has(sign)) return;
    const own = before.get(hash(sign));
    const { name: drawn = '', isSmall: isDrawnSmall = true } = node.drawing ?? {};
    const isSmall = own?.isSmall ?? isDrawnSmall;
    const wanted = pascalCase(drawn).replace(/(Icon|Drawing)$/, '');
    const kind = isSmall ? 'Icon' : 'Drawing';
    const isTaken = (one: string): boolean => names.has(one) || taken(one);
    // What another has the name of is called by what stands beside it.
    const labelled = `${pascalCase(beside)}${kind}`;
    const name =
      own !== undefined && !taken(own.name)
        ? own.name
        : beside && isTaken(`${wanted}${kind}`) && isCodeName(labelled) && !isTaken(labelled)
          ? labelled
          : uniqueCodeName(`${wanted}${kind}`, kind, isTaken);
    names.add(name);
    const attributes = Object.fromEntries(
      Object.entries(node.attributes).filter(([one]) => isOwnOfIcon(one)),
    );
    const last = icons.get(node);
    const icon = keptFlat(last, {
      name,
      isSmall,
      node: last?.node ?? { tag: 'svg', key: node.key, className: null, attributes, children: node.children },
    });
    icons.set(node, icon);
    bySign.set(sign, icon);
  };
  for (const root of roots) drawingsIn(root).forEach(note);
  return {
    all: [...bySign.values()],
    names: new Map([...bySign].map(([sign, { name, isSmall }]) => [hash(sign), { name, isSmall }])),
    of: (node) => {
      const sign = signOf(node);
      return sign === null ? null : (bySign.get(sign) ?? null);
    },
  };
}

/** What was made of a drawing last. */
const icons = new WeakMap<MarkupElement, EmittedIcon>();

/** A drawing where it stands. */
interface Drawn {
  readonly sign: string;
  readonly node: MarkupElement;
  /** The text that stands with it, where that is as short as a label. */
  readonly beside: string;
}
const drawn = new WeakMap<MarkupElement, readonly Drawn[]>();

/** The drawings in what is written, in reading order. */
export function drawingsIn(root: MarkupElement): readonly Drawn[] {
  const known = drawn.get(root);
  if (known) return known;
  const found: Drawn[] = [];
  const visit = (node: MarkupElement, beside: string): void => {
    const sign = signOf(node);
    if (sign !== null) {
      found.push({ sign, node, beside });
      return;
    }
    const label = labelIn(node) ?? beside;
    const visitGiven = (given: Readonly<Record<string, PropValue>>, label: string): void => {
      for (const value of Object.values(given).flatMap(eachGiven))
        if (typeof value === 'object' && 'node' in value) visit(value.node, label);
    };
    for (const child of node.children)
      if (isElement(child)) visit(child, label);
      else if ('list' in child)
        for (const { id: _id, ...record } of child.list.records)
          visitGiven(record, labelAmong(textsIn(record)) ?? label);
    visitGiven(node.use?.props ?? {}, label);
  };
  visit(root, '');
  drawn.set(root, found);
  return found;
}

/** Letters of a text at most for it to be a label of what stands in it. */
const LONGEST_LABEL = 24;

/** The label of what stands in an element: its text, or one that a component is given; none where that is long; null without. */
function labelIn(node: MarkupElement): string | null {
  return labelAmong([textIn(node), ...textsIn(node.use?.props ?? {})]);
}

const textsIn = (given: Readonly<Record<string, PropValue>>): string[] =>
  Object.values(given).filter((value) => typeof value === 'string');

function labelAmong(texts: readonly string[]): string | null {
  const said = texts.map((text) => text.trim()).filter((text) => /\p{L}{2}/u.test(text));
  if (!said.length) return null;
  return said.find((text) => text.length <= LONGEST_LABEL && !/\d/.test(text)) ?? '';
}

/** What tells one drawing from another; null for what is none, or has parts that stand for something. */
const signOf = onceFor((node: MarkupElement): string | null => {
  const own = Object.entries(node.attributes).filter(([name]) => isOwnOfIcon(name));
  return node.tag === 'svg' && node.children.length > 0 && node.children.every(isPlain)
    ? stringifySorted([Object.fromEntries(own), node.children])
    : null;
});

const isPlain = (node: MarkupNode): boolean =>
  !isElement(node)
    ? isText(node) && !node.given
    : !node.key &&
      !node.className &&
      !node.slots &&
      !node.when &&
      !node.use &&
      // A name that something in it refers to must stand once on a page.
      node.attributes.id === undefined &&
      node.children.every(isPlain);
