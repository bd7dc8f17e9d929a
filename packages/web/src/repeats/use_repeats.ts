import type { ComponentProposal } from '@tovel/core';
import { type Search, useFound } from '../project/use_found';
import { remoteOf } from '../project/remote';
import type { StructureWorker } from './structure_worker';

const repeats: Search<ComponentProposal> = {
  start: () => new Worker(new URL('./structure_worker.ts', import.meta.url), { type: 'module' }),
  run: (worker, screens) => remoteOf<StructureWorker>(worker).find(screens),
  known: new WeakMap(),
};

/** What repeats in the project; null while it is looked for the first time. */
export const useRepeats = (): readonly ComponentProposal[] | null => useFound(repeats);
