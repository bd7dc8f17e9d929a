import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button, ListSheet, optionLook } from './controls';

const Item = styled(MenuItem)`
  ${optionLook}
  &[data-disabled] {
    color: ${color.ink2};
    cursor: default;
  }
`;

export interface MenuAction {
  readonly id: string;
  readonly label: string;
  readonly isDisabled?: boolean;
  readonly act: () => void;
}

/** A button that opens a list of things to do. */
export function ActionMenu({
  label,
  ariaLabel,
  actions,
}: {
  label: string;
  /** What it is about, where the label alone does not say. */
  ariaLabel?: string;
  actions: readonly MenuAction[];
}) {
  return (
    <MenuTrigger>
      <Button as={AriaButton} $kind="quiet" aria-label={ariaLabel}>
        {label} <span aria-hidden="true">▾</span>
      </Button>
      <ListSheet>
        <Menu
          aria-label={ariaLabel ?? label}
          items={actions}
          onAction={(id) => actions.find((action) => action.id === id)?.act()}
          style={{ outline: 'none' }}
        >
          {(action) => (
            <Item id={action.id} isDisabled={action.isDisabled}>
              {action.label}
            </Item>
          )}
        </Menu>
      </ListSheet>
    </MenuTrigger>
  );
}
