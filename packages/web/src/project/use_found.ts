import { type App, type Design, isUsed, type Screen } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import { useProject } from './context';

/** Something that is looked for in all screens, away from the interface. */
export interface Search<T> {
  readonly start: () => Worker;
  readonly run: (worker: Worker, screens: readonly Screen[], app: App) => Promise<readonly T[]>;
  /** What of the app it depends on besides which screens are used. */
  readonly also?: (app: App) => unknown;
  /** What was found before, by design; which screens were used then is what their names say. */
  readonly known: WeakMap<Design, { readonly names: string; readonly found: readonly T[] }>;
}

/** What a search finds in the screens of the app; null while it looks for the first time. */
export function useFound<T>(search: Search<T>): readonly T[] | null {
  const project = useProject();
  const { design, graph, app } = project;
  const names = [graph.screens.join(), JSON.stringify(search.also?.(app) ?? null)].join(' ');
  const [found, setFound] = useState<readonly T[] | null>(search.known.get(design)?.found ?? null);
  const [worker] = useState(() => ({ current: null as Worker | null }));
  const screens = useMemo(
    () => design.screens.filter((screen) => isUsed(project, screen.key)),
    [design, names],
  );
  useEffect(() => {
    const before = search.known.get(design);
    if (before?.names === names) {
      setFound(before.found);
      return;
    }
    worker.current ??= search.start();
    let isStale = false;
    void search.run(worker.current, screens, app).then((proposals) => {
      search.known.set(design, { names, found: proposals });
      if (!isStale) setFound(proposals);
    });
    return () => {
      isStale = true;
    };
  }, [design, names, screens, worker, search]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [worker],
  );
  return found;
}
