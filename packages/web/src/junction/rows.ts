import type { Element, ElementState, WiredState } from '@tovel/core';

/** A line of the departures: one thing that an element does, or the element where it does nothing. */
export interface DepartureRow {
  /** The element's key, for further lines of the same element with `|2` and so on. */
  readonly id: string;
  readonly state: ElementState;
  readonly wired: WiredState | null;
  /** 1 for the element's first line. */
  readonly nth: number;
}

export const rowsOf = (states: readonly ElementState[]): DepartureRow[] =>
  states.flatMap((state): DepartureRow[] =>
    state.wired.length
      ? state.wired.map((wired, i) => ({
          id: i ? `${state.element.key}|${i + 1}` : state.element.key,
          state,
          wired,
          nth: i + 1,
        }))
      : [{ id: state.element.key, state, wired: null, nth: 1 }],
  );

/** `8`, and `8·2` for the second thing that the eighth element does. */
export const numberOf = ({ state, nth }: DepartureRow): string =>
  nth === 1 ? String(state.number) : `${state.number}·${nth}`;

/** Something that is not listed among what can be pressed, as something that can be wired. */
export const unlisted = (element: Element, label: string): ElementState => ({
  element,
  label,
  number: 0,
  parent: '',
  standing: 'open',
  wired: [],
  interaction: null,
  problem: null,
});
