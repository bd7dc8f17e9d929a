import {
  lookChanges,
  orderedScreens,
  parametersOf,
  putLook,
  type Screen,
  screensByKey,
  takeLook,
  type Token,
} from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { StationBody } from '../screens/StationView';
import { Button, Choice } from '../ui/controls';
import { Block, Row } from '../workbench/panel';
import { DressedApp } from './DressedApp';
import { Side, Waiting, Wall } from './wall';
import { useDressed } from './use_dressed';
import { useWish, WishPanel } from './WishPanel';

interface RuledLooksProps {
  /** The screens of the app. */
  screens: readonly Screen[];
  /** What recurs on them, by name. */
  values: Readonly<Record<string, Token>>;
}

/** How the app would look otherwise: made by rule from its own values, running beside each other; one is kept, others wait. */
export function RuledLooks({ screens, values }: RuledLooksProps) {
  const project = useProject();
  const { id, app, design, graph, session } = project;
  const { data: settings } = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity });
  const wish = useWish(screens, app.tokens);
  const { dresses } = wish;
  const [chosen, setChosen] = useState<string | null>(null);
  const worn = useMemo(
    () =>
      new Map([
        ['as-it-is', {}],
        ...dresses.map((dress) => [dress.id, lookChanges(dress.tokens, values)] as const),
      ]),
    [dresses, values],
  );
  const origin = settings
    ? `${window.location.protocol}//${window.location.hostname}:${settings.runPort}`
    : null;
  const { isThere, frameOf } = useDressed(origin, worn, app);

  // What has a parameter in its path is reached from another one.
  const shown = orderedScreens(app).filter(
    (key) => graph.screens.includes(key) && !parametersOf(app.screens[key].route).length,
  );
  const screen = chosen ?? (app.start && shown.includes(app.start) ? app.start : shown[0]);
  const { width = 1280, height = 800 } = screensByKey(design).get(screen ?? '') ?? {};
  const isSmall = width < 700;
  const shownHeight = isSmall ? Math.min(height, 760) : 800;
  const src = `${origin}/${id}~named${screen ? app.screens[screen].route : '/'}`;

  const keep = (name: string, tokens: Readonly<Record<string, Token>>): void =>
    session.change(`The look is ${name}`, takeLook(app, tokens, values));
  const putAside = (name: string, tokens: Readonly<Record<string, Token>>): void => {
    let n = 1;
    while (app.looks[`k${n}`]) n++;
    session.change(`Put the look ${name} aside`, putLook(`k${n}`, { name, tokens }));
  };
  const isAside = (tokens: Readonly<Record<string, Token>>): boolean =>
    Object.values(app.looks).some((look) => !Object.keys(lookChanges(look.tokens, tokens)).length);
  return (
    <StationBody $columns="248px minmax(0, 1fr)">
      <Side aria-label="What is tried">
        <WishPanel wish={wish}>
          {shown.length > 1 && (
            <Choice
              label="Seen on"
              value={screen}
              options={shown.map((key) => ({ id: key, label: app.screens[key].name }))}
              onChange={setChosen}
            />
          )}
        </WishPanel>
        <LooksAside onKeep={keep} />
      </Side>
      <Wall $least={isSmall ? 210 : 380} aria-label="Looks beside each other">
        {!isThere && <Waiting role="status">Building the app …</Waiting>}
        {origin && screen && (
          <DressedApp
            name="As it is"
            src={src}
            width={width}
            height={shownHeight}
            frame={frameOf('as-it-is')}
          >
            What is done in one is done in all.
          </DressedApp>
        )}
        {origin &&
          screen &&
          dresses.map(({ id: dress, name, tokens }) => (
            <DressedApp
              key={dress}
              name={name}
              src={src}
              width={width}
              height={shownHeight}
              frame={frameOf(dress)}
            >
              <Button $kind="primary" aria-label={`Keep ${name}`} onPress={() => keep(name, tokens)}>
                Keep
              </Button>
              <Button
                aria-label={`Put ${name} aside`}
                isDisabled={isAside(tokens)}
                onPress={() => putAside(name, tokens)}
              >
                {isAside(tokens) ? 'Is put aside' : 'Put aside'}
              </Button>
            </DressedApp>
          ))}
        {!dresses.length && (
          <Waiting>
            {wish.aspects.length
              ? 'Nothing on these screens recurs often enough to be made otherwise.'
              : 'Say what may differ.'}
          </Waiting>
        )}
      </Wall>
    </StationBody>
  );
}

/** Looks that wait: each can be kept, or removed. */
function LooksAside({ onKeep }: { onKeep: (name: string, tokens: Readonly<Record<string, Token>>) => void }) {
  const { app, session } = useProject();
  const aside = Object.entries(app.looks);
  return (
    <Block>
      <h3>Put aside</h3>
      {aside.length === 0 && <p>A look that is put aside waits here.</p>}
      <ul>
        {aside.map(([key, { name, tokens }]) => (
          <li key={key}>
            <b>{name}</b>
            <Row>
              <Button aria-label={`Keep ${name}`} onPress={() => onKeep(name, tokens)}>
                Keep
              </Button>
              <Button
                $kind="quiet"
                aria-label={`Remove ${name}`}
                onPress={() => session.change(`Remove the look ${name}`, putLook(key, null))}
              >
                Remove
              </Button>
            </Row>
          </li>
        ))}
      </ul>
    </Block>
  );
}
