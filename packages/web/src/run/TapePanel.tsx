import { findElement, hostOf, screensByKey, textOf } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { ScreenPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { ActionMenu } from '../ui/ActionMenu';
import { Button } from '../ui/controls';
import { SideColumn } from '../ui/SideColumn';
import type { Recorder } from './use_recorder';
import type { Replay, Replayed } from './use_replay';
import type { Tape, TapeEntry, ThrownAt } from './use_tape';

const List = styled.ol`
  max-height: 46vh;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: 44px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: start;
    padding: 7px 0;
    border-bottom: 1px solid ${color.rule};
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
  }
`;

const Wrong = styled.span`
  color: ${color.red};
`;

const Small = styled.div`
  width: 44px;
  height: 44px;
  overflow: hidden;
  border: 1px solid ${color.rule};
  &:empty {
    height: 0;
    border: 0;
  }
`;

const Table = styled.table`
  width: 100%;
  font-size: 12.5px;
  border-collapse: collapse;
  td {
    padding: 6px 6px 6px 0;
    border-bottom: 1px solid ${color.rule};
    vertical-align: top;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

/** What happened in the running app, to go back to, and the journeys, to be made there again. */
export function TapePanel({
  tape: { entries, clear },
  replay,
  recorder,
  tell,
}: {
  tape: Tape;
  replay: Replay;
  recorder: Recorder;
  tell: (message: object) => void;
}) {
  const end = useRef<HTMLLIElement>(null);
  useEffect(() => {
    end.current?.scrollIntoView?.({ block: 'nearest' });
  }, [entries.length]);
  return (
    <SideColumn aria-label="Tape">
      <h3>What happened</h3>
      <List aria-label="What happened, the oldest first">
        {entries.map((entry, i) => (
          <li key={entry.number} ref={i === entries.length - 1 ? end : null}>
            <Small aria-hidden>{entry.kind === 'place' && <SmallPicture entry={entry} />}</Small>
            <div>
              {entry.kind === 'error' ? <Wrong>{entry.says}</Wrong> : entry.says}
              <small>{[seconds(entry.at), entry.more].filter(Boolean).join(' · ')}</small>
              {entry.thrownAt && <ThrownIn at={entry.thrownAt} />}
            </div>
            {entry.kept && (
              <ActionMenu
                label="Go on"
                ariaLabel={`Go on from ${entry.says}, ${seconds(entry.at)}`}
                actions={[
                  {
                    id: 'back',
                    label: 'Back to here',
                    act: () => tell({ tovel: 'restore', kept: entry.kept, to: entry.path }),
                  },
                  {
                    id: 'journey',
                    label: 'A journey from here on',
                    isDisabled: recorder.journey !== null,
                    act: () =>
                      recorder.resume(
                        entry.path,
                        entries.slice(i + 1).flatMap(({ told }) => (told ? [told] : [])),
                      ),
                  },
                ]}
              />
            )}
          </li>
        ))}
      </List>
      <Row>
        <Button isDisabled={!entries.length} onPress={clear}>
          Clear
        </Button>
      </Row>
      <Journeys replay={replay} />
    </SideColumn>
  );
}

/** The line of the code that threw, and the element for which that was. */
function ThrownIn({ at }: { at: readonly ThrownAt[] }) {
  const project = useProject();
  const { id, design, base } = project;
  const { data: place } = useQuery({
    queryKey: ['place in code', id, at],
    queryFn: async () => {
      const places = await Promise.all(at.map((one) => api.placeInCode(id, one)));
      const known = places.filter((one) => one !== null);
      return known.find(({ element }) => element !== null) ?? known[0] ?? null;
    },
    staleTime: Infinity,
  });
  if (!place) return null;
  const element = place.element === null ? null : findElement(design, place.element);
  return (
    <small>
      <code>
        {place.path.replace(/^src\//, '')}:{place.line}
      </code>
      {element && (
        <>
          {' '}
          <Link
            to={`${base}/junction/${hostOf(project, element.key)}?element=${encodeURIComponent(element.key)}`}
          >
            {textOf(element) || element.name}
          </Link>
        </>
      )}
    </small>
  );
}

function SmallPicture({ entry: { screen } }: { entry: TapeEntry }) {
  const { design } = useProject();
  const drawn = screen === null ? undefined : screensByKey(design).get(screen);
  return drawn ? <ScreenPicture screen={drawn} width={44} /> : null;
}

function Journeys({ replay: { results, isRunning, run } }: { replay: Replay }) {
  const { app } = useProject();
  const ids = Object.keys(app.journeys).sort((a, b) =>
    app.journeys[a].name < app.journeys[b].name ? -1 : 1,
  );
  return (
    <>
      <h3>Journeys</h3>
      {ids.length ? (
        <>
          <Table aria-label="Journeys">
            <tbody>
              {ids.map((id) => (
                <tr key={id}>
                  <td>
                    {app.journeys[id].name}
                    <Outcome result={results.get(id)} of={app.journeys[id].steps.length} />
                  </td>
                  <td style={{ width: 1 }}>
                    <Button
                      aria-label={`Replay ${app.journeys[id].name}`}
                      isDisabled={isRunning}
                      onPress={() => run([id], false)}
                    >
                      Replay
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
          <Row>
            <Button isDisabled={isRunning} onPress={() => run(ids, true)}>
              All at once
            </Button>
          </Row>
        </>
      ) : (
        <p>None yet. Record one above: press through the app, then save it.</p>
      )}
    </>
  );
}

function Outcome({ result, of }: { result: Replayed | undefined; of: number }) {
  if (!result) return null;
  const says =
    result.kind === 'running'
      ? `step ${result.step} of ${of}`
      : result.kind === 'done'
        ? `✓ ${result.steps} ${result.steps === 1 ? 'step' : 'steps'}, ${seconds(result.ms)}`
        : `✗ broke at ${result.step ? `step ${result.step}` : 'its start'}: ${result.why}`;
  return (
    <small
      role="status"
      style={{ display: 'block', color: result.kind === 'broke' ? color.red : color.ink2 }}
    >
      {says}
    </small>
  );
}

const seconds = (ms: number): string => `${(ms / 1000).toFixed(1)} s`;
