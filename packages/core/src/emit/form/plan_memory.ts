import { keptMap, sameList } from '../../json/kept.ts';
import type { Wired } from '../../links/wiring.ts';
import type { App, Target } from '../../model/app.ts';
import type { Design } from '../../model/design.ts';
import { byDrawing, haveSameElements } from '../../model/places.ts';
import type { Project } from '../../model/project.ts';
import type { EmittedWiring } from './emitted_wiring.ts';

/** What was planned for a design last: what an edit leaves as it is need not be worked out anew. */
export class PlanMemory {
  #last: Project | null = null;
  #names: readonly ReadonlyMap<string, unknown>[] = [];
  /** What of lists of interactions works. */
  #working = new WeakMap<readonly Wired[], readonly Wired[]>();
  /** What they are written as. */
  #written = new WeakMap<readonly Wired[], EmittedWiring>();

  /** To be told of the project that is planned now, settled, before anything is asked. */
  begin(project: Project): void {
    const last = this.#last;
    this.#last = project;
    if (last && sameOtherwise(last.app, project.app) && haveSameElements(last.design, project.design)) return;
    this.#working = new WeakMap();
    this.#written = new WeakMap();
  }

  /** What of a list can be done. @param works whether one of it can, asked where that may have changed */
  working(list: readonly Wired[], works: (one: Wired) => boolean): readonly Wired[] {
    const known = this.#working.get(list);
    if (known) return known;
    const working = list.every(works) ? list : list.filter(works);
    if (list.every(isPlain)) this.#working.set(list, working);
    return working;
  }

  /** @param names what parts and places are called: where something of it differs, all is written anew */
  naming(names: readonly ReadonlyMap<string, unknown>[]): void {
    const now = names.map((one, i) => keptMap(this.#names[i], one));
    if (!sameList(this.#names, now)) this.#written = new WeakMap();
    this.#names = now;
  }

  /** What a list of interactions is written as. @param write asked where that may have changed */
  written(list: readonly Wired[], write: () => EmittedWiring): EmittedWiring {
    const known = this.#written.get(list);
    if (known) return known;
    const made = write();
    if (list.every(isPlain)) this.#written.set(list, made);
    return made;
  }
}

/** Steps that follow from what was decided alone, whatever elements say. */
const PLAIN: ReadonlySet<Target['kind']> = new Set([
  'screen',
  'anchor',
  'back',
  'external',
  'open',
  'close',
  'disclose',
  'turn',
  'file',
  'drawer',
]);
const isPlain = ({ interaction: { before = [], target } }: Wired): boolean =>
  [...before, target].every(({ kind }) => PLAIN.has(kind));

/** What links are not planned by: a link is known by what is said of it, and what elements say is no matter. */
const NO_MATTER: ReadonlySet<string> = new Set<keyof App>(['edits', 'interactions']);

/** Whether two apps differ at most in how elements are edited and in what they do. */
function sameOtherwise(one: App, other: App): boolean {
  const tables = new Set([...Object.keys(one), ...Object.keys(other)]) as Set<keyof App>;
  return [...tables].every((table) => NO_MATTER.has(table) || one[table] === other[table]);
}

const memoriesOf = byDrawing(() => new Map<string, PlanMemory>());

/** @param kind what else tells plans of one design apart */
export function planMemoryOf(design: Design, kind: string): PlanMemory {
  const byKind = memoriesOf(design);
  const memory = byKind.get(kind) ?? new PlanMemory();
  byKind.set(kind, memory);
  return memory;
}
