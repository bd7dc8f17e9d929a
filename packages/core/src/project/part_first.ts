import type { Covered, EmittedComponent } from '../emit/form/components/extract.ts';
import { extractionOf } from '../emit/form/components/extraction.ts';
import { all, applyChange, type Change, putComponent } from '../change/change.ts';
import { findComponents } from '../components/find.ts';
import { sizeOf } from '../components/groups.ts';
import { mostGiven } from '../components/one_thing.ts';
import { idOf } from '../components/proposal.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import { settle } from '../layers/settle.ts';
import { surelyShared } from '../layouts/propose.ts';
import { firstFree, pascalCase } from '../model/names.ts';
import { findElement, screenOf } from '../model/places.ts';
import type { Element, Screen } from '../model/design.ts';
import { toldByScreens } from '../model/told_by_screens.ts';
import type { StyleRule } from '../emit/form/markup.ts';
import { lookWord } from '../emit/form/styles/look_words.ts';
import { isUsed, type Project } from '../model/project.ts';

/** What is taken without being asked is as sure as this, 0 to 1, and saves so many elements. */
const SURE = 0.6;
const SURER = 0.9;
const LEAST_SAVED = 8;
/** What comes in more looks than these is no one thing, but that there are many colours. */
const MOST_LOOKS = 10;
const MOST_NAMED_LOOKS = 24;
/** The same of one aspect of the looks, where others are told by props of their own. */
const MOST_OF_AN_ASPECT = 60;

/**
 * The change that parts screens which just came in, as a person would before anything else: what several of them surely
 * share is a layout of theirs, and what surely repeats is a component or a list. Each is a decision like any other.
 */
export function partedAtFirst(project: Project): Change {
  const shared = surelyShared(project);
  const parted = { ...project, app: applyChange(project.app, shared) };
  return all([shared, surelyRepeated(parted, project.app)]);
}

/** @param before the app without what screens surely share */
function surelyRepeated(project: Project, before: Project['app']): Change {
  const settled = settle(project);
  const { design, app } = settled;
  const screens = design.screens.filter(({ key }) => isUsed(settled, key));
  // Of two at one place the surer is the one thing, and of those alike what saves more.
  const unsure = new Set<string>();
  const taken = new Set(Object.values(app.components).flatMap(({ places }) => places));
  const sure = (refused: ReadonlySet<string>): readonly Proposal[] =>
    surelyFound(screens, refused, unsure, taken).sort(
      (a, b) => Number(b.confidence >= SURER) - Number(a.confidence >= SURER),
    );
  const idFor = idsFor(app);
  const { kept, made } = fitting(project, (refused, parted) =>
    atFreePlaces(taken, [...parted.filter(({ id }) => !refused.has(id)), ...sure(refused)], idFor),
  );
  // A bar of a larger thing that was taken is a part of that.
  const gone = Object.keys(app.components).filter((id) => !made.has(id) && !before.components[id]);
  // Numbers told them from what was not taken.
  const names = new Map(
    Object.entries(app.components).flatMap(([id, { name, places }]) =>
      gone.includes(id) ? [] : [[name, places] as const],
    ),
  );
  return all([
    ...gone.map((id) => putComponent(id, null)),
    ...kept.map(([id, proposal]) => {
      const { kind, places } = proposal;
      const name = freeName(settled, proposal, names);
      names.set(name, places);
      return putComponent(id, { name, kind, places });
    }),
  ]);
}

/** A name that nothing has: that of the proposal, without a number wherever something tells it from what is called so. */
function freeName(
  project: Project,
  { name, others, places }: Proposal,
  names: ReadonlyMap<string, readonly string[]>,
): string {
  const plain = name.replace(/\d+$/, '');
  const other = names.get(plain);
  if (!other) return plain;
  const screens = places.map((place) => screenOf(project.design, place));
  const [where, whereFirst] = toldByScreens(project.app, screens).map(pascalCase);
  const told = [
    ...(where ? [where + plain] : []),
    ...tellingWords(project, places, other).map((word) => pascalCase(word) + plain),
    ...others.filter((one) => !/\d$/.test(one)),
    ...(whereFirst ? [whereFirst + plain] : []),
  ];
  return firstFree([plain, ...told], (candidate) => names.has(candidate), '');
}

