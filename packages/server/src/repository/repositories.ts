import path from 'node:path';
import type { IntoPlan, MergeSide } from '@tovel/core';
import type { AssetStore } from '../assets/store.ts';
import type { Database } from '../database/pool.ts';
import type { DeliveryStore } from '../deliver/store.ts';
import type { HistoryStore } from '../history/store.ts';
import { HttpError } from '../http/errors.ts';
import type { ProjectStore } from '../projects/store.ts';
import type { Threads } from '../work/threads.ts';
import { commitMessage } from './message.ts';
import { RepositoryStore, type StoredRepository } from './store.ts';
import { type Commit, GitError, WorkTree } from './work_tree.ts';

export interface Look {
  /** The commit that was looked at; null for a branch that is not there yet. */
  readonly head: string | null;
  readonly commits: readonly Commit[];
  readonly plan: IntoPlan;
  readonly message: string;
}

interface Parts {
  readonly db: Database;
  readonly projects: ProjectStore;
  readonly history: HistoryStore;
  readonly assets: AssetStore;
  readonly threads: Threads;
  readonly deliveries: DeliveryStore;
}

type Answers = ReadonlyMap<string, MergeSide>;

/**
 * The repositories that projects are connected with: looking what is there and what pushing would do, and pushing. Tokens stay in
 * the memory of this process, and go to git by its environment.
 */
export class Repositories {
  readonly #parts: Parts;
  readonly #folder: string;
  readonly #store: RepositoryStore;
  readonly #tokens = new Map<string, string>();
  /** What is under way, by project: two at once would share a folder. */
  readonly #turns = new Map<string, Promise<unknown>>();

  constructor(parts: Parts, folder: string) {
    this.#parts = parts;
    this.#folder = folder;
    this.#store = new RepositoryStore(parts.db);
  }

  async get(project: string): Promise<(StoredRepository & { readonly hasToken: boolean }) | null> {
    const known = await this.#store.get(project);
    return known && { ...known, hasToken: this.#tokens.has(project) };
  }

  async connect(project: string, address: string, branch: string, token: string | undefined): Promise<void> {
    const known = await this.#store.get(project);
    // A token is for the place that it was given for.
    if (known && new URL(known.address).host !== new URL(address).host) this.#tokens.delete(project);
    if (token !== undefined) this.#tokens.set(project, token);
    await this.#store.connect(project, address, branch);
  }

  /**
   * The branches of a repository, in the order of their names.
   * @param token where none is given, the one that was given for that place before
   * @throws HttpError where git cannot ask it
   */
  branches(project: string, address: string, token: string | undefined): Promise<string[]> {
    return this.#inTurn(project, async () => {
      const known = await this.#store.get(project);
      const isKnown = known !== null && new URL(known.address).host === new URL(address).host;
      const tree = new WorkTree(path.join(this.#folder, `${project}.asked`), {
        address,
        branch: 'main',
        token: token ?? (isKnown ? this.#tokens.get(project) : undefined) ?? null,
      });
      return git(() => tree.branches());
    });
  }

  async disconnect(project: string): Promise<void> {
    this.#tokens.delete(project);
    await this.#store.disconnect(project);
  }

  /** @throws HttpError where nothing is connected, or git cannot do it */
  look(project: string, answers: Answers): Promise<Look> {
    return this.#inTurn(project, async () => {
      const { look } = await this.#lookNow(project, answers);
      return look;
    });
  }

  /**
   * Merges, commits and pushes what was looked at.
   * @throws HttpError where the branch holds something else by now, or something is asked that nobody answered
   */
  push(
    project: string,
    head: string | null,
    answers: Answers,
    message: string,
  ): Promise<{ readonly commit: string; readonly address: string; readonly branch: string }> {
    return this.#inTurn(project, async () => {
      const { look, tree, seq, name, known } = await this.#lookNow(project, answers);
      if (look.head !== head)
        throw new HttpError(
          'repository-moved',
          'Somebody else pushed to the branch meanwhile. Nothing was pushed; look at what is there now.',
        );
      const open = look.plan.asks.filter(({ id }) => !answers.has(id));
      if (open.length)
        throw new HttpError(
          'repository-asks',
          `${open.length === 1 ? 'One conflict waits' : `${open.length} conflicts wait`} to be decided, the first in ${open[0].path}. Nothing was pushed.`,
        );
      const commit = await git(() => tree.push(look.plan.writes, message));
      await this.#store.pushed(project, commit, seq);
      await this.#parts.deliveries.add(project, { seq, name, kind: 'push' });
      return { commit, address: known.address, branch: known.branch };
    });
  }

  async #lookNow(
    project: string,
    answers: Answers,
  ): Promise<{ look: Look; tree: WorkTree; seq: number; name: string; known: StoredRepository }> {
    const { projects, history, assets, threads } = this.#parts;
    const { name, design, app, seq } = await projects.read(project);
    const known = await this.#store.get(project);
    if (!known) throw new HttpError('not-found', 'The project is connected with no repository.');
    const { address, branch, pushed } = known;
    const tree = new WorkTree(path.join(this.#folder, project), {
      address,
      branch,
      token: this.#tokens.get(project) ?? null,
    });
    const head = await git(() => tree.refresh());
    const commits = head === null ? [] : await git(() => tree.commitsSince(pushed?.commit ?? null));
    const paths = await tree.list();
    const pictures = await assets.many(design.assets.map(({ hash }) => hash));
    const planned = await threads.run('planIntoFolder', {
      name,
      design,
      app,
      pictures,
      folder: tree.tree,
      paths,
      answers,
    });
    if ('problem' in planned) throw new HttpError('repository-failed', planned.problem);
    const steps = pushed ? await history.after(project, pushed.seq) : [];
    const undone = new Set(steps.flatMap(({ role, of }) => (role === 'undo' ? [of] : [])));
    const done = steps.filter((step) => step.role === 'do' && !undone.has(step.seq));
    const message = commitMessage(
      name,
      done.map(({ label }) => label),
    );
    return { look: { head, commits, plan: planned.plan, message }, tree, seq, name, known };
  }

  async #inTurn<T>(project: string, work: () => Promise<T>): Promise<T> {
    const before = this.#turns.get(project) ?? Promise.resolve();
    const turn = before.catch(() => undefined).then(work);
    this.#turns.set(project, turn);
    try {
      return await turn;
    } finally {
      if (this.#turns.get(project) === turn) this.#turns.delete(project);
    }
  }
}

/** What git does, with its errors as answers. */
async function git<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof GitError)) throw error;
    throw new HttpError(error.isBehind ? 'repository-moved' : 'repository-failed', error.message);
  }
}
