import { type KeyboardEvent, type MouseEvent, useCallback, useMemo, useRef, useState } from 'react';
import { toggled } from '../ui/toggled';
import { keyInNextRow, keysOf, rowWith, type SheetRow } from './contact_rows';

interface Choosing {
  readonly rows: readonly SheetRow[];
  readonly selected: ReadonlySet<string>;
  readonly onSelect: (keys: ReadonlySet<string>) => void;
  readonly onOpen: (key: string) => void;
  /** Keys that mean something for the whole selection. */
  readonly onKey: (event: KeyboardEvent) => void;
  /** Brings a row into sight. */
  readonly onShow: (row: number) => void;
  readonly onPressed: () => void;
}

/** Chooses screens of a sheet by mouse and keyboard: one, one more, or all from one to another. */
export function useSheetChoice({ rows, selected, onSelect, onOpen, onKey, onShow, onPressed }: Choosing) {
  const order = useMemo(() => keysOf(rows), [rows]);
  const [at, setAt] = useState<string | null>(order[0] ?? null);
  const anchor = useRef<string | null>(null);
  const current = at && order.includes(at) ? at : (order[0] ?? null);

  const go = (key: string, isExtending: boolean): void => {
    setAt(key);
    if (!isExtending) {
      anchor.current = key;
      onSelect(new Set([key]));
    } else {
      const [from, to] = [order.indexOf(anchor.current ?? current ?? key), order.indexOf(key)];
      onSelect(new Set(order.slice(Math.min(from, to), Math.max(from, to) + 1)));
    }
    const row = rowWith(rows, key);
    if (row >= 0) onShow(row);
  };
  const toggle = (key: string): void => onSelect(toggled(selected, key));
  const press = (event: MouseEvent, key: string): void => {
    event.stopPropagation();
    onPressed();
    if (event.ctrlKey || event.metaKey) {
      setAt(key);
      anchor.current = key;
      toggle(key);
    } else go(key, event.shiftKey);
  };
  // Cards are drawn again only when something of theirs has changed; what a press does is looked up when it comes.
  const latest = useRef(press);
  latest.current = press;
  const onPress = useCallback((event: MouseEvent, key: string): void => latest.current(event, key), []);

  const onKeyDown = (event: KeyboardEvent): void => {
    if (!current) return;
    const { key } = event;
    const step = (by: number): string =>
      order[Math.max(0, Math.min(order.length - 1, order.indexOf(current) + by))];
    const ways: Readonly<Record<string, () => string | null>> = {
      ArrowRight: () => step(1),
      ArrowLeft: () => step(-1),
      ArrowDown: () => keyInNextRow(rows, current, 1),
      ArrowUp: () => keyInNextRow(rows, current, -1),
      Home: () => order[0],
      End: () => order[order.length - 1],
    };
    if (Object.hasOwn(ways, key)) {
      event.preventDefault();
      const next = ways[key]();
      if (next !== null) go(next, event.shiftKey);
    } else if (key === 'Enter') onOpen(current);
    else if (key === ' ') {
      event.preventDefault();
      toggle(current);
    } else if (key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      onSelect(new Set(order));
    } else onKey(event);
  };
  return { current, onPress, onKeyDown };
}
