import { type Collection, type RecordField, recordsOf, referenceFor, titleField } from '@tovel/core';
import { useProject } from '../project/context';
import { Check } from '../ui/Check';
import { Button, Choice } from '../ui/controls';
import { SavedField } from '../ui/SavedField';

interface FieldRulesProps {
  readonly field: RecordField;
  readonly onField: (field: RecordField, words: string) => void;
}

/** Whether each record needs the field, and what a new one says in it where nobody says. */
export function FieldRules({ field, onField }: FieldRulesProps) {
  const { name } = field;
  return (
    <>
      <Check
        label="Required"
        isOn={field.required ?? false}
        onChange={(isOn) => {
          const { required: _required, ...rest } = field;
          onField(isOn ? { ...rest, required: true } : rest, `${name} is ${isOn ? '' : 'not '}required`);
        }}
      />
      <SavedField
        key={`${name} by default`}
        label="In a new record, where nobody says"
        placeholder="nothing"
        value={field.byDefault ?? ''}
        problemOf={(text) =>
          text && field.type === 'one-of' && field.choices?.length && !field.choices.includes(text)
            ? `One of ${field.choices.join(', ')}`
            : null
        }
        onSave={(text) => {
          const { byDefault: _byDefault, ...rest } = field;
          onField(
            text ? { ...rest, byDefault: text } : rest,
            text ? `${name} is “${text}” in a new record` : `${name} is empty in a new record`,
          );
        }}
      />
    </>
  );
}

/** Stands for no collection. */
const NOTHING = ' ';

/** The collection whose records a field refers to by what they are called; what looks so is offered. */
export function RefersTo({
  id,
  collection,
  field,
  onField,
}: FieldRulesProps & { readonly id: string; readonly collection: Collection }) {
  const project = useProject();
  const { app, design } = project;
  const others = Object.entries(app.collections).filter(
    ([other, one]) => other !== id && titleField(design, one) !== undefined,
  );
  if (!others.length || field.type === 'picture' || titleField(design, collection)?.name === field.name)
    return null;
  const put = (of: string | null): void => {
    const { of: _of, ...rest } = field;
    onField(
      of === null ? rest : { ...rest, of },
      of === null ? `${field.name} refers to nothing` : `${field.name} refers to ${app.collections[of].name}`,
    );
  };
  const found = field.of === undefined ? referenceFor(project, id, field.name) : null;
  const other = field.of === undefined ? undefined : app.collections[field.of];
  const title = other && titleField(design, other)?.name;
  return (
    <>
      <Choice
        label="Refers to"
        value={field.of ?? NOTHING}
        options={[
          { id: NOTHING, label: 'nothing' },
          ...others.map(([other, { name }]) => ({ id: other, label: name })),
        ]}
        onChange={(next) => put(next === NOTHING ? null : next)}
      />
      {other && title !== undefined && (
        <p>
          It says the {title} of one of {recordsOf(design, other).length} {other.name}; expressions go on from
          there.
        </p>
      )}
      {found && (
        <>
          <p>
            {found.found} of the {found.values} things that it says are what {app.collections[found.of].name}{' '}
            are called.
          </p>
          <Button onPress={() => put(found.of)}>Let it refer to {app.collections[found.of].name}</Button>
        </>
      )}
    </>
  );
}
