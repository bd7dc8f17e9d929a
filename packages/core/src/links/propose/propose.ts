import type { Design, Screen } from '../../model/design.ts';
import { type Evidence, labelKey, type Pressed } from './evidence.ts';
import { fromForms, isAbout } from './form_evidence.ts';
import { currentLabels, fromMenus } from './menu_evidence.ts';
import { fromNames, namesOf, weightOf } from './name_evidence.ts';
import { pressedOn } from './pressed.ts';
import { fromRows } from './row_evidence.ts';
import { fromSequence, stepOf } from './sequence_evidence.ts';
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
 * Where every element that can be pressed may lead, best first. Menus whose marked entry changes from screen to screen
 * say most; then what elements say, or show as an icon, against what screens are called; then what the same label leads
 * to elsewhere, brands, rows that lead to a detail, steps and ways back, and what is sent. Evidence of different kinds is
 * combined as if it were independent.
 * @param synonyms words that mean the same in this project, by word.
 */
export function proposeLinks(
  design: Design,
  screens: readonly Screen[] = design.screens,
  synonyms: Readonly<Record<string, string>> = {},
): LinkProposal[] {
  const same = synonymsOf(synonyms);
  const names = namesOf(screens, same);
  const pressed = screens.flatMap((screen) => pressedOn(screen, same));
  const weight = weightOf(names);
  const current = currentLabels(pressed);
  const login = screens.find((screen) => isAbout(names.get(screen.key)!, 'login'))?.key ?? null;
  const byWord = new Map<string, Set<string>>();
  for (const [key, { title, file, headings }] of names)
    for (const word of [...title, ...file, ...headings.flat()])
      byWord.set(word, (byWord.get(word) ?? new Set()).add(key));
  const brands = brandLabels(pressed, screens.length);
  const named = pressed.map((element) => ({
    element,
    evidence: [...fromMenus(element, current), ...fromNames(element, names, byWord, weight)],
  }));
  const start = startOf(screens, names, pressed, current) ?? guessedStart(screens, named);
  const first = named.map(({ element, evidence }) => ({
    element,
    evidence: [
      ...evidence,
      ...fromPlace(element, brands, start),
      ...fromForms(element, names, start?.screen ?? null, login),
    ],
  }));
  const agreed = agreement(first);
  const rows = fromRows(first, names);
  const steps = new Map(
    screens.flatMap((screen) => {
      const step = stepOf(screen);
      return step ? [[screen.key, step] as const] : [];
    }),
  );
  const known = first.map(({ element, evidence }) => ({
    element,
    evidence: [...evidence, ...(agreed.get(labelKey(element)) ?? []), ...(rows.get(element) ?? [])],
  }));
  const leadsHere = arrivalsOf(known);
  return known.flatMap(({ element, evidence }) =>
    combine(element, [...evidence, ...fromSequence(element, screens, steps, leadsHere)]),
  );
}

/** Who surely leads to each screen from outside of menus, the surest first; who leads there from a menu after them. */
function arrivalsOf(
  list: readonly { readonly element: Pressed; readonly evidence: readonly Evidence[] }[],
): Map<string, string[]> {
  const found = new Map<string, Map<string, number>>();
  for (const { element, evidence } of list)
    for (const { to, strength } of evidence) {
      if (strength < 0.5 || to === element.screen) continue;
      const from = found.get(to) ?? new Map<string, number>();
      from.set(element.screen, (from.get(element.screen) ?? 0) + strength * (element.isMenu ? 0.2 : 1));
      found.set(to, from);
    }
  return new Map(
    [...found].map(([to, from]) => [to, [...from].sort((a, b) => b[1] - a[1]).map(([key]) => key)]),
  );
}

/** Brings words that mean the same in a project to one of them. */
function synonymsOf(synonyms: Readonly<Record<string, string>>): (words: readonly string[]) => string[] {
  const to = new Map(
    Object.entries(synonyms).flatMap(([word, other]) => {
      const [from, canon] = [wordsIn(word)[0], wordsIn(other)[0]];
      return from && canon ? [[from, canon] as const] : [];
    }),
  );
  return (words) => [...new Set(words.map((word) => to.get(word) ?? word))];
}

/** What the same label surely leads to on other screens. */
function agreement(
  list: readonly { element: Pressed; evidence: readonly Evidence[] }[],
): Map<string, Evidence[]> {
  const votes = new Map<string, Map<string, number>>();
  const counts = new Map<string, number>();
  for (const { element, evidence } of list) {
    const key = labelKey(element);
    counts.set(key, (counts.get(key) ?? 0) + 1);
    const [best] = evidence.toSorted((a, b) => b.strength - a.strength);
    if (!best || best.strength < 0.6) continue;
    const own = votes.get(key) ?? new Map<string, number>();
    own.set(best.to, (own.get(best.to) ?? 0) + 1);
    votes.set(key, own);
  }
  const agreed = new Map<string, Evidence[]>();
  for (const [key, own] of votes) {
    const [to, n] = [...own].sort((a, b) => b[1] - a[1])[0];
    const share = n / counts.get(key)!;
    if (n >= 2 && share > 0.5)
      agreed.set(key, [{ to, strength: 0.3 * share, reason: 'so it does on other screens' }]);
  }
  return agreed;
}

function combine(element: Pressed, evidence: readonly Evidence[]): LinkProposal[] {
  const byTarget = new Map<string, Evidence[]>();
  for (const one of evidence) byTarget.set(one.to, [...(byTarget.get(one.to) ?? []), one]);
  const found = [...byTarget].map(([to, list]): LinkProposal => {
    const sorted = list.toSorted((a, b) => b.strength - a.strength);
    const miss = sorted.reduce((all, one) => all * (1 - one.strength), 1);
    return {
      element: element.sight.element.key,
      to,
      confidence: Math.min(0.98, 1 - miss),
      reason: [...new Set(sorted.slice(0, 3).map((one) => one.reason))].join('; '),
      ...(sorted[0].isBack ? { isBack: true as const } : {}),
    };
  });
  found.sort((a, b) => b.confidence - a.confidence || (a.to < b.to ? -1 : 1));
  // Where two are nearly as likely, neither is sure.
  const [best, next] = found;
  const isTorn = best && next && best.confidence - next.confidence < 0.08;
  return found
    .slice(0, MOST)
    .map((proposal) => (isTorn ? { ...proposal, confidence: proposal.confidence * 0.7 } : proposal))
    .filter((proposal) => proposal.confidence >= LEAST);
}
