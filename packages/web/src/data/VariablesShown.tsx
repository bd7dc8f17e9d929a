import { derivedVariables, putVariable, uniqueName } from '@tovel/core';
import { useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { SeenTableColumn } from './middle';
import { FIRST, type TypeId, typesIn } from './variable_words';
import { VariableRow } from './VariableRow';

const Column = styled(SeenTableColumn)`
  td {
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
    session.change(
      `Remember ${name.trim()}`,
      putVariable(id, {
        name: name.trim(),
        ...FIRST[type],
        ...(type === 'record' ? { of: Object.keys(app.collections)[0] } : {}),
      }),
    );
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
      <Choice label="Is" value={type} options={typesIn(app)} onChange={setType} />
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
