import { type CollectionProposal, type DataProposals, openCollections } from '@tovel/core';
import { useMemo } from 'react';
import { useProject } from '../project/context';
import { remoteOf } from '../project/remote';
import { type Search, useFound } from '../project/use_found';
import type { DataWorker } from './data_worker';

const data: Search<DataProposals> = {
  start: () => new Worker(new URL('./data_worker.ts', import.meta.url), { type: 'module' }),
  run: (worker, screens) => remoteOf<DataWorker>(worker).find(screens),
  known: new WeakMap(),
};

/** What stands behind the screens, as far as it shows; null while it is looked for the first time. */
export const useData = (): DataProposals | null => useFound(data)?.[0] ?? null;

/** Collections that nobody has taken or refused, the surest first. */
export function useOpenCollections(found: DataProposals | null): readonly CollectionProposal[] {
  const { app } = useProject();
  return useMemo(() => openCollections(app, found?.collections ?? []), [found, app.collections, app.refused]);
}
