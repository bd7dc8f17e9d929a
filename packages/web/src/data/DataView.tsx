import {
  type ActionProposal,
  type BindingProposal,
  all,
  applyChange,
  collectionProposalId,
  type CollectionProposal,
  type FormProposal,
  makeBindings,
  makeForms,
  findDisclosures,
  makeWork,
  proposeComingFrom,
  proposeCalls,
  putCollection,
  putRefused,
  recordsOf,
  screenName,
  sendable,
  sortingHeads,
  takeCollection,
  takenCollection,
  uniqueName,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { StationBar, StationBody, StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { ApisShown } from './ApisShown';
import { BindingsShown } from './BindingsShown';
import { CollectionShown, type Shown } from './CollectionShown';
import { ControlsShown } from './ControlsShown';
import { type DataItem, DataList } from './DataList';
import type { At } from './grid_keys';
import { FormsShown } from './FormsShown';
import { TableSheet } from './TableSheet';
import { VariablesShown } from './VariablesShown';
import { useData, useOpenCollections } from './use_data';
import { counted } from '../ui/counted';
import { useQueryParam } from '../ui/use_query_param';
import { takeSure } from '../ui/take_sure';

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

/** What stands behind the screens: records as the screens show them, forms, and what controls do. */
export function DataView() {
  const project = useProject();
  const { app, design, drawn, session, past } = project;
  const found = useData();
  const open = useOpenCollections(found);
  const [wanted, setWanted] = useQueryParam('at', '');
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
  const actions = useMemo(
    (): readonly ActionProposal[] => [
      ...(found?.actions ?? []),
      ...shown.flatMap(({ collection }) => sortingHeads({ design, app }, collection)),
    ],
    [found, shown, design, app],
  );
  const isAtControls = wanted === 'controls';
  const work = useMemo(
    () =>
      isAtControls && found
        ? makeWork({ design, app }, found, actions, drawn.screens.flatMap(findDisclosures))
        : null,
    [isAtControls, found, actions, drawn, design, app],
  );
  const makeThese = (chosen: readonly ActionProposal[]): void => {
    if (!found) return;
    const { change, made } = makeWork({ design, app }, found, chosen, drawn.screens.flatMap(findDisclosures));
    if (change)
      session.change(
        made.length === 1 ? `Make ${made[0].action.label} work` : `Make ${made.length} controls work`,
        change,
      );
  };
  const counting = found?.bindings ?? [];
  const letCount = (chosen: readonly BindingProposal[]): void => {
    if (!found) return;
    const { change, made } = makeBindings({ design, app }, found, chosen);
    if (change)
      session.change(
        made.length === 1 ? 'Let a text say what is so' : `Let ${made.length} texts say what is so`,
        change,
      );
  };
  const openForms = sendable(found?.forms ?? []).filter(({ element }) => !app.forms[element]);
  const makeFormsWork = (chosen: readonly FormProposal[]): void => {
    if (!found) return;
    const { change, made } = makeForms({ design, app }, found, chosen);
    const words =
      made.length === 1
        ? `Make the form of ${screenName(project, chosen[0].screen)} work`
        : `Make ${made.length} forms work`;
    if (change) session.change(words, change);
  };
  const comingFrom = useMemo(() => proposeComingFrom({ design, app }, open), [design, app, open]);
  const calls = useMemo(() => (found ? proposeCalls({ design, app }, found) : []), [found, design, app]);
  const items: DataItem[] = [
    ...shown.map(({ id, collection, proposal }): DataItem => ({
      id,
      group: proposal ? 'Proposed, the surest first' : 'Collections',
      name: collection.name,
      says: counted(recordsOf(design, collection).length, 'record'),
      mark: proposal ? 'proposed' : 'taken',
    })),
    {
      id: 'variables',
      group: 'What the app remembers',
      name: 'Variables',
      says: String(Object.keys(app.variables).length || 'none yet'),
      mark: Object.keys(app.variables).length ? 'taken' : 'seen',
    },
    ...(found?.forms.length ? [seen('forms', 'Forms', found.forms.length)] : []),
    ...(counting.length || Object.keys(app.bindings).length
      ? [seen('texts', 'Texts', Math.max(counting.length, Object.keys(app.bindings).length))]
      : []),
    ...(actions.length ? [seen('controls', 'Controls', actions.length)] : []),
    ...(shown.length ? [apisItem(Object.keys(app.apis).length, comingFrom.length + calls.length)] : []),
  ];
  const chosenId = items.some(({ id }) => id === wanted) ? wanted : items[0]?.id;
  const chosen = shown.find(({ id }) => id === chosenId);
  const choose = (id: string): void => {
    setAt({ row: 0, column: 0 });
    setWanted(id);
  };
  const canChange = past === null;
  const take = (taken: readonly CollectionProposal[]): void => {
    let made = { design, app };
    const ids: string[] = [];
    const changes = taken.map((proposal) => {
      const { id, change } = takeCollection(made, proposal);
      made = { design, app: applyChange(made.app, change) };
      ids.push(id);
      return change;
    });
    const words = taken.length === 1 ? `Take ${taken[0].name}` : `Take ${taken.length} collections`;
    session.change(words, all(changes));
    if (taken.length === 1) choose(ids[0]);
  };
  const refuse = ({ id, collection }: Shown): void =>
    session.change(`Refuse ${collection.name}`, putRefused(id, true));
  const addCollection = (): void => {
    const isTaken = (one: string): boolean =>
      app.collections[one] !== undefined || Object.values(app.collections).some(({ name }) => name === one);
    const name = uniqueName('records', isTaken, '');
    session.change(
      'Add a collection',
      putCollection(name, { name, fields: [{ name: 'name', type: 'text' }], rows: [] }),
    );
    choose(name);
  };
  const sure = open.filter(({ confidence }) => confidence >= SURE);
  return (
    <StationView>
      <Bar>
        <h2>Data</h2>
        <span role="status">
          {found === null
            ? 'Looking for records …'
            : `${Object.keys(app.collections).length} taken, ${open.length} proposed`}
        </span>
        {canChange && <Button onPress={addCollection}>Add a collection</Button>}
        {canChange && found !== null && (
          <Button $kind="primary" isDisabled={!sure.length} onPress={() => take(sure)}>
            {takeSure(sure.length)}
          </Button>
        )}
      </Bar>
      <StationBody
        $columns={
          chosen || chosenId === 'controls'
            ? 'minmax(210px, 250px) minmax(0, 1fr) 286px'
            : 'minmax(210px, 250px) minmax(0, 1fr)'
        }
      >
        <DataList
          items={items}
          chosen={chosenId}
          onChoose={choose}
          onTake={(id) => {
            const proposal = shown.find((one) => one.id === id)?.proposal;
            if (canChange && proposal) take([proposal]);
          }}
          onRefuse={(id) => {
            const refused = shown.find((one) => one.id === id);
            if (canChange && refused?.proposal) refuse(refused);
          }}
        />
        {chosenId === 'variables' && <VariablesShown canChange={canChange} />}
        {chosenId === 'texts' && (
          <BindingsShown proposals={counting} {...(canChange ? { onTake: letCount } : {})} />
        )}
        {chosenId === 'forms' && (
          <FormsShown
            forms={found?.forms ?? []}
            open={openForms}
            {...(canChange ? { onMake: makeFormsWork } : {})}
          />
        )}
        {chosenId === 'apis' && <ApisShown proposals={comingFrom} calls={calls} canChange={canChange} />}
        {chosenId === 'controls' && work && (
          <ControlsShown key={work.made.length} work={work} {...(canChange ? { onMake: makeThese } : {})} />
        )}
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
          id={chosen.id}
          collection={chosen.collection}
          records={recordsOf(design, chosen.collection)}
          onClose={() => setPasting(false)}
        />
      )}
    </StationView>
  );
}

const apisItem = (apis: number, proposals: number): DataItem => ({
  id: 'apis',
  group: 'Where records come from',
  name: 'Described APIs',
  says: apis ? String(apis) : 'none yet',
  mark: proposals ? 'proposed' : apis ? 'taken' : 'seen',
});

const seen = (id: string, name: string, count: number): DataItem => ({
  id,
  group: 'Seen on the screens',
  name,
  says: String(count),
  mark: 'seen',
});
