import {
  all,
  derivedVariables,
  hostOf,
  knownVariables,
  labelOf,
  findElement,
  putVariable,
  screenName,
  uniqueName,
  usesOfVariable,
  type Variable,
  type VariableUse,
  variableNames,
} from '@tovel/core';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import { ExpressionField } from './ExpressionField';
import { SeenColumn } from './middle';

const Column = styled(SeenColumn)`
  table {
    margin: 6px 18px 160px;
  }
  th {
    padding: 8px 14px 5px 0;
    text-align: left;
    font-size: 12.5px;
    border-bottom: 1px solid ${color.ink};
  }
  td {
    vertical-align: top;
    padding-top: 8px;
  }
  td p {
    padding: 6px 0;
  }
  th:first-child {
    width: 20%;
  }
  th:nth-child(2) {
    width: 136px;
  }
  th:nth-child(3) {
    width: 26%;
  }
  th:nth-child(4) {
    width: 160px;
  }
  th:last-child {
    width: 84px;
  }
  td small {
    display: block;
    padding-top: 2px;
  }
  /* Quiet buttons stand where the fields begin. */
  td:nth-child(3) > button {
    margin-left: -11px;
  }
  td ul {
    display: grid;
    gap: 2px;
    padding: 6px 0;
  }
`;

const Nothing = styled.div`
  display: grid;
  gap: 10px;
  max-width: 56ch;
  margin: 34px 18px;
  p {
    color: ${color.ink2};
  }
`;

const TYPES = [
  { id: 'yes-no', label: 'yes or no' },
  { id: 'number', label: 'a number' },
  { id: 'text', label: 'a text' },
  { id: 'date', label: 'a date' },
  { id: 'one-of', label: 'one of some' },
] as const;
type TypeId = (typeof TYPES)[number]['id'];

const KEPT = [
  { id: 'tab', label: 'while it is open' },
  { id: 'device', label: 'on the device' },
  { id: 'address', label: 'in the address' },
  { id: 'screen', label: 'on its screen' },
] as const;

const FIRST: Readonly<Record<TypeId, Pick<Variable, 'type' | 'initial' | 'choices'>>> = {
  'yes-no': { initial: false },
  number: { type: 'number', initial: 0 },
  text: { type: 'text', initial: '' },
  date: { type: 'date', initial: '' },
  'one-of': { type: 'one-of', initial: 'one', choices: ['one', 'another'] },
};

/** What the app remembers beside its records: what each is at first or always, for how long, and where it is spoken of. */
export function VariablesShown({ canChange }: { canChange: boolean }) {
  const { app } = useProject();
  const [isAdding, setAdding] = useState(false);
  const ids = Object.keys(app.variables).sort((a, b) =>
    app.variables[a].name < app.variables[b].name ? -1 : 1,
  );
  const { problems } = derivedVariables(app);
  return (
    <Column aria-label="Variables">
      <header>
        <p>
          What the app remembers beside its records. What a press sets is said at Junction (
          <code>Chosen: one more</code>); texts, conditions and guards look at it by its name in code.
        </p>
        {canChange && !isAdding && (
          <Button $kind={ids.length ? undefined : 'primary'} onPress={() => setAdding(true)}>
            Add a variable
          </Button>
        )}
      </header>
      {isAdding && <NewVariable onDone={() => setAdding(false)} />}
      {ids.length > 0 ? (
        <table>
          <thead>
            <tr>
              <th>Name</th>
              <th>Is</th>
              <th>At first, or always</th>
              <th>Kept</th>
              <th>Spoken of</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {ids.map((id) => (
              <VariableRow key={id} id={id} canChange={canChange} problem={problems.get(id)} />
            ))}
          </tbody>
        </table>
      ) : (
        !isAdding && (
          <Nothing>
            <b>The app remembers nothing yet.</b>
            <p>
              Whether one is signed in, how many are chosen, whether a list is seen as rows or as cards: such
              things are variables. What presses set, and what texts and links depend on, speaks of them.
            </p>
          </Nothing>
        )
      )}
    </Column>
  );
}

