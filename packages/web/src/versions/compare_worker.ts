import {
  type ComparedScreen,
  Comparison,
  type GraphDifference,
  type ProjectDifference,
  type ProjectState,
} from '@tovel/core';
import { expose } from 'comlink';
import { fetched } from '../api/fetched';

let compared: Comparison | null = null;

/** Holds two places of a history beside each other, away from the interface. */
const comparisons = {
  async open(
    id: string,
    before: number,
    after: number,
  ): Promise<{ readonly list: readonly ProjectDifference[]; readonly graph: GraphDifference }> {
    const at = (seq: number): Promise<ProjectState> =>
      fetched<ProjectState>(`/api/projects/${encodeURIComponent(id)}/at/${seq}`);
    const [old, now] = await Promise.all([at(before), at(after)]);
    compared = new Comparison(old, now, (hash) => `/api/assets/${hash}`);
    return { list: compared.list(), graph: compared.graph() };
  },

  screen: (key: string): ComparedScreen => compared!.screen(key),
};

export type CompareWorker = typeof comparisons;

expose(comparisons);
