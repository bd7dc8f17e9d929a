import {
  type Collection,
  csvOf,
  type DataRecord,
  jsonOf,
  putCollection,
  recordSchema,
  tableOf,
} from '@tovel/core';
import { useProject } from '../project/context';
import { ActionMenu } from '../ui/ActionMenu';
import { Button } from '../ui/controls';
import { counted } from '../ui/counted';
import { saveFile } from '../ui/save_file';
import type { Shown } from './CollectionShown';
import { ComesFrom, withBehind } from './ComesFrom';
import { Head } from './middle';

interface CollectionHeadProps {
  shown: Shown;
  records: readonly DataRecord[];
  onAddRecord: () => void;
  onAddField: () => void;
  onPaste: () => void;
  onTake: () => void;
  onRefuse: () => void;
}

/** What a collection is called, where it is from, and what can be done with it as a whole. */
export function CollectionHead({
  shown: { id, collection, proposal },
  records,
  onAddRecord,
  onAddField,
  onPaste,
  onTake,
  onRefuse,
}: CollectionHeadProps) {
  const { session, past } = useProject();
  const lists = new Set(collection.rows.map(({ within }) => within)).size;
  const canChange = !proposal && past === null;
  return (
    <Head>
      <h3>{collection.name}</h3>
      {proposal && past === null ? (
        <div>
          <Button $kind="primary" onPress={onTake} aria-keyshortcuts="Enter">
            Take it
          </Button>
          <Button onPress={onRefuse} aria-keyshortcuts="Backspace">
            Refuse
          </Button>
        </div>
      ) : (
        <div>
          {canChange && <Button onPress={onAddRecord}>Add a record</Button>}
          {canChange && <Button onPress={onAddField}>Add a field</Button>}
          {canChange && <Button onPress={onPaste}>Paste values …</Button>}
          <SaveAs collection={collection} records={records} />
          {canChange && (
            <Button
              $kind="quiet"
              onPress={() => session.change(`Give ${collection.name} up`, putCollection(id, null))}
            >
              Give it up
            </Button>
          )}
        </div>
      )}
      {!proposal && (
        <ComesFrom
          collection={collection}
          {...(canChange
            ? {
                onChange: (behind, words) =>
                  session.change(words, putCollection(id, withBehind(collection, behind))),
              }
            : {})}
        />
      )}
      <p>
        {proposal
          ? `${Math.round(proposal.confidence * 100)} % sure: ${proposal.reason}.`
          : `${counted(records.length, 'record')}${lists === 0 ? ', which no list was drawn of' : ` from ${lists === 1 ? 'one list' : `${lists} lists`}`}. Enter or typing writes a text anew, wherever it is shown.`}
      </p>
    </Head>
  );
}

/** The records as a file, or what one of them is like. */
function SaveAs({ collection, records }: { collection: Collection; records: readonly DataRecord[] }) {
  const table = (): string[][] => tableOf(collection, records);
  return (
    <ActionMenu
      label="Save as"
      actions={[
        {
          id: 'csv',
          label: 'CSV',
          act: () => saveFile(collection.name, '.csv', 'text/csv', csvOf(table())),
        },
        {
          id: 'json',
          label: 'JSON',
          act: () => {
            const types = collection.fields.map(({ type }) => type);
            saveFile(collection.name, '.json', 'application/json', jsonOf(table(), types));
          },
        },
        {
          id: 'schema',
          label: 'JSON Schema of a record',
          act: () =>
            saveFile(
              collection.name,
              '.schema.json',
              'application/schema+json',
              `${JSON.stringify(recordSchema(collection), null, 2)}\n`,
            ),
        },
      ]}
    />
  );
}
