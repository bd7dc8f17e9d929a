import { framedGroups } from '../emit/form/layouts/layouts.ts';
import { all, applyChange, type Change, putComponent, putLayout } from '../change/change.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { Element, Screen } from '../model/design.ts';
import { wordOfClasses, wordOfLayer } from '../roles/called.ts';
import { firstFree, kebabCase, sentenceCase, uncapital, uniqueName } from '../model/names.ts';
import { toldByScreens } from '../model/told_by_screens.ts';
import { orderedScreens, isUsed, type Project, screensByKey } from '../model/project.ts';
import { isWithin, screenOf } from '../model/places.ts';
import { likeSketches, type Traits, traitsOf } from '../match/traits.ts';
import { grouped } from '../json/grouped.ts';
import { hash } from '../json/hash.ts';
import { markedEntries } from '../intake/screen_names.ts';
import { settle } from '../layers/settle.ts';
import { commonBase } from '../emit/form/route_tree.ts';

/** Screens that have the same bars around them, as one layout. */
export interface LayoutProposal {
  readonly id: string;
  readonly name: string;
  readonly screens: readonly string[];
  readonly reason: string;
  /** Takes the bars out as one component, where that is not done yet, and makes the layout. */
  readonly change: Change;
}

interface Bar {
  readonly screen: string;
  readonly element: string;
  readonly name: string;
  readonly labels: readonly string[];
  /** Where it stands on its screen, in px. */
  readonly x: number;
  readonly y: number;
  /** The same for what says the same. */
  readonly sign: string;
}

/** A part around screens has at least so many elements and so many things to press. */
const LEAST_ELEMENTS = 5;
const LEAST_PRESSABLE = 2;

/** Groups of screens that are tried, at most: each is a plan of the whole app. */
const MOST_TRIED = 4;

/**
 * Finds screens that have the same bars around them: parts at the same place that say the same, whatever marks where one
 * is. Only what really leaves a common frame is proposed, larger groups first. Takes the settled project.
 */
export function proposeLayouts(project: Project): LayoutProposal[] {
  const { app } = project;
  const taken = new Set(Object.values(app.layouts).flatMap((layout) => layout.screens));
  const keys = orderedScreens(app).filter((key) => isUsed(project, key) && !taken.has(key));
  const bars = barsOf(project, keys);
  const groups = new Map<string, string[]>();
  for (const key of keys)
    for (const { sign } of bars.get(key) ?? []) groups.set(sign, [...(groups.get(sign) ?? []), key]);
  const found: LayoutProposal[] = [];
  const held = new Set<string>();
  // Each can be taken with the others.
  const taking: Taking = {
    ids: new Set(),
    components: new Set(),
    layouts: new Set(Object.values(app.layouts).map(({ name }) => name)),
  };
  const sorted = [...groups.values()].sort((x, y) => y.length - x.length);
  let tried = 0;
  for (const group of sorted) {
    const screens = group.filter((key) => !held.has(key));
    if (screens.length < 2 || tried++ >= MOST_TRIED) continue;
    for (const proposal of proposed(project, screens, bars, taking)) {
      if (app.refused[proposal.id]) continue;
      taking.layouts.add(proposal.name);
      for (const key of proposal.screens) held.add(key);
      found.push(proposal);
    }
  }
  return found;
}

/** So many screens have the same around them at least that it is taken for a layout without being asked. */
const LEAST_SURE = 3;

/** The change that parts screens that just came in: what several of them surely share is a layout of theirs. */
export const surelyShared = (project: Project): Change =>
  all(
    proposeLayouts(settle(project)).flatMap(({ screens, change }) =>
      screens.length >= LEAST_SURE ? [change] : [],
    ),
  );

/** What proposals go by that were made: the ids of their components, and names. */
interface Taking {
  readonly ids: Set<string>;
  readonly components: Set<string>;
  readonly layouts: Set<string>;
}

