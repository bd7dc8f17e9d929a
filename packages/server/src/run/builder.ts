import { Worker } from 'node:worker_threads';
import { threadFile } from '../work/thread_file.ts';
import type { BuiltApp, CodePlace, Order, Report } from './build_thread.ts';

/** What is to be built of a project. */
export type BuildOrder = Omit<Extract<Order, { kind: 'build' }>, 'kind' | 'call' | 'ended'>;

interface Call {
  readonly tell: (done: number, total: number) => void;
  readonly resolve: (built: BuiltApp | null) => void;
  readonly reject: (error: Error) => void;
}

/** The thread that builds apps. One that dies is replaced at the next build; what it held has to be given anew. */
export class Builder {
  #worker: Worker | null = null;
  #thread = 0;
  #call = 0;
  readonly #calls = new Map<number, Call>();
  readonly #asked = new Map<number, (place: CodePlace | null) => void>();

  /** Which thread works now; another number stands for one that holds nothing yet. */
  thread(): number {
    this.#worker ??= this.#start();
    return this.#thread;
  }

  /** Begins a build. `done` gives null where it was ended. */
  build(
    order: BuildOrder,
    tell: Call['tell'],
  ): { readonly done: Promise<BuiltApp | null>; readonly end: () => void } {
    this.#worker ??= this.#start();
    const call = ++this.#call;
    const ended = new Int32Array(new SharedArrayBuffer(4));
    const done = new Promise<BuiltApp | null>((resolve, reject) =>
      this.#calls.set(call, { tell, resolve, reject }),
    );
    this.#worker.postMessage({ kind: 'build', call, ended, ...order } satisfies Order);
    return { done, end: () => void Atomics.store(ended, 0, 1) };
  }

  /** Where in the code something of a bundle was written; null where nothing is known of it. */
  where(project: string, script: string, line: number, column: number): Promise<CodePlace | null> {
    const worker = this.#worker;
    if (!worker) return Promise.resolve(null);
    const call = ++this.#call;
    return new Promise((resolve) => {
      this.#asked.set(call, resolve);
      worker.postMessage({ kind: 'where', call, project, script, line, column } satisfies Order);
    });
  }

  forget(project: string): void {
    this.#worker?.postMessage({ kind: 'forget', project } satisfies Order);
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  #start(): Worker {
    const worker = new Worker(threadFile('build_thread'), {
      resourceLimits: { maxOldGenerationSizeMb: 2000, maxYoungGenerationSizeMb: 96 },
    });
    this.#thread++;
    worker.on('message', (report: Report) => this.#hear(report));
    const onEnd = (error?: Error): void => {
      if (this.#worker === worker) this.#worker = null;
      for (const { reject } of this.#calls.values())
        reject(new Error(`The app could not be built: ${error?.message ?? 'the thread ended'}`));
      this.#calls.clear();
      for (const answer of this.#asked.values()) answer(null);
      this.#asked.clear();
    };
    worker.on('error', onEnd);
    worker.on('exit', () => onEnd());
    worker.unref();
    return worker;
  }

  #hear(report: Report): void {
    if (report.kind === 'where') {
      this.#asked.get(report.call)?.(report.place);
      this.#asked.delete(report.call);
      return;
    }
    const call = this.#calls.get(report.call);
    if (!call) return;
    if (report.kind === 'progress') return call.tell(report.done, report.total);
    this.#calls.delete(report.call);
    if (report.kind === 'failed') call.reject(new Error(report.message));
    else call.resolve(report.kind === 'built' ? report.built : null);
  }
}
