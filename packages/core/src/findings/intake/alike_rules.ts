import { makeAlternatives } from '../../alternatives/drawn.ts';
import { putUse } from '../../change/change.ts';
import { type FoundState, stateOf } from '../../data/found_states.ts';
import { takeState } from '../../drawn_states/take.ts';
import { baseName } from '../../intake/files.ts';
import { hasScrim } from '../../overlays/scrim.ts';
import type { Screen } from '../../model/design.ts';
import {
  isUsed,
  orderedScreens,
  type Project,
  screenName,
  screensByKey,
  walkElements,
} from '../../model/project.ts';
import { elementOfInteraction } from '../../model/interaction.ts';
import { screenOf } from '../../model/places.ts';
import { isPressable } from '../../roles/role.ts';
import type { Examined, Found, Rule } from '../finding.ts';
import { type Likeness, likenessesOf } from './likeness.ts';
import { onceFor } from '../../json/once_for.ts';

/** Endings by which the same screen at another width is told apart in its name. */
const WIDTH_ENDING =
  /[\s_(/-]*(mobile|phone|tablet|desktop|laptop|small|medium|large|wide|narrow|xs|sm|md|lg|xl|\d{3,4}(px|w)?)\)?$/i;
/** Endings by which several drawings of one screen are told apart, and those among them that say so in so many words. */
const DRAWING_ENDING =
  /(?:[\s_(/-]+((?:alternative|variant|variation|version|option|draft|take|alt|var|v)[\s_-]*)?(?:\d{1,2}|[a-d]|i{1,3}v?)?|\d{1,2})?\)?$/i;
const LEAST_CALLED = 3;
/** So much of the texts two drawings of one screen have in common where their names say it, and where they only hint at it. */
const LEAST_IN_COMMON = { said: 0.15, hinted: 0.6 } as const;

/** So much of what a drawing of a state says the screen says, too: what is around the list. */
const LEAST_AROUND = 0.35;
const WHILE = {
  empty: 'while there is nothing in its list',
  failed: 'when its records cannot be had',
  waiting: 'until its records come',
} as const;

/** Names of what a screen can look like besides as usual. */
const STATE_NAME =
  /\b(empty|error|loading|success|failed|offline|disabled|open|expanded|selected|filled|no results|dialog|modal|drawer|menu|popover|toast|confirm(ation)?|alert)\b/i;

const pairsInUse = ({ drawn, project }: Examined): readonly Likeness[] =>
  likenessesOf(drawn.design).filter((pair) => isUsed(project, pair.a.key) && isUsed(project, pair.b.key));

const isSameWidth = (a: Screen, b: Screen): boolean => Math.abs(a.width - b.width) <= 4;

/** Picks of screens that are alike the one that is told most about; else the one that came first. */
function bestPicker(project: Project): (keys: readonly string[]) => string {
  const wired = new Map<string, number>();
  const count = (key: string): void => void wired.set(key, (wired.get(key) ?? 0) + 1);
  for (const [element, { target }] of Object.entries(project.app.interactions)) {
    count(screenOf(project.design, elementOfInteraction(element)));
    if ('screen' in target) count(target.screen);
  }
  const screens = screensByKey(project.design);
  const order = new Map(orderedScreens(project.app).map((key, i) => [key, i]));
  const isCopy = (key: string): number => Number(/\bcopy\b|\(\d+\)$/i.test(screenName(project, key)));
  return (keys) =>
    keys.toSorted(
      (a, b) =>
        Number(project.app.start === b) - Number(project.app.start === a) ||
        (wired.get(b) ?? 0) - (wired.get(a) ?? 0) ||
        isCopy(a) - isCopy(b) ||
        sizeOf(screens.get(b)!) - sizeOf(screens.get(a)!) ||
        order.get(a)! - order.get(b)!,
    )[0];
}

const sizeOf = onceFor((screen: Screen): number => {
  let count = 0;
  walkElements(screen.root, () => void count++);
  return count;
});

/** Groups what is linked pair by pair (union-find). */
function clusters(pairs: readonly Likeness[]): string[][] {
  const leader = new Map<string, string>();
  const find = (key: string): string => {
    let at = key;
    for (let next = leader.get(at); next !== undefined && next !== at; next = leader.get(at)) at = next;
    leader.set(key, at);
    return at;
  };
  for (const { a, b } of pairs) leader.set(find(a.key), find(b.key));
  const groups = new Map<string, string[]>();
  for (const key of leader.keys()) {
    const first = find(key);
    groups.set(first, [...(groups.get(first) ?? []), key]);
  }
  return [...groups.values()].filter((keys) => keys.length > 1).map((keys) => keys.sort());
}

