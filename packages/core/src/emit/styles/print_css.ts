import type { Declarations } from '../../model/design.ts';
import type { StyleRule } from '../form/markup.ts';
import { inOrder } from '../../json/json.ts';
import { cssText } from '../quoting.ts';
import { type Palette, withNames } from '../form/styles/palette.ts';
import { listItems } from '../../vocabulary/list_items.ts';
import { drawnUpTo } from '../../vocabulary/style_values.ts';
import { foldShorthands } from './shorthands.ts';
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
  palette: Pick<Palette, 'nameOf'> = { nameOf: () => null },
): PrintedCss {
  const out: string[] = [];
  const lines: (string | null)[] = [];
  const put = (line: string, key: string | null): void => {
    out.push(line);
    lines.push(key);
  };
  const block = (selector: string, declarations: Declarations, key: string | null, indent = ''): void => {
    const entries = Object.entries(foldShorthands(inOrder(declarations))).map(([name, value]) =>
      modern(name, value),
    );
    if (!entries.length) return;
    if (out.length && !out.at(-1)!.endsWith('{')) put('', key);
    for (const text of `${indent}${selector} {`.split('\n')) put(text, key);
    for (const [name, value] of entries) {
      const written = value.includes('url(')
        ? mapUrls(value, urlOf)
        : withNames(writtenValue(name, value), palette);
      const parts = LISTS.has(name) ? listItems(written) : [];
      if (parts.length < 2) put(`${indent}  ${name}: ${written};`, key);
      else {
        put(`${indent}  ${name}:`, key);
        parts.forEach((part, i) => put(`${indent}    ${part}${i === parts.length - 1 ? ';' : ','}`, key));
      }
    }
    put(`${indent}}`, key);
  };
  /**
   * Rules that say the same stand together: no element has two classes that say the same property, but for one that is laid
   * over another and stands where it is, after that.
   */
  const blocks = (
    some: readonly (readonly [selector: string, css: Declarations, key: string | null, isOver?: boolean])[],
    indent = '',
  ): void => {
    const together = new Map<string, { selectors: string[]; css: Declarations; key: string | null }>();
    for (const [selector, css, key, isOver] of some) {
      const sign = isOver ? selector : signOf(css);
      const known = together.get(sign);
      if (known) known.selectors.push(selector);
      else together.set(sign, { selectors: [selector], css, key });
    }
    for (const { selectors, css, key } of together.values())
      block(selectors.join(`,\n${indent}`), css, key, indent);
  };
  const said = rules.map((rule) => [selectorOf(rule.className), rule] as const);
  // What elements look like in a state stands right after what they look like.
  const groups = new Map<string, (typeof said)[number][]>();
  for (const one of said) {
    const [selector, { base, isOver }] = one;
    const sign = Object.keys(base).length && !isOver ? signOf(base) : selector;
    groups.set(sign, [...(groups.get(sign) ?? []), one]);
  }
  const states = new Map(
    said.map((one) => {
      const [selector, rule] = one;
      const everywhere = statesInOrder(rule.states).filter(([state]) => !drawnUpTo(state));
      const blocksOf = parted(Object.fromEntries(everywhere)).map(
        ([some, css]) => [some.map((state) => inState(selector, state)).join(',\n'), css, rule.key] as const,
      );
      return [one, blocksOf];
    }),
  );
  const statesOf = (one: (typeof said)[number]) => states.get(one)!;
  const counts = new Map<string, number>();
  for (const one of said)
    for (const [, css] of statesOf(one)) counts.set(signOf(css), (counts.get(signOf(css)) ?? 0) + 1);
  const isAlone = ([, css]: readonly [string, Declarations, string | null]): boolean =>
    counts.get(signOf(css)) === 1;
  for (const group of groups.values()) {
    blocks(group.map(([selector, { base, key }]) => [selector, base, key]));
    blocks(group.flatMap(statesOf).filter(isAlone));
  }
  blocks(said.flatMap(statesOf).filter((one) => !isAlone(one)));
  const inside = (condition: string, table: 'at' | 'from', width: number): void => {
    if (out.length) put('', null);
    put(`@media (width ${condition} ${width}px) {`, null);
    blocks(
      said.flatMap(([selector, rule]) =>
        rule[table][width] ? [[selector, rule[table][width], rule.key, rule.isOver] as const] : [],
      ),
      '  ',
    );
    // What is drawn before or after elements stands behind what these look like.
    blocks(
      said.flatMap(([selector, { states: all, key }]) =>
        table === 'from'
          ? []
          : Object.entries(all).flatMap(([state, css]) => {
              const drawn = drawnUpTo(state);
              return drawn?.width === width ? [[`${selector}${drawn.part}`, css, key] as const] : [];
            }),
      ),
      '  ',
    );
    put('}', null);
  };
  const widthsIn = (table: 'at' | 'from'): number[] => [
    ...new Set(
      rules.flatMap((rule) => [
        ...Object.entries(rule[table]).flatMap(([width, css]) =>
          Object.keys(css).length ? [Number(width)] : [],
        ),
        ...(table === 'at' ? Object.keys(rule.states).flatMap((state) => drawnUpTo(state)?.width ?? []) : []),
      ]),
    ),
  ];
  for (const width of widthsIn('at').sort((a, b) => b - a)) inside('<=', 'at', width);
  for (const width of widthsIn('from').sort((a, b) => a - b)) inside('>=', 'from', width);
  return { text: out.length ? `${out.join('\n')}\n` : '', lines };
}

