import {
  type App,
  applyChange,
  type Change,
  type ChangeResult,
  type Design,
  type EntryHead,
  equalJson,
  type HistoryEntry,
  type HistoryState,
  isOwnStep,
  type Project,
  type ProjectEvent,
  type ProjectState,
  rebased,
  valuesIn,
} from '@tovel/core';
import { type Api, BehindError, RequestError, type StepInput } from '../api/client';
import { newName } from './identity';
import { noShelf, type Shelf, type WaitingStep } from './shelf';

/** What a view sees of an open project. A new value whenever anything of it changes. */
export interface SessionState extends Standing {
  readonly id: string;
  readonly name: string;
  readonly design: Design;
  readonly app: App;
}

/** How far what was done is saved, told and built. */
export interface Standing {
  readonly history: HistoryState;
  /** ISO time of the last step that is on the server's disk. */
  readonly savedAt: string;
  readonly saving: 'saved' | 'saving' | 'offline';
  /** Why steps wait, in words, while they do. */
  readonly waitsFor: string | null;
  /** Something a person should know; stays until dismissed. */
  readonly notice: string | null;
  /** Steps that were not taken, since somebody wrote the same place first; they can be made all the same. */
  readonly refused: readonly WaitingStep[];
  /** Steps that a window left behind that ended before they were saved. */
  readonly leftBehind: readonly WaitingStep[];
  /** The last finished build of the running app, as the history place it shows. */
  readonly built: number;
  /** How far the code of the running app is, in screens, while that takes long. */
  readonly building: { readonly done: number; readonly total: number } | null;
  /** What the last step is that is only kept here until now, and what taking back takes back first. */
  readonly waits: string | null;
  /** Whether the first screens are still being read, and shown as they come. */
  readonly isArriving: boolean;
  /** How often it was told, since the project was opened, that notes of visitors changed. */
  readonly noted: number;
}

export type SessionApi = Pick<Api, 'project' | 'change' | 'undo' | 'redo'>;

/** Waits between attempts, in ms: short at first, then longer. */
const WAITS = [300, 700, 1500, 3000, 5000];
/** Answers that say nothing of the step itself: it is said again. */
const isPassing = (error: unknown): error is RequestError =>
  error instanceof RequestError &&
  (error.status === 0 || error.status >= 500 || [408, 425, 429].includes(error.status));

/**
 * An open project on this side: what the server has confirmed, and on top of it the steps that are on their way.
 * Steps show at once and are sent one after the other; where others came first, theirs go beneath. A step waits, also
 * on the device, until the server has said what became of it.
 */
export class ProjectSession {
  #state: SessionState;
  #confirmed: Project & { readonly seq: number };
  /** The first screens, as far as they were read: steps are made on them, and wait until all are there. */
  #arriving: Project | null = null;
  /** Which revision of the design is shown. */
  #revision: number;
  #pending: WaitingStep[] = [];
  /** What became of an app by the change that was made of it last. */
  readonly #followed = new WeakMap<App, { readonly change: Change; readonly app: App }>();
  /** The step that was sent and has not been answered. */
  #sent: string | null = null;
  #sending: Promise<void> | null = null;
  /** The last undo or redo that was asked for. */
  #travelling: Promise<void> = Promise.resolve();
  /** The last place in the history that was told of. */
  #told = 0;
  /** Told steps that others come before. */
  readonly #early = new Map<number, HistoryEntry>();
  #isCatchingUp = false;
  /** The step of somebody else whose undo was named. */
  #named: number | null = null;
  /** Ends each waiting that is under way. */
  readonly #waiting = new Set<() => void>();
  readonly #api: SessionApi;
  readonly #shelf: Shelf;
  readonly #author: string;
  readonly #since: number;
  readonly #listeners = new Set<() => void>();

  /** @param author this window, as histories name it. */
  constructor(project: ProjectState, api: SessionApi, author = 'device.window', shelf: Shelf = noShelf) {
    this.#api = api;
    this.#shelf = shelf;
    this.#author = author;
    this.#since = project.history.seq;
    this.#confirmed = { design: project.design, app: project.app, seq: project.history.seq };
    this.#revision = project.revision;
    this.#state = {
      id: project.id,
      name: project.name,
      design: project.design,
      app: project.app,
      history: project.history,
      savedAt: project.changedAt,
      saving: 'saved',
      waitsFor: null,
      notice: null,
      refused: [],
      leftBehind: [],
      built: 0,
      noted: 0,
      building: null,
      waits: null,
      isArriving: false,
    };
    void shelf.leftBehind(project.id).then(
      (leftBehind) => leftBehind.length && this.#set({ leftBehind }),
      () => {},
    );
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly getState = (): SessionState => this.#state;

