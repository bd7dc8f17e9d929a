import {
  type App,
  applyChange,
  type Change,
  type ChangeResult,
  collisions,
  type Design,
  type HistoryEntry,
  type HistoryState,
  type ProjectEvent,
  type ProjectState,
} from '@tovel/core';
import { type Api, BehindError, RequestError } from '../api/client';

/** What a view sees of an open project. A new value whenever anything of it changes. */
export interface SessionState {
  readonly id: string;
  readonly name: string;
  readonly design: Design;
  readonly app: App;
  readonly history: HistoryState;
  /** ISO time of the last step that is on the server's disk. */
  readonly savedAt: string;
  readonly saving: 'saved' | 'saving' | 'offline';
  /** Something a person should know; stays until dismissed. */
  readonly notice: string | null;
  /** The last finished build of the running app, as the history place it shows. */
  readonly built: number;
}

interface Pending {
  readonly label: string;
  readonly change: Change;
}

type SessionApi = Pick<Api, 'project' | 'change' | 'undo' | 'redo' | 'historyAfter'>;

const RETRY_MS = 1500;

/**
 * An open project on this side: what the server has confirmed, and on top of it the steps that are on their way.
 * Steps show at once and are sent one after the other; where others came first, theirs go beneath.
 */
export class ProjectSession {
  #state: SessionState;
  #confirmed: { app: App; seq: number };
  /** Which revision of the design is shown. */
  #revision: number;
  #pending: Pending[] = [];
  #sending: Promise<void> | null = null;
  readonly #api: SessionApi;
  readonly #listeners = new Set<() => void>();

  constructor(project: ProjectState, api: SessionApi) {
    this.#api = api;
    this.#confirmed = { app: project.app, seq: project.history.seq };
    this.#revision = project.revision;
    this.#state = {
      id: project.id,
      name: project.name,
      design: project.design,
      app: project.app,
      history: project.history,
      savedAt: project.changedAt,
      saving: 'saved',
      notice: null,
      built: 0,
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly getState = (): SessionState => this.#state;

  /** Takes a step: it shows at once and is saved as soon as the server answers. */
  change(label: string, change: Change): void {
    if (applyChange(this.#state.app, change) === this.#state.app) return;
    this.#pending.push({ label, change });
    this.#show();
    void this.#send();
  }

  undo(): Promise<void> {
    return this.#travel((base) => this.#api.undo(this.#state.id, base));
  }

  redo(): Promise<void> {
    return this.#travel((base) => this.#api.redo(this.#state.id, base));
  }

  /** Takes in a step that the server made on request, such as an intake. */
  async accept(make: (base: number) => Promise<ChangeResult>): Promise<void> {
    await this.settled();
    await this.#catchUp();
    await make(this.#confirmed.seq);
    await this.reload();
  }

  /** Resolves when nothing is on its way. */
  async settled(): Promise<void> {
    while (this.#sending) await this.#sending;
  }

  dismiss(): void {
    this.#set({ notice: null });
  }

  /** What the server tells while the project is open. */
  hear(event: ProjectEvent): void {
    if (event.kind === 'built') this.#set({ built: Math.max(this.#state.built, event.seq) });
    else if (event.kind === 'design') void this.reload().catch(() => {});
    else if (event.seq > this.#confirmed.seq && !this.#sending) void this.#catchUp().catch(() => {});
  }

  async reload(): Promise<void> {
    const project = await this.#api.project(this.#state.id);
    if (project.history.seq < this.#confirmed.seq) return;
    this.#confirmed = { app: project.app, seq: project.history.seq };
    const isSameDesign = project.revision === this.#revision;
    this.#revision = project.revision;
    this.#state = {
      ...this.#state,
      name: project.name,
      // What was computed of a design is kept with it.
      design: isSameDesign ? this.#state.design : project.design,
      history: project.history,
      savedAt: project.changedAt,
    };
    this.#show();
  }

  #set(part: Partial<SessionState>): void {
    this.#state = { ...this.#state, ...part };
    for (const listener of this.#listeners) listener();
  }

  #show(part: Partial<SessionState> = {}): void {
    const app = this.#pending.reduce((now, step) => applyChange(now, step.change), this.#confirmed.app);
    this.#set({
      app,
      saving: this.#pending.length ? (this.#state.saving === 'offline' ? 'offline' : 'saving') : 'saved',
      ...part,
    });
  }

  #send(): Promise<void> {
    this.#sending ??= this.#drain().finally(() => {
      this.#sending = null;
    });
    return this.#sending;
  }

  async #drain(): Promise<void> {
    while (this.#pending.length) {
      const step = this.#pending[0];
      try {
        const result = await this.#api.change(this.#state.id, {
          base: this.#confirmed.seq,
          label: step.label,
          change: step.change,
        });
        this.#pending.shift();
        this.#confirm([result.entry], result.history, result.changedAt);
      } catch (error) {
        if (error instanceof BehindError) this.#rebase(error.conflict.missed, error.conflict.history);
        else if (error instanceof RequestError && error.status >= 400 && error.status < 500) {
          this.#pending.shift();
          this.#show({ notice: `“${step.label}” was not taken: ${error.message}` });
        } else {
          this.#set({ saving: 'offline' });
          await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        }
      }
    }
  }

  #confirm(entries: readonly HistoryEntry[], history: HistoryState, changedAt?: string): void {
    for (const entry of entries) {
      if (entry.seq !== this.#confirmed.seq + 1) continue;
      this.#confirmed = { app: applyChange(this.#confirmed.app, entry.change), seq: entry.seq };
    }
    this.#state = { ...this.#state, history, savedAt: changedAt ?? this.#state.savedAt, saving: 'saved' };
    this.#show();
  }

  /** Puts what others did beneath the waiting steps; those that write the same place are given up, and that is said. */
  #rebase(missed: readonly HistoryEntry[], history: HistoryState): void {
    const theirs = missed.map((entry) => entry.change);
    const lost = this.#pending.filter((step) => collisions(step.change, theirs).length > 0);
    this.#pending = this.#pending.filter((step) => !lost.includes(step));
    this.#confirm(missed, history);
    if (lost.length)
      this.#show({
        notice: `Changed elsewhere at the same time, so yours was not taken: ${lost.map((step) => step.label).join(', ')}.`,
      });
  }

  async #catchUp(): Promise<void> {
    const missed = await this.#api.historyAfter(this.#state.id, this.#confirmed.seq);
    if (missed.length) await this.reload();
  }

  async #travel(step: (base: number) => Promise<ChangeResult>): Promise<void> {
    await this.settled();
    for (let attempt = 0; attempt < 3; attempt++) {
      try {
        const result = await step(this.#confirmed.seq);
        this.#confirm([result.entry], result.history, result.changedAt);
        // Undoing an intake brings the design of before back.
        if (result.revision !== this.#revision) await this.reload();
        return;
      } catch (error) {
        if (error instanceof BehindError) this.#rebase(error.conflict.missed, error.conflict.history);
        else {
          this.#show({ notice: (error as Error).message });
          return;
        }
      }
    }
  }
}
