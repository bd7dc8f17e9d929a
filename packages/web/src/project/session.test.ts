import fc from 'fast-check';
import {
  type App,
  applyChange,
  type Change,
  type ChangeResult,
  type Design,
  collisions,
  emptyApp,
  emptyDesign,
  type HistoryEntry,
  historyState,
  type HistoryState,
  invertChange,
  type Project,
  type ProjectEvent,
  type ProjectState,
  putStill,
  type Screen,
  setStart,
} from '@tovel/core';
import { BehindError, RequestError, type StepInput } from '../api/client';
import { ProjectSession } from './session';
import type { Shelf, WaitingStep } from './shelf';

type Fault = 'down' | 'busy' | 'lost' | 'failed';
const unreachable = (): RequestError => new RequestError(0, { code: 'unreachable', message: 'down' });

/** A server of one project, in memory, as the real one answers; `others` does a step of somebody else. */
class FakeServer {
  entries: HistoryEntry[] = [];
  /** What goes wrong with the next requests, in order. */
  faults: Fault[] = [];
  isDown = false;
  refuse: string | null = null;
  design: Design = emptyDesign;
  revision = 0;
  requests = 0;
  readonly told: ((event: ProjectEvent) => void)[] = [];

  get app(): App {
    return this.entries.reduce((app, entry) => applyChange(app, entry.change), emptyApp);
  }
  others(change: Change, label = 'Theirs', author = 'other.w'): void {
    this.#write({ seq: this.entries.length + 1, role: 'do', label, change, author });
  }
  #write(entry: HistoryEntry): void {
    this.entries.push(entry);
    for (const tell of this.told) tell(this.event(entry));
  }
  event(entry: HistoryEntry): ProjectEvent {
    return { kind: 'changed', project: 'p', entry, changedAt: '2026-01-01T00:00:00.000Z', revision: 0 };
  }
  #history({ author, since = 0 }: { author?: string; since?: number }): HistoryState {
    return historyState(this.entries, author ? { author, since } : undefined);
  }

  /** Does what is asked; an answer that is lost is lost after it was done. */
  #answer(step: StepInput, make: () => Omit<HistoryEntry, 'seq'>): ChangeResult {
    this.requests++;
    const fault = this.isDown ? 'down' : this.faults.shift();
    if (fault === 'down') throw unreachable();
    if (fault === 'busy') throw new RequestError(429, { code: 'busy', message: 'busy' }, 50);
    if (fault === 'failed') throw new RequestError(503, { code: 'unavailable', message: 'away' });
    if (this.refuse) throw new RequestError(400, { code: 'invalid', message: this.refuse });
    let entry = this.entries.find(({ id }) => id === step.id);
    if (!entry) {
      const made = make();
      const missed = this.entries.slice(step.base);
      if (
        made.role === 'do' &&
        collisions(
          made.change,
          missed.map(({ change }) => change),
        ).length
      )
        throw new BehindError({ code: 'behind', message: 'behind', missed, history: this.#history(step) });
      entry = { ...made, seq: this.entries.length + 1, id: step.id, author: step.author };
      this.#write(entry);
    }
    if (fault === 'lost') throw unreachable();
    return {
      entry,
      missed: this.entries.slice(step.base, entry.seq - 1),
      history: this.#history(step),
      changedAt: '2026-01-01T00:00:00.000Z',
      revision: 0,
    };
  }
  readonly api = {
    project: async (_?: string, author?: string): Promise<ProjectState> => {
      if (this.isDown) throw unreachable();
      return {
        id: 'p',
        name: 'P',
        design: this.design,
        app: this.app,
        history: this.#history({ author, since: this.entries.length }),
        changedAt: '',
        revision: this.revision,
      };
    },
    change: async (_: string, { label, change, ...step }: StepInput & { label: string; change: Change }) =>
      this.#answer(step, () => ({ role: 'do', label, change })),
    undo: async (_: string, { of, ...step }: StepInput & { of: number }) =>
      this.#answer(step, () => {
        const before = this.entries
          .slice(0, of - 1)
          .reduce((app, entry) => applyChange(app, entry.change), emptyApp);
        const { label, change } = this.entries[of - 1];
        return { role: 'undo', of, label, change: invertChange(before, change) };
      }),
    redo: async (_: string, { of, ...step }: StepInput & { of: number }) =>
      this.#answer(step, () => ({ ...this.entries[of - 1], role: 'redo', of })),
  };
}

