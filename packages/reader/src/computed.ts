import { TAGS, writtenTag } from '@tovel/core';
import { plainValue } from '@tovel/renderer/plain_values';

/** What properties an element's children take over, as far as pages use them. */
export const INHERITED: readonly string[] = [
  'color',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'font-stretch',
  'font-variant-caps',
  'font-variant-numeric',
  'line-height',
  'letter-spacing',
  'word-spacing',
  'text-align',
  'text-transform',
  'text-indent',
  'white-space-collapse',
  'text-wrap-mode',
  'word-break',
  'overflow-wrap',
  'visibility',
  'cursor',
  'list-style-type',
  'list-style-position',
  'border-collapse',
  'border-spacing',
  'caption-side',
  'direction',
  'text-shadow',
  'tab-size',
  'hyphens',
  'quotes',
  'pointer-events',
  'text-rendering',
  'image-rendering',
  'text-align-last',
  'text-underline-offset',
  'text-underline-position',
  'text-decoration-skip-ink',
  'line-break',
  'font-kerning',
  'font-feature-settings',
  'font-variation-settings',
  'font-variant-ligatures',
  'accent-color',
  'fill',
  'fill-opacity',
  'fill-rule',
  'clip-rule',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-dasharray',
  'stroke-dashoffset',
  'stroke-miterlimit',
  'paint-order',
  'shape-rendering',
  'text-anchor',
];
const inherited = new Set(INHERITED);
export const isInherited = (property: string): boolean => inherited.has(property);

/** Properties that say nothing a page would miss, or that only exist for one engine. */
const IGNORED =
  /^(-webkit-(?!line-clamp|box-orient|background-clip|text-fill-color|text-stroke-)|-moz-|-ms-|--|transition|animation|will-change|view-transition|app-region|perspective-origin$|scrollbar-width$|speak)/;
/**
 * Logical names stand beside physical ones that the browser fills in as well, on either side, as lines may begin at the right;
 * some parts have names of its engine alone.
 */
const LOGICAL: Readonly<Record<string, readonly string[]>> = {
  'margin-inline-start': ['margin-left', 'margin-right'],
  'margin-inline-end': ['margin-left', 'margin-right'],
  'margin-block-start': ['margin-top'],
  'margin-block-end': ['margin-bottom'],
  'padding-inline-start': ['padding-left', 'padding-right'],
  'padding-inline-end': ['padding-left', 'padding-right'],
  'padding-block-start': ['padding-top'],
  'padding-block-end': ['padding-bottom'],
  'inset-inline-start': ['left', 'right'],
  'inset-inline-end': ['left', 'right'],
  'inset-block-start': ['top'],
  'inset-block-end': ['bottom'],
  '-webkit-border-horizontal-spacing': ['border-spacing'],
  '-webkit-border-vertical-spacing': ['border-spacing'],
  '-webkit-mask-position-x': ['mask-position'],
  '-webkit-mask-position-y': ['mask-position'],
  'inline-size': ['width'],
  'block-size': ['height'],
  'min-inline-size': ['min-width'],
  'min-block-size': ['min-height'],
  'max-inline-size': ['max-width'],
  'max-block-size': ['max-height'],
  'border-start-start-radius': ['border-top-left-radius', 'border-top-right-radius'],
  'border-start-end-radius': ['border-top-left-radius', 'border-top-right-radius'],
  'border-end-start-radius': ['border-bottom-left-radius', 'border-bottom-right-radius'],
  'border-end-end-radius': ['border-bottom-left-radius', 'border-bottom-right-radius'],
};
for (const [logical, sides] of [
  ['inline-start', ['left', 'right']],
  ['inline-end', ['left', 'right']],
  ['block-start', ['top']],
  ['block-end', ['bottom']],
] as const)
  for (const part of ['width', 'style', 'color'])
    Object.assign(LOGICAL, { [`border-${logical}-${part}`]: sides.map((side) => `border-${side}-${part}`) });

/** The names under which a declared property is read; none for those that are left out. */
export function readNames(property: string): readonly string[] {
  if (LOGICAL[property]) return LOGICAL[property];
  return IGNORED.test(property) ? [] : [property];
}

/** A computed value as text, or null where the browser has none under this name. */
export function computedValue(map: StylePropertyMapReadOnly, property: string): string | null {
  try {
    const all = map.getAll(property);
    if (!all.length) return null;
    // What lets a few lines be seen is a box of its own kind, though the browser says that it is one of the usual.
    if (property === 'display' && String(all[0]) === 'flow-root' && clampsLines(map)) return '-webkit-box';
    return plainValue(property, all.map((value) => value.toString()).join(', '));
  } catch {
    return null;
  }
}

