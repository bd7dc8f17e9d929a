import {
  type EditCondition,
  type Element,
  hostOf,
  labelOf,
  parseEditKey,
  type RoleProposal,
  type Screen,
} from '@tovel/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Choice } from '../ui/controls';
import { conditionId, type OfferedCondition } from './conditions';
import { EditsList } from './EditsList';
import { LayoutPanel } from './LayoutPanel';
import { LookPanel } from './LookPanel';
import { RolePanel } from './RolePanel';
import { ShowsPanel } from './ShowsPanel';

const Tabs = styled.div`
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  border-bottom: 1px solid ${color.rule};
  button {
    min-height: 36px;
    padding: 0 4px;
    border: 0;
    border-bottom: 3px solid transparent;
    border-top: 3px solid transparent;
    background: none;
    color: ${color.ink2};
    font-size: 12.5px;
    cursor: pointer;
  }
  button[aria-selected='true'] {
    color: ${color.ink};
    font-weight: 650;
    border-bottom-color: ${color.ink};
  }
`;

const Panel = styled.div`
  min-height: 0;
  overflow: auto;
  > section:first-child {
    border-top: 0;
  }
`;

const Nothing = styled.p`
  padding: 14px 16px;
  color: ${color.ink2};
`;

export type ElementTab = 'role' | 'layout' | 'look' | 'shows' | 'edits';
export const ELEMENT_TABS: readonly { readonly id: ElementTab; readonly label: string }[] = [
  { id: 'role', label: 'Role' },
  { id: 'layout', label: 'Layout' },
  { id: 'look', label: 'Look' },
  { id: 'shows', label: 'Shows' },
  { id: 'edits', label: 'Edits' },
];

interface ElementPanelsProps {
  screen: Screen;
  /** The screen as it was drawn. */
  drawn: Screen;
  element: Element | null;
  parent: Element | null;
  tab: ElementTab;
  onTab: (tab: ElementTab) => void;
  conditions: readonly OfferedCondition[];
  condition: EditCondition;
  onCondition: (condition: EditCondition) => void;
  proposal: RoleProposal | null;
  onDecided: () => void;
  onDrawer: () => void;
  onSelect: (key: string) => void;
  /** What is said while nothing is chosen. */
  nothing: ReactNode;
}

/** What there is to decide of one element: what it is, how it stretches, looks and what it shows; and what was decided. */
export function ElementPanels({
  screen,
  drawn,
  element,
  parent,
  tab,
  onTab,
  conditions,
  condition,
  onCondition,
  proposal,
  onDecided,
  onDrawer,
  onSelect,
  nothing,
}: ElementPanelsProps) {
  const project = useProject();
  const chosen = conditions.find(({ id }) => id === conditionId(condition)) ?? conditions[0];
  const edits = Object.keys(project.app.edits).filter(
    (key) => hostOf(project, parseEditKey(key)!.element) === screen.key,
  ).length;
  return (
    <>
      <Tabs role="tablist" aria-label="What to decide">
        {ELEMENT_TABS.map(({ id, label }) => (
          <button
            key={id}
            type="button"
            role="tab"
            id={`tab-${id}`}
            aria-selected={tab === id}
            aria-controls="workbench-panel"
            onClick={() => onTab(id)}
          >
            {label}
            {id === 'edits' && edits > 0 ? ` ${edits}` : ''}
          </button>
        ))}
      </Tabs>
      <Panel role="tabpanel" id="workbench-panel" aria-labelledby={`tab-${tab}`}>
        {tab === 'edits' ? (
          <EditsList screen={screen} onSelect={onSelect} />
        ) : !element ? (
          <Nothing>{nothing}</Nothing>
        ) : tab === 'role' ? (
          <RolePanel element={element} drawn={drawn} proposal={proposal} onDecided={onDecided} />
        ) : tab === 'shows' ? (
          <ShowsPanel key={element.key} element={element} />
        ) : (
          <>
            <section style={{ padding: '10px 16px' }}>
              <Choice
                label={`${labelOf(element)}, as it is`}
                value={chosen.id}
                options={conditions}
                onChange={(next) => onCondition(conditions.find(({ id }) => id === next)!.condition)}
              />
            </section>
            {tab === 'layout' ? (
              <LayoutPanel key={element.key} element={element} parent={parent} condition={chosen.condition} />
            ) : (
              <LookPanel
                key={element.key}
                element={element}
                parent={parent}
                condition={chosen.condition}
                screen={screen}
                onDrawer={onDrawer}
              />
            )}
          </>
        )}
      </Panel>
    </>
  );
}
