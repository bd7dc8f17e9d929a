import {
  all,
  type Change,
  describeTarget,
  elementOfInteraction,
  freeInteractionKey,
  type Interaction,
  type LinkProposal,
  planScreen,
  pressTo,
  putInteraction,
  putStill,
  refuseLink,
  screenName,
  takeLinks,
  type TargetChoice,
} from '@tovel/core';
import { useProject } from '../project/context';
import type { DepartureRow } from './rows';

/** What something is wired to: where it leads, or what it does, and what is done before. */
export type WiredTo = Pick<TargetChoice, 'target' | 'before'>;

/** What can be done to the lines of the departures, each as one step. */
export interface WiringActions {
  /** Makes all the lines lead to a target, each as it did otherwise. */
  wire: (rows: readonly DepartureRow[], to: WiredTo) => void;
  /** Plans a screen that is still to be drawn, and makes the lines lead to it. */
  plan: (rows: readonly DepartureRow[], name: string) => void;
  edit: (row: DepartureRow, label: string, interaction: Interaction) => void;
  /** One more thing that the element does. */
  addAnother: (row: DepartureRow) => void;
  unwire: (rows: readonly DepartureRow[]) => void;
  toggleStill: (rows: readonly DepartureRow[]) => void;
  paste: (rows: readonly DepartureRow[], interactions: readonly Interaction[]) => void;
  takeAll: (proposals: readonly LinkProposal[]) => void;
  refuse: (proposal: LinkProposal) => void;
}

const naming = (rows: readonly DepartureRow[]): string =>
  rows.length === 1 ? `“${rows[0].state.label}”` : `${rows.length} elements`;

export function useWiring(): WiringActions {
  const project = useProject();
  const { app, session } = project;
  const put = (label: string, changes: readonly Change[]): void =>
    session.change(label, changes.length === 1 ? changes[0] : all(changes));

  /** Where a line is kept: what came from another place of a component is said here anew. */
  const keyOf = ({ state, wired }: DepartureRow): string =>
    wired && elementOfInteraction(wired.key) === state.element.key ? wired.key : state.element.key;

  const wiredTo = (rows: readonly DepartureRow[], { target, before }: WiredTo): Change[] =>
    rows.map((row) => {
      const { everywhere: _everywhere, ...known } = row.wired?.interaction ?? pressTo(target);
      const isOwn = row.wired?.component === undefined;
      return putInteraction(keyOf(row), {
        ...(isOwn && row.wired ? row.wired.interaction : known),
        target,
        ...(before ? { before } : {}),
      });
    });

  return {
    wire: (rows, to) =>
      put(`Wire ${naming(rows)} to ${describeTarget(project, to.target).label}`, wiredTo(rows, to)),
    plan: (rows, name) => {
      const { key, change } = planScreen(app, name);
      put(`Plan ${name}, to be drawn`, [
        change,
        ...wiredTo(rows, { target: { kind: 'screen', screen: key } }),
      ]);
    },
    edit: (row, label, interaction) => put(label, [putInteraction(keyOf(row), interaction)]),
    addAnother: (row) =>
      put(`Let ${naming([row])} do more`, [
        putInteraction(freeInteractionKey(app.interactions, row.state.element.key), {
          ...(row.wired?.interaction ?? pressTo({ kind: 'back' })),
          on: row.wired?.interaction.on === 'press' ? 'long-press' : 'press',
        }),
      ]),
    unwire: (rows) =>
      put(
        `Unwire ${naming(rows)}`,
        rows.flatMap((row): Change[] =>
          !row.wired
            ? []
            : row.wired.component === undefined
              ? [putInteraction(row.wired.key, null)]
              : [putStill(row.state.element.key, true)],
        ),
      ),
    toggleStill: (rows) => {
      const open = rows.filter(({ wired }) => !wired);
      const isStill = open.every(({ state }) => state.standing === 'still');
      put(
        isStill ? `Open ${naming(open)} again` : `Mark ${naming(open)} still`,
        open.map(({ state }) => putStill(state.element.key, !isStill)),
      );
    },
    paste: (rows, interactions) =>
      put(
        `Wire ${naming(rows)} the same way`,
        rows.flatMap((row) =>
          interactions.map((interaction, i) =>
            putInteraction(i ? `${row.state.element.key}|${i + 1}` : row.state.element.key, interaction),
          ),
        ),
      ),
    takeAll: (list) =>
      session.change(
        list.length === 1
          ? `Wire to ${screenName(project, list[0].to)}, as proposed`
          : `Take ${list.length} proposed links`,
        takeLinks(list),
      ),
    refuse: (proposal) =>
      session.change(`Do not wire to ${screenName(project, proposal.to)}`, refuseLink(proposal)),
  };
}