/** The layouts of screens with bars of theirs, as far as something of a frame is left around them. */
function proposed(
  project: Project,
  screens: readonly string[],
  bars: ReadonlyMap<string, readonly Bar[]>,
  { ids, components: named, layouts }: Taking,
): LayoutProposal[] {
  const { app, design } = project;
  const signs = new Set(screens.flatMap((key) => bars.get(key)!.map(({ sign }) => sign)));
  const shared = [...signs].flatMap((sign) => {
    const some = screens.flatMap((key) => bars.get(key)!.find((bar) => bar.sign === sign) ?? []);
    return some.length > 1 ? [some] : [];
  });
  let made = app;
  const components: Change[] = [];
  for (const some of shared) {
    const change = barComponent({ design, app: made }, some, { ids, named }, likeBars(project, some));
    components.push(...change);
    made = applyChange(made, all(change));
  }
  const plan = new EmissionPlan({ design, app: made });
  const places = new Set(shared.flat().map(({ element }) => element));
  const called = new Set(layouts);
  const marked = markedEntries(design.screens.filter(({ title }) => title !== undefined));
  const byKey = screensByKey(design);
  const markedBy = (key: string): string => {
    const screen = byKey.get(key);
    return screen?.title === undefined ? '' : marked(screen);
  };
  const keyed = new Set([...Object.keys(app.layouts), ...ids]);
  const groups = framedGroups(plan, screens, places);
  if (groups.length) for (const { name } of Object.values(made.components)) named.add(name);
  return groups.map((group): LayoutProposal => {
    const own = bars.get(group[0])!.filter(({ element }) => places.has(element));
    const labels = own.flatMap((bar) => bar.labels);
    const name = freeName(app, nameOf(app, group, own, markedBy), group, called);
    called.add(name);
    const layout = uniqueName(kebabCase(name) || 'layout', (candidate) => keyed.has(candidate));
    keyed.add(layout);
    return {
      id: `layout ${hash(group.join())}`,
      name,
      screens: group,
      reason: `they have the same ${labels.length} links around them: ${labels.slice(0, 4).join(', ')}${labels.length > 4 ? ' …' : ''}`,
      change: all([...components, putLayout(layout, { name, screens: group })]),
    };
  });
}

/** How alike what bars say has to be, 0 to 1: where one is may be marked, and a part be open. */
const ALIKE = 0.4;
/** Of the elements of a screen, a bar is at most this part, unless it is at most that part of its width or height. */
const LARGEST_PART = 0.7;
const SLIM = 0.4;
/** Px within which bars stand at the same place. */
const PLACE = 8;

/**
 * The parts of each screen that stand at the same place of others and say nearly the same, with what leads on from them:
 * those first that most screens have.
 */
function barsOf({ app, design }: Project, keys: readonly string[]): ReadonlyMap<string, readonly Bar[]> {
  const byKey = screensByKey(design);
  interface Family {
    readonly first: Traits;
    readonly members: Map<string, Traits>;
  }
  const families = new Map<string, Family[]>();
  for (const key of keys) {
    const { root, width, height } = byKey.get(key)!;
    const all = traitsOf(root);
    const end = Math.max(...all.map(({ element: { box } }) => box.y + box.height));
    for (const one of all.slice(1)) {
      const { box } = one.element;
      if (one.size < LEAST_ELEMENTS) continue;
      // A menu may be most of what a short page holds, but it is not most of what one sees of it.
      const isSlim = Math.min(box.width / width, box.height / Math.max(height, end)) <= SLIM;
      if (one.size > all.length * LARGEST_PART && !isSlim) continue;
      // What stands at the end of pages is as far from their end, however long they are.
      for (const [edge, far] of [
        ['top', box.y],
        ['end', end - box.y - box.height],
      ] as const) {
        const place = [box.x, far, box.width].map((n) => Math.round(n / PLACE)).join(' ');
        const form = `${one.tag} ${calledOf(one.element)} ${edge} ${place}`;
        const known = families.get(form) ?? [];
        const family = known.find(
          ({ first, members }) => !members.has(key) && likeSketches(first.says, one.says) >= ALIKE,
        );
        if (family) family.members.set(key, one);
        else families.set(form, [...known, { first: one, members: new Map([[key, one]]) }]);
      }
    }
  }
  const bars = new Map<string, Bar[]>();
  const taken = new Map<string, Traits[]>();
  const shared = [...families.values()]
    .flat()
    .filter(({ members }) => members.size > 1)
    .sort((x, y) => y.members.size - x.members.size || y.first.size - x.first.size);
  shared.forEach(({ members }, number) => {
    const free = [...members].filter(([key, one]) =>
      (taken.get(key) ?? []).every((other) => one.end <= other.order || other.end <= one.order),
    );
    if (free.length < 2) return;
    const parts = free.map(([key, one]) => ({ all: traitsOf(byKey.get(key)!.root), one }));
    if (holdsOwn(parts.map(({ all, one }) => textsIn(all, one))) || standsAgain(parts)) return;
    for (const [key, one] of free) {
      const labels = pressablesOf(byKey.get(key)!).flatMap(({ element, label }) =>
        isWithin(design, element.key, one.element.key) ? [label] : [],
      );
      if (labels.length < LEAST_PRESSABLE) continue;
      taken.set(key, [...(taken.get(key) ?? []), one]);
      const name = nameOfBar(app, one.element, byKey.get(key)!);
      const { x, y } = one.element.box;
      const bar = { screen: key, element: one.element.key, name, labels, x, y, sign: String(number) };
      bars.set(key, [...(bars.get(key) ?? []), bar]);
    }
  });
  return bars;
}

