import type { ElementState } from '@tovel/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useElementInAddress } from '../project/element_in_address';
import { rowsOf } from './rows';

/**
 * Which lines of a screen are chosen, and what is typed on the way to the field that says where they lead.
 * @param listed what can be pressed on the screen
 */
export function useRowChoice(listed: readonly ElementState[]) {
  const [wanted, select] = useElementInAddress();
  const [extra, setExtra] = useState<ElementState | null>(null);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [typed, setTyped] = useState<string | null>(null);
  const states = useMemo(
    () =>
      extra && !listed.some((state) => state.element.key === extra.element.key)
        ? [...listed, { ...extra, number: listed.length + 1 }]
        : listed,
    [listed, extra],
  );
  const rows = useMemo(() => rowsOf(states), [states]);
  // A line that is gone leaves its element chosen.
  const selected =
    rows.find((row) => row.id === wanted) ??
    rows.find((row) => row.id === wanted?.replace(/\|\d+$/, '')) ??
    null;
  const field = useRef<HTMLInputElement>(null);
  /** A press on the stage goes on to typing where it leads; the field is there only after the next drawing. */
  const wantsField = useRef(false);
  /** What was typed on a row before the field that it goes to was there. */
  const buffered = useRef<{ readonly row: string; readonly text: string } | null>(null);
  /** While the focus moves to a row that is chosen as one more. */
  const extending = useRef(false);
  useEffect(() => {
    if (!wantsField.current || !selected) return;
    wantsField.current = false;
    buffered.current = null;
    field.current?.focus();
  }, [selected]);

  const focusRow = (row: string): void => document.getElementById(`row-${row}`)?.focus();
  const choose = (row: string, isMore: boolean): void => {
    setTyped(null);
    setMarked(isMore ? new Set([...marked, ...(selected ? [selected.id] : []), row]) : new Set());
    select(row);
  };
  const toField = (row: string): void => {
    if (row === selected?.id && field.current) {
      field.current.focus();
      buffered.current = null;
    } else {
      wantsField.current = true;
      select(row);
    }
  };
  return {
    states,
    rows,
    selected,
    /** The line that was chosen first, and those that were chosen with it. */
    chosen: selected ? [selected, ...rows.filter((row) => row !== selected && marked.has(row.id))] : [],
    marked,
    markAll: () => setMarked(new Set(rows.map((row) => row.id))),
    markNone: () => setMarked(new Set()),
    field,
    typed,
    setTyped,
    focusRow,
    choose,
    /** Chooses a row and gives it the focus. */
    goTo(row: string, isMore: boolean) {
      extending.current = isMore;
      choose(row, isMore);
      focusRow(row);
      extending.current = false;
    },
    onFocusRow: (row: string) => !extending.current && choose(row, false),
    toField,
    /** What was typed on a row before its field was there; empty where nothing was. */
    typedOn: (row: string) => (buffered.current?.row === row ? buffered.current.text : ''),
    type(row: string, text: string) {
      buffered.current = { row, text };
      setTyped(text);
      toField(row);
    },
    /** What was typed is done before its field came. */
    endTyping() {
      buffered.current = null;
      wantsField.current = false;
      setTyped(null);
    },
    pickOnStage(state: ElementState) {
      setExtra(state);
      setTyped(null);
      setMarked(new Set());
      toField(state.element.key);
    },
  };
}

export type RowChoice = ReturnType<typeof useRowChoice>;
