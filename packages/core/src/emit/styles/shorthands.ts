import { listItems } from '../../vocabulary/list_items.ts';
import type { Declarations } from '../../model/design.ts';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;
const BORDER_PARTS = ['width', 'style', 'color'] as const;

/** Folds longhands into the shorthands a person would write; the computed result is the same. */
export function foldShorthands(longhands: Declarations): Record<string, string> {
  const css: Record<string, string> = { ...longhands };
  for (const name of ['margin', 'padding'])
    foldSides(
      css,
      name,
      SIDES.map((side) => `${name}-${side}`),
    );
  foldSides(css, 'inset', [...SIDES]);
  foldSides(
    css,
    'border-radius',
    CORNERS.map((corner) => `border-${corner}-radius`),
  );
  foldBorder(css);
  for (const [name, first, second] of PAIRS) foldPair(css, name, first, second);
  foldFlex(css);
  foldDecoration(css);
  foldOutline(css);
  foldWhiteSpace(css);
  foldTransition(css);
  return css;
}

/** Shorthands of two longhands, which are one value where both are the same. */
const PAIRS = [
  ['gap', 'row-gap', 'column-gap'],
  ['overflow', 'overflow-x', 'overflow-y'],
  ['place-content', 'align-content', 'justify-content'],
  ['place-items', 'align-items', 'justify-items'],
  ['place-self', 'align-self', 'justify-self'],
] as const;

/** Puts the shorthand where the first of its longhands stood. */
function replace(
  css: Record<string, string>,
  names: readonly string[],
  shorthand: string,
  value: string,
): void {
  const entries = Object.entries(css);
  for (const name of Object.keys(css)) delete css[name];
  let isPut = false;
  for (const [name, old] of entries) {
    if (!names.includes(name)) css[name] = old;
    else if (!isPut) {
      css[shorthand] = value;
      isPut = true;
    }
  }
}

const KEYWORD = /^(inherit|initial|unset|revert)$/;

function foldSides(css: Record<string, string>, shorthand: string, names: readonly string[]): void {
  const values = names.map((name) => css[name]);
  if (values.some((value) => value === undefined || value.includes('/') || /\s(?![^(]*\))/.test(value)))
    return;
  const [a, b, c, d] = values;
  const isOne = a === b && b === c && c === d;
  if (!isOne && values.some((value) => KEYWORD.test(value))) return;
  const short = isOne ? a : a === c && b === d ? `${a} ${b}` : b === d ? `${a} ${b} ${c}` : values.join(' ');
  replace(css, names, shorthand, short);
}

function foldPair(css: Record<string, string>, shorthand: string, first: string, second: string): void {
  const [a, b] = [css[first], css[second]];
  if (a === undefined || b === undefined) return;
  if (a !== b && (KEYWORD.test(a) || KEYWORD.test(b))) return;
  // Of two words it could not be told which belong to the one and which to the other.
  if (shorthand.startsWith('place-') && (/\s/.test(a) || /\s/.test(b))) return;
  replace(css, [first, second], shorthand, a === b ? a : `${a} ${b}`);
}

function foldBorder(css: Record<string, string>): void {
  const sideValue = (side: string): string | null => {
    const values = BORDER_PARTS.map((part) => css[`border-${side}-${part}`]);
    if (values[1] === 'none' && values[0] === undefined && values[2] === undefined) return '0';
    if (values[0] === undefined || values[1] === undefined) return null;
    if (values[0] === '0px' || values[1] === 'none')
      return values[0] === '0px' && values[1] === 'none' ? '0' : null;
    return values[2] === undefined || values.some((value) => KEYWORD.test(value)) ? null : values.join(' ');
  };
  const values = SIDES.map(sideValue);
  const longhands = (side: string): string[] => BORDER_PARTS.map((part) => `border-${side}-${part}`);
  if (values[0] !== null && values.every((value) => value === values[0])) {
    replace(css, SIDES.flatMap(longhands), 'border', values[0]);
    return;
  }
  // What is the same at all sides is said once, before what is not.
  if (!values.some((value) => value !== null))
    for (const part of BORDER_PARTS)
      foldSides(
        css,
        `border-${part}`,
        SIDES.map((side) => `border-${side}-${part}`),
      );
  SIDES.forEach((side, i) => {
    const value = values[i];
    if (value !== null) replace(css, longhands(side), `border-${side}`, value);
  });
}

