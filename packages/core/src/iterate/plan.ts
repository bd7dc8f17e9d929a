import type { Design, Element, Screen } from '../model/design.ts';
import type { TableEntry } from '../model/app.ts';
import { parseEditKey } from '../model/edit_key.ts';
import { equalJson } from '../json/json.ts';
import { elementsByKey } from '../model/places.ts';
import { type Project, textOf } from '../model/project.ts';
import { type DesignMatch, matchDesigns } from '../match/design.ts';
import type { ElementPair } from '../match/elements.ts';
import { likeliest } from '../match/likeliest.ts';
import { makingOf } from '../match/likeness.ts';
import { traitsOf, wordsOf } from '../match/traits.ts';
import type { Making } from '../match/weights.ts';
import { elementsWithin, type Overlaid, overlaidIn } from './overlaid.ts';
import { type RecordsStep, recordsAfter, type RowsStep, rowsAfter } from './rows.ts';
import { type Decided, decidedAbout, isDecided } from './decided.ts';

/** What became of a screen with an iteration. */
export type ScreenStanding =
  | 'same'
  | 'changed'
  | 'renamed'
  /** Drawn over another screen now. */
  | 'overlay'
  | 'part'
  | 'joined'
  | 'width'
  | 'new'
  | 'gone';

export interface ScreenStep {
  readonly old: Screen | null;
  readonly now: Screen | null;
  readonly standing: ScreenStanding;
  readonly score: number;
  /** Of one that is an overlay now: of what. */
  readonly overlaid?: Overlaid;
}

/** Whether a screen that came in is the next drawing of an older one by itself, and not what that went into. */
export const isOwnDrawing = ({ now, standing, overlaid }: ScreenStep): boolean =>
  now !== null && standing !== 'joined' && overlaid?.under !== now;

/** Something that was decided, and that only a person can say where it belongs now. */
export interface Ask {
  /** Under which it is answered. */
  readonly id: string;
  /** The element as it was, and the screen that it was on. */
  readonly element: Element;
  readonly screen: Screen;
  readonly about: Decided;
  /**
   * Why it is asked: the element may be another one now, or is gone where something like it is there; or somebody
   * changed by hand what the design now changes, too; or what was decided to be one list or component is built otherwise.
   */
  readonly why: 'unsure' | 'gone' | 'bothChanged' | 'template';
  /** Of a list or component: how it is built otherwise, and whether its places are still alike. */
  readonly rows?: RowsStep;
  /** What it may be now, the likeliest first. */
  readonly candidates: readonly Candidate[];
  /** What both changed; with `bothChanged` only. */
  readonly clashes: readonly Clash[];
}

/** A property that somebody changed by hand, and that the design now changes, too. */
export interface Clash {
  readonly property: string;
  /** What the design had, what somebody made of it, and what the design has now; empty where nothing is set. */
  readonly was: string;
  readonly mine: string;
  readonly design: string;
  readonly entry: TableEntry;
}

/** Whether what is asked about holds until it is answered, where it is; else it waits aside. */
export const staysMeanwhile = (why: Ask['why']): boolean => why === 'bothChanged' || why === 'template';

/** Something about which nothing is asked any more, and where it went. */
export interface Settled {
  readonly element: Element;
  readonly screen: Screen;
  readonly about: Decided;
}

/** An element that stays what it is, with what was decided about it. */
export interface Kept extends ElementPair, Settled {
  /** Whether a person said that it is this one. */
  readonly isByHand?: true;
}

export interface Candidate {
  readonly element: Element;
  readonly screen: Screen;
  readonly score: number;
}

/** What an iteration would do to a project. Nothing of it is done yet. */
export interface IterationPlan {
  readonly match: DesignMatch;
  readonly screens: readonly ScreenStep[];
  /** The partner of each element that came in again, by the newer element. */
  readonly partner: ReadonlyMap<Element, ElementPair>;
  /** Elements that something was decided about, that stay what they are. */
  readonly kept: readonly Kept[];
  readonly asks: readonly Ask[];
  /** Elements that something was decided about, that are gone, and nothing is like them. */
  readonly letGo: readonly Settled[];
  /** What a person put on an element that stays another one. */
  readonly onto: readonly (Settled & { readonly to: Element })[];
  /** What happens to lists and components. */
  readonly rows: readonly RowsStep[];
  /** New rows among those of collections. */
  readonly records: readonly RecordsStep[];
  /** Decisions that give way to what the design has now: edits, and lists that are taken apart. */
  readonly overruled: readonly TableEntry[];
  /** How many a person put in their places. */
  readonly byHand: number;
}

