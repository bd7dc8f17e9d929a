import type { EmittedComponent } from '../emit/form/components/extract.ts';
import { extractionOf } from '../emit/form/components/extraction.ts';
import { all, applyChange, type Change, putComponent } from '../change/change.ts';
import { findComponents } from '../components/find.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import { settle } from '../layers/settle.ts';
import { surelyShared } from '../layouts/propose.ts';
import { parentsByKey } from '../model/places.ts';
import { uniqueName } from '../model/names.ts';
import { isUsed, type Project } from '../model/project.ts';

/** What is taken without being asked is as sure as this, 0 to 1, and saves so many elements. */
const SURE = 0.8;
const LEAST_SAVED = 12;
/** A component with more props than this says less than what it stands for. */
const MOST_PROPS = 9;
/** What comes in more looks than these is no one thing. */
const MOST_LOOKS = 6;

/**
 * The change that parts screens which just came in, as a person would before anything else: what several of them surely
 * share is a layout of theirs, and what surely repeats is a component or a list. Each is a decision like any other.
 */
export function partedAtFirst(project: Project): Change {
  const shared = surelyShared(project);
  const parted = { ...project, app: applyChange(project.app, shared) };
  return all([shared, surelyRepeated(parted)]);
}

function surelyRepeated(project: Project): Change {
  const settled = settle(project);
  const { design, app } = settled;
  const screens = design.screens.filter(({ key }) => isUsed(settled, key));
  const parents = new Map(
    screens.flatMap((screen) => [...parentsByKey(screen)].map(([key, parent]) => [key, parent.key])),
  );
  const around = (key: string): string[] => {
    const found: string[] = [];
    for (let at = parents.get(key); at !== undefined; at = parents.get(at)) found.push(at);
    return found;
  };
  const taken = new Set(Object.values(app.components).flatMap(({ places }) => places));
  // What stands in something that is taken, or around it, is left alone: one thing is one part.
  const aroundTaken = new Set([...taken].flatMap(around));
  const chosen = new Map<string, ReturnType<typeof findComponents>[number]>();
  const ids = new Set(Object.keys(app.components));
  for (const proposal of findComponents(screens)) {
    if (proposal.confidence < SURE || proposal.saves < LEAST_SAVED) continue;
    const { places } = proposal;
    if (
      places.some(
        (key) => taken.has(key) || aroundTaken.has(key) || around(key).some((outer) => taken.has(outer)),
      )
    )
      continue;
    let number = chosen.size + 1;
    while (ids.has(`part-${number}`)) number++;
    chosen.set(`part-${number}`, proposal);
    ids.add(`part-${number}`);
    for (const key of places) {
      taken.add(key);
      around(key).forEach((outer) => aroundTaken.add(outer));
    }
  }
  const kept = fitting(project, [...chosen]);
  // Numbers told them from what was not taken.
  const names = new Set(Object.values(app.components).map(({ name }) => name));
  return all(
    kept.map(([id, { name: found, kind, places }]) => {
      const name = uniqueName(found.replace(/\d+$/, ''), (candidate) => names.has(candidate), '');
      names.add(name);
      return putComponent(id, { name, kind, places });
    }),
  );
}

type Chosen = readonly [id: string, proposal: ReturnType<typeof findComponents>[number]];

/** Those that can be made, and are given no more than they stand for, when all of them are taken. */
function fitting(project: Project, chosen: readonly Chosen[]): readonly Chosen[] {
  const tried = chosen.map(([id, { name, kind, places }]) => putComponent(id, { name, kind, places }));
  const made = { ...project, app: applyChange(project.app, all(tried)) };
  const { components } = extractionOf(new EmissionPlan(made));
  const fit = new Set(components.flatMap((component) => (isFit(component) ? [component.id] : [])));
  const kept = chosen.filter(([id]) => fit.has(id));
  // Without some, others are given what those were.
  return kept.length === chosen.length ? kept : fitting(project, kept);
}

const isFit = ({ props }: EmittedComponent): boolean =>
  props.length <= MOST_PROPS && props.every(({ choices }) => (choices?.length ?? 0) <= MOST_LOOKS);
