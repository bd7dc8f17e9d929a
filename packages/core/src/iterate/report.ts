import type { Interaction } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey, type Project, screenName } from '../model/project.ts';
import { labelOf } from '../links/pressable.ts';
import { wordsOf } from '../match/traits.ts';
import { type Answer, proposedAnswer } from './answers.ts';
import { describeDecided } from './describe.ts';
import { type Decided, decidedAbout, isDecided } from './decided.ts';
import {
  type Ask,
  isOwnDrawing,
  type IterationPlan,
  type ScreenStanding,
  type Settled,
  staysMeanwhile,
} from './plan.ts';

/** How many of something stay, are asked about, and are let go. */
export interface Tally {
  readonly kept: number;
  readonly asked: number;
  readonly letGo: number;
}

export interface ReportedScreen {
  /** Keys of the screen before, and among those that come in; null where there is none. */
  readonly old: string | null;
  readonly now: string | null;
  readonly name: string;
  readonly file: string;
  readonly standing: ScreenStanding;
  /** Of one that is an overlay now: the name of the screen beneath. */
  readonly over?: string;
  /** Its links. */
  readonly links: Tally;
  /** Everything that is decided about its elements, by element. */
  readonly decided: Tally;
}

export interface ReportedCandidate {
  /** Key of the element among the screens that come in, and of its screen. */
  readonly element: string;
  readonly screen: string;
  readonly label: string;
  readonly score: number;
  /** Why it may be that one. */
  readonly reason: string;
}

export interface ReportedAsk {
  /** Under which it is answered. */
  readonly id: string;
  /** Key of the element as it was, and of its screen. */
  readonly element: string;
  readonly screen: string;
  readonly on: string;
  readonly label: string;
  /** What was decided, in a line. */
  readonly about: string;
  readonly why: Ask['why'];
  /** How the places of a list or component are built otherwise, in words. */
  readonly rebuilt?: string;
  readonly candidates: readonly ReportedCandidate[];
  readonly clashes: readonly {
    readonly property: string;
    readonly was: string;
    readonly mine: string;
    readonly design: string;
  }[];
  readonly proposed: Answer | null;
}

export interface ReportedGone {
  readonly element: string;
  readonly screen: string;
  readonly on: string;
  readonly label: string;
  readonly about: string;
}

/** Something decided that goes along, and the element of the newer screens that it goes along with. */
export interface ReportedKept extends ReportedGone {
  /** Key of the element among the screens that come in, with its label. */
  readonly to: string;
  readonly toLabel: string;
  readonly score: number;
  readonly isByHand: boolean;
}

/** What an iteration would do, in plain values with keys in place of elements. */
export interface IterationReport {
  readonly screens: readonly ReportedScreen[];
  readonly links: Tally;
  readonly decided: Tally;
  readonly asks: readonly ReportedAsk[];
  /** New rows that join lists. */
  readonly joining: readonly { readonly list: string; readonly rows: number }[];
  readonly letGo: readonly ReportedGone[];
}

type Counted = { -readonly [K in keyof Tally]: number };
const none = (): Counted => ({ kept: 0, asked: 0, letGo: 0 });

const linksAmong = ({ own }: Decided): number =>
  own.filter(({ table, value }) => table === 'interactions' && (value as Interaction | null) !== null).length;

