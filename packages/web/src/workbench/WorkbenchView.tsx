import {
  always,
  breakpointsOf,
  counterpartsOf,
  decideRole,
  type EditCondition,
  type Element,
  elementsByKey,
  elementsLike,
  all,
  inferRoles,
  isUsed,
  labelOf,
  parentsByKey,
  refuseRole,
  type RoleDetail,
  roleInWords,
  roleProposals,
  screenWith,
  screensByKey,
  takeRoles,
  walkElements,
} from '@tovel/core';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { useElementInAddress } from '../project/element_in_address';
import { ElementTree } from '../reading/ElementTree';
import { ScreensNav } from '../screens/ScreensNav';
import { StationBody, StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { AddControl } from './AddControl';
import { DefaultsSheet } from './DefaultsSheet';
import { DrawerSheet } from './DrawerSheet';
import { conditionId, conditionsFor } from './conditions';
import { ELEMENT_TABS, ElementPanels, type ElementTab } from './ElementPanels';
import { nextOf, roleOfKey } from './role_keys';
import { Ruler, WIDTHS } from './Ruler';
import { WideStage } from './WideStage';
import { takeSure } from '../ui/take_sure';

const Left = styled.section`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  > header {
    padding: 9px 12px;
    background: ${color.side};
    border-right: 1px solid ${color.rule};
    border-bottom: 1px solid ${color.rule};
    display: grid;
    gap: 6px;
  }
  progress {
    width: 100%;
    height: 6px;
    appearance: none;
    border: 0;
    background: ${color.rule};
    &::-webkit-progress-bar {
      background: ${color.rule};
    }
    &::-webkit-progress-value {
      background: ${color.lake};
    }
  }
`;

const Middle = styled.section`
  min-height: 0;
  min-width: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Three = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  > figure {
    min-height: 0;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
  }
  figcaption {
    text-align: center;
    font-size: 12px;
    color: ${color.ink2};
  }
`;

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
`;

/** Proposals that are at least so sure are taken together. */
const SURE = 0.8;

/** One screen and its elements: what each is, how it stretches, how it looks. */
export function WorkbenchView() {
  const { screenKey } = useParams();
  const project = useProject();
  if (!screenKey || !isUsed(project, screenKey)) return <Navigate to={`${project.base}/screens`} replace />;
  return <Workbench key={screenKey} screenKey={screenKey} />;
}

function Workbench({ screenKey }: { screenKey: string }) {
  const project = useProject();
  const { drawn: drawnDesign, design, app, base, session, graph } = project;
  const navigate = useNavigate();
  const drawn = screensByKey(drawnDesign).get(screenKey)!;
  const screen = screensByKey(design).get(screenKey)!;
  const [selected, select] = useElementInAddress();
  const [hovered, setHovered] = useState<string | null>(null);
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
  const proposals = useMemo(() => roleProposals(app, drawn), [app, drawn]);
  const open = useMemo(() => new Set(proposals.map((proposal) => proposal.element.key)), [proposals]);
  const proposalOf = useMemo(
    () => new Map(proposals.map((proposal) => [proposal.element.key, proposal])),
    [proposals],
  );
  const order = useMemo(() => {
    const keys: string[] = [];
    walkElements(drawn.root, (inner) => void keys.push(inner.key));
    return keys;
  }, [drawn]);
  const guesses = inferRoles(drawn, app.defaults);
  const decided = [...guesses].filter(
    ([key, guess]) => guess.confidence >= 1 || app.layers[key]?.role !== undefined,
  ).length;
  const sure = proposals.filter(({ guess }) => guess.confidence >= SURE).length;
  const breakpoints = breakpointsOf(screen);
  const widths = useMemo(() => {
    const others = counterpartsOf(app, screensByKey(drawnDesign)).get(screenKey) ?? [];
    return [...new Set([drawn.width, ...others.map((other) => other.screen.width)])].sort((a, b) => a - b);
  }, [app, drawnDesign, screenKey, drawn.width]);

  const noteOf = (inner: Element): { text: string; isProposed?: boolean } | null => {
    const proposal = proposalOf.get(inner.key);
    if (proposal) return { text: roleInWords(proposal.guess), isProposed: true };
    const layer = app.layers[inner.key];
    if (layer?.role) return { text: roleInWords(layer as RoleDetail) };
    const guess = guesses.get(inner.key);
    return guess && guess.confidence >= 1 ? { text: roleInWords(guess) } : null;
  };
  const toNext = (by: 1 | -1, from: string | null = selected): boolean => {
    const next = nextOf(order, open, from, by);
    if (next) select(next);
    return next !== null;
  };
  const give = (detail: RoleDetail): void => {
    if (!element) return;
    session.change(`${labelOf(element)} is a ${roleInWords(detail)}`, decideRole(app, element.key, detail));
    toNext(1);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const target = event.target as HTMLElement;
    if (event.ctrlKey || event.metaKey || event.altKey || sheet) return;
    if (target.closest('input, textarea, select, [role=menu], [role=listbox], [role=slider]')) return;
    const isFree =
      target.closest('[role=tree]') !== null ||
      target === view.current ||
      target.closest('[data-stage]') !== null;
    const proposal = selected ? proposalOf.get(selected) : undefined;
    if (event.key === 'Tab') {
      // Only from the list or the stage: elsewhere Tab goes from control to control, as it does anywhere.
      if (isFree && toNext(event.shiftKey ? -1 : 1)) event.preventDefault();
      return;
    }
    if (event.key === ']' || event.key === '[') {
      const at = graph.screens.indexOf(screenKey) + (event.key === ']' ? 1 : -1);
      if (graph.screens[at]) void navigate(`${base}/screens/at/${graph.screens[at]}`);
      return;
    }
    if (!isFree || !element) return;
    if (event.key === 'Enter' && proposal) give(proposal.guess);
    else if (event.key === 'Backspace' && proposal) {
      session.change(`${labelOf(element)} is no ${roleInWords(proposal.guess)}`, refuseRole(proposal));
      toNext(1);
    } else if (event.key === '=' && app.layers[element.key]?.role) {
      const others = elementsLike(drawnDesign, elementsByKey(drawn).get(element.key) ?? element).filter(
        (other) => other.key !== element.key,
      );
      if (others.length)
        session.change(
          `${others.length} like ${labelOf(element)} are the same`,
          all(others.map((other) => decideRole(app, other.key, app.layers[element.key] as RoleDetail))),
        );
    } else if (/^[1-6]$/.test(event.key)) give({ role: 'heading', level: Number(event.key) });
    else {
      const role = roleOfKey(event.key);
      if (!role) return;
      give(role.detail);
    }
    event.preventDefault();
    event.stopPropagation();
  };
  const toList = (): void => view.current?.querySelector<HTMLElement>('[role=tree]')?.focus();
  // The list has the focus from the start, so that the keys work at once.
  useEffect(toList, []);

  const conditions = conditionsFor(screen, drawn.width, width);
  const held = conditions.find(({ id }) => id === conditionId(condition))?.condition ?? always;

  return (
    <StationView ref={view} onKeyDownCapture={onKeyDown}>
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
          isDisabled={!sure}
          onPress={() => {
            session.change(`Take ${sure} roles of ${screen.name}`, takeRoles(app, proposals, SURE));
            toList();
          }}
        >
          {takeSure(sure)}
        </Button>
      </ScreensNav>
      <StationBody $columns="minmax(210px, 270px) minmax(0, 1fr) 336px">
        <Left aria-label="Elements of the screen">
          <header>
            <span>
              <b>{proposals.length}</b> undecided{proposals.length > 0 && <small> · Tab: the next</small>}
            </span>
            <progress
              max={Math.max(1, decided + proposals.length)}
              value={decided}
              aria-label={`${decided} of ${decided + proposals.length} decided`}
            />
          </header>
          <ElementTree
            screen={drawn}
            settled={screen}
            selected={selected}
            hovered={hovered}
            onSelect={select}
            onHover={setHovered}
            noteOf={noteOf}
          />
        </Left>
        <Middle aria-label="The screen">
          <Ruler width={width} drawn={widths} breakpoints={breakpoints} onWidth={setWidth} />
          {showsThree ? (
            <Three>
              {[0.75, 1, 1.5].map((factor) => {
                const at = Math.round(width * factor);
                return (
                  <figure key={factor}>
                    <figcaption>{at} px</figcaption>
                    <WideStage
                      screen={screen}
                      width={at}
                      selected={selected}
                      hovered={hovered}
                      onSelect={(key) => select(key)}
                      onHover={setHovered}
                      label={`${screen.name} in a window of ${at} px`}
                    />
                  </figure>
                );
              })}
            </Three>
          ) : (
            <WideStage
              screen={screen}
              width={width}
              selected={selected}
              hovered={hovered}
              inState={
                (tab === 'layout' || tab === 'look') && held.kind === 'state'
                  ? element?.style[held.state]
                  : undefined
              }
              onSelect={(key, isTwice) => {
                select(key);
                if (isTwice) setTab('look');
              }}
              onHover={setHovered}
              label={`${screen.name} in a window of ${width} px`}
            />
          )}
        </Middle>
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
            proposal={(element && proposalOf.get(element.key)) ?? null}
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
