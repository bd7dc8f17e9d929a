import { isUsed, normaliseRoute, orderedScreens, putRedirect, routeProblem } from '@tovel/core';
import { useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color, font } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';

const Form = styled.form`
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
  align-items: start;
  margin-bottom: 12px;
  button[type='submit'] {
    margin-top: 19px;
    min-height: 32px;
  }
`;

const List = styled.ul`
  max-height: 300px;
  overflow: auto;
  li {
    display: flex;
    gap: 12px;
    align-items: center;
    padding: 8px 0;
    border-top: 1px solid ${color.rule};
  }
  span {
    margin-right: auto;
  }
  code {
    font: 12px ${font.code};
  }
`;

/** Paths that no screen lives at, and the screens they lead on to. */
export function RedirectSheet({ onClose }: { onClose: () => void }) {
  const project = useProject();
  const { app, session } = project;
  const screens = orderedScreens(app).filter((key) => isUsed(project, key));
  const [from, setFrom] = useState('');
  const [to, setTo] = useState(app.start ?? screens[0]);
  const [wasTried, setTried] = useState(false);
  const path = normaliseRoute(from);
  const problem = app.redirects[path] ? 'This path redirects already.' : routeProblem(app, '', from);
  const add = (): void => {
    setTried(true);
    if (problem) return;
    session.change(`Redirect ${path} to ${app.screens[to].name}`, putRedirect(path, { to }));
    setFrom('');
    setTried(false);
  };
  return (
    <Sheet title="Redirects" onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <Field
          label="From"
          isCode
          autoFocus
          placeholder="/home"
          value={from}
          onChange={setFrom}
          problem={from || wasTried ? problem : null}
        />
        <Choice
          label="To"
          value={to}
          options={screens.map((key) => ({ id: key, label: app.screens[key].name }))}
          onChange={setTo}
        />
        <Button type="submit" $kind="primary">
          Redirect
        </Button>
      </Form>
      <List>
        {Object.entries(app.redirects).map(([key, redirect]) => (
          <li key={key}>
            <span>
              <code>{key}</code> → {app.screens[redirect.to]?.name ?? 'a screen that is gone'}
            </span>
            <Button onPress={() => session.change(`No redirect from ${key}`, putRedirect(key, null))}>
              Remove
            </Button>
          </li>
        ))}
      </List>
    </Sheet>
  );
}
