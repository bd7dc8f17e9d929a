import {
  Button as AriaButton,
  FieldError,
  Input as AriaInput,
  Label as AriaLabel,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
  Text,
  TextField as AriaTextField,
  type TextFieldProps,
} from 'react-aria-components';
import styled, { css } from 'styled-components';
import { color, font } from '../theme/theme';

interface ButtonLook {
  $kind?: 'primary' | 'quiet' | 'danger';
}

export const Button = styled(AriaButton)<ButtonLook>`
  font-weight: 600;
  font-size: 12.5px;
  min-height: 28px;
  padding: 4px 11px;
  border: 1px solid ${color.ink};
  border-radius: 0;
  background: ${color.sheet};
  color: ${color.ink};
  white-space: nowrap;
  cursor: pointer;
  &[data-hovered] {
    background: ${color.lakeTint};
  }
  &[aria-pressed='true'] {
    background: ${color.lakeTint};
    box-shadow: inset 0 -3px ${color.lake};
  }
  &[data-disabled] {
    border-color: ${color.rule};
    color: ${color.ink2};
    cursor: default;
  }
  ${({ $kind }) =>
    $kind === 'primary' &&
    css`
      background: ${color.lake};
      border-color: ${color.lake};
      color: ${color.onLake};
      &[data-hovered] {
        background: ${color.ink};
        border-color: ${color.ink};
        color: ${color.onInk};
      }
      &[data-disabled] {
        background: none;
        border-color: ${color.rule};
        color: ${color.ink2};
      }
    `}
  ${({ $kind }) =>
    $kind === 'quiet' &&
    css`
      border-color: transparent;
      background: none;
      text-decoration: underline;
      text-underline-offset: 2px;
      text-decoration-color: ${color.rule};
    `}
  ${({ $kind }) =>
    $kind === 'danger' &&
    css`
      border-color: ${color.red};
      color: ${color.red};
    `}
`;

export const fieldBox = css`
  width: 100%;
  min-height: 32px;
  padding: 5px 9px;
  border: 1px solid ${color.fieldRule};
  border-radius: 0;
  background: ${color.field};
  color: ${color.ink};
  &[data-disabled],
  &:disabled {
    border-color: ${color.rule};
    background: none;
    color: ${color.ink2};
    cursor: default;
  }
`;

export const Input = styled(AriaInput)`
  ${fieldBox}
`;

export const Label = styled(AriaLabel)`
  display: block;
  margin-bottom: 3px;
  font-size: 11.5px;
  color: ${color.ink2};
`;

const Problem = styled(FieldError)`
  display: block;
  margin-top: 4px;
  font-size: 12px;
  color: ${color.red};
`;

interface FieldProps extends Omit<TextFieldProps, 'children'> {
  label: string;
  problem?: string | null;
  hint?: string;
  isCode?: boolean;
  placeholder?: string;
  isLabelHidden?: boolean;
  /** What the value became elsewhere while somebody types here. */
  other?: string | null;
  onTakeOther?: () => void;
}

const Other = styled.span`
  display: block;
  margin-top: 4px;
  font-size: 12px;
  color: ${color.ochre};
  button {
    border: 0;
    padding: 0;
    background: none;
    font: inherit;
    color: ${color.lake};
    text-decoration: underline;
    cursor: pointer;
  }
`;

/** What a value became elsewhere, beside the field that it is typed over in. */
export function ChangedElsewhere({ other, onTake }: { other: string; onTake: () => void }) {
  const short = other.length > 60 ? `${other.slice(0, 60)}…` : other;
  return (
    <Other role="status">
      Changed elsewhere to “{short}”.{' '}
      <button
        type="button"
        aria-label={`Take “${short}” instead`}
        // The field keeps its text until this is pressed.
        onPointerDown={(event) => event.preventDefault()}
        onClick={onTake}
      >
        Take it
      </button>
    </Other>
  );
}

/** A text field with its label, and what is wrong with what it holds. */
export function Field({
  label,
  problem,
  hint,
  isCode,
  placeholder,
  isLabelHidden,
  other = null,
  onTakeOther,
  ...props
}: FieldProps) {
  return (
    // A problem is said; it does not keep a form from being sent again.
    <AriaTextField
      {...props}
      validationBehavior="aria"
      isInvalid={!!problem}
      {...(isLabelHidden ? { 'aria-label': label } : {})}
    >
      {!isLabelHidden && <Label>{label}</Label>}
      <Input placeholder={placeholder} style={isCode ? { fontFamily: font.code, fontSize: 12 } : undefined} />
      {other !== null && <ChangedElsewhere other={other} onTake={() => onTakeOther?.()} />}
      {hint && !problem && <Text slot="description">{hint}</Text>}
      <Problem>{problem}</Problem>
    </AriaTextField>
  );
}

const Trigger = styled(AriaButton)`
  ${fieldBox}
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: center;
  text-align: left;
  cursor: pointer;
`;

export const ListSheet = styled(Popover)`
  min-width: var(--trigger-width);
  max-height: 320px;
  overflow: auto;
  background: ${color.sheet};
  border: 1px solid ${color.ink};
`;

/** A line of a list that is chosen from. */
export const optionLook = css`
  padding: 6px 10px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${color.ink};
    color: ${color.onInk};
  }
`;

/** Buttons in one row, of which one is on. */
export const Segments = styled.div`
  display: flex;
  button + button {
    margin-left: -1px;
  }
  button[aria-pressed='true'] {
    background: ${color.ink};
    color: ${color.onInk};
    box-shadow: none;
  }
`;

const Option = styled(ListBoxItem)`
  ${optionLook}
  &[data-selected] {
    font-weight: 650;
  }
`;

interface ChoiceProps<K extends string> {
  label: string;
  value: K;
  options: readonly { readonly id: K; readonly label: string }[];
  onChange: (value: K) => void;
  isLabelHidden?: boolean;
  isDisabled?: boolean;
}

/** One of a few. */
export function Choice<K extends string>({
  label,
  value,
  options,
  onChange,
  isLabelHidden,
  isDisabled,
}: ChoiceProps<K>) {
  return (
    <Select
      value={value}
      onChange={(key) => key !== null && onChange(key as K)}
      isDisabled={isDisabled}
      {...(isLabelHidden ? { 'aria-label': label } : {})}
    >
      {!isLabelHidden && <Label>{label}</Label>}
      <Trigger>
        <SelectValue />
        <span aria-hidden="true">▾</span>
      </Trigger>
      <ListSheet>
        <ListBox items={options}>{(option) => <Option id={option.id}>{option.label}</Option>}</ListBox>
      </ListSheet>
    </Select>
  );
}
