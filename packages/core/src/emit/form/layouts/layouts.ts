import { grouped } from '../../../json/grouped.ts';
import { isElement, type MarkupElement, withoutKeys } from '../markup.ts';
import { codeBefore } from '../before.ts';
import { type EmissionPlan, emitScreenOf } from '../plan.ts';
import { kept, keptList } from '../../../json/kept.ts';
import { byDrawing } from '../../../model/places.ts';
import { keptMarkup } from '../kept_markup.ts';
import type { Extraction } from '../components/extract.ts';
import { extractionOf } from '../components/extraction.ts';
import { lookText } from '../styles/look_text.ts';
import { type Frame, type Framed, frameOf, Signs } from './frame.ts';

/** A layout in the table of routes: its component, its screens, and the layout around it, if it is in one. */
export interface PlacedLayout {
  readonly name: string;
  readonly screens: readonly string[];
  readonly parent: string | null;
}

export interface Layouts {
  readonly layouts: readonly (PlacedLayout & { readonly id: string; readonly frame: Frame })[];
  /** What is left of the screens that are in one. */
  readonly insides: ReadonlyMap<string, MarkupElement>;
}

/**
 * The layouts that can be written: those whose screens really have something around them in common, the larger ones
 * around the smaller ones.
 */
export function layoutsOf(
  plan: EmissionPlan,
  extraction: Extraction,
  nameFor: (title: string) => string,
): Layouts {
  const insides = new Map<string, MarkupElement>();
  const homes = new Map<string, string>();
  const layouts: Layouts['layouts'][number][] = [];
  const before = framesOf(plan.project.design);
  const wanted = Object.entries(plan.project.app.layouts).sort(
    ([a, { screens: many }], [b, { screens: few }]) => few.length - many.length || (a < b ? -1 : 1),
  );
  for (const [id, layout] of wanted) {
    const used = plan.screens.filter((key) => layout.screens.includes(key));
    // All its screens stand in the same layout, or in none.
    const parent = homes.get(used[0]) ?? null;
    const screens = used.filter((key) => (homes.get(key) ?? null) === parent);
    const framed = framedBy(plan, extraction, screens, insides, id);
    const last = before.get(id);
    const frame =
      last && areSame(last.framed, framed) ? last.frame : keptFrame(last?.frame, frameAmong(framed));
    before.set(id, { framed, frame });
    if (!frame) continue;
    const name = nameFor(layout.name);
    screens.forEach((key, i) => {
      insides.set(key, frame.insides[i]);
      homes.set(key, name);
    });
    layouts.push({ id, name, screens, parent, frame });
  }
  return { layouts, insides };
}

/** What the layouts of a design had around their screens last, by their ids. */
type Frames = Map<string, { readonly framed: readonly Framed[]; readonly frame: Frame | null }>;

const framesOf = byDrawing((): Frames => new Map());

const areSame = (some: readonly Framed[], others: readonly Framed[]): boolean =>
  some.length === others.length &&
  some.every(({ root, rules, route, inside }, i) => {
    const other = others[i];
    return root === other.root && rules === other.rules && route === other.route && inside === other.inside;
  });

const keptFrame = (before: Frame | null | undefined, now: Frame | null): Frame | null =>
  now && {
    root: keptMarkup(before?.root, now.root),
    rules: kept(before?.rules, now.rules),
    usual: keptMarkup(before?.usual, now.usual),
    insides: keptList(before?.insides ?? [], now.insides, keptMarkup),
  };

/** @param id of the layout, whose screens keep what stood within it before; null where it is none yet */
function framedBy(
  plan: EmissionPlan,
  extraction: Extraction,
  screens: readonly string[],
  insides: ReadonlyMap<string, MarkupElement>,
  id: string | null,
): Framed[] {
  const before = codeBefore(plan.project.app).insides.get(id ?? '');
  return screens.map((key) => ({
    root: insides.get(key) ?? extraction.roots.get(key) ?? emitScreenOf(plan, key).root,
    rules: extraction.rules.get(key) ?? emitScreenOf(plan, key).rules,
    route: plan.routeOf(key),
    inside: before?.get(key) ?? NOTHING,
  }));
}

/** What screens have around them in common; where some say themselves which part is the main one, what is around them all is none. */
function frameAmong(framed: readonly Framed[], signs?: Signs): Frame | null {
  const isMixed = new Set(framed.map(({ root }) => root.tag)).size > 1;
  return frameOf(
    framed.map((one) =>
      isMixed && one.root.tag === 'main' ? { ...one, root: { ...one.root, tag: 'div' } } : one,
    ),
    signs,
  );
}

const NOTHING: ReadonlySet<string> = new Set();

/** The outermost elements of what is left of a screen. */
export const keysInside = (inside: MarkupElement): ReadonlySet<string> =>
  new Set((inside.tag ? [inside] : inside.children.filter(isElement)).flatMap(({ key }) => key ?? []));

/** What screens have around them in common that a layout could hold, or this one holds; null where that is nothing. */
export const frameAround = (
  plan: EmissionPlan,
  screens: readonly string[],
  id: string | null = null,
  signs?: Signs,
): Frame | null => frameAmong(framedBy(plan, extractionOf(plan), screens, new Map(), id), signs);

/** Whether screens have something around them in common that a layout could hold. */
export const hasFrame = (plan: EmissionPlan, screens: readonly string[]): boolean =>
  frameAround(plan, screens) !== null;

/** Screens that others are held against, to find the most that share a frame. */
const MOST_SEEDS = 4;
/** Screens that others are tried with, at most. */
const MOST_OTHERS = 40;
/** So often two ways to part screens are both tried. */
const MOST_LOOKS = 3;
/** What stands on so many of the screens at one place is around them. */
const MOSTLY = 0.6;

