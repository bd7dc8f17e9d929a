import {
  all,
  decideRole,
  type Element,
  elementsByKey,
  elementsLike,
  inferRoles,
  INPUT_TYPES,
  type InputKind,
  labelOf,
  putLayer,
  refuseRole,
  type RoleDetail,
  roleInWords,
  type RoleProposal,
  type Screen,
  undecideRole,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { useRepeats } from '../repeats/use_repeats';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Block, Chip, Columns, Row } from './panel';
import { ROLE_KEYS } from './role_keys';

const Proposal = styled.div`
  border: 1px dashed ${color.ochre};
  padding: 9px 11px;
  display: grid;
  gap: 7px;
  b {
    color: ${color.ochre};
  }
  p {
    color: ${color.ink2};
  }
  kbd {
    font-size: 11px;
    opacity: 0.75;
    margin-left: 4px;
  }
`;

interface RolePanelProps {
  element: Element;
  drawn: Screen;
  proposal: RoleProposal | null;
  onDecided: () => void;
}

/** What an element is: what is proposed and why, what somebody said, and what more there is to say of it. */
export function RolePanel({ element, drawn, proposal, onDecided }: RolePanelProps) {
  const { app, session, drawn: design } = useProject();
  const { key } = element;
  const layer = app.layers[key];
  const name = labelOf(element);
  const decided = layer?.role ?? null;
  const guess = inferRoles(drawn, app.defaults).get(key) ?? null;
  // As it was drawn, like the others: what was decided may have made something else of it.
  const original = elementsByKey(drawn).get(key) ?? element;
  const like = useMemo(() => elementsLike(design, original), [design, original]);
  const others = like.filter((other) => other.key !== key);
  const give = (detail: RoleDetail): void => {
    session.change(`${name} is a ${roleInWords(detail)}`, decideRole(app, key, detail));
    onDecided();
  };
  const detail: RoleDetail | null = decided
    ? ({
        role: decided,
        input: layer?.input,
        level: layer?.level,
        label: layer?.label,
        chart: layer?.chart,
      } as RoleDetail)
    : null;
  const now = detail ?? (guess && guess.confidence >= 1 ? guess : null);
  return (
    <>
      <Block>
        <h3>
          <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={name}>
            {name}
          </span>
          <small>{now ? roleInWords(now) : proposal ? 'undecided' : element.kind}</small>
        </h3>
        {proposal ? (
          <Proposal role="group" aria-label="Proposal">
            <div>
              <b>{roleInWords(proposal.guess)}</b>, {Math.round(proposal.guess.confidence * 100)} % sure
            </div>
            <p>Because {proposal.guess.reason}.</p>
            <Row>
              <Button $kind="primary" onPress={() => give(proposal.guess)} aria-keyshortcuts="Enter">
                Take<kbd>↵</kbd>
              </Button>
              <Button
                onPress={() => {
                  session.change(`${name} is no ${roleInWords(proposal.guess)}`, refuseRole(proposal));
                  onDecided();
                }}
                aria-keyshortcuts="Backspace"
              >
                Refuse<kbd>⌫</kbd>
              </Button>
            </Row>
          </Proposal>
        ) : (
          <p style={{ color: color.ink2 }}>
            {decided
              ? 'Somebody decided this.'
              : guess && guess.confidence >= 1
                ? `Because ${guess.reason}.`
                : 'Nothing is proposed for it.'}
          </p>
        )}
        <Row>
          {decided && (
            <Button onPress={() => session.change(`${name} is undecided again`, undecideRole(app, key))}>
              Undecide
            </Button>
          )}
          {decided && others.length > 0 && (
            <Button
              onPress={() =>
                session.change(
                  `${others.length} like ${name} are the same`,
                  all(others.map((other) => decideRole(app, other.key, detail!))),
                )
              }
              aria-keyshortcuts="="
            >
              Same for all {others.length + 1} like this
            </Button>
          )}
          {element.children.length > 0 && (
            <Button
              aria-pressed={layer?.flat ?? false}
              onPress={() => {
                const { flat: _flat, ...rest } = layer ?? {};
                session.change(
                  layer?.flat ? `Open up ${name}` : `${name} is one picture`,
                  putLayer(key, layer?.flat ? rest : { ...rest, flat: true }),
                );
              }}
            >
              {layer?.flat ? 'Not one picture' : 'One picture'}
            </Button>
          )}
        </Row>
      </Block>
      <Repeating element={element} />
      <Details key={`${key} ${decided}`} detail={now} onDetail={give} />
      <Block>
        <h3>
          It is a … <small>press the key</small>
        </h3>
        <Columns $n={3} role="group" aria-label="Roles">
          {ROLE_KEYS.map((entry) => (
            <Chip
              key={entry.key}
              type="button"
              aria-pressed={
                now?.role === entry.detail.role &&
                (now.input === 'multiline') === (entry.detail.input === 'multiline')
              }
              aria-keyshortcuts={entry.key.toUpperCase()}
              onClick={() => give(entry.detail)}
            >
              {entry.label}
              <kbd>{entry.key.toUpperCase()}</kbd>
            </Chip>
          ))}
        </Columns>
      </Block>
    </>
  );
}

