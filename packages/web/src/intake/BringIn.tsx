import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import type { IntakeStanding } from './intake_run';
import type { ChosenFile, Progress } from './run_intake';
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

interface BringInProps {
  isOver: boolean;
  isEmpty: boolean;
  intake: IntakeStanding;
  /** Whether an address is asked for its screens. */
  isAsking: boolean;
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
  intake,
  isAsking,
  isWhole,
  onWhole,
  onFiles,
  onPaste,
  onLink,
}: BringInProps) {
  const { running, progress, failure } = intake;
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
          <Idle intake={intake} isEmpty={isEmpty} />
        )}
      </div>
      {running ? (
        <>
          {progress?.step === 'reading' && progress.done > 0 && (
            <Button onPress={running.stop}>Stop, keep what is read</Button>
          )}
          {(!progress || progress.step === 'reading') && <Button onPress={running.cancel}>Cancel</Button>}
        </>
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
  const seconds = useSeconds(progress?.file ?? '');
  if (!progress) return <h2>Opening the files …</h2>;
  const { step, done, total, file } = progress;
  return (
    <>
      <h2>
        {step === 'taking'
          ? `Working out what ${total} ${total === 1 ? 'screen is' : 'screens are'} and share …`
          : `${step === 'reading' ? 'Reading screens' : 'Keeping files'}: ${done} of ${total}`}
      </h2>
      <p>
        {file || '\u00a0'}
        {seconds >= LONG && (file ? ` takes long, ${seconds} s until now` : `${seconds} s until now`)}
      </p>
      {step === 'taking' ? (
        <progress aria-label="Progress" />
      ) : (
        <progress value={done} max={Math.max(total, 1)} aria-label="Progress" />
      )}
    </>
  );
}

/** What takes longer, in seconds, is said to. */
const LONG = 3;

/** Seconds since something is what it is. */
function useSeconds(what: string): number {
  const [since, setSince] = useState({ what, seconds: 0 });
  useEffect(() => {
    const began = performance.now();
    setSince({ what, seconds: 0 });
    const timer = setInterval(
      () => setSince({ what, seconds: Math.floor((performance.now() - began) / 1000) }),
      1000,
    );
    return () => clearInterval(timer);
  }, [what]);
  return since.what === what ? since.seconds : 0;
}

function Idle({ intake: { last, took, failure }, isEmpty }: { intake: IntakeStanding; isEmpty: boolean }) {
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
        <h2>
          {last.wasCancelled && !last.screens.length ? 'Cancelled; nothing was added' : `${count} came in`}
        </h2>
        <p>
          {last.screens.length > 0 && took >= LONG * 1000 && `In ${Math.round(took / 1000)} s. `}
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