/** Says what a plan does, screen by screen and in all. */
export function reportOf(project: Project, plan: IterationPlan): IterationReport {
  const decided = decidedAbout(project.app);
  const links = new Map<Screen, Counted>();
  const elements = new Map<Screen, Counted>();
  const became = new Map<Element, keyof Tally>();
  for (const { old } of plan.kept) became.set(old, 'kept');
  for (const { element } of plan.onto) became.set(element, 'kept');
  for (const { element } of plan.letGo) became.set(element, 'letGo');
  for (const { element, why } of plan.asks) if (!staysMeanwhile(why)) became.set(element, 'asked');
  for (const screen of new Set(plan.screens.flatMap(({ old }) => old ?? []))) {
    const [ofLinks, ofElements] = [none(), none()];
    links.set(screen, ofLinks);
    elements.set(screen, ofElements);
    for (const [key, element] of elementsByKey(screen)) {
      const about = decided.get(key);
      const as = became.get(element);
      if (!isDecided(about) || !as) continue;
      ofLinks[as] += linksAmong(about);
      ofElements[as]++;
    }
  }
  const sum = (of: ReadonlyMap<Screen, Tally>): Tally =>
    [...of.values()].reduce(
      (all, one) => ({
        kept: all.kept + one.kept,
        asked: all.asked + one.asked,
        letGo: all.letGo + one.letGo,
      }),
      none(),
    );
  return {
    screens: plan.screens.map(({ old, now, standing, overlaid }) => ({
      old: old?.key ?? null,
      now: now?.key ?? null,
      name: old && standing !== 'part' && standing !== 'width' ? screenName(project, old.key) : now!.name,
      file: (now ?? old)!.source.file,
      standing,
      ...(overlaid ? { over: nameOfNow(project, plan, overlaid.under) } : {}),
      // Of a screen that was parted the links are counted where most of it is.
      links: (old && standing !== 'part' && standing !== 'width' && links.get(old)) || none(),
      decided: (old && standing !== 'part' && standing !== 'width' && elements.get(old)) || none(),
    })),
    links: sum(links),
    decided: sum(elements),
    asks: plan.asks.map((ask) => ({
      ...goneOf(project, ask),
      id: ask.id,
      ...(ask.rows?.rebuilt ? { rebuilt: ask.rows.rebuilt, label: ask.rows.component.name } : {}),
      why: ask.why,
      candidates: ask.candidates.map(({ element, screen, score }) => ({
        element: element.key,
        screen: screen.key,
        label: labelOf(element),
        score,
        reason: reasonOf(ask.element, element),
      })),
      clashes: ask.clashes.map(({ property, was, mine, design }) => ({ property, was, mine, design })),
      proposed: proposedAnswer(ask),
    })),
    joining: plan.rows
      .filter(({ joining }) => joining.length > 0)
      .map(({ component, joining }) => ({ list: component.name, rows: joining.length })),
    letGo: plan.letGo.map((one) => goneOf(project, one)),
  };
}

/** What a screen that comes in is called in the project. */
const nameOfNow = (project: Project, plan: IterationPlan, now: Screen): string => {
  const old = plan.screens.find((step) => step.now === now && isOwnDrawing(step))?.old;
  return old ? screenName(project, old.key) : (project.app.screens[now.key]?.name ?? now.name);
};

const goneOf = (project: Project, { element, screen, about }: Settled): ReportedGone => ({
  element: element.key,
  screen: screen.key,
  on: project.app.screens[screen.key]?.name ?? screen.name,
  label: labelOf(element),
  about: describeDecided(project, about),
});

/** What goes along of a screen, in reading order. */
export function keptOn(project: Project, plan: IterationPlan, screen: Screen): ReportedKept[] {
  const order = new Map([...elementsByKey(screen).keys()].map((key, i) => [key, i]));
  const put = plan.onto.map(({ to, ...one }) => ({ ...one, now: to, score: 1, isByHand: true }));
  return [...plan.kept, ...put]
    .filter((one) => one.screen === screen)
    .map(({ element, about, now, score, isByHand = false }) => ({
      ...goneOf(project, { element, screen, about }),
      to: now.key,
      toLabel: labelOf(now),
      score,
      isByHand,
    }))
    .sort((a, b) => order.get(a.element)! - order.get(b.element)!);
}

/** What speaks for two elements to be one, in words. */
function reasonOf(old: Element, now: Element): string {
  const [a, b] = [labelOf(old), labelOf(now)];
  const shared = wordsOf(a.toLowerCase()).filter((word) => wordsOf(b.toLowerCase()).includes(word));
  const reasons = [
    ...(a && a === b ? ['the same words'] : shared.length ? [`“${shared[0]}” in both`] : []),
    ...(old.source.id && old.source.id === now.source.id ? ['the same id'] : []),
    ...(old.asset && old.asset === now.asset ? ['the same picture'] : []),
    ...(isNear(old, now) ? ['the same place'] : []),
    ...(Math.abs(old.box.width - now.box.width) < 2 && Math.abs(old.box.height - now.box.height) < 2
      ? ['the same size']
      : []),
  ];
  return reasons.join(', ') || 'the likest of what is there';
}

/** As far from each other as a person takes for the same place, in px. */
const NEAR = 12;
const isNear = (old: Element, now: Element): boolean =>
  Math.hypot(old.box.x - now.box.x, old.box.y - now.box.y) <= NEAR;
