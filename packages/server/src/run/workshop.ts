import { type EmittedProject, emitReact } from '@tovel/core';
import type { FastifyBaseLogger } from 'fastify';
import type { ProjectStore } from '../projects/store.ts';
import { AppBuild, type Built } from './build.ts';

interface Bench {
  readonly build: AppBuild;
  emitted: EmittedProject | null;
  built: Built | null;
  seq: number;
  /** The build that is under way, if any; the next one waits for it. */
  working: Promise<void> | null;
  lastUsed: number;
}

/** At most this many apps are kept ready to be rebuilt. */
const BENCHES = 6;

/** Builds generated apps: first when somebody runs one, then after each of its changes. */
export class Workshop {
  readonly #projects: ProjectStore;
  readonly #tell: (project: string, built: { readonly seq: number; readonly error: string | null }) => void;
  readonly #log: Pick<FastifyBaseLogger, 'error'>;
  readonly #benches = new Map<string, Bench>();

  /** @param tell hears of every build that a change led to. */
  constructor(
    projects: ProjectStore,
    tell: (project: string, built: { readonly seq: number; readonly error: string | null }) => void,
    log: Pick<FastifyBaseLogger, 'error'>,
  ) {
    this.#projects = projects;
    this.#tell = tell;
    this.#log = log;
  }

  /** The app as it is now; built if it has changed since the last time. */
  async current(project: string): Promise<Built & { readonly emitted: EmittedProject }> {
    const bench = this.#bench(project);
    await this.#work(project, bench);
    return { ...bench.built!, emitted: bench.emitted! };
  }

  /** To be told of every change. An app that nobody has run is not built. */
  changed(project: string): void {
    const bench = this.#benches.get(project);
    if (!bench) return;
    void this.#work(project, bench).then(
      () => this.#tell(project, { seq: bench.seq, error: bench.built?.error ?? null }),
      (error: unknown) => this.#log.error(error, 'build'),
    );
  }

  async close(): Promise<void> {
    for (const bench of this.#benches.values()) await bench.build.dispose();
    this.#benches.clear();
  }

  #bench(project: string): Bench {
    let bench = this.#benches.get(project);
    if (!bench) {
      bench = {
        build: new AppBuild(`/${project}/`),
        emitted: null,
        built: null,
        seq: -1,
        working: null,
        lastUsed: Date.now(),
      };
      this.#benches.set(project, bench);
      this.#dropOldest();
    }
    bench.lastUsed = Date.now();
    return bench;
  }

  async #work(id: string, bench: Bench): Promise<void> {
    while (bench.working) await bench.working;
    bench.working = this.#build(id, bench).finally(() => (bench.working = null));
    await bench.working;
  }

  async #build(id: string, bench: Bench): Promise<void> {
    const project = await this.#projects.read(id);
    if (bench.built && bench.seq === project.seq) return;
    bench.emitted = emitReact(project, project.name);
    bench.built = await bench.build.build(bench.emitted);
    bench.seq = project.seq;
  }

  #dropOldest(): void {
    if (this.#benches.size <= BENCHES) return;
    const [oldest, bench] = [...this.#benches].sort(([, a], [, b]) => a.lastUsed - b.lastUsed)[0];
    this.#benches.delete(oldest);
    void bench.build.dispose();
  }
}
