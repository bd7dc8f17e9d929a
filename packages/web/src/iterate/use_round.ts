import type {
  Answer,
  Answers,
  Effects,
  GraphDifference,
  IterationReport,
  Project,
  RoundScreen,
  WaitingRound,
} from '@tovel/core';
import { proxy } from 'comlink';
import { useCallback, useEffect, useState } from 'react';
import { useProject, useStanding } from '../project/context';
import { remoteOf } from '../project/remote';
import type { RoundWorker } from './round_worker';

export type RoundEffects = Effects & { readonly graph: GraphDifference };

export interface OpenRound {
  /** Null until the screens have been compared. */
  readonly report: IterationReport | null;
  readonly progress: { readonly done: number; readonly total: number };
  readonly problem: string | null;
  readonly isWhole: boolean;
  readonly setWhole: (isWhole: boolean) => void;
  readonly answers: Answers;
  readonly answer: (element: string, answer: Answer | null) => void;
  readonly answerAll: (answers: Answers) => void;
  /** What it does to the app; null until that is worked out. */
  readonly effects: RoundEffects | null;
  readonly screen: (at: number) => Promise<RoundScreen>;
  /** The project as it would be. */
  readonly project: () => Promise<Project>;
}

const keptUnder = (id: string, round: NonNullable<WaitingRound>): string =>
  `tovel-answers ${id} ${round.madeAt}`;

function keptAnswers(key: string): Answers {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Answers;
  } catch {
    return {};
  }
}

/** A next round of screens, held against the project in a worker; nothing of it is done. */
export function useRound(round: NonNullable<WaitingRound>): OpenRound {
  const { id, session } = useProject();
  const { history } = useStanding();
  const key = keptUnder(id, round);
  const [worker, setWorker] = useState<Worker | null>(null);
  const [isWhole, setWhole] = useState(round.whole);
  const [progress, setProgress] = useState({ done: 0, total: 0 });
  const [problem, setProblem] = useState<string | null>(null);
  const [planned, setPlanned] = useState(0);
  const [report, setReport] = useState<IterationReport | null>(null);
  const [effects, setEffects] = useState<RoundEffects | null>(null);
  const [answers, setAnswers] = useState<Answers>(() => keptAnswers(key));

  // What is compared is what is saved: each step of the project, and another extent of the round, is compared anew.
  useEffect(() => {
    const made = new Worker(new URL('./round_worker.ts', import.meta.url), { type: 'module' });
    setWorker(made);
    setProblem(null);
    setProgress({ done: 0, total: 0 });
    void session
      .settled()
      .then(() =>
        remoteOf<RoundWorker>(made).open(
          id,
          isWhole,
          proxy((done, total) => setProgress({ done, total })),
        ),
      )
      .then(
        () => setPlanned((count) => count + 1),
        (error: Error) => setProblem(error.message),
      );
    return () => made.terminate();
  }, [id, session, history.seq, isWhole, round.madeAt]);

  useEffect(() => {
    if (!worker || !planned) return;
    let isStale = false;
    const remote = remoteOf<RoundWorker>(worker);
    const fail = (error: Error): void => void (isStale || setProblem(error.message));
    remote.report(answers).then((made) => {
      if (isStale) return;
      setReport(made);
      remote.effects(answers).then((effect) => void (isStale || setEffects(effect)), fail);
    }, fail);
    return () => {
      isStale = true;
    };
  }, [worker, planned, answers]);

  const answerAll = useCallback(
    (some: Answers) =>
      setAnswers((known) => {
        const made = { ...known, ...some };
        localStorage.setItem(key, JSON.stringify(made));
        return made;
      }),
    [key],
  );
  const answer = useCallback(
    (element: string, one: Answer | null) =>
      setAnswers((known) => {
        const { [element]: _, ...others } = known;
        const made = one ? { ...others, [element]: one } : others;
        localStorage.setItem(key, JSON.stringify(made));
        return made;
      }),
    [key],
  );
  const screen = useCallback(
    (at: number) =>
      worker ? remoteOf<RoundWorker>(worker).screen(at, answers) : Promise.reject(new Error('not open')),
    [worker, answers],
  );
  const project = useCallback(
    () => (worker ? remoteOf<RoundWorker>(worker).project(answers) : Promise.reject(new Error('not open'))),
    [worker, answers],
  );
  return {
    report,
    progress,
    problem,
    isWhole,
    setWhole,
    answers,
    answer,
    answerAll,
    effects,
    screen,
    project,
  };
}

/** Forgets what was answered, once a round is taken in or put away. */
export const forgetAnswers = (id: string, round: NonNullable<WaitingRound>): void =>
  localStorage.removeItem(keptUnder(id, round));
