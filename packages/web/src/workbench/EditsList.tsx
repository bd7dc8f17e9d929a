import {
  all,
  conditionInWords,
  editsByElement,
  elementsByKey,
  hostOf,
  labelOf,
  putEdit,
  editKey,
  type Screen,
} from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';

const List = styled.ul`
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 8px;
    align-items: center;
    padding: 5px 16px;
    border-top: 1px solid ${color.rule};
  }
  button:first-child {
    border: 0;
    padding: 0;
    background: none;
    text-align: left;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    cursor: pointer;
  }
  code {
    display: block;
    font: 11.5px ${font.code};
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** All edits on a screen; each can be taken back by itself. */
export function EditsList({ screen, onSelect }: { screen: Screen; onSelect: (key: string) => void }) {
  const project = useProject();
  const { app, session } = project;
  const index = elementsByKey(screen);
  const edits = [...editsByElement(app.edits)]
    .filter(([element]) => hostOf(project, element) === screen.key)
    .flatMap(([, list]) => list);
  if (!edits.length)
    return (
      <p style={{ padding: '8px 16px 14px', color: color.ink2 }}>
        Nothing is changed here yet. Choose an element and change how it stretches or looks; each change lies
        on top of the design and can be taken back.
      </p>
    );
  return (
    <>
      <List aria-label="Edits on this screen">
        {edits.map((edit) => {
          const element = index.get(edit.element);
          const name = element ? labelOf(element) : 'an element that is gone';
          const key = editKey(edit.element, edit.property, edit.condition);
          return (
            <li key={key}>
              <button type="button" onClick={() => onSelect(edit.element)} title={name}>
                {name}
                <code>
                  {edit.property}: {edit.value}
                  {edit.condition.kind === 'always' ? '' : `, ${conditionInWords(edit.condition)}`}
                </code>
              </button>
              <Button
                aria-label={`Take back ${edit.property} of ${name}`}
                onPress={() => session.change(`Take back ${edit.property} of ${name}`, putEdit(key, null))}
              >
                Take back
              </Button>
            </li>
          );
        })}
      </List>
      <div style={{ padding: '8px 16px 14px' }}>
        <Button
          $kind="quiet"
          onPress={() =>
            session.change(
              `Take back all edits of ${screen.name}`,
              all(edits.map((edit) => putEdit(editKey(edit.element, edit.property, edit.condition), null))),
            )
          }
        >
          Take all {edits.length} back
        </Button>
      </div>
    </>
  );
}
