import type { CodeRead, EmittedProject } from '@tovel/core';
import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import { useProject } from '../project/context';
import { ProjectWorker } from '../project/project_worker';
import type { DeliverWorker } from './deliver_worker';

/** Writes code; the same for all that is shown of it. */
export const writer = new ProjectWorker<DeliverWorker>(
  () => new Worker(new URL('./deliver_worker.ts', import.meta.url), { type: 'module' }),
);

interface Written {
  readonly emitted: EmittedProject | null;
  /** Whether all of it is as it is handed over: at first most is not formatted yet. */
  readonly isWhole: boolean;
  /** Why it could not be written; what was written before stays. */
  readonly problem: string | null;
}

/** The code as it would be delivered now; null while it is written for the first time, then with how far it is. */
export function useEmitted(): Written & {
  readonly done: number;
  readonly total: number;
  /** Reads a file as somebody left it. @throws Error, in words, where it cannot be read */
  readonly read: (path: string, text: string) => Promise<CodeRead>;
} {
  const { design, app, name } = useProject();
  const [written, setWritten] = useState<Written>({ emitted: null, isWhole: false, problem: null });
  const [progress, setProgress] = useState({ done: 0, total: 0 });
  useEffect(() => writer.use(), []);
  useEffect(() => {
    let isStale = false;
    const hear = (next: Partial<Written>): void =>
      void (isStale || setWritten((now) => ({ ...now, problem: null, ...next })));
    const tell = proxy((done: number, total: number) => void (isStale || setProgress({ done, total })));
    const early = proxy(
      (emitted: EmittedProject) =>
        // What was whole before stays until the next one is.
        void (
          isStale || setWritten((now) => (now.emitted ? now : { emitted, isWhole: false, problem: null }))
        ),
    );
    writer
      .ask({ design, app }, (remote, told) => remote.emit(told, name, tell, early))
      .then(
        (emitted) => hear({ emitted, isWhole: true }),
        (error: Error) => hear({ problem: error.message }),
      );
    return () => {
      isStale = true;
    };
  }, [design, app, name]);
  return {
    ...written,
    ...progress,
    read: (path, text) => writer.ask({ design, app }, (remote, told) => remote.read(told, name, path, text)),
  };
}

export type EmittedNow = ReturnType<typeof useEmitted>;