/** Screens of fewer boxes than this are alike by chance. */
const FEW = 6;

const isDuplicate = (pair: Likeness): boolean =>
  pair.boxCount >= FEW &&
  isSameWidth(pair.a, pair.b) &&
  pair.boxes >= 0.8 &&
  (pair.texts >= 0.9 || pair.textCount === 0);

/** Of each group of screens that are drawn alike, all but the best. */
function copiesAmong(pairs: readonly Likeness[], project: Project): Set<string> {
  const bestOf = bestPicker(project);
  return new Set(
    clusters(pairs.filter(isDuplicate)).flatMap((keys) => {
      const kept = bestOf(keys);
      return keys.filter((key) => key !== kept);
    }),
  );
}

/** The overlay of a pair and the screen beneath it; null where neither lies over the other. */
export function overlayIn(
  pair: Likeness,
  project: Project,
): { over: Screen; under: Screen; why: string } | null {
  if (!isSameWidth(pair.a, pair.b) || isDuplicate(pair)) return null;
  const [small, large] = sizeOf(pair.a) <= sizeOf(pair.b) ? [pair.a, pair.b] : [pair.b, pair.a];
  if (pair.contained >= 0.75 && pair.boxes >= 0.4 && hasScrim(large) && !hasScrim(small))
    return { over: large, under: small, why: 'the same screen lies beneath, dimmed' };
  const named = [pair.a, pair.b].filter((screen) => STATE_NAME.test(screenName(project, screen.key)));
  if (named.length !== 1) return null;
  const over = named[0];
  const under = over === pair.a ? pair.b : pair.a;
  const stem = (screen: Screen): string => screenName(project, screen.key).toLowerCase();
  // `Basket (empty)` says by itself what it is a state of.
  const isSpelledOut = stem(over).replace(/\s*(\(.*\)|[,:–—-]\s.*)$/, '') === stem(under);
  // What still others are called says nothing of these two.
  const isOwn = (word: string): boolean =>
    !project.design.screens.some((other) => {
      if (other === over || other === under || !isUsed(project, other.key)) return false;
      return stem(other).includes(word) && !STATE_NAME.test(stem(other));
    });
  const sharesName =
    stem(over).includes(stem(under)) ||
    stem(under)
      .split(/\W+/)
      .some((word) => word.length > 3 && stem(over).includes(word) && isOwn(word));
  return isSpelledOut || (sharesName && (pair.texts >= 0.35 || pair.boxes >= 0.35))
    ? { over, under, why: 'its name says that it is a state of it, and much of it is the same' }
    : null;
}

/** How sure it is that two screens are one at two widths: 2 by their names, 1 by what is on them, 0 not at all. */
function counterpartness(pair: Likeness, project: Project): 0 | 1 | 2 {
  const [narrow, wide] = [pair.a.width, pair.b.width].sort((a, b) => a - b);
  if (wide < narrow * 1.15) return 0;
  const [a, b] = [pair.a, pair.b].map((screen) =>
    screenName(project, screen.key).replace(WIDTH_ENDING, '').toLowerCase(),
  );
  if (a === b && a !== '' && (pair.texts >= 0.25 || pair.contained >= 0.4)) return 2;
  return pair.textCount >= 5 && pair.texts >= 0.5 && pair.contained >= 0.75 ? 1 : 0;
}

/** Which screen each narrower one is a counterpart of: the surest first, and one of each width for a screen. */
function counterparts(
  pairs: readonly Likeness[],
  project: Project,
): [narrow: Screen, wide: Screen, sureness: 1 | 2][] {
  const sure = pairs
    .map((pair) => ({ pair, sureness: counterpartness(pair, project) }))
    .filter(({ sureness }) => sureness > 0)
    .sort(
      (x, y) => y.sureness - x.sureness || y.pair.texts + y.pair.contained - x.pair.texts - x.pair.contained,
    );
  const found: [Screen, Screen, 1 | 2][] = [];
  /** Whether it has been said already which screen this one is at that width. */
  const isSettled = (wide: Screen, narrow: Screen): boolean =>
    project.design.screens.some((other) => {
      const entry = project.app.screens[other.key];
      return entry?.use === 'counterpart' && entry.of === wide.key && isSameWidth(other, narrow);
    });
  for (const { pair, sureness } of sure) {
    const [narrow, wide] = pair.a.width < pair.b.width ? [pair.a, pair.b] : [pair.b, pair.a];
    const isTaken = found.some(
      ([other, of]) =>
        other === narrow || of === narrow || other === wide || (of === wide && isSameWidth(other, narrow)),
    );
    if (!isTaken && !isSettled(wide, narrow)) found.push([narrow, wide, sureness as 1 | 2]);
  }
  return found;
}

