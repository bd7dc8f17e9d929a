import type { Box } from '../model/design.ts';

/** Properties whose computed values are read, by what they change. Geometry that follows from others is read as boxes. */
export const TEXT_LOOKS = [
  'color',
  'font-size',
  'font-weight',
  'font-style',
  'line-height',
  'letter-spacing',
  'text-align',
  'text-transform',
  'text-decoration-line',
  'white-space',
] as const;
export const BOX_LOOKS = [
  'background-color',
  'background-image',
  'background-size',
  'background-position',
  'border-top-width',
  'border-right-width',
  'border-bottom-width',
  'border-left-width',
  'border-top-style',
  'border-right-style',
  'border-bottom-style',
  'border-left-style',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'border-top-left-radius',
  'border-top-right-radius',
  'border-bottom-right-radius',
  'border-bottom-left-radius',
  'box-shadow',
  'opacity',
  'filter',
  'transform',
  'visibility',
  'object-fit',
] as const;
export const PLACE_LOOKS = [
  'padding-top',
  'padding-right',
  'padding-bottom',
  'padding-left',
  'margin-top',
  'margin-right',
  'margin-bottom',
  'margin-left',
  'row-gap',
  'column-gap',
  'display',
  'position',
  'flex-direction',
  'flex-wrap',
  'justify-content',
  'align-items',
  'order',
] as const;
/** Read for what they say of others. */
const ALSO_READ = ['overflow-x'] as const;
export const LOOKS = [...TEXT_LOOKS, ...BOX_LOOKS, ...PLACE_LOOKS, ...ALSO_READ] as const;
/** What is told of a background picture that is not there. */
export const MISSING_PICTURE = 'missing';
export type Look = (typeof LOOKS)[number];

/** An element as a browser shows it. */
export interface RenderedElement {
  readonly tag: string;
  /** Class names as written. */
  readonly classes: string;
  readonly id: string;
  /** Label, alternative text or placeholder, where it has one. */
  readonly label: string;
  /** Key of the design's element, where the page says it. */
  readonly key: string | null;
  /** Slash-joined element-child index from the document's root element. */
  readonly path: string;
  /** Text of its own, white space collapsed; of a field, what it holds. */
  readonly text: string;
  /** In CSS px of the whole page. */
  readonly box: Box;
  /** Computed values in the order of `LOOKS`. */
  readonly styles: readonly string[];
  /** Lines that its own text takes. */
  readonly lines: number;
  /** The first family of its font that is there; null where it has no text of its own. */
  readonly font: string | null;
  /** What stands behind its text, as `rgb()`; null where that is no one colour. */
  readonly behind: string | null;
  readonly picture: 'shown' | 'missing' | null;
  /** Whether it shows a drawing instead of text: as an inline drawing, or as a letter of a font of icons. */
  readonly isIcon: boolean;
  /** Whether a person would press it: a link, a button, a field. */
  readonly isPressable: boolean;
  /** What lies over its middle, so that it cannot be pressed: path and name of the other element. */
  readonly cover: { readonly path: string; readonly name: string } | null;
  /** By how many px its content is wider and higher than itself, where that is cut off. */
  readonly cut: { readonly x: number; readonly y: number } | null;
  readonly children: readonly RenderedElement[];
}

/** A page as a browser shows it at one width. */
export interface Rendering {
  /** Of the window, in CSS px. */
  readonly width: number;
  /** Of the whole page. */
  readonly height: number;
  /** Of the whole page; wider than the window where it scrolls sideways. */
  readonly pageWidth: number;
  readonly root: RenderedElement;
  /** What went wrong while it was drawn, in words: did not finish loading, an error of a script. */
  readonly problems: readonly string[];
}

const INDEX = new Map<string, number>(LOOKS.map((name, index) => [name, index]));

/** The computed value of a property. */
export const lookOf = (element: Pick<RenderedElement, 'styles'>, name: Look): string =>
  element.styles[INDEX.get(name)!] ?? '';

/** The element and all within it, in reading order. */
export function* renderedWithin(element: RenderedElement): Generator<RenderedElement> {
  yield element;
  for (const child of element.children) yield* renderedWithin(child);
}

const LONGEST_NAME = 40;

/** What a person would call an element: what it says, what is in it, or what it is. */
export function renderedName(element: RenderedElement): string {
  const said = element.label || element.text || firstText(element);
  if (said) return said.length > LONGEST_NAME ? `${said.slice(0, LONGEST_NAME - 1).trimEnd()}…` : said;
  // Of a class that is told apart by its file, what it is called there.
  const word = element.id || element.classes.split(/\s+/)[0].replace(/^.*_(?=[a-z])/i, '');
  return word ? `${element.tag} ${word}` : element.tag;
}

function firstText(element: RenderedElement): string {
  for (const inner of renderedWithin(element)) if (inner.text) return inner.text;
  return '';
}
