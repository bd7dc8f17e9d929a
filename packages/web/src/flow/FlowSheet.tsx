import { applyChange, type Change, printFlow, projectDifferences, readFlow } from '@tovel/core';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { SheetEditor } from './SheetEditor';

const Area = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
`;

const Beside = styled.aside`
  min-height: 0;
  overflow: auto;
  border-top: 1px solid ${color.rule};
  border-left: 1px solid ${color.rule};
  background: ${color.side};
  padding: 12px 16px;
  display: grid;
  align-content: start;
  gap: 12px;
  h3 {
    font-size: 13px;
    padding-bottom: 4px;
    border-bottom: 1px solid ${color.ink};
  }
  p {
    color: ${color.ink2};
  }
  li {
    padding: 5px 0;
    border-bottom: 1px solid ${color.rule};
  }
  li small {
    display: block;
    color: ${color.ink2};
  }
  li button {
    text-align: left;
    font: inherit;
    padding: 0;
    border: 0;
    background: none;
    color: ${color.red};
    cursor: pointer;
  }
  code {
    font: 12px ${font.code};
  }
`;

const Row = styled.div`
  display: flex;
  gap: 8px;
`;

const BECAME = { new: 'New', gone: 'Gone', changed: 'Changed' } as const;
/** So many differences are listed. */
const MOST_LISTED = 60;

/** All that the app does as one text, to be read and written: what it says differently can be taken over. */
export function FlowSheet() {
  const project = useProject();
  const { session, past, name } = project;
  const printed = useMemo(() => printFlow(project, name), [project.design, project.app, name]);
  const [typed, setTyped] = useState<string | null>(null);
  const entry = useRef<HTMLTextAreaElement>(null);
  const text = typed ?? printed;
  const looked = useDeferredValue(text);
  const { change, problems, untold } = useMemo(
    () => readFlow(project, looked),
    [project.design, project.app, looked],
  );
  const says = useMemo(
    () => (change ? projectDifferences(project, { ...project, app: applyChange(project.app, change) }) : []),
    [project.design, project.app, change],
  );
  const goTo = (line: number, column: number, length: number): void => {
    const start =
      text
        .split('\n')
        .slice(0, line - 1)
        .join('\n').length +
      (line > 1 ? 1 : 0) +
      column -
      1;
    entry.current?.focus();
    entry.current?.setSelectionRange(start, start + length);
  };
  const takeOver = (made: Change): void => {
    session.change('What the flow sheet says', made);
    setTyped(null);
  };
  return (
    <Area>
      <SheetEditor
        text={text}
        project={project}
        problems={problems}
        isReadOnly={past !== null}
        onType={setTyped}
        entry={entry}
      />
      <Beside aria-label="What the sheet says">
        {typed === null || text === printed ? (
          <>
            <h3>The app in words</h3>
            <p>
              One line for each link. Write here what shall be otherwise: a link, a route, a condition, a
              screen that is still to be drawn. <code>Ctrl</code> <code>Space</code> shows what can stand at
              the cursor.
            </p>
            <p>
              The delivered code holds this text as <code>flow-sheet.txt</code>, for reviews; what is changed
              there can be taken over here.
            </p>
          </>
        ) : problems.length ? (
          <>
            <h3>Cannot be read yet</h3>
            <ul aria-label="Problems">
              {problems.map(({ line, column, length, message }, i) => (
                <li key={i}>
                  <button type="button" onClick={() => goTo(line, column, length)}>
                    {message}
                  </button>
                  <small>
                    line {line}, column {column}
                  </small>
                </li>
              ))}
            </ul>
          </>
        ) : (
          <>
            <h3>{change ? 'What would be otherwise' : 'Says what is there already'}</h3>
            {change && (
              <ul aria-label="Changes">
                {says.slice(0, MOST_LISTED).map((one, i) => (
                  <li key={i}>
                    {one.label}
                    <small>{[BECAME[one.became], one.says].filter(Boolean).join(': ')}</small>
                  </li>
                ))}
                {says.length > MOST_LISTED && <li>and {says.length - MOST_LISTED} more</li>}
                {!says.length && <li>How screens and overlays open, or what is done on the way</li>}
              </ul>
            )}
            {untold.length > 0 && (
              <p>
                Not in the text, and left as {untold.length === 1 ? 'it is' : 'they are'}: {untold.join(', ')}
              </p>
            )}
          </>
        )}
        {typed !== null && text !== printed && (
          <Row>
            <Button
              $kind="primary"
              isDisabled={!change || looked !== text}
              onPress={() => change && takeOver(change)}
            >
              Take over
            </Button>
            <Button onPress={() => setTyped(null)}>Drop</Button>
          </Row>
        )}
      </Beside>
    </Area>
  );
}