function foldFlex(css: Record<string, string>): void {
  const { 'flex-grow': grow, 'flex-shrink': shrink, 'flex-basis': basis } = css;
  if (grow !== undefined && shrink !== undefined && basis !== undefined)
    replace(
      css,
      ['flex-grow', 'flex-shrink', 'flex-basis'],
      'flex',
      grow === '0' && shrink === '0' && basis === 'auto'
        ? 'none'
        : grow === '1' && shrink === '1' && basis === '0%'
          ? '1'
          : `${grow} ${shrink} ${basis}`,
    );
  const { 'flex-direction': direction, 'flex-wrap': wrap } = css;
  if (direction !== undefined && wrap !== undefined && !KEYWORD.test(direction) && !KEYWORD.test(wrap))
    replace(css, ['flex-direction', 'flex-wrap'], 'flex-flow', `${direction} ${wrap}`);
}

/** What a longhand is where its shorthand does not name it. */
const isUnsaid = (value: string | undefined, usual: string): boolean =>
  value === undefined || value === 'initial' || value === usual;

function foldDecoration(css: Record<string, string>): void {
  const at = (part: string): string | undefined => css[`text-decoration-${part}`];
  const [line, style, color, thickness] = ['line', 'style', 'color', 'thickness'].map(at);
  const isAll = style !== undefined && color !== undefined;
  if (line === undefined || !isAll || [line, style, color].some((value) => value === 'inherit')) return;
  const value =
    line === 'none' || line === 'initial'
      ? 'none'
      : [
          line,
          isUnsaid(style, 'solid') ? '' : style,
          isUnsaid(color, 'currentcolor') ? '' : color,
          isUnsaid(thickness, 'auto') ? '' : thickness,
        ]
          .filter(Boolean)
          .join(' ');
  replace(
    css,
    ['line', 'style', 'color', 'thickness'].map((part) => `text-decoration-${part}`),
    'text-decoration',
    value,
  );
}

function foldOutline(css: Record<string, string>): void {
  const names = ['outline-width', 'outline-style', 'outline-color'];
  const [width, style, color] = names.map((name) => css[name]);
  if (width === undefined || style === undefined || color === undefined) return;
  const isNone = /^0(px)?$/.test(width) || style === 'none' || style === 'initial';
  if (!isNone && [width, style, color].some((value) => KEYWORD.test(value))) return;
  replace(css, names, 'outline', isNone ? '0' : `${width} ${style} ${color}`);
}

const WHITE_SPACE: Readonly<Record<string, string>> = {
  'collapse nowrap': 'nowrap',
  'collapse wrap': 'normal',
  'preserve wrap': 'pre-wrap',
  'preserve nowrap': 'pre',
  'preserve-breaks wrap': 'pre-line',
};

function foldWhiteSpace(css: Record<string, string>): void {
  const names = ['white-space-collapse', 'text-wrap-mode'];
  const [collapse, wrap] = names.map((name) => css[name]);
  if (collapse === undefined || wrap === undefined) return;
  const value = WHITE_SPACE[`${collapse} ${wrap}`];
  if (value) replace(css, names, 'white-space', value);
}

const TRANSITION = ['property', 'duration', 'timing-function', 'delay'].map((part) => `transition-${part}`);

function foldTransition(css: Record<string, string>): void {
  const lists = TRANSITION.map((name) => css[name] && listItems(css[name]));
  if (lists.some((list) => !list)) return;
  const [properties, ...others] = lists as string[][];
  const unsaid = ['0s', 'ease', '0s'];
  const value = properties.map((property, i) =>
    [
      property,
      // A delay is told from a duration by coming second.
      ...others.flatMap((list, at) => {
        const part = list[i % list.length];
        return part === unsaid[at] && at > 0 ? [] : [part];
      }),
    ].join(' '),
  );
  if (value.some((part) => /\b(inherit|initial|unset|revert)\b/.test(part))) return;
  replace(css, TRANSITION, 'transition', value.join(', '));
}
