import { type ElementState, isOverlay, isUsed, screenName, screensByKey } from '@tovel/core';
import { useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { Arrivals } from './Arrivals';
import { Departures } from './Departures';
import { EditPanel } from './EditPanel';
import { junctionMenu, JunctionSheets, type OpenSheet } from './JunctionSheets';
import { unlisted } from './rows';
import { Stage } from './Stage';
import { useOpenLinks } from './use_open_links';
import { useRowChoice } from './use_row_choice';
import { useBrackets, useRowKeys } from './use_row_keys';
import { useWiring } from './use_wiring';

const View = styled.div<{ $isWide: boolean }>`
  height: 100%;
  display: grid;
  grid-template-columns: 196px ${({ $isWide }) => ($isWide ? 'minmax(0, 1fr) minmax(560px, 1fr)' : '400px minmax(0, 1fr)')};
  @media (max-width: 1180px) {
    grid-template-columns: 150px ${({ $isWide }) => ($isWide ? 'minmax(0, 1fr) minmax(440px, 1fr)' : '360px minmax(0, 1fr)')};
  }
`;

const Side = styled.section`
  min-height: 0;
  display: flex;
  flex-direction: column;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
`;

/** Screens wider than this, in px, get the larger part of the window. */
const WIDE = 600;

/** Where the anchor of a link is being chosen: on which screen, for which line. */
interface AnchorChoice {
  readonly screen: string;
  readonly row: string;
}

/** One screen: who leads here, what can be pressed, and where each of it leads. */
export function JunctionView() {
  const { screenKey } = useParams();
  const project = useProject();
  const { graph, app, base } = project;
  if (!graph.screens.length) return <NothingYet />;
  const first = app.start && isUsed(project, app.start) ? app.start : graph.screens[0];
  if (!screenKey || !(isUsed(project, screenKey) || isOverlay(project, screenKey)))
    return <Navigate to={`${base}/junction/${first}`} replace />;
  return <Junction key={screenKey} screenKey={screenKey} />;
}

function NothingYet() {
  const { base } = useProject();
  const navigate = useNavigate();
  return (
    <Empty title="No screens to wire yet" text="Bring in the drawings and pages of the app first.">
      <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
        Bring screens in
      </Button>
    </Empty>
  );
}

function Junction({ screenKey }: { screenKey: string }) {
  const project = useProject();
  const { graph, design, app } = project;
  const screens = screensByKey(design);
  const screen = screens.get(screenKey)!;
  const choice = useRowChoice(graph.elements.get(screenKey)!);
  const { states, rows, selected, chosen, marked } = choice;
  const proposals = useOpenLinks();
  const actions = useWiring();
  const onRowKey = useRowKeys({ screenKey, choice, proposals, actions });
  useBrackets(screenKey);
  const [anchor, setAnchor] = useState<AnchorChoice | null>(null);
  const [sheet, setSheet] = useQueryParam('sheet', '');
  const [rowTops, setRowTops] = useState<ReadonlyMap<string, number>>(new Map());

  const pickAnchor = (state: ElementState): void => {
    const wiring = rows.find((row) => row.id === anchor?.row);
    if (anchor && wiring)
      actions.wire([wiring], {
        target: { kind: 'anchor', screen: anchor.screen, element: state.element.key },
      });
    setAnchor(null);
  };
  const overlay = isOverlay(project, screenKey);
  return (
    <View $isWide={screen.width > WIDE}>
      <Arrivals screenKey={screenKey} />
      <Stage
        screen={anchor ? screens.get(anchor.screen)! : screen}
        title={
          anchor ? `Press the place on ${screenName(project, anchor.screen)}` : app.screens[screenKey].name
        }
        route={anchor ? '' : overlay ? 'overlay' : app.screens[screenKey].route}
        states={anchor ? [] : states}
        selected={selected?.state ?? null}
        rowTops={rowTops}
        onPick={anchor ? pickAnchor : choice.pickOnStage}
        onCancel={anchor ? () => setAnchor(null) : undefined}
      />
      <Side aria-label="Departures">
        <Departures
          rows={rows}
          proposals={proposals}
          onTakeAll={actions.takeAll}
          menu={junctionMenu(overlay, {
            open: setSheet,
            wireWhole: () => choice.pickOnStage(unlisted(screen.root, 'The whole screen')),
          })}
          selected={selected}
          marked={marked}
          onSelect={choice.choose}
          onFocusRow={choice.onFocusRow}
          onKeyDown={onRowKey}
          onLayout={setRowTops}
        />
        {selected && (
          <EditPanel
            key={selected.id}
            rows={chosen}
            screen={screenKey}
            proposal={selected.wired ? null : (proposals.get(selected.state.element.key) ?? null)}
            actions={actions}
            field={choice.field}
            typed={choice.typed}
            onTyped={choice.setTyped}
            onDone={() => choice.focusRow(selected.id)}
            onAnchor={(to) => setAnchor({ screen: to, row: selected.id })}
          />
        )}
      </Side>
      <JunctionSheets
        sheet={(sheet || null) as OpenSheet | null}
        screenKey={screenKey}
        proposals={proposals}
        onClose={() => setSheet('')}
      />
    </View>
  );
}
