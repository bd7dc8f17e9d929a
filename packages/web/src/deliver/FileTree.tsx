import type { EmittedFile } from '@tovel/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Tree, TreeItem, TreeItemContent } from 'react-aria-components';
import styled from 'styled-components';
import { color, font } from '../theme/theme';

interface Node {
  readonly path: string;
  readonly name: string;
  readonly children: Node[];
  /** What is said of it, such as that it is written once, for people to go on with. */
  note: string | null;
}

const Files = styled(Tree)`
  overflow: auto;
  padding: 0 0 12px;
  outline: none;
`;

const Yours = styled.em`
  flex: none;
  margin-left: 8px;
  font: italic 11px/1.4 ${font.text};
  opacity: 0.75;
`;

const Row = styled(TreeItem)`
  font: 12px/1.4 ${font.code};
  cursor: pointer;
  outline: none;
  padding: 3px 12px 3px calc(2px + var(--tree-item-level) * 12px);
  &[data-selected] {
    background: ${color.ink};
    color: ${color.onInk};
  }
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px ${color.lake};
  }
  &[data-hovered]:not([data-selected]) {
    background: ${color.lakeTint};
  }
  div,
  div > span {
    display: flex;
    min-width: 0;
    white-space: nowrap;
  }
  div > span {
    flex: 1;
  }
  [data-name] {
    flex: 0 1 auto;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  button,
  [data-space] {
    flex: none;
    width: 14px;
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
  }
`;

function nest(files: readonly EmittedFile[], notes: ReadonlyMap<string, string>): Node[] {
  const root: Node = { path: '', name: '', children: [], note: null };
  for (const file of files) {
    const { path } = file;
    const note = notes.get(path) ?? ('text' in file && file.owner === 'yours' ? 'yours' : null);
    let at = root;
    path.split('/').forEach((name, i, parts) => {
      const full = parts.slice(0, i + 1).join('/');
      let next = at.children.find((child) => child.path === full);
      if (!next)
        at.children.push((next = { path: full, name, children: [], note: full === path ? note : null }));
      at = next;
    });
  }
  const sort = (node: Node): void => {
    node.children.sort(
      (a, b) => Number(!!b.children.length) - Number(!!a.children.length) || (a.name < b.name ? -1 : 1),
    );
    node.children.forEach(sort);
  };
  sort(root);
  // A folder that is closed says how much of what is in it is told of.
  const count = (node: Node): number => {
    if (!node.children.length) return notes.has(node.path) ? 1 : 0;
    const inside = node.children.reduce((sum, child) => sum + count(child), 0);
    if (inside) node.note = String(inside);
    return inside;
  };
  count(root);
  return root.children;
}

/** The emitted files as folders; folders before files. */
export function FileTree({
  files,
  notes,
  selected,
  onSelect,
}: {
  files: readonly EmittedFile[];
  /** What is said of files, by path. */
  notes: ReadonlyMap<string, string>;
  selected: string;
  onSelect: (path: string) => void;
}) {
  const nodes = useMemo(() => nest(files, notes), [files, notes]);
  const [open, setOpen] = useState<readonly string[]>(() => ['src', 'src/screens', ...parentsOf(selected)]);
  const tree = useRef<HTMLDivElement>(null);
  // The file that is shown is in sight, also where what stands beneath the tree takes room later.
  useEffect(() => {
    const show = (): void =>
      tree.current
        ?.querySelector(`[data-key="${CSS.escape(selected)}"]`)
        ?.scrollIntoView({ block: 'nearest' });
    show();
    const watch = new ResizeObserver(show);
    if (tree.current) watch.observe(tree.current);
    return () => watch.disconnect();
  }, [selected]);
  const item = (node: Node): React.ReactNode => (
    <Row
      key={node.path}
      id={node.path}
      textValue={
        node.note === null ? node.name : `${node.name}, ${node.note}${node.children.length ? ' of note' : ''}`
      }
    >
      <TreeItemContent>
        {({ isExpanded }) => (
          <span>
            {node.children.length ? (
              <Button slot="chevron" aria-label={isExpanded ? 'Close' : 'Open'}>
                {isExpanded ? '▾' : '▸'}
              </Button>
            ) : (
              <span data-space />
            )}
            <span data-name title={node.name}>
              {node.name}
            </span>
            {node.note !== null && !(isExpanded && node.children.length) && <Yours>{node.note}</Yours>}
          </span>
        )}
      </TreeItemContent>
      {node.children.map(item)}
    </Row>
  );
  const isFolder = (path: string): boolean => !files.some((file) => file.path === path);
  return (
    <Files
      ref={tree}
      aria-label="Files"
      selectionMode="single"
      selectionBehavior="replace"
      selectedKeys={[selected]}
      expandedKeys={[...open, ...parentsOf(selected)]}
      onExpandedChange={(keys) => setOpen([...keys].map(String))}
      onSelectionChange={(keys) => {
        const [path] = keys === 'all' ? [] : [...keys].map(String);
        if (!path) return;
        if (isFolder(path))
          setOpen((now) => (now.includes(path) ? now.filter((key) => key !== path) : [...now, path]));
        else onSelect(path);
      }}
    >
      {nodes.map(item)}
    </Files>
  );
}

const parentsOf = (path: string): string[] =>
  path
    .split('/')
    .slice(0, -1)
    .map((_, i, parts) => parts.slice(0, i + 1).join('/'));
