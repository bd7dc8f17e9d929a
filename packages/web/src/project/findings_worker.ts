import {
  type CollectionProposal,
  type Design,
  findCollections,
  inferRoles,
  isUsed,
  openCollections,
  type Project,
  settle,
} from '@tovel/core';
import { expose } from 'comlink';
import { type Looked, lookThrough } from './look_through';
import { ProjectMemory, type ToldProject } from './told_project';

const memory = new ProjectMemory();
/** Collections by the screens of a design, with the keys of those that were used. */
const proposed = new WeakMap<
  Design['screens'],
  { readonly keys: string; readonly found: readonly CollectionProposal[] }
>();

/** Lets others be answered. */
const pause = (): Promise<void> => new Promise((go) => setTimeout(go));

/** The collections that the screens of an app show. */
async function proposedIn(project: Project): Promise<readonly CollectionProposal[]> {
  const { screens } = settle(project).design;
  const used = screens.filter(({ key }) => isUsed(project, key));
  const keys = used.map(({ key }) => key).join();
  const before = proposed.get(screens);
  if (before?.keys === keys) return before.found;
  // What takes longest is kept with each screen.
  for (const screen of used) {
    inferRoles(screen);
    await pause();
  }
  const found = findCollections(used);
  proposed.set(screens, { keys, found });
  return found;
}

/** Looks through a project away from the interface. */
const looking = {
  look: (told: ToldProject): Looked => lookThrough(memory.hear(told)),
  /** How many of the collections that the screens show nobody has taken or refused. */
  openCollections: async (told: ToldProject): Promise<number> => {
    const project = memory.hear(told);
    return openCollections(project.app, await proposedIn(project)).length;
  },
};

export type FindingsWorker = typeof looking;

expose(looking);