/** What the element is one of several of. */
function Repeating({ element }: { element: Element }) {
  const { app, base } = useProject();
  const found = useRepeats();
  const taken = Object.entries(app.components).filter(([, component]) =>
    component.places.includes(element.key),
  );
  const proposed = (found ?? []).filter(
    (proposal) =>
      proposal.places.includes(element.key) &&
      !app.refused[proposal.id] &&
      !taken.some(([, component]) => component.places.some((place) => proposal.places.includes(place))),
  );
  const rows = [
    ...taken.map(([key, component]) => ({ id: key, component, isTaken: true })),
    ...proposed.map((proposal) => ({ id: proposal.id, component: proposal, isTaken: false })),
  ];
  if (!rows.length) return null;
  return (
    <Block>
      <h3>It repeats</h3>
      {rows.map(({ id: repeat, component, isTaken }) => (
        <span key={repeat}>
          <Link to={`${base}/screens/repeats?repeat=${encodeURIComponent(repeat)}`}>{component.name}</Link>,{' '}
          {component.places.length} {component.kind === 'list' ? 'rows' : 'places'},{' '}
          {isTaken ? 'taken' : 'proposed'}
        </span>
      ))}
    </Block>
  );
}

/** What more there is to say of some roles. */
function Details({
  detail,
  onDetail,
}: {
  detail: RoleDetail | null;
  onDetail: (detail: RoleDetail) => void;
}) {
  const [label, setLabel] = useState(detail?.label ?? '');
  if (!detail) return null;
  const { role } = detail;
  const hasLabel = [
    'image',
    'chart',
    'avatar',
    'textbox',
    'checkbox',
    'switch',
    'radio',
    'combobox',
    'slider',
    'progressbar',
    'dialog',
  ].includes(role);
  if (!hasLabel && role !== 'heading') return null;
  const save = (): void => {
    if (label.trim() !== (detail.label ?? '')) onDetail({ ...detail, label: label.trim() });
  };
  return (
    <Block>
      {role === 'textbox' && (
        <Choice
          label="It takes"
          value={(detail.input ?? 'text') as InputKind}
          options={INPUT_TYPES.map((id) => ({ id, label: INPUT_WORDS[id] }))}
          onChange={(input) => onDetail({ ...detail, input })}
        />
      )}
      {role === 'heading' && (
        <Choice
          label="Level"
          value={String(detail.level ?? 2)}
          options={['1', '2', '3', '4', '5', '6'].map((id) => ({ id, label: `Heading ${id}` }))}
          onChange={(level) => onDetail({ ...detail, level: Number(level) })}
        />
      )}
      {role === 'chart' && (
        <Choice
          label="It shows its numbers as"
          value={detail.chart ?? 'bar'}
          options={[
            { id: 'bar' as const, label: 'Bars' },
            { id: 'line' as const, label: 'A line' },
            { id: 'pie' as const, label: 'Sectors' },
          ]}
          onChange={(chart) => onDetail({ ...detail, chart })}
        />
      )}
      {hasLabel && (
        <Field
          label={
            ['image', 'avatar', 'chart'].includes(role)
              ? 'In words, for those who do not see it'
              : 'Label, where none is drawn'
          }
          value={label}
          onChange={setLabel}
          onBlur={save}
          onKeyDown={(event) => {
            event.continuePropagation?.();
            if (event.key === 'Enter') save();
          }}
        />
      )}
    </Block>
  );
}

const INPUT_WORDS: Readonly<Record<InputKind, string>> = {
  text: 'Any text',
  email: 'An e-mail address',
  password: 'A password',
  search: 'A search',
  number: 'A number',
  date: 'A date',
  tel: 'A telephone number',
  url: 'A web address',
  multiline: 'Several lines',
};
