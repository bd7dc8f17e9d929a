import { type ComponentProposal, type Design, isUsed } from '@tovel/core';
import { wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { useProject } from '../project/context';
import type { StructureWorker } from './structure_worker';

const known = new WeakMap<Design, { screens: string; found: readonly ComponentProposal[] }>();

/** What repeats in the project; null while it is looked for the first time. */
export function useRepeats(): readonly ComponentProposal[] | null {
  const project = useProject();
  const { design, graph } = project;
  const names = graph.screens.join();
  const [found, setFound] = useState<readonly ComponentProposal[] | null>(known.get(design)?.found ?? null);
  const [worker] = useState(() => ({ current: null as Worker | null }));
  const screens = useMemo(
    () => design.screens.filter((screen) => isUsed(project, screen.key)),
    // Which screens are used is what their names say.
    [design, names],
  );
  useEffect(() => {
    const before = known.get(design);
    if (before?.screens === names) {
      setFound(before.found);
      return;
    }
    worker.current ??= new Worker(new URL('./structure_worker.ts', import.meta.url), { type: 'module' });
    let isStale = false;
    void wrap<StructureWorker>(worker.current)
      .find(screens)
      .then((proposals) => {
        known.set(design, { screens: names, found: proposals });
        if (!isStale) setFound(proposals);
      });
    return () => {
      isStale = true;
    };
  }, [design, names, screens, worker]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [worker],
  );
  return found;
}
