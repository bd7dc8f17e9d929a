import type { LinesDrawing, LinesInput } from '@tovel/core';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { LinesWorker } from './lines_worker';

/** The drawing of the graph; the last one stays until the next is there. */
export function useLines(input: LinesInput, folded: readonly string[], aspect: number): LinesDrawing | null {
  const [drawing, setDrawing] = useState<LinesDrawing | null>(null);
  const [worker, setWorker] = useState<Remote<LinesWorker> | null>(null);
  useEffect(() => {
    const own = new Worker(new URL('./lines_worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<LinesWorker>(own);
    setWorker(() => remote);
    return () => own.terminate();
  }, []);
  useEffect(() => {
    let isOld = false;
    void worker?.draw(input, folded, aspect).then((made) => {
      if (!isOld) setDrawing(made);
    });
    return () => {
      isOld = true;
    };
  }, [worker, input, folded, aspect]);
  return drawing;
}
