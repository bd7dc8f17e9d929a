import type { Design, Screen } from '../model/design.ts';
import { textOf } from '../model/project.ts';
import { baseName } from '../intake/files.ts';
import { textsIn } from '../roles/fields.ts';
import { inferRoles } from '../roles/infer.ts';
import { hasParent, type Sight, sightOf } from '../roles/sight.ts';
import { labelOf, pressablesOf } from './pressable.ts';
import { type Evidence, labelKey, type Names, type Pressed } from './evidence.ts';
import { iconWords } from './icon_evidence.ts';
import { fromRows } from './row_evidence.ts';
import { fromSequence, stepOf } from './sequence_evidence.ts';
import { wordLikeness, wordsIn } from './words.ts';

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

/** Which words are in the names of most screens and so tell nothing. */
function weightOf(names: ReadonlyMap<string, Names>): (word: string) => number {
  const counts = new Map<string, number>();
  for (const { title, file, headings } of names.values())
    for (const word of new Set([...title, ...file, ...headings.flat()]))
      counts.set(word, (counts.get(word) ?? 0) + 1);
  return (word) => 1 / Math.max(1, counts.get(word) ?? 1) ** 0.5;
}

function namesOf(
  screens: readonly Screen[],
  same: (words: readonly string[]) => string[],
): Map<string, Names> {
  const titles = new Map(
    screens.map((screen) => [screen.key, same(wordsIn(screen.title ?? screen.name))] as const),
  );
  // What stands in the titles of most screens is the name of the app.
  const counts = new Map<string, number>();
  for (const words of titles.values())
    for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  const isCommon = (word: string): boolean =>
    screens.length > 2 && (counts.get(word) ?? 0) > screens.length * 0.6;
  return new Map(
    screens.map((screen): [string, Names] => {
      const file = baseName(screen.source.file).replace(/\.[^.]*$/, '');
      return [
        screen.key,
        {
          title: titles.get(screen.key)!.filter((word) => !isCommon(word)),
          file: /^(screen|page|frame|artboard|untitled)?[-_ ]?\d*$/i.test(file) ? [] : same(wordsIn(file)),
          headings: headingsOf(screen).map(same),
        },
      ];
    }),
  );
}

/** The largest headings of a screen that are its own, not those of the bars around it. */
function headingsOf(screen: Screen): string[][] {
  const guesses = inferRoles(screen);
  const roleOf = (sight: Sight): string => guesses.get(sight.element.key)?.role ?? '';
  const found = sightOf(screen)
    .all.filter(
      (sight) =>
        roleOf(sight) === 'heading' &&
        !sight.element.hidden &&
        sight.text.length < 90 &&
        !hasParent(
          sight,
          (parent) =>
            ['navigation', 'dialog', 'listitem', 'contentinfo'].includes(roleOf(parent)) ||
            !!parent.element.hidden,
        ),
    )
    .sort((a, b) => b.fontSize - a.fontSize || a.element.box.y - b.element.box.y);
  return found.slice(0, 2).map((sight) => wordsIn(sight.text));
}

/** All that can be pressed, fields left out. */
function pressedOn(screen: Screen, same: (words: readonly string[]) => string[]): Pressed[] {
  const guesses = inferRoles(screen);
  const roleOf = (sight: Sight): string => guesses.get(sight.element.key)?.role ?? '';
  const drawn = new Set(pressablesOf(screen).map((one) => one.element.key));
  const sights = sightOf(screen).all.filter(
    (sight) =>
      ['link', 'button', 'tab', 'menuitem'].includes(roleOf(sight)) ||
      sight.element.tag === 'a' ||
      // Rows that were drawn, and so have no link of their own to be pressed.
      (drawn.has(sight.element.key) && !sight.isAuthored),
  );
  const menus = new Map<Sight, Sight[]>();
  for (const sight of sights) {
    const menu = menuOf(sight, roleOf);
    if (menu) menus.set(menu, [...(menus.get(menu) ?? []), sight]);
  }
  const currents = new Set<Sight>();
  for (const entries of menus.values()) if (entries.length > 1) markCurrent(entries, currents);
  const inMenu = new Set([...menus.values()].filter((entries) => entries.length > 1).flat());
  return sights.map((sight) => {
    const label = labelOf(sight.element);
    const text = textOf(sight.element);
    // Without a text or a label of its own it is only called by its tag.
    const said =
      text.length > 70
        ? label
        : text ||
          sight.element.attributes?.['aria-label'] ||
          sight.element.attributes?.title ||
          (sight.isAuthored ? '' : label);
    return {
      sight,
      screen: screen.key,
      label,
      words: same(said ? wordsIn(said) : iconWords({ sight })),
      isMenu: inMenu.has(sight),
      isCurrent: currents.has(sight),
    };
  });
}

/** The bar or list that a link stands in. */
function menuOf(sight: Sight, roleOf: (sight: Sight) => string): Sight | null {
  for (let parent = sight.parent, up = 0; parent && up < 5; parent = parent.parent, up++)
    if (
      !/ (nav|menu) (item|link) /.test(parent.words) &&
      (['list', 'navigation', 'tablist'].includes(roleOf(parent)) ||
        / (nav|menu|collapse inner|sidebar|dropdown menu) /.test(parent.words))
    )
      return parent;
  return null;
}

