import { drawnRecords, type Value, type Variable, valuesOfVariables, variableNames } from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Choice } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import type { Remembered } from './use_remembered';
import { saidValue } from './use_tape';

const List = styled.div`
  display: grid;
  gap: 8px;
  label:has(input[type='checkbox']) {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 12.5px;
    cursor: pointer;
  }
  p {
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  small {
    color: ${color.ink2};
  }
`;

interface VariableFieldsProps {
  readonly remembered: Pick<Remembered, 'variables' | 'query'>;
  readonly tell: (message: object) => void;
}

/** What each variable of the running app is now; what is not worked out is set here. */
export function VariableFields({ remembered: { variables, query }, tell }: VariableFieldsProps) {
  const { app, design } = useProject();
  const names = [...variableNames(app)];
  const records = drawnRecords({ app, design });
  const asked = new URLSearchParams(query);
  const now = valuesOfVariables(
    app,
    new Map(
      names.flatMap(([id, name]): [string, Value][] => {
        const { kept } = app.variables[id];
        const said = kept === 'address' ? askedFor(app.variables[id], asked.get(name)) : variables[name];
        return said === undefined ? [] : [[id, said]];
      }),
    ),
    records,
  );
  if (!names.length)
    return <p>Nothing is remembered yet. What pressing something changes is said at Data, Variables.</p>;
  return (
    <List>
      {names.map(([id, name]) => {
        const { kept } = app.variables[id];
        return (
          <VariableField
            key={id}
            variable={app.variables[id]}
            value={now[name]}
            ids={(records[app.collections[app.variables[id].of ?? '']?.name] ?? []).map((one) => one.id)}
            onSet={(value) => tell({ tovel: 'set', name, value, ...(kept ? { kept } : {}) })}
          />
        );
      })}
    </List>
  );
}

function VariableField({
  variable: { name, type = 'yes-no', choices = [], says, kept },
  value,
  ids,
  onSet,
}: {
  variable: Variable;
  value: Value;
  /** Of a record: by what those of its collection are known. */
  ids: readonly string[];
  onSet: (value: boolean | number | string | readonly string[]) => void;
}) {
  // What belongs to a screen begins anew when the page is loaded, as setting it here does.
  if (says !== undefined || kept === 'screen')
    return (
      <p>
        {name}: <b>{saidValue(value)}</b>{' '}
        <small>{says === undefined ? 'as long as the screen is shown' : 'worked out'}</small>
      </p>
    );
  if (type === 'yes-no')
    return (
      <label>
        <input type="checkbox" checked={value === true} onChange={({ target }) => onSet(target.checked)} />
        {name}
      </label>
    );
  if (type === 'one-of')
    return (
      <Choice
        label={name}
        value={String(value)}
        options={choices.map((id) => ({ id, label: id }))}
        onChange={onSet}
      />
    );
  if (type === 'record')
    return (
      <Choice
        label={name}
        value={String(value ?? '') || NONE}
        options={[{ id: NONE, label: 'none' }, ...ids.map((id) => ({ id, label: id }))]}
        onChange={(id) => onSet(id === NONE ? '' : id)}
      />
    );
  if (type === 'list')
    return (
      <SavedField
        label={name}
        value={Array.isArray(value) ? value.join(', ') : ''}
        placeholder="nothing"
        onSave={(text) => onSet(partsIn(text))}
      />
    );
  return (
    <SavedField
      label={name}
      value={String(value ?? '')}
      problemOf={(text) =>
        type === 'number' && !isNumber(text)
          ? 'A number, for instance 3'
          : type === 'date' && !/^(\d{4}-\d{2}-\d{2})?$/.test(text)
            ? 'A date, for instance 2026-03-01'
            : null
      }
      onSave={(text) => onSet(type === 'number' ? Number(text) : text)}
    />
  );
}

/** Stands for no record. */
const NONE = ' ';

const partsIn = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean);

const isNumber = (text: string): boolean => text.trim() !== '' && Number.isFinite(Number(text));

/** What an address asks for, as a value of the variable; nothing where it says nothing. */
function askedFor({ type = 'yes-no' }: Variable, text: string | null): Value {
  if (text === null) return undefined;
  if (type === 'yes-no') return text === 'true';
  if (type === 'list') return partsIn(text);
  return type === 'number' && isNumber(text) ? Number(text) : text;
}