function NewVariable({ onDone }: { onDone: () => void }) {
  const { app, session } = useProject();
  const [name, setName] = useState('');
  const [type, setType] = useState<TypeId>('yes-no');
  const isTaken = Object.values(app.variables).some(
    (one) => one.name.toLowerCase() === name.trim().toLowerCase(),
  );
  const make = (): void => {
    if (!name.trim() || isTaken) return;
    const id = uniqueName('v', (candidate) => !!app.variables[candidate]);
    session.change(`Remember ${name.trim()}`, putVariable(id, { name: name.trim(), ...FIRST[type] }));
    onDone();
  };
  return (
    <Adding role="group" aria-label="A new variable">
      <Field
        label="Name"
        autoFocus
        value={name}
        onChange={setName}
        placeholder="How many are chosen"
        problem={isTaken ? 'There is one of that name.' : null}
        onKeyDown={(event) => {
          if (event.key === 'Enter') make();
          if (event.key === 'Escape') onDone();
        }}
      />
      <Choice label="Is" value={type} options={TYPES} onChange={setType} />
      <Button $kind="primary" onPress={make} isDisabled={!name.trim() || isTaken}>
        Add it
      </Button>
      <Button $kind="quiet" onPress={onDone}>
        Cancel
      </Button>
    </Adding>
  );
}

const Adding = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 260px) 150px auto auto 1fr;
  gap: 10px;
  align-items: end;
  padding: 12px 18px;
  border-bottom: 1px solid ${color.rule};
  background: ${color.side};