/** A shelf of a device, in memory. */
class FakeShelf implements Shelf {
  readonly steps = new Map<string, WaitingStep>();
  left: readonly WaitingStep[] = [];
  async keep(_: string, step: WaitingStep): Promise<void> {
    this.steps.set(step.id, step);
  }
  async drop(ids: readonly string[]): Promise<void> {
    for (const id of ids) this.steps.delete(id);
  }
  async leftBehind(): Promise<readonly WaitingStep[]> {
    return this.left;
  }
}

const pageOf = (key: string): Screen => ({ key, name: key }) as Screen;
const setStartIn = (start: string): App => ({ ...emptyApp, start });

async function open(
  server = new FakeServer(),
  author = 'me.w',
): Promise<{ server: FakeServer; session: ProjectSession; shelf: FakeShelf }> {
  const shelf = new FakeShelf();
  return {
    server,
    shelf,
    session: new ProjectSession(await server.api.project('p', author), server.api, author, shelf),
  };
}

const until = (session: ProjectSession, holds: () => boolean): Promise<void> =>
  new Promise((resolve) => {
    if (holds()) return resolve();
    const leave = session.subscribe(() => {
      if (!holds()) return;
      leave();
      resolve();
    });
  });

beforeEach(() => void jest.useFakeTimers({ advanceTimers: true }));
afterEach(() => void jest.useRealTimers());

test('a step shows at once and is saved in order', async () => {
  const { server, session, shelf } = await open();
  session.change('One', putStill('a:1', true));
  session.change('Two', setStart('a'));
  expect(session.getState()).toMatchObject({ saving: 'saving', app: { start: 'a', still: { 'a:1': true } } });
  await session.settled();
  expect(server.entries.map((entry) => entry.label)).toEqual(['One', 'Two']);
  expect(session.getState().saving).toBe('saved');
  expect(shelf.steps.size).toBe(0);
});

describe('while the first screens are read', () => {
  const drawn: Design = { ...emptyDesign, screens: [pageOf('a'), pageOf('b')] };
  const some: Project = { design: { ...drawn, screens: drawn.screens.slice(0, 1) }, app: setStartIn('a') };

  test('they show as they come, and what is done to them waits until all are there', async () => {
    const { server, session, shelf } = await open();
    session.meanwhile(some);
    expect(session.getState()).toMatchObject({ design: some.design, app: { start: 'a' }, isArriving: true });
    session.change('Mine', putStill('a:1', true));
    await session.settled();
    expect(server.requests).toBe(0);
    // Without the screens it would be nothing.
    expect(shelf.steps.size).toBe(0);
    expect(session.getState()).toMatchObject({ waits: 'Mine', app: { still: { 'a:1': true } } });
    // More of them came.
    session.meanwhile({ design: drawn, app: setStartIn('b') });
    expect(session.getState().app).toMatchObject({ start: 'b', still: { 'a:1': true } });
    await session.accept(async () => {
      server.others(setStart('b'), 'Bring in 2 screens', 'me.w');
      Object.assign(server, { design: drawn, revision: 1 });
      return undefined as never;
    });
    await session.settled();
    expect(server.entries.map(({ label }) => label)).toEqual(['Bring in 2 screens', 'Mine']);
    expect(session.getState()).toMatchObject({
      design: drawn,
      isArriving: false,
      saving: 'saved',
      waits: null,
      app: { start: 'b', still: { 'a:1': true } },
    });
    expect(shelf.steps.size).toBe(0);
  });

  test('what is done to them can be taken back, and goes where nothing comes of them', async () => {
    const { server, session, shelf } = await open();
    session.meanwhile(some);
    session.change('One', putStill('a:1', true));
    session.change('Two', setStart(null));
    await session.undo();
    expect(session.getState()).toMatchObject({ waits: 'One', app: { start: 'a' } });
    session.meanwhile(null);
    expect(session.getState()).toMatchObject({ design: emptyDesign, app: emptyApp, isArriving: false });
    expect(shelf.steps.size).toBe(0);
    expect(server.requests).toBe(0);
  });

  test('screens that another window brought in are shown, and these are not', async () => {
    const { server, session } = await open();
    session.meanwhile(some);
    Object.assign(server, { design: drawn, revision: 1 });
    server.others(setStart('b'));
    await session.reload();
    session.meanwhile(some);
    expect(session.getState()).toMatchObject({ design: drawn, app: { start: 'b' }, isArriving: false });
  });
});

