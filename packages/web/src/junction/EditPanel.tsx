import {
  type Arrival,
  componentAround,
  describeTarget,
  type ElementState,
  type Interaction,
  leadsTo,
  type LinkProposal,
  pressTo,
  reciprocalLink,
  screenName,
  sharedPairs,
  targetChoices,
} from '@tovel/core';
import { type RefObject, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { ActionMenu } from '../ui/ActionMenu';
import { Button } from '../ui/controls';
import { Suggest } from '../ui/Suggest';
import { ArrivalFields, PaceFields } from './ArrivalFields';
import { SharedFields } from './SharedFields';
import { type DepartureRow, numberOf } from './rows';
import { BeforeFields, TargetFields } from './TargetFields';
import { TransitionTrial } from './TransitionTrial';
import type { WiredTo, WiringActions } from './use_wiring';
import { WhenFields } from './WhenFields';

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

const More = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px 14px;
  align-items: end;
  max-height: 190px;
  overflow: auto;
  /* Room for the focus ring, so that the fields stand under those above. */
  padding: 2px;
  margin: 0 -2px;
`;

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

interface EditProps {
  /** The lines that are chosen; what is typed counts for all of them, the rest for the first. */
  rows: readonly DepartureRow[];
  screen: string;
  /** Where it may lead, while it leads nowhere. */
  proposal: LinkProposal | null;
  actions: WiringActions;
  field: RefObject<HTMLInputElement | null>;
  /** What is being typed as the target; null shows the present one. */
  typed: string | null;
  onTyped: (typed: string | null) => void;
  onDone: () => void;
  onAnchor: (screen: string) => void;
}

/** Where the chosen elements lead, on what, and how that arrives. */
export function EditPanel({
  rows,
  screen,
  proposal,
  actions,
  field,
  typed,
  onTyped,
  onDone,
  onAnchor,
}: EditProps) {
  const project = useProject();
  const [isMore, setMore] = useState(false);
  const [isTrying, setTrying] = useState(false);
  const [row] = rows;
  const { state, wired } = row;
  const interaction = wired?.interaction ?? null;
  const target = interaction?.target;
  const shown = target ? describeTarget(project, target).label : '';
  const choices = useMemo(
    () => targetChoices(project, typed ?? '', { screen, element: state.element.key }),
    [project, typed, screen, state.element.key],
  );
  const named = typed?.trim() ?? '';
  const isNew = named.length > 2 && !choices.some(({ label }) => label.toLowerCase() === named.toLowerCase());
  const suggestions = [
    ...choices.map((choice, i) => ({ id: String(i), label: choice.label, detail: choice.detail })),
    ...(isNew ? [{ id: 'plan', label: named, detail: 'a new screen, to be drawn' }] : []),
  ];
  const to = interaction && leadsTo(interaction);
  const shared = useMemo(
    () => (to && project.app.screens[to] ? sharedPairs(project, state.element.key, to) : []),
    [project, state.element.key, to],
  );
  const many = rows.length > 1;
  const edit = (label: string, next: Interaction): void => actions.edit(row, label, next);
  const arrive = (arrival: Arrival): void =>
    edit(`Change how “${state.label}” arrives`, { ...interaction!, arrival });
  const wire = (next: WiredTo): void => {
    actions.wire(rows, next);
    onTyped(null);
    onDone();
  };
  return (
    <Panel role="group" aria-label={`Edit ${many ? `${rows.length} elements` : state.label}`}>
      <Line>
        <b title={many ? rows.map((one) => one.state.label).join(', ') : state.label}>
          {many ? `${rows.length} elements` : `${state.number ? `${numberOf(row)} · ` : ''}${state.label}`}
        </b>
        {interaction && (
          <Button aria-expanded={isMore} onPress={() => setMore(!isMore)}>
            {isMore ? 'Less' : 'More'}
          </Button>
        )}
        {interaction && !many && to && !state.problem && (
          <Button onPress={() => setTrying(true)} isDisabled={interaction.arrival.kind === 'none'}>
            Try it
          </Button>
        )}
        {wired?.component !== undefined && <PlaceNote component={wired.component} />}
        <FurtherActions
          row={row}
          screen={screen}
          actions={actions}
          onAnchor={onAnchor}
          isMany={many}
          onEdit={edit}
        />
        {rows.some((one) => one.wired) ? (
          <Button onPress={() => actions.unwire(rows)}>Unwire</Button>
        ) : (
          <Button onPress={() => actions.toggleStill(rows)}>
            {rows.every((one) => one.state.standing === 'still') ? 'Open again' : 'Mark still'}
          </Button>
        )}
      </Line>
      {!many && <Offered row={row} proposal={proposal} actions={actions} />}
      <Suggest
        label="Goes to"
        inputRef={field}
        isTyped={typed !== null}
        isAbove
        value={typed ?? shown}
        onType={onTyped}
        placeholder="A screen, back, mail, https://…"
        suggestions={suggestions}
        nothing="Type a screen's name, “back”, or an address that begins with https://"
        onTake={(suggestion) => {
          if (suggestion.id !== 'plan') return wire(choices[Number(suggestion.id)]);
          actions.plan(rows, named);
          onTyped(null);
          onDone();
        }}
        onLeave={() => {
          onTyped(null);
          onDone();
        }}
      />
      <ArrivalFields
        arrival={interaction?.arrival ?? { kind: 'none' }}
        isDisabled={!interaction || !ARRIVES.has(interaction.target.kind)}
        shared={shared}
        onChange={arrive}
      />
      {interaction && isMore && (
        <More role="group" aria-label="More about it">
          <WhenFields
            interaction={interaction}
            onChange={(next) => edit(`Change when “${state.label}” does it`, next)}
          />
          <TargetFields
            interaction={interaction}
            element={state.element.key}
            screen={screen}
            onChange={(next) => edit(`Change what “${state.label}” passes on`, next)}
          />
          {interaction.arrival.kind !== 'none' && (
            <PaceFields arrival={interaction.arrival} onChange={arrive} />
          )}
          {interaction.arrival.kind === 'shared' && (
            <SharedFields arrival={interaction.arrival} candidates={shared} onChange={arrive} />
          )}
          <BeforeFields
            interaction={interaction}
            element={state.element.key}
            screen={screen}
            onChange={(next) => edit(`Change what “${state.label}” does first`, next)}
          />
        </More>
      )}
      {isTrying && to && interaction && (
        <TransitionTrial
          from={screen}
          to={to}
          arrival={interaction.arrival}
          onClose={() => setTrying(false)}
        />
      )}
    </Panel>
  );
}

/** Where a line may lead while it leads nowhere: to a screen there is, or to one that was forgotten. */
function Offered({
  row,
  proposal,
  actions,
}: Pick<EditProps, 'proposal' | 'actions'> & { row: DepartureRow }) {
  const project = useProject();
  const { state, wired } = row;
  if (proposal)
    return (
      <Offer role="group" aria-label="Proposal">
        <span>
          <b>{screenName(project, proposal.to)}</b>, {Math.round(proposal.confidence * 100)} % sure, because{' '}
          {proposal.reason}.
        </span>
        <Button onPress={() => actions.takeAll([proposal])} aria-keyshortcuts="+">
          Take
        </Button>
        <Button $kind="quiet" onPress={() => actions.refuse(proposal)} aria-keyshortcuts="-">
          Refuse
        </Button>
      </Offer>
    );
  if (wired || state.standing !== 'open' || !isName(state)) return null;
  return (
    <Offer role="group" aria-label="Proposal">
      <span>
        No screen is called <b>{state.label}</b>. Was it forgotten?
      </span>
      <Button onPress={() => actions.plan([row], state.label)}>Plan it, to be drawn</Button>
    </Offer>
  );
}

/** Whether an element's label could be the name of a screen: an entry of a bar, or a short text of words. */
const isName = ({ label, within, element }: ElementState): boolean =>
  within !== undefined &&
  /^\p{L}[\p{L} '’&-]{2,29}$/u.test(label) &&
  label !== element.name &&
  !/\b(button|icon|menu|toggle)\b/i.test(label);

/** Targets that something can arrive with. */
const ARRIVES: ReadonlySet<string> = new Set(['screen', 'anchor', 'back', 'open']);

function PlaceNote({ component }: { component: string }) {
  const { app } = useProject();
  return (
    <span style={{ color: color.ink2, whiteSpace: 'nowrap' }}>
      as at another place of {app.components[component]?.name}
    </span>
  );
}

interface FurtherProps {
  row: DepartureRow;
  screen: string;
  actions: WiringActions;
  isMany: boolean;
  onAnchor: (screen: string) => void;
  onEdit: (label: string, interaction: Interaction) => void;
}

/** What is done less often: a place on the screen, the way back, another gesture, all places of a component. */
function FurtherActions({ row, screen, actions, isMany, onAnchor, onEdit }: FurtherProps) {
  const project = useProject();
  const { state, wired } = row;
  const target = wired?.interaction.target;
  const anchorScreen = target?.kind === 'screen' || target?.kind === 'anchor' ? target.screen : null;
  const around = componentAround(project, state.element.key);
  const back = anchorScreen ? reciprocalLink(project.graph, screen, anchorScreen) : null;
  const own = wired && wired.component === undefined ? wired.interaction : null;
  const navigate = useNavigate();
  const shows = `${project.base}/screens/at/${screen}?element=${encodeURIComponent(state.element.key)}&tab=shows`;
  if (isMany || !wired) return null;
  return (
    <ActionMenu
      label="Also"
      actions={[
        ...(anchorScreen && !state.problem
          ? [
              {
                id: 'anchor',
                label: target?.kind === 'anchor' ? 'Another place on it …' : 'A place on it …',
                act: () => onAnchor(anchorScreen),
              },
            ]
          : []),
        {
          id: 'back',
          label: back ? `And back, by “${back.label}”` : `And back: nothing open there leads back`,
          isDisabled: !back,
          act: () => back && project.session.change(`Lead back by “${back.label}”`, back.change),
        },
        { id: 'another', label: 'Another gesture or condition', act: () => actions.addAnother(row) },
        { id: 'shows', label: 'What it shows …', act: () => void navigate(shows) },
        {
          id: 'everywhere',
          label: own?.everywhere
            ? 'Only at this place'
            : around
              ? `At all ${around.places.length} places of ${project.app.components[around.id].name}`
              : 'At all places: it is in no component',
          isDisabled: !around || !own || around.places.length < 2,
          act: () => {
            const { everywhere, ...rest } = own ?? pressTo({ kind: 'back' });
            onEdit(
              everywhere ? `Only “${state.label}” does it` : `All places do as “${state.label}”`,
              everywhere ? rest : { ...rest, everywhere: true },
            );
          },
        },
      ]}
    />
  );
}
