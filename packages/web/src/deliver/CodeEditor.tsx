import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Entry, LINE, Lines, Numbers, NumberedScroller } from '../ui/numbered';

const Editor = styled.form`
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  background: ${color.field};
`;

const Foot = styled.footer`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 7px 16px;
  border-top: 1px solid ${color.rule};
  background: ${color.sheet};
  p {
    margin-right: auto;
    color: ${color.ink2};
  }
  p[role='alert'] {
    color: ${color.red};
  }
`;

/** A file that is written into; what it means is found out when it is saved. */
export function CodeEditor({
  path,
  text,
  draft,
  line,
  onType,
  onSave,
  onLeave,
}: {
  path: string;
  text: string;
  draft: string;
  /** Where the cursor begins, from 0. */
  line: number;
  onType: (text: string) => void;
  /** @throws Error, in words, where it cannot be saved */
  onSave: (text: string) => Promise<void>;
  onLeave: () => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [isSaving, setSaving] = useState(false);
  const entry = useRef<HTMLTextAreaElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const count = useMemo(() => draft.split('\n').length, [draft]);
  useEffect(() => {
    const area = entry.current!;
    const at = text.split('\n').slice(0, line).join('\n').length + (line > 0 ? 1 : 0);
    area.focus();
    area.setSelectionRange(at, at);
    const around = scroller.current!;
    around.scrollTop = Math.max(0, line * LINE - around.clientHeight / 2);
  }, []);
  const save = (): void => {
    if (isSaving) return;
    setSaving(true);
    setProblem(null);
    onSave(draft).catch((error: unknown) => {
      setProblem(error instanceof Error ? error.message : String(error));
      setSaving(false);
    });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    event.stopPropagation();
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) save();
    else if (event.key === 'Escape' && draft === text) onLeave();
    else return;
    event.preventDefault();
  };
  return (
    <Editor
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <NumberedScroller ref={scroller}>
        <Lines>
          <Numbers aria-hidden>
            {Array.from({ length: count }, (_, i) => (
              <li key={i}>{i + 1}</li>
            ))}
          </Numbers>
          <Entry
            ref={entry}
            aria-label={`Code of ${path}, to be written`}
            value={draft}
            onChange={(event) => onType(event.target.value)}
            onKeyDown={onKeyDown}
            spellCheck={false}
            autoCapitalize="off"
          />
        </Lines>
      </NumberedScroller>
      <Foot>
        {problem === null ? (
          <p>
            Texts, link targets and values become changes of the project; the rest is kept as you write it.
          </p>
        ) : (
          <p role="alert">{problem}</p>
        )}
        <Button onPress={onLeave}>Leave as it was</Button>
        <Button
          $kind="primary"
          type="submit"
          isDisabled={isSaving || draft === text}
          aria-keyshortcuts="Control+Enter"
        >
          {isSaving ? 'Reading …' : 'Save'}
        </Button>
      </Foot>
    </Editor>
  );
}
