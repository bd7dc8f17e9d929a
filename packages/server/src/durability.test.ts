import { type ChildProcess, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { type ChangeResult, type ProjectState, putStill } from '@tovel/core';

/** The whole server as a person starts it, on a folder and ports of its own. */
class Running {
  readonly #process: ChildProcess;
  readonly base: string;
  output = '';

  constructor(data: string, port: number) {
    this.base = `http://127.0.0.1:${port}`;
    const main = path.resolve(__dirname, 'main.ts');
    this.#process = spawn(process.execPath, ['--import', 'tsx', main], {
      env: { ...process.env, TOVEL_PORT: String(port), TOVEL_DATA: data, TOVEL_DEMO: 'none' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [this.#process.stdout!, this.#process.stderr!])
      stream.on('data', (text) => (this.output += String(text)));
  }

  /** Resolves with the line that the server prints, or with what it says when it ends. */
  ready(): Promise<string> {
    return new Promise((resolve) => {
      const look = (): void => {
        if (/ready at/.test(this.output)) resolve(this.output);
      };
      this.#process.stdout!.on('data', look);
      this.#process.on('exit', () => resolve(this.output));
      look();
    });
  }

  end(signal: NodeJS.Signals): Promise<number | null> {
    return new Promise((resolve) => {
      if (this.#process.exitCode !== null || this.#process.signalCode !== null)
        return resolve(this.#process.exitCode);
      this.#process.once('exit', (code) => resolve(code));
      this.#process.kill(signal);
    });
  }

  async ask<T>(method: string, url: string, body?: object): Promise<T> {
    const response = await fetch(this.base + url, {
      method,
      ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
    });
    if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  }
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-kill-'));
const databasePid = (): number => Number(readFileSync(path.join(folder, 'db/pid'), 'utf8'));
let server: Running;
const start = async (): Promise<Running> => {
  server = new Running(folder, await freePort());
  expect(await server.ready()).toContain('ready at http://127.0.0.1:');
  return server;
};

afterAll(async () => {
  await server.end('SIGTERM');
  rmSync(folder, { recursive: true, force: true });
});

/** Sends steps until the server is gone; returns how many were acknowledged. */
async function stepsUntil(id: string, from: number, kill: () => void): Promise<number> {
  let acknowledged = from;
  try {
    for (;;) {
      const { entry } = await server.ask<ChangeResult>('POST', `/api/projects/${id}/changes`, {
        base: acknowledged,
        label: 'Step',
        change: putStill(`s:${acknowledged}`, true),
      });
      acknowledged = entry.seq;
      if (acknowledged === from + 25) kill();
    }
  } catch {
    return acknowledged;
  }
}

test('nothing acknowledged is lost when the server, or the database, or both are killed', async () => {
  await start();
  const { id } = await server.ask<{ id: string }>('POST', '/api/projects', { name: 'Kept' });
  let count = 0;
  const kills: readonly (() => void)[] = [
    () => void server.end('SIGKILL'),
    () => {
      process.kill(databasePid(), 'SIGKILL');
      void server.end('SIGKILL');
    },
  ];
  for (const kill of kills) {
    count = await stepsUntil(id, count, kill);
    await server.end('SIGKILL');
    await start();
    const { app, history } = await server.ask<ProjectState>('GET', `/api/projects/${id}`);
    // A step that was written but not acknowledged may be there as well.
    expect(history.seq).toBeGreaterThanOrEqual(count);
    for (let i = 0; i < count; i++) expect(app.still[`s:${i}`]).toBe(true);
    count = history.seq;
  }

  // The database alone dies: the server says so, and the project is whole when both are back.
  process.kill(databasePid(), 'SIGKILL');
  await expect(
    server.ask('POST', `/api/projects/${id}/changes`, {
      base: count,
      label: 'Step',
      change: putStill('late', true),
    }),
  ).rejects.toThrow();
  await server.end('SIGTERM');
  await start();
  expect((await server.ask<ProjectState>('GET', `/api/projects/${id}`)).history.seq).toBe(count);
});

test('a taken port is said, with how to choose another, and the first one goes on', async () => {
  const port = Number(new URL(server.base).port);
  const second = new Running(folder, port);
  expect(await second.ready()).toMatch(new RegExp(`Port ${port} is taken.*TOVEL_PORT=`));
  expect(await second.end('SIGTERM')).toBe(1);
  expect(await server.ask<unknown[]>('GET', '/api/projects')).toHaveLength(1);
});

test('a second one beside it shares the database and leaves it running', async () => {
  const second = new Running(folder, await freePort());
  expect(await second.ready()).toContain('ready at');
  expect(await second.ask<unknown[]>('GET', '/api/projects')).toHaveLength(1);
  expect(await second.end('SIGTERM')).toBe(0);
  expect(await server.ask<unknown[]>('GET', '/api/projects')).toHaveLength(1);
});

test('stopping stops the database too', async () => {
  const pid = databasePid();
  expect(await server.end('SIGTERM')).toBe(0);
  // Gone, or at most waiting for its parent to take notice.
  const state = existsSync(`/proc/${pid}/stat`)
    ? readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1][0]
    : 'Z';
  expect(state).toBe('Z');
});
