import {
  type Element,
  inferRoles,
  type RoleDetail,
  roleInWords,
  roleProposals,
  type Screen,
  walkElements,
} from '@tovel/core';
import { useMemo } from 'react';
import { useProject } from '../project/context';
import { nextOf } from './role_keys';

/** Proposals that are at least so sure are taken together. */
export const SURE = 0.8;

/**
 * What the elements of a screen are held for, and what of it is decided.
 * @param drawn as it came in
 */
export function useRoleDecisions(drawn: Screen) {
  const { app } = useProject();
  const proposals = useMemo(() => roleProposals(app, drawn), [app, drawn]);
  const proposalOf = useMemo(
    () => new Map(proposals.map((proposal) => [proposal.element.key, proposal])),
    [proposals],
  );
  const order = useMemo(() => {
    const keys: string[] = [];
    walkElements(drawn.root, (inner) => void keys.push(inner.key));
    return keys;
  }, [drawn]);
  const guesses = inferRoles(drawn, app.defaults);
  const isDecided = (key: string): boolean =>
    (guesses.get(key)?.confidence ?? 0) >= 1 || app.layers[key]?.role !== undefined;
  return {
    proposals,
    proposalOf,
    /** How many elements have a role that nobody has to decide any more. */
    decided: [...guesses.keys()].filter(isDecided).length,
    /** How many proposals are sure enough to be taken together. */
    sure: proposals.filter(({ guess }) => guess.confidence >= SURE).length,
    /** What is said of an element where it is listed. */
    noteOf(inner: Element): { text: string; isProposed?: boolean } | null {
      const proposal = proposalOf.get(inner.key);
      if (proposal) return { text: roleInWords(proposal.guess), isProposed: true };
      const layer = app.layers[inner.key];
      if (layer?.role) return { text: roleInWords(layer as RoleDetail) };
      const guess = guesses.get(inner.key);
      return guess && guess.confidence >= 1 ? { text: roleInWords(guess) } : null;
    },
    /** The undecided element after or before another, by key; null where there is none. */
    next: (from: string | null, by: 1 | -1): string | null => nextOf(order, proposalOf, from, by),
  };
}

export type RoleDecisions = ReturnType<typeof useRoleDecisions>;
