import { putSynonym } from '@tovel/core';
import { useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button, Field } from '../ui/controls';

const Form = styled.form`
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
  align-items: start;
  margin: 12px 0;
  button {
    margin-top: 19px;
    min-height: 32px;
  }
`;

const List = styled.ul`
  max-height: 260px;
  overflow: auto;
  li {
    display: flex;
    align-items: center;
    padding: 6px 0;
    border-top: 1px solid ${color.rule};
  }
  span {
    margin-right: auto;
  }
`;

/** Words that mean the same in this project, for what is proposed. */
export function WordsSheet({ onClose }: { onClose: () => void }) {
  const { app, session } = useProject();
  const [word, setWord] = useState('');
  const [same, setSame] = useState('');
  const key = word.trim().toLowerCase();
  const problem = key && !/^[\p{L}\p{N}-]{1,60}$/u.test(key) ? 'One word, without spaces.' : null;
  return (
    <Sheet title="Words that mean the same" onClose={onClose}>
      <p>Elements are compared with the names of screens; here is what your words mean.</p>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          if (!key || problem || !same.trim()) return;
          session.change(`“${key}” means “${same.trim()}”`, putSynonym(key, same.trim()));
          setWord('');
          setSame('');
        }}
      >
        <Field label="Word" autoFocus value={word} onChange={setWord} placeholder="shed" problem={problem} />
        <Field label="Means" value={same} onChange={setSame} placeholder="tools" />
        <Button type="submit" $kind="primary">
          Add
        </Button>
      </Form>
      <List>
        {Object.entries(app.synonyms).map(([from, to]) => (
          <li key={from}>
            <span>
              {from} = {to}
            </span>
            <Button onPress={() => session.change(`“${from}” means itself`, putSynonym(from, null))}>
              Remove
            </Button>
          </li>
        ))}
      </List>
    </Sheet>
  );
}
