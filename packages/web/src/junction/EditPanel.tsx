import {
  type Arrival,
  describeTarget,
  type ElementState,
  type Side,
  type Target,
  targetChoices,
  type LinkProposal,
  screenName,
} from '@tovel/core';
import { type RefObject, useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Suggest } from '../ui/Suggest';

const Panel = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr) 92px;
  gap: 10px 14px;
  padding: 12px 16px 14px;
  border-top: 2px solid ${color.ink};
  background: ${color.side};
`;

const Line = styled.div`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
  b {
    margin-right: auto;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

interface EditProps {
  state: ElementState;
  /** Where it may lead, while it leads nowhere. */
  proposal: LinkProposal | null;
  onTakeProposal: (proposal: LinkProposal) => void;
  onRefuseProposal: (proposal: LinkProposal) => void;
  field: RefObject<HTMLInputElement | null>;
  /** What is being typed as the target; null shows the present one. */
  typed: string | null;
  onTyped: (typed: string | null) => void;
  onWire: (target: Target) => void;
  onArrival: (arrival: Arrival) => void;
  onUnwire: () => void;
  onStill: () => void;
  onLeave: () => void;
  onAnchor: (screen: string) => void;
}

const Offer = styled.div`
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 6px 9px;
  border: 1px dashed ${color.ochre};
  span {
    margin-right: auto;
    color: ${color.ink2};
  }
  b {
    color: ${color.ochre};
  }
`;

type ArrivalKind = 'none' | 'fade' | `slide-${Side}`;

const ARRIVALS: readonly { id: ArrivalKind; label: string }[] = [
  { id: 'none', label: 'No transition' },
  { id: 'fade', label: 'Fade' },
  { id: 'slide-right', label: 'Slide from right' },
  { id: 'slide-left', label: 'Slide from left' },
  { id: 'slide-bottom', label: 'Slide from bottom' },
  { id: 'slide-top', label: 'Slide from top' },
];
const FIRST_MS = 240;
const MAX_MS = 10_000;

/** Where the chosen element leads and how that arrives. */
export function EditPanel({
  state,
  proposal,
  onTakeProposal,
  onRefuseProposal,
  field,
  typed,
  onTyped,
  onWire,
  onArrival,
  onUnwire,
  onStill,
  onLeave,
  onAnchor,
}: EditProps) {
  const project = useProject();
  const { interaction, standing } = state;
  const shown = interaction ? describeTarget(project, interaction.target).label : '';
  const choices = useMemo(() => targetChoices(project, typed ?? ''), [project, typed]);
  const suggestions = choices.map((choice, i) => ({
    id: String(i),
    label: choice.label,
    detail: choice.detail,
  }));
  const target = interaction?.target;
  const anchorScreen = target?.kind === 'screen' || target?.kind === 'anchor' ? target.screen : null;
  return (
    <Panel role="group" aria-label={`Edit ${state.label}`}>
      <Line>
        <b title={state.label}>
          {state.number ? `${state.number} · ` : ''}
          {state.label}
        </b>
        {anchorScreen && !state.problem && (
          <Button onPress={() => onAnchor(anchorScreen)}>
            {target?.kind === 'anchor' ? 'Another place on it' : 'A place on it …'}
          </Button>
        )}
        {interaction ? (
          <Button onPress={onUnwire}>Unwire</Button>
        ) : (
          <Button onPress={onStill}>{standing === 'still' ? 'Open again' : 'Mark still'}</Button>
        )}
      </Line>
      {proposal && (
        <Offer role="group" aria-label="Proposal">
          <span>
            <b>{screenName(project, proposal.to)}</b>, {Math.round(proposal.confidence * 100)} % sure, because{' '}
            {proposal.reason}.
          </span>
          <Button onPress={() => onTakeProposal(proposal)} aria-keyshortcuts="+">
            Take
          </Button>
          <Button $kind="quiet" onPress={() => onRefuseProposal(proposal)} aria-keyshortcuts="-">
            Refuse
          </Button>
        </Offer>
      )}
      <Suggest
        label="Goes to"
        inputRef={field}
        isTyped={typed !== null}
        isAbove
        value={typed ?? shown}
        onType={onTyped}
        placeholder="A screen, back, or https://…"
        suggestions={suggestions}
        nothing="No screen is called that. Its name, “back”, or an address that begins with https://"
        onTake={(suggestion) => onWire(choices[Number(suggestion.id)].target)}
        onLeave={onLeave}
      />
      <ArrivalFields
        arrival={interaction?.arrival ?? { kind: 'none' }}
        isDisabled={!interaction || target?.kind === 'external'}
        onChange={onArrival}
      />
    </Panel>
  );
}

function ArrivalFields({
  arrival,
  isDisabled,
  onChange,
}: {
  arrival: Arrival;
  isDisabled: boolean;
  onChange: (arrival: Arrival) => void;
}) {
  const kind: ArrivalKind = arrival.kind === 'slide' ? `slide-${arrival.from}` : arrival.kind;
  const ms = arrival.kind === 'none' ? null : arrival.ms;
  const [text, setText] = useState(String(ms ?? ''));
  const [last, setLast] = useState(ms);
  if (last !== ms) {
    setLast(ms);
    setText(String(ms ?? ''));
  }
  const make = (next: ArrivalKind, duration: number): Arrival =>
    next === 'none'
      ? { kind: 'none' }
      : next === 'fade'
        ? { kind: 'fade', ms: duration }
        : { kind: 'slide', from: next.slice(6) as Side, ms: duration };
  const number = Number(text);
  const isWrong = ms !== null && (!/^\d+$/.test(text.trim()) || number > MAX_MS);
  const save = (): void => {
    if (ms !== null && !isWrong && number !== ms) onChange(make(kind, number));
  };
  return (
    <>
      <Choice
        label="Arrives by"
        value={kind}
        options={ARRIVALS}
        isDisabled={isDisabled}
        onChange={(next) => next !== kind && onChange(make(next, ms ?? FIRST_MS))}
      />
      <Field
        label="Milliseconds"
        value={text}
        onChange={setText}
        isDisabled={isDisabled || ms === null}
        inputMode="numeric"
        onBlur={save}
        onKeyDown={(event) => event.key === 'Enter' && save()}
        problem={isWrong ? `0 to ${MAX_MS}` : null}
      />
    </>
  );
}
