import type { ProjectEvent } from '@tovel/core';

/** What a window says to the feed that it shares with others. */
export type FeedRequest =
  { readonly kind: 'listen' | 'leave'; readonly project: string } | { readonly kind: 'here' };
/** What the feed tells. */
export interface FeedMessage {
  readonly kind: 'event';
  readonly event: ProjectEvent;
}

const HERE_MS = 20_000;

let shared: SharedWorker | null = null;

/**
 * Listens to what happens to a project. The first thing that is heard, also after a pause, is where the project is.
 * @returns ends it.
 */
export function listenTo(project: string, hear: (event: ProjectEvent) => void): () => void {
  if (typeof SharedWorker === 'undefined') {
    const stream = new EventSource(`/api/events?projects=${encodeURIComponent(project)}`);
    stream.onmessage = ({ data }) => hear(JSON.parse(data as string) as ProjectEvent);
    return () => stream.close();
  }
  shared ??= new SharedWorker(new URL('./feed_worker.ts', import.meta.url), {
    type: 'module',
    name: 'tovel-feed',
  });
  const { port } = shared;
  const say = (request: FeedRequest): void => port.postMessage(request);
  const onMessage = ({ data }: MessageEvent<FeedMessage>): void => {
    if (data.event.project === project) hear(data.event);
  };
  port.addEventListener('message', onMessage);
  port.start();
  say({ kind: 'listen', project });
  const beat = setInterval(() => say({ kind: 'here' }), HERE_MS);
  const leave = (): void => say({ kind: 'leave', project });
  const back = (): void => say({ kind: 'listen', project });
  window.addEventListener('pagehide', leave);
  window.addEventListener('pageshow', back);
  return () => {
    clearInterval(beat);
    window.removeEventListener('pagehide', leave);
    window.removeEventListener('pageshow', back);
    port.removeEventListener('message', onMessage);
    leave();
  };
}