test('a step that changes nothing is not sent', async () => {
  const { server, session } = await open();
  session.change('Nothing', setStart(null));
  await session.settled();
  expect(server.requests).toBe(0);
});

test('what others did goes beneath, and mine goes on', async () => {
  const { server, session } = await open();
  server.others(setStart('theirs'));
  session.change('Mine', putStill('a:1', true));
  await session.settled();
  expect(server.entries.map((entry) => entry.label)).toEqual(['Theirs', 'Mine']);
  expect(server.requests).toBe(1);
  expect(session.getState()).toMatchObject({
    app: { start: 'theirs', still: { 'a:1': true } },
    notice: null,
  });
});

test('a step that collides is not taken, and that is said; it can be made all the same', async () => {
  const { server, session } = await open();
  server.others(setStart('theirs'));
  session.change('Start with mine', setStart('mine'));
  await session.settled();
  expect(session.getState().app.start).toBe('theirs');
  expect(session.getState().notice).toMatch(/Changed elsewhere.*Start with mine/);
  session.takeAgain(session.getState().refused);
  await session.settled();
  expect([server.app.start, session.getState().app.start, session.getState().notice]).toEqual([
    'mine',
    'mine',
    null,
  ]);
  session.dismiss();
  expect(session.getState().refused).toEqual([]);
});

test('a refused step is taken back, with the reason', async () => {
  const { server, session, shelf } = await open();
  server.refuse = 'the route is taken';
  session.change('Route', setStart('a'));
  await session.settled();
  expect(session.getState().app.start).toBeNull();
  expect(session.getState().notice).toMatch(/“Route” was not taken: the route is taken/);
  expect(shelf.steps.size).toBe(0);
});

test.each<[string, Fault[]]>([
  ['the server does not answer', ['down', 'down', 'down']],
  ['there is too much to do', ['busy', 'busy', 'busy', 'busy', 'busy', 'busy']],
  ['the database is away', ['failed', 'failed']],
  ['answers are lost', ['lost', 'lost']],
  ['everything goes wrong', ['down', 'lost', 'busy', 'failed', 'lost']],
])('while %s nothing is lost and nothing doubled', async (_, faults) => {
  const { server, session, shelf } = await open();
  server.faults = [...faults];
  session.change('One', setStart('a'));
  session.change('Two', putStill('a:1', true));
  await jest.advanceTimersByTimeAsync(100);
  expect(shelf.steps.size).toBeGreaterThan(0);
  await jest.advanceTimersByTimeAsync(30_000);
  await session.settled();
  expect(server.entries.map((entry) => entry.label)).toEqual(['One', 'Two']);
  expect(session.getState()).toMatchObject({ saving: 'saved', notice: null, waitsFor: null });
  expect(shelf.steps.size).toBe(0);
});

