import { type RefObject, useLayoutEffect, useState } from 'react';

/** Which rows and columns of a large table are near what is seen; the last ones are left out. */
export interface Visible {
  readonly row: readonly [first: number, end: number];
  readonly column: readonly [first: number, end: number];
}

/** So many more on each side, so that scrolling finds them there. */
const MORE = 12;

/** Follows how far a holder of square cells is scrolled. Tables with few cells are there whole. */
export function useVisible(
  holder: RefObject<HTMLElement | null>,
  size: number,
  rows: number,
  columns: number,
  most: number,
): Visible {
  const all: Visible = { row: [0, rows], column: [0, columns] };
  const [visible, setVisible] = useState<Visible>({ row: [0, 60], column: [0, 60] });
  const isLarge = rows * columns > most;
  useLayoutEffect(() => {
    const element = holder.current;
    if (!isLarge || !element) return;
    const look = (): void => {
      const range = (from: number, length: number, count: number): readonly [number, number] => {
        const first = Math.max(0, Math.floor(from / size) - MORE);
        return [first, Math.min(count, Math.ceil((from + length) / size) + MORE)];
      };
      const next: Visible = {
        row: range(element.scrollTop, element.clientHeight, rows),
        column: range(element.scrollLeft, element.clientWidth, columns),
      };
      setVisible((now) => (JSON.stringify(now) === JSON.stringify(next) ? now : next));
    };
    look();
    const watcher = new ResizeObserver(look);
    watcher.observe(element);
    element.addEventListener('scroll', look);
    return () => {
      watcher.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [holder, isLarge, size, rows, columns]);
  return isLarge ? visible : all;
}
