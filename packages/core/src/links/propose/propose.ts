import { grouped } from '../../json/grouped.ts';
import type { Design, Screen } from '../../model/design.ts';
import type { Sight } from '../../roles/sight.ts';
import { isExternalAddress } from '../../vocabulary/addresses.ts';
import { type Evidence, labelKey, type Names, type Pressed } from './evidence.ts';
import { fromForms, isAbout } from './form_evidence.ts';
import { fromSameMenus } from './menu_counterparts.ts';
import { fromMenus } from './menu_evidence.ts';
import { menusOf } from './menus.ts';
import { fromNames, namesOf, weightOf } from './name_evidence.ts';
import { pressedOn } from './pressed.ts';
import { fromRows } from './row_evidence.ts';
import { fromSequence, stepOf } from './sequence_evidence.ts';
import { nameLikeness, type TraitContext, traitsOf } from './traits.ts';
import { calibrated, likelihoodOf } from './likelihood.ts';
import { brandLabels, fromPlace, guessedStart, startOf } from './start_evidence.ts';
import { wordsIn } from './words.ts';

/** Where an element may lead, with how sure that is (0 to 1) and why. */
export interface LinkProposal {
  readonly element: string;
  /** Key of the screen. */
  readonly to: string;
  readonly confidence: number;
  readonly reason: string;
  /** It leads back to where one came from; `to` is the likeliest of those screens. */
  readonly isBack?: true;
}

/** Proposals below this are not made. */
const LEAST = 0.15;
/** So many targets are proposed for one element. */
const MOST = 3;

/**
 * Where every element that can be pressed may lead, best first. What speaks for a screen (menus whose marked entry changes
 * from screen to screen, what elements say against what screens are called, brands, rows, steps and ways back, what is sent)
 * is weighed as it was learned from templates, and said as sure as it was right on others.
 * @param synonyms words that mean the same in this project, by word.
 */
export function proposeLinks(
  design: Design,
  screens: readonly Screen[] = design.screens,
  synonyms: Readonly<Record<string, string>> = {},
): LinkProposal[] {
  const same = synonymsOf(synonyms);
  const names = namesOf(screens, same);
  const pressed = screens.flatMap((screen) => pressedOn(screen, same, names));
  const found = pairsOf(screens, pressed, names).flatMap((pairs) =>
    pairs
      .map(({ element, to, traits, evidence }): LinkProposal => {
        const sorted = evidence.toSorted((a, b) => b.strength - a.strength);
        return {
          element: element.sight.element.key,
          to,
          confidence: calibrated(likelihoodOf(traits)),
          reason: [...new Set(sorted.slice(0, 3).map((one) => one.reason))].join('; '),
          ...(sorted[0].isBack ? { isBack: true as const } : {}),
        };
      })
      .sort(surer)
      .slice(0, MOST)
      .filter(({ confidence }) => confidence >= LEAST),
  );
  const more = fromSameMenus(pressed, found);
  if (!more.length) return found;
  return [...grouped([...found, ...more], ({ element }) => element).values()].flatMap((list) =>
    list.sort(surer).slice(0, MOST),
  );
}

const surer = (a: LinkProposal, b: LinkProposal): number =>
  b.confidence - a.confidence || (a.to < b.to ? -1 : 1);

/** An element and a screen that it may lead to, with what speaks for it. */
export interface WeighedPair {
  readonly element: Pressed;
  readonly to: string;
  readonly evidence: readonly Evidence[];
  /** In the order of `TRAITS`. */
  readonly traits: readonly number[];
}

/** For each element that can be pressed and leads nowhere yet, the screens that anything speaks for. */
export function weighedPairs(
  design: Design,
  screens: readonly Screen[] = design.screens,
  synonyms: Readonly<Record<string, string>> = {},
): WeighedPair[][] {
  const same = synonymsOf(synonyms);
  const names = namesOf(screens, same);
  return pairsOf(
    screens,
    screens.flatMap((screen) => pressedOn(screen, same, names)),
    names,
  );
}