export interface PlanOptions {
  /** Whether these are all screens there are: what is not among them is gone. Else the others stay as they are. */
  readonly whole: boolean;
  /** From which certainty on a decision goes along unasked, 0 to 1; where it is not said, as far as is right. */
  readonly sure?: number;
  readonly tell?: (done: number, total: number) => void;
}

/** Certainty from which a decision goes along without being asked about; drawings say less of what is in them. */
const SURE: Readonly<Record<Making, number>> = { page: 0.7, drawing: 0.93 };
/** The same for what says something else altogether, as a new entry of a menu in the place of one that is gone does. */
const SURE_OF_OTHER_WORDS = 0.955;
/** Least likeness of what is offered for an element that is gone. */
const OFFERED = 0.05;
const MOST_OFFERED = 3;

/** Works out what the screens of an iteration are of those that are there, and what becomes of each decision. */
export function planIteration(
  { design, app }: Project,
  incoming: readonly Screen[],
  { whole, sure, tell }: PlanOptions,
): IterationPlan {
  const files = new Set(incoming.map(placeOf));
  // Of a few files each is taken for the screen that came from the same place, and others stay out of it.
  const olds = whole ? design.screens : design.screens.filter((screen) => files.has(placeOf(screen)));
  const stays = whole ? [] : design.screens.filter((screen) => !olds.includes(screen));
  const match = matchDesigns({ screens: olds }, { screens: incoming }, tell, stays);
  const overlaid = overlaidIn(app, match);
  const partner = new Map(match.pairs.map((pair) => [pair.now, pair]));
  const newer = new Map(match.pairs.map((pair) => [pair.old, pair]));
  const decided = decidedAbout(app);
  const kept: Kept[] = [];
  const asks: Ask[] = [];
  const letGo: IterationPlan['letGo'][number][] = [];
  for (const screen of olds) {
    const least = sure ?? SURE[makingOf(traitsOf(screen.root)[0])];
    const fromHere = match.screens.filter((pair) => pair.old === screen && pair.kinship !== 'width');
    const panel = overlaid.get(screen)?.panel;
    const inPanel = panel && elementsWithin(panel);
    for (const element of elementsByKey(screen).values()) {
      const about = decided.get(element.key);
      if (!isDecided(about)) continue;
      const found = newer.get(element);
      // What lies beneath an overlay is the other screen.
      const pair = found && inPanel && !inPanel.has(found.now) ? undefined : found;
      if (pair && pair.score >= (saysElse(pair) ? Math.max(least, SURE_OF_OTHER_WORDS) : least)) {
        kept.push({ ...pair, element, screen, about });
        const clashes = clashesOf(about.own, pair);
        if (clashes.length)
          asks.push({
            id: element.key,
            element,
            screen,
            about,
            why: 'bothChanged',
            candidates: [],
            clashes,
          });
        continue;
      }
      const candidates = fromHere
        .flatMap((kin) => likeliest(screen, element, kin.now).map((one) => ({ ...one, screen: kin.now })))
        .filter(
          ({ element: one, score }) =>
            score >= OFFERED &&
            one !== pair?.now &&
            !isSure(partner.get(one), least) &&
            (!inPanel || inPanel.has(one)),
        );
      const offered: Candidate[] = [
        ...(pair ? [{ element: pair.now, screen: pair.to, score: pair.score }] : []),
        ...candidates.sort((a, b) => b.score - a.score),
      ].slice(0, MOST_OFFERED);
      if (offered.length)
        asks.push({
          id: element.key,
          element,
          screen,
          about,
          why: pair ? 'unsure' : 'gone',
          candidates: offered,
          clashes: [],
        });
      else letGo.push({ element, screen, about });
    }
  }
  const toOf = new Map(match.pairs.map(({ now, to }) => [now, to]));
  const rows = rowsAfter(app, olds, (now) => toOf.get(now), newer, partner);
  asks.push(...rows.flatMap(askOfRows));
  return {
    match,
    screens: stepsOf(match, olds, overlaid),
    partner,
    kept,
    asks,
    letGo,
    onto: [],
    rows,
    records: recordsAfter(app, olds, (now) => toOf.get(now), newer, partner),
    overruled: [],
    byHand: 0,
  };
}