test('why steps wait is said, and news of the server end the waiting', async () => {
  const { server, session } = await open();
  server.isDown = true;
  session.change('Kept', setStart('a'));
  await jest.advanceTimersByTimeAsync(20_000);
  expect(session.getState()).toMatchObject({ saving: 'offline', waitsFor: 'down', app: { start: 'a' } });
  server.isDown = false;
  session.hear({ kind: 'at', project: 'p', seq: 0, revision: 0 });
  await session.settled();
  expect(server.app.start).toBe('a');
  expect(session.getState().saving).toBe('saved');
});

test('a step that was never sent need not be undone on the server', async () => {
  const { server, session, shelf } = await open();
  server.isDown = true;
  session.change('One', setStart('a'));
  session.change('Two', putStill('a:1', true));
  await jest.advanceTimersByTimeAsync(5000);
  await session.undo();
  expect(session.getState().app.still).toEqual({});
  expect(shelf.steps.size).toBe(1);
  server.isDown = false;
  await jest.advanceTimersByTimeAsync(10_000);
  expect(server.entries.map((entry) => entry.label)).toEqual(['One']);
});

test('news carry the change itself, and nothing is asked for', async () => {
  const { server, session } = await open();
  const project = jest.spyOn(server.api, 'project');
  server.told.push((event) => session.hear(event));
  server.others(setStart('b'));
  server.others(putStill('b:1', true), 'More');
  expect(session.getState()).toMatchObject({
    app: { start: 'b', still: { 'b:1': true } },
    history: { seq: 2, undo: { label: 'More' } },
  });
  expect(project).not.toHaveBeenCalled();
  session.hear({ kind: 'built', project: 'p', seq: 1, error: null });
  expect(session.getState().built).toBe(1);
});

test('news that come in another order, or not at all, are put right', async () => {
  const { server, session } = await open();
  server.others(setStart('a'));
  server.others(setStart('b'));
  server.others(putStill('b:1', true));
  session.hear(server.event(server.entries[2]));
  session.hear(server.event(server.entries[1]));
  session.hear(server.event(server.entries[0]));
  await until(session, () => session.getState().history.seq === 3);
  server.others(setStart('c'));
  server.others(setStart('d'));
  session.hear(server.event(server.entries[4]));
  await until(session, () => session.getState().app.start === 'd');
  expect(session.getState().app).toEqual(server.app);
});

test('undo and redo wait for what is on its way', async () => {
  const { server, session } = await open();
  session.change('One', putStill('a:1', true));
  await session.undo();
  expect(server.entries.map((entry) => entry.role)).toEqual(['do', 'undo']);
  expect(session.getState().app.still).toEqual({});
  await session.redo();
  expect(session.getState().app.still).toEqual({ 'a:1': true });
});

test('undo pressed twice at once takes back two steps, though the first is told of before it is answered', async () => {
  const { server, session } = await open();
  session.change('One', putStill('a:1', true));
  session.change('Two', putStill('a:2', true));
  await session.settled();
  server.told.push((event) => session.hear(event));
  await Promise.all([session.undo(), session.undo()]);
  expect(server.entries.filter((entry) => entry.role === 'undo').map((entry) => entry.of)).toEqual([2, 1]);
  expect(session.getState()).toMatchObject({ app: { still: {} }, notice: null });
});

test('an undo whose answer is lost is done once', async () => {
  const { server, session } = await open();
  session.change('One', putStill('a:1', true));
  session.change('Two', putStill('a:2', true));
  await session.settled();
  server.faults = ['lost', 'lost'];
  const undone = session.undo();
  await jest.advanceTimersByTimeAsync(5000);
  await undone;
  expect(server.entries.filter((entry) => entry.role === 'undo')).toHaveLength(1);
  expect(session.getState().app.still).toEqual({ 'a:1': true });
});