/** The one entry of a menu that is marked: by ARIA, by its name, or by looking unlike all others. */
function markCurrent(entries: readonly Sight[], currents: Set<Sight>): void {
  const holders = (sight: Sight): Sight[] => (sight.parent ? [sight, sight.parent] : [sight]);
  const said = entries.filter((sight) =>
    holders(sight).some(
      (holder) =>
        (holder.element.attributes?.['aria-current'] ?? 'false') !== 'false' ||
        / (active|current|selected|is active|nav on|on) /.test(holder.words),
    ),
  );
  if (said.length && said.length <= Math.max(1, entries.length / 2)) {
    said.forEach((sight) => currents.add(sight));
    return;
  }
  if (entries.length < 3) return;
  const looks = entries.map((sight) => {
    const [text = sight] = textsIn(sight);
    return JSON.stringify([
      text.color,
      text.fontWeight,
      sight.element.style.base['background-color'] ??
        sight.parent?.element.style.base['background-color'] ??
        '',
      sight.element.style.base['border-bottom-width'] ?? '',
    ]);
  });
  const counts = new Map<string, number>();
  for (const look of looks) counts.set(look, (counts.get(look) ?? 0) + 1);
  const rare = looks.flatMap((look, i) => (counts.get(look) === 1 ? [i] : []));
  if (rare.length === 1 && counts.size === 2) currents.add(entries[rare[0]]);
}

/** Screens on which a label is marked in a menu, by label. */
function currentLabels(pressed: readonly Pressed[]): Map<string, Map<string, number>> {
  const found = new Map<string, Map<string, number>>();
  for (const element of pressed) {
    if (!element.isCurrent) continue;
    const key = labelKey(element);
    const screens = found.get(key) ?? new Map<string, number>();
    screens.set(element.screen, (screens.get(element.screen) ?? 0) + 1);
    found.set(key, screens);
  }
  return found;
}

function fromMenus(element: Pressed, current: ReadonlyMap<string, ReadonlyMap<string, number>>): Evidence[] {
  if (!element.isMenu) return [];
  const screens = current.get(labelKey(element));
  if (!screens) return [];
  // A group that is marked on several screens leads to none of them in particular.
  const strength = 0.93 / screens.size ** 1.5;
  return [...screens.keys()].map((to) => ({
    to,
    strength,
    reason: `“${element.label}” is the marked entry there`,
  }));
}

/** A label that only opens or closes something. */
const TOGGLE = / (toggle|toggler|collapsed|dropdown toggle|close|accordion|hamburger|carousel) /;

function fromNames(
  element: Pressed,
  names: ReadonlyMap<string, Names>,
  byWord: ReadonlyMap<string, ReadonlySet<string>>,
  weight: (word: string) => number,
): Evidence[] {
  const { words } = element;
  if (!words.length || words.length > 9) return [];
  const candidates = new Set(words.flatMap((word) => [...(byWord.get(word) ?? [])]));
  const isToggle = TOGGLE.test(element.sight.words);
  const found: Evidence[] = [];
  for (const to of candidates) {
    const { title, file, headings } = names.get(to)!;
    const said: [likeness: number, what: string][] = [
      [wordLikeness(words, title, weight), 'is what the screen is called'],
      [wordLikeness(words, file, weight), 'is in the name of its file'],
      ...headings.map((heading, i): [number, string] => [
        wordLikeness(words, heading, weight) * (i ? 0.85 : 0.95),
        'is its heading',
      ]),
    ];
    const [likeness, what] = said.sort((a, b) => b[0] - a[0])[0];
    const second = said[1][0];
    if (likeness < 0.3) continue;
    const strength =
      Math.min(0.94, likeness * 0.84 + second * 0.1) *
      (isToggle ? 0.25 : 1) *
      (to === element.screen && !element.isMenu ? 0.2 : 1);
    found.push({ to, strength, reason: `“${element.label}” ${what}` });
  }
  return found;
}

/** Where the app begins, and whether something says so or it is only the screen that stands first. */
interface Start {
  readonly screen: string;
  readonly isSaid: boolean;
}

/** The first screen: by its file, its name or its heading, by the first entry of the menus, or by what leads on from it. */
function startOf(
  screens: readonly Screen[],
  names: ReadonlyMap<string, Names>,
  pressed: readonly Pressed[],
  current: ReadonlyMap<string, ReadonlyMap<string, number>>,
): Start | null {
  const says = (test: (own: Names) => boolean): string | undefined =>
    screens.find((screen) => test(names.get(screen.key)!))?.key;
  const firstEntry = pressed.find((element) => element.isMenu && current.get(labelKey(element))?.size === 1);
  const said =
    says(({ file }) => file.length === 1 && file[0] === 'home') ??
    says(({ title }) => title.length === 1 && title[0] === 'home') ??
    says(({ file, title }) => file.includes('home') || title.includes('home')) ??
    says(({ headings }) => headings.some((words) => words.includes('home') && words.length <= 2)) ??
    (firstEntry ? [...current.get(labelKey(firstEntry))!.keys()][0] : undefined) ??
    busiest(pressed);
  return said ? { screen: said, isSaid: true } : null;
}

