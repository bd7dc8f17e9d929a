import type { IntakeResult } from '@tovel/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import type { ChosenFile, Progress, RunningIntake } from './run_intake';
import { filesInInput } from './run_intake';

const Strip = styled.section<{ $isOver: boolean; $isLarge: boolean }>`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: ${({ $isLarge }) => ($isLarge ? '26px 24px' : '8px 18px')};
  margin: ${({ $isLarge }) => ($isLarge ? '18px 18px 0' : '0')};
  min-height: ${({ $isLarge }) => ($isLarge ? 104 : 56)}px;
  border: ${({ $isLarge, $isOver }) => ($isLarge || $isOver ? `1.5px dashed ${$isOver ? color.lake : color.fieldRule}` : '1.5px solid transparent')};
  border-bottom-color: ${({ $isLarge, $isOver }) => ($isOver ? color.lake : $isLarge ? color.fieldRule : color.rule)};
  background: ${({ $isOver }) => ($isOver ? color.lakeTint : color.sheet)};
  > div:first-child {
    flex: 1;
    min-width: 0;
  }
  h2 {
    font-size: 15px;
  }
  p {
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  label {
    display: flex;
    align-items: center;
    gap: 6px;
    white-space: nowrap;
    color: ${color.ink2};
  }
  progress {
    width: 100%;
    max-width: 420px;
    height: 8px;
    accent-color: ${color.lake};
  }
`;

/** Why a batch was not taken in, and how to try once more with what is held, where that can help. */
export interface Failure {
  readonly text: string;
  readonly again?: () => void;
}

interface BringInProps {
  isOver: boolean;
  isEmpty: boolean;
  running: RunningIntake | null;
  /** Whether an address is asked for its screens. */
  isAsking: boolean;
  progress: Progress | null;
  last: IntakeResult | null;
  failure: Failure | null;
  /** Whether the next batch is a whole round: what is not in it is gone. */
  isWhole: boolean;
  onWhole: (isWhole: boolean) => void;
  onFiles: (files: readonly ChosenFile[]) => void;
  onPaste: () => void;
  onLink: () => void;
}

/** The ways in: files, a folder, something pasted, an address; and how far a batch is. */
export function BringIn({
  isOver,
  isEmpty,
  running,
  isAsking,
  progress,
  last,
  failure,
  isWhole,
  onWhole,
  onFiles,
  onPaste,
  onLink,
}: BringInProps) {
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  return (
    <Strip $isOver={isOver} $isLarge={isEmpty && !running} aria-label="Bring screens in">
      <div role="status">
        {running ? (
          <Working progress={progress} />
        ) : isAsking ? (
          <h2>Asking for the next round …</h2>
        ) : (
          <Idle last={last} failure={failure} isEmpty={isEmpty} />
        )}
      </div>
      {running ? (
        <Button onPress={running.cancel}>Cancel</Button>
      ) : (
        <>
          {failure?.again && (
            <Button $kind="primary" onPress={failure.again}>
              Try again
            </Button>
          )}
          {!isEmpty && (
            <label title="What is not among them is gone; Iterate shows what that means before anything is taken in">
              <input type="checkbox" checked={isWhole} onChange={(event) => onWhole(event.target.checked)} />
              All screens, the whole next round
            </label>
          )}
          <Button $kind="quiet" onPress={onPaste}>
            Paste source
          </Button>
          <Button $kind="quiet" onPress={onLink}>
            From a link
          </Button>
          <Button onPress={() => folder.current?.click()}>Choose a folder</Button>
          <Button $kind={failure?.again ? 'quiet' : 'primary'} onPress={() => files.current?.click()}>
            Choose files
          </Button>
        </>
      )}
      <input
        ref={files}
        type="file"
        multiple
        hidden
        aria-label="Files"
        accept=".svg,.html,.htm,.css,.zip,.ora,.pdf,.png,.jpg,.jpeg,.webp,.gif,.avif,.woff,.woff2,.ttf,.otf,.md,.txt"
        onChange={(event) => choose(event.target, onFiles)}
      />
      <input
        ref={folder}
        type="file"
        hidden
        aria-label="Folder"
        {...{ webkitdirectory: '' }}
        onChange={(event) => choose(event.target, onFiles)}
      />
    </Strip>
  );
}

/** The same files can be chosen again only when the input has let go of them. */
function choose(input: HTMLInputElement, begin: (chosen: ChosenFile[]) => void): void {
  const chosen = filesInInput(input.files!);
  input.value = '';
  begin(chosen);
}

function Working({ progress }: { progress: Progress | null }) {
  if (!progress) return <h2>Opening the files …</h2>;
  const { step, done, total, file } = progress;
  return (
    <>
      <h2>
        {step === 'reading' ? 'Reading screens' : 'Keeping files'}: {done} of {total}
      </h2>
      <p>{file || '\u00a0'}</p>
      <progress value={done} max={Math.max(total, 1)} aria-label="Progress" />
    </>
  );
}

function Idle({
  last,
  failure,
  isEmpty,
}: {
  last: IntakeResult | null;
  failure: Failure | null;
  isEmpty: boolean;
}) {
  if (failure) {
    return (
      <>
        <h2 style={{ color: color.red }}>Not taken in</h2>
        <p title={failure.text} style={{ whiteSpace: 'normal' }}>
          {failure.text}
        </p>
      </>
    );
  }
  if (last) {
    const unread = last.notices.filter((notice) => notice.level === 'error').length;
    const count = `${last.screens.length} ${last.screens.length === 1 ? 'screen' : 'screens'}`;
    return (
      <>
        <h2>{last.wasCancelled ? 'Cancelled; nothing was added' : `${count} came in`}</h2>
        <p>
          {unread
            ? `${unread} ${unread === 1 ? 'file' : 'files'} could not be read; the list says why.`
            : 'Drop more whenever they come. What comes again opens at Iterate first.'}
        </p>
      </>
    );
  }
  return (
    <>
      <h2>{isEmpty ? 'Drop the screens here' : 'Drop more screens here'}</h2>
      <p>SVG, HTML with its style sheets, OpenRaster, PDF, PNG, JPEG, WebP: files, a folder, or a zip.</p>
    </>
  );
}
