import type { Box } from '@tovel/core';
import { nodeInPicture, placeOfNode } from '../picture/in_picture';

/** Width and height of a pin in px. */
export const PIN = 20;

/** Where pins of elements can be on a picture, by the keys of those: of what is seen of them. */
export function seenPlaces(
  page: Document | null,
  keys: readonly string[],
  ratio: number,
): ReadonlyMap<string, Box> {
  const places = new Map<string, Box>();
  for (const key of keys) {
    const node = nodeInPicture(page, key);
    const place = node && placeOfNode(node, ratio);
    if (place && !isClippedAway(node)) places.set(key, place);
  }
  return places;
}

/** Whether what an element stands in, and scrolls or cuts off, leaves nothing of it to be seen. */
function isClippedAway(node: Element): boolean {
  const { body, defaultView } = node.ownerDocument;
  let { left, right, top, bottom } = node.getBoundingClientRect();
  let { position } = defaultView!.getComputedStyle(node);
  // What is fixed is cut off by nothing that it stands in.
  for (let at = node.parentElement; at && at !== body && position !== 'fixed'; at = at.parentElement) {
    const style = defaultView!.getComputedStyle(at);
    const bounds = at.getBoundingClientRect();
    if (style.overflowX !== 'visible')
      [left, right] = [Math.max(left, bounds.left), Math.min(right, bounds.right)];
    if (style.overflowY !== 'visible')
      [top, bottom] = [Math.max(top, bounds.top), Math.min(bottom, bounds.bottom)];
    if (right <= left || bottom <= top) return true;
    ({ position } = style);
  }
  return false;
}

/**
 * Where pins are, by the keys of their elements: on the right edge of each; one that would cover another moves out of its way.
 * What lies outside the picture has none.
 * @param places of elements on the picture, in px of it, by their keys
 */
export function pinsOf(
  places: ReadonlyMap<string, Box>,
  { width, height }: { readonly width: number; readonly height: number },
): ReadonlyMap<string, { readonly x: number; readonly y: number }> {
  const taken: { x: number; y: number }[] = [];
  const pins = new Map<string, { x: number; y: number }>();
  for (const [key, place] of places) {
    const isOutside =
      place.x >= width || place.x + place.width <= 0 || place.y >= height || place.y + place.height <= 0;
    if (isOutside) continue;
    const isSmall = place.height < PIN * 1.6;
    const pin = {
      x: Math.min(place.x + place.width - PIN / 2, width - PIN / 2),
      y: isSmall ? place.y - PIN / 2 + 2 : place.y + place.height / 2 - PIN / 2,
    };
    if (place.width < 3 * PIN && place.height >= 1.6 * PIN) pin.y = place.y - PIN / 4;
    for (
      let i = 0;
      i < 12 && taken.some((other) => Math.abs(other.x - pin.x) < PIN && Math.abs(other.y - pin.y) < PIN);
      i++
    )
      pin.y += PIN / 2;
    pin.y = Math.max(-PIN / 2, pin.y);
    taken.push(pin);
    pins.set(key, pin);
  }
  return pins;
}