/**
 * Whether two screens are two drawings of one: of one width, called the same but for an ending that counts drawings, with much in
 * common, and with nothing that leads to one of them.
 */
function areAlternatives(pair: Likeness, { project, graph }: Pick<Examined, 'project' | 'graph'>): boolean {
  if (!isSameWidth(pair.a, pair.b) || isDuplicate(pair)) return false;
  const [a, b] = [pair.a, pair.b].map(({ key }) => {
    const name = screenName(project, key);
    const ending = DRAWING_ENDING.exec(name)!;
    return { stem: name.slice(0, ending.index).toLowerCase(), isSaid: ending[1] !== undefined };
  });
  if (a.stem !== b.stem || a.stem.length < LEAST_CALLED) return false;
  // Who makes the next drawing of a screen leads nobody to it.
  const isLedTo = ({ key }: Screen): boolean =>
    (graph.arrivals.get(key) ?? []).some(({ from }) => from !== key);
  if (isLedTo(pair.a) && isLedTo(pair.b)) return false;
  const least = a.isSaid || b.isSaid ? LEAST_IN_COMMON.said : LEAST_IN_COMMON.hinted;
  return pair.textCount > 0 && Math.max(pair.texts, pair.contained * 0.8) >= least;
}

/** The same screen several times, at several widths, in several states, or drawn in several ways. */
export const alikeRules: readonly Rule[] = [
  {
    code: 'same-screen',
    level: 'warning',
    station: 'intake',
    title: 'The same screen several times',
    find: (examined) => {
      const { project } = examined;
      const bestOf = bestPicker(project);
      return clusters(pairsInUse(examined).filter(isDuplicate)).flatMap((keys): Found[] => {
        const best = bestOf(keys);
        return keys
          .filter((key) => key !== best)
          .map((key) => ({
            screen: key,
            element: null,
            message: `${screenName(project, key)} is drawn as ${screenName(project, best)} is; one of them is enough.`,
            fix: { label: `Skip ${screenName(project, key)}`, change: putUse(project.app, key, 'skip') },
          }));
      });
    },
  },
  {
    code: 'counterpart',
    level: 'info',
    station: 'intake',
    title: 'The same screen at another width',
    find: (examined) => {
      const { project } = examined;
      const pairs = pairsInUse(examined);
      const copies = copiesAmong(pairs, project);
      const originals = pairs.filter((pair) => !copies.has(pair.a.key) && !copies.has(pair.b.key));
      return counterparts(originals, project).map(([narrow, wide, sureness]): Found => {
        const names = [narrow, wide].map(
          (screen) => `${screenName(project, screen.key)} (${screen.width} px)`,
        );
        return {
          screen: narrow.key,
          element: null,
          message: `${names[0]} looks like ${names[1]} at another width: ${sureness === 2 ? 'their names and texts say so' : 'they hold the same texts'}.`,
          fix: {
            label: 'Make it a counterpart',
            change: putUse(project.app, narrow.key, 'counterpart', wide.key),
          },
        };
      });
    },
  },
  {
    code: 'overlay',
    level: 'info',
    station: 'intake',
    title: 'States of a screen',
    find: (examined) => {
      const { project } = examined;
      const best = new Map<string, { under: Screen; why: string; likeness: number }>();
      const pairs = pairsInUse(examined);
      const copies = copiesAmong(pairs, project);
      for (const pair of pairs) {
        if (copies.has(pair.a.key) || copies.has(pair.b.key)) continue;
        const found = overlayIn(pair, project);
        if (found && pair.boxes + pair.texts > (best.get(found.over.key)?.likeness ?? 0))
          best.set(found.over.key, { ...found, likeness: pair.boxes + pair.texts });
      }
      return [...best].map(([key, { under, why }]) => ({
        screen: key,
        element: null,
        message: `${screenName(project, key)} is a state of ${screenName(project, under.key)}: ${why}.`,
        fix: {
          label: `Make it an overlay of ${screenName(project, under.key)}`,
          change: putUse(project.app, key, 'overlay', under.key),
        },
      }));
    },
  },
  {
    code: 'alternative',
    level: 'info',
    station: 'intake',
    title: 'Several drawings of one screen',
    find: (examined) => {
      const { project, graph } = examined;
      const bestOf = bestPicker(project);
      // The one without a number is what the others are drawings of; else the one that most leads to.
      const rank = (key: string): number =>
        Number(DRAWING_ENDING.exec(screenName(project, key))![0] !== '') * 1e6 -
        (graph.arrivals.get(key)?.length ?? 0);
      return clusters(pairsInUse(examined).filter((pair) => areAlternatives(pair, examined))).flatMap(
        (keys): Found[] => {
          const least = Math.min(...keys.map(rank));
          const best = bestOf(keys.filter((key) => rank(key) === least));
          return keys
            .filter((key) => key !== best)
            .map((key) => ({
              screen: key,
              element: null,
              message: `${screenName(project, key)} is another drawing of ${screenName(project, best)}: they are called the same, and say much of the same.`,
              fix: {
                label: `Make it an alternative of ${screenName(project, best)}`,
                change: makeAlternatives(project, [key], best),
              },
            }));
        },
      );
    },
  },
  {
    code: 'state',
    level: 'info',
    station: 'intake',
    title: 'Lists that have nothing to show',
    find: (examined) => {
      const { project } = examined;
      const { app } = project;
      const best = new Map<string, { of: string; found: FoundState; contained: number }>();
      for (const pair of pairsInUse(examined)) {
        if (!isSameWidth(pair.a, pair.b) || isDuplicate(pair) || pair.contained < LEAST_AROUND) continue;
        for (const [screen, other] of [
          [pair.a, pair.b],
          [pair.b, pair.a],
        ] as const) {
          const found = stateOf(screen, other, screenName(project, other.key));
          if (found && pair.contained > (best.get(other.key)?.contained ?? 0))
            best.set(other.key, { of: screen.key, found, contained: pair.contained });
        }
      }
      return [...best].map(([key, { of, found }]): Found => ({
        screen: key,
        element: null,
        message: `${screenName(project, key)} is what ${screenName(project, of)} shows ${WHILE[found.state]}: ${found.because}.`,
        fix: {
          label: `Make it the ${found.state} state of ${screenName(project, of)}`,
          change: takeState(app, key, of, found.state),
        },
      }));
    },
  },
  {
    code: 'sheet',
    level: 'warning',
    station: 'intake',
    title: 'Sheets that are no screens',
    find: ({ project, graph }) =>
      graph.screens.flatMap((key): Found[] => {
        const screen = screensByKey(project.design).get(key)!;
        const why = sheetReason(screen, screenName(project, key));
        return why
          ? [
              {
                screen: key,
                element: null,
                message: `${screenName(project, key)} is no screen of the app: ${why}.`,
                fix: { label: 'Skip it', change: putUse(project.app, key, 'skip') },
              },
            ]
          : [];
      }),
  },
];

