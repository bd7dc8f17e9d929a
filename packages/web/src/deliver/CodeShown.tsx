import { type EmittedFile, placeOfElement, type Screen } from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { ElementPicture } from '../picture/ElementPicture';
import { color } from '../theme/theme';
import { Empty } from '../ui/Empty';
import { useCodeChanges, useDeliveries } from './changes/use_code_changes';
import { Figures } from './Figures';
import { FileTree } from './FileTree';
import type { Drafts } from './use_drafts';
import type { EmittedNow } from './use_emitted';
import { WrittenFile } from './WrittenFile';

const Waiting = styled.p`
  padding: 10px 12px 12px;
  border-top: 1px solid ${color.rule};
  color: ${color.ink2};
  font-size: 12px;
`;

interface CodeShownProps {
  written: EmittedNow;
  emitted: NonNullable<EmittedNow['emitted']>;
  current: EmittedFile;
  /** The screen that the file is of, and the element that is chosen of it, by key. */
  screen: Screen | undefined;
  element: string | null;
  drafts: Drafts;
  onPath: (path: string) => void;
  onElement: (key: string | null) => void;
}

/** The files of the code, one of them, and the screen that it makes. */
export function CodeShown({
  written: { isWhole, problem },
  emitted,
  current,
  screen,
  element,
  drafts,
  onPath,
  onElement,
}: CodeShownProps) {
  const deliveries = useDeliveries();
  // Both are written by one worker: what is looked at comes first.
  const since = useCodeChanges(isWhole ? (deliveries.data?.[0] ?? null) : null);
  const notes = useMemo(
    () =>
      new Map([
        ...(since.changes ?? []).flatMap(({ path: file, fate }) =>
          fate === 'removed' ? [] : [[file, fate === 'new' ? 'new' : 'changed'] as const],
        ),
        ...(emitted.handWritten ?? []).flatMap(({ file, conflicts }) =>
          file === null ? [] : [[file, conflicts.length ? 'to decide' : 'by hand'] as const],
        ),
        ...[...drafts.of.keys()].map((file) => [file, 'not saved'] as const),
      ]),
    [emitted, drafts.of, since.changes],
  );
  const placeOf = (key: string) => screen && placeOfElement(emitted.files, current.path, screen, key);
  const place = element === null ? null : placeOf(element);
  const isHere = place?.path === current.path && 'text' in current;
  return (
    <>
      <nav aria-label="Files of the code">
        <FileTree
          files={emitted.files}
          notes={notes}
          selected={current.path}
          onSelect={(next) => {
            onPath(next);
            onElement(null);
          }}
        />
        {isWhole ? <Figures emitted={emitted} /> : <Waiting role="status">Tidying the code …</Waiting>}
      </nav>
      {'text' in current ? (
        <WrittenFile
          file={current}
          emitted={emitted}
          isWhole={isWhole}
          problem={problem}
          drafts={drafts}
          element={isHere ? (current.lines?.[place.line] ?? null) : element}
          line={isHere ? place.line : 0}
          onElement={onElement}
        />
      ) : (
        <Empty title={current.path.replace(/^.*\//, '')} text="A picture; it is in the zip." />
      )}
      {screen && (
        <ElementPicture
          screen={screen}
          element={element}
          onPick={(key) => {
            onElement(key);
            const found = placeOf(key);
            // What is written into a file is gone on with there.
            if (found && !drafts.of.has(current.path)) onPath(found.path);
          }}
        />
      )}
    </>
  );
}
