import { ADDED_KINDS, type AddedKind, type Element, freeAddedKey, putAdded, type Screen } from '@tovel/core';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, ListSheet } from '../ui/controls';

const Item = styled(MenuItem)`
  padding: 6px 12px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${color.ink};
    color: ${color.onInk};
  }
`;

interface AddControlProps {
  screen: Screen;
  selected: Element | null;
  parent: Element | null;
  onAdded: (key: string) => void;
}

/** Puts a plain control after the chosen element, or at the end of the screen, in the style of the design's own. */
export function AddControl({ screen, selected, parent, onAdded }: AddControlProps) {
  const { app, session } = useProject();
  const add = (kind: AddedKind): void => {
    const key = freeAddedKey(app, screen.key);
    const after = selected && parent ? selected.key : screen.root.children.at(-1)?.key;
    session.change(
      `Add a ${ADDED_KINDS[kind].label.toLowerCase()}`,
      putAdded(key, {
        kind,
        screen: screen.key,
        text: ADDED_KINDS[kind].text,
        within: selected && parent ? parent.key : screen.root.key,
        ...(after ? { after } : {}),
      }),
    );
    onAdded(key);
  };
  return (
    <MenuTrigger>
      <Button as={AriaButton as never}>Add ▾</Button>
      <ListSheet>
        <Menu aria-label="Add a control" onAction={(kind) => add(kind as AddedKind)}>
          {Object.entries(ADDED_KINDS).map(([kind, { label }]) => (
            <Item key={kind} id={kind}>
              {label}
            </Item>
          ))}
        </Menu>
      </ListSheet>
    </MenuTrigger>
  );
}
