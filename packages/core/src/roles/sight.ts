import type { Box, Element, Screen } from '../model/design.ts';
import { textOf } from '../model/project.ts';
import { onceFor } from '../json/once_for.ts';

/** An element as a person sees it: with what it inherits, what stands in it, and what it stands in. */
export interface Sight {
  readonly element: Element;
  readonly parent: Sight | null;
  readonly children: readonly Sight[];
  /** Its place among the children of its parent. */
  readonly index: number;
  readonly depth: number;
  /** Layer name, class names and id as separate small words, with a space at both ends. */
  readonly words: string;
  readonly text: string;
  /** Whether it shows text itself, not only within elements of its own. */
  readonly hasOwnText: boolean;
  readonly fontSize: number;
  readonly fontWeight: number;
  readonly color: string;
  readonly cursor: string;
  readonly align: string;
  readonly look: Look;
  /** Whether its tag says what somebody meant, and not only how Tovel writes a drawing. */
  readonly isAuthored: boolean;
}

/** The sight of the screen that an element stands on. */
export const rootOf = (sight: Sight): Sight => (sight.parent ? rootOf(sight.parent) : sight);

export interface Look {
  readonly hasFill: boolean;
  readonly hasBorder: boolean;
  /** Only a line at its foot. */
  readonly hasUnderline: boolean;
  /** Of the corners in px; as large as half the height for a pill. */
  readonly radius: number;
  readonly hasShadow: boolean;
}

export interface ScreenSight {
  readonly root: Sight;
  readonly byKey: ReadonlyMap<string, Sight>;
  /** All, in reading order. */
  readonly all: readonly Sight[];
  /** Size of most of the text, in px. */
  readonly bodySize: number;
  readonly width: number;
  readonly height: number;
  readonly isDrawing: boolean;
  /** Whether its style sheet tells real buttons from links that look like them. */
  readonly marksButtons: boolean;
}

/** How a screen looks to a person; computed once per screen value. */
export const sightOf = onceFor(look);

/** Files whose elements were drawn, so that their tags are Tovel's own. */
export const isDrawn = (file: string): boolean => /\.(svg|ora|pdf|png|jpe?g|webp)$/i.test(file);

interface Inherited {
  readonly fontSize: number;
  readonly fontWeight: number;
  readonly color: string;
  readonly cursor: string;
  readonly align: string;
}

function look(screen: Screen): ScreenSight {
  const all: Sight[] = [];
  const byKey = new Map<string, Sight>();
  const sizes = new Map<number, number>();
  const isDrawing = isDrawn(screen.source.file);
  const see = (element: Element, parent: Sight | null, index: number, from: Inherited): Sight => {
    const { base } = element.style;
    const inherited: Inherited = {
      fontSize: px(base['font-size']) ?? from.fontSize,
      fontWeight: weightOf(base['font-weight'], from.fontWeight),
      color: base.color ?? from.color,
      cursor: base.cursor ?? from.cursor,
      align: base['text-align'] ?? from.align,
    };
    const children: Sight[] = [];
    const hasOwnText =
      !!element.text?.trim() ||
      element.children.some((child) => child.tag === undefined && !!child.text?.trim());
    const text = textOf(element);
    const sight: Sight = {
      element,
      parent,
      children,
      index,
      depth: parent ? parent.depth + 1 : 0,
      words: wordsOf(element, text, isDrawing),
      text,
      hasOwnText,
      ...inherited,
      look: lookOf(element),
      isAuthored: !isDrawing && !isDrawn(element.source.file) && !element.source.path.includes('~'),
    };
    byKey.set(element.key, sight);
    all.push(sight);
    if (element.text)
      sizes.set(inherited.fontSize, (sizes.get(inherited.fontSize) ?? 0) + element.text.trim().length);
    element.children.forEach((child) => {
      if (child.tag === undefined) {
        const size = inherited.fontSize;
        sizes.set(size, (sizes.get(size) ?? 0) + (child.text ?? '').trim().length);
      } else children.push(see(child, sight, children.length, inherited));
    });
    return sight;
  };
  const root = see(screen.root, null, 0, {
    fontSize: 16,
    fontWeight: 400,
    color: '#000',
    cursor: 'auto',
    align: 'start',
  });
  const [bodySize] = [...sizes].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0] ?? [16];
  const marksButtons = all.some(({ element }) => element.style.base.appearance === 'button');
  return { root, byKey, all, bodySize, width: screen.width, height: screen.height, isDrawing, marksButtons };
}

/** How an element is laid out; where it only shows at other widths, how it is laid out there. */
export function displayOf({ style: { base, at = {} } }: Element): string {
  if (base.display !== 'none') return base.display ?? '';
  return Object.values(at).find((css) => css.display && css.display !== 'none')?.display ?? 'none';
}

export const px = (value: string | undefined): number | null => {
  const number = /^(-?[\d.]+)px$/.exec(value ?? '')?.[1];
  return number === undefined ? null : Number(number);
};

