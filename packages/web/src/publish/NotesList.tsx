import { findElement, hostOf, labelOf, type Note, screenName } from '@tovel/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Field } from '../ui/controls';
import { useNotes } from './use_notes';

const Side = styled.aside`
  padding: 16px;
  background: ${color.side};
  border-left: 1px solid ${color.rule};
  ul {
    display: grid;
    gap: 14px;
  }
  > p {
    color: ${color.ink2};
  }
`;

const Entry = styled.li<{ $isSettled: boolean }>`
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: ${color.sheet};
  border: 1px solid ${color.rule};
  border-left: 4px solid ${({ $isSettled }) => ($isSettled ? color.rule : color.lake)};
  overflow-wrap: anywhere;
  small {
    color: ${color.ink2};
  }
`;

const Row = styled.div`
  display: flex;
  gap: 8px;
`;

/** What visitors of the published app said of its elements; answered and settled here. */
export function NotesList() {
  const { notes, waiting } = useNotes();
  const [hasSettled, setSettled] = useState(false);
  const shown = notes.filter(({ settledAt }) => hasSettled || settledAt === null);
  const settled = notes.length - waiting;
  return (
    <Side aria-label="Notes of visitors">
      <h3>Notes {waiting > 0 && <span>· {waiting} waiting</span>}</h3>
      {!notes.length && <p>None yet. They come here, and into the strip below, as visitors leave them.</p>}
      <ul aria-label="Notes">
        {shown.map((note) => (
          <OneNote key={note.id} note={note} />
        ))}
      </ul>
      {settled > 0 && (
        <Button $kind="quiet" onPress={() => setSettled(!hasSettled)}>
          {hasSettled ? 'Hide what is settled' : `Show ${settled} settled`}
        </Button>
      )}
    </Side>
  );
}

function OneNote({ note }: { note: Note }) {
  const project = useProject();
  const { id, base, design, session } = project;
  const [answer, setAnswer] = useState(note.answer ?? '');
  const save = useMutation({
    mutationFn: (isSettled: boolean) => api.answerNote(id, note.id, answer.trim() || null, isSettled),
    onSuccess: () => session.hear({ kind: 'noted', project: id }),
  });
  const element = note.element === null ? null : findElement(design, note.element);
  const screen = element ? hostOf(project, note.element!) : note.screen;
  const isSettled = note.settledAt !== null;
  const at = new Date(note.leftAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
  return (
    <Entry $isSettled={isSettled}>
      <p>{note.text}</p>
      <small>
        {note.author || 'A visitor'}, {at}, version {note.version}
      </small>
      <small>
        {element && screen ? (
          <Link to={`${base}/junction/${screen}?element=${encodeURIComponent(note.element!)}`}>
            “{labelOf(element)}” on {screenName(project, screen)}
          </Link>
        ) : (
          <>
            {screen ? screenName(project, screen) : note.path}
            {note.element === null ? '' : ', at an element that is gone'}
          </>
        )}
      </small>
      <Field label="Answer" value={answer} onChange={setAnswer} />
      <Row>
        <Button onPress={() => save.mutate(isSettled)} isDisabled={answer.trim() === (note.answer ?? '')}>
          Answer
        </Button>
        <Button onPress={() => save.mutate(!isSettled)}>{isSettled ? 'Open again' : 'Settle'}</Button>
      </Row>
      {save.error && <small role="alert">{save.error.message}</small>}
    </Entry>
  );
}
