import { type DataProposals, proposeData, type Screen } from '@tovel/core';
import { expose } from 'comlink';

/** Looks for records, forms and what controls do, away from the interface. */
const data = {
  find(screens: readonly Screen[]): DataProposals[] {
    return [proposeData({ screens })];
  },
};

export type DataWorker = typeof data;

expose(data);
