import { grouped } from '../json/grouped.ts';
import type { Screen } from '../model/design.ts';
import { firstFree } from '../model/names.ts';
import { shapeOf } from '../roles/shape.ts';
import { rootOf, type Sight, sightOf } from '../roles/sight.ts';
import { type Candidate, type Choice, choose, saidAs } from './choose.ts';
import { type FrameGroup, framesOf, LEAST_PLACES, stretchesOf, stretchNames } from './frames.ts';
import { groupsOf, sizeOf } from './groups.ts';
import { namesOf } from './names.ts';
import { type ComponentProposal, idOf, type Named } from './proposal.ts';
import { listsOf, sameRows } from './rows.ts';
import { onceFor } from '../json/once_for.ts';

interface Found extends Candidate {
  /** Of rows: the list. */
  readonly list?: Named;
}

/**
 * Finds what repeats, within screens and across them, those first that save most: what is best written once when the rest is,
 * too. Places of one overlap those of another only where they stand in them or around them.
 * @param refused ids of what is not wanted: what else its places could be is looked at then
 */
export function findComponents(
  screens: readonly Screen[],
  refused: ReadonlySet<string> = new Set(),
): Named[] {
  const there = repeatedIn(screens);
  const lists = there.lists.filter(({ list }) => !refused.has(list.id));
  // What is a row wherever it stands is one of a list.
  const rows = new Set(lists.flatMap(({ list }) => list.places));
  const isOpen = ({ id, sights }: Repeated['groups'][number]): boolean =>
    !refused.has(id) && !sights.every((sight) => rows.has(keyOf(sight)));
  const names = new Set<string>();
  const chosen = choose([...lists, ...there.groups.filter(isOpen)], there.same.filter(isOpen));
  const at = new Set(chosen.flatMap(({ candidate }) => candidate.sights.map(keyOf)));
  const frames = there.frames
    .map((frame) =>
      frameProposal({ ...frame, sights: frame.sights.filter((sight) => !at.has(keyOf(sight))) }),
    )
    .filter((frame) => frame !== null)
    .filter(({ id }) => !refused.has(id));
  return [
    ...chosen.map((choice) => (choice.candidate.list ? { ...choice.candidate.list } : proposalOf(choice))),
    ...frames,
  ]
    .sort((a, b) => b.saves - a.saves || (a.id < b.id ? -1 : 1))
    .map((proposal) => {
      const name = firstFree([proposal.name, ...proposal.others], (candidate) => names.has(candidate), '');
      names.add(name);
      return { ...proposal, name };
    });
}

/** All that repeats, whatever of it is wanted. */
interface Repeated {
  readonly lists: readonly (Found & { readonly list: Named })[];
  readonly groups: readonly (Found & { readonly id: string })[];
  /** Of the groups, what says the very same at several places. */
  readonly same: readonly (Found & { readonly id: string })[];
  readonly frames: readonly FrameGroup[];
}
const repeatedIn = onceFor(findRepeated);

function findRepeated(screens: readonly Screen[]): Repeated {
  const sights = new Map<string, Sight>();
  for (const screen of screens) for (const [key, sight] of sightOf(screen).byKey) sights.set(key, sight);
  const alone = screens.flatMap(listsOf);
  // Of what cannot be one list, those that are can, and each by itself.
  const together = [false, true].flatMap((isStrict) => sameRows(alone, sights, isStrict));
  const byId = new Map([...alone, ...together.toReversed()].map((list) => [list.id, list]));
  const groups = groupsOf(screens);
  const component = (sights: readonly Sight[]): Found & { readonly id: string } => ({
    kind: 'component',
    sights,
    id: idOf('component', sights.map(keyOf)),
  });
  const same = groups.flatMap((group) => [...grouped(group, ({ element }) => saidAs(element)).values()]);
  const bySame = new Map(same.filter(({ length }) => length > 1).map((some) => [keyOf(some[0]), some]));
  return {
    lists: [...byId.values()].map((list) => ({
      kind: 'list',
      sights: list.places.map((key) => sights.get(key)!),
      list,
    })),
    groups: groups.map(component),
    same: [...bySame.values()].map(component),
    frames: allFrames(screens),
  };
}

/** The lists of a screen: rows that repeat within one element. */
export const findLists = (screen: Screen): ComponentProposal[] =>
  listsOf(screen).map(({ others: _others, ...list }) => list);

const keyOf = ({ element }: Sight): string => element.key;

function proposalOf({ candidate: { sights }, unity, given }: Choice<Found>): Named {
  const [first] = sights;
  const places = sights.map(keyOf);
  const isOneForm = sights.every(({ element }) => shapeOf(element) === shapeOf(first.element));
  const size = Math.round(sights.reduce((sum, { element }) => sum + sizeOf(element), 0) / sights.length);
  return {
    id: idOf('component', places),
    kind: 'component',
    ...namesOf(first, 'component', sights),
    places,
    saves: (sights.length - 1) * size,
    confidence: confidenceOf(unity, isOneForm, sights, size, given),
    reason: `${placesWords(sights)} are built ${isOneForm ? 'the same' : 'nearly the same'}`,
  };
}

function placesWords(sights: readonly Sight[]): string {
  const screens = new Set(sights.map(rootOf)).size;
  return `${sights.length} places${screens > 1 ? ` on ${screens} screens` : ''}`;
}

function allFrames(screens: readonly Screen[]): FrameGroup[] {
  const frames = framesOf(screens);
  const at = new Set(frames.flatMap(({ sights }) => sights));
  const stretches = stretchesOf(screens).map((one) => ({
    ...one,
    sights: one.sights.filter((sight) => !at.has(sight)),
  }));
  return [...frames, ...stretches];
}

/** What stands around something else at each of its places; null where too few are left. */
function frameProposal(frame: FrameGroup): Named | null {
  const { kind, sights, around } = frame;
  if (sights.length < LEAST_PLACES) return null;
  const places = sights.map(keyOf);
  return {
    id: idOf('component', places),
    kind: 'component',
    ...(kind === 'stretch' ? stretchNames(frame) : namesOf(sights[0], 'component', sights)),
    places,
    saves: (sights.length - 1) * around,
    confidence: 0.6 + 0.02 * Math.min(5, sights.length - 2),
    reason: `${placesWords(sights)} have the same around what they hold`,
  };
}

/** How sure it is that a person would take a component, 0 to 1. */
function confidenceOf(
  unity: number,
  isOneForm: boolean,
  sights: readonly Sight[],
  size: number,
  given: number,
): number {
  const sure =
    0.55 +
    0.3 * unity +
    0.02 * Math.min(5, sights.length - 2) -
    (isOneForm ? 0 : 0.1) -
    (size < 5 ? 0.1 : 0) -
    0.02 * Math.max(0, given - 4);
  // Whatever rows are, a person writes them once.
  const asRows = areRows(sights) ? Math.min(SURE_OF_ROWS, sure + 0.1) : 0;
  return Math.min(0.95, Math.max(0.3, sure, asRows));
}

/** How sure it is at most that rows are one thing for that alone. */
const SURE_OF_ROWS = 0.8;
/** Most of what stands as so many beside each other are rows. */
const LEAST_BESIDE = 5;
const MOST_OF_THEM = 0.8;

function areRows(sights: readonly Sight[]): boolean {
  const beside = new Map<Sight | null, number>();
  for (const { parent } of sights) beside.set(parent, (beside.get(parent) ?? 0) + 1);
  const inRows = sights.filter(({ parent }) => beside.get(parent)! >= LEAST_BESIDE);
  return inRows.length >= sights.length * MOST_OF_THEM;
}
