import { ListBox, ListBoxItem, ListBoxSection, Header } from 'react-aria-components';
import styled from 'styled-components';
import { color, font } from '../../theme/theme';

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

export interface FileGroup {
  readonly title: string;
  readonly files: readonly { readonly path: string; readonly movedFrom?: string | undefined }[];
}

/** Files in groups, one of which is looked at. */
export function ChangedFiles({
  label,
  groups,
  selected,
  onSelect,
}: {
  label: string;
  groups: readonly FileGroup[];
  selected: string | null;
  onSelect: (path: string) => void;
}) {
  return (
    <Box
      aria-label={label}
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