/**
 * Where nothing says which screen is the first: of those that no menu calls by a name of their own the one from which
 * most leads on.
 */
function guessedStart(
  screens: readonly Screen[],
  named: readonly { readonly element: Pressed; readonly evidence: readonly Evidence[] }[],
): Start | null {
  const called = new Set<string>();
  const leadsOn = new Map<string, number>();
  for (const { element, evidence } of named)
    for (const { to, strength } of evidence) {
      if (strength < 0.45) continue;
      if (element.isMenu) called.add(to);
      else if (to !== element.screen) leadsOn.set(element.screen, (leadsOn.get(element.screen) ?? 0) + 1);
    }
  const count = (screen: Screen | undefined): number => (screen && leadsOn.get(screen.key)) ?? 0;
  const [best, next] = screens.filter(({ key }) => !called.has(key)).toSorted((a, b) => count(b) - count(a));
  const screen = best ?? screens[0];
  return screen ? { screen: screen.key, isSaid: count(best) > count(next) } : null;
}

/** The screen from which by far most leads on, besides what all screens have; null where none stands out. */
function busiest(pressed: readonly Pressed[]): string | null {
  const on = new Map<string, Set<string>>();
  const labels = new Map<string, Set<string>>();
  for (const element of pressed) {
    const key = labelKey(element);
    on.set(key, (on.get(key) ?? new Set()).add(element.screen));
    labels.set(element.screen, (labels.get(element.screen) ?? new Set()).add(key));
  }
  const [first, second] = [...labels]
    .map(([screen, own]) => ({ screen, count: [...own].filter((key) => on.get(key)!.size === 1).length }))
    .sort((a, b) => b.count - a.count);
  return first && first.count >= 3 && first.count >= 2 * (second?.count ?? 0) ? first.screen : null;
}

/** Labels that stand at the head of most screens and in no menu: the app's own name. */
function brandLabels(pressed: readonly Pressed[], screens: number): Set<string> {
  const seen = new Map<string, Set<string>>();
  for (const element of pressed) {
    const isBrand =
      / (brand|logo) /.test(element.sight.words) ||
      hasParent(element.sight, (parent) => / (brand|logo) /.test(parent.words));
    const { box } = element.sight.element;
    const isFirst =
      box.height > 0 &&
      box.width > 0 &&
      box.y < 120 &&
      box.x < 260 &&
      !element.isMenu &&
      element.sight.element.tag === 'a';
    if (!isBrand && !isFirst) continue;
    const key = labelKey(element);
    seen.set(key, (seen.get(key) ?? new Set()).add(element.screen));
  }
  return new Set(
    [...seen].filter(([, on]) => on.size >= Math.min(3, Math.max(2, screens * 0.4))).map(([key]) => key),
  );
}

function fromPlace(element: Pressed, brands: ReadonlySet<string>, start: Start | null): Evidence[] {
  if (!start) return [];
  const found: Evidence[] = [];
  const { box } = element.sight.element;
  if (brands.has(labelKey(element)) && box.y < 160)
    found.push({
      to: start.screen,
      strength: start.isSaid ? 0.86 : 0.46,
      reason: 'the app’s own name leads to its first screen',
    });
  if (element.words.includes('home') && element.words.length <= 2)
    found.push({
      to: start.screen,
      strength: (start.isSaid ? 0.62 : 0.42) * (element.words.length === 1 ? 1 : 0.5),
      reason: `“${element.label}” asks for the first screen`,
    });
  return found;
}

const isAbout = ({ title, file, headings }: Names, word: string): boolean =>
  file.includes(word) ||
  title.includes(word) ||
  headings.some((words) => words.includes(word) && words.length <= 3);

/** What is sent on the screens around signing in, and leaving. */
function fromForms(
  element: Pressed,
  names: ReadonlyMap<string, Names>,
  start: string | null,
  login: string | null,
): Evidence[] {
  const { words, screen, sight } = element;
  if (TOGGLE.test(sight.words)) return [];
  if (words.includes('logout') && login)
    return [{ to: login, strength: 0.7, reason: 'after signing out one signs in again' }];
  if (!login || !start || words.length > 3) return [];
  const own = names.get(screen)!;
  const isSent =
    sight.look.hasFill || sight.look.hasBorder || sight.element.style.base.appearance === 'button';
  if (!isSent || element.isMenu) return [];
  if (screen === login && words.includes('login'))
    return [{ to: start, strength: 0.72, reason: 'who has signed in comes to the first screen' }];
  for (const word of ['register', 'password'])
    if (isAbout(own, word) && words.includes(word) && screen !== login)
      return [{ to: login, strength: 0.6, reason: 'what is sent here leads to signing in' }];
  return [];
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
