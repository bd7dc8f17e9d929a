import type { FastifyReply } from 'fastify';
import type { ProjectEvent } from '@tovel/core';
import { type Database, rowsOf } from '../database/pool.ts';
import { HttpError } from '../http/errors.ts';
import type { HistoryStore } from '../history/store.ts';

interface Stream {
  readonly reply: FastifyReply;
  /** How far each of its projects was told, by project. */
  readonly told: Map<string, number>;
}

interface Standing {
  readonly id: string;
  readonly seq: number;
  readonly revision: number;
  readonly changed_at: Date;
  readonly deleted_at: Date | null;
}

/** How often the database is asked what other servers wrote, in ms. */
const ASK_MS = 250;
const BEAT_MS = 25_000;
/** A listener that leaves this many bytes unread is let go; it comes again and catches up. */
const MOST_UNREAD = 4 * 2 ** 20;

/**
 * Tells open windows what happens to their projects. What was written, and in which order, is asked of the database:
 * each history has numbers without gaps, so that nothing is missed and nothing told twice, whichever server wrote it.
 */
export class Feed {
  readonly #db: Database;
  readonly #history: HistoryStore;
  readonly #streams = new Set<Stream>();
  readonly #moved: (project: string) => void;
  #timer: NodeJS.Timeout | null = null;
  #asking: Promise<void> | null = null;
  #again = false;
  #isClosed = false;

  /** @param moved is called with each project that got further, here or through another server. */
  constructor(db: Database, history: HistoryStore, moved: (project: string) => void) {
    this.#db = db;
    this.#history = history;
    this.#moved = moved;
  }

  /**
   * Answers with a stream that stays open until the other side leaves.
   * @throws HttpError where none of the projects is there.
   */
  async subscribe(projects: readonly string[], reply: FastifyReply): Promise<FastifyReply> {
    const standings = await this.#standings(projects);
    if (!standings.length) throw new HttpError('project-missing', 'None of these projects is here.');
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    raw.write(': open\n\n');
    const stream: Stream = { reply, told: new Map(standings.map(({ id, seq }) => [id, seq])) };
    for (const { id: project, seq, revision } of standings)
      this.#write(stream, { kind: 'at', project, seq, revision });
    const known = new Set(standings.map(({ id }) => id));
    for (const project of projects) if (!known.has(project)) this.#write(stream, { kind: 'gone', project });
    this.#streams.add(stream);
    const beat = setInterval(() => raw.write(': here\n\n'), BEAT_MS);
    raw.on('close', () => {
      clearInterval(beat);
      this.#streams.delete(stream);
    });
    if (this.#isClosed) raw.end();
    this.#schedule();
    return reply;
  }

  /** To be called when a project got further through this server: it is told at once. */
  wake(project: string): void {
    this.#moved(project);
    void this.#ask();
  }

  /** Tells what is not part of a history. */
  tell(project: string, event: ProjectEvent): void {
    for (const stream of this.#streams) if (stream.told.has(project)) this.#write(stream, event);
  }

  /** Ends all streams, so that the server can close. */
  async close(): Promise<void> {
    this.#isClosed = true;
    if (this.#timer) clearTimeout(this.#timer);
    for (const { reply } of this.#streams) reply.raw.end();
    this.#streams.clear();
    await this.#asking;
  }

  #schedule(): void {
    if (this.#timer || this.#isClosed || !this.#streams.size) return;
    this.#timer = setTimeout(() => {
      this.#timer = null;
      void this.#ask().then(() => this.#schedule());
    }, ASK_MS);
    this.#timer.unref();
  }

  /** One question at a time; what happens meanwhile is asked for once more. */
  async #ask(): Promise<void> {
    this.#again = true;
    this.#asking ??= (async () => {
      while (this.#again && !this.#isClosed) {
        this.#again = false;
        // A database that is away is asked again; nobody misses anything.
        await this.#look().catch(() => {});
      }
    })().finally(() => (this.#asking = null));
    await this.#asking;
  }

  async #look(): Promise<void> {
    const open = [...new Set([...this.#streams].flatMap(({ told }) => [...told.keys()]))];
    if (!open.length) return;
    for (const { id, seq, revision, changed_at: changedAt } of await this.#standings(open)) {
      const behind = [...this.#streams].filter(({ told }) => (told.get(id) ?? Infinity) < seq);
      if (!behind.length) continue;
      this.#moved(id);
      const first = Math.min(...behind.map(({ told }) => told.get(id)!));
      const entries = await this.#history.after(id, first);
      for (const stream of behind)
        for (const entry of entries) {
          if (entry.seq <= stream.told.get(id)!) continue;
          stream.told.set(id, entry.seq);
          this.#write(stream, {
            kind: 'changed',
            project: id,
            entry,
            changedAt: changedAt.toISOString(),
            revision,
          });
        }
    }
  }

  async #standings(projects: readonly string[]): Promise<Standing[]> {
    const rows = await rowsOf<Standing>(
      this.#db,
      `SELECT id, seq, revision, changed_at, deleted_at FROM projects WHERE id IN (${projects.map(() => '?').join(', ')})`,
      projects,
    );
    return rows.filter((row) => row.deleted_at === null);
  }

  #write({ reply: { raw } }: Stream, event: ProjectEvent): void {
    if (raw.destroyed) return;
    raw.write(`data: ${JSON.stringify(event)}\n\n`);
    if (raw.writableLength > MOST_UNREAD) raw.destroy();
  }
}