/**
 * Proposals that are sure enough, at places where nothing is taken; what else the places of others could be is looked at, too.
 * @param unsure ids of what is known not to be, which become more
 */
function surelyFound(
  screens: readonly Screen[],
  refused: ReadonlySet<string>,
  unsure: Set<string>,
  taken: ReadonlySet<string>,
): Proposal[] {
  const isSure = ({ confidence, saves }: Proposal): boolean => confidence >= SURE && saves >= LEAST_SAVED;
  for (let round = 0; ; round++) {
    const found = findComponents(screens, new Set([...refused, ...unsure]));
    const sure: Proposal[] = [];
    for (const proposal of found) {
      const free = atFree(proposal, taken);
      if (free && isSure(free)) sure.push(free);
      else unsure.add(proposal.id);
    }
    if (sure.length === found.length || round === MOST_UNSURE) return sure;
  }
}
/** So often what is not sure gives way to what else its places could be. */
const MOST_UNSURE = 4;

/** A proposal without the places where something is taken; null where too little is left. */
function atFree(proposal: Proposal, taken: ReadonlySet<string>): Proposal | null {
  const places = proposal.places.filter((key) => !taken.has(key));
  if (places.length === proposal.places.length) return proposal;
  if (proposal.kind === 'list' || places.length < 2) return null;
  return { ...proposal, places, saves: savedBy(proposal, places.length) };
}

/** How many elements are saved where only so many places of a proposal are one thing. */
const savedBy = ({ saves, places }: Proposal, count: number): number =>
  (saves * (count - 1)) / (places.length - 1);

/** What people tell things of one kind apart by. */
const TELLING =
  /^(outlined|quiet|filled|open|small|large|tiny|huge|narrow|wide|short|tall|bold|light|raised|flat|rounded|square|stacked|inline|red|orange|yellow|green|blue|purple|pink|brown|grey|gray|black|white|pale\w+|dark\w+)$/i;

/** How what is called the same looks otherwise, in words, the best first: by its look, and by its size where it was drawn. */
function tellingWords({ design }: Project, places: readonly string[], others: readonly string[]): string[] {
  const [own, other] = [places, others].map(([first]) => findElement(design, first));
  if (!own || !other) return [];
  const rule = ({ style: { base } }: Element): StyleRule => ({
    className: '',
    key: null,
    base,
    at: {},
    from: {},
    states: {},
  });
  const word = lookWord(rule(own), rule(other), (one) => !TELLING.test(one));
  const [wide, tall] = (['width', 'height'] as const).map(
    (side) => Math.log2(own.box[side] / other.box[side]) || 0,
  );
  return [
    ...(word === null ? [] : [word]),
    ...(Math.abs(wide) > MUCH ? [wide > 0 ? 'wide' : 'narrow'] : []),
    ...(Math.abs(tall) > MUCH ? [tall > 0 ? 'tall' : 'short'] : []),
  ];
}
/** What is larger by this many doublings is so at first sight. */
const MUCH = 0.4;

type Proposal = ReturnType<typeof findComponents>[number];
type Chosen = readonly [id: string, proposal: Proposal];

interface Fitting {
  readonly kept: readonly Chosen[];
  /** All components of the app with them, as far as they can be made, by their ids. */
  readonly made: ReadonlyMap<string, EmittedComponent>;
}

/** Those of proposals that stand where nothing is taken, the first first: what is at one place is one thing. */
function atFreePlaces(
  takenBefore: ReadonlySet<string>,
  proposals: readonly Proposal[],
  idFor: (proposal: Proposal) => string,
): Chosen[] {
  const taken = new Set(takenBefore);
  return proposals.flatMap((proposal): Chosen[] => {
    const free = atFree(proposal, taken);
    if (!free) return [];
    for (const key of free.places) taken.add(key);
    return [[idFor(free), free]];
  });
}

/** Ids for what is chosen, that no component has: the same for the same each time, so that what was made of it is known again. */
function idsFor({ components }: Project['app']): (proposal: Proposal) => string {
  const ids = new Map<string, string>();
  let number = 0;
  return ({ id }) => {
    if (!ids.has(id)) {
      do number++;
      while (components[`part-${number}`]);
      ids.set(id, `part-${number}`);
    }
    return ids.get(id)!;
  };
}

