import { computedValue } from './computed.ts';

/** What tables of a page without a doctype do not take over from around them. */
const NOT_TAKEN_OVER = [
  'font-size',
  'font-weight',
  'font-style',
  'font-variant-caps',
  'line-height',
  'white-space-collapse',
  'text-wrap-mode',
  'text-align',
];
/** At whose beginning margins that browsers give by themselves are nothing, and in cells at their end, too. */
const CONTAINERS = 'body, td, th';
const PX = /^[\d.]+px$/;
/** Px within which edges are the same. */
const SAME = 1;

/** The margins above and below that browsers give by themselves, as parts of the size of letters. */
const MARGINS: Readonly<Record<string, number>> = {
  ...Object.fromEntries(
    ['blockquote', 'dir', 'dl', 'listing', 'menu', 'ol', 'p', 'plaintext', 'pre', 'ul', 'xmp'].map((tag) => [
      tag,
      1,
    ]),
  ),
  h1: 0.67,
  h2: 0.83,
  h3: 1,
  h4: 1.33,
  h5: 1.67,
  h6: 2.33,
};
/** Px within which a margin is what browsers give. */
const NEAR = 0.1;

/** What browsers do to an element of a page without a doctype, as longhands; in the app that has to be said. */
export type Quirks = ReadonlyMap<Element, Readonly<Record<string, string>>>;

/**
 * What of a page looks otherwise since it has no doctype, after the quirks that the HTML standard describes (“Rendering”): margins
 * at the beginning of the page and at both ends of cells, what tables take over, heights of cells, the room beneath forms.
 */
export function quirksOf(document: Document): Quirks {
  const found = new Map<Element, Record<string, string>>();
  if (document.compatMode !== 'BackCompat') return found;
  const say = (element: Element, name: string, value: string): void => {
    found.set(element, { ...found.get(element), [name]: value });
  };
  for (const container of document.querySelectorAll(CONTAINERS))
    for (const side of container.localName === 'body' ? (['top'] as const) : (['top', 'bottom'] as const)) {
      const edge = contentEdge(container, side);
      const next = (element: Element): Element | null =>
        side === 'top' ? element.firstElementChild : element.lastElementChild;
      for (let element = next(container); element; element = next(element)) {
        if (Math.abs(element.getBoundingClientRect()[side] - edge) > SAME) break;
        if (hasUsualMargin(element, side)) say(element, `margin-${side}`, '0px');
      }
    }
  for (const table of document.querySelectorAll('table')) {
    const around = table.parentElement?.computedStyleMap();
    const own = table.computedStyleMap();
    for (const name of NOT_TAKEN_OVER) {
      const value = computedValue(own, name);
      if (value !== null && around && value !== computedValue(around, name)) say(table, name, value);
    }
  }
  for (const cell of document.querySelectorAll('td, th'))
    if (PX.test(computedValue(cell.computedStyleMap(), 'height') ?? ''))
      say(cell, 'box-sizing', 'border-box');
  for (const form of document.querySelectorAll('form')) {
    const beneath = computedValue(form.computedStyleMap(), 'margin-bottom');
    if (beneath !== null && beneath !== '0px') say(form, 'margin-bottom', beneath);
  }
  return found;
}

/** Where the content of an element begins or ends, in px of the window. */
function contentEdge(element: Element, side: 'top' | 'bottom'): number {
  const style = element.ownerDocument.defaultView!.getComputedStyle(element);
  const within =
    parseFloat(style.getPropertyValue(`padding-${side}`)) +
    parseFloat(style.getPropertyValue(`border-${side}-width`));
  const edge = element.getBoundingClientRect()[side];
  return side === 'top' ? edge + within : edge - within;
}

/** Whether an element has the margin that browsers give it, which a page may say as well without a difference. */
function hasUsualMargin(element: Element, side: 'top' | 'bottom'): boolean {
  const part = MARGINS[element.localName];
  if (part === undefined) return false;
  const style = element.ownerDocument.defaultView!.getComputedStyle(element);
  const margin = parseFloat(style.getPropertyValue(`margin-${side}`));
  return margin > 0 && Math.abs(margin - part * parseFloat(style.fontSize)) < NEAR;
}
