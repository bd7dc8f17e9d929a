import type { KeyboardEvent } from 'react';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { ChangedElsewhere } from '../ui/controls';
import { useTyped } from '../ui/use_typed';

const Box = styled.label<{ $isEdited: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  min-width: 0;
  font-size: 11.5px;
  color: ${color.ink2};
  span::after {
    content: '${({ $isEdited }) => ($isEdited ? ' ●' : '')}';
    color: ${color.lake};
  }
  > div {
    display: flex;
  }
  input[type='text'] {
    width: 100%;
    min-width: 0;
    height: 27px;
    padding: 2px 6px;
    border: 1px solid ${color.fieldRule};
    background: ${color.field};
    color: ${color.ink};
    font: 12px ${font.code};
  }
  input::placeholder {
    color: ${color.ink2};
    opacity: 0.8;
  }
  input[type='text'][aria-invalid='true'] {
    border-color: ${color.red};
  }
  input[type='color'] {
    flex: none;
    width: 28px;
    height: 27px;
    margin-right: -1px;
    padding: 2px;
    border: 1px solid ${color.fieldRule};
    background: ${color.field};
    cursor: pointer;
  }
`;

interface ValueFieldProps {
  label: string;
  value: string;
  isEdited: boolean;
  /** What holds where nothing is said. */
  otherwise?: string;
  /** A number alone is meant in this unit. */
  unit?: 'px' | '';
  isColor?: boolean;
  /** What may be entered; says what is wrong with the rest. */
  check?: (value: string) => boolean;
  onValue: (value: string | null) => void;
}

/** One value: it is taken with Enter or when the field is left; emptied, what was drawn holds again. */
export function ValueField({
  label,
  value,
  isEdited,
  otherwise,
  unit = '',
  isColor,
  check,
  onValue,
}: ValueFieldProps) {
  const { text, other, type, end } = useTyped(value);
  const typed = text === value ? null : text;
  const isWrong = typed !== null && typed.trim() !== '' && check !== undefined && !check(full(typed, unit));
  const take = (): void => {
    if (typed === null || isWrong) return;
    const next = full(typed, unit);
    end();
    if (next === value) return;
    if (next !== '' || isEdited) onValue(next === '' ? null : next);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    event.stopPropagation();
    if (event.key === 'Enter') take();
    else if (event.key === 'Escape') end();
    else if (unit === 'px' && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      const now = /^(-?[\d.]+)px$/.exec(full(typed ?? value, unit) || '0px');
      if (!now) return;
      event.preventDefault();
      const step = (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
      end();
      onValue(`${Math.round((Number(now[1]) + step) * 100) / 100}px`);
    }
  };
  return (
    <Box $isEdited={isEdited}>
      <span>{label}</span>
      <div>
        {isColor && (
          <input
            type="color"
            aria-label={`${label}, chosen from a palette`}
            value={hex(value || (otherwise ?? ''))}
            onChange={(event) => onValue(event.target.value)}
          />
        )}
        <input
          type="text"
          aria-label={label}
          aria-invalid={isWrong}
          placeholder={otherwise}
          value={text}
          onChange={(event) => type(event.target.value)}
          onBlur={take}
          onKeyDown={onKeyDown}
        />
      </div>
      {other !== null && <ChangedElsewhere other={other} onTake={end} />}
    </Box>
  );
}

const full = (typed: string, unit: string): string =>
  unit === 'px' && /^-?\d*\.?\d+$/.test(typed.trim()) ? `${typed.trim()}px` : typed.trim();

/** What a palette can show of a colour. */
function hex(value: string): string {
  if (/^#[0-9a-f]{6}([0-9a-f]{2})?$/i.test(value)) return value.slice(0, 7);
  const parts = /^rgba?\((\d+),? (\d+),? (\d+)/.exec(value);
  return parts
    ? `#${parts
        .slice(1, 4)
        .map((n) => Number(n).toString(16).padStart(2, '0'))
        .join('')}`
    : '#000000';
}