/** So often what was not fit gives way to what else its places could be; of large piles, each round of which takes seconds, less often. */
const MOST_ROUNDS = 8;
const ELEMENTS_LOOKED_AT = 60_000;

/**
 * Those that can be made, and are given no more than they stand for, when all of them are taken.
 * @param choose what could be taken without what is refused, and with what was parted
 */
function fitting(
  project: Project,
  choose: (refused: ReadonlySet<string>, parted: readonly Proposal[]) => readonly Chosen[],
): Fitting {
  const elements = project.design.screens.reduce((sum, { root }) => sum + sizeOf(root), 0);
  const rounds = Math.min(MOST_ROUNDS, Math.ceil(ELEMENTS_LOOKED_AT / elements));
  const refused = new Set<string>();
  const parted: Proposal[] = [];
  let chosen = choose(refused, parted);
  // In the end without what stands in the others: without some, others are given what those were.
  for (let round = 0; ; round++) {
    const { made, covered } = madeOf(project, chosen);
    // What fits few of its places may be several things, each of which can be taken by itself.
    const isSeveral = (id: string, places: number): boolean => {
      const { part } = covered.get(id)!;
      return round < rounds && part < (places * (1 - part) < MANY ? LEAST_COVERED : LEAST_OF_MANY);
    };
    const unfit = chosen.filter(
      ([id, { kind, places }]) =>
        made.has(id) && (!isFit(made.get(id)!, kind) || isSeveral(id, places.length)),
    );
    // What cannot be made beside what is not fit may be made without that.
    const refusing = unfit.length ? unfit : chosen.filter(([id]) => !made.has(id));
    if (!refusing.length) return { kept: chosen, made };
    for (const [id, proposal] of refusing) {
      refused.add(proposal.id);
      const whole = made.get(id);
      if (whole && isFit(whole, proposal.kind)) parted.push(...partedBy(proposal, covered.get(id)!));
    }
    chosen = round < rounds ? choose(refused, parted) : chosen.filter(([, { id }]) => !refused.has(id));
  }
}

/** What becomes of those that are chosen when all of them are taken, by their ids; some cannot be made. */
function madeOf(
  project: Project,
  chosen: readonly Chosen[],
): { readonly made: ReadonlyMap<string, EmittedComponent>; readonly covered: ReadonlyMap<string, Covered> } {
  const tried = chosen.map(([id, { name, kind, places }]) => putComponent(id, { name, kind, places }));
  const app = applyChange(project.app, all(tried));
  const { components, covered } = extractionOf(new EmissionPlan({ ...project, app }));
  return { made: new Map(components.map((component) => [component.id, component])), covered };
}

/** The places that are one thing, and the others, which may be another, where the first are most of many. */
function partedBy(proposal: Proposal, { part, left }: Covered): Proposal[] {
  if (proposal.kind === 'list' || part < LEAST_COVERED) return [];
  const others = new Set(left);
  const groups = [proposal.places.filter((key) => !others.has(key)), left];
  return groups.flatMap((places) => {
    const saves = savedBy(proposal, places.length);
    return places.length > 1 && saves >= LEAST_SAVED
      ? [{ ...proposal, id: idOf(proposal.kind, places), places, saves }]
      : [];
  });
}

/** What fits a smaller part of its places is tried as what else they could be. */
const LEAST_COVERED = 0.6;
/** So many places that are left could be a thing of their own. */
const MANY = 10;
const LEAST_OF_MANY = 0.85;

function isFit({ props, root }: EmittedComponent, kind: Proposal['kind']): boolean {
  const mostNamed = root.aspects ? MOST_OF_AN_ASPECT : MOST_NAMED_LOOKS;
  return (
    props.length <= mostGiven(kind, root.tag === 'tr' ? root.children.length : 0) &&
    props.every(({ choices = [] }) => {
      const unnamed = choices.filter((one) => /\d$/.test(one)).length;
      return choices.length <= (unnamed <= MOST_LOOKS ? mostNamed : MOST_LOOKS);
    })
  );
}
