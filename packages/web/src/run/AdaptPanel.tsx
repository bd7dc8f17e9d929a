import {
  always,
  type EditCondition,
  elementsByKey,
  hostOf,
  parentsByKey,
  roleProposals,
  screensByKey,
  screenWith,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { useQuiet } from '../project/use_quiet';
import { ElementTree } from '../reading/ElementTree';
import { color } from '../theme/theme';
import { conditionsFor } from '../workbench/conditions';
import { DrawerSheet } from '../workbench/DrawerSheet';
import { ElementPanels, type ElementTab } from '../workbench/ElementPanels';
import type { Pointed } from './use_pointed';

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto 168px auto minmax(0, 1fr);
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  > header {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 9px 16px;
    background: ${color.side};
    border-bottom: 1px solid ${color.rule};
  }
`;

/** How long nothing changes before it is proposed what elements are, in ms. */
const PROPOSED_AFTER = 150;

/** What of the running app is changed where it is: its elements, and what there is to decide of the one that was pressed. */
export function AdaptPanel({
  pointed,
  here,
  width,
}: {
  pointed: Pointed;
  /** Key of the screen that is seen. */
  here: string;
  /** Of the window of the app, in CSS px; null where it is as wide as there is room. */
  width: number | null;
}) {
  const project = useProject();
  const { app, base, design, drawn: drawnDesign } = project;
  const [tab, setTab] = useState<ElementTab>('look');
  const [condition, setCondition] = useState<EditCondition>(always);
  const [hovered, setHovered] = useState<string | null>(null);
  const [isDrawer, setDrawer] = useState(false);
  const host = pointed.key === null ? here : hostOf(project, pointed.key);
  const screen = screensByKey(design).get(host) ?? screensByKey(design).get(here)!;
  const drawn = screensByKey(drawnDesign).get(screen.key)!;
  const element =
    pointed.key === null
      ? null
      : (elementsByKey(screen).get(pointed.key) ?? elementsByKey(drawn).get(pointed.key) ?? null);
  const later = useQuiet(app, PROPOSED_AFTER);
  const proposals = useMemo(() => roleProposals(later, drawn), [later, drawn]);
  return (
    <Side aria-label="Adapt">
      <header>
        <b>{app.screens[screen.key].name}</b>
        <Link
          to={`${base}/screens/at/${screen.key}${element ? `?element=${encodeURIComponent(element.key)}` : ''}`}
        >
          in Screens
        </Link>
      </header>
      <ElementTree
        screen={drawn}
        settled={screen}
        selected={element?.key ?? null}
        hovered={hovered}
        onSelect={pointed.select}
        onHover={setHovered}
      />
      <ElementPanels
        screen={screen}
        drawn={element ? (screenWith(drawnDesign, element.key) ?? drawn) : drawn}
        element={element}
        parent={(element && parentsByKey(screen).get(element.key)) ?? null}
        tab={tab}
        onTab={setTab}
        conditions={conditionsFor(screen, drawn.width, width ?? drawn.width)}
        width={width ?? drawn.width}
        condition={condition}
        onCondition={setCondition}
        proposal={proposals.find((one) => one.element.key === element?.key) ?? null}
        onDecided={() => undefined}
        onDrawer={() => setDrawer(true)}
        onSelect={pointed.select}
        nothing={
          pointed.unknown === null
            ? 'Press what is to be changed in the running app, or choose it in the list.'
            : `“${pointed.unknown.slice(0, 60)}” is made by the app and stands on no screen. Choose something else.`
        }
      />
      {isDrawer && element && <DrawerSheet screen={screen} part={element} onClose={() => setDrawer(false)} />}
    </Side>
  );
}