/** Whether any of these screens came from where a screen of the design came from, and so is a newer one. */
export function comesAgain({ screens }: Pick<Design, 'screens'>, incoming: readonly Screen[]): boolean {
  const places = new Set(screens.map(placeOf));
  return incoming.some((screen) => places.has(placeOf(screen)));
}

/** Share of the screens that come again from which a batch is taken for all there are, and how many at least. */
const MOST_OF_THEM = 0.6;
const LEAST_SCREENS = 3;

/** Whether a batch looks like a whole next round: most of the screens that are there come again. */
export function looksWhole({ screens }: Pick<Design, 'screens'>, incoming: readonly Screen[]): boolean {
  const places = new Set(incoming.map(placeOf));
  const again = screens.filter((screen) => places.has(placeOf(screen))).length;
  return again >= Math.max(LEAST_SCREENS, screens.length * MOST_OF_THEM);
}

const placeOf = ({ source }: Screen): string => `${source.file} ${source.path}`;
const isSure = (pair: ElementPair | undefined, sure: number): boolean =>
  pair !== undefined && pair.score >= sure;

/** Asks about a list or component whose places are built otherwise than before. */
const askOfRows = (rows: RowsStep): Ask[] =>
  rows.rebuilt === null
    ? []
    : [
        {
          id: `rows ${rows.id}`,
          element: rows.first.old,
          screen: rows.screen,
          about: {
            own: [{ table: 'components', key: rows.id, value: rows.component }],
            named: [],
            minor: [],
          },
          why: 'template',
          candidates: [],
          clashes: [],
          rows,
        },
      ];

function stepsOf(
  match: DesignMatch,
  olds: readonly Screen[],
  overlaid: ReadonlyMap<Screen, Overlaid>,
): ScreenStep[] {
  const standingOf = ({ old, now, kinship }: DesignMatch['screens'][number]): ScreenStanding =>
    overlaid.has(old) && (kinship === 'same' || kinship === 'joined')
      ? 'overlay'
      : kinship !== 'same'
        ? kinship
        : old.source.file !== now.source.file
          ? 'renamed'
          : isSameDrawing(old.root, now.root)
            ? 'same'
            : 'changed';
  const steps: ScreenStep[] = match.screens.map((pair): ScreenStep => {
    const { old, now, score } = pair;
    const standing = standingOf(pair);
    return { old, now, standing, score, ...(standing === 'overlay' ? { overlaid: overlaid.get(old)! } : {}) };
  });
  const known = new Set(steps.flatMap(({ old, now }) => [old, now]));
  for (const now of match.fresh)
    if (!known.has(now)) steps.push({ old: null, now, standing: 'new', score: 1 });
  for (const old of olds) if (!known.has(old)) steps.push({ old, now: null, standing: 'gone', score: 1 });
  return steps;
}

/** Whether two drawings look and are the same; keys and places in files may differ. */
function isSameDrawing(a: Element, b: Element): boolean {
  if (a === b) return true;
  const { key: _a, source: _sa, firstName: _fa, children: inA, ...ownA } = a;
  const { key: _b, source: _sb, firstName: _fb, children: inB, ...ownB } = b;
  return (
    inA.length === inB.length &&
    equalJson(ownA, ownB) &&
    inA.every((child, i) => isSameDrawing(child, inB[i]))
  );
}

/** What somebody changed by hand of an element that the design changes, too. */
const clashesOf = (own: readonly TableEntry[], { old, now }: ElementPair): Clash[] =>
  own.flatMap((entry): Clash[] => {
    const edit = entry.table === 'edits' ? parseEditKey(entry.key) : null;
    if (!edit || edit.condition.kind !== 'always' || edit.property === 'position') return [];
    const { property } = edit;
    const [was, design] = [old, now].map((element) =>
      property === 'text' ? textOf(element) : (element.style.base[property] ?? ''),
    );
    return was === design ? [] : [{ property, was, mine: String(entry.value), design, entry }];
  });

/** Whether an element says something else altogether, and has no address or picture that stayed. */
function saysElse({ old, now }: ElementPair): boolean {
  const [before, after] = [old, now].map((element) => wordsOf(textOf(element).toLowerCase()));
  if (!before.length || !after.length || before.some((word) => after.includes(word))) return false;
  const isSame = (of: (element: Element) => string | undefined): boolean =>
    of(old) !== undefined && of(old) === of(now);
  return !isSame(({ attributes }) => attributes?.href) && !isSame(({ asset }) => asset);
}
