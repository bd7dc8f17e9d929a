import type { Declarations } from '../model/design.ts';
import type { StyleRule } from './markup.ts';
import { cssText } from './quoting.ts';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;

/** Folds longhands into the shorthands a person would write; the computed result is the same. */
export function foldShorthands(longhands: Declarations): Record<string, string> {
  const css: Record<string, string> = { ...longhands };
  foldSides(
    css,
    'margin',
    SIDES.map((side) => `margin-${side}`),
  );
  foldSides(
    css,
    'padding',
    SIDES.map((side) => `padding-${side}`),
  );
  foldSides(css, 'inset', [...SIDES]);
  foldSides(
    css,
    'border-radius',
    CORNERS.map((corner) => `border-${corner}-radius`),
  );
  foldBorder(css);
  foldPair(css, 'gap', 'row-gap', 'column-gap');
  foldPair(css, 'overflow', 'overflow-x', 'overflow-y');
  const { 'flex-grow': grow, 'flex-shrink': shrink, 'flex-basis': basis } = css;
  if (grow !== undefined && shrink !== undefined && basis !== undefined) {
    replace(
      css,
      ['flex-grow', 'flex-shrink', 'flex-basis'],
      'flex',
      grow === '0' && shrink === '0' && basis === 'auto' ? 'none' : `${grow} ${shrink} ${basis}`,
    );
  }
  return css;
}

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

function foldSides(css: Record<string, string>, shorthand: string, names: readonly string[]): void {
  const values = names.map((name) => css[name]);
  if (values.some((value) => value === undefined || value.includes('/') || /\s/.test(value))) return;
  const [a, b, c, d] = values;
  const short =
    a === b && b === c && c === d
      ? a
      : a === c && b === d
        ? `${a} ${b}`
        : b === d
          ? `${a} ${b} ${c}`
          : values.join(' ');
  replace(css, names, shorthand, short);
}

function foldPair(css: Record<string, string>, shorthand: string, first: string, second: string): void {
  if (css[first] === undefined || css[second] === undefined) return;
  replace(
    css,
    [first, second],
    shorthand,
    css[first] === css[second] ? css[first] : `${css[first]} ${css[second]}`,
  );
}

function foldBorder(css: Record<string, string>): void {
  const parts = ['width', 'style', 'color'] as const;
  const sideValue = (side: string): string | null => {
    const values = parts.map((part) => css[`border-${side}-${part}`]);
    if (values[0] === undefined || values[1] === undefined) return null;
    if (values[0] === '0px' || values[1] === 'none')
      return values[0] === '0px' && values[1] === 'none' ? '0' : null;
    return values[2] === undefined ? null : values.join(' ');
  };
  const values = SIDES.map(sideValue);
  if (values[0] !== null && values.every((value) => value === values[0])) {
    replace(
      css,
      SIDES.flatMap((side) => parts.map((part) => `border-${side}-${part}`)),
      'border',
      values[0],
    );
    return;
  }
  SIDES.forEach((side, i) => {
    const value = values[i];
    if (value !== null)
      replace(
        css,
        parts.map((part) => `border-${side}-${part}`),
        `border-${side}`,
        value,
      );
  });
}

/** A style sheet as text, with the design element that each line is about. */
export interface PrintedCss {
  readonly text: string;
  readonly lines: readonly (string | null)[];
}

/** Prints rules; classes first, then what differs at narrower widths, widest first, and at wider, narrowest first. */
export function printRules(
  rules: readonly StyleRule[],
  selectorOf: (className: string) => string,
  urlOf: (address: string) => string = (a) => a,
): PrintedCss {
  const out: string[] = [];
  const lines: (string | null)[] = [];
  const put = (line: string, key: string | null): void => {
    out.push(line);
    lines.push(key);
  };
  const block = (selector: string, declarations: Declarations, key: string | null, indent = ''): void => {
    const entries = Object.entries(foldShorthands(declarations));
    if (!entries.length) return;
    if (out.length && !out.at(-1)!.endsWith('{')) put('', key);
    put(`${indent}${selector} {`, key);
    for (const [name, value] of entries) {
      const written = singleQuoted(value.includes('url(') ? mapUrls(value, urlOf) : value);
      const parts = LISTS.has(name) ? listParts(written) : [];
      if (parts.length < 2) put(`${indent}  ${name}: ${written};`, key);
      else {
        put(`${indent}  ${name}:`, key);
        parts.forEach((part, i) => put(`${indent}    ${part}${i === parts.length - 1 ? ';' : ','}`, key));
      }
    }
    put(`${indent}}`, key);
  };
  for (const rule of rules) {
    const selector = selectorOf(rule.className);
    block(selector, rule.base, rule.key);
    for (const [state, declarations] of Object.entries(rule.states))
      block(`${selector}${state}`, declarations, rule.key);
  }
  const widths = [...new Set(rules.flatMap((rule) => Object.keys(rule.at)))]
    .map(Number)
    .sort((a, b) => b - a);
  for (const width of widths) {
    if (out.length) put('', null);
    put(`@media (max-width: ${width}px) {`, null);
    for (const rule of rules)
      if (rule.at[width]) block(selectorOf(rule.className), rule.at[width], rule.key, '  ');
    put('}', null);
  }
  const floors = [...new Set(rules.flatMap((rule) => Object.keys(rule.from)))]
    .map(Number)
    .sort((a, b) => a - b);
  for (const width of floors) {
    if (out.length) put('', null);
    put(`@media (min-width: ${width}px) {`, null);
    for (const rule of rules)
      if (rule.from[width]) block(selectorOf(rule.className), rule.from[width], rule.key, '  ');
    put('}', null);
  }
  return { text: out.length ? `${out.join('\n')}\n` : '', lines };
}

/** Properties whose lists are written a part a line. */
const LISTS = new Set(['box-shadow', 'transition', 'mask', 'will-change', 'src', 'grid-template-columns']);

/** The parts of a list, at the commas that stand in no brackets. */
function listParts(value: string): string[] {
  const parts: string[] = [];
  let [depth, start] = [0, 0];
  for (let i = 0; i <= value.length; i++) {
    if (value[i] === '(') depth++;
    else if (value[i] === ')') depth--;
    else if (i === value.length || (value[i] === ',' && depth === 0)) {
      parts.push(value.slice(start, i).trim());
      start = i + 1;
    }
  }
  return parts;
}

const mapUrls = (value: string, urlOf: (address: string) => string): string =>
  value.replace(
    /url\(\s*["']?(asset:[^"')]+)["']?\s*\)/g,
    (_, address: string) => `url(${cssText(urlOf(address))})`,
  );

const singleQuoted = (value: string): string => value.replace(/"([^"'\\]*)"/g, "'$1'");
