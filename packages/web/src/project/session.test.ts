import {
  type App,
  applyChange,
  type Change,
  type ChangeResult,
  emptyApp,
  emptyDesign,
  type HistoryEntry,
  type ProjectState,
  putStill,
  setStart,
} from '@tovel/core';
import { BehindError, RequestError } from '../api/client';
import { ProjectSession } from './session';

/** A server of one project, in memory; `others` does a step of somebody else. */
class FakeServer {
  entries: HistoryEntry[] = [];
  isDown = false;
  refuse: string | null = null;
  requests = 0;

  get app(): App {
    return this.entries.reduce((app, entry) => applyChange(app, entry.change), emptyApp);
  }
  others(change: Change): void {
    this.entries.push({ seq: this.entries.length + 1, role: 'do', label: 'Theirs', change });
  }
  #history = () => ({ seq: this.entries.length, undo: this.entries.at(-1) ?? null, redo: null });
  #append(base: number, label: string, change: Change): ChangeResult {
    this.requests++;
    if (this.isDown) throw new RequestError(0, { code: 'unreachable', message: 'down' });
    if (this.refuse) throw new RequestError(400, { code: 'invalid', message: this.refuse });
    if (base !== this.entries.length)
      throw new BehindError({
        code: 'behind',
        message: 'behind',
        missed: this.entries.slice(base),
        history: this.#history(),
      });
    const entry: HistoryEntry = { seq: base + 1, role: 'do', label, change };
    this.entries.push(entry);
    return { entry, history: this.#history(), changedAt: '2026-01-01T00:00:00.000Z', revision: 0 };
  }
  readonly api = {
    project: async (): Promise<ProjectState> => ({
      id: 'p',
      name: 'P',
      design: emptyDesign,
      app: this.app,
      history: this.#history(),
      changedAt: '',
      revision: 0,
    }),
    change: async (_: string, { base, label, change }: { base: number; label: string; change: Change }) =>
      this.#append(base, label, change),
    undo: async (_: string, base: number) => this.#append(base, 'Undo', putStill('a:1', false)),
    redo: async (_: string, base: number) => this.#append(base, 'Redo', putStill('a:1', true)),
    historyAfter: async (_: string, seq: number) => this.entries.slice(seq),
  };
}

async function open(): Promise<{ server: FakeServer; session: ProjectSession }> {
  const server = new FakeServer();
  return { server, session: new ProjectSession(await server.api.project(), server.api) };
}

test('a step shows at once and is saved in order', async () => {
  const { server, session } = await open();
  session.change('One', putStill('a:1', true));
  session.change('Two', setStart('a'));
  expect(session.getState()).toMatchObject({ saving: 'saving', app: { start: 'a', still: { 'a:1': true } } });
  await session.settled();
  expect(server.entries.map((entry) => entry.label)).toEqual(['One', 'Two']);
  expect(session.getState().saving).toBe('saved');
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
  expect(session.getState()).toMatchObject({
    app: { start: 'theirs', still: { 'a:1': true } },
    notice: null,
  });
});

test('a step that collides is given up, and that is said', async () => {
  const { server, session } = await open();
  server.others(setStart('theirs'));
  session.change('Start with mine', setStart('mine'));
  await session.settled();
  expect(session.getState().app.start).toBe('theirs');
  expect(session.getState().notice).toMatch(/Changed elsewhere.*Start with mine/);
  session.dismiss();
  expect(session.getState().notice).toBeNull();
});

test('a refused step is taken back, with the reason', async () => {
  const { server, session } = await open();
  server.refuse = 'the route is taken';
  session.change('Route', setStart('a'));
  await session.settled();
  expect(session.getState().app.start).toBeNull();
  expect(session.getState().notice).toMatch(/“Route” was not taken: the route is taken/);
});

test('while the server does not answer nothing is lost, and it is sent when it does', async () => {
  jest.useFakeTimers();
  const { server, session } = await open();
  server.isDown = true;
  session.change('Kept', setStart('a'));
  await jest.advanceTimersByTimeAsync(4000);
  expect(session.getState()).toMatchObject({ saving: 'offline', app: { start: 'a' } });
  server.isDown = false;
  await jest.advanceTimersByTimeAsync(2000);
  expect(server.app.start).toBe('a');
  expect(session.getState().saving).toBe('saved');
  jest.useRealTimers();
});

test('news of others are fetched, and one’s own are not', async () => {
  const { server, session } = await open();
  server.others(setStart('b'));
  session.hear({ kind: 'changed', seq: 1 });
  await new Promise<void>((resolve) => {
    const leave = session.subscribe(() => {
      if (session.getState().app.start === 'b') {
        leave();
        resolve();
      }
    });
  });
  expect(session.getState().history.seq).toBe(1);
  session.hear({ kind: 'built', seq: 1, error: null });
  expect(session.getState().built).toBe(1);
});

test('undo and redo wait for what is on its way', async () => {
  const { server, session } = await open();
  session.change('One', putStill('a:1', true));
  await session.undo();
  expect(server.entries.map((entry) => entry.label)).toEqual(['One', 'Undo']);
  expect(session.getState().app.still).toEqual({});
  await session.redo();
  expect(session.getState().app.still).toEqual({ 'a:1': true });
});
