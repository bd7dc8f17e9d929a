import { contains, type Placed } from '../../layout/placed.ts';
import type { Box } from '../../model/design.ts';
import { isPlainAddress } from '../../vocabulary/addresses.ts';
import type { PaintedLink } from './painted_page.ts';

/** How far, in px, what leads somewhere may reach beyond the place that its file says. */
const SLACK = 3;

/**
 * Things with the addresses that their file says for their places: on the box that fills a place, else on what is in it.
 * @param wrap makes a box around a picture that leads somewhere
 */
export function linked(
  items: readonly Placed[],
  links: readonly PaintedLink[],
  wrap: (item: Placed) => Placed,
): Placed[] {
  const hrefs = new Map<Placed, string>();
  for (const { box, href } of links) {
    const address = addressOf(href);
    if (!address) continue;
    const inside = items.filter((item) => !item.hidden && contains(box, item.box, SLACK));
    const whole = inside.find(
      (item) =>
        item.kind === 'box' &&
        isMostOf(item.box, box) &&
        inside.every((other) => contains(item.box, other.box, SLACK)),
    );
    const texts = inside.filter((item) => item.kind === 'text');
    for (const item of whole ? [whole] : texts.length ? texts : inside.slice(0, 1))
      if (!hrefs.has(item)) hrefs.set(item, address);
  }
  return items.map((item) => {
    const href = hrefs.get(item);
    if (!href) return item;
    const outer = item.kind === 'image' || item.kind === 'vector' ? wrap(item) : item;
    return { ...outer, tag: 'a', attributes: { ...outer.attributes, href } };
  });
}

const isMostOf = (inner: Box, outer: Box): boolean =>
  inner.width * inner.height > 0.6 * outer.width * outer.height;

/** Where a printed page came from is no part of the app: of a file on a disk its name is left. */
function addressOf(href: string): string | null {
  const file = /^file:\/\/.*?([^/]*)$/.exec(href)?.[1];
  if (file !== undefined) return file && !file.startsWith('#') ? decoded(file) : null;
  return isPlainAddress(href) ? href : null;
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