const clampsLines = (map: StylePropertyMapReadOnly): boolean =>
  String(map.get('-webkit-line-clamp') ?? 'none') !== 'none' &&
  String(map.get('-webkit-box-orient')) === 'vertical';

const HTML = 'http://www.w3.org/1999/xhtml';

/** The tag that an element of a page is written with: its own, or that of the element that stands for it. */
export function writtenAs(element: Element): string {
  const tag = element.localName;
  if (element.namespaceURI !== HTML || TAGS.has(tag) || tag === 'body' || tag === 'html') return tag;
  const display = computedValue(element.computedStyleMap(), 'display') ?? 'block';
  return writtenTag(tag, /^(inline|contents|ruby)/.test(display));
}

/** What a browser's own style sheet may say of an element that is written as another. */
export const BROWSER_LOOK: readonly string[] = [
  ...INHERITED,
  'display',
  'vertical-align',
  'text-decoration-line',
  'margin-top',
  'margin-right',
  'margin-bottom',
  'margin-left',
  'overflow-x',
  'overflow-y',
];

const SIDES = ['top', 'right', 'bottom', 'left'];
/** What browsers say of an element that opens over the page, and of no other of its tag (HTML, 15.3.2). */
export const POPOVER_LOOK: readonly string[] = [
  'position',
  ...SIDES,
  'width',
  'height',
  ...SIDES.flatMap((side) => [
    `margin-${side}`,
    `padding-${side}`,
    ...['width', 'style', 'color'].map((part) => `border-${side}-${part}`),
  ]),
  'overflow-x',
  'overflow-y',
  'color',
  'background-color',
];

const CONTROLS: ReadonlySet<string> = new Set(['input', 'select', 'textarea', 'button', 'meter', 'progress']);
const isWithoutLook = (control: Element): boolean =>
  computedValue(control.computedStyleMap(), 'appearance') === 'none';

/** Whether choices are shown as a list, and not as a field that opens one. */
const isListBox = ({ multiple, size }: HTMLSelectElement): boolean => multiple || size > 1;

/**
 * What elements look like in an emitted page before anything is said about them: the browser's own style sheet
 * and the reset. Asked once for each tag and property.
 */
export class BareLook {
  readonly #document: Document;
  readonly #elements = new Map<string, Element>();
  readonly #values = new Map<string, string | null>();

  /** @param document a rendered document that has the reset as its only style sheet. */
  constructor(document: Document) {
    this.#document = document;
  }

  value(like: Element, property: string): string | null {
    const type = like.localName === 'input' ? (like.getAttribute('type') ?? 'text') : '';
    const tag = writtenAs(like);
    // A control without its native look has not even the corners of that.
    const isPlain = CONTROLS.has(tag) && property !== 'appearance' && isWithoutLook(like);
    // Browsers dim what is disabled, and round the list that a choice of several is.
    const isDisabled = 'disabled' in like && like.matches(':disabled');
    const isList = tag === 'select' && isListBox(like as HTMLSelectElement);
    const kind = `${tag} ${type}${isPlain ? ' plain' : ''}${isDisabled ? ' disabled' : ''}${isList ? ' list' : ''}`;
    const key = `${kind} ${property}`;
    const known = this.#values.get(key);
    if (known !== undefined) return known;
    let element = this.#elements.get(kind);
    if (!element) {
      element =
        like.localName === 'body'
          ? this.#document.body
          : this.#document.createElementNS(like.namespaceURI, tag);
      if (type) element.setAttribute('type', type);
      element.toggleAttribute('disabled', isDisabled);
      element.toggleAttribute('multiple', isList);
      if (isPlain) (element as HTMLElement).style.setProperty('appearance', 'none');
      if (like.localName !== 'body') this.#holderOf(like).append(element);
      this.#elements.set(kind, element);
    }
    const value = computedValue(element.computedStyleMap(), property);
    this.#values.set(key, value);
    return value;
  }

  /** Cells and rows have their own look only within a table. */
  #holderOf(like: Element): Element {
    if (like.namespaceURI !== 'http://www.w3.org/1999/xhtml' && like.localName !== 'svg') {
      const svg = this.#document.createElementNS('http://www.w3.org/2000/svg', 'svg');
      this.#document.body.append(svg);
      return svg;
    }
    const outer = ['td', 'th'].includes(like.localName)
      ? 'tr'
      : like.localName === 'tr'
        ? 'tbody'
        : ['tbody', 'thead', 'tfoot'].includes(like.localName)
          ? 'table'
          : null;
    if (!outer) return this.#document.body;
    const holder = this.#document.createElement(outer);
    this.#document.body.append(holder);
    return holder;
  }
}
