import {
  type Answers,
  type Design,
  type Effects,
  type GraphDifference,
  type IterationReport,
  type Project,
  type ProjectState,
  Round,
  type RoundScreen,
  seldom,
} from '@tovel/core';
import { expose } from 'comlink';
import { fetched } from '../api/fetched';

let round: Round | null = null;
/** Holds a next round of screens against the project, away from the interface, and answers about it. */
const rounds = {
  /**
   * @param whole whether these are all screens there are
   * @param tell how many screens of how many have been compared
   */
  async open(id: string, whole: boolean, tell: (done: number, total: number) => void): Promise<void> {
    const path = `/api/projects/${encodeURIComponent(id)}`;
    const [project, { read }] = await Promise.all([
      fetched<ProjectState>(path),
      fetched<{ read: Design }>(`${path}/round/read`),
    ]);
    round = new Round(project, read, whole, (hash) => `/api/assets/${hash}`, seldom(tell));
  },

  report: (answers: Answers): IterationReport => round!.report(answers),
  screen: (at: number, answers: Answers): RoundScreen => round!.screen(at, answers),
  project: (answers: Answers): Project => round!.project(answers),
  effects: (answers: Answers): Effects & { readonly graph: GraphDifference } => round!.effects(answers),
};

export type RoundWorker = typeof rounds;

expose(rounds);
