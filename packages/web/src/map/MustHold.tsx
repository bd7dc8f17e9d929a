import {
  conditionsOf,
  type MustHold as Rule,
  mustHoldInWords,
  putMustHold,
  screenName,
  uniqueName,
} from '@tovel/core';
import styled from 'styled-components';
import { useFound, useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';

const List = styled.ul`
  display: grid;
  li {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  span {
    flex: 1;
  }
  i {
    color: ${color.ink2};
    font-style: normal;
    white-space: nowrap;
  }
  i[data-holds='false'] {
    color: ${color.red};
  }
`;

const Chosen = styled.div`
  max-width: 360px;
  margin-top: 8px;
`;

/** Stands for stating nothing. */
const NOTHING = 'nothing';

/** What is stated of one screen and has to hold whatever is pressed, and whether it does. */
export function MustHold({ screen }: { screen: string }) {
  const project = useProject();
  const { app, graph, session, past } = project;
  const { findings } = useFound();
  const stated = Object.entries(app.mustHold).filter(([, rule]) => rule.screen === screen);
  const broken = new Set(
    findings.flatMap(({ code, id }) => (code === 'must-hold' ? [id.split(' ').at(-1)] : [])),
  );
  const options = [
    // What is worked out can be the one and the other, whatever is pressed.
    ...conditionsOf(app)
      .filter((condition) => app.variables[condition].says === undefined)
      .flatMap((condition) =>
        [true, false].map((is) => ({
          id: `unless ${condition} ${is}`,
          label: `${app.variables[condition].name} is ${is ? 'true' : 'not true'}`,
          rule: { kind: 'unless', screen, condition, is } as Rule,
        })),
      ),
    ...graph.screens
      .filter((key) => key !== screen)
      .map((gate) => ({
        id: `through ${gate}`,
        label: `one has been on ${screenName(project, gate)}`,
        rule: { kind: 'through', screen, gate } as Rule,
      })),
  ].filter(({ rule }) => !stated.some(([, one]) => JSON.stringify(one) === JSON.stringify(rule)));
  const state = (id: string): void => {
    const chosen = options.find((one) => one.id === id);
    if (!chosen) return;
    const key = uniqueName('hold', (one) => app.mustHold[one] !== undefined);
    session.change(`State that ${mustHoldInWords(project, chosen.rule)}`, putMustHold(key, chosen.rule));
  };
  return (
    <>
      {stated.length > 0 && (
        <List aria-label="Stated">
          {stated.map(([id, rule]) => (
            <li key={id}>
              <span>{capital(mustHoldInWords(project, rule))}.</span>
              <i data-holds={!broken.has(id)}>{broken.has(id) ? 'does not hold' : 'holds'}</i>
              {past === null && (
                <Button
                  $kind="quiet"
                  aria-label={`No longer state that ${mustHoldInWords(project, rule)}`}
                  onPress={() =>
                    session.change(
                      `No longer state that ${mustHoldInWords(project, rule)}`,
                      putMustHold(id, null),
                    )
                  }
                >
                  Drop
                </Button>
              )}
            </li>
          ))}
        </List>
      )}
      {past === null && options.length > 0 && (
        <Chosen>
          <Choice
            label="State that nobody is here unless"
            value={NOTHING}
            options={[{ id: NOTHING, label: 'choose what has to hold …' }, ...options]}
            onChange={state}
          />
        </Chosen>
      )}
    </>
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