function pairsOf(
  screens: readonly Screen[],
  pressed: readonly Pressed[],
  names: ReadonlyMap<string, Names>,
): WeighedPair[][] {
  const weight = weightOf(names);
  const menus = menusOf(pressed);
  const login = screens.find((screen) => isAbout(names.get(screen.key)!, 'login'))?.key ?? null;
  const byWord = new Map<string, Set<string>>();
  for (const [key, { title, file, headings }] of names)
    for (const word of [...title, ...file, ...headings.flat()])
      byWord.set(word, (byWord.get(word) ?? new Set()).add(key));
  const brands = brandLabels(pressed, screens.length);
  const named = pressed.map((element) => ({
    element,
    evidence: [...fromMenus(element, menus.get(element)), ...fromNames(element, names, byWord, weight)],
  }));
  const start = startOf(screens, names, pressed, menus) ?? guessedStart(screens, named);
  const first = named.map(({ element, evidence }) => ({
    element,
    evidence: [
      ...evidence,
      ...fromPlace(element, brands, start),
      ...fromForms(element, names, start?.screen ?? null, login),
    ],
  }));
  const rows = fromRows(first, names);
  const steps = new Map(
    screens.flatMap((screen) => {
      const step = stepOf(screen);
      return step ? [[screen.key, step] as const] : [];
    }),
  );
  const known = first.map(({ element, evidence }) => ({
    element,
    evidence: [...evidence, ...(rows.get(element) ?? [])],
  }));
  const leadsHere = arrivalsOf(known);
  const labels = new Map<string, Set<string>>();
  const entries = new Map<Sight, Pressed[]>();
  for (const element of pressed) {
    const key = labelKey(element);
    labels.set(key, (labels.get(key) ?? new Set()).add(element.screen));
    if (element.menu) entries.set(element.menu, [...(entries.get(element.menu) ?? []), element]);
  }
  const best = new Map<Pressed, { likeness: number; count: number }>();
  for (const { element, evidence } of known) {
    const likenesses = [...new Set(evidence.flatMap(({ kind, to }) => (kind === 'name' ? [to] : [])))].map(
      (to) => nameLikeness(element, to, { names, weight }).best,
    );
    const likeness = Math.max(0, ...likenesses);
    best.set(element, { likeness, count: likenesses.filter((one) => one >= likeness).length });
  }
  const context: TraitContext = {
    names,
    weight,
    menus,
    screens: screens.length,
    labels: new Map([...labels].map(([key, on]) => [key, on.size])),
    entries,
    best,
  };
  return known.flatMap(({ element, evidence }) => {
    if (leadsOutside(element)) return [];
    const all = [...evidence, ...fromSequence(element, screens, steps, leadsHere)];
    // Only an entry of a menu leads to where one is.
    const targets = grouped(
      all.filter(({ to }) => to !== element.screen || element.menu),
      ({ to }) => to,
    );
    return [
      [...targets].map(([to, list]) => ({
        element,
        to,
        evidence: list,
        traits: traitsOf(element, to, list, context),
      })),
    ];
  });
}

/** Whether the page itself says where an element leads, and that is no screen. */
const leadsOutside = ({ sight }: Pressed): boolean => isExternalAddress(sight.element.attributes?.href ?? '');

/** Who surely leads to each screen from outside of menus, the surest first; who leads there from a menu after them. */
function arrivalsOf(
  list: readonly { readonly element: Pressed; readonly evidence: readonly Evidence[] }[],
): Map<string, string[]> {
  const found = new Map<string, Map<string, number>>();
  for (const { element, evidence } of list)
    for (const { to, strength } of evidence) {
      if (strength < 0.5 || to === element.screen) continue;
      const from = found.get(to) ?? new Map<string, number>();
      from.set(element.screen, (from.get(element.screen) ?? 0) + strength * (element.menu ? 0.2 : 1));
      found.set(to, from);
    }
  return new Map(
    [...found].map(([to, from]) => [to, [...from].sort((a, b) => b[1] - a[1]).map(([key]) => key)]),
  );
}

type Words = (words: readonly string[]) => string[];

/** Brings words that mean the same in a project to one of them. */
function synonymsOf(synonyms: Readonly<Record<string, string>>): Words {
  const to = new Map(
    Object.entries(synonyms).flatMap(([word, other]) => {
      const [from, canon] = [wordsIn(word)[0], wordsIn(other)[0]];
      return from && canon ? [[from, canon] as const] : [];
    }),
  );
  return (words) => [...new Set(words.map((word) => to.get(word) ?? word))];
}
