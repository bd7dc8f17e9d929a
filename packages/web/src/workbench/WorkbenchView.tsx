import {
  always,
  type EditCondition,
  elementsByKey,
  isUsed,
  parentsByKey,
  screenWith,
  screensByKey,
  takeRoles,
} from '@tovel/core';
import { useEffect, useRef, useState } from 'react';
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { useElementInAddress } from '../project/element_in_address';
import { ScreensNav } from '../screens/ScreensNav';
import { StationBody, StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { takeSure } from '../ui/take_sure';
import { AddControl } from './AddControl';
import { conditionId, conditionsFor } from './conditions';
import { DefaultsSheet } from './DefaultsSheet';
import { DrawerSheet } from './DrawerSheet';
import { ELEMENT_TABS, ElementPanels, type ElementTab } from './ElementPanels';
import { ElementsListed } from './ElementsListed';
import { WIDTHS } from './Ruler';
import { ScreenAtWidths } from './ScreenAtWidths';
import { SURE, useRoleDecisions } from './use_role_decisions';
import { useRoleKeys } from './use_role_keys';

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
`;

/** One screen and its elements: what each is, how it stretches, how it looks. */
export function WorkbenchView() {
  const { screenKey } = useParams();
  const project = useProject();
  if (!screenKey || !isUsed(project, screenKey)) return <Navigate to={`${project.base}/screens`} replace />;
  return <Workbench key={screenKey} screenKey={screenKey} />;
}

function Workbench({ screenKey }: { screenKey: string }) {
  const { drawn: drawnDesign, design, app, base, session, graph } = useProject();
  const navigate = useNavigate();
  const drawn = screensByKey(drawnDesign).get(screenKey)!;
  const screen = screensByKey(design).get(screenKey)!;
  const [selected, select] = useElementInAddress();
  const [hovered, hover] = useState<string | null>(null);
  const pointing = { selected, hovered, select, hover };
  const [width, setWidth] = useState(Math.min(WIDTHS.max, Math.max(WIDTHS.min, screen.width)));
  const [params] = useSearchParams();
  const [tab, setTab] = useState<ElementTab>(
    () => ELEMENT_TABS.find(({ id }) => id === params.get('tab'))?.id ?? 'role',
  );
  const [showsThree, setShowsThree] = useState(false);
  const [sheet, setSheet] = useState<'drawer' | 'defaults' | null>(null);
  const [condition, setCondition] = useState<EditCondition>(always);
  const view = useRef<HTMLDivElement>(null);

  const element = selected
    ? (elementsByKey(screen).get(selected) ?? elementsByKey(drawn).get(selected) ?? null)
    : null;
  const parent = (element && parentsByKey(screen).get(element.key)) ?? null;
  const decisions = useRoleDecisions(drawn);
  const toNext = (by: 1 | -1): boolean => {
    const next = decisions.next(selected, by);
    if (next) select(next);
    return next !== null;
  };
  const onKeyDown = useRoleKeys({ view, drawn, element, decisions, toNext });
  const toList = (): void => view.current?.querySelector<HTMLElement>('[role=tree]')?.focus();
  // The list has the focus from the start, so that the keys work at once.
  useEffect(toList, []);

  const conditions = conditionsFor(screen, drawn.width, width);
  const held = conditions.find(({ id }) => id === conditionId(condition))?.condition ?? always;

  return (
    <StationView ref={view} onKeyDownCapture={(event) => sheet === null && onKeyDown(event)}>
      <ScreensNav screen={screenKey}>
        <div style={{ width: 190 }}>
          <Choice
            label="Screen"
            isLabelHidden
            value={screenKey}
            options={graph.screens.map((key) => ({ id: key, label: app.screens[key].name }))}
            onChange={(key) => void navigate(`${base}/screens/at/${key}`)}
          />
        </div>
        <span style={{ marginLeft: 'auto' }} />
        <Button $kind="quiet" onPress={() => setSheet('defaults')}>
          Defaults …
        </Button>
        <AddControl screen={screen} selected={element} parent={parent} onAdded={select} />
        <Button aria-pressed={showsThree} onPress={() => setShowsThree(!showsThree)}>
          {showsThree ? 'One width' : 'Three widths'}
        </Button>
        <Button
          $kind="primary"
          isDisabled={!decisions.sure}
          onPress={() => {
            session.change(
              `Take ${decisions.sure} roles of ${screen.name}`,
              takeRoles(app, decisions.proposals, SURE),
            );
            toList();
          }}
        >
          {takeSure(decisions.sure)}
        </Button>
      </ScreensNav>
      <StationBody $columns="minmax(210px, 270px) minmax(0, 1fr) 336px">
        <ElementsListed drawn={drawn} screen={screen} decisions={decisions} pointing={pointing} />
        <ScreenAtWidths
          drawn={drawn}
          screen={screen}
          width={width}
          onWidth={setWidth}
          showsThree={showsThree}
          pointing={pointing}
          inState={
            (tab === 'layout' || tab === 'look') && held.kind === 'state'
              ? element?.style[held.state]
              : undefined
          }
          onPressedTwice={() => setTab('look')}
        />
        <Side aria-label="The chosen element">
          <ElementPanels
            screen={screen}
            drawn={element ? (screenWith(drawnDesign, element.key) ?? drawn) : drawn}
            element={element}
            parent={parent}
            tab={tab}
            onTab={setTab}
            conditions={conditions}
            width={width}
            condition={condition}
            onCondition={setCondition}
            proposal={(element && decisions.proposalOf.get(element.key)) ?? null}
            onDecided={() => toNext(1)}
            onDrawer={() => setSheet('drawer')}
            onSelect={select}
            nothing="Press Tab to go to the first undecided element, or choose one in the list or on the screen."
          />
        </Side>
      </StationBody>
      {sheet === 'drawer' && element && (
        <DrawerSheet screen={screen} part={element} onClose={() => setSheet(null)} />
      )}
      {sheet === 'defaults' && <DefaultsSheet onClose={() => setSheet(null)} />}
    </StationView>
  );
}
