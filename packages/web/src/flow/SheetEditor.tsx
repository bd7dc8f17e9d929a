import { completeFlow, type FlowProblem, type Project } from '@tovel/core';
import { type KeyboardEvent, type RefObject, useId, useMemo, useState } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { Completions } from '../ui/Completions';

const LINE = 19;
const SHOWN = 9;

const Scroller = styled.div`
  position: relative;
  min-height: 0;
  overflow: auto;
  background: ${color.field};
  border-top: 1px solid ${color.rule};
  font: 12.5px/${LINE}px ${font.code};
`;

const Body = styled.div`
  position: relative;
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  min-height: 100%;
  min-width: max-content;
`;

const Numbers = styled.ol`
  padding: 8px 8px 8px 0;
  text-align: right;
  color: ${color.ink2};
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  user-select: none;
  position: sticky;
  left: 0;
  z-index: 1;
  li[data-wrong] {
    color: ${color.onLake};
    background: ${color.red};
    font-weight: 700;
  }
`;

const Entry = styled.textarea`
  font: inherit;
  padding: 8px 12px;
  border: 0;
  background: none;
  color: ${color.ink};
  white-space: pre;
  overflow: hidden;
  resize: none;
  tab-size: 2;
  field-sizing: content;
  min-width: 100%;
  &:focus-visible {
    outline: 2px solid ${color.lake};
    outline-offset: -2px;
  }
`;

interface SheetEditorProps {
  readonly text: string;
  readonly project: Project;
  readonly problems: readonly FlowProblem[];
  readonly isReadOnly: boolean;
  readonly onType: (text: string) => void;
  readonly entry: RefObject<HTMLTextAreaElement | null>;
}

/** A flow sheet as one types it: lines with their numbers, those that cannot be read marked, words and names completed. */
export function SheetEditor({ text, project, problems, isReadOnly, onType, entry }: SheetEditorProps) {
  const [cursor, setCursor] = useState<number | null>(null);
  const [at, setAt] = useState(0);
  const id = useId();
  const wrong = useMemo(() => new Set(problems.map(({ line }) => line)), [problems]);
  const count = useMemo(() => text.split('\n').length, [text]);
  const { from, completions } = useMemo(
    () => (cursor === null ? { from: 0, completions: [] } : completeFlow(project, text, cursor)),
    [project, text, cursor],
  );
  const offered = completions.slice(0, SHOWN);
  const place = Math.min(at, Math.max(0, offered.length - 1));
  const before = text.slice(0, from).split('\n');
  const take = (completion: string): void => {
    const end = from + completion.length;
    const next = text.slice(0, from) + completion + text.slice(cursor ?? text.length);
    flushSync(() => {
      onType(next);
      setCursor(null);
    });
    entry.current?.setSelectionRange(end, end);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>): void => {
    if (!offered.length) {
      if (event.key === ' ' && event.ctrlKey) {
        event.preventDefault();
        setCursor(event.currentTarget.selectionStart);
        setAt(0);
      }
      return;
    }
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      setAt((place + step + offered.length) % offered.length);
    } else if (event.key === 'Tab' || event.key === 'Enter') {
      event.preventDefault();
      take(offered[place].text);
    } else if (event.key === 'Escape') {
      event.preventDefault();
      setCursor(null);
    }
  };
  return (
    <Scroller>
      <Body>
        <Numbers aria-hidden>
          {Array.from({ length: count }, (_, i) => (
            <li key={i} {...(wrong.has(i + 1) ? { 'data-wrong': true } : {})}>
              {i + 1}
            </li>
          ))}
        </Numbers>
        <Entry
          ref={entry}
          aria-label="Flow sheet"
          aria-invalid={problems.length > 0}
          aria-describedby={problems.length ? `${id}-problems` : undefined}
          aria-controls={`${id}-list`}
          aria-autocomplete="list"
          aria-activedescendant={offered.length ? `${id}-${place}` : undefined}
          spellCheck={false}
          readOnly={isReadOnly}
          value={text}
          rows={count}
          onChange={({ target }) => {
            onType(target.value);
            // Only what is begun is gone on with unasked.
            const isBegun = /[\w"]$/.test(target.value.slice(0, target.selectionStart));
            setCursor(isBegun ? target.selectionStart : null);
            setAt(0);
          }}
          onKeyDown={onKeyDown}
          onBlur={() => setCursor(null)}
          onPointerDown={() => setCursor(null)}
        />
        <Completions
          id={id}
          offered={offered}
          place={place}
          onTake={take}
          style={{
            top: 8 + before.length * LINE,
            left: `calc(${52 + 12}px + ${before.at(-1)!.length}ch)`,
            right: 'auto',
            bottom: 'auto',
            width: 340,
          }}
        />
      </Body>
      <span id={`${id}-problems`} hidden>
        {problems.length} {problems.length === 1 ? 'line' : 'lines'} cannot be read.
      </span>
    </Scroller>
  );
}
