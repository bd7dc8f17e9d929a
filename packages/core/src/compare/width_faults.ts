import type { Box } from '../model/design.ts';
import { hash } from '../json/hash.ts';
import { contrastBetween, leastContrast } from './contrast.ts';
import { lookOf, renderedName, type RenderedElement, type Rendering } from './rendering.ts';

export const FAULT_KINDS = ['overflow', 'overlap', 'cut', 'target', 'text', 'contrast'] as const;
export type FaultKind = (typeof FAULT_KINDS)[number];

/** Something that is wrong with a page at a width, whatever it was drawn as. */
export interface WidthFault {
  /** The same at all widths at which it is the same element. */
  readonly id: string;
  readonly kind: FaultKind;
  readonly name: string;
  readonly box: Box;
  /** What is wrong, with its measure: `sticks out by 120 px`. */
  readonly says: string;
}

/** Widths at which a sweep looks, in CSS px. */
export const SWEPT_WIDTHS: readonly number[] = Array.from({ length: 17 }, (_, i) => 320 + i * 80);
/** Least side of what is pressed, in px (WCAG 2.2, 2.5.8), and least size of text that can be read. */
const LEAST_TARGET = 24;
const LEAST_TEXT = 11;
/** By how many px boxes of text may reach into each other: letters do not fill their lines. */
const OVERLAP = 3;
/** Texts that are held against each other. */
const MOST_TEXTS = 3000;

/** What is wrong with a page at the width at which it was drawn. */
export function widthFaults(rendering: Rendering): WidthFault[] {
  const faults: WidthFault[] = [];
  const add = (kind: FaultKind, element: RenderedElement, says: string): void => {
    faults.push({
      id: hash(`${kind} ${element.path}`),
      kind,
      name: renderedName(element),
      box: element.box,
      says,
    });
  };
  lookForOverflow(rendering, add);
  const texts: RenderedElement[] = [];
  const visit = (element: RenderedElement, isInText: boolean): void => {
    if (isSeen(element)) {
      if (element.text && texts.length < MOST_TEXTS) texts.push(element);
      lookAtText(element, add);
      if (element.isPressable && !isInText) lookAtTarget(element, add);
    }
    // A link within a sentence is as high as its line.
    const isText = !!element.text && element.children.some((child) => child.isPressable);
    for (const child of element.children) visit(child, isText);
  };
  visit(rendering.root, false);
  lookForOverlaps(texts, add);
  return faults;
}

/** A fault with all widths of a sweep at which it is there, from narrow to wide, told as it is at the narrowest. */
export interface SweptFault extends WidthFault {
  readonly widths: readonly number[];
}

/** What is wrong with a screen over the widths of a sweep: each fault once, what is there at most widths last. */
export function sweptFaults(byWidth: ReadonlyMap<number, readonly WidthFault[]>): SweptFault[] {
  const found = new Map<string, { fault: WidthFault; widths: number[] }>();
  for (const width of [...byWidth.keys()].sort((a, b) => a - b))
    for (const fault of byWidth.get(width)!) {
      const known = found.get(fault.id);
      if (known) known.widths.push(width);
      else found.set(fault.id, { fault, widths: [width] });
    }
  return [...found.values()]
    .map(({ fault, widths }) => ({ ...fault, widths }))
    .sort((a, b) => rank(a) - rank(b) || a.widths.length - b.widths.length);
}

/** What breaks a layout comes before what is the same in all of them. */
const rank = ({ kind }: WidthFault): number => FAULT_KINDS.indexOf(kind);

/** Widths of a sweep as people say them: `320 to 560, 1600`. */
export function widthsInWords(widths: readonly number[], all: readonly number[]): string {
  const runs: number[][] = [];
  for (const width of widths) {
    const run = runs.at(-1);
    if (run && all.indexOf(width) === all.indexOf(run.at(-1)!) + 1) run.push(width);
    else runs.push([width]);
  }
  return runs.map((run) => (run.length > 1 ? `${run[0]} to ${run.at(-1)}` : String(run[0]))).join(', ');
}

type Add = (kind: FaultKind, element: RenderedElement, says: string) => void;

const isSeen = (element: RenderedElement): boolean =>
  element.box.width > 1 && element.box.height > 1 && lookOf(element, 'visibility') === 'visible';