function weightOf(value: string | undefined, inherited: number): number {
  if (value === undefined) return inherited;
  return value === 'bold' ? 700 : value === 'normal' ? 400 : Number(value) || inherited;
}

function wordsOf(element: Element, text: string, isDrawing: boolean): string {
  const { classes = '', source } = element;
  // A layer without a name of its own is called by its text, which says nothing of its kind.
  const isNamed = element.kind !== 'text' && !text.startsWith(element.name.replace(/…$/, ''));
  const own = isDrawing && isNamed ? element.name : '';
  const split = `${own} ${classes} ${source.id ?? ''}`
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[^A-Za-z0-9]+/g, ' ')
    .toLowerCase()
    .trim();
  return split ? ` ${split} ` : '';
}

function lookOf({ style: { base }, box }: Element): Look {
  const fill = base['background-color'];
  const image = base['background-image'];
  const side = (name: string): boolean =>
    (px(base[`border-${name}-width`]) ?? 0) > 0 &&
    base[`border-${name}-style`] !== 'none' &&
    !isClear(base[`border-${name}-color`]);
  const sides = ['top', 'right', 'bottom', 'left'].filter(side);
  const radius = base['border-top-left-radius'] ?? '';
  return {
    hasFill: (fill !== undefined && !isClear(fill)) || (image !== undefined && image !== 'none'),
    hasBorder: sides.length === 4,
    hasUnderline: sides.length === 1 && sides[0] === 'bottom',
    radius: radius.endsWith('%')
      ? (parseFloat(radius) / 100) * Math.min(box.width, box.height)
      : (px(radius) ?? 0),
    hasShadow: base['box-shadow'] !== undefined && base['box-shadow'] !== 'none',
  };
}

const isClear = (color: string | undefined): boolean =>
  color !== undefined && (color === 'transparent' || channelsOf(color)?.[3] === 0);

/** Red, green and blue from 0 to 255, and how opaque, from 0 to 1; null for what is no plain colour. */
export function channelsOf(color: string | undefined): [number, number, number, number] | null {
  if (!color) return null;
  const hex = /^#([0-9a-f]{3,8})$/i.exec(color.trim())?.[1];
  if (hex) {
    const full = hex.length < 5 ? [...hex].map((digit) => digit + digit).join('') : hex;
    const at = (i: number): number => parseInt(full.slice(i, i + 2), 16);
    return [at(0), at(2), at(4), full.length === 8 ? at(6) / 255 : 1];
  }
  const parts = /^rgba?\(([^)]+)\)$/i
    .exec(color.trim())?.[1]
    .split(/[\s,/]+/)
    .map(Number);
  if (parts && parts.length >= 3 && parts.slice(0, 3).every(Number.isFinite))
    return [parts[0], parts[1], parts[2], parts[3] ?? 1];
  const named = NAMED[color.trim().toLowerCase()];
  return named ? [...named, 1] : null;
}

const NAMED: Readonly<Record<string, [number, number, number]>> = {
  black: [0, 0, 0],
  white: [255, 255, 255],
  gray: [128, 128, 128],
  grey: [128, 128, 128],
  silver: [192, 192, 192],
  red: [255, 0, 0],
  green: [0, 128, 0],
  blue: [0, 0, 255],
};

/** Whether a colour is a pale grey, as placeholders are. */
export function isPale(color: string): boolean {
  const channels = channelsOf(color);
  if (!channels) return false;
  const [r, g, b, alpha] = channels;
  const most = Math.max(r, g, b);
  return alpha < 0.75 || (most - Math.min(r, g, b) < 60 && most > 105 && most < 215);
}

export const isWithin = (inner: Box, outer: Box, slack = 1): boolean =>
  inner.x >= outer.x - slack &&
  inner.y >= outer.y - slack &&
  inner.x + inner.width <= outer.x + outer.width + slack &&
  inner.y + inner.height <= outer.y + outer.height + slack;

/** Such a part of a screen, in both directions, is the screen with all that it has: called after a bar it has one. */
const MOST = 0.6;
export function isMostOfScreen(sight: Sight): boolean {
  const [{ box }, { box: whole }] = [sight.element, rootOf(sight).element];
  return box.width > whole.width * MOST && box.height > whole.height * MOST;
}

/** Whether something called by one of these words is around an element, so many levels out at most, and not the whole screen. */
export function isAmong(sight: Sight, words: RegExp, most = 5): boolean {
  let at = sight.parent;
  for (let depth = 0; at?.parent && depth < most; depth++, at = at.parent)
    if (words.test(at.words) && !isMostOfScreen(at)) return true;
  return false;
}

/** Whether some parent satisfies a condition. */
export function hasParent(sight: Sight, test: (parent: Sight) => boolean): boolean {
  for (let parent = sight.parent; parent; parent = parent.parent) if (test(parent)) return true;
  return false;
}

/** Whether something is quoted code. */
export const isCode = ({ element: { tag } }: Sight): boolean => tag === 'pre' || tag === 'code';

/** Whether something stands within quoted code, which is one text however it is coloured. */
export const isInCode = (sight: Sight): boolean => hasParent(sight, isCode);
