import { analysisOf, type GraphLink, hostOf, isDeadEnd, screenName } from '@tovel/core';
import { useMemo } from 'react';
import { useOpenLinks } from '../junction/use_open_links';
import { useProject } from '../project/context';
import { inOrder, type Order } from './grid_order';
import { useSince } from './Since';

/** What stands in a cell: links that work or do not, what is proposed, a way to itself, or a way that should be there. */
export type Look = 'live' | 'broken' | 'proposed' | 'self' | 'marked' | 'empty';

const keyOf = (from: string, to: string): string => `${from} ${to}`;

/** Which screen leads to which, by cells: screens in an order, and where links lead that are no longer in use at the end. */
export function useGrid(order: Order) {
  const project = useProject();
  const { graph, app } = project;
  const screens = useMemo(
    () => [...inOrder(project, graph, app, order), ...graph.overlays],
    [project, graph, app, order],
  );
  const links = useMemo(() => {
    const byCell = new Map<string, GraphLink[]>();
    for (const link of graph.links) {
      if (!link.to) continue;
      const list = byCell.get(keyOf(link.from, link.to));
      if (list) list.push(link);
      else byCell.set(keyOf(link.from, link.to), [link]);
    }
    return byCell;
  }, [graph]);
  const proposals = useOpenLinks();
  const proposed = useMemo(
    () => new Set([...proposals.values()].map(({ element, to }) => keyOf(hostOf(project, element), to))),
    [proposals, app],
  );
  const since = useSince();
  const known = new Set(screens);
  const gone = new Set(
    graph.links.flatMap((link) => (link.to && link.problem && !known.has(link.to) ? [link.to] : [])),
  );
  const isPlain = new Set(graph.screens.filter((key) => app.screens[key].use === 'screen'));
  const { depth } = analysisOf(graph);
  const isUnreached = (key: string): boolean => graph.reached.size > 0 && !graph.reached.has(key);
  const hasNoExit = (key: string): boolean => isPlain.has(key) && isDeadEnd(graph.departures.get(key)!, key);
  const linksOf = (from: string, to: string): readonly GraphLink[] => links.get(keyOf(from, to)) ?? [];
  return {
    screens,
    columns: [...screens, ...gone],
    /** Whether a column stands for what is no longer in use. */
    isGone: (key: string) => gone.has(key),
    isUnreached,
    hasNoExit,
    linksOf,
    /** Presses from the start; none where nobody gets there. */
    depthOf: (key: string) => depth.get(key),
    becameOf: (from: string, to: string) => since?.links.get(keyOf(from, to)),
    lookOf(from: string, to: string): Look {
      const here = linksOf(from, to);
      if (here.some((link) => link.problem)) return 'broken';
      if (from === to) return 'self';
      if (here.length) return 'live';
      if (proposed.has(keyOf(from, to))) return 'proposed';
      return gone.has(to) || isUnreached(to) || hasNoExit(from) ? 'marked' : 'empty';
    },
    titleOf(key: string): string {
      const presses = depth.get(key);
      const far =
        presses === undefined
          ? 'reached by nobody'
          : `${presses} ${presses === 1 ? 'press' : 'presses'} from the start`;
      return `${screenName(project, key)}, ${far}`;
    },
  };
}

export type Grid = ReturnType<typeof useGrid>;
