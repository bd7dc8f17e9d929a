import { decideHandWritten, type HandWrittenPart, putHandWritten } from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';

const Told = styled.div`
  display: grid;
  gap: 8px;
  max-height: 40vh;
  overflow: auto;
  padding: 8px 16px;
  border-bottom: 1px solid ${color.rule};
  background: ${color.side};
  > div {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  p {
    margin-right: auto;
  }
  li {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 8px;
    padding: 6px 0;
    border-top: 1px solid ${color.rule};
  }
  small {
    color: ${color.ink2};
  }
  pre {
    max-height: 120px;
    overflow: auto;
    margin-top: 2px;
    padding: 5px 8px;
    border: 1px solid ${color.rule};
    background: ${color.field};
    font: 12px/1.5 ${font.code};
    white-space: pre-wrap;
  }
`;

/** Gives up what was written by hand into a file. */
function TakeBack({ path, children }: { path: string; children: string }) {
  const { session } = useProject();
  return (
    <Button
      $kind="quiet"
      onPress={() =>
        session.change(`Take back what is written by hand in ${path}`, putHandWritten(path, null))
      }
    >
      {children}
    </Button>
  );
}

/** What of a file is written by hand, and what has to be decided of it. */
export function HandWritten({ part }: { part: HandWrittenPart }) {
  const { app, session } = useProject();
  const { path, conflicts } = part;
  const decide = (side: 'theirs' | 'ours', label: string): void =>
    session.change(label, decideHandWritten(app, part, side));
  return (
    <Told role="group" aria-label="Written by hand">
      <div>
        {conflicts.length === 0 ? (
          <p>Written by hand in part: that is put into whatever the design makes of the file.</p>
        ) : (
          <p>
            The design says {conflicts.length === 1 ? 'one place' : `${conflicts.length} places`} otherwise by
            now. What you wrote stands there until you decide.
          </p>
        )}
        {conflicts.length > 0 && (
          <>
            <Button onPress={() => decide('theirs', `Keep what is written by hand in ${path}`)}>
              Keep what I wrote
            </Button>
            <Button onPress={() => decide('ours', `Take the design’s in ${path}`)}>Take the design’s</Button>
          </>
        )}
        <TakeBack path={path}>Take it all back</TakeBack>
      </div>
      {conflicts.length > 0 && (
        <ul aria-label="To be decided">
          {conflicts.map((conflict) => (
            <li key={conflict.id}>
              {(['theirs', 'ours'] as const).map((side) => (
                <div key={side}>
                  <small>{side === 'theirs' ? `You, line ${conflict.line}` : 'The design now'}</small>
                  <pre>{conflict[side] ?? 'nothing'}</pre>
                </div>
              ))}
            </li>
          ))}
        </ul>
      )}
    </Told>
  );
}

/** Files that something was written into and that are not made any more; nothing of it is lost while the project lives. */
export function GoneFiles({ parts }: { parts: readonly HandWrittenPart[] }) {
  const gone = parts.filter(({ file }) => file === null);
  if (!gone.length) return null;
  return (
    <Told role="group" aria-label="Written by hand, without a file">
      {gone.map(({ path }) => (
        <div key={path}>
          <p>
            What you wrote into <code>{path}</code> has no file any more. It comes back with the file.
          </p>
          <TakeBack path={path}>Give it up</TakeBack>
        </div>
      ))}
    </Told>
  );
}
