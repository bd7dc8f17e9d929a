import { all, type Change, putInteraction } from '../change/change.ts';
import { matchElements } from '../counterparts/match.ts';
import type { ElementState, ScreenGraph } from '../graph/graph.ts';
import type { Interaction } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import { type Project, screensByKey } from '../model/project.ts';

/** What an open element would do if it did as the same element of another screen does. */
export interface CopiedLink {
  readonly element: string;
  readonly label: string;
  readonly interactions: readonly Interaction[];
}

/**
 * The wiring of one screen for the elements of another: those that are the same by what they say and where they stand,
 * as far as they are open. What leads to the screen that it would be on is left out.
 */
export function copiedWiring(
  { design }: Project,
  graph: ScreenGraph,
  from: string,
  to: string,
): CopiedLink[] {
  const screens = screensByKey(design);
  const [source, goal] = [screens.get(from), screens.get(to)];
  if (!source || !goal || from === to) return [];
  const pairs = matchElements(source.root, goal.root);
  const wired = new Map((graph.elements.get(from) ?? []).map((state) => [state.element.key, state]));
  return (graph.elements.get(to) ?? []).flatMap((state): CopiedLink[] => {
    if (state.standing !== 'open') return [];
    const same =
      wired.get(pairs.get(state.element.key) ?? '') ??
      [...wired.values()].find((other) => isLike(other, state));
    const interactions = (same?.wired ?? [])
      .map((one) => one.interaction)
      .filter(({ target }) => !('screen' in target) || target.screen !== to);
    return interactions.length ? [{ element: state.element.key, label: state.label, interactions }] : [];
  });
}

const isLike = (a: ElementState, b: ElementState): boolean =>
  a.label === b.label && (a.within === undefined) === (b.within === undefined);

export const takeCopied = (links: readonly CopiedLink[]): Change =>
  all(
    links.flatMap(({ element, interactions }) =>
      interactions.map((interaction, i) => {
        const { everywhere: _everywhere, ...own } = interaction;
        return putInteraction(i ? `${element}|${i + 1}` : element, own);
      }),
    ),
  );

const BACK = /\b(back|close|cancel|return|done|×|✕|‹|←)(\b|$)/i;

/** The open element of a screen that by its name leads back, and the change that makes it lead to another screen. */
export function reciprocalLink(
  graph: ScreenGraph,
  from: string,
  to: string,
): { readonly label: string; readonly change: Change } | null {
  if (from === to || (graph.departures.get(to) ?? []).some((link) => link.to === from)) return null;
  const states = (graph.elements.get(to) ?? []).filter((state) => state.standing === 'open');
  const state = states.find(({ label, element }) => BACK.test(label) || BACK.test(element.name));
  if (!state) return null;
  return {
    label: state.label,
    change: putInteraction(state.element.key, pressTo({ kind: 'back', fallback: from })),
  };
}
