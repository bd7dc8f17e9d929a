import { type Collection, type DataRecord, hostOf, type RecordField, screenName } from '@tovel/core';
import { Link } from 'react-router';
import { useProject } from '../project/context';
import { PlacePicture } from '../repeats/PlacePicture';
import { Choice } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import { FieldRules, RefersTo } from './FieldRules';
import { titleOf, TYPE_WORDS } from './RecordGrid';
import { SideColumn } from '../ui/SideColumn';

/** Stands for no property. */
const NOWHERE = ' ';
const TYPES = Object.entries(TYPE_WORDS).map(([id, label]) => ({ id, label }));

interface RecordDetailsProps {
  readonly id: string;
  readonly collection: Collection;
  readonly field: RecordField;
  readonly record: DataRecord | undefined;
  /** Calls the collection otherwise; not there where nothing can be changed. */
  readonly onName?: (name: string) => void;
  /** Not there where nothing can be changed. */
  readonly onField?: (field: RecordField, words: string) => void;
  /** What the API calls the properties of a record; none where the records are kept in the app. */
  readonly properties: readonly string[];
  readonly onProperty?: (property: string | null) => void;
}

/** The field and the record that one is at: what it is, and where the screens show it. */
export function RecordDetails({
  id,
  collection,
  field,
  record,
  onName,
  onField,
  properties,
  onProperty,
}: RecordDetailsProps) {
  const project = useProject();
  const taken = new Set(collection.fields.filter((one) => one !== field).map(({ name }) => name));
  const others = new Set(
    Object.entries(project.app.collections).flatMap(([one, { name }]) => (one === id ? [] : [name])),
  );
  const problemIn =
    (names: ReadonlySet<string>, what: string) =>
    (name: string): string | null =>
      !/^[a-z]\w*$/i.test(name)
        ? 'Letters and digits, a letter first.'
        : names.has(name)
          ? `Another ${what} is called so.`
          : null;
  return (
    <SideColumn aria-label="Field and record">
      {onName && (
        <>
          <h3>Collection</h3>
          <SavedField
            key={collection.name}
            label="What it is called in code"
            isCode
            value={collection.name}
            problemOf={problemIn(others, 'collection')}
            onSave={onName}
          />
        </>
      )}
      <h3>Field</h3>
      {onField ? (
        <>
          <SavedField
            key={field.name}
            label="Name in code"
            isCode
            value={field.name}
            problemOf={problemIn(taken, 'field')}
            onSave={(name) => onField({ ...field, name }, `Rename ${field.name} to ${name}`)}
          />
          <Choice
            label="Type"
            value={field.type}
            options={TYPES}
            onChange={(type) =>
              onField(
                { ...field, type: type as RecordField['type'] },
                `${field.name} is ${TYPE_WORDS[type as RecordField['type']]}`,
              )
            }
          />
          {field.type !== 'picture' && <FieldRules field={field} onField={onField} />}
          <RefersTo id={id} collection={collection} field={field} onField={onField} />
        </>
      ) : (
        <p>
          <code>{field.name}</code>, {TYPE_WORDS[field.type]}
          {field.required && ', required'}
        </p>
      )}
      {collection.behind && (
        <Choice
          label="Called by the API"
          value={collection.behind.fields[field.name] ?? NOWHERE}
          options={[
            { id: NOWHERE, label: 'nothing: it stays empty' },
            ...properties.map((one) => ({ id: one, label: one })),
          ]}
          isDisabled={!onProperty}
          onChange={(one) => onProperty?.(one === NOWHERE ? null : one)}
        />
      )}
      {field.choices && <p>{field.choices.join(' · ')}</p>}
      {record && (
        <>
          <h3>{titleOf(project.design, record, collection)}</h3>
          <p>
            {record.rows.length === 0
              ? 'No screen shows it as it is drawn; lists whose records change do. Delete removes it.'
              : record.rows.length === 1
                ? 'Shown in one place. What is written here is written there.'
                : `Shown in ${record.rows.length} places. What is written here is written in all that say the same.`}
          </p>
          <ul>
            {record.rows.map(({ element }) => {
              const screen = hostOf(project, element);
              return (
                <li key={element}>
                  <PlacePicture element={element} width={250} height={120} least={0.6} />
                  <Link to={`${project.base}/screens/at/${screen}?element=${encodeURIComponent(element)}`}>
                    {screenName(project, screen)}
                  </Link>
                </li>
              );
            })}
          </ul>
        </>
      )}
    </SideColumn>
  );
}
