import {
  conditionsOf,
  describeWhen,
  isUsed,
  orderedScreens,
  parametersOf,
  putScreen,
  type ScreenEntry,
} from '@tovel/core';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { NewCondition } from '../junction/WhenFields';
import { SavedField } from '../ui/SavedField';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';

const Panel = styled.div`
  border-top: 2px solid ${color.ink};
  padding: 10px 16px 14px;
  display: grid;
  gap: 10px;
  max-height: 340px;
  overflow: auto;
  > b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Line = styled.div`
  display: flex;
  gap: 12px;
  align-items: center;
`;

const OPEN = 'always';
const NEW = 'new';

/** What the chosen route needs: values of its parameters, and a condition to be entered. */
export function RouteDetails({ screen, onRoute }: { screen: string; onRoute: () => void }) {
  const project = useProject();
  const { app, base, session } = project;
  const [isNaming, setNaming] = useState(false);
  const entry = app.screens[screen];
  const { guard } = entry;
  const others = orderedScreens(app).filter((key) => key !== screen && isUsed(project, key));
  const save = (label: string, next: ScreenEntry): void => session.change(label, putScreen(screen, next));
  const guarded = (condition: string, is: boolean): void =>
    save(`Guard ${entry.name}`, {
      ...entry,
      guard: { condition, is, otherwise: guard?.otherwise ?? signInOf(app, others) },
    });
  return (
    <Panel role="region" aria-label={`Route of ${entry.name}`}>
      <b title={entry.name}>{entry.name}</b>
      <Line>
        <Button onPress={onRoute}>Change the route</Button>
        <Link to={`${base}/junction/${screen}`}>Open in Junction</Link>
      </Line>
      {parametersOf(entry.route).map((name) => (
        <SavedField
          key={name}
          label={`Shown with :${name}`}
          isCode
          value={entry.params?.[name] ?? ''}
          onSave={(text) => {
            const { [name]: _old, ...rest } = entry.params ?? {};
            const params = text.trim() ? { ...rest, [name]: text.trim() } : rest;
            save(`Show ${entry.name} with ${text.trim() || 'nothing'}`, { ...entry, params });
          }}
        />
      ))}
      {isNaming ? (
        <NewCondition
          onDone={(condition) => {
            setNaming(false);
            if (condition) guarded(condition, true);
          }}
        />
      ) : (
        <Choice
          label="Can be entered"
          value={guard ? `${guard.condition} ${guard.is}` : OPEN}
          options={[
            { id: OPEN, label: 'always' },
            ...conditionsOf(app).flatMap((condition) =>
              [true, false].map((is) => ({
                id: `${condition} ${is}`,
                label: describeWhen(app.variables, { condition, is }),
              })),
            ),
            { id: NEW, label: 'if something new is so …' },
          ]}
          onChange={(next) => {
            if (next === NEW) return setNaming(true);
            const { guard: _guard, ...rest } = entry;
            if (next === OPEN) save(`Let everybody into ${entry.name}`, rest);
            else guarded(next.split(' ')[0], next.endsWith('true'));
          }}
        />
      )}
      {guard && (
        <Choice
          label="Else shows"
          value={guard.otherwise}
          options={others.map((key) => ({ id: key, label: app.screens[key].name }))}
          onChange={(otherwise) =>
            save(`Show another screen instead of ${entry.name}`, { ...entry, guard: { ...guard, otherwise } })
          }
        />
      )}
    </Panel>
  );
}

/** The screen that asks who one is, if one is called so; else the start. */
const signInOf = (app: ReturnType<typeof useProject>['app'], others: readonly string[]): string =>
  others.find((key) => /\b(sign|log) ?in\b/i.test(app.screens[key].name)) ?? app.start ?? others[0];
