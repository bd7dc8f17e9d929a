import {
  type Collection,
  type CollectionProposal,
  putCollection,
  recordsOf,
  renameCollection,
  renameField,
  sayInCollection,
  uniqueName,
  withoutRecord,
  withRecord,
} from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';
import { CollectionHead } from './CollectionHead';
import { propertiesFor, withBehind } from './ComesFrom';
import type { At } from './grid_keys';
import { RecordDetails } from './RecordDetails';
import { Middle } from './middle';
import { RecordGrid, titleOf } from './RecordGrid';

/** A collection that is shown: taken, or as it would be. */
export interface Shown {
  readonly id: string;
  readonly collection: Collection;
  readonly proposal: CollectionProposal | null;
}

interface CollectionShownProps {
  readonly shown: Shown;
  readonly at: At;
  readonly onAt: (at: At) => void;
  readonly onPaste: () => void;
  readonly onTake: () => void;
  readonly onRefuse: () => void;
}

/** The records of one collection, and where the one that one is at is shown. */
export function CollectionShown({ shown, at, onAt, onPaste, onTake, onRefuse }: CollectionShownProps) {
  const { app, design, session, past } = useProject();
  const { id, collection, proposal } = shown;
  const records = recordsOf(design, collection);
  const here = {
    row: Math.min(at.row, Math.max(0, records.length - 1)),
    column: Math.min(at.column, collection.fields.length - 1),
  };
  const canChange = !proposal && past === null;
  const [focus, setFocus] = useState(0);
  const addRecord = (): void => {
    session.change(`Add a record to ${collection.name}`, putCollection(id, withRecord(collection)));
    onAt({ row: records.length, column: 0 });
    setFocus(focus + 1);
  };
  const addField = (): void => {
    const name = uniqueName('field', (one) => collection.fields.some((field) => field.name === one), '');
    session.change(
      `Add a field to ${collection.name}`,
      putCollection(id, { ...collection, fields: [...collection.fields, { name, type: 'text' }] }),
    );
    onAt({ row: here.row, column: collection.fields.length });
    setFocus(focus + 1);
  };
  return (
    <>
      <Middle aria-label={collection.name}>
        <CollectionHead
          shown={shown}
          records={records}
          onAddRecord={addRecord}
          onAddField={addField}
          onPaste={onPaste}
          onTake={onTake}
          onRefuse={onRefuse}
        />
        <RecordGrid
          collection={collection}
          records={records}
          at={here}
          onAt={onAt}
          focus={focus}
          onRemove={
            canChange
              ? (record) =>
                  session.change(
                    `Remove ${titleOf(design, record, collection)}`,
                    putCollection(id, withoutRecord(collection, record)),
                  )
              : undefined
          }
          onSay={
            canChange
              ? (record, field, text) => {
                  const change = sayInCollection(id, collection, record, field.name, text);
                  if (change)
                    session.change(
                      `${titleOf(design, record, collection)}: ${field.name} is “${text}”`,
                      change,
                    );
                }
              : undefined
          }
        />
      </Middle>
      <RecordDetails
        id={id}
        properties={propertiesFor(app, collection)}
        onProperty={
          canChange && collection.behind
            ? (property) => {
                const { name } = collection.fields[here.column];
                const { [name]: _before, ...others } = collection.behind!.fields;
                const fields = property === null ? others : { ...others, [name]: property };
                session.change(
                  property === null ? `${name} comes from nowhere` : `${name} is ${property} of the API`,
                  putCollection(id, withBehind(collection, { ...collection.behind!, fields })),
                );
              }
            : undefined
        }
        collection={collection}
        onName={
          canChange
            ? (name) =>
                session.change(
                  `Rename ${collection.name} to ${name}`,
                  renameCollection({ design, app }, id, name),
                )
            : undefined
        }
        field={collection.fields[here.column]}
        record={records[here.row]}
        onField={
          canChange
            ? (field, words) =>
                session.change(
                  words,
                  renameField({ design, app }, id, collection.fields[here.column].name, field),
                )
            : undefined
        }
      />
    </>
  );
}
