import { completeFlow, type FlowProblem, type Project } from '@tovel/core';
import { type KeyboardEvent, type RefObject, useId, useMemo, useState } from 'react';
import { flushSync } from 'react-dom';
import { Completions } from '../ui/Completions';
import { Entry, LINE, Lines, Numbers, NumberedScroller as Scroller } from '../ui/numbered';

const SHOWN = 9;

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
      <Lines>
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
      </Lines>
      <span id={`${id}-problems`} hidden>
        {problems.length} {problems.length === 1 ? 'line' : 'lines'} cannot be read.
      </span>
    </Scroller>
  );
}
