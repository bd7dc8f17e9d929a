import type { Design, Project } from '@tovel/core';
import { replaceEqualDeep } from '@tanstack/react-query';
import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import type { FindingsWorker } from './findings_worker';
import { type Looked, lookThrough } from './look_through';
import { pause } from './pause';
import { ProjectWorker } from './project_worker';

const worker = new ProjectWorker<FindingsWorker>(
  () => new Worker(new URL('./findings_worker.ts', import.meta.url), { type: 'module' }),
);

const NOTHING: Looked = { findings: [], roles: 0 };

/** Whether all screens of one design are in another, the very same: then what was found of them holds as far as it goes. */
const holds = ({ screens }: Design, more: Design): boolean => {
  const there = new Set(more.screens);
  return screens.every((screen) => there.has(screen));
};

/**
 * What is found in the project; after an edit, what was found before it until the worker has looked. Of screens that nobody has
 * looked at yet nothing is known.
 * @param quiet how long nothing changes before it looks, in ms; null while it is not to look
 */
export function useLooked(
  { design, app }: Project,
  quiet: number | null,
): { readonly looked: Looked; readonly isLooking: boolean } {
  const [found, setFound] = useState<{ readonly of: Design; readonly looked: Looked } | null>(null);
  const isKnown = useMemo(
    () => found !== null && (found.of === design || holds(found.of, design)),
    [found, design],
  );
  /** What was looked at last, and what is to be looked at next. */
  const last = useRef<Project | null>(null);
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
            const looked = replaceEqualDeep(before?.looked, now);
            const isSame = before?.of === asked.design && before.looked === looked;
            return isSame ? before : { of: asked.design, looked };
          }),
        );
      }
      isLooking.current = false;
    };
    if (quiet === null || (last.current?.design === design && last.current.app === app)) return;
    next.current = { design, app };
    void look();
  }, [design, app, quiet === null]);
  return { looked: (isKnown && found?.looked) || NOTHING, isLooking: found?.of !== design };
}

/** How many collections wait to be taken; 0 until somebody has looked. @param isOff while nobody is to look */
export function useWaitingCollections({ design, app }: Project, isOff: boolean): number {
  const [count, setCount] = useState(0);
  useEffect(() => {
    let isStale = false;
    if (isOff) return;
    void worker
      .ask({ design, app }, (remote, told) => remote.openCollections(told))
      // A browser that gives no worker counts none.
      .catch(() => 0)
      .then((now) => isStale || startTransition(() => setCount(now)));
    return () => {
      isStale = true;
    };
  }, [design, app.collections, app.refused, isOff]);
  return count;
}
