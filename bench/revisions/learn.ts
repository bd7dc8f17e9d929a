/**
 * Learns the weights of matching from revisions with known pairs, and prints `weights.ts`. Which pairs are one is learned
 * from the elements' own evidence first; then, with those weights, how sure a pair that was found is.
 * `node --import tsx bench/revisions/learn.ts FILE...` takes prepared revisions.
 */
import { readFileSync } from 'node:fs';
import type { Design, Element } from '@tovel/core';
import { CONTEXT, OWN, ownEvidence } from '../../packages/core/src/match/likeness.ts';
import { Matcher } from '../../packages/core/src/match/elements.ts';
import { type Traits, traitsOf } from '../../packages/core/src/match/traits.ts';
import { chance } from '../../packages/core/src/testing/chance.ts';
import type { Revision } from './prepare.ts';

interface Row {
  readonly x: Float64Array;
  readonly y: number;
  readonly weight: number;
}

/** Logistic regression by gradient steps (Adam, Kingma and Ba 2015), with a small pull of all weights to 0. */
function learn(rows: readonly Row[], size: number, steps = 400, pull = 1e-4): number[] {
  const w = new Float64Array(size);
  const m = new Float64Array(size);
  const v = new Float64Array(size);
  const total = rows.reduce((sum, row) => sum + row.weight, 0);
  for (let t = 1; t <= steps; t++) {
    const g = new Float64Array(size);
    for (const { x, y, weight } of rows) {
      let z = 0;
      for (let i = 0; i < size; i++) z += w[i] * x[i];
      const d = (weight * (1 / (1 + Math.exp(-z)) - y)) / total;
      for (let i = 0; i < size; i++) g[i] += d * x[i];
    }
    for (let i = 0; i < size; i++) {
      g[i] += pull * w[i];
      m[i] = 0.9 * m[i] + 0.1 * g[i];
      v[i] = 0.999 * v[i] + 0.001 * g[i] * g[i];
      w[i] -= (0.1 * (m[i] / (1 - 0.9 ** t))) / (Math.sqrt(v[i] / (1 - 0.999 ** t)) + 1e-8);
    }
  }
  return [...w].map((value) => Math.round(value * 100) / 100);
}

const byPath = (all: readonly Traits[]): Map<string, Traits> =>
  new Map(
    all.filter((one) => !one.element.source.path.includes('~')).map((one) => [one.element.source.path, one]),
  );

const own: Row[] = [];
const context: Row[] = [];
const random = chance(7);
const stage = process.env.TOVEL_LEARN ?? 'own';
/**
 * A page as somebody would draw it: layers with names, no classes, no attributes, no elements but boxes and texts; new
 * boxes look plain.
 */
function asDrawn(element: Element, isKnown: (path: string) => boolean): Element {
  const { classes, attributes: _a, role: _r, tag, ...rest } = element;
  const style = isKnown(element.source.path) ? element.style : { base: {} };
  return {
    ...rest,
    ...(tag === undefined ? {} : { tag: element.kind === 'text' ? 'p' : 'div' }),
    // Who draws names some layers, much as who writes pages gives classes.
    name: classes?.split(' ')[0] || element.kind,
    source: { file: element.source.file, path: element.source.path },
    style,
    children: element.children.map((child) => asDrawn(child, isKnown)),
  };
}

/** What is learned from: pages, the same pages as they would be drawn, or both. */
const making = process.env.TOVEL_LEARN_AS ?? 'page';
const everything: { readonly before: Design; readonly after: Design; readonly truth: Revision['truth'] }[] =
  [];
for (const file of process.argv.slice(2)) {
  const revision = JSON.parse(readFileSync(file, 'utf8')) as Revision;
  const { truth } = revision;
  const drawn = (design: Design, isNew: boolean): Design => ({
    ...design,
    screens: design.screens.map((screen) => {
      const known = new Set(Object.values(truth[screen.source.file] ?? {}));
      return {
        ...screen,
        root: asDrawn(screen.root, (path) => !isNew || path.includes('~') || known.has(path)),
      };
    }),
  });
  if (making !== 'drawing') everything.push(revision);
  if (making !== 'page')
    everything.push({ truth, before: drawn(revision.before, false), after: drawn(revision.after, true) });
}
for (const { before, after, truth } of everything) {
  for (const old of before.screens) {
    const now = after.screens.find(({ source }) => source.file === old.source.file);
    const pairs = truth[old.source.file];
    if (!now || !pairs) continue;
    const [olds, nows] = [traitsOf(old.root), traitsOf(now.root)];
    const [oldAt, nowAt] = [byPath(olds), byPath(nows)];
    if (stage === 'own') {
      const byTag = new Map<string, Traits[]>();
      for (const one of olds) byTag.set(one.tag, [...(byTag.get(one.tag) ?? []), one]);
      for (const [from, to] of Object.entries(pairs)) {
        const [a, b] = [oldAt.get(from), nowAt.get(to)];
        if (!a || !b) continue;
        // Whole subtrees that are the same are paired without weights, so they are learned from less.
        const weight = a.exact === b.exact ? 0.1 : 1;
        own.push({ x: ownEvidence(a, b), y: 1, weight });
        const others = new Set<Traits>(
          (a.parent?.children ?? []).filter((one) => Math.abs(one.index - a.index) < 4),
        );
        const alike = byTag.get(b.tag) ?? [];
        for (let i = 0; i < 3 && alike.length; i++) others.add(alike[Math.floor(random() * alike.length)]);
        // What it holds and what holds it are alike, and not the same.
        if (a.parent) others.add(a.parent);
        for (const child of a.children.slice(0, 2)) others.add(child);
        others.delete(a);
        for (const other of others) own.push({ x: ownEvidence(other, b), y: 0, weight: weight * 0.2 });
      }
      const known = new Set(Object.values(pairs));
      // What is new is nobody: held against what stood where it stands now.
      for (const b of nows) {
        if (known.has(b.element.source.path) || b.element.source.path.includes('~') || !b.parent) continue;
        const into = Object.entries(pairs).find(([, to]) => to === b.parent!.element.source.path);
        const holder = into && oldAt.get(into[0]);
        for (const a of holder?.children.slice(0, 8) ?? [])
          own.push({ x: ownEvidence(a, b), y: 0, weight: 0.3 });
      }
    } else {
      const matcher = new Matcher(olds, nows);
      matcher.run();
      for (const [a, b] of matcher.newOf) {
        const [from, to] = [a.element.source.path, b.element.source.path];
        if (from.includes('~') || to.includes('~')) continue;
        context.push({ x: matcher.evidenceOf(a, b), y: pairs[from] === to ? 1 : 0, weight: 1 });
      }
    }
  }
}
const [rows, names] = stage === 'own' ? [own, OWN] : [context, CONTEXT];
const weights = learn(rows, names.length);
console.error(rows.length, 'pairs', rows.filter(({ y }) => y).length, 'right');
console.log(names.map((name, i) => `  ${weights[i]}, // ${name}`).join('\n'));
