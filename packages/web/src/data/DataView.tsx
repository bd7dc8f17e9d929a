import {
  type ActionProposal,
  collectionProposalId,
  type CollectionProposal,
  findDisclosures,
  makeWork,
  proposeCalls,
  proposeComingFrom,
  recordsOf,
  sendable,
  sortingHeads,
  takenCollection,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import { useProject } from '../project/context';
import { StationBody, StationView } from '../screens/StationView';
import { useQueryParam } from '../ui/use_query_param';
import { ApisShown } from './ApisShown';
import { BindingsShown } from './BindingsShown';
import { CollectionShown, type Shown } from './CollectionShown';
import { ControlsShown } from './ControlsShown';
import { DataBar } from './DataBar';
import { dataItems } from './data_items';
import { DataList } from './DataList';
import { FormsShown } from './FormsShown';
import type { At } from './grid_keys';
import { TableSheet } from './TableSheet';
import { useData, useOpenCollections } from './use_data';
import { useDataChanges } from './use_data_changes';
import { VariablesShown } from './VariablesShown';

/** All collections, those that are taken first, by name. */
function useShown(open: readonly CollectionProposal[]): readonly Shown[] {
  const { collections } = useProject().app;
  return useMemo(
    () => [
      ...Object.entries(collections)
        .map(([id, collection]): Shown => ({ id, collection, proposal: null }))
        .sort((a, b) => (a.collection.name < b.collection.name ? -1 : 1)),
      ...open.map((proposal): Shown => ({
        id: collectionProposalId(proposal),
        collection: takenCollection(proposal),
        proposal,
      })),
    ],
    [collections, open],
  );
}

/** What stands behind the screens: records as the screens show them, forms, and what controls do. */
export function DataView() {
  const { app, design, drawn, past } = useProject();
  const found = useData();
  const open = useOpenCollections(found);
  const [wanted, setWanted] = useQueryParam('at', '');
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [isPasting, setPasting] = useState(false);
  const choose = (id: string): void => {
    setAt({ row: 0, column: 0 });
    setWanted(id);
  };
  const changes = useDataChanges(found, choose);
  const shown = useShown(open);
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
  const comingFrom = useMemo(() => proposeComingFrom({ design, app }, open), [design, app, open]);
  const calls = useMemo(() => (found ? proposeCalls({ design, app }, found) : []), [found, design, app]);
  const texts = found?.bindings ?? [];
  const forms = found?.forms ?? [];
  const items = dataItems({
    design,
    app,
    shown,
    forms: forms.length,
    texts: texts.length,
    controls: actions.length,
    calls: comingFrom.length + calls.length,
  });
  const chosenId = items.some(({ id }) => id === wanted) ? wanted : items[0]?.id;
  const chosen = shown.find(({ id }) => id === chosenId);
  const canChange = past === null;
  return (
    <StationView>
      <DataBar found={found} open={open} changes={changes} canChange={canChange} />
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
            if (canChange && proposal) changes.take([proposal]);
          }}
          onRefuse={(id) => {
            const refused = shown.find((one) => one.id === id);
            if (canChange && refused?.proposal) changes.refuse(refused);
          }}
        />
        {chosenId === 'variables' && <VariablesShown canChange={canChange} />}
        {chosenId === 'texts' && (
          <BindingsShown proposals={texts} {...(canChange ? { onTake: changes.letCount } : {})} />
        )}
        {chosenId === 'forms' && (
          <FormsShown
            forms={forms}
            open={sendable(forms).filter(({ element }) => !app.forms[element])}
            {...(canChange ? { onMake: changes.makeForms } : {})}
          />
        )}
        {chosenId === 'apis' && <ApisShown proposals={comingFrom} calls={calls} canChange={canChange} />}
        {chosenId === 'controls' && work && (
          <ControlsShown
            key={work.made.length}
            work={work}
            {...(canChange ? { onMake: changes.makeWork } : {})}
          />
        )}
        {chosen && (
          <CollectionShown
            key={chosen.id}
            shown={chosen}
            at={at}
            onAt={setAt}
            onPaste={() => setPasting(true)}
            onTake={() => changes.take([chosen.proposal!])}
            onRefuse={() => changes.refuse(chosen)}
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