/** A bar has at most so many texts, or such a part of its texts, that are its screen's own: where one is, what is marked. */
const MOST_OWN = 2;
const MOST_OWN_PART = 0.1;
/** What at most this part of the screens say is their own. */
const FEW = 0.2;

const textsIn = (all: readonly Traits[], { order, end }: Traits): readonly string[] =>
  all.slice(order, end).flatMap(({ text }) => text || []);

/** Whether parts at one place of several screens hold what is each screen's own, and so are around it and no bar. */
function holdsOwn(parts: readonly (readonly string[])[]): boolean {
  const saidBy = new Map<string, number>();
  for (const texts of parts) for (const text of new Set(texts)) saidBy.set(text, (saidBy.get(text) ?? 0) + 1);
  const few = Math.max(1, parts.length * FEW);
  // In the middle: what a menu shows where it is open is the own of few.
  const over = parts.filter((texts) => {
    const own = texts.filter((text) => saidBy.get(text)! <= few).length;
    return own > Math.max(MOST_OWN, texts.length * MOST_OWN_PART);
  });
  return over.length * 2 > parts.length;
}

/** Whether screens have more of the same beside it: what is around a screen is there once, what recurs in it is a part of it. */
function standsAgain(parts: readonly { readonly all: readonly Traits[]; readonly one: Traits }[]): boolean {
  const again = parts.filter(({ all, one }) =>
    all.some((other) => (other.end <= one.order || other.order >= one.end) && isLike(one, other)),
  );
  return again.length * 2 > parts.length;
}

/** Whether two are called the same and say nearly the same, wherever they stand. */
const isLike = (one: Traits, other: Traits): boolean =>
  one.tag === other.tag &&
  calledOf(one.element) === calledOf(other.element) &&
  likeSketches(one.says, other.says) >= ALIKE;

/** What its author calls an element. */
const calledOf = ({ name, classes = name }: Element): string => classes;

/** What says the same as bars on screens that have it elsewhere: no frame is left around those, but it is the same part. */
function likeBars(project: Project, bars: readonly Bar[]): string[] {
  const byKey = screensByKey(project.design);
  const known = new Set(bars.map(({ screen }) => screen));
  const [{ screen, element }] = bars;
  const bar = traitsOf(byKey.get(screen)!.root).find((one) => one.element.key === element)!;
  return orderedScreens(project.app).flatMap((key) => {
    if (known.has(key) || !isUsed(project, key)) return [];
    const like = traitsOf(byKey.get(key)!.root).find((one) => isLike(bar, one));
    return like ? [like.element.key] : [];
  });
}

