import {
  conditionsOf,
  describeWhen,
  type Gesture,
  GESTURES,
  type Interaction,
  putVariable,
  type Side,
  uniqueName,
} from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';
import { Button, Choice, Field } from '../ui/controls';
import { Milliseconds } from './ArrivalFields';
import { SavedField } from '../ui/SavedField';

const WORDS: Readonly<Record<Gesture, string>> = {
  press: 'press',
  'double-press': 'double press',
  'long-press': 'long press',
  submit: 'submit',
  change: 'change',
  hover: 'hover',
  key: 'a key',
  swipe: 'a swipe',
  after: 'after a time',
  load: 'on load',
};
const gestures = GESTURES.map((id) => ({ id, label: WORDS[id] }));
const SIDES: readonly { id: Side; label: string }[] = [
  { id: 'left', label: 'to the left' },
  { id: 'right', label: 'to the right' },
  { id: 'top', label: 'upwards' },
  { id: 'bottom', label: 'downwards' },
];

interface WhenProps {
  interaction: Interaction;
  onChange: (interaction: Interaction) => void;
}

/** On which gesture, and under which condition. */
export function WhenFields({ interaction, onChange }: WhenProps) {
  const { on } = interaction;
  const take = (gesture: Gesture): void => {
    const { key: _key, side: _side, ms: _ms, ...rest } = interaction;
    onChange({
      ...rest,
      on: gesture,
      ...(gesture === 'key' ? { key: 'Enter' } : {}),
      ...(gesture === 'swipe' ? { side: 'left' } : {}),
      ...(gesture === 'after' ? { ms: 3000 } : {}),
    });
  };
  return (
    <>
      <Choice label="On" value={on} options={gestures} onChange={(next) => next !== on && take(next)} />
      {on === 'key' && (
        <SavedField
          label="Which key"
          value={interaction.key ?? ''}
          problemOf={(text) => (text.trim() ? null : 'A key, for instance Escape')}
          onSave={(key) => onChange({ ...interaction, key: key.trim() })}
        />
      )}
      {on === 'swipe' && (
        <Choice
          label="Which way"
          value={interaction.side ?? 'left'}
          options={SIDES}
          onChange={(side) => onChange({ ...interaction, side })}
        />
      )}
      {on === 'after' && (
        <Milliseconds
          label="Milliseconds until then"
          most={3_600_000}
          value={interaction.ms ?? 0}
          onChange={(ms) => onChange({ ...interaction, ms })}
        />
      )}
      <ConditionField interaction={interaction} onChange={onChange} />
    </>
  );
}

const NEW = 'new';
const ALWAYS = 'always';

function ConditionField({ interaction, onChange }: WhenProps) {
  const { app } = useProject();
  const { when } = interaction;
  const [isNaming, setNaming] = useState(false);
  const options = [
    { id: ALWAYS, label: 'always' },
    ...conditionsOf(app).flatMap((condition) =>
      [true, false].map((is) => ({
        id: `${condition} ${is}`,
        label: describeWhen(app.variables, { condition, is }),
      })),
    ),
    { id: NEW, label: 'a new condition …' },
  ];
  const value = when ? `${when.condition} ${when.is}` : ALWAYS;
  if (isNaming)
    return (
      <NewCondition
        onDone={(condition) => {
          setNaming(false);
          if (condition) onChange({ ...interaction, when: { condition, is: true } });
        }}
      />
    );
  return (
    <Choice
      label="Only"
      value={options.some(({ id }) => id === value) ? value : ALWAYS}
      options={options}
      onChange={(next) => {
        if (next === NEW) return setNaming(true);
        const { when: _when, ...rest } = interaction;
        const [condition, is] = next.split(' ');
        onChange(next === ALWAYS ? rest : { ...rest, when: { condition, is: is === 'true' } });
      }}
    />
  );
}

/** Names a condition that there is not yet; it does not hold when the app opens. */
export function NewCondition({ onDone }: { onDone: (condition: string | null) => void }) {
  const { app, session } = useProject();
  const [name, setName] = useState('');
  const isTaken = Object.values(app.variables).some(
    (one) => one.name.toLowerCase() === name.trim().toLowerCase(),
  );
  const make = (): void => {
    if (!name.trim() || isTaken) return;
    const id = uniqueName('c', (candidate) => !!app.variables[candidate]);
    session.change(`Say whether ${name.trim()}`, putVariable(id, { name: name.trim(), initial: false }));
    onDone(id);
  };
  return (
    <div style={{ display: 'flex', gap: 6, alignItems: 'end', gridColumn: 'span 2' }}>
      <Field
        label="What must be so"
        autoFocus
        value={name}
        onChange={setName}
        placeholder="Signed in"
        problem={isTaken ? 'There is one of that name.' : null}
        onKeyDown={(event) => {
          if (event.key === 'Enter') make();
          if (event.key === 'Escape') onDone(null);
        }}
      />
      <Button onPress={make} isDisabled={!name.trim() || isTaken}>
        Make it
      </Button>
      <Button $kind="quiet" onPress={() => onDone(null)}>
        Cancel
      </Button>
    </div>
  );
}
