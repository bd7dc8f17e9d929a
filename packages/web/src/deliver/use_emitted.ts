import type { EmittedProject } from '@tovel/core';
import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import { useProject } from '../project/context';
import { remoteOf } from '../project/remote';
import type { DeliverWorker } from './deliver_worker';

/** The code as it would be delivered now; null while it is written for the first time, then with how far it is. */
export function useEmitted(): {
  readonly emitted: EmittedProject | null;
  readonly done: number;
  readonly total: number;
} {
  const { design, app, name } = useProject();
  const [emitted, setEmitted] = useState<EmittedProject | null>(null);
  const [progress, setProgress] = useState({ done: 0, total: 0 });
  const [worker] = useState(() => ({ current: null as Worker | null }));
  useEffect(() => {
    worker.current ??= new Worker(new URL('./deliver_worker.ts', import.meta.url), { type: 'module' });
    let isStale = false;
    void remoteOf<DeliverWorker>(worker.current)
      .emit(
        { design, app },
        name,
        proxy((done, total) => setProgress({ done, total })),
      )
      .then((project) => !isStale && setEmitted(project));
    return () => {
      isStale = true;
    };
  }, [design, app, name, worker]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [worker],
  );
  return { emitted, ...progress };
}
