import { type KeyboardEvent, type Ref, useId, useState } from 'react';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { fieldBox, Label } from './controls';

export interface Suggestion {
  readonly id: string;
  readonly label: string;
  readonly detail: string;
}

const Box = styled.div`
  position: relative;
`;

const Entry = styled.input`
  ${fieldBox}
`;

/** What can be chosen, above or below the field that it is chosen in. */
export const SuggestionList = styled.ul<{ $above?: boolean; $isStatic?: boolean }>`
  position: ${({ $isStatic }) => ($isStatic ? 'static' : 'absolute')};
  ${({ $above }) => ($above ? 'bottom: 100%;' : 'top: 100%;')}
  left: 0;
  right: 0;
  z-index: 20;
  max-height: 296px;
  overflow: auto;
  background: ${color.sheet};
  border: 1px solid ${color.ink};
  li {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    padding: 6px 10px;
    cursor: pointer;
  }
  li span:last-child {
    color: ${color.ink2};
    font: 12px/1.45 ${font.code};
    white-space: nowrap;
  }
  li[aria-selected='true'] {
    background: ${color.ink};
    color: ${color.onInk};
  }
  li[aria-selected='true'] span:last-child {
    color: ${color.onInk2};
  }
`;

const Nothing = styled.p`
  padding: 6px 10px;
  color: ${color.ink2};
`;

interface SuggestProps {
  label: string;
  value: string;
  onType: (value: string) => void;
  suggestions: readonly Suggestion[];
  onTake: (suggestion: Suggestion) => void;
  onLeave?: () => void;
  nothing: string;
  placeholder?: string;
  isLabelHidden?: boolean;
  isAbove?: boolean;
  /** Whether the list stays open, as part of the page. */
  isStatic?: boolean;
  /** Whether the value is being typed, so that focus must not mark it for replacement. */
  isTyped?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  autoFocus?: boolean;
}

/** Type, and take the first that fits with Enter: the combobox of the ARIA Authoring Practices, list autocomplete. */
export function Suggest({
  label,
  value,
  onType,
  suggestions,
  onTake,
  onLeave,
  nothing,
  placeholder,
  isLabelHidden,
  isAbove = false,
  isStatic = false,
  isTyped = false,
  inputRef,
  autoFocus,
}: SuggestProps) {
  const id = useId();
  const [isOpen, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const shows = isOpen || isStatic;
  const active = Math.min(at, suggestions.length - 1);

  const take = (suggestion: Suggestion | undefined): void => {
    if (!suggestion) return;
    setOpen(false);
    onTake(suggestion);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const move = (by: number): void => {
      event.preventDefault();
      if (!shows) setOpen(true);
      else setAt((active + by + suggestions.length) % Math.max(suggestions.length, 1));
    };
    if (event.key === 'ArrowDown') move(1);
    else if (event.key === 'ArrowUp') move(-1);
    else if (event.key === 'Enter') {
      event.preventDefault();
      event.stopPropagation();
      if (shows) take(suggestions[active]);
      else setOpen(true);
    } else if (event.key === 'Escape' && (isOpen || onLeave)) {
      event.preventDefault();
      event.stopPropagation();
      setOpen(false);
      onLeave?.();
    }
  };

  return (
    <Box>
      {!isLabelHidden && (
        <Label id={`${id}-label`} htmlFor={`${id}-input`}>
          {label}
        </Label>
      )}
      <Entry
        id={`${id}-input`}
        ref={inputRef}
        role="combobox"
        autoFocus={autoFocus}
        autoComplete="off"
        spellCheck={false}
        placeholder={placeholder}
        aria-label={isLabelHidden ? label : undefined}
        aria-expanded={shows}
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        aria-activedescendant={shows && suggestions[active] ? `${id}-${active}` : undefined}
        value={value}
        onChange={(event) => {
          setAt(0);
          setOpen(true);
          onType(event.target.value);
        }}
        onFocus={(event) => !isTyped && event.target.select()}
        onBlur={() => setOpen(false)}
        onKeyDown={onKeyDown}
      />
      {shows && (
        <SuggestionList
          id={`${id}-list`}
          role="listbox"
          aria-label={label}
          $above={isAbove}
          $isStatic={isStatic}
        >
          {suggestions.map((suggestion, i) => (
            <li
              key={suggestion.id}
              id={`${id}-${i}`}
              role="option"
              aria-selected={i === active}
              ref={(li) => {
                if (li && i === active) li.scrollIntoView?.({ block: 'nearest' });
              }}
              onPointerDown={(event) => event.preventDefault()}
              onPointerMove={() => setAt(i)}
              onClick={() => take(suggestion)}
            >
              <span>{suggestion.label}</span>
              <span>{suggestion.detail}</span>
            </li>
          ))}
          {!suggestions.length && <Nothing>{nothing}</Nothing>}
        </SuggestionList>
      )}
    </Box>
  );
}
