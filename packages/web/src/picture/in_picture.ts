import type { Box } from '@tovel/core';

/** Where an element stands in a picture that is drawn at `ratio` of its size; null when it is not seen in it. */
export function placeInPicture(page: Document | null, key: string | null, ratio: number): Box | null {
  const node = nodeInPicture(page, key);
  return node && placeOfNode(node, ratio);
}

/** The node that shows an element in a picture. */
export const nodeInPicture = (page: Document | null, key: string | null): Element | null =>
  (key && page?.querySelector(`[data-key="${CSS.escape(key)}"]`)) || null;

/** Where a node of a picture stands on it, in px of the picture; null where it takes no place. */
export function placeOfNode(node: Element, ratio: number): Box | null {
  const { x, y, width, height } = node.getBoundingClientRect();
  // What is not there at this width, or stands in a part that is closed, is nowhere.
  if (!width && !height) return null;
  return { x: x * ratio, y: y * ratio, width: width * ratio, height: height * ratio };
}

/**
 * Where an element stands in what a picture shows of its page, in px of the page: what lies below its end, as a part that was
 * opened may, is brought up into it.
 */
export function broughtIntoPicture(page: Document, key: string): Box | null {
  const node = nodeInPicture(page, key);
  const place = node && placeOfNode(node, 1);
  const scroller = page.scrollingElement;
  if (!place || !scroller || place.y + place.height <= scroller.clientHeight) return place;
  scroller.scrollTop += place.y;
  return placeOfNode(node, 1);
}

/** A point of the window in px of the screen that a picture shows. */
export function pointInPicture(
  event: { readonly clientX: number; readonly clientY: number },
  holder: HTMLElement,
  ratio: number,
): [x: number, y: number] {
  const bounds = holder.getBoundingClientRect();
  // The holder's border is not part of the picture.
  return [(event.clientX - bounds.left - 1) / ratio, (event.clientY - bounds.top - 1) / ratio];
}

/** The key of the innermost element at a point of the screen. */
export const keyAtPoint = (page: Document | null, [x, y]: readonly [number, number]): string | null =>
  page?.elementFromPoint(x, y)?.closest('[data-key]')?.getAttribute('data-key') ?? null;
