import { all, type Change, putInteraction, putRefused } from '../change/change.ts';
import type { ElementState, ScreenGraph } from '../graph/graph.ts';
import type { App } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import { grouped } from '../json/grouped.ts';
import { hash } from '../json/hash.ts';
import type { LinkProposal } from '../links/propose/propose.ts';

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
  for (const proposal of [...wiredAlike(graph), ...wiredBeside(graph)]) {
    const other = found.get(proposal.element);
    if ((other && other.confidence >= proposal.confidence) || app.refused[refusalOfLink(proposal)]) continue;
    found.set(proposal.element, proposal);
  }
  return found;
}

/** Where open elements lead that say the same as elements of other screens that are wired, all to one place. */
function wiredAlike(graph: ScreenGraph): LinkProposal[] {
  const known = new Map<string, { to: Set<string>; on: Set<string> }>();
  const keyOf = ({ label, within }: ElementState): string =>
    `${within ? 'bar' : 'own'} ${label.toLowerCase()}`;
  for (const [screen, states] of graph.elements)
    for (const state of states) {
      const target = state.interaction?.target;
      if (state.standing !== 'live' || !target || !('screen' in target)) continue;
      const one = known.get(keyOf(state)) ?? { to: new Set(), on: new Set() };
      one.to.add(target.screen);
      one.on.add(screen);
      known.set(keyOf(state), one);
    }
  const proposals: LinkProposal[] = [];
  for (const [screen, states] of graph.elements)
    for (const state of states) {
      const one = state.standing === 'open' ? known.get(keyOf(state)) : undefined;
      const [to] = one?.to ?? [];
      if (!one || one.to.size !== 1 || to === screen) continue;
      const screens = one.on.size;
      proposals.push({
        element: state.element.key,
        to,
        confidence: Math.min(0.95, (state.within ? 0.82 : 0.6) + 0.05 * screens),
        reason: `“${state.label}” is wired so on ${screens === 1 ? 'another screen' : `${screens} other screens`}`,
      });
    }
  return proposals;
}

/** Where open rows lead that stand beside others of their size that are wired, all to one place. */
function wiredBeside(graph: ScreenGraph): LinkProposal[] {
  const proposals: LinkProposal[] = [];
  for (const [screen, states] of graph.elements) {
    const groups = new Map<string, ElementState[]>();
    for (const state of states) {
      if (state.within) continue;
      const { box, kind, tag } = state.element;
      const group = `${state.parent} ${kind} ${tag} ${Math.round(box.width)} ${Math.round(box.height)}`;
      groups.set(group, [...(groups.get(group) ?? []), state]);
    }
    for (const group of groups.values()) {
      const targets = new Set(
        group.flatMap(({ standing, interaction }) =>
          standing === 'live' && interaction?.target.kind === 'screen' ? [interaction.target.screen] : [],
        ),
      );
      const [to] = targets;
      const wired = group.filter((state) => state.standing === 'live').length;
      // One of a pair says little of the other: `Save` beside `Cancel`.
      if (targets.size !== 1 || to === screen || wired < 2) continue;
      for (const state of group)
        if (state.standing === 'open')
          proposals.push({
            element: state.element.key,
            to,
            confidence: Math.min(0.93, 0.76 + 0.05 * wired),
            reason: `${wired} like it beside it lead there`,
          });
    }
  }
  return proposals;
}

/** Wires elements to what is proposed for them. */
export const takeLinks = (proposals: readonly LinkProposal[]): Change =>
  all(
    proposals.map(({ element, to, isBack }) =>
      putInteraction(
        element,
        pressTo(isBack ? { kind: 'back', fallback: to } : { kind: 'screen', screen: to }),
      ),
    ),
  );

export const refuseLink = (proposal: LinkProposal): Change => putRefused(refusalOfLink(proposal), true);

/** Proposals that are one decision: the same label that leads to the same place, wherever it stands. */
export interface LinkDecision {
  readonly label: string;
  readonly to: string;
  readonly isBack: boolean;
  /** The surest first. */
  readonly proposals: readonly LinkProposal[];
  /** Keys of the screens that it stands on. */
  readonly screens: readonly string[];
  /** How sure they are on average: what is taken is taken for all. */
  readonly confidence: number;
}

/**
 * Brings proposals together that are one decision, those first that decide most; of the same size the surest.
 * @param labelOf what an element is called
 * @param screenOf the screen of an element
 */
export function linkDecisions(
  proposals: Iterable<LinkProposal>,
  labelOf: (element: string) => string,
  screenOf: (element: string) => string,
): LinkDecision[] {
  const keyOf = ({ element, to, isBack }: LinkProposal): string => {
    const label = labelOf(element);
    // What has no name of its own is a decision of its own; ways back are one wherever they lead.
    return JSON.stringify([label.toLowerCase() || element, isBack ? null : to]);
  };
  return [...grouped([...proposals], keyOf).values()]
    .map((list): LinkDecision => {
      const sorted = list.toSorted((a, b) => b.confidence - a.confidence);
      return {
        label: labelOf(sorted[0].element),
        to: sorted[0].to,
        isBack: sorted[0].isBack === true,
        proposals: sorted,
        screens: [...new Set(sorted.map(({ element }) => screenOf(element)))],
        confidence: sorted.reduce((sum, { confidence }) => sum + confidence, 0) / sorted.length,
      };
    })
    .sort(
      (a, b) =>
        b.proposals.length - a.proposals.length ||
        b.confidence - a.confidence ||
        (a.label < b.label ? -1 : 1),
    );
}