/** Where the page scrolls sideways: the outermost elements that reach furthest, unless something cuts or scrolls them. */
function lookForOverflow({ width, pageWidth, root }: Rendering, add: Add): void {
  if (pageWidth <= width + 1) return;
  let found = 0;
  const visit = (element: RenderedElement): void => {
    if (lookOf(element, 'overflow-x') !== 'visible' && element.tag !== 'html' && element.tag !== 'body') {
      if (element.box.x + element.box.width <= width + 1) return;
    }
    const by = element.box.x + element.box.width - width;
    const inner = element.children.some((child) => child.box.x + child.box.width - width > 1);
    if (by > 1 && !inner && isSeen(element)) {
      found++;
      add('overflow', element, `sticks out by ${Math.round(by)} px`);
    } else for (const child of element.children) visit(child);
  };
  visit(root);
  if (!found) add('overflow', root, `scrolls sideways by ${Math.round(pageWidth - width)} px`);
}

function lookAtText(element: RenderedElement, add: Add): void {
  if (!element.text) return;
  const size = parseFloat(lookOf(element, 'font-size'));
  if (size > 0 && size < LEAST_TEXT) add('text', element, `text of ${Math.round(size * 10) / 10} px`);
  if (element.cut && (element.cut.x > 1 || element.cut.y > size * 0.6))
    add('cut', element, `text is cut off by ${Math.round(Math.max(element.cut.x, element.cut.y))} px`);
  const contrast = contrastOf(element);
  if (contrast === null) return;
  const least = leastContrast(size, Number(lookOf(element, 'font-weight')));
  if (contrast < least - 0.05) add('contrast', element, `contrast ${contrast.toFixed(1)}, needs ${least}`);
}

/** Contrast of text against the colour behind it, 1 to 21; null where that is no one colour. */
export const contrastOf = (element: RenderedElement): number | null =>
  contrastBetween(lookOf(element, 'color'), element.behind);

function lookAtTarget(element: RenderedElement, add: Add): void {
  const { width, height } = element.box;
  if (width >= LEAST_TARGET && height >= LEAST_TARGET) return;
  // Links in a line of text, and fields that their label is pressed for, are as large as what is around them.
  if (
    element.tag === 'a' &&
    lookOf(element, 'display') === 'inline' &&
    element.text &&
    !element.children.length
  )
    return;
  if (element.tag === 'input' && width < LEAST_TARGET && height < LEAST_TARGET && width >= 12) return;
  add('target', element, `only ${Math.round(width)} × ${Math.round(height)} px to press`);
}

/** Texts of different elements that lie over each other. */
function lookForOverlaps(texts: readonly RenderedElement[], add: Add): void {
  const sorted = [...texts].sort((a, b) => a.box.y - b.box.y);
  const told = new Set<RenderedElement>();
  for (let i = 0; i < sorted.length; i++) {
    const a = sorted[i];
    for (let j = i + 1; j < sorted.length; j++) {
      const b = sorted[j];
      if (b.box.y > a.box.y + a.box.height) break;
      if (told.has(a) || holdsPath(a, b) || holdsPath(b, a)) continue;
      const across = Math.min(right(a.box), right(b.box)) - Math.max(a.box.x, b.box.x);
      const along = Math.min(bottom(a.box), bottom(b.box)) - Math.max(a.box.y, b.box.y);
      if (across <= OVERLAP || along <= OVERLAP + lineRoom(a, b)) continue;
      told.add(a);
      add('overlap', a, `overlaps “${renderedName(b)}” by ${Math.round(across)} × ${Math.round(along)} px`);
    }
  }
}

const right = ({ x, width }: Box): number => x + width;
const bottom = ({ y, height }: Box): number => y + height;
const holdsPath = (a: RenderedElement, b: RenderedElement): boolean =>
  a.path === b.path || b.path.startsWith(`${a.path}/`);
/** Room above and below letters within their lines. */
const lineRoom = (a: RenderedElement, b: RenderedElement): number =>
  Math.max(
    ...[a, b].map((one) =>
      one.lines ? Math.max(0, one.box.height / one.lines - parseFloat(lookOf(one, 'font-size'))) : 0,
    ),
  );
