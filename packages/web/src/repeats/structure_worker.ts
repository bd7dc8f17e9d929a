import { type ComponentProposal, findComponents, type Screen } from '@tovel/core';
import { expose } from 'comlink';

/** Looks for what repeats, away from the interface. */
const structure = {
  find(screens: readonly Screen[]): ComponentProposal[] {
    return findComponents(screens);
  },
};

export type StructureWorker = typeof structure;

expose(structure);
