import { pascalCase, uniqueCodeName } from '../../model/names.ts';
import { isElement, type MarkupElement } from './markup.ts';

/** A component is not longer than so many lines; what is, is parted. */
const MOST_LINES = 150;
/** Lines that a part takes up at least, to be worth a file. */
const LEAST_LINES = 12;
/** Lines of a file around its markup: imports, the function and its end. */
const AROUND = 24;

/** A piece of a long screen that has a file of its own beside it. */
export interface ScreenPart {
  readonly name: string;
  readonly root: MarkupElement;
}

/**
 * Parts a long screen into pieces that a person can read, each with its own file in the screen's folder; the longest that
 * fit go first. What is short stays whole.
 * @param linesOf how many lines an element is written as
 */
export function partScreen(
  root: MarkupElement,
  isTaken: (name: string) => boolean,
  linesOf: (node: MarkupElement) => number,
): { readonly root: MarkupElement; readonly parts: readonly ScreenPart[] } {
  const parts: ScreenPart[] = [];
  const names = new Set<string>();
  const most = MOST_LINES - AROUND;
  const out = (node: MarkupElement): MarkupElement => {
    const wanted = pascalCase((node.className ?? 'section').replace(/\d+$/, ''));
    const name = uniqueCodeName(wanted, 'Part', (one) => names.has(one) || isTaken(one));
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
  const shorten = (node: MarkupElement): MarkupElement => {
    if (linesOf(node) <= most) return node;
    let children = node.children.map((child) => (isElement(child) ? shorten(child) : child));
    let total = linesOf({ ...node, children });
    const large = children
      .flatMap((child, i) =>
        isElement(child) && !child.use && !child.when ? [{ i, lines: linesOf(child) }] : [],
      )
      .sort((a, b) => b.lines - a.lines);
    const gone = new Map<number, MarkupElement>();
    for (const { i, lines } of large) {
      if (total <= most || lines < LEAST_LINES) break;
      gone.set(i, children[i] as MarkupElement);
      total -= lines - 1;
    }
    // Names in reading order.
    children = children.map((child, i) => (gone.has(i) ? out(gone.get(i)!) : child));
    return { ...node, children };
  };
  return { root: shorten(root), parts };
}
