import type { ScreenGraph } from './graph.ts';

/**
 * How many decisions about links wait in a graph: what leads nowhere, or to what is not there, and says the same on whatever
 * screens is one, as it is wired in one go.
 */
export function openLinkDecisions({ elements }: Pick<ScreenGraph, 'elements'>): number {
  const open = new Set<string>();
  for (const states of elements.values())
    for (const { standing, label, element } of states)
      if (standing === 'open' || standing === 'broken')
        open.add(`${element.tag} ${label.trim().toLowerCase() || element.key}`);
  return open.size;
}
