import { expressionNames } from '@tovel/core';
import styled from 'styled-components';
import { SideColumn } from '../ui/SideColumn';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import type { Changed, Remembered } from './use_remembered';

const Conditions = styled.div`
  display: grid;
  gap: 6px;
  label {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 12.5px;
    cursor: pointer;
  }
`;

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

const wordsOf = (change: Changed, nameOf: (condition: string) => string): string =>
  'condition' in change
    ? `${nameOf(change.condition)}: ${change.is ? 'yes' : 'no'}`
    : `${WORDS[change.did]} ${change.collection}`;

/** What the running app remembers: conditions, to be set here, and what became of its records, the newest first. */
export function StatePanel({
  remembered: { conditions, changes, forget },
  tell,
}: {
  remembered: Remembered;
  tell: (message: object) => void;
}) {
  const project = useProject();
  const { app } = project;
  const names = expressionNames(project, '').conditions;
  const ids = Object.keys(app.conditions).sort();
  const nameOf = (condition: string): string =>
    app.conditions[ids[names.indexOf(condition)]]?.name ?? condition;
  return (
    <SideColumn aria-label="What the app remembers">
      <h3>Conditions</h3>
      {names.length ? (
        <Conditions>
          {names.map((name, i) => (
            <label key={name}>
              <input
                type="checkbox"
                checked={conditions[name] ?? app.conditions[ids[i]].initial}
                onChange={({ target }) => tell({ tovel: 'set', name, value: target.checked })}
              />
              {app.conditions[ids[i]].name}
            </label>
          ))}
        </Conditions>
      ) : (
        <p>Nothing in this app is true or not.</p>
      )}
      <h3>What happened</h3>
      {changes.length ? (
        <Changes aria-label="What happened, the newest first">
          {changes.map(({ number, change, by }) => (
            <li key={number}>
              {wordsOf(change, nameOf)}
              {'says' in change && <small>{change.says}</small>}
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