  /** Takes a step: it shows at once and is saved as soon as the server answers. */
  change(label: string, change: Change): void {
    if (applyChange(this.#state.app, change) === this.#state.app) return;
    this.#push({ id: newName(16), label, change });
  }

  /** Makes steps all the same that were not taken, or saves those that a window left behind. */
  takeAgain(steps: readonly WaitingStep[]): void {
    this.#set({
      refused: this.#state.refused.filter((step) => !steps.includes(step)),
      leftBehind: this.#state.leftBehind.filter((step) => !steps.includes(step)),
      notice: null,
    });
    for (const step of steps) this.#push(step);
  }

  /** Lets go of steps that were left behind. */
  letGo(steps: readonly WaitingStep[]): void {
    this.#set({ leftBehind: this.#state.leftBehind.filter((step) => !steps.includes(step)) });
    void this.#shelf.drop(steps.map(({ id }) => id)).catch(() => {});
  }

  #push(step: WaitingStep): void {
    this.#named = null;
    this.#pending.push(step);
    // Made on screens that are not in yet, it is nothing without them.
    if (!this.#arriving) this.#keep(step);
    this.#show();
    void this.#send();
  }

  /**
   * Takes back a step of this window; one of somebody else is named first, and taken back when asked again.
   * @param chosen a step that somebody chose, wherever it stands
   */
  undo(chosen?: Pick<EntryHead, 'seq'>): Promise<void> {
    const waiting = chosen ? undefined : this.#pending.at(-1);
    // What has not been saved need not be: it never happened.
    const isKept = this.#state.saving === 'offline' || this.#arriving !== null;
    if (waiting && isKept && waiting.id !== this.#sent) {
      this.#forget([waiting]);
      this.#show();
      return Promise.resolve();
    }
    if (this.#arriving) return Promise.resolve();
    return this.#inTurn(() => this.#travel('undo', (input) => this.#api.undo(this.#state.id, input), chosen));
  }

  redo(): Promise<void> {
    if (this.#arriving) return Promise.resolve();
    return this.#inTurn(() => this.#travel('redo', (input) => this.#api.redo(this.#state.id, input)));
  }

  /** The place in the history that the last step will have, where nobody else comes between. */
  get expected(): number {
    return this.#confirmed.seq + this.#pending.length;
  }

  /** Whether a step was made here. */
  isOwn(step: EntryHead): boolean {
    return isOwnStep(step, { author: this.#author, since: this.#since });
  }

  /**
   * Shows the first screens while more of them are read. What is done to them waits, and is made once a step brought all of them;
   * where none did, it goes with them.
   * @param project null where nothing becomes of them
   */
  meanwhile(project: Project | null): void {
    // Another window was first.
    const first = this.#confirmed.design.screens.length ? null : project;
    if (this.#arriving && !first) this.#forget(this.#pending);
    this.#arriving = first;
    this.#show();
  }

  /** Takes in a step that the server made on request, such as an intake. Said again with the same id it is done once. */
  async accept(make: (input: StepInput) => Promise<ChangeResult>, id = newName(16)): Promise<void> {
    await this.settled();
    await make({ ...this.#input(), id });
    await this.reload();
  }

  /** Resolves when nothing is on its way. */
  async settled(): Promise<void> {
    while (this.#sending) await this.#sending;
  }

  dismiss(): void {
    this.#set({ notice: null, refused: [] });
  }

  /** What the server tells while the project is open. */
  hear(event: ProjectEvent): void {
    switch (event.kind) {
      case 'building':
        this.#set({ building: event.total ? { done: event.done, total: event.total } : null });
        break;
      case 'built':
        this.#set({ built: Math.max(this.#state.built, event.seq) });
        break;
      case 'at':
        if (event.seq > this.#confirmed.seq || event.revision !== this.#revision) this.#catchUp();
        break;
      case 'changed':
        if (event.entry.seq <= this.#confirmed.seq) break;
        this.#told = Math.max(this.#told, event.entry.seq);
        if (event.revision === this.#revision) this.#early.set(event.entry.seq, event.entry);
        this.#takeEarly(event.changedAt);
        // A gap is filled by the answer that is on its way, or else asked for.
        if (event.entry.seq > this.#confirmed.seq && !this.#sent) this.#catchUp();
        break;
      case 'noted':
        this.#set({ noted: this.#state.noted + 1 });
        break;
      case 'gone':
        break;
    }
    // The server is there: what waits need not wait longer.
    if (event.kind === 'at') for (const end of this.#waiting) end();
  }

  async reload(): Promise<void> {
    const project = await this.#api.project(this.#state.id, this.#author);
    if (project.history.seq < this.#confirmed.seq) return;
    const isSameDesign = project.revision === this.#revision;
    // What was computed of a design is kept with it.
    const design = isSameDesign ? this.#confirmed.design : project.design;
    this.#confirmed = { design, app: project.app, seq: project.history.seq };
    if (!isSameDesign && this.#arriving) {
      this.#arriving = null;
      this.#pending.forEach((step) => this.#keep(step));
    }
    this.#revision = project.revision;
    for (const seq of this.#early.keys()) if (seq <= project.history.seq) this.#early.delete(seq);
    this.#state = {
      ...this.#state,
      name: project.name,
      history: project.history,
      savedAt: project.changedAt,
    };
    this.#takeEarly();
    this.#show();
    if (!isSameDesign && this.#pending.length) void this.#send();
  }

  #input(): StepInput {
    return { base: this.#confirmed.seq, author: this.#author, since: this.#since };
  }

  #set(part: Partial<SessionState>): void {
    // Who shows it is drawn anew each time, which news that say nothing are not worth.
    if (
      Object.entries(part).every(([name, value]) => Object.is(this.#state[name as keyof SessionState], value))
    )
      return;
    this.#state = { ...this.#state, ...part };
    for (const listener of this.#listeners) listener();
  }

  #show(part: Partial<SessionState> = {}): void {
    const shown = this.#arriving ?? this.#confirmed;
    const isWaiting = this.#state.saving === 'offline' && this.#pending.length > 0;
    this.#set({
      design: shown.design,
      app: this.#pending.reduce((now, step) => this.#after(now, step.change), shown.app),
      isArriving: this.#arriving !== null,
      waits: (isWaiting || this.#arriving ? this.#pending.at(-1)?.label : null) ?? null,
      saving: isWaiting ? 'offline' : this.#pending.length && !this.#arriving ? 'saving' : 'saved',
      ...(isWaiting ? {} : { waitsFor: null }),
      ...part,
    });
  }

  /** The app after a change, the very same each time, so that what follows from it is not worked out again once it is saved. */
  #after(app: App, change: Change): App {
    const known = this.#followed.get(app);
    if (known?.change === change) return known.app;
    const after = applyChange(app, change);
    this.#followed.set(app, { change, app: after });
    return after;
  }

  #keep(step: WaitingStep): void {
    void this.#shelf.keep(this.#state.id, step).catch(() => {});
  }

  /** Steps that need not wait any more. */
  #forget(steps: readonly WaitingStep[]): void {
    this.#pending = this.#pending.filter((step) => !steps.includes(step));
    void this.#shelf.drop(steps.map(({ id }) => id)).catch(() => {});
  }

  #send(): Promise<void> {
    if (this.#arriving) return Promise.resolve();
    this.#sending ??= this.#drain().finally(() => {
      this.#sending = null;
    });
    return this.#sending;
  }

  async #drain(): Promise<void> {
    let attempt = 0;
    while (this.#pending.length && !this.#arriving) {
      const step = this.#pending[0];
      this.#sent = step.id;
      try {
        const result = await this.#api.change(this.#state.id, { ...this.#input(), ...step });
        attempt = 0;
        this.#sent = null;
        this.#acknowledge(result, step);
        if (result.revision !== this.#revision) await this.reload();
      } catch (error) {
        this.#sent = null;
        if (error instanceof BehindError) this.#giveWay(step, error.conflict.missed, error.conflict.history);
        else if (isPassing(error)) {
          this.#set({ saving: 'offline', waitsFor: error.message });
          await this.#pause(error.retryAfter ?? WAITS[Math.min(attempt++, WAITS.length - 1)]);
        } else {
          this.#forget([step]);
          this.#show({ notice: `“${step.label}” was not taken: ${(error as Error).message}` });
        }
      }
    }
    this.#takeEarly();
    if (this.#told > this.#confirmed.seq) this.#catchUp();
  }

  /** Waits, or until the server is heard of. */
  #pause(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const end = (): void => {
        clearTimeout(timer);
        this.#waiting.delete(end);
        resolve();
      };
      const timer = setTimeout(end, ms);
      this.#waiting.add(end);
    });
  }

  #acknowledge(result: ChangeResult, step: WaitingStep): void {
    this.#state = { ...this.#state, saving: 'saved' };
    this.#beneath([...result.missed, result.entry]);
    this.#forget([step]);
    this.#show({ history: result.history, savedAt: result.changedAt });
    this.#takeEarly();
  }

  /**
   * Puts what is confirmed beneath the waiting steps, which keep what they write; those that write the same as others did
   * are given up, and that is said.
   */
  #beneath(entries: readonly HistoryEntry[]): void {
    let was = this.#confirmed.app;
    let isNews = false;
    for (const entry of entries) {
      if (entry.seq !== this.#confirmed.seq + 1) continue;
      const own = this.#pending.find((step) => step.id === entry.id);
      const change = own && equalJson(own.change, entry.change) ? own.change : entry.change;
      const app = this.#after(this.#confirmed.app, change);
      this.#confirmed = { ...this.#confirmed, app, seq: entry.seq };
      this.#early.delete(entry.seq);
      // Its answer was lost, but it is saved.
      if (own) this.#forget([own]);
      else if (entry.author !== this.#author) isNews = true;
      if (own || entry.author === this.#author) was = applyChange(was, entry.change);
    }
    if (!isNews) return;
    const lost: WaitingStep[] = [];
    let is = this.#confirmed.app;
    this.#pending = this.#pending.map((step) => {
      const change =
        // Of a step that was sent, the server says itself what became of it.
        step.id === this.#sent ? step.change : rebased(step.change, valuesIn(was), is);
      was = applyChange(was, step.change);
      if (!change) lost.push(step);
      else is = applyChange(is, change);
      return change && change !== step.change ? { ...step, change } : step;
    });
    if (lost.length) this.#refuse(lost);
  }

  #giveWay(step: WaitingStep, missed: readonly HistoryEntry[], history: HistoryState): void {
    this.#refuse([step]);
    this.#state = { ...this.#state, history };
    this.#beneath(missed);
    this.#show();
  }

  #refuse(steps: readonly WaitingStep[]): void {
    this.#forget(steps);
    const refused = [...this.#state.refused, ...steps.map((step) => ({ ...step, id: newName(16) }))];
    this.#set({
      refused,
      notice: `Changed elsewhere at the same time, so yours was not taken: ${refused.map((step) => step.label).join(', ')}.`,
    });
  }

  /** Takes in told steps as far as they follow what is confirmed. */
  #takeEarly(changedAt?: string): void {
    const next: HistoryEntry[] = [];
    for (let seq = this.#confirmed.seq + 1; ; seq++) {
      const entry = this.#early.get(seq);
      if (!entry) break;
      next.push(entry);
    }
    if (!next.length) return;
    this.#beneath(next);
    let { history } = this.#state;
    let isUnclear = false;
    for (const entry of next) {
      history = { ...history, seq: entry.seq };
      const touched = entry.of !== undefined && [history.undo?.seq, history.redo?.seq].includes(entry.of);
      if (entry.role !== 'do') isUnclear ||= touched || !history.undo || !history.redo;
      else if (!history.undo || !this.isOwn(history.undo) || this.isOwn(entry)) {
        const { change: _change, id: _id, ...head } = entry;
        history = { ...history, undo: head };
      }
    }
    this.#show({ history, ...(changedAt ? { savedAt: changedAt } : {}) });
    if (isUnclear) void this.reload().catch(() => {});
  }

  /** Asks for the project as it is, once what is on its way has come through. */
  #catchUp(): void {
    if (this.#isCatchingUp) return;
    this.#isCatchingUp = true;
    void this.settled()
      .then(() => this.reload())
      .then(
        () => {
          this.#isCatchingUp = false;
          // More was told of while the project was on its way.
          if (this.#told > this.#confirmed.seq) this.#catchUp();
        },
        () => void (this.#isCatchingUp = false),
      );
  }

  /** One after the other: which step is next is known once the one before has been answered. */
  #inTurn(travel: () => Promise<void>): Promise<void> {
    this.#travelling = this.#travelling.catch(() => {}).then(travel);
    return this.#travelling;
  }

  async #travel(
    kind: 'undo' | 'redo',
    send: (input: StepInput & { readonly of: number }) => Promise<ChangeResult>,
    chosen?: Pick<EntryHead, 'seq'>,
  ): Promise<void> {
    await this.settled();
    const next = this.#state.history[kind];
    const step = chosen ?? next;
    if (!step) return;
    if (!chosen && next && !this.isOwn(next) && this.#named !== next.seq) {
      this.#named = next.seq;
      const again = kind === 'undo' ? 'take it back' : 'make it again';
      this.#set({
        notice: `“${next.label}” was made in another window. ${kind === 'undo' ? 'Undo' : 'Redo'} once more to ${again}.`,
      });
      return;
    }
    this.#named = null;
    const id = newName(16);
    for (let attempt = 0; ; attempt++) {
      try {
        const result = await send({ ...this.#input(), id, of: step.seq });
        this.#beneath([...result.missed, result.entry]);
        this.#show({ history: result.history, savedAt: result.changedAt, saving: 'saved', notice: null });
        // Undoing an intake brings the design of before back.
        if (result.revision !== this.#revision) await this.reload();
        return;
      } catch (error) {
        if (isPassing(error) && attempt < WAITS.length) {
          this.#set({ saving: 'offline', waitsFor: error.message });
          await this.#pause(error.retryAfter ?? WAITS[attempt]);
          continue;
        }
        this.#show({ notice: (error as Error).message, saving: 'saved', waitsFor: null });
        return;
      }
    }
  }
}
