import { type Role, ROLES, type Screen, scoreRoles } from '@tovel/core';
import { inferByRules } from '../../packages/core/src/roles/infer.ts';
import { type Company, companyOf } from '../../packages/core/src/roles/learned/company_traits.ts';
import { classOfRole, trustInRules } from '../../packages/core/src/roles/learned/model.ts';
import { ALWAYS, traitsOf } from '../../packages/core/src/roles/learned/traits.ts';
import { type ScreenSight, sightOf } from '../../packages/core/src/roles/sight.ts';
import { isotonic } from '../isotonic.ts';
import { learnSoftmax, likelihoods, type Row } from './softmax.ts';

/** What a page's tags say of things that cannot be seen, or that people would not call so. */
const UNCOUNTED = ['icon', 'label', 'chart', 'avatar', 'menuitem', 'radiogroup', 'none'];
export const COUNTED: ReadonlySet<string> = new Set(ROLES.filter((role) => !UNCOUNTED.includes(role)));
export const CLASSES = ['none', ...ROLES.filter((role) => COUNTED.has(role))] as readonly (Role | 'none')[];

/** A page whose tags were hidden, with the role that each told, by the path of its element. */
export interface TruePage {
  readonly template: string;
  readonly isNeutral: boolean;
  readonly screen: Screen;
  readonly truth: ReadonlyMap<string, string>;
}

/** How much each trait says for each class, a row of classes for each trait. */
export interface Learned {
  readonly traits: readonly string[];
  readonly weights: Float32Array;
}

interface Prepared {
  readonly page: TruePage;
  readonly traits: readonly (readonly string[])[];
  readonly classes: readonly number[];
  /** The class that rules put each element into; less than none where they do not. */
  readonly byRules: readonly number[];
}

/** How it is learned. */
export const SETTINGS = {
  pull: 1e-3,
  epochs: 12,
  /** What a rule says counts so much before anything is learned. */
  trustInRules: 2,
  /** Of a role that is rare each element counts for more, by its number to this power. */
  balance: -0.4,
};
/** Words that fewer authors use are theirs alone. */
const LEAST_TEMPLATES = { word: 3, other: 2 };

/** The traits of all elements, and what they truly are. */
export function prepare(page: TruePage): Prepared {
  const sight: ScreenSight = sightOf(page.screen);
  const guesses = inferByRules(page.screen);
  const company: Company = companyOf(sight, ({ element }) => guesses.get(element.key)?.role ?? null);
  return {
    page,
    traits: sight.all.map((s) => [...traitsOf(s, sight, company)]),
    byRules: sight.all.map(({ element }) => classOfRole(guesses.get(element.key)?.role ?? null)),
    classes: sight.all.map(({ element }) => {
      const role = page.truth.get(element.source.path);
      return Math.max(0, role ? CLASSES.indexOf(role as Role) : 0);
    }),
  };
}

export function learn(pages: readonly Prepared[], settings = SETTINGS): Learned {
  const seen = new Map<string, Set<string>>();
  const elements = new Map<string, number>();
  const many = CLASSES.map(() => 0);
  for (const { page, traits, classes } of pages) {
    elements.set(page.template, (elements.get(page.template) ?? 0) + traits.length);
    for (const one of classes) many[one]++;
    for (const trait of traits.flat()) {
      const templates = seen.get(trait);
      if (templates) templates.add(page.template);
      else seen.set(trait, new Set([page.template]));
    }
  }
  const least = (trait: string): number =>
    /^(called|in what is called) /.test(trait) ? LEAST_TEMPLATES.word : LEAST_TEMPLATES.other;
  const traits = [
    ALWAYS,
    ...[...seen]
      .filter(([trait, templates]) => trait !== ALWAYS && templates.size >= least(trait))
      .map(([trait]) => trait),
  ];
  const numbers = new Map(traits.map((trait, i) => [trait, i]));
  const rows = pages.flatMap(({ page, traits: ofPage, classes }) =>
    ofPage.map((held, i): Row => ({
      x: code(held, numbers),
      y: classes[i],
      // A template with many elements says more than one with few, but not as many times more.
      weight: many[classes[i]] ** settings.balance / Math.sqrt(elements.get(page.template)!),
    })),
  );
  const prior = new Float32Array(traits.length * CLASSES.length);
  const trust = (role: string, of: string): void => {
    const trait = numbers.get(`at first ${role}`);
    if (trait !== undefined)
      prior[trait * CLASSES.length + CLASSES.indexOf(of as Role)] = settings.trustInRules;
  };
  for (const role of CLASSES) trust(role, role);
  trust('avatar', 'image');
  const weights = learnSoftmax(
    rows,
    { traits: traits.length, classes: CLASSES.length },
    prior,
    settings.pull,
    settings.epochs,
  );
  return { traits, weights };
}

