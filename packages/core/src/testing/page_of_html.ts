import { type DefaultTreeAdapterMap, parseFragment } from 'parse5';
import { assembleScreen } from '../intake/html/assemble.ts';
import type { ReadElement } from '../intake/html/reading.ts';
import { bodyReading } from './body_reading.ts';
import type { Box, Screen } from '../model/design.ts';

type Node = DefaultTreeAdapterMap['childNode'];

/**
 * A page as a browser would say that it is, of its markup: `hidden` is what it hides, `style` the look of an element, and
 * `data-at="991:display:none"` what differs in windows up to a width, `data-box="0 0 1280 60"` where it stands; all others stand
 * beneath each other.
 */
export function pageOfHtml(html: string, key = 'test'): Screen {
  let y = 0;
  const read = (node: Node, path: string): ReadElement | string | null => {
    if ('value' in node)
      return node.value.replace(/\s+/g, ' ').trim() ? node.value.replace(/\s+/g, ' ') : null;
    if (!('tagName' in node)) return null;
    const {
      hidden,
      style = '',
      'data-at': at,
      'data-box': place,
      ...attributes
    } = Object.fromEntries(node.attrs.map(({ name, value }) => [name, value])) as Record<
      string,
      string | undefined
    >;
    const [width, property, value] = at?.split(':') ?? [];
    return {
      path,
      tag: node.tagName,
      attributes: attributes as Record<string, string>,
      box: boxOf(place) ?? { x: 0, y: (y += 10), width: 200, height: 10 },
      base: Object.fromEntries(
        style.split(';').flatMap((part) => (part.includes(':') ? [part.split(':') as [string, string]] : [])),
      ),
      ...(width ? { at: { [width]: { [property]: value } } } : {}),
      ...(hidden === undefined ? {} : { isHidden: true }),
      children: childrenOf(node.childNodes, path),
    };
  };
  const childrenOf = (nodes: readonly Node[], path: string): (ReadElement | string)[] =>
    nodes.flatMap((child, i) => read(child, `${path}/${i}`) ?? []);
  const children = childrenOf(parseFragment(html).childNodes, '1');
  return assembleScreen(
    { file: `${key}.html`, screenKey: key, title: key, asset: () => null },
    bodyReading({ box: { x: 0, y: 0, width: 1280, height: 900 }, children }, { height: 900 }),
  ).screen;
}

function boxOf(place: string | undefined): Box | null {
  if (place === undefined) return null;
  const [x, y, width, height] = place.split(' ').map(Number);
  return { x, y, width, height };
}
