import { type Remote, wrap } from 'comlink';

const remotes = new WeakMap<Worker, Remote<unknown>>();

/**
 * What a worker offers. The same for each call, and kept as long as the worker: when a remote is collected, the worker is
 * told to stop listening, and a second remote of it would wait for ever.
 */
export function remoteOf<T>(worker: Worker): Remote<T> {
  let remote = remotes.get(worker);
  if (!remote) remotes.set(worker, (remote = wrap<unknown>(worker)));
  return remote as Remote<T>;
}
