import { completionsAt, type KnownNames, parseExpression } from '@tovel/core';
import { type KeyboardEvent, useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { fieldBox } from '../ui/controls';
import { Completions } from '../ui/Completions';

const Box = styled.div`
  position: relative;
`;

const Entry = styled.input`
  ${fieldBox}
  font: 12px ${font.code};
`;

const Problem = styled.p`
  padding-top: 3px;
  color: ${color.red};
  font-size: 12px;
  code {
    font: 12px ${font.code};
    text-decoration: underline wavy ${color.red};
  }
`;

/** What is read of an expression, with what else is wrong with all of it. */
function checked(
  text: string,
  known: KnownNames,
  problemOf?: (source: string) => string | null,
): ReturnType<typeof parseExpression> {
  const parsed = parseExpression(text, known);
  const message = parsed.problem ? null : problemOf?.(text);
  return message ? { problem: { message, start: 0, end: 0 } } : parsed;
}

/** More completions than this are not shown. */
const MOST_SHOWN = 12;

interface ExpressionFieldProps {
  readonly label: string;
  readonly value: string;
  readonly known: KnownNames;
  readonly placeholder?: string;
  /** What is wrong with an expression that can be read. */
  readonly problemOf?: (source: string) => string | null;
  /** Is called with an expression that can be read, when it is left or entered. */
  readonly onSave: (source: string) => void;
}

/** An expression as one types it: completed by what there is, and checked letter by letter. */
export function ExpressionField({
  label,
  value,
  known,
  placeholder,
  problemOf,
  onSave,
}: ExpressionFieldProps) {
  const [text, setText] = useState(value);
  const [before, setBefore] = useState(value);
  const [cursor, setCursor] = useState<number | null>(null);
  const [at, setAt] = useState(0);
  const entry = useRef<HTMLInputElement>(null);
  const id = useId();
  if (before !== value) {
    setBefore(value);
    setText(value);
  }
  const parsed = checked(text, known, problemOf);
  const { from, completions } =
    cursor === null ? { from: 0, completions: [] } : completionsAt(text, cursor, known);
  const offered = completions.slice(0, MOST_SHOWN);
  const place = Math.min(at, Math.max(0, offered.length - 1));
  const take = (completion: string): void => {
    const next = text.slice(0, from) + completion + text.slice(cursor ?? text.length);
    const end = from + completion.length;
    // What is typed next goes behind it.
    flushSync(() => {
      setText(next);
      setCursor(null);
    });
    entry.current?.setSelectionRange(end, end);
  };
  const save = (): void => {
    setCursor(null);
    if (text !== value && !parsed.problem) onSave(text);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const isOpen = offered.length > 0;
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (isOpen && step !== undefined) {
      event.preventDefault();
      setAt((place + step + offered.length) % offered.length);
    } else if (isOpen && (event.key === 'Tab' || event.key === 'Enter')) {
      event.preventDefault();
      take(offered[place].text);
    } else if (event.key === 'Enter') save();
    else if (event.key === 'Escape') {
      if (isOpen) setCursor(null);
      else setText(value);
    }
  };
  return (
    <Box>
      <Entry
        ref={entry}
        role="combobox"
        aria-label={label}
        aria-expanded={offered.length > 0}
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        aria-activedescendant={offered.length ? `${id}-${place}` : undefined}
        aria-invalid={!!parsed.problem}
        aria-describedby={parsed.problem ? `${id}-problem` : undefined}
        spellCheck={false}
        placeholder={placeholder}
        value={text}
        onChange={({ target }) => {
          setText(target.value);
          setCursor(target.selectionStart);
          setAt(0);
        }}
        onKeyDown={onKeyDown}
        onBlur={save}
      />
      <Completions id={id} offered={offered} place={place} onTake={take} />
      {parsed.problem && (
        <Problem id={`${id}-problem`} role="status">
          {text.slice(parsed.problem.start, parsed.problem.end).trim() && (
            <>
              <code>{text.slice(parsed.problem.start, parsed.problem.end)}</code>:{' '}
            </>
          )}
          {parsed.problem.message}
        </Problem>
      )}
    </Box>
  );
}
