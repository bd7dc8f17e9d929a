import type { IntakeResult } from '@tovel/core';
import { useSyncExternalStore } from 'react';
import type { ProjectSession } from '../project/session';
import {
  type Batch,
  type BatchOptions,
  type ChosenFile,
  NotKept,
  type Progress,
  type RunningIntake,
  startIntake,
} from './run_intake';

/** Why a batch was not taken in, and how to try once more with what is held, where that can help. */
export interface Failure {
  readonly text: string;
  readonly again?: () => void;
}

/** How far bringing screens in is. */
export interface IntakeStanding {
  readonly running: RunningIntake | null;
  readonly progress: Progress | null;
  /** What came of the last batch, and how long that took, in ms. */
  readonly last: IntakeResult | null;
  readonly took: number;
  readonly failure: Failure | null;
}

/** Bringing screens into an open project. It goes on while somebody is at another station. */
export class IntakeRun {
  readonly #session: ProjectSession;
  readonly #listeners = new Set<() => void>();
  #state: IntakeStanding = { running: null, progress: null, last: null, took: 0, failure: null };

  constructor(session: ProjectSession) {
    this.#session = session;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly getState = (): IntakeStanding => this.#state;

  /** @param onEnd told of what came in, unless that failed */
  begin(chosen: readonly ChosenFile[], options: BatchOptions, onEnd: (batch: Batch) => void): void {
    if (!chosen.length || this.#state.running) return;
    this.#set({ last: null });
    const started = startIntake(this.#session, chosen, (progress) => this.#set({ progress }), options);
    this.#follow(started, started.finished, onEnd);
  }

  fail(text: string): void {
    this.#set({ failure: { text } });
  }

  /** Follows a batch to its end; one that was read but not kept can be sent once more. */
  #follow(running: RunningIntake, finished: Promise<Batch>, onEnd: (batch: Batch) => void): void {
    this.#set({ running, failure: null });
    const began = performance.now();
    finished
      .then(
        (last) => {
          this.#set({ last, took: performance.now() - began });
          onEnd(last);
        },
        (error: Error) => {
          if (!(error instanceof NotKept)) return this.fail(error.message);
          this.#set({
            failure: {
              text: `The batch was read but could not be kept yet: ${error.message} What was read is held here.`,
              again: () =>
                this.#follow(
                  running,
                  error.again((progress) => this.#set({ progress })),
                  onEnd,
                ),
            },
          });
        },
      )
      .finally(() => this.#set({ running: null, progress: null }));
  }

  #set(part: Partial<IntakeStanding>): void {
    this.#state = { ...this.#state, ...part };
    for (const listener of this.#listeners) listener();
  }
}

const runs = new WeakMap<ProjectSession, IntakeRun>();

/** The one of a project that is open. */
export function intakeOf(session: ProjectSession): IntakeRun {
  const known = runs.get(session);
  if (known) return known;
  const run = new IntakeRun(session);
  runs.set(session, run);
  return run;
}

/** How far bringing screens in is, for views. */
export function useIntake(session: ProjectSession): IntakeStanding {
  const run = intakeOf(session);
  return useSyncExternalStore(run.subscribe, run.getState);
}