`;

function VariableRow({ id, canChange, problem }: { id: string; canChange: boolean; problem?: string }) {
  const project = useProject();
  const { app, session } = project;
  const variable = app.variables[id];
  const { name, type = 'yes-no', kept, says } = variable;
  const uses = usesOfVariable(app, id);
  const code = variableNames(app).get(id);
  const save = (label: string, next: Partial<Variable>): void =>
    session.change(label, putVariable(id, withoutGaps({ ...variable, ...next })));
  if (!canChange)
    return (
      <tr>
        <td>
          {name} <small>{code}</small>
        </td>
        <td>{TYPES.find((one) => one.id === type)!.label}</td>
        <td>{says === undefined ? String(variable.initial) : <code>{says}</code>}</td>
        <td>{says === undefined ? KEPT.find((one) => one.id === (kept ?? 'tab'))!.label : ''}</td>
        <td>
          <Uses uses={uses} />
        </td>
        <td />
      </tr>
    );
  return (
    <tr aria-label={name}>
      <td>
        <SavedField
          label={`Name of ${name}`}
          isLabelHidden
          value={name}
          problemOf={(text) => (text.trim() ? null : 'A name')}
          onSave={(text) => save(`Call ${name} ${text.trim()}`, { name: text.trim() })}
        />
        <small>{code} in code</small>
      </td>
      <td>
        <Choice
          label={`What ${name} is`}
          isLabelHidden
          value={type}
          options={TYPES}
          onChange={(next) =>
            next !== type &&
            save(`${name} is ${TYPES.find((one) => one.id === next)!.label}`, {
              type: undefined,
              choices: undefined,
              says: undefined,
              ...FIRST[next],
            })
          }
        />
      </td>
      <td>
        <AtFirst variable={variable} save={save} problem={problem} id={id} />
      </td>
      <td>
        {says === undefined && (
          <Choice
            label={`How long ${name} is kept`}
            isLabelHidden
            value={kept ?? 'tab'}
            options={KEPT}
            onChange={(next) =>
              save(`Keep ${name} ${KEPT.find((one) => one.id === next)!.label}`, {
                kept: next === 'tab' ? undefined : next,
              })
            }
          />
        )}
      </td>
      <td>
        <Uses uses={uses} />
      </td>
      <td>
        <Button
          $kind="quiet"
          aria-label={`Remove ${name}`}
          onPress={() => session.change(`Forget ${name}`, all([putVariable(id, null)]))}
        >
          Remove
        </Button>
      </td>
    </tr>
  );
}

interface AtFirstProps {
  readonly id: string;
  readonly variable: Variable;
  readonly problem?: string;
  readonly save: (label: string, next: Partial<Variable>) => void;
}

/** What a variable is when the app opens, or what it is worked out from. */
function AtFirst({ id, variable, problem, save }: AtFirstProps) {
  const { app } = useProject();
  const { name, type = 'yes-no', choices = [], initial, says } = variable;
  const [isWorking, setWorking] = useState(false);
  if (says !== undefined || isWorking) {
    const { [variableNames(app).get(id)!]: _self, ...variables } = knownVariables(app);
    return (
      <>
        <ExpressionField
          label={`What ${name} is worked out from`}
          value={says ?? ''}
          known={{ collections: {}, lists: {}, variables }}
          onSave={(source) => {
            setWorking(false);
            save(`${name} is ${source}`, { says: source, kept: undefined });
          }}
        />
        {problem && <small role="status">{problem}</small>}
        <Button
          $kind="quiet"
          onPress={() =>
            says === undefined ? setWorking(false) : save(`Set ${name} by hand`, { says: undefined })
          }
        >
          Set by presses instead
        </Button>
      </>
    );
  }
  const working = (
    <Button $kind="quiet" onPress={() => setWorking(true)}>
      Work it out …
    </Button>
  );
  if (type === 'yes-no')
    return (
      <>
        <Choice
          label={`What ${name} is at first`}
          isLabelHidden
          value={initial === true ? 'yes' : 'no'}
          options={[
            { id: 'yes', label: 'yes' },
            { id: 'no', label: 'no' },
          ]}
          onChange={(next) => save(`${name} is ${next} at first`, { initial: next === 'yes' })}
        />
        {working}
      </>
    );
  if (type === 'one-of')
    return (
      <>
        <SavedField
          label={`What ${name} can be`}
          isLabelHidden
          value={choices.join(', ')}
          problemOf={(text) => (namesIn(text).length ? null : 'One or more, parted by commas')}
          onSave={(text) => {
            const next = namesIn(text);
            save(`${name} is one of ${next.join(', ')}`, { choices: next, initial: next[0] });
          }}
        />
        <small>parted by commas; the first is what it is at first</small>
        {working}
      </>
    );
  return (
    <>
      <SavedField
        label={`What ${name} is at first`}
        isLabelHidden
        value={String(initial)}
        placeholder={type === 'date' ? '2026-03-01' : 'nothing'}
        problemOf={(text) => wrongAtFirst(type, text)}
        onSave={(text) =>
          save(`${name} is ${text || 'nothing'} at first`, {
            initial: type === 'number' ? Number(text) : text,
          })
        }
      />
      {working}
    </>
  );
}

const namesIn = (text: string): string[] => [
  ...new Set(
    text
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean),
  ),
];

const wrongAtFirst = (type: TypeId, text: string): string | null =>
  type === 'number' && (text.trim() === '' || !Number.isFinite(Number(text)))
    ? 'A number, for instance 3'
    : type === 'date' && !/^(\d{4}-\d{2}-\d{2})?$/.test(text)
      ? 'A date, for instance 2026-03-01'
      : null;

/** A variable without the fields that say nothing. */
const withoutGaps = (variable: Variable): Variable =>
  Object.fromEntries(
    Object.entries(variable).filter(([, value]) => value !== undefined),
  ) as unknown as Variable;

const WORDS = { sets: 'set by', looks: 'looked at by', shows: 'shown by' } as const;

/** Where a variable is spoken of, each a way there. */
function Uses({ uses }: { uses: readonly VariableUse[] }) {
  const project = useProject();
  const { app, design, base } = project;
  if (!uses.length) return <p>nowhere yet</p>;
  const shown = uses.slice(0, MOST_USES);
  return (
    <ul>
      {shown.map((use, i) => {
        if (use.what === 'derives') return <li key={i}>looked at by {app.variables[use.variable].name}</li>;
        if (use.what === 'guards')
          return (
            <li key={i}>
              guards <Link to={`${base}/junction/${use.screen}`}>{screenName(project, use.screen)}</Link>
            </li>
          );
        const screen = hostOf(project, use.element);
        const element = findElement(design, use.element);
        return (
          <li key={i}>
            {WORDS[use.what]}{' '}
            <Link to={`${base}/junction/${screen}?element=${encodeURIComponent(use.element)}`}>
              {element ? labelOf(element) : 'the screen'}
            </Link>{' '}
            <small>{screenName(project, screen)}</small>
          </li>
        );
      })}
      {uses.length > shown.length && <li>and {uses.length - shown.length} more places</li>}
    </ul>
  );
}

const MOST_USES = 5;