test('undo is of one’s own steps; what somebody else did is named before it is undone', async () => {
  const { server, session } = await open();
  session.change('Mine', putStill('a:1', true));
  await session.settled();
  server.told.push((event) => session.hear(event));
  server.others(putStill('a:2', true), 'Mark still');
  await session.undo();
  expect(session.getState().app.still).toEqual({ 'a:2': true });
  await session.undo();
  expect(session.getState().app.still).toEqual({ 'a:2': true });
  expect(session.getState().notice).toBe(
    '“Mark still” was made in another window. Undo once more to take it back.',
  );
  await session.undo();
  expect(session.getState()).toMatchObject({ app: { still: {} }, notice: null });
});

test('what a window left behind is offered, and saved or let go', async () => {
  const server = new FakeServer();
  const shelf = new FakeShelf();
  const left = ['one', 'two'].map((name) => ({
    id: `left-${name}`,
    label: name,
    change: putStill(`a:${name}`, true),
  }));
  shelf.left = left;
  for (const step of left) await shelf.keep('p', step);
  const session = new ProjectSession(await server.api.project(), server.api, 'me.w', shelf);
  await until(session, () => session.getState().leftBehind.length === 2);
  expect(server.entries).toEqual([]);
  session.letGo([left[1]]);
  session.takeAgain(session.getState().leftBehind);
  await session.settled();
  expect(server.entries.map((entry) => entry.id)).toEqual(['left-one']);
  expect([session.getState().leftBehind, shelf.steps.size]).toEqual([[], 0]);
});

test('whatever goes wrong, all windows come to the same, and every step was done once or said to be refused', async () => {
  const act = fc.record({
    who: fc.nat(2),
    what: fc.constantFrom('change', 'change', 'change', 'undo', 'wait'),
    place: fc.nat(3),
    on: fc.boolean(),
    fault: fc.constantFrom<Fault | null>(null, null, null, 'down', 'busy', 'lost', 'failed'),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 25 }), async (acts) => {
      const server = new FakeServer();
      const sessions = await Promise.all(
        ['a.1', 'a.2', 'b.1'].map(async (author) => (await open(server, author)).session),
      );
      for (const session of sessions) server.told.push((event) => session.hear(event));
      const refused = new Set<string>();
      let made = 0;
      for (const [i, { who, what, place, on, fault }] of acts.entries()) {
        const session = sessions[who];
        if (fault) server.faults.push(fault);
        if (what === 'change') {
          const before = session.getState().app;
          session.change(`step ${i}`, putStill(`s:${place}`, on));
          if (session.getState().app !== before) made++;
        } else if (what === 'undo') void session.undo();
        else await jest.advanceTimersByTimeAsync(200);
        for (const { label } of session.getState().refused) refused.add(label);
      }
      server.faults = [];
      await jest.advanceTimersByTimeAsync(60_000);
      for (const session of sessions) {
        await session.settled();
        for (const { label } of session.getState().refused) refused.add(label);
      }
      for (const session of sessions) expect(session.getState().app).toEqual(server.app);
      const done = server.entries.filter((entry) => entry.role === 'do').map((entry) => entry.label);
      expect(new Set(done).size).toBe(done.length);
      // One that was undone before it was sent was never made.
      expect(done.length + refused.size).toBeLessThanOrEqual(made);
    }),
    { numRuns: 60 },
  );
});

test('a step that is saved leaves the app the very same value, so that nothing is worked out anew', async () => {
  const { session } = await open();
  session.change('Start', setStart('a'));
  session.change('Still', putStill('b:1', true));
  const { app } = session.getState();
  await until(session, () => session.getState().saving === 'saved');
  expect(session.getState().history.seq).toBe(2);
  expect(session.getState().app).toBe(app);
});

test('news that say nothing are told to nobody', async () => {
  const { session } = await open();
  const told = jest.fn();
  session.subscribe(told);
  session.hear({ kind: 'building', project: 'p', done: 0, total: 0 });
  session.hear({ kind: 'built', project: 'p', seq: 0, error: null });
  expect(told).not.toHaveBeenCalled();
  session.hear({ kind: 'building', project: 'p', done: 1, total: 2 });
  expect(told).toHaveBeenCalledTimes(1);
});
