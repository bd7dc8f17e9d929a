import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import type { ChangeResult, ProjectState } from '@tovel/core';
import { BehindError, RequestError, type StepInput } from '../packages/web/src/api/client.ts';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

/** The whole server, on a folder and a port of its own, as a person starts it. */
export class RunningServer {
  readonly data = mkdtempSync(path.join(os.tmpdir(), 'tovel-bench-'));
  base = '';
  #port = 0;
  #process: ChildProcess | null = null;

  /** Starts it, or starts it again at the same address. */
  async start(): Promise<this> {
    this.#port ||= await freePort();
    this.base = `http://127.0.0.1:${this.#port}`;
    const started = spawn(process.execPath, ['packages/server/dist/main.mjs'], {
      env: { ...process.env, TOVEL_PORT: String(this.#port), TOVEL_DATA: this.data, TOVEL_DEMO: 'none' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#process = started;
    await new Promise<void>((resolve, reject) => {
      started.stdout!.on('data', (text) => /ready/.test(String(text)) && resolve());
      started.once('exit', () => reject(new Error('the server ended while it was starting')));
    });
    return this;
  }

  get databasePid(): number {
    return Number(readFileSync(path.join(this.data, 'db/pid'), 'utf8'));
  }

  async end(signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
    const ending = this.#process!;
    const gone = new Promise((resolve) => ending.once('exit', resolve));
    ending.kill(signal);
    await gone;
  }

  async dispose(): Promise<void> {
    await this.end();
    rmSync(this.data, { recursive: true, force: true });
  }

  /** Asks as the interface does, with its errors. */
  async ask<T>(method: string, url: string, body?: unknown): Promise<T> {
    const response = await fetch(this.base + url, {
      method,
      ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
    }).catch(() => {
      throw new RequestError(0, { code: 'unreachable', message: 'The server does not answer.' });
    });
    const answer = await response.json();
    if (response.ok) return answer as T;
    if (answer.code === 'behind') throw new BehindError(answer);
    throw new RequestError(response.status, answer);
  }

  /** What a session of a window asks for. */
  sessionApi(id: string, author: string) {
    const at = `/api/projects/${id}`;
    return {
      project: () => this.ask<ProjectState>('GET', `${at}?author=${author}`),
      change: (_: string, step: StepInput) => this.ask<ChangeResult>('POST', `${at}/changes`, step),
      undo: (_: string, step: StepInput) => this.ask<ChangeResult>('POST', `${at}/undo`, step),
      redo: (_: string, step: StepInput) => this.ask<ChangeResult>('POST', `${at}/redo`, step),
    };
  }
}