/**
 * The change that makes one component of the bars, unless they are one.
 * @param others what is the same part on other screens
 */
function barComponent(
  { app, design }: Project,
  bars: readonly Bar[],
  { ids, named }: { readonly ids: Set<string>; readonly named: ReadonlySet<string> },
  others: readonly string[],
): Change[] {
  const places = [...bars.map((bar) => bar.element), ...others];
  const isOne = Object.values(app.components).some((component) =>
    places.every((place) => component.places.some((other) => isWithin(design, place, other))),
  );
  if (isOne || bars.length < 2) return [];
  const id = uniqueName('bar', (candidate) => !!app.components[candidate] || ids.has(candidate));
  ids.add(id);
  const taken = new Set([...named, ...Object.values(app.components).map((component) => component.name)]);
  const screens = places.map((place) => screenOf(design, place));
  const name = freeName(app, bars[0].name, screens, taken);
  return [putComponent(id, { name, kind: 'component', places })];
}

/** A name that nothing has: told by the screens that it is on, and by a number where these say nothing. */
function freeName(
  app: Project['app'],
  name: string,
  screens: readonly string[],
  taken: ReadonlySet<string>,
): string {
  const told = toldByScreens(app, screens).map((words) => sentenceCase(`${words} ${uncapital(name)}`));
  return firstFree([name, ...told], (candidate) => taken.has(candidate), ' ');
}

/** What is higher than this, in px, is no bar over or under something: it is what several screens show. */
const HIGHEST_BAR = 320;
/** A layer's name that somebody gave is at most so long. */
const LONGEST_NAME = 24;

/** What people call a bar: as what opens and closes, or its layer's name where somebody gave it one, else by where it stands. */
function nameOfBar({ disclosures }: Project['app'], bar: Element, { width, height }: Screen): string {
  const { name, classes, box } = bar;
  const word = wordOfClasses(classes ?? '');
  const called = word && sentenceCase(word.replace(/(?=[A-Z])/g, ' '));
  const opens = disclosures[bar.key];
  if (opens && opens.kind !== 'section') return sentenceCase(`${opens.name} ${opens.kind}`);
  if (!classes && name.length <= LONGEST_NAME && wordOfLayer(bar)) return sentenceCase(name);
  // What is nowhere itself holds what floats over the page.
  if (called && box.height < PLACE) return called;
  // Beside a long page a side bar may be short.
  const isAtSide = box.x <= PLACE || box.x + box.width >= width - PLACE;
  if (box.width <= width / 2 && (box.height >= height / 2 || (isAtSide && box.height > box.width * 1.5)))
    return box.x + box.width / 2 <= width / 2 ? 'Side bar' : 'Side panel';
  if (box.width >= width / 2 && box.height <= HIGHEST_BAR)
    return box.y + box.height / 2 <= height / 2 ? 'Top bar' : 'Footer';
  return called || (holdsTable(bar) ? 'Table block' : 'Bar');
}

const holdsTable = ({ tag, children }: Element): boolean => tag === 'table' || children.some(holdsTable);

/** The share of the screens of a layout that are in the same part of the app, as their menu marks it. */
const IN_ONE_PART = 0.7;

/** @param markedBy the entry that the menu of a screen marks, if one */
function nameOf(
  app: Project['app'],
  screens: readonly string[],
  bars: readonly Bar[],
  markedBy: (screen: string) => string,
): string {
  const base = commonBase(screens.map((key) => app.screens[key].route));
  const last = base
    .split('/')
    .filter((part) => part && !part.startsWith(':'))
    .at(-1);
  // The first that one comes by: what is at the end of a page is least of what it is called.
  const [first] = bars.toSorted((a, b) => a.y - b.y || a.x - b.x);
  if (last) return sentenceCase(last.replace(/-/g, ' '));
  const [[part, those] = ['', []]] = [...grouped(screens, markedBy)].toSorted(
    ([, a], [, b]) => b.length - a.length,
  );
  return part && those.length > 1 && those.length >= screens.length * IN_ONE_PART
    ? part
    : (first?.name ?? 'Shared');
}
