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
const SURER = 0.9;
const LEAST_SAVED = 12;
/** A component with more props than this says less than what it stands for; a row has a field for each column of its table. */
const MOST_PROPS = { component: 9, list: 16 } as const;
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
  // Of two that stand in each other the surer is the one thing, and of those alike what saves more.
  const sure = findComponents(screens)
    .filter(({ confidence, saves }) => confidence >= SURE && saves >= LEAST_SAVED)
    .sort((a, b) => Number(b.confidence >= SURER) - Number(a.confidence >= SURER));
  const kept = fitting(project, sure, (proposals) => byThemselves(app, proposals, around));
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

type Proposal = ReturnType<typeof findComponents>[number];
type Chosen = readonly [id: string, proposal: Proposal];

/**
 * Those of proposals that stand neither in each other nor around what is taken, the first first: one thing is one part. In
 * what is taken they can stand: the entries of a bar that screens share are parts of it.
 */
function byThemselves(
  { components }: Project['app'],
  proposals: readonly Proposal[],
  around: (key: string) => readonly string[],
): Chosen[] {
  const taken = new Set(Object.values(components).flatMap(({ places }) => places));
  const aroundTaken = new Set([...taken].flatMap(around));
  const own = new Set<string>();
  const chosen: Chosen[] = [];
  let number = 0;
  for (const proposal of proposals) {
    const { places } = proposal;
    const isFree = places.every(
      (key) => !taken.has(key) && !aroundTaken.has(key) && !around(key).some((outer) => own.has(outer)),
    );
    if (!isFree) continue;
    do number++;
    while (components[`part-${number}`]);
    chosen.push([`part-${number}`, proposal]);
    for (const key of places) {
      taken.add(key);
      own.add(key);
      around(key).forEach((outer) => aroundTaken.add(outer));
    }
  }
  return chosen;
}

/** So often what was not fit gives way to what stands in it or around it. */
const MOST_ROUNDS = 5;

/** Those that can be made, and are given no more than they stand for, when all of them are taken. */
function fitting(
  project: Project,
  proposals: readonly Proposal[],
  choose: (proposals: readonly Proposal[]) => readonly Chosen[],
  rounds = MOST_ROUNDS,
): readonly Chosen[] {
  const chosen = choose(proposals);
  const tried = chosen.map(([id, { name, kind, places }]) => putComponent(id, { name, kind, places }));
  const made = { ...project, app: applyChange(project.app, all(tried)) };
  const { components } = extractionOf(new EmissionPlan(made));
  const kinds = new Map(chosen.map(([id, { kind }]) => [id, kind]));
  const fit = new Set(
    components.flatMap((component) =>
      isFit(component, kinds.get(component.id) ?? 'component') ? [component.id] : [],
    ),
  );
  const kept = chosen.filter(([id]) => fit.has(id));
  if (kept.length === chosen.length) return kept;
  const unfit = new Set(chosen.flatMap(([id, { id: proposal }]) => (fit.has(id) ? [] : [proposal])));
  // In the end without what stands in the others: without some, others are given what those were.
  const open = rounds ? proposals.filter(({ id }) => !unfit.has(id)) : kept.map(([, proposal]) => proposal);
  return fitting(project, open, choose, Math.max(0, rounds - 1));
}

const isFit = ({ props }: EmittedComponent, kind: keyof typeof MOST_PROPS): boolean =>
  props.length <= MOST_PROPS[kind] && props.every(({ choices }) => (choices?.length ?? 0) <= MOST_LOOKS);
