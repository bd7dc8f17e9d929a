import type { ComparedScreen, GraphDifference, ProjectDifference } from '@tovel/core';
import { useCallback, useEffect, useState } from 'react';
import { remoteOf } from '../project/remote';
import type { CompareWorker } from './compare_worker';

interface Opened {
  /** The two places that are compared. */
  readonly of: string;
  readonly list: readonly ProjectDifference[];
  readonly graph: GraphDifference;
}

export interface OpenComparison {
  /** Null until both places have been compared. */
  readonly list: readonly ProjectDifference[] | null;
  readonly graph: GraphDifference | null;
  readonly problem: string | null;
  readonly screen: (key: string) => Promise<ComparedScreen>;
}

/** What differs between two places of a project's history. */
export function useComparison(id: string, before: number, after: number): OpenComparison {
  const [worker, setWorker] = useState<Worker | null>(null);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const of = `${before} ${after}`;
  useEffect(() => {
    const made = new Worker(new URL('./compare_worker.ts', import.meta.url), { type: 'module' });
    setWorker(made);
    setProblem(null);
    remoteOf<CompareWorker>(made)
      .open(id, before, after)
      .then(
        (both) => setOpened({ of: `${before} ${after}`, ...both }),
        (error: Error) => setProblem(error.message),
      );
    return () => made.terminate();
  }, [id, before, after]);
  const screen = useCallback(
    (key: string) =>
      worker ? remoteOf<CompareWorker>(worker).screen(key) : Promise.reject(new Error('not open')),
    [worker],
  );
  const isIt = opened?.of === of;
  return { list: isIt ? opened.list : null, graph: isIt ? opened.graph : null, problem, screen };
}
