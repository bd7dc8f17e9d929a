import {
  addressOfScreen,
  alternativesOf,
  isUsed,
  keepAlternative,
  orderedScreens,
  putUse,
  screensByKey,
  wiredWithout,
} from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { StationBody } from '../screens/StationView';
import { Button, Choice } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { Block } from '../workbench/panel';
import { DressedApp } from './DressedApp';
import { useDressed } from './use_dressed';
import { Side, Waiting, Wall } from './wall';

/** A screen as it was drawn in several ways, each running in its place; one is kept, the others wait. */
export function DrawnAlternatives() {
  const project = useProject();
  const { id, app, design, session, base } = project;
  const { data: settings } = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity });
  const [chosen, setChosen] = useQueryParam('screen', '');
  const mains = orderedScreens(app).filter(
    (key) => isUsed(project, key) && alternativesOf(app, key).length > 0,
  );
  const screen = mains.includes(chosen) ? chosen : mains[0];
  const others = screen === undefined ? [] : alternativesOf(app, screen);
  const origin = settings
    ? `${window.location.protocol}//${window.location.hostname}:${settings.runPort}`
    : null;
  const worn = useMemo(() => new Map(['', ...others].map((key) => [key, {}])), [others.join()]);
  const { isThere, frameOf } = useDressed(origin, worn, app);
  if (screen === undefined)
    return (
      <Empty
        title="No screen is drawn in several ways"
        text="Choose a drawing at Intake and press A: it becomes an alternative of the screen that it is another drawing of."
      >
        <Link to={`${base}/intake`}>To Intake</Link>
      </Empty>
    );
  const entry = app.screens[screen];
  const path = addressOfScreen(project, screen);
  const drawings = screensByKey(design);
  const isSmall = (drawings.get(screen)?.width ?? 1280) < 700;
  return (
    <StationBody $columns="248px minmax(0, 1fr)">
      <Side aria-label="Which screen">
        <Block>
          <h3>Drawn in several ways</h3>
          <Choice
            label="Screen"
            value={screen}
            options={mains.map((key) => ({
              id: key,
              label: `${app.screens[key].name}, ${alternativesOf(app, key).length + 1} ways`,
            }))}
            onChange={setChosen}
          />
          <p>
            What one keeps takes the name, the address and all links of the screen. The others wait here with
            what was said of them.
          </p>
        </Block>
      </Side>
      <Wall $least={isSmall ? 240 : 400} aria-label="Drawings beside each other">
        {!isThere && <Waiting role="status">Building the app …</Waiting>}
        {origin &&
          ['', ...others].map((key) => {
            const { width = 1280, height = 800 } = drawings.get(key || screen) ?? {};
            const name = key ? app.screens[key].name : `${entry.name}, as it is`;
            const lost = key ? wiredWithout(project, key) : [];
            return (
              <DressedApp
                key={key}
                name={name}
                file={drawings.get(key || screen)?.source.file}
                src={`${origin}/${id}${key ? `~as.${encodeURIComponent(key)}` : ''}${path}`}
                width={width}
                height={width < 700 ? Math.min(height, 760) : 800}
                frame={frameOf(key)}
              >
                {key ? (
                  <>
                    <Button
                      $kind="primary"
                      aria-label={`Keep ${name}`}
                      onPress={() =>
                        session.change(`${name} is ${entry.name}`, keepAlternative(project, key))
                      }
                    >
                      Keep
                    </Button>
                    <Button
                      aria-label={`Make ${name} a screen of its own`}
                      onPress={() =>
                        session.change(`${name} is a screen of its own`, putUse(app, key, 'screen'))
                      }
                    >
                      A screen of its own
                    </Button>
                    {lost.length > 0 && (
                      <span title={lost.join(', ')}>
                        {lost.length === 1
                          ? `“${lost[0]}” is not in it`
                          : `${lost.length} that do something are not in it`}
                      </span>
                    )}
                  </>
                ) : (
                  'What is done in one is done in all.'
                )}
              </DressedApp>
            );
          })}
      </Wall>
    </StationBody>
  );
}
