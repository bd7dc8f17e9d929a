import type { IntakeResult } from '@tovel/core';
import { useSyncExternalStore } from 'react';
import { api } from '../api/client';
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
  /** The files that were brought in last, and the paths of those of which something was told. */
  #held: { readonly chosen: readonly ChosenFile[]; readonly told: ReadonlySet<string> } = {
    chosen: [],
    told: new Set(),
  };
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
    this.#follow(started, started.finished, (batch) => {
      if (options.only === undefined)
        this.#held = { chosen, told: new Set(batch.notices.map(({ file }) => file)) };
      onEnd(batch);
    });
  }

  /** Whether a file that came along is still at hand, so that it can be made a screen. */
  hasFile(path: string): boolean {
    const { assets } = this.#session.getState().design;
    return this.#held.told.has(path) || assets.some(({ file }) => file === path);
  }

  /** Makes a screen of a file that was taken for something else, or left out. */
  async makeScreen(path: string, onEnd: (batch: Batch) => void): Promise<void> {
    const { assets } = this.#session.getState().design;
    const asset = assets.find(({ file }) => file === path);
    try {
      const chosen =
        this.#held.told.has(path) || !asset
          ? this.#held.chosen
          : [{ path, file: await api.asset(asset.hash) }];
      this.begin(chosen, { whole: false, only: path }, onEnd);
    } catch (error) {
      this.fail((error as Error).message);
    }
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