/** What comes later counts where an element is in two states at once; others come behind these. */
const STATE_ORDER = [':hover', ':focus-visible', ':disabled', '::before', '::after', '::placeholder'];

/** The states of a rule in one order, whatever order they became known in. */
function statesInOrder(states: StyleRule['states']): (readonly [state: string, css: Declarations])[] {
  const rank = (state: string): number => {
    const known = STATE_ORDER.indexOf(state);
    return known < 0 ? STATE_ORDER.length : known;
  };
  return Object.entries(states).sort(([a], [b]) => rank(a) - rank(b) || (a < b ? -1 : 1));
}

/** A class in a state; what stands right within something in one is written as its child. */
function inState(selector: string, state: string): string {
  const within = /^:is\((.+) > \*\)$/.exec(state);
  return within ? `${within[1]} > ${selector}` : `${selector}${state}`;
}

/** So much of the shorter of two states is the same at least where they are written together. */
const MOSTLY_THE_SAME = 0.6;

/** What elements look like in states, with what two that follow each other have in common once, before what each has alone. */
function parted(
  states: Readonly<Record<string, Declarations>>,
): (readonly [states: readonly string[], css: Declarations])[] {
  const open = Object.entries(states);
  const found: (readonly [readonly string[], Declarations])[] = [];
  for (let i = 0; i < open.length; i++) {
    const [state, css] = open[i];
    const [next, other] = open[i + 1] ?? ['', {}];
    const [own, others] = [Object.entries(css), Object.entries(other)];
    const common = own.filter(([name, value]) => other[name] === value);
    // The same altogether stands together anyway; what belongs to an element of its own does not.
    const isSame = common.length === own.length && common.length === others.length;
    const isWorth =
      common.length > 1 && common.length >= Math.min(own.length, others.length) * MOSTLY_THE_SAME;
    if (isSame || !isWorth || `${state}${next}`.includes('::')) {
      found.push([[state], css]);
      continue;
    }
    const without = (entries: readonly [string, string][]): Declarations =>
      Object.fromEntries(entries.filter(([name, value]) => css[name] !== value || other[name] !== value));
    found.push([[state, next], Object.fromEntries(common)], [[state], without(own)]);
    open[i + 1] = [next, without(others)];
  }
  return found.filter(([, css]) => Object.keys(css).length);
}

/** A declaration as the standards have it now. */
function modern(name: string, value: string): [string, string] {
  if (name === 'clip' && value.startsWith('rect(')) return ['clip-path', value.replaceAll(',', '')];
  if (name === 'word-break' && value === 'break-word') return ['overflow-wrap', 'anywhere'];
  return [name, value];
}

const signOf = (css: Declarations): string => JSON.stringify(Object.entries(css).sort());

/** Properties whose lists are written a part a line. */
const LISTS = new Set(['box-shadow', 'transition', 'mask', 'will-change', 'src', 'grid-template-columns']);

const mapUrls = (value: string, urlOf: (address: string) => string): string =>
  value.replace(
    /url\(\s*["']?(asset:[^"')]+)["']?\s*\)/g,
    (_, address: string) => `url(${cssText(urlOf(address))})`,
  );