const SHEET_NAME =
  /^(cover|title page|style ?(guide|sheet|tile)|styles|colou?rs|palette|typography|type scale|tokens|components?|component (sheet|library)|ui kit|design system|icons|icon set|symbols|mood ?board|read ?me|changelog|site ?map|user flow|annotations?)\b/i;

/** Why a drawing is a cover, a style sheet or a component sheet; null when it is none. */
function sheetReason(screen: Screen, name: string): string | null {
  let [pressable, texts, colors, states, elements] = [0, 0, 0, 0, 0];
  walkElements(screen.root, (element) => {
    elements++;
    if (element !== screen.root && isPressable(element)) pressable++;
    const text = element.text?.trim();
    if (!text) return;
    texts++;
    if (/^#[0-9a-f]{3,8}$/i.test(text) || /^rgba?\(/i.test(text)) colors++;
    if (
      /^(default|hover(ed)?|pressed|focus(ed)?|disabled|active|selected|error|loading|primary|secondary|tertiary)$/i.test(
        text,
      )
    )
      states++;
  });
  const isNamed = SHEET_NAME.test(name) || SHEET_NAME.test(baseName(screen.source.file));
  if (colors >= 4 && colors >= texts * 0.2) return `it names ${colors} colours, as a style sheet does`;
  if (states >= 4 && states >= texts * 0.2)
    return 'it shows controls in their states, as a component sheet does';
  if (isNamed && pressable === 0 && elements < 40)
    return 'it is called a sheet, and nothing on it can be pressed';
  return isNamed && states >= 2 ? 'it is called a sheet, and shows controls in their states' : null;
}
