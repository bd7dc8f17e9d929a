import {
  all,
  knownAnywhere,
  putVariable,
  renameVariable,
  usesOfVariable,
  type Variable,
  variableNames,
} from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';
import { Button, Choice } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import { ExpressionField } from './ExpressionField';
import { FIRST, KEPT, type TypeId, TYPES, typesIn } from './variable_words';
import { VariableUses } from './VariableUses';

/** A variable: its name, what it is at first or always, for how long it is kept, and where it is spoken of. */
export function VariableRow({
  id,
  canChange,
  problem,
}: {
  id: string;
  canChange: boolean;
  problem?: string;
}) {
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
          <VariableUses uses={uses} />
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
          onSave={(text) =>
            session.change(`Call ${name} ${text.trim()}`, renameVariable(project, id, text.trim()))
          }
        />
        <small>{code} in code</small>
      </td>
      <td>
        <Choice
          label={`What ${name} is`}
          isLabelHidden
          value={type}
          options={typesIn(app)}
          onChange={(next) =>
            next !== type &&
            save(`${name} is ${TYPES.find((one) => one.id === next)!.label}`, {
              type: undefined,
              choices: undefined,
              says: undefined,
              of: next === 'record' ? Object.keys(app.collections)[0] : undefined,
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
        <VariableUses uses={uses} />
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
    const known = knownAnywhere(app);
    const { [variableNames(app).get(id)!]: _self, ...variables } = known.variables;
    return (
      <>
        <ExpressionField
          label={`What ${name} is worked out from`}
          value={says ?? ''}
          known={{ ...known, variables }}
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
  if (type === 'record')
    return (
      <>
        <Choice
          label={`Of what ${name} is one`}
          isLabelHidden
          value={variable.of ?? ''}
          options={Object.entries(app.collections).map(([key, one]) => ({
            id: key,
            label: `of ${one.name}`,
          }))}
          onChange={(of) => save(`${name} is one of ${app.collections[of].name}`, { of })}
        />
        <small>none at first; a press sets it to that of its row or its screen</small>
        {working}
      </>
    );
  if (type === 'list')
    return (
      <>
        <SavedField
          label={`What ${name} holds at first`}
          isLabelHidden
          value={Array.isArray(initial) ? initial.join(', ') : ''}
          placeholder="nothing"
          onSave={(text) => {
            const next = namesIn(text);
            save(next.length ? `${name} holds ${next.join(', ')} at first` : `${name} is empty at first`, {
              initial: next,
            });
          }}
        />
        <small>parted by commas</small>
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
