/**
 * Learns how much each trait of a pair says of where an element leads, and what a likelihood was worth on templates that it
 * was not learned from; writes `weights.ts`. Prints what comes of it when each template is left out in turn.
 * `node --import tsx bench/links/learn.ts` installs what it needs.
 */
import { writeFileSync } from 'node:fs';
import { HeadlessHost } from '@tovel/reader/headless';
import { format, resolveConfig } from 'prettier';
import { weighedPairs } from '../../packages/core/src/links/propose/propose.ts';
import { TRAITS } from '../../packages/core/src/links/propose/traits.ts';
import { bareName, installed } from '../installed.ts';
import { isotonic } from '../isotonic.ts';
import { blindPile, fileOf, placeOf, TO_LEARN } from './piles.ts';

interface Row {
  readonly x: readonly number[];
  readonly y: number;
  readonly template: string;
  readonly element: string;
}

/** What evidence is worth of which pages of templates have none, and drawings do. */
const PRIOR: Readonly<Partial<Record<(typeof TRAITS)[number], number>>> = {
  'steps and ways back': 4,
  'rows of its list': 1.5,
  'what is sent': 1.5,
  'the app’s own name': 1.5,
};

/** Logistic regression by gradient steps (Adam, Kingma and Ba 2015), with a small pull of all weights but the first to what was known before. */
function learn(rows: readonly Row[], steps = 600, pull = 2e-3): number[] {
  const size = TRAITS.length;
  const w = Float64Array.from(TRAITS, (trait) => PRIOR[trait] ?? 0);
  const [m, v] = [new Float64Array(size), new Float64Array(size)];
  const counts = new Map<string, number>();
  for (const { template } of rows) counts.set(template, (counts.get(template) ?? 0) + 1);
  // A template with many links says more than one with few, but not as many times more.
  const weights = rows.map(({ template }) => 1 / Math.sqrt(counts.get(template)!));
  const total = weights.reduce((sum, one) => sum + one, 0);
  for (let t = 1; t <= steps; t++) {
    const g = new Float64Array(size);
    rows.forEach(({ x, y }, k) => {
      const d = (weights[k] * (likelihood(w, x) - y)) / total;
      for (let i = 0; i < size; i++) g[i] += d * x[i];
    });
    for (let i = 0; i < size; i++) {
      if (i) g[i] += pull * (w[i] - (PRIOR[TRAITS[i]] ?? 0));
      m[i] = 0.9 * m[i] + 0.1 * g[i];
      v[i] = 0.999 * v[i] + 0.001 * g[i] * g[i];
      w[i] -= (0.1 * (m[i] / (1 - 0.9 ** t))) / (Math.sqrt(v[i] / (1 - 0.999 ** t)) + 1e-8);
    }
  }
  return [...w].map((value) => Math.round(value * 100) / 100);
}

const likelihood = (w: ArrayLike<number>, x: readonly number[]): number => {
  let z = 0;
  for (let i = 0; i < x.length; i++) z += w[i] * x[i];
  return 1 / (1 + Math.exp(-z));
};

/** The likeliest pair of each element. */
function best(rows: readonly Row[], w: readonly number[]): { readonly p: number; readonly y: number }[] {
  const found = new Map<string, { p: number; y: number }>();
  for (const { x, y, element, template } of rows) {
    const p = likelihood(w, x);
    const key = `${template} ${element}`;
    if (p > (found.get(key)?.p ?? -1)) found.set(key, { p, y });
  }
  return [...found.values()];
}

const packaged = await installed(TO_LEARN);
const host = new HeadlessHost();
const rows: Row[] = [];
const totals = new Map<string, number>();
try {
  for (const name of TO_LEARN)
    for (const neutral of [false, true]) {
      const { screens, truth } = await blindPile(packaged.rootOf(name), neutral, host);
      const files = new Map(screens.map((screen) => [screen.key, fileOf(screen)]));
      const template = `${bareName(name)}${neutral ? ' neutral' : ''}`;
      totals.set(template, truth.size);
      const design = { format: 'tovel-design/1' as const, iteration: 1, screens, assets: [], notices: [] };
      for (const pairs of weighedPairs(design))
        for (const { element, to, traits } of pairs) {
          const { key, source } = element.sight.element;
          const is = truth.get(placeOf(files.get(element.screen)!, source.path));
          rows.push({ x: traits, y: Number(files.get(to) === is), template, element: key });
        }
    }
} finally {
  await host.close();
  await packaged.remove();
}

const left: { readonly p: number; readonly y: number }[] = [];
for (const name of TO_LEARN.map(bareName)) {
  const isOwn = ({ template }: Row): boolean => template.replace(/ neutral$/, '') === name;
  const w = learn(rows.filter((row) => !isOwn(row)));
  for (const template of [name, `${name} neutral`]) {
    const found = best(
      rows.filter((row) => row.template === template),
      w,
    );
    left.push(...found);
    const said = found.filter(({ p }) => p >= 0.5);
    const right = said.filter(({ y }) => y).length;
    console.log(
      `  ${template.padEnd(42)} precision ${(right / Math.max(1, said.length)).toFixed(2)}  recall ${(right / totals.get(template)!).toFixed(2)}  of ${totals.get(template)}`,
    );
  }
}
const weights = learn(rows);
const steps = isotonic(left);
const target = 'packages/core/src/links/propose/weights.ts';
const code = `/** Learned by \`bench/links/learn.ts\`, in the order of \`TRAITS\`. */
export const WEIGHTS: readonly number[] = [
${weights.map((weight, i) => `  ${weight}, // ${TRAITS[i]}`).join('\n')}
];

/** From a likelihood on, the share that was right on templates that were not learned from. */
export const STEPS: readonly (readonly [from: number, share: number])[] = [
${steps.map(([from, share]) => `  [${from}, ${share}],`).join('\n')}
];
`;
writeFileSync(target, await format(code, { ...(await resolveConfig(target)), parser: 'typescript' }));
