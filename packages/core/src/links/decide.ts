import { all, type Change, putInteraction, putRefused } from '../change/change.ts';
import type { ScreenGraph } from '../graph/graph.ts';
import type { App } from '../model/app.ts';
import { hash } from '../roles/shape.ts';
import type { LinkProposal } from './propose.ts';

/** Comes back when the reason for it changes. */
export const refusalOfLink = ({ element, to, reason }: LinkProposal): string =>
  `link ${element} ${to} ${hash(reason)}`;

/** A proposal less sure than this is not shown. */
const SHOWN = 0.35;

/** The best target of each open element that somebody has not refused, by element key. */
export function openLinks(
  app: App,
  graph: ScreenGraph,
  proposals: readonly LinkProposal[],
): Map<string, LinkProposal> {
  const open = new Set<string>();
  for (const states of graph.elements.values())
    for (const { element, standing } of states) if (standing === 'open') open.add(element.key);
  const screens = new Set(graph.screens);
  const found = new Map<string, LinkProposal>();
  for (const proposal of proposals) {
    if (!open.has(proposal.element) || found.has(proposal.element) || proposal.confidence < SHOWN) continue;
    if (!screens.has(proposal.to) || app.refused[refusalOfLink(proposal)]) continue;
    found.set(proposal.element, proposal);
  }
  return found;
}

/** Wires elements to what is proposed for them. */
export const takeLinks = (proposals: readonly LinkProposal[]): Change =>
  all(
    proposals.map(({ element, to }) =>
      putInteraction(element, {
        on: 'press',
        target: { kind: 'screen', screen: to },
        arrival: { kind: 'none' },
      }),
    ),
  );

export const refuseLink = (proposal: LinkProposal): Change => putRefused(refusalOfLink(proposal), true);
