import { always, breakpointsOf, type EditCondition, type Screen } from '@tovel/core';

/** When an edit can hold, as it is offered. */
export interface OfferedCondition {
  readonly id: string;
  readonly label: string;
  readonly condition: EditCondition;
}

const STATES = { hover: 'when hovered', focus: 'with the focus', disabled: 'when disabled' } as const;

export const conditionId = (of: EditCondition): string =>
  of.kind === 'always' ? 'always' : of.kind === 'state' ? of.state : `${of.kind} ${of.width}`;

const offered = (condition: EditCondition, label: string): OfferedCondition => ({
  id: conditionId(condition),
  label,
  condition,
});

/**
 * When edits of elements of a screen can hold: at every width, up to and from the widths at which it changes and the one that is
 * looked at, and in states of the element.
 * @param drawn width that it was drawn at, in CSS px
 * @param width that it is looked at
 */
export function conditionsFor(screen: Screen, drawn: number, width: number): OfferedCondition[] {
  const points = breakpointsOf(screen);
  const widths = (kind: 'upTo' | 'from', more: readonly number[]): number[] =>
    [
      ...new Set([...points.filter((point) => point.kind === kind).map((point) => point.width), ...more]),
    ].sort((a, b) => a - b);
  return [
    offered(always, 'at every width'),
    ...widths('upTo', width < drawn ? [width] : []).map((at) =>
      offered({ kind: 'upTo', width: at }, `up to ${at} px`),
    ),
    ...widths('from', width > drawn ? [width] : []).map((at) =>
      offered({ kind: 'from', width: at }, `from ${at} px`),
    ),
    ...Object.entries(STATES).map(([state, label]) =>
      offered({ kind: 'state', state: state as keyof typeof STATES }, label),
    ),
  ];
}
