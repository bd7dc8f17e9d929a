import type { Project } from '@tovel/core';
import type { Remote } from 'comlink';
import { remoteOf } from './remote';
import { ProjectTeller, type ToldProject } from './told_project';

/** How long a worker that no view uses is kept, in ms. */
const KEPT = 120_000;

/**
 * A worker that is told of the project with each question. It outlives the view that asks, for a while: what it has worked out is
 * still known when one comes back.
 */
export class ProjectWorker<T> {
  readonly #start: () => Worker;
  #worker: { readonly worker: Worker; readonly teller: ProjectTeller } | null = null;
  #views = 0;
  #ending: ReturnType<typeof setTimeout> | undefined;

  constructor(start: () => Worker) {
    this.#start = start;
  }

  /** To be called by a view that uses it; what is given is called when that is gone. */
  use(): () => void {
    clearTimeout(this.#ending);
    this.#views++;
    return () => {
      if (--this.#views) return;
      this.#ending = setTimeout(() => {
        this.#worker?.worker.terminate();
        this.#worker = null;
      }, KEPT);
    };
  }

  /** @throws what the worker throws */
  ask<R>(project: Project, question: (remote: Remote<T>, told: ToldProject) => Promise<R>): Promise<R> {
    this.#worker ??= { worker: this.#start(), teller: new ProjectTeller() };
    const { worker, teller } = this.#worker;
    return question(remoteOf<T>(worker), teller.tell(project));
  }
}
