import {
  all,
  decideRole,
  type Element,
  elementsByKey,
  elementsLike,
  labelOf,
  refuseRole,
  type RoleDetail,
  roleInWords,
  type Screen,
} from '@tovel/core';
import type { KeyboardEvent, RefObject } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../project/context';
import { roleOfKey } from './role_keys';
import type { RoleDecisions } from './use_role_decisions';

interface Keyed {
  readonly view: RefObject<HTMLElement | null>;
  /** The screen as it came in. */
  readonly drawn: Screen;
  readonly element: Element | null;
  readonly decisions: RoleDecisions;
  /** Goes to the next undecided element, or the one before; false where there is none. */
  readonly toNext: (by: 1 | -1) => boolean;
}

/** What keys do in the workbench: they go from one undecided element to the next, and say what each is. */
export function useRoleKeys({ view, drawn, element, decisions, toNext }: Keyed) {
  const { drawn: design, app, base, session, graph } = useProject();
  const navigate = useNavigate();

  const give = (to: Element, detail: RoleDetail): void => {
    session.change(`${labelOf(to)} is a ${roleInWords(detail)}`, decideRole(app, to.key, detail));
    toNext(1);
  };
  const giveToAllLike = (one: Element): void => {
    const others = elementsLike(design, elementsByKey(drawn).get(one.key) ?? one).filter(
      (other) => other.key !== one.key,
    );
    if (!others.length) return;
    session.change(
      `${others.length} like ${labelOf(one)} are the same`,
      all(others.map((other) => decideRole(app, other.key, app.layers[one.key] as RoleDetail))),
    );
  };
  /** @returns whether the key says something of the element */
  const decides = (key: string, to: Element): boolean => {
    const proposal = decisions.proposalOf.get(to.key);
    if (key === 'Enter' && proposal) give(to, proposal.guess);
    else if (key === 'Backspace' && proposal) {
      session.change(`${labelOf(to)} is no ${roleInWords(proposal.guess)}`, refuseRole(proposal));
      toNext(1);
    } else if (key === '=' && app.layers[to.key]?.role) giveToAllLike(to);
    else if (/^[1-6]$/.test(key)) give(to, { role: 'heading', level: Number(key) });
    else {
      const role = roleOfKey(key);
      if (!role) return false;
      give(to, role.detail);
    }
    return true;
  };

  return (event: KeyboardEvent): void => {
    const target = event.target as HTMLElement;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (target.closest('input, textarea, select, [role=menu], [role=listbox], [role=slider]')) return;
    const isFree = target === view.current || target.closest('[role=tree], [data-stage]') !== null;
    if (event.key === 'Tab') {
      // Only from the list or the stage: elsewhere Tab goes from control to control, as it does anywhere.
      if (isFree && toNext(event.shiftKey ? -1 : 1)) event.preventDefault();
    } else if (event.key === ']' || event.key === '[') {
      const next = graph.screens[graph.screens.indexOf(drawn.key) + (event.key === ']' ? 1 : -1)];
      if (next) void navigate(`${base}/screens/at/${next}`);
    } else if (isFree && element && decides(event.key, element)) {
      event.preventDefault();
      event.stopPropagation();
    }
  };
}
