import { type LinkProposal, openLinks } from '@tovel/core';
import { useMemo } from 'react';
import { useProject } from '../project/context';
import { remoteOf } from '../project/remote';
import { type Search, useFound } from '../project/use_found';
import type { LinksWorker } from './links_worker';

const links: Search<LinkProposal> = {
  start: () => new Worker(new URL('./links_worker.ts', import.meta.url), { type: 'module' }),
  run: (worker, screens, { synonyms }) => remoteOf<LinksWorker>(worker).find(screens, synonyms),
  also: ({ synonyms }) => synonyms,
  known: new WeakMap(),
};

/** What is proposed for each open element, by element key. */
export function useOpenLinks(): ReadonlyMap<string, LinkProposal> {
  const { app, graph } = useProject();
  const found = useFound(links);
  return useMemo(() => openLinks(app, graph, found ?? []), [app, graph, found]);
}
