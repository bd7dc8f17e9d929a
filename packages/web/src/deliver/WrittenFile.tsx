import type { EmittedFile } from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Code } from './Code';
import { CodeEditor } from './CodeEditor';
import { GoneFiles, HandWritten } from './HandWritten';
import { OneFile } from './OneFile';
import type { Drafts } from './use_drafts';
import type { EmittedNow } from './use_emitted';

const One = styled.div`
  min-width: 0;
  min-height: 0;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  > div > p {
    padding: 7px 16px;
    color: ${color.ink2};
    border-bottom: 1px solid ${color.rule};
    overflow-wrap: anywhere;
  }
`;

interface WrittenFileProps {
  file: Extract<EmittedFile, { readonly text: string }>;
  emitted: NonNullable<EmittedNow['emitted']>;
  isWhole: boolean;
  problem: string | null;
  drafts: Drafts;
  /** The element that is marked in it, by key, and the line where writing begins, from 0. */
  element: string | null;
  line: number;
  onElement: (key: string | null) => void;
}

/** A file of the code, to read and to write into, with what is said of it. */
export function WrittenFile({
  file: { path, text, lines },
  emitted,
  isWhole,
  problem,
  drafts,
  element,
  line,
  onElement,
}: WrittenFileProps) {
  const { past } = useProject();
  const draft = drafts.of.get(path);
  const isEditing = draft !== undefined;
  const part = emitted.handWritten?.find(({ file }) => file === path);
  return (
    <One>
      <OneFile
        emitted={emitted}
        path={path}
        text={text}
        {...(isEditing || past !== null || !isWhole
          ? {}
          : {
              onEdit: () => drafts.begin(path, text),
            })}
      />
      <div>
        {problem !== null && (
          <p role="alert">This is the code of a moment ago. It could not be written anew: {problem}</p>
        )}
        {emitted.unread?.map((unread) => (
          <p key={unread} role="alert">
            {unread}. This file is as it was written first, and will not build.
          </p>
        ))}
        {drafts.told !== null && !isEditing && <p role="status">{drafts.told}</p>}
        {part && !isEditing && <HandWritten part={part} />}
        <GoneFiles parts={emitted.handWritten ?? []} />
      </div>
      {isEditing ? (
        <CodeEditor
          key={path}
          path={path}
          text={text}
          line={line}
          onSave={(written) => drafts.save(path, written)}
          draft={draft}
          onType={(written) => drafts.put(path, written)}
          onLeave={() => drafts.put(path, null)}
        />
      ) : (
        <Code path={path} text={text} lines={lines ?? []} element={element} onLine={onElement} />
      )}
    </One>
  );
}
