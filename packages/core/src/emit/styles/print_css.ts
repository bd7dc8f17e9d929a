import type { Declarations } from '../../model/design.ts';
import type { StyleRule } from '../markup.ts';
import { cssText } from '../quoting.ts';
import { foldShorthands, partsOf } from './shorthands.ts';
import { writtenValue } from './written.ts';

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
    const entries = Object.entries(foldShorthands(declarations)).map(([name, value]) => modern(name, value));
    if (!entries.length) return;
    if (out.length && !out.at(-1)!.endsWith('{')) put('', key);
    put(`${indent}${selector} {`, key);
    for (const [name, value] of entries) {
      const written = value.includes('url(') ? mapUrls(value, urlOf) : writtenValue(name, value);
      const parts = LISTS.has(name) ? partsOf(written) : [];
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
    put(`@media (width <= ${width}px) {`, null);
    for (const rule of rules)
      if (rule.at[width]) block(selectorOf(rule.className), rule.at[width], rule.key, '  ');
    put('}', null);
  }
  const floors = [...new Set(rules.flatMap((rule) => Object.keys(rule.from)))]
    .map(Number)
    .sort((a, b) => a - b);
  for (const width of floors) {
    if (out.length) put('', null);
    put(`@media (width >= ${width}px) {`, null);
    for (const rule of rules)
      if (rule.from[width]) block(selectorOf(rule.className), rule.from[width], rule.key, '  ');
    put('}', null);
  }
  return { text: out.length ? `${out.join('\n')}\n` : '', lines };
}

/** A declaration as the standards have it now. */
const modern = (name: string, value: string): [string, string] =>
  name === 'clip' && value.startsWith('rect(') ? ['clip-path', value.replaceAll(',', '')] : [name, value];

/** Properties whose lists are written a part a line. */
const LISTS = new Set(['box-shadow', 'transition', 'mask', 'will-change', 'src', 'grid-template-columns']);

const mapUrls = (value: string, urlOf: (address: string) => string): string =>
  value.replace(
    /url\(\s*["']?(asset:[^"')]+)["']?\s*\)/g,
    (_, address: string) => `url(${cssText(urlOf(address))})`,
  );