/**
 * The groups of screens among these that have something around them in common that a layout could hold, the largest
 * first: of those whose outermost element looks the same, the groups whose layouts save most.
 * @param places keys of the bars, which are places of components
 */
export function framedGroups(
  plan: EmissionPlan,
  screens: readonly string[],
  places: ReadonlySet<string>,
): string[][] {
  const { roots, rules } = extractionOf(plan);
  const rootOf = (key: string): MarkupElement => roots.get(key) ?? emitScreenOf(plan, key).root;
  const lookOf = (key: string): string => {
    const { className, attributes } = rootOf(key);
    const rule = rules.get(key)?.find((one) => one.className === className);
    return JSON.stringify([attributes, rule ? lookText(rule) : null]);
  };
  const givenTo = (key: string): string => {
    const given: unknown[] = [];
    const visit = (node: MarkupElement): void => {
      if (node.use && node.key !== null && places.has(node.key)) given.push(node.use);
      for (const child of node.children) if (isElement(child)) visit(child);
    };
    visit(rootOf(key));
    return JSON.stringify(given, withoutKeys);
  };
  /** Which parts stand where on a screen, whatever they are given. */
  const partsAt = (key: string): string[] => {
    const found: string[] = [];
    const visit = (node: MarkupElement, at: string): void => {
      if (node.use && node.key !== null && places.has(node.key)) found.push(`${at} ${node.use.component}`);
      node.children.forEach((child) => {
        if (isElement(child)) visit(child, `${at} ${child.use ? '' : child.tag}`);
      });
    };
    visit(rootOf(key), '');
    return found;
  };
  /** Screens by the parts around them; what stands on some only is theirs. */
  const byParts = (group: readonly string[]): string[][] => {
    const parts = new Map(group.map((key) => [key, partsAt(key)]));
    const counts = new Map<string, number>();
    for (const found of parts.values())
      for (const part of new Set(found)) counts.set(part, (counts.get(part) ?? 0) + 1);
    const isAround = (part: string): boolean => counts.get(part)! >= group.length * MOSTLY;
    return [...grouped(group, (key) => parts.get(key)!.filter(isAround).join('; ')).values()];
  };
  const signs = new Signs();
  const known = new Map<string, number>();
  /** How many bars a layout of a group holds; each group is looked at once. */
  const barsOf = (group: readonly string[]): number => {
    const id = JSON.stringify(group);
    let count = known.get(id);
    if (count === undefined) known.set(id, (count = barsAround(group)));
    return count;
  };
  const barsAround = (group: readonly string[]): number => {
    const frame = frameAround(plan, group, null, signs);
    const count = (node: MarkupElement): number =>
      node.use && node.key !== null && places.has(node.key)
        ? 1
        : node.children.reduce((sum, child) => sum + (isElement(child) ? count(child) : 0), 0);
    return frame ? count(frame.root) : 0;
  };
  /** What a layout of a group saves: the bars that it holds, on all of its screens but one. */
  const savedBy = (group: readonly string[]): number =>
    group.length < 2 ? 0 : barsOf(group) * (group.length - 1);
  /** Screens with others on which their layout holds as much, and tells bars something else by the address. */
  const grown = (same: readonly string[], group: readonly string[]): readonly string[] => {
    const bars = same.length < 2 ? 0 : barsOf(same);
    if (!bars) return same;
    const all = new Set(same);
    for (const key of group.filter((one) => !all.has(one)).slice(0, MOST_OTHERS))
      if (barsOf(group.filter((one) => one === key || all.has(one))) === bars) all.add(key);
    return group.filter((one) => all.has(one));
  };
  /** Those that have as many bars in common with one of the group: what stands by itself breaks it for no others. */
  const alike = (group: readonly string[]): (readonly string[])[] =>
    group.slice(0, MOST_SEEDS).flatMap((seed) => {
      const common = new Map(group.map((key) => [key, key === seed ? Infinity : barsOf([seed, key])]));
      const steps = new Set([...common.values()].filter((count) => count > 0));
      return [...steps].flatMap((least) => {
        const same = group.filter((key) => common.get(key)! >= least);
        return [same, grown(same, group)];
      });
    });
  const savedByAll = (groups: readonly (readonly string[])[]): number =>
    groups.reduce((sum, group) => sum + savedBy(group), 0);
  /** A group parted so that its layouts save most. @param looks how often it is tried what another choice would leave */
  const framed = (group: readonly string[], looks = MOST_LOOKS): readonly (readonly string[])[] => {
    const candidates = [
      group,
      ...byParts(group),
      ...alike(group),
      ...grouped(group, givenTo).values(),
    ].filter((candidate) => savedBy(candidate) > 0);
    if (!candidates.length) return [];
    const by = (worth: (candidate: readonly string[]) => number): readonly string[] =>
      candidates.reduce((best, one) =>
        worth(one) > worth(best) || (worth(one) === worth(best) && one.length > best.length) ? one : best,
      );
    const partedBy = (best: readonly string[]): readonly (readonly string[])[] => [
      best,
      ...framed(
        group.filter((key) => !best.includes(key)),
        looks - 1,
      ),
    ];
    // What holds most on each screen may leave others that hold as much by themselves.
    const [widest, fullest] = [by(savedBy), by(barsOf)];
    if (fullest === widest || looks <= 0) return partedBy(widest);
    return [widest, fullest]
      .map(partedBy)
      .reduce((best, one) => (savedByAll(one) > savedByAll(best) ? one : best));
  };
  return [...grouped(screens, lookOf).values()]
    .flatMap((group) => framed(group))
    .map((group) => [...group])
    .sort((x, y) => y.length - x.length);
}
