import { variableNames } from '@tovel/core';
import styled from 'styled-components';
import { SideColumn } from '../ui/SideColumn';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import type { Changed, Remembered, RequestSeen } from './use_remembered';
import { saidValue } from './use_tape';
import { VariableFields } from './VariableFields';

const Changes = styled.ol`
  display: grid;
  li {
    padding: 7px 0;
    border-bottom: 1px solid ${color.rule};
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    color: ${color.ink2};
  }
`;

const WORDS = { added: 'Added to', removed: 'Removed from', changed: 'Changed in' } as const;

const wordsOf = (change: Changed, nameOf: (variable: string) => string): string =>
  'request' in change
    ? `${change.request.method} ${change.request.path}`
    : 'variable' in change
      ? `${nameOf(change.variable)}: ${saidValue(change.is)}`
      : `${WORDS[change.did]} ${change.collection}`;

const answerOf = ({ operation, status, ms }: RequestSeen): string =>
  [operation, status === 0 ? 'no answer' : String(status), `${ms} ms`].filter(Boolean).join(' · ');

/** How described APIs are tried in the running app. */
const TRIED = [
  { id: 'usual', label: 'as usual' },
  { id: 'slow', label: 'slow: 3 seconds' },
  { id: 'failing', label: 'failing' },
  { id: 'empty', label: 'empty' },
  { id: 'signed-out', label: 'signed out' },
] as const;

/** What the running app remembers: variables, to be set here, and what became of its records, the newest first. */
export function StatePanel({
  remembered: { variables, query, tried, changes, forget },
  tell,
}: {
  remembered: Remembered;
  tell: (message: object) => void;
}) {
  const project = useProject();
  const { app } = project;
  const names = variableNames(app);
  const nameOf = (variable: string): string => {
    const [id] = [...names].find(([, name]) => name === variable) ?? [];
    return id === undefined ? variable : app.variables[id].name;
  };
  return (
    <SideColumn aria-label="What the app remembers">
      <h3>Variables</h3>
      <VariableFields remembered={{ variables, query }} tell={tell} />
      {Object.values(app.collections).some(({ behind }) => behind) && (
        <>
          <h3>Described APIs</h3>
          <Choice
            label="They answer"
            value={tried}
            options={TRIED}
            onChange={(name) => tell({ tovel: 'try', name })}
          />
        </>
      )}
      <h3>What happened</h3>
      {changes.length ? (
        <Changes aria-label="What happened, the newest first">
          {changes.map(({ number, change, by }) => (
            <li key={number}>
              {wordsOf(change, nameOf)}
              {'says' in change && <small>{change.says}</small>}
              {'request' in change && <small>{answerOf(change.request)}</small>}
              {by && <small>after “{by}”</small>}
            </li>
          ))}
        </Changes>
      ) : (
        <p>What forms add, what rows lose and what becomes true stands here as it happens.</p>
      )}
      <Button
        onPress={() => {
          tell({ tovel: 'set-back' });
          forget();
        }}
      >
        Set everything back
      </Button>
    </SideColumn>
  );
}
