import {
  all,
  type Collection,
  collectionProposalId,
  type CollectionProposal,
  csvOf,
  jsonOf,
  putCollection,
  putRefused,
  recordSchema,
  recordsOf,
  sayInRecord,
  tableOf,
  takenCollection,
  uniqueName,
  withField,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { StationBar, StationBody, StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { ActionMenu } from '../ui/ActionMenu';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { saveFile } from '../ui/save_file';
import { type DataItem, DataList } from './DataList';
import type { At } from './grid_keys';
import { RecordDetails } from './RecordDetails';
import { RecordGrid, titleOf } from './RecordGrid';
import { ControlsSeen, FormsSeen } from './SeenList';
import { TableSheet } from './TableSheet';
import { useData, useOpenCollections } from './use_data';

const Bar = styled(StationBar)`
  h2 {
    font-size: 15px;
  }
  > span {
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > :nth-child(2) {
    margin-right: auto;
  }
`;

/** Proposals from this on are taken together. */
const SURE = 0.8;

/** A collection that is shown: taken, or as it would be. */
interface Shown {
  readonly id: string;
  readonly collection: Collection;
  readonly proposal: CollectionProposal | null;
}

/** What stands behind the screens: records as the screens show them, forms, and what controls do. */
export function DataView() {
  const project = useProject();
  const { app, design, session, past } = project;
  const found = useData();
  const open = useOpenCollections(found);
  const [params, setParams] = useSearchParams();
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [isPasting, setPasting] = useState(false);
  const shown = useMemo(
    (): Shown[] => [
      ...Object.entries(app.collections)
        .map(([id, collection]): Shown => ({ id, collection, proposal: null }))
        .sort((a, b) => (a.collection.name < b.collection.name ? -1 : 1)),
      ...open.map((proposal): Shown => ({
        id: collectionProposalId(proposal),
        collection: takenCollection(proposal),
        proposal,
      })),
    ],
    [app.collections, open],
  );
  const items: DataItem[] = [
    ...shown.map(({ id, collection, proposal }): DataItem => ({
      id,
      group: proposal ? 'Proposed, the surest first' : 'Collections',
      name: collection.name,
      says: `${recordsOf(design, collection).length} records`,
      mark: proposal ? 'proposed' : 'taken',
    })),
    ...(found?.forms.length ? [seen('forms', 'Forms', found.forms.length)] : []),
    ...(found?.actions.length ? [seen('controls', 'Controls', found.actions.length)] : []),
  ];
  const wanted = params.get('at');
  const chosenId = items.some(({ id }) => id === wanted) ? wanted! : items[0]?.id;
  const chosen = shown.find(({ id }) => id === chosenId);
  const choose = (id: string): void => {
    setAt({ row: 0, column: 0 });
    setParams({ at: id }, { replace: true });
  };
  const canChange = past === null;
  const take = (taken: readonly CollectionProposal[]): void => {
    const ids = new Set(Object.keys(app.collections));
    const changes = taken.map((proposal) => {
      const name = uniqueName(proposal.name, (one) => ids.has(one), '');
      ids.add(name);
      return putCollection(name, { ...takenCollection(proposal), name });
    });
    const words = taken.length === 1 ? `Take ${taken[0].name}` : `Take ${taken.length} collections`;
    session.change(words, all(changes));
    if (taken.length === 1) choose([...ids].at(-1)!);
  };
  const refuse = ({ id, collection }: Shown): void =>
    session.change(`Refuse ${collection.name}`, putRefused(id, true));
  const sure = open.filter(({ confidence }) => confidence >= SURE);
  if (!items.length)
    return (
      <Empty
        title={
          found === null ? 'Looking for records, forms and controls …' : 'No records show on the screens'
        }
        text={
          found === null
            ? ''
            : 'Lists and tables with rows of one kind will stand here as collections of records.'
        }
      />
    );
  return (
    <StationView>
      <Bar>
        <h2>Data</h2>
        <span role="status">
          {found === null
            ? 'Looking for records …'
            : `${Object.keys(app.collections).length} taken, ${open.length} proposed`}
        </span>
        {canChange && (
          <Button $kind="primary" isDisabled={!sure.length} onPress={() => take(sure)}>
            {sure.length ? `Take ${sure.length} that are sure` : 'None that are sure'}
          </Button>
        )}
      </Bar>
      <StationBody
        $columns={
          chosen ? 'minmax(210px, 250px) minmax(0, 1fr) 286px' : 'minmax(210px, 250px) minmax(0, 1fr)'
        }
      >
        <DataList
          items={items}
          chosen={chosenId}
          onChoose={choose}
          onTake={() => canChange && chosen?.proposal && take([chosen.proposal])}
          onRefuse={() => canChange && chosen?.proposal && refuse(chosen)}
        />
        {chosenId === 'forms' && <FormsSeen forms={found?.forms ?? []} />}
        {chosenId === 'controls' && <ControlsSeen actions={found?.actions ?? []} />}
        {chosen && (
          <CollectionShown
            key={chosen.id}
            shown={chosen}
            at={at}
            onAt={setAt}
            onPaste={() => setPasting(true)}
            onTake={() => take([chosen.proposal!])}
            onRefuse={() => refuse(chosen)}
          />
        )}
      </StationBody>
      {isPasting && chosen && (
        <TableSheet
          collection={chosen.collection}
          records={recordsOf(design, chosen.collection)}
          onClose={() => setPasting(false)}
        />
      )}
    </StationView>
  );
}

const seen = (id: string, name: string, count: number): DataItem => ({
  id,
  group: 'Seen on the screens',
  name,
  says: String(count),
  mark: 'seen',
});

const Middle = styled.section`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
`;

const Head = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: center;
  padding: 10px 18px;
  border-bottom: 1px solid ${color.rule};
  h3 {
    font-size: 15px;
  }
  p {
    grid-column: 1 / -1;
    color: ${color.ink2};
    font-size: 12px;
  }
  div {
    display: flex;
    gap: 8px;
  }
`;

interface CollectionShownProps {
  readonly shown: Shown;
  readonly at: At;
  readonly onAt: (at: At) => void;
  readonly onPaste: () => void;
  readonly onTake: () => void;
  readonly onRefuse: () => void;
}

/** The records of one collection, and where the one that one is at is shown. */
function CollectionShown({ shown, at, onAt, onPaste, onTake, onRefuse }: CollectionShownProps) {
  const { design, session, past } = useProject();
  const { id, collection, proposal } = shown;
  const records = recordsOf(design, collection);
  const lists = new Set(collection.rows.map(({ within }) => within)).size;
  const here = {
    row: Math.min(at.row, Math.max(0, records.length - 1)),
    column: Math.min(at.column, collection.fields.length - 1),
  };
  const canChange = !proposal && past === null;
  const table = (): string[][] => tableOf(collection, records);
  return (
    <>
      <Middle aria-label={collection.name}>
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
              {canChange && <Button onPress={onPaste}>Paste values …</Button>}
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
                    act: () => saveFile(collection.name, '.json', 'application/json', jsonOf(table())),
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
          <p>
            {proposal
              ? `${Math.round(proposal.confidence * 100)} % sure: ${proposal.reason}.`
              : `${records.length} records from ${lists === 1 ? 'one list' : `${lists} lists`}. Enter or typing writes a text anew, wherever it is shown.`}
          </p>
        </Head>
        <RecordGrid
          collection={collection}
          records={records}
          at={here}
          onAt={onAt}
          onSay={
            canChange
              ? (record, field, text) => {
                  const change = sayInRecord(record, field.name, text);
                  if (change)
                    session.change(
                      `${titleOf(record, collection.fields)}: ${field.name} is “${text}”`,
                      change,
                    );
                }
              : undefined
          }
        />
      </Middle>
      <RecordDetails
        collection={collection}
        field={collection.fields[here.column]}
        record={records[here.row]}
        onField={
          canChange
            ? (field, words) =>
                session.change(
                  words,
                  putCollection(id, withField(collection, collection.fields[here.column].name, field)),
                )
            : undefined
        }
      />
    </>
  );
}
