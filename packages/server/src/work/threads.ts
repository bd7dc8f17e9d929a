import { Piscina } from 'piscina';
import { HttpError } from '../http/errors.ts';
import type * as jobs from './jobs.ts';
import { threadFile } from './thread_file.ts';

type Jobs = typeof jobs;
type Input<N extends keyof Jobs> = Parameters<Jobs[N]>[0];
type Output<N extends keyof Jobs> = Awaited<ReturnType<Jobs[N]>>;

/** Jobs that may wait for a thread; more are asked to come again. */
const MOST_WAITING = 64;

/** Threads for what takes long. A job that nobody waits for any more is ended, thread and all. */
export class Threads {
  #pool: Piscina | null = null;

  /**
   * @param signal ends the job, as when its asker has left.
   * @throws HttpError when there is too much to do.
   */
  async run<N extends keyof Jobs>(name: N, input: Input<N>, signal?: AbortSignal): Promise<Output<N>> {
    this.#pool ??= start();
    if (this.#pool.queueSize >= MOST_WAITING)
      throw new HttpError('busy', 'There is a lot to do at the moment. Ask again soon.', 2);
    return (await this.#pool.run(input, { name, ...(signal ? { signal } : {}) })) as Output<N>;
  }

  async close(): Promise<void> {
    await this.#pool?.destroy();
    this.#pool = null;
  }
}

function start(): Piscina {
  const pool = new Piscina({
    filename: threadFile('jobs'),
    execArgv: [],
    maxThreads: 2,
    minThreads: 0,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: 1500 },
  });
  // Who asked for a job that failed is told; a thread that ends by itself is no reason to end.
  pool.on('error', () => {});
  return pool;
}