const code = (traits: readonly string[], numbers: ReadonlyMap<string, number>): Int32Array =>
  Int32Array.from(traits.flatMap((trait) => numbers.get(trait) ?? []));

/** The likeliest class, where what rules say counts for more; changes what is given. */
function trusting(p: Float64Array, byRules: number, trust: number): number {
  if (byRules >= 0) p[byRules] *= Math.exp(trust);
  const sum = p.reduce((total, one) => total + one, 0);
  p.forEach((one, i) => (p[i] = one / sum));
  return p.indexOf(Math.max(...p));
}

/** How sure what was said of each element was, and whether it was right; where it was said to be something. */
export function said({ traits, weights }: Learned, pages: readonly Prepared[]): { p: number; y: number }[] {
  const numbers = new Map(traits.map((trait, i) => [trait, i]));
  const p = new Float64Array(CLASSES.length);
  return pages.flatMap((page) => {
    const trust = trustInRules(page.traits, (trait) => numbers.has(trait));
    return page.traits.flatMap((held, i) => {
      likelihoods(weights, code(held, numbers), CLASSES.length, p);
      const best = trusting(p, page.byRules[i], trust);
      return best ? [{ p: p[best], y: Number(best === page.classes[i]) }] : [];
    });
  });
}

/** From a likelihood on, the share that was right on templates whose authors were left out. */
export function sharesOf(
  pages: readonly Prepared[],
  authorOf: (template: string) => string,
): [number, number][] {
  const authors = new Set(pages.map(({ page }) => authorOf(page.template)));
  return isotonic(
    [...authors].flatMap((author) => {
      const isLeft = ({ page }: Prepared): boolean => authorOf(page.template) === author;
      return said(learn(pages.filter((page) => !isLeft(page))), pages.filter(isLeft));
    }),
  );
}

/** Macro F1 of what is said of pages, by rules alone and as learned. */
export function score(learned: Learned, pages: readonly Prepared[]): { byRules: number; asLearned: number } {
  const numbers = new Map(learned.traits.map((trait, i) => [trait, i]));
  const p = new Float64Array(CLASSES.length);
  const [truth, rules, found] = [
    new Map<string, string>(),
    new Map<string, string>(),
    new Map<string, string>(),
  ];
  pages.forEach(({ traits, classes, byRules }, k) => {
    const trust = trustInRules(traits, (trait) => numbers.has(trait));
    traits.forEach((held, i) => {
      const place = `${k} ${i}`;
      if (classes[i]) truth.set(place, CLASSES[classes[i]]);
      if (byRules[i] > 0) rules.set(place, CLASSES[byRules[i]]);
      likelihoods(learned.weights, code(held, numbers), CLASSES.length, p);
      const best = trusting(p, byRules[i], trust);
      if (best) found.set(place, CLASSES[best]);
    });
  });
  return { byRules: scoreRoles(truth, rules).macroF1, asLearned: scoreRoles(truth, found).macroF1 };
}
