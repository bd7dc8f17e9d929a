import {
  type Answers,
  type Design,
  type Effects,
  type GraphDifference,
  type IterationReport,
  type ProjectState,
  Round,
  type RoundScreen,
  seldom,
} from '@tovel/core';
import { expose } from 'comlink';
import { fetched } from '../api/fetched';

let round: Round | null = null;
let held: { readonly project: ProjectState; readonly read: Design } | null = null;

/** Holds a next round of screens against the project, away from the interface, and answers about it. */
const rounds = {
  /** @param whole whether these are all screens there are; null for what was said at intake */
  async open(
    id: string,
    whole: boolean | null,
    tell: (done: number, total: number) => void,
  ): Promise<{ readonly whole: boolean; readonly base: number }> {
    const path = `/api/projects/${encodeURIComponent(id)}`;
    const [project, next] = await Promise.all([
      fetched<ProjectState>(path),
      fetched<{ whole: boolean; read: Design }>(`${path}/round/read`),
    ]);
    held = { project, read: next.read };
    return rounds.plan(whole ?? next.whole, tell);
  },

  plan(
    whole: boolean,
    tell: (done: number, total: number) => void,
  ): { readonly whole: boolean; readonly base: number } {
    const { project, read } = held!;
    round = new Round(project, read, whole, (hash) => `/api/assets/${hash}`, seldom(tell));
    return { whole, base: project.history.seq };
  },

  report: (answers: Answers): IterationReport => round!.report(answers),
  screen: (at: number, answers: Answers): RoundScreen => round!.screen(at, answers),
  effects: (answers: Answers): Effects & { readonly graph: GraphDifference } => round!.effects(answers),
};

export type RoundWorker = typeof rounds;

expose(rounds);
