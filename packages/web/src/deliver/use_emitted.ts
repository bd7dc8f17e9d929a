import type { CodeRead, EmittedProject } from '@tovel/core';
import { proxy } from 'comlink';
import { useCallback, useEffect, useState } from 'react';
import { useProject } from '../project/context';
import { remoteOf } from '../project/remote';
import type { DeliverWorker } from './deliver_worker';

/** The code as it would be delivered now; null while it is written for the first time, then with how far it is. */
export function useEmitted(): {
  readonly emitted: EmittedProject | null;
  readonly done: number;
  readonly total: number;
  /** Reads a file as somebody left it. @throws Error, in words, where it cannot be read */
  readonly read: (path: string, text: string) => Promise<CodeRead>;
} {
  const { design, app, name } = useProject();
  const [emitted, setEmitted] = useState<EmittedProject | null>(null);
  const [progress, setProgress] = useState({ done: 0, total: 0 });
  const [worker] = useState(() => ({ current: null as Worker | null }));
  const remote = useCallback(() => {
    worker.current ??= new Worker(new URL('./deliver_worker.ts', import.meta.url), { type: 'module' });
    return remoteOf<DeliverWorker>(worker.current);
  }, [worker]);
  useEffect(() => {
    let isStale = false;
    void remote()
      .emit(
        { design, app },
        name,
        proxy((done, total) => setProgress({ done, total })),
      )
      .then((project) => !isStale && setEmitted(project));
    return () => {
      isStale = true;
    };
  }, [design, app, name, remote]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [worker],
  );
  return { emitted, ...progress, read: (path, text) => remote().read({ design, app }, name, path, text) };
}
