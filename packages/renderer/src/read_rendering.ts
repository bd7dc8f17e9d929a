import { plainValue } from './in_page/plain_values.ts';
import { isIconFamily, LOOKS, MISSING_PICTURE, type RenderedElement, type Rendering } from '@tovel/core';
import { groundBehind } from './in_page/ground.ts';

/**
 * Reads what a browser shows of a page: each element with its box, its computed look and what came of it. Runs in the page; it
 * changes nothing there but how far it is scrolled, and puts that back.
 * @param missing addresses that nothing was found under
 */
export function readRendering(
  document: Document,
  missing: ReadonlySet<string> = new Set(),
): Omit<Rendering, 'problems'> {
  const window = document.defaultView!;
  const reading = new Reading(document, window, missing);
  const root = reading.read(document.documentElement, '');
  reading.lookForCovers();
  const page = document.documentElement;
  return {
    width: window.innerWidth,
    height: Math.max(page.scrollHeight, document.body?.scrollHeight ?? 0),
    pageWidth: Math.max(page.scrollWidth, document.body?.scrollWidth ?? 0),
    root: root!,
  };
}

const SKIPPED = new Set(['script', 'style', 'template', 'noscript', 'head', 'link', 'meta', 'title', 'base']);
/** Shown whole: what is in them is not looked at. */
const WHOLE = new Set(['svg', 'canvas', 'video', 'audio', 'iframe', 'object', 'select', 'math']);
/** What stands in them is for browsers that cannot show them. */
const INSTEAD = new Set(['canvas', 'video', 'audio', 'iframe']);
const PRESSABLE =
  'a[href], button, input:not([type="hidden"]), select, textarea, summary, [role="button"], [role="link"], [role="tab"], [role="menuitem"], [role="switch"], [role="checkbox"]';
/** Nesting that is read, and elements. */
const DEEPEST = 200;
const MOST = 20_000;

type Writable<T> = { -readonly [K in keyof T]: T[K] };

class Reading {
  readonly #document: Document;
  readonly #window: Window & typeof globalThis;
  readonly #missing: ReadonlySet<string>;
  readonly #families = new Map<string, string>();
  readonly #pressables: { readonly node: Element; readonly made: Writable<RenderedElement> }[] = [];
  readonly #made = new Map<Element, RenderedElement>();
  readonly #context: CanvasRenderingContext2D | null;
  #count = 0;

  constructor(document: Document, window: Window & typeof globalThis, missing: ReadonlySet<string>) {
    this.#document = document;
    this.#missing = missing;
    this.#window = window;
    this.#context = document.createElement('canvas').getContext('2d');
  }

