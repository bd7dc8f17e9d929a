import type { FastifyReply } from 'fastify';
import type { ProjectEvent } from '@tovel/core';

/** Tells everybody who has a project open what happens to it, as server-sent events. */
export class EventHub {
  readonly #open = new Map<string, Set<FastifyReply>>();

  /** Answers a request with a stream that stays open until the other side leaves. */
  subscribe(project: string, reply: FastifyReply): void {
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    raw.write(': open\n\n');
    const streams = this.#open.get(project) ?? new Set();
    this.#open.set(project, streams.add(reply));
    const beat = setInterval(() => raw.write(': here\n\n'), 25_000);
    raw.on('close', () => {
      clearInterval(beat);
      streams.delete(reply);
    });
  }

  tell(project: string, event: ProjectEvent): void {
    for (const reply of this.#open.get(project) ?? []) reply.raw.write(`data: ${JSON.stringify(event)}\n\n`);
  }

  /** Ends all streams, so that the server can close. */
  close(): void {
    for (const streams of this.#open.values()) for (const reply of streams) reply.raw.end();
    this.#open.clear();
  }
}
