import {
  conditionInWords,
  type EditCondition,
  type Element,
  hostOf,
  labelOf,
  overriddenAt,
  parseEditKey,
  type RoleProposal,
  type Screen,
} from '@tovel/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Choice } from '../ui/controls';
import { Tabbed } from '../ui/Tabbed';
import { conditionId, type OfferedCondition } from './conditions';
import { EditsList } from './EditsList';
import { LayoutPanel } from './LayoutPanel';
import { LookPanel } from './LookPanel';
import { RolePanel } from './RolePanel';
import { ShowsPanel } from './ShowsPanel';

const Nothing = styled.p`
  padding: 14px 16px;
  color: ${color.ink2};
`;

const Otherwise = styled.ul`
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 4px;
  font-size: 12px;
  color: ${color.ink2};
  button {
    padding: 0;
    border: 0;
    background: none;
    color: ${color.lake};
    font: inherit;
    text-decoration: underline;
    cursor: pointer;
  }
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
  /** Of the window in which the element is seen, in CSS px. */
  width: number;
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
  width,
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
    <Tabbed
      label="What to decide"
      tabs={ELEMENT_TABS.map(({ id, label }) => ({
        id,
        label: id === 'edits' && edits > 0 ? `${label} ${edits}` : label,
      }))}
      tab={tab}
      onTab={onTab}
      isEven
    >
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
            <SaidOtherwise
              element={element}
              condition={chosen.condition}
              width={width}
              onCondition={onCondition}
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
    </Tabbed>
  );
}

/** So many properties are called by their names. */
const NAMED = 3;

/** What at the width that is looked at is said otherwise than where it would be changed, and a way there. */
function SaidOtherwise({
  element,
  condition,
  width,
  onCondition,
}: Pick<ElementPanelsProps, 'condition' | 'width' | 'onCondition'> & { element: Element }) {
  const found = overriddenAt(element.style, condition, width);
  if (!found.length) return null;
  return (
    <Otherwise aria-label={`Said otherwise at ${width} px`}>
      {found.map(({ condition: other, values }) => {
        const names = Object.keys(values);
        const more = names.length - NAMED;
        return (
          <li key={conditionId(other)}>
            At {width} px other values hold of {names.slice(0, NAMED).join(', ')}
            {more > 0 ? ` and ${more} more` : ''}:{' '}
            <button type="button" onClick={() => onCondition(other)}>
              change those {conditionInWords(other)}
            </button>
          </li>
        );
      })}
    </Otherwise>
  );
}
