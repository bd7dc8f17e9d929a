import { targetChoices } from '@tovel/core';
import { type KeyboardEvent, useEffect } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../project/context';
import type { DepartureRow } from './rows';
import { useCopied } from './use_copied';
import type { useOpenLinks } from './use_open_links';
import type { RowChoice } from './use_row_choice';
import type { useWiring } from './use_wiring';

interface Keyed {
  readonly screenKey: string;
  readonly choice: RowChoice;
  readonly proposals: ReturnType<typeof useOpenLinks>;
  readonly actions: ReturnType<typeof useWiring>;
}

/** What keys do on the lines of a screen: they go from one to the next, and letters say where one leads. */
export function useRowKeys({ screenKey, choice, proposals, actions }: Keyed) {
  const project = useProject();
  const copied = useCopied();
  const { rows, selected, chosen, marked } = choice;

  /** @returns whether the key does something with others held */
  const withControl = (
    key: string,
    focused: DepartureRow | undefined,
    acted: readonly DepartureRow[],
  ): boolean => {
    if (key === 'a') choice.markAll();
    else if (key === 'c' && focused?.wired) copied.set(focused.state.wired.map((one) => one.interaction));
    else if (key === 'v' && copied.now.length) actions.paste(acted, copied.now);
    else return false;
    return true;
  };
  const enter = (focused: DepartureRow, acted: readonly DepartureRow[]): void => {
    const text = choice.typedOn(focused.id);
    const from = { screen: screenKey, element: focused.state.element.key };
    // Whoever types faster than the field comes up means what was typed.
    const [target] = text ? targetChoices(project, text, from) : [];
    if (!target) return choice.toField(focused.id);
    choice.endTyping();
    actions.wire(acted, target);
  };

  return (event: KeyboardEvent): void => {
    if (event.altKey) return;
    const { key } = event;
    // The row with the focus, which may be further on than what has been drawn as chosen.
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset.row;
    const at = rows.findIndex((one) => one.id === row);
    const focused = rows[at];
    const acted = focused && selected?.id === focused.id ? chosen : focused ? [focused] : [];
    if (event.ctrlKey || event.metaKey) {
      if (withControl(key, focused, acted)) event.preventDefault();
      return;
    }
    const go = (to: number): void => {
      event.preventDefault();
      choice.goTo(rows[Math.max(0, Math.min(rows.length - 1, to))].id, event.shiftKey);
    };
    const typed = focused ? choice.typedOn(focused.id) : '';
    const proposal = focused && proposals.get(focused.state.element.key);
    if (focused && (typed ? key.length === 1 : /^[\p{L}\p{N}/]$/u.test(key))) {
      event.preventDefault();
      choice.type(focused.id, typed + key);
    } else if (key === 'ArrowDown') go(at + 1);
    else if (key === 'ArrowUp') go(at - 1);
    else if (key === 'Home') go(0);
    else if (key === 'End') go(rows.length - 1);
    else if (key === 'Escape' && marked.size) choice.markNone();
    else if (focused && key === 'Enter') {
      event.preventDefault();
      enter(focused, acted);
    } else if ((key === 'Delete' || key === 'Backspace') && acted.some((one) => one.wired))
      actions.unwire(acted);
    else if (key === '.' && acted.some((one) => !one.wired)) actions.toggleStill(acted);
    else if (key === '+' && proposal) actions.takeAll([proposal]);
    else if (key === '-' && proposal) actions.refuse(proposal);
  };
}

/** The brackets go to the screen or overlay before and after this one, from anywhere on the page. */
export function useBrackets(screenKey: string): void {
  const { graph, base } = useProject();
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent): void => {
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, [role=dialog]'))
        return;
      const by = event.key === ']' ? 1 : event.key === '[' ? -1 : 0;
      if (!by) return;
      const all = [...graph.screens, ...graph.overlays];
      const at = all.indexOf(screenKey);
      void navigate(`${base}/junction/${all[(at + by + all.length) % all.length]}`);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [graph, screenKey, base, navigate]);
}