  read(node: Element, path: string, depth = 0): RenderedElement | null {
    const tag = node.localName;
    if (SKIPPED.has(tag) || depth > DEEPEST || ++this.#count > MOST) return null;
    const style = this.#window.getComputedStyle(node);
    if (style.display === 'none' || Number(style.opacity) === 0) return null;
    const rect = node.getBoundingClientRect();
    // In a font of icons words are drawings.
    const isDrawn = isIconFamily(style.fontFamily.split(',')[0]);
    const text = isDrawn || INSTEAD.has(tag) ? '' : this.#textOf(node);
    const isPressable = node.matches(PRESSABLE);
    const children: RenderedElement[] = [];
    if (!WHOLE.has(tag) && !isFolded(style, rect)) {
      let index = 0;
      for (const child of node.children) {
        const inner = this.read(child, path ? `${path}/${index}` : String(index), depth + 1);
        if (inner) children.push(inner);
        index++;
      }
    }
    const made: Writable<RenderedElement> = {
      tag,
      classes: node.getAttribute('class') ?? '',
      id: node.id,
      label:
        node.getAttribute('aria-label') ?? node.getAttribute('alt') ?? node.getAttribute('placeholder') ?? '',
      key: node.getAttribute('data-key'),
      path,
      text,
      box: {
        x: rounded(rect.x + this.#window.scrollX),
        y: rounded(rect.y + this.#window.scrollY),
        width: rounded(rect.width),
        height: rounded(rect.height),
      },
      styles: LOOKS.map((name) => this.#look(node, style, name)),
      lines: text ? this.#linesOf(node) : 0,
      font: text ? this.#fontOf(style) : null,
      behind: text ? groundBehind(node) : null,
      picture: pictureOf(node),
      isIcon: tag === 'svg' || (!text && !children.length && (isDrawn || this.#hasGlyph(node))),
      isPressable,
      cover: null,
      cut: cutOf(node, style),
      children,
    };
    if (style.visibility !== 'visible' && !children.length) return null;
    this.#made.set(node, made);
    if (isPressable && rect.width > 0 && rect.height > 0 && style.visibility === 'visible')
      this.#pressables.push({ node, made });
    return made;
  }

  /** Whether what would be pressed can be: each is brought to the middle of the window and asked for. */
  lookForCovers(): void {
    const { scrollX, scrollY } = this.#window;
    // What scrolls by itself is brought along, and put back.
    const within = new Map<Element, readonly [left: number, top: number]>();
    for (const { node } of this.#pressables)
      for (let at = node.parentElement; at && !within.has(at); at = at.parentElement)
        within.set(at, [at.scrollLeft, at.scrollTop]);
    for (const { node, made } of this.#pressables) {
      node.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' });
      const { x, y, width, height } = node.getBoundingClientRect();
      // A link over several lines has its middle between them.
      const [first] = node.getClientRects();
      const place = first && first.height < height ? first : { x, y, width, height };
      const over = this.#document.elementFromPoint(place.x + place.width / 2, place.y + place.height / 2);
      if (!over || over === node || node.contains(over) || over.contains(node) || sameLabel(node, over))
        continue;
      const other = this.#made.get(over);
      made.cover = {
        path: other?.path ?? '',
        name: (over.getAttribute('alt') || over.textContent || over.id || over.localName)
          .trim()
          .replace(/\s+/g, ' ')
          .slice(0, 40),
      };
    }
    for (const [element, [left, top]] of within)
      if (element.scrollLeft !== left || element.scrollTop !== top)
        element.scrollTo({ left, top, behavior: 'instant' });
    this.#window.scrollTo({ left: scrollX, top: scrollY, behavior: 'instant' });
  }

  #textOf(node: Element): string {
    if (node.localName === 'input' || node.localName === 'textarea') {
      const field = node as HTMLInputElement;
      return ['checkbox', 'radio', 'hidden', 'password', 'file', 'range', 'color'].includes(field.type)
        ? ''
        : field.value.trim();
    }
    if (node.localName === 'select')
      return (node as HTMLSelectElement).selectedOptions[0]?.textContent?.trim() ?? '';
    let text = '';
    for (const child of node.childNodes) if (child.nodeType === 3) text += ` ${child.nodeValue}`;
    return text.replace(/\s+/g, ' ').trim();
  }

  #look(node: Element, style: CSSStyleDeclaration, name: string): string {
    // A margin that takes what is left over says how much that is when it is asked otherwise.
    if (name.startsWith('margin-') && node.computedStyleMap().get(name)?.toString() === 'auto') return 'auto';
    const value = plainValue(name, style.getPropertyValue(name));
    if (name !== 'background-image' || !value.includes('url(')) return value;
    // A picture that is not there shows nothing.
    const shown = value
      .split(/,\s*(?=url\(|[\w-]+-gradient\()/)
      .filter((layer) => !this.#missing.has(/^url\("?(.*?)"?\)/.exec(layer)?.[1] ?? ''));
    return shown.join(', ') || MISSING_PICTURE;
  }

  #hasGlyph(node: Element): boolean {
    const { content } = this.#window.getComputedStyle(node, '::before');
    return /^"[^"]{1,2}"$/.test(content);
  }

  /** Lines are told by where pieces of its own text begin. */
  #linesOf(node: Element): number {
    const range = this.#document.createRange();
    const bottoms: number[] = [];
    let lines = 0;
    for (const child of node.childNodes) {
      if (child.nodeType !== 3 || !child.nodeValue?.trim()) continue;
      range.selectNodeContents(child);
      for (const rect of range.getClientRects()) {
        if (!rect.width) continue;
        const middle = rect.y + rect.height / 2;
        if (!bottoms.some((bottom) => Math.abs(bottom - middle) < rect.height / 2)) {
          bottoms.push(middle);
          lines++;
        }
      }
    }
    return lines || 1;
  }

  /** The first family that the browser has: a text set in it is not as wide as in what it would fall back to. */
  #fontOf(style: CSSStyleDeclaration): string {
    const known = this.#families.get(style.fontFamily);
    if (known !== undefined) return known;
    const names = style.fontFamily
      .split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/)
      .map((name) => name.trim().replace(/^["']|["']$/g, ''));
    const found = names.find((name) => this.#isThere(name)) ?? 'serif';
    this.#families.set(style.fontFamily, found);
    return found;
  }

  #isThere(name: string): boolean {
    if (GENERIC.test(name)) return true;
    const context = this.#context;
    if (!context) return true;
    const widthOf = (family: string): number => {
      context.font = `72px ${family}`;
      return context.measureText('mmmMMMiiilllWWW0123456789&@').width;
    };
    return ['monospace', 'serif'].some((base) => widthOf(`"${name}", ${base}`) !== widthOf(base));
  }
}

const GENERIC =
  /^(serif|sans-serif|monospace|cursive|fantasy|system-ui|ui-[\w-]+|math|emoji|-apple-system|BlinkMacSystemFont)$/;

const rounded = (value: number): number => Math.round(value * 100) / 100;

function pictureOf(node: Element): RenderedElement['picture'] {
  if (node.localName !== 'img') return null;
  const image = node as HTMLImageElement;
  return image.complete && image.naturalWidth > 0 ? 'shown' : 'missing';
}

/** Edges of a box that is folded up are no larger together, in px. */
const MOST_EDGES = 16;

/** Whether an element cuts off all that stands in it: a menu that is folded to no height. */
function isFolded(style: CSSStyleDeclaration, { width, height }: DOMRect): boolean {
  const edges = (...sides: readonly string[]): number => {
    const all = sides.flatMap((side) => [`padding-${side}`, `border-${side}-width`]);
    const sum = all.reduce((total, name) => total + parseFloat(style.getPropertyValue(name)), 0);
    // Folded up, a box may keep its own; where these are large they are there to hold something.
    return sum <= MOST_EDGES ? sum : 0;
  };
  return (
    (style.overflowY !== 'visible' && height <= edges('top', 'bottom')) ||
    (style.overflowX !== 'visible' && width <= edges('left', 'right'))
  );
}

/** What an element cuts off of its content; an ellipsis says so itself, and is no fault. */
function cutOf(node: Element, style: CSSStyleDeclaration): RenderedElement['cut'] {
  const hides = (value: string): boolean => value === 'hidden' || value === 'clip';
  const x =
    hides(style.overflowX) && style.textOverflow !== 'ellipsis' ? node.scrollWidth - node.clientWidth : 0;
  const y = hides(style.overflowY) ? node.scrollHeight - node.clientHeight : 0;
  return x > 1 || y > 1 ? { x: Math.max(0, x), y: Math.max(0, y) } : null;
}

/** A label and its field are pressed for each other. */
function sameLabel(node: Element, over: Element): boolean {
  const label = over.closest('label') as HTMLLabelElement | null;
  return !!label && (label.control === node || label.contains(node));
}
