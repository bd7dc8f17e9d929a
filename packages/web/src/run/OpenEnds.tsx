import {
  type ElementState,
  hostOf,
  screenName,
  screensByKey,
  type Seen,
  seenAs,
  shownElements,
  targetChoices,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { rowsOf } from '../junction/rows';
import { useOpenLinks } from '../junction/use_open_links';
import { useWiring } from '../junction/use_wiring';
import { type OpenProject, useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Suggest } from '../ui/Suggest';

/** An element that looks pressable and does nothing, as the running app knows it. */
export interface Mark {
  readonly key: string;
  readonly seen: Seen;
}

/** What was pressed, and where its lower left corner is, in CSS px of what the frame lies in. */
export interface Pressed {
  readonly key: string;
  readonly x: number;
  readonly y: number;
}

/** What of the screens that are shown leads nowhere yet. */
export function useOpenEnds(
  { graph, plan, design }: Pick<OpenProject, 'graph' | 'plan' | 'design'>,
  shown: readonly string[],
): {
  readonly marks: readonly Mark[];
  readonly states: ReadonlyMap<string, ElementState>;
} {
  const said = shown.join(' ');
  return useMemo(() => {
    const there = screensByKey(design);
    const elements = shown.flatMap((screen) => (there.has(screen) ? shownElements(plan, screen) : []));
    const states = new Map(
      shown
        .flatMap((screen) => graph.elements.get(screen) ?? [])
        .filter(({ standing }) => standing === 'open')
        .map((state) => [state.element.key, state]),
    );
    const marks = [...states.keys()].flatMap((key): Mark[] => {
      const seen = seenAs(elements, key);
      return seen ? [{ key, seen }] : [];
    });
    return { marks, states };
  }, [graph, plan, said]);
}

const WIDTH = 340;

const Board = styled.div`
  position: absolute;
  z-index: 5;
  width: ${WIDTH}px;
  display: grid;
  gap: 10px;
  padding: 12px 14px 14px;
  background: ${color.sheet};
  border: 1px solid ${color.ink};
  h3 {
    font-size: 14px;
    overflow-wrap: anywhere;
  }
  p {
    color: ${color.ink2};
  }
`;

const Row = styled.div`
  display: flex;
  gap: 8px;
`;

/** A small board at an element of the running app: where it shall lead is typed there, and it works at once. */
export function OpenEndBoard({
  pressed,
  state,
  area,
  onClose,
}: {
  pressed: Pressed;
  state: ElementState;
  /** Size of what the board lies in, in CSS px. */
  area: { readonly width: number; readonly height: number };
  onClose: () => void;
}) {
  const project = useProject();
  const actions = useWiring();
  const proposal = useOpenLinks().get(state.element.key);
  const [typed, setTyped] = useState('');
  const rows = rowsOf([state]);
  const choices = useMemo(
    () =>
      targetChoices(project, typed, {
        screen: hostOf(project, state.element.key),
        element: state.element.key,
      }),
    [project, typed, state.element.key],
  );
  const named = typed.trim();
  const isNew = named.length > 2 && !choices.some(({ label }) => label.toLowerCase() === named.toLowerCase());
  const done = (act: () => void): void => {
    act();
    onClose();
  };
  return (
    <Board
      role="dialog"
      aria-label={`Where “${state.label}” leads`}
      style={{
        left: Math.max(8, Math.min(pressed.x, area.width - WIDTH - 8)),
        top: Math.max(8, Math.min(pressed.y + 12, area.height - 330)),
      }}
    >
      <h3>{state.label}</h3>
      {proposal && (
        <>
          <p>
            Perhaps <b>{screenName(project, proposal.to)}</b>, {Math.round(proposal.confidence * 100)} % sure,
            because {proposal.reason}.
          </p>
          <Row>
            <Button $kind="primary" onPress={() => done(() => actions.takeAll([proposal]))}>
              Take {screenName(project, proposal.to)}
            </Button>
            <Button onPress={() => actions.refuse(proposal)}>Refuse</Button>
          </Row>
        </>
      )}
      <Suggest
        label="Goes to"
        autoFocus
        value={typed}
        onType={setTyped}
        placeholder="A screen, back, mail, https://…"
        suggestions={[
          ...choices.map(({ label, detail }, i) => ({ id: String(i), label, detail })),
          ...(isNew ? [{ id: 'plan', label: named, detail: 'a new screen, to be drawn' }] : []),
        ]}
        nothing="Type a screen's name, “back”, or an address that begins with https://"
        onTake={({ id }) =>
          done(() => (id === 'plan' ? actions.plan(rows, named) : actions.wire(rows, choices[Number(id)])))
        }
        onLeave={onClose}
      />
      <Row>
        <Button onPress={() => done(() => actions.toggleStill(rows))}>It does nothing</Button>
        <Button onPress={onClose}>Close</Button>
      </Row>
    </Board>
  );
}
