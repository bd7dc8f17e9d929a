import { all, applyChange, type Change, putCollection } from '../change/change.ts';
import { type BehindProposal, proposeBehind } from '../described/behind.ts';
import { uniqueName } from '../model/names.ts';
import type { Project } from '../model/project.ts';
import type { CollectionProposal } from './collections.ts';
import { takenCollection } from './records.ts';
import { takeCollection } from './take_collection.ts';

/** Operations of a described API that a collection can come from, and the collection where nobody took it yet. */
export interface ComingFrom extends BehindProposal {
  readonly name: string;
  readonly proposal?: CollectionProposal;
}

/**
 * What can come from the described APIs, the surest first: collections that are taken, and those that are only proposed, which
 * are taken along.
 */
export function proposeComingFrom(project: Project, open: readonly CollectionProposal[]): ComingFrom[] {
  const { design, app } = project;
  if (!Object.keys(app.apis).length) return [];
  const collections = { ...app.collections };
  const proposals = new Map<string, CollectionProposal>();
  for (const proposal of open) {
    const id = uniqueName(proposal.name, (one) => collections[one] !== undefined, '');
    collections[id] = takenCollection(proposal);
    proposals.set(id, proposal);
  }
  return proposeBehind({ design, app: { ...app, collections } }).map((one) => {
    const proposal = proposals.get(one.collection);
    const { name } = collections[one.collection];
    return { ...one, name, ...(proposal ? { proposal } : {}) };
  });
}

/** Lets collections come from an API; those that nobody took are taken first. */
export function letComeFrom({ design, app }: Project, chosen: readonly ComingFrom[]): Change {
  const changes: Change[] = [];
  let made = app;
  const put = (change: Change): void => {
    changes.push(change);
    made = applyChange(made, change);
  };
  for (const { collection, behind, proposal } of chosen) {
    const taken = proposal ? takeCollection({ design, app: made }, proposal) : null;
    if (taken) put(taken.change);
    const id = taken?.id ?? collection;
    put(putCollection(id, { ...made.collections[id], behind }));
  }
  return all(changes);
}
