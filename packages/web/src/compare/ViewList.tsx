import { screenName, type View } from '@tovel/core';
import { Header, ListBox, ListBoxItem, ListBoxSection } from 'react-aria-components';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { viewId } from './use_compared';

const List = styled(ListBox)`
  min-height: 0;
  overflow: auto;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  outline-offset: -2px;
  header {
    padding: 8px 16px 3px;
    font-size: 12.5px;
    font-weight: 650;
    overflow-wrap: anywhere;
  }
`;

const Row = styled(ListBoxItem)`
  display: flex;
  justify-content: space-between;
  padding: 4px 16px;
  font: 12px/1.5 ${font.code};
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  outline-offset: -3px;
  &[data-hovered] {
    background: ${color.lakeTint};
  }
  &[data-selected] {
    background: ${color.ink};
    color: ${color.onInk};
  }
`;

/** All views, by screen, each with a note. */
export function ViewList({
  views,
  selected,
  noteOf,
  onSelect,
}: {
  views: readonly View[];
  selected: View;
  /** What is said beside a view, short and as it is read out. */
  noteOf: (view: View) => readonly [short: string, long: string];
  onSelect: (view: View) => void;
}) {
  const project = useProject();
  const groups = new Map<string, View[]>();
  for (const view of views) groups.set(view.screen, [...(groups.get(view.screen) ?? []), view]);
  return (
    <List
      aria-label="Screens and widths"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[viewId(selected)]}
      onSelectionChange={(keys) => {
        const [key] = keys === 'all' ? [] : [...keys];
        const next = views.find((view) => viewId(view) === key);
        if (next) onSelect(next);
      }}
    >
      {[...groups].map(([screen, own]) => (
        <ListBoxSection key={screen} id={`of ${screen}`}>
          <Header>{screenName(project, screen)}</Header>
          {own.map((view) => {
            const [short, long] = noteOf(view);
            return (
              <Row
                key={viewId(view)}
                id={viewId(view)}
                textValue={`${screenName(project, screen)} at ${view.width}`}
                aria-label={`${screenName(project, screen)} at ${view.width}: ${long}`}
              >
                <span>{view.width} px</span>
                <span>{short}</span>
              </Row>
            );
          })}
        </ListBoxSection>
      ))}
    </List>
  );
}
