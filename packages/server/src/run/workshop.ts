import { EventEmitter, once } from 'node:events';
import type { FastifyBaseLogger } from 'fastify';
import {
  type App,
  applyChange,
  isUsed,
  keepAlternative,
  lookValues,
  type ProjectEvent,
  settle,
} from '@tovel/core';
import type { Foresee, HistoryStore } from '../history/store.ts';
import { HttpError } from '../http/errors.ts';
import type { ProjectStore, StoredProject } from '../projects/store.ts';
import type { BuiltApp, CodePlace } from './build_thread.ts';
import { Builder, type BuildOrder } from './builder.ts';

interface Bench {
  built: BuiltApp | null;
  /** The place in the history, the revision of the design and the name that were built. */
  seq: number;
  revision: number;
  name: string;
  /** The last place that was told as built. */
  told: number;
  /** The thread that has the documents; another one has to be given them. */
  thread: number;
  /** A step that was built before it was written: what it makes of the app, and what the app became once it is. */
  foreseen: { readonly app: App; readonly written: Promise<StoredProject | null> } | null;
  /** The build that is under way, if any; the next one waits for it. */
  working: Promise<void> | null;
  /** How many wait for an answer. */
  waiting: number;
  /** Ends the build that is under way. */
  end: (() => void) | null;
  lastUsed: number;
}

/** What an address ends with where all values have names. */
const NAMED = 'named';

const withNames = (project: StoredProject): App => ({
  ...project.app,
  tokens: lookValues(
    settle(project).design.screens.filter(({ key }) => isUsed(project, key)),
    project.app.tokens,
  ),
});

/** What it ends with where the app is written in Vue. */
export const IN_VUE = 'vue';

/** What it ends with where an alternative stands in the place of its screen; the key of that follows. */
const AS = 'as.';

/** @throws HttpError where there is no such alternative */
function withKept(project: StoredProject, key: string): App {
  const entry = Object.hasOwn(project.app.screens, key) ? project.app.screens[key] : undefined;
  if (entry?.use !== 'alternative')
    throw new HttpError('not-found', 'This drawing is no alternative of a screen any more.');
  return applyChange(project.app, keepAlternative(project, key));
}

/** The project of an address, and what is said behind it. */
function addressParts(address: string): readonly [id: string, at: string | undefined] {
  const bar = address.indexOf('~');
  return bar < 0 ? [address, undefined] : [address.slice(0, bar), address.slice(bar + 1)];
}

/** How long a step is waited for that somebody asks for ahead, in ms. */
const LONGEST_AHEAD = 5000;
/** At most this many apps are kept ready to be rebuilt. */
const BENCHES = 6;

/** Builds generated apps in a thread: first when somebody runs one, then after each of its changes. */
export class Workshop {
  readonly #projects: ProjectStore;
  readonly #history: HistoryStore;
  readonly #tell: (project: string, event: ProjectEvent) => void;
  readonly #log: Pick<FastifyBaseLogger, 'error'>;
  readonly #benches = new Map<string, Bench>();
  readonly #builder = new Builder();
  /** Tells, by its project, of each build that a change led to. */
  readonly #news = new EventEmitter().setMaxListeners(0);

  /** @param tell hears how far builds are, and of every build that a change led to. */
  constructor(
    projects: ProjectStore,
    history: HistoryStore,
    tell: (project: string, event: ProjectEvent) => void,
    log: Pick<FastifyBaseLogger, 'error'>,
  ) {
    this.#projects = projects;
    this.#history = history;
    this.#tell = tell;
    this.#log = log;
  }

  /**
   * The app as it is now; built if it has changed since the last time. An address `project~12` is the app as it was at that
   * place of its history, `project~named` the app as it is, with a name for every value that recurs, so that other looks can be
   * tried while it runs, `project~vue` the app as it is, written in Vue, and `project~as.KEY` the app with that alternative in
   * the place of its screen.
   * @param signal ends the build where nobody else waits for it.
   * @throws HttpError where the project is not there, or the asker has left.
   */
  async current(address: string, signal?: AbortSignal): Promise<BuiltApp> {
    const bench = this.#bench(address);
    bench.waiting++;
    const onLeft = (): void => {
      if (bench.waiting === 1) bench.end?.();
    };
    signal?.addEventListener('abort', onLeft);
    try {
      do {
        await this.#work(address, bench);
        // Who asked for what was ended has left; this one has not.
      } while (!bench.built && !signal?.aborted);
    } finally {
      bench.waiting--;
      signal?.removeEventListener('abort', onLeft);
    }
    if (!bench.built) throw new HttpError('busy', 'The app is not built yet.', 1);
    return bench.built;
  }

  /**
   * The app once a step is in it; as it is where that does not come to be within a while.
   * @param seq the place of the step in the history
   */
  async withStep(project: string, seq: number, signal: AbortSignal): Promise<BuiltApp> {
    const isThere = (): boolean => {
      const bench = this.#benches.get(project);
      // What was foreseen is not there before it is written.
      return bench === undefined || (bench.built !== null && bench.seq >= seq && !bench.foreseen);
    };
    const late = AbortSignal.any([signal, AbortSignal.timeout(LONGEST_AHEAD)]);
    while (!isThere() && !late.aborted) await once(this.#news, project, { signal: late }).catch(() => {});
    return this.current(project, signal);
  }

  /**
   * Where in the code of an app something of its scripts was written; null where it is not built, or nothing is known of it.
   * @param script what the script is called, as `LinkedBuild` calls it
   * @param line from 1
   * @param column from 0
   */
  async where(project: string, script: string, line: number, column: number): Promise<CodePlace | null> {
    return this.#benches.has(project) ? this.#builder.where(project, script, line, column) : null;
  }

  /** To be told of every change. An app that nobody has run is not built. */
  changed(project: string): void {
    const bench = this.#benches.get(project);
    if (!bench) return;
    void this.#work(project, bench).then(
      () => this.#tellBuilt(project, bench),
      (error: unknown) => this.#log.error(error, 'build'),
    );
  }

