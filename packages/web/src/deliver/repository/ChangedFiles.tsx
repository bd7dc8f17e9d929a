import type { Fate, PushPlan } from '@tovel/core';
import { ListBox, ListBoxItem, ListBoxSection, Header } from 'react-aria-components';
import styled from 'styled-components';
import { color, font } from '../../theme/theme';

type File = PushPlan['files'][number];

const Box = styled(ListBox)`
  min-height: 0;
  overflow: auto;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  outline-offset: -2px;
  header {
    position: sticky;
    top: 0;
    padding: 9px 16px 6px;
    font-size: 13px;
    font-weight: 650;
    background: ${color.side};
    border-bottom: 1px solid ${color.ink};
  }
`;

const Row = styled(ListBoxItem)`
  display: grid;
  gap: 1px;
  padding: 5px 16px;
  border-bottom: 1px solid ${color.rule};
  cursor: pointer;
  outline-offset: -3px;
  b {
    font: 600 12px/1.4 ${font.code};
    overflow-wrap: anywhere;
  }
  small {
    font: 11px/1.4 ${font.code};
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &[data-hovered] {
    background: ${color.lakeTint};
  }
  &[data-selected] {
    background: ${color.ink};
    color: ${color.onInk};
    small {
      color: ${color.onInk2};
    }
  }
`;

/** What becomes of files, the most to be looked at first. */
const GROUPS: readonly { readonly fate: Fate | 'asked'; readonly title: string }[] = [
  { fate: 'asked', title: 'To be decided' },
  { fate: 'merged', title: 'Merged with theirs' },
  { fate: 'updated', title: 'Written anew' },
  { fate: 'new', title: 'New' },
  { fate: 'removed', title: 'Taken away' },
  { fate: 'kept', title: 'Theirs, left as they are' },
  { fate: 'left-out', title: 'Taken away by them, left out' },
];

/** Files of a plan in groups, by what becomes of them. */
export function filesByFate(plan: PushPlan, answered: (ask: string) => boolean) {
  const asked = new Set(plan.asks.filter(({ id }) => !answered(id)).map(({ path }) => path));
  return GROUPS.map(({ fate, title }) => ({
    title,
    files: plan.files.filter((file) => (asked.has(file.path) ? fate === 'asked' : file.fate === fate)),
  })).filter(({ files }) => files.length);
}

export function ChangedFiles({
  groups,
  selected,
  onSelect,
}: {
  groups: readonly { readonly title: string; readonly files: readonly File[] }[];
  selected: string | null;
  onSelect: (path: string) => void;
}) {
  return (
    <Box
      aria-label="Files that would change"
      selectionMode="single"
      selectionBehavior="replace"
      selectedKeys={selected === null ? [] : [selected]}
      onSelectionChange={(keys) => {
        const [path] = keys === 'all' ? [] : [...keys].map(String);
        if (path) onSelect(path);
      }}
    >
      {groups.map(({ title, files }) => (
        <ListBoxSection key={title}>
          <Header>
            {title} · {files.length}
          </Header>
          {files.map(({ path, movedFrom }) => (
            <Row key={path} id={path} textValue={path}>
              <b>{path.replace(/^.*\//, '')}</b>
              <small>
                {movedFrom === undefined
                  ? path.replace(/\/?[^/]*$/, '') || 'around the sources'
                  : `was ${movedFrom}`}
              </small>
            </Row>
          ))}
        </ListBoxSection>
      ))}
    </Box>
  );
}
