import type { Project } from '@tovel/core';
import { replaceEqualDeep } from '@tanstack/react-query';
import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import type { FindingsWorker } from './findings_worker';
import { type Looked, lookThrough } from './look_through';
import { pause } from './pause';
import { ProjectWorker } from './project_worker';

const worker = new ProjectWorker<FindingsWorker>(
  () => new Worker(new URL('./findings_worker.ts', import.meta.url), { type: 'module' }),
);

/**
 * What is found in the project; after an edit, what was found before it until the worker has looked.
 * @param quiet how long nothing changes before it looks, in ms
 */
export function useLooked({ design, app }: Project, quiet: number): Looked {
  const [found, setFound] = useState(() => ({ of: design, looked: lookThrough({ design, app }) }));
  // What was found of other screens says nothing of these.
  const isOfOthers = found.of !== design;
  const anew = useMemo(() => (isOfOthers ? lookThrough({ design, app }) : null), [design, isOfOthers]);
  /** What was looked at last, and what is to be looked at next. */
  const last = useRef<Project>({ design, app });
  const next = useRef<Project | null>(null);
  const isLooking = useRef(false);
  const wait = useRef(quiet);
  wait.current = quiet;
  useEffect(() => worker.use(), []);
  useEffect(() => {
    const look = async (): Promise<void> => {
      if (isLooking.current) return;
      isLooking.current = true;
      // What changed meanwhile is looked at once, however often it did.
      while (next.current) {
        for (let waited: Project | null = null; wait.current && waited !== next.current;) {
          waited = next.current;
          await pause(wait.current);
        }
        const asked = (last.current = next.current);
        next.current = null;
        const now = await worker
          .ask(asked, (remote, told) => remote.look(told))
          // A browser that gives no worker has it looked at here.
          .catch(() => lookThrough(asked));
        startTransition(() =>
          setFound((before) => {
            const looked = replaceEqualDeep(before.looked, now);
            const isSame = before.of === asked.design && before.looked === looked;
            return isSame ? before : { of: asked.design, looked };
          }),
        );
      }
      isLooking.current = false;
    };
    if (last.current.design === design && last.current.app === app) return;
    next.current = { design, app };
    void look();
  }, [design, app]);
  return anew ?? found.looked;
}

/** How many collections wait to be taken; 0 until somebody has looked. */
export function useWaitingCollections({ design, app }: Project): number {
  const [count, setCount] = useState(0);
  useEffect(() => {
    let isStale = false;
    void worker
      .ask({ design, app }, (remote, told) => remote.openCollections(told))
      // A browser that gives no worker counts none.
      .catch(() => 0)
      .then((now) => isStale || startTransition(() => setCount(now)));
    return () => {
      isStale = true;
    };
  }, [design, app.collections, app.refused]);
  return count;
}