  /** A change is heard of from here, and again from the database, and told once. */
  #tellBuilt(project: string, bench: Bench): void {
    if (bench.told === bench.seq) return;
    bench.told = bench.seq;
    this.#news.emit(project);
    this.#tell(project, { kind: 'built', project, seq: bench.seq, error: bench.built?.error ?? null });
  }

  /** Builds what an app becomes by a step while that is being written, where that is all it lacks. */
  readonly foresee: Foresee = (next, change, written) => {
    const bench = this.#benches.get(next.id);
    if (
      !bench?.built ||
      bench.working ||
      bench.foreseen ||
      bench.seq !== next.seq - 1 ||
      bench.revision !== next.revision ||
      bench.name !== next.name ||
      bench.thread !== this.#builder.thread()
    )
      return;
    bench.foreseen = { app: next.app, written };
    bench.working = this.#made(next.id, bench, next, { target: 'react', changes: [change] })
      .then(() => this.#heldToWritten(bench))
      .then(() => {
        // What came out otherwise is built anew, once it is heard of.
        if (bench.built) this.#tellBuilt(next.id, bench);
      })
      .catch((error: unknown) => this.#log.error(error, 'build'))
      .finally(() => (bench.working = null));
  };

  async close(): Promise<void> {
    this.#benches.clear();
    await this.#builder.close();
  }

  #bench(project: string): Bench {
    let bench = this.#benches.get(project);
    if (!bench) {
      bench = {
        built: null,
        seq: -1,
        revision: -1,
        name: '',
        told: -1,
        thread: -1,
        foreseen: null,
        working: null,
        waiting: 0,
        end: null,
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

  async #build(address: string, bench: Bench): Promise<void> {
    const [id, at] = addressParts(address);
    const isNamed = at === NAMED;
    const kept = at?.startsWith(AS) ? at.slice(AS.length) : null;
    const isOther = isNamed || kept !== null;
    const isNow = at === undefined || at === IN_VUE || isOther;
    await this.#heldToWritten(bench);
    const project = isNow ? await this.#projects.read(id) : await this.#past(id, at);
    const { seq, revision, name } = project;
    if (bench.built && bench.seq === seq && bench.name === name) return;
    const thread = this.#builder.thread();
    // Which values have names by themselves follows from all there is.
    const isKnown = bench.thread === thread && !isOther;
    const missed = isKnown && bench.seq < seq ? await this.#history.after(id, bench.seq) : [];
    await this.#made(address, bench, project, {
      target: at === IN_VUE ? 'vue' : 'react',
      ...(isKnown && bench.revision === revision ? {} : { design: project.design }),
      ...(isKnown
        ? {}
        : { app: isNamed ? withNames(project) : kept !== null ? withKept(project, kept) : project.app }),
      // Others may have gone on since the project was read.
      changes: missed.filter((entry) => entry.seq <= seq).map(({ change }) => change),
    });
  }

  /** Where a step was built before it was written, and came out otherwise or not at all, all is built anew. */
  async #heldToWritten(bench: Bench): Promise<void> {
    const { foreseen } = bench;
    if (!foreseen) return;
    const project = await foreseen.written;
    bench.foreseen = null;
    if (project?.app !== foreseen.app) Object.assign(bench, { built: null, seq: -1, thread: -1 });
  }

  /** Has an app built; `bench` is what becomes of it. */
  async #made(
    address: string,
    bench: Bench,
    { id, seq, revision, name }: Pick<StoredProject, 'id' | 'seq' | 'revision' | 'name'>,
    order: Pick<BuildOrder, 'target' | 'changes'> & Partial<Pick<BuildOrder, 'design' | 'app'>>,
  ): Promise<void> {
    const thread = this.#builder.thread();
    const { done, end } = this.#builder.build(
      { design: null, app: null, ...order, project: address, name },
      (count, total) => this.#tell(id, { kind: 'building', project: id, done: count, total }),
    );
    // The thread has them, whatever becomes of the build.
    Object.assign(bench, { seq, revision, name, thread, built: null, end });
    try {
      bench.built = await done;
    } finally {
      bench.end = null;
      this.#tell(id, { kind: 'building', project: id, done: 0, total: 0 });
    }
  }

  #past(id: string, at: string): Promise<StoredProject> {
    if (!/^\d{1,10}$/.test(at)) throw new HttpError('not-found', 'There is no such place in the history.');
    return this.#history.at(id, Number(at));
  }

  #dropOldest(): void {
    if (this.#benches.size <= BENCHES) return;
    const [oldest] = [...this.#benches].sort(([, a], [, b]) => a.lastUsed - b.lastUsed)[0];
    this.#benches.delete(oldest);
    this.#builder.forget(oldest);
  }
}
