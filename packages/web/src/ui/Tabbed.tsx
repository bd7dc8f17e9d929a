import type { ReactNode } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import styled from 'styled-components';
import { color } from '../theme/theme';

const List = styled(TabList)<{ $isEven: boolean }>`
  display: grid;
  grid-auto-flow: column;
  ${({ $isEven }) => ($isEven ? 'grid-auto-columns: 1fr' : 'justify-content: start; gap: 4px; padding: 0 12px')};
  border-bottom: 1px solid ${color.rule};
  [role='tab'] {
    display: flex;
    align-items: center;
    justify-content: center;
    min-height: 42px;
    padding: 0 6px;
    border-bottom: 3px solid transparent;
    border-top: 3px solid transparent;
    color: ${color.ink2};
    font-weight: 600;
    cursor: pointer;
    outline-offset: -4px;
  }
  [aria-selected='true'] {
    color: ${color.ink};
    border-bottom-color: ${color.ink};
  }
`;

const Panel = styled(TabPanel)<{ $isFilled: boolean }>`
  min-height: 0;
  ${({ $isFilled }) => ($isFilled ? 'display: grid; grid-template-rows: minmax(0, 1fr)' : 'overflow: auto')};
  > section:first-child {
    border-top: 0;
  }
`;

interface TabbedProps<T extends string> {
  readonly label: string;
  readonly tabs: readonly { readonly id: T; readonly label: ReactNode }[];
  readonly tab: T;
  readonly onTab: (tab: T) => void;
  /** Whether the tabs share all of the width. */
  readonly isEven?: boolean;
  /** Whether what it shows fills all of the room and scrolls by itself. */
  readonly isFilled?: boolean;
  /** What the chosen tab shows. */
  readonly children: ReactNode;
}

/** Tabs above what the chosen one shows, as two rows of the grid that they stand in. */
export function Tabbed<T extends string>({
  label,
  tabs,
  tab,
  onTab,
  isEven = false,
  isFilled = false,
  children,
}: TabbedProps<T>) {
  return (
    <Tabs selectedKey={tab} onSelectionChange={(key) => onTab(key as T)} style={{ display: 'contents' }}>
      <List aria-label={label} $isEven={isEven}>
        {tabs.map((one) => (
          <Tab key={one.id} id={one.id}>
            {one.label}
          </Tab>
        ))}
      </List>
      <Panel id={tab} $isFilled={isFilled}>
        {children}
      </Panel>
    </Tabs>
  );
}
