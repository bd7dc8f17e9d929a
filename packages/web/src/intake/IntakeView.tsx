import type { IntakeResult, Notice } from '@tovel/core';
import { type DragEvent, useRef, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import {
  type ChosenFile,
  filesInDrop,
  filesInInput,
  type Progress,
  type RunningIntake,
  startIntake,
} from './run_intake';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
  grid-template-rows: auto minmax(0, 1fr);
`;

const Drop = styled.section<{ $isOver: boolean }>`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 16px 18px;
  padding: 22px 24px;
  min-height: 96px;
  border: 1.5px dashed ${({ $isOver }) => ($isOver ? color.lake : color.fieldRule)};
  background: ${({ $isOver }) => ($isOver ? color.lakeTint : color.sheet)};
  > div {
    margin-right: auto;
  }
  h2 {
    font-size: 15px;
  }
  p {
    color: ${color.ink2};
  }
  progress {
    width: 100%;
    height: 8px;
    accent-color: ${color.lake};
  }
`;

const Column = styled.section`
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  border-top: 1px solid ${color.rule};
  & + & {
    border-left: 1px solid ${color.rule};
    background: ${color.side};
  }
  h2 {
    position: sticky;
    top: 0;
    background: inherit;
    padding: 12px 18px 8px;
    font-size: 15px;
    display: flex;
    justify-content: space-between;
    span {
      font-size: 11.5px;
      font-weight: 600;
      color: ${color.ink2};
    }
  }
  li {
    display: grid;
    gap: 2px 14px;
    padding: 7px 18px;
    border-top: 1px solid ${color.rule};
  }
  small {
    font: 12px ${font.code};
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Level = styled.span<{ $level: Notice['level'] }>`
  font-size: 12px;
  font-weight: 650;
  color: ${({ $level }) => ({ error: color.red, warning: color.ochre, info: color.ink2 })[$level]};
`;

const LEVEL_WORDS: Record<Notice['level'], string> = {
  error: 'not read',
  warning: 'incomplete',
  info: 'left out',
};
const ORDER: Record<Notice['level'], number> = { error: 0, warning: 1, info: 2 };

/** Bring screens in, and see what came, what was left out and why. */
export function IntakeView() {
  const { session, design, app, id } = useProject();
  const [running, setRunning] = useState<RunningIntake | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [last, setLast] = useState<IntakeResult | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [isOver, setOver] = useState(false);
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);

  const begin = (chosen: readonly ChosenFile[]): void => {
    if (!chosen.length || running) return;
    setFailure(null);
    setLast(null);
    const started = startIntake(session, chosen, setProgress);
    setRunning(started);
    started.finished
      .then(setLast, (error: Error) =>
        setFailure(`The batch was read but could not be kept: ${error.message} Bring it in again.`),
      )
      .finally(() => {
        setRunning(null);
        setProgress(null);
      });
  };
  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void filesInDrop(event.dataTransfer).then(begin);
  };

  // Notices of a batch that brought no screens are not part of the design, but still have to be read.
  const unkept = last && (!last.screens.length || last.wasCancelled) ? last.notices : [];
  const notices = [...unkept, ...design.notices].sort((a, b) => ORDER[a.level] - ORDER[b.level]);
  const kept = design.screens.filter((screen) => app.screens[screen.key]);

  return (
    <View>
      <Drop
        $isOver={isOver}
        aria-label="Bring screens in"
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
      >
        <div style={{ flex: 1 }} role="status">
          {running ? (
            <Working progress={progress} />
          ) : (
            <Idle last={last} failure={failure} isEmpty={!kept.length} />
          )}
        </div>
        {running ? (
          <Button onPress={running.cancel}>Cancel</Button>
        ) : (
          <>
            <Button onPress={() => folder.current?.click()}>Choose a folder</Button>
            <Button $kind="primary" onPress={() => files.current?.click()}>
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
          accept=".svg,.html,.htm,.css,.zip,.png,.jpg,.jpeg,.webp,.gif"
          onChange={(event) => choose(event.target, begin)}
        />
        <input
          ref={folder}
          type="file"
          hidden
          aria-label="Folder"
          {...{ webkitdirectory: '' }}
          onChange={(event) => choose(event.target, begin)}
        />
      </Drop>
      <Column aria-label="Screens that came in">
        <h2>
          Came in <span>{kept.length} screens</span>
        </h2>
        <ul>
          {kept.map((screen) => (
            <li key={screen.key} style={{ gridTemplateColumns: '1fr auto' }}>
              <Link to={`/p/${id}/junction/${screen.key}`}>{app.screens[screen.key].name}</Link>
              <span>
                {screen.width} × {Math.round(screen.height)}
              </span>
              <small title={screen.source.file}>{screen.source.file}</small>
            </li>
          ))}
        </ul>
      </Column>
      <Column aria-label="What was left out">
        <h2>
          Left out or not read <span>{notices.length}</span>
        </h2>
        {!notices.length && <p style={{ padding: '0 18px', color: color.ink2 }}>Nothing was left out.</p>}
        <ul>
          {notices.map((notice, i) => (
            <li key={i} style={{ gridTemplateColumns: '76px 1fr' }}>
              <Level $level={notice.level}>{LEVEL_WORDS[notice.level]}</Level>
              <span>{notice.message}</span>
              <span />
              <small title={notice.file}>{notice.file}</small>
            </li>
          ))}
        </ul>
      </Column>
    </View>
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
      <p>{file || ' '}</p>
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
  failure: string | null;
  isEmpty: boolean;
}) {
  if (failure) {
    return (
      <>
        <h2 style={{ color: color.red }}>Not taken in</h2>
        <p>{failure}</p>
      </>
    );
  }
  if (last) {
    const unread = last.notices.filter((notice) => notice.level === 'error').length;
    return (
      <>
        <h2>
          {last.wasCancelled
            ? 'Cancelled; nothing was added'
            : `${last.screens.length} ${last.screens.length === 1 ? 'screen' : 'screens'} came in`}
        </h2>
        <p>
          {unread
            ? `${unread} ${unread === 1 ? 'file' : 'files'} could not be read; the list says why.`
            : 'Drop more here whenever they come.'}
        </p>
      </>
    );
  }
  return (
    <>
      <h2>{isEmpty ? 'Drop the screens here' : 'Drop more screens here'}</h2>
      <p>SVG drawings and HTML pages with their style sheets and pictures: files, a folder, or a zip.</p>
    </>
  );
}
