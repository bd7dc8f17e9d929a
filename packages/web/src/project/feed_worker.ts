/**
 * One stream of news for all windows of a browser: each would hold a connection of its own, of which a browser has six.
 * A shared worker, so that it lives as long as any of them.
 */
import type { FeedMessage, FeedRequest } from './feed';

interface Listener {
  readonly port: MessagePort;
  readonly projects: Set<string>;
  heard: number;
}

/** A window that has not been heard of for this long, in ms, is gone. */
const GONE_MS = 60_000;

const listeners = new Set<Listener>();
let stream: EventSource | null = null;
let shown = '';

function tell(message: FeedMessage, of: (listener: Listener) => boolean = () => true): void {
  for (const listener of listeners) if (of(listener)) listener.port.postMessage(message);
}

/** Listens to what the windows are about, and to nothing when there are none. */
function follow(): void {
  const projects = [...new Set([...listeners].flatMap((listener) => [...listener.projects]))].sort();
  const wanted = projects.join(',');
  if (wanted === shown && stream?.readyState !== EventSource.CLOSED) return;
  stream?.close();
  stream = null;
  shown = wanted;
  if (!wanted) return;
  const opened = new EventSource(`/api/events?projects=${encodeURIComponent(wanted)}`);
  stream = opened;
  opened.onmessage = ({ data }) => {
    const event = JSON.parse(data as string) as { project: string };
    tell({ kind: 'event', event: event as never }, ({ projects: own }) => own.has(event.project));
  };
  opened.onerror = () => {
    // The browser opens a broken stream again by itself; one that was refused it does not.
    if (opened.readyState === EventSource.CLOSED && stream === opened)
      setTimeout(() => stream === opened && follow(), 2000);
  };
}

function join(port: MessagePort): void {
  const listener: Listener = { port, projects: new Set(), heard: Date.now() };
  listeners.add(listener);
  port.onmessage = ({ data }: MessageEvent<FeedRequest>) => {
    listener.heard = Date.now();
    if (data.kind === 'listen') listener.projects.add(data.project);
    else if (data.kind === 'leave') listener.projects.delete(data.project);
    follow();
  };
}

setInterval(() => {
  for (const listener of listeners) if (Date.now() - listener.heard > GONE_MS) listeners.delete(listener);
  follow();
}, 15_000);

(globalThis as unknown as { onconnect: (event: MessageEvent) => void }).onconnect = ({ ports }) =>
  join(ports[0]);
