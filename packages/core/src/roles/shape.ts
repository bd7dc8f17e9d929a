import { hash } from '../json/hash.ts';
import type { Element } from '../model/design.ts';
import type { Sight } from './sight.ts';

/** Words for how a subtree is built, without what it says: equal for the rows of a list. */
const shapes = new WeakMap<Element, string>();

/** How an element is built, down to `SHAPE_DEPTH`; texts, pictures and colours do not count. */
export function shapeOf(element: Element): string {
  let shape = shapes.get(element);
  if (shape === undefined) shapes.set(element, (shape = build(element)));
  return shape;
}

function build(element: Element): string {
  const { children } = element;
  const inner = children.filter((child) => !child.hidden && (child.tag !== undefined || child.text?.trim()));
  const kind = element.kind === 'box' ? 'b' : element.kind[0];
  if (!inner.length) return kind;
  const parts: string[] = [];
  for (const child of inner) {
    const shape = shapeOf(child);
    if (shape !== parts.at(-1)) parts.push(shape);
  }
  const text = `${kind}(${parts.join('')})`;
  // Deep trees are told apart by a hash of fixed length, so that the sum of lengths stays linear.
  return text.length > 120 ? `${kind}#${hash(text)}` : text;
}

/** The shapes beneath an element, one level down, with how often each stands there. */
function parts(element: Element): Map<string, number> {
  const counts = new Map<string, number>();
  const visit = (inner: Element, depth: number): void => {
    for (const child of inner.children) {
      if (child.hidden || (child.tag === undefined && !child.text?.trim())) continue;
      const kind = child.kind[0] + depth;
      counts.set(kind, (counts.get(kind) ?? 0) + 1);
      if (depth < 3) visit(child, depth + 1);
    }
  };
  visit(element, 0);
  return counts;
}

/** How alike two elements are built, 0 to 1 (weighted Jaccard index of what stands in them). */
export function shapeLikeness(a: Element, b: Element): number {
  if (a.kind !== b.kind) return 0;
  if (shapeOf(a) === shapeOf(b)) return 1;
  const [left, right] = [parts(a), parts(b)];
  let [shared, all] = [0, 0];
  for (const kind of new Set([...left.keys(), ...right.keys()])) {
    shared += Math.min(left.get(kind) ?? 0, right.get(kind) ?? 0);
    all += Math.max(left.get(kind) ?? 0, right.get(kind) ?? 0);
  }
  return all ? shared / all : 0;
}

/** A run of siblings that are built alike and stand in one line, as rows or as cells. */
export interface Run {
  readonly parent: Sight;
  readonly items: readonly Sight[];
  readonly axis: 'x' | 'y' | 'grid';
}

/** Siblings are built alike from here. */
const ALIKE = 0.6;

/** The longest runs of siblings that are built alike, of at least `least` items. */
export function runsIn(parent: Sight, least = 2): Run[] {
  const runs: Run[] = [];
  let current: Sight[] = [];
  let between = 0;
  const close = (): void => {
    if (current.length >= least) runs.push({ parent, items: current, axis: axisOf(current) });
    current = [];
    between = 0;
  };
  for (const child of parent.children) {
    const first = current[0];
    if (!first) current = [child];
    else if (isAlike(first, child)) {
      current.push(child);
      between = 0;
    } else if (isRule(child) && between === 0) between++;
    else {
      close();
      current = [child];
    }
  }
  close();
  return runs;
}

/** A line between rows belongs to the run. */
const isRule = ({ element: { box, children } }: Sight): boolean =>
  !children.length && (box.height <= 2 || box.width <= 2);

function isAlike(a: Sight, b: Sight): boolean {
  const [boxA, boxB] = [a.element.box, b.element.box];
  // Layers that somebody gave one name are meant to be of one kind.
  if (!a.isAuthored && a.element.kind === 'box' && a.words !== '' && a.element.name === b.element.name)
    return a.element.children.length > 0 && b.element.children.length > 0;
  const sameWidth = Math.abs(boxA.width - boxB.width) <= Math.max(4, boxA.width * 0.05);
  const sameHeight = Math.abs(boxA.height - boxB.height) <= Math.max(6, boxA.height * 0.35);
  if (!sameWidth && !sameHeight) return false;
  // Layers whose names have nothing in common were not meant as rows of one list.
  const [namesA, namesB] = [meaningful(a.words), meaningful(b.words)];
  if (!a.isAuthored && namesA.length && namesB.length && !namesA.some((word) => namesB.includes(word)))
    return false;
  // Two texts that look the same are not yet two rows.
  if (a.element.kind === 'text' || a.element.kind === 'vector' || a.element.kind === 'image')
    return (
      a.element.kind === b.element.kind &&
      a.fontSize === b.fontSize &&
      a.fontWeight === b.fontWeight &&
      (sameHeight || sameWidth)
    );
  return shapeLikeness(a.element, b.element) >= ALIKE;
}

/** Words of a name that say something: `r100` is only a number. */
const meaningful = (words: string): string[] => words.split(' ').filter((word) => /[a-z]{3}/.test(word));

function axisOf(items: readonly Sight[]): Run['axis'] {
  const boxes = items.map((item) => item.element.box);
  const inColumn = boxes.every((box, i) => i === 0 || box.y >= boxes[i - 1].y + boxes[i - 1].height - 2);
  if (inColumn) return 'y';
  return boxes.every((box, i) => i === 0 || box.x >= boxes[i - 1].x + boxes[i - 1].width - 2) ? 'x' : 'grid';
}
