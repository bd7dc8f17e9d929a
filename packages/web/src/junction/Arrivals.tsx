import { describeArrival, type GraphLink, screenName, screensByKey } from '@tovel/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { LazyPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { color } from '../theme/theme';

const Column = styled.section`
  min-height: 0;
  overflow: auto;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  h2 {
    display: flex;
    justify-content: space-between;
    padding: 12px 16px 8px;
    font-size: 15px;
  }
  h2 span {
    color: ${color.ink2};
    font-size: 11.5px;
  }
  p {
    padding: 0 16px 12px;
    color: ${color.ink2};
  }
`;

const Row = styled(Link)`
  display: grid;
  grid-template-columns: 38px minmax(0, 1fr);
  gap: 10px;
  padding: 8px 16px;
  border-top: 1px solid ${color.rule};
  text-decoration: none;
  &:hover {
    background: ${color.lakeTint};
  }
  > div:first-child {
    border: 1px solid ${color.rule};
    overflow: hidden;
    height: fit-content;
    max-height: 62px;
  }
  b,
  small {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    color: ${color.ink2};
    font-size: 12px;
  }
`;

/** Who leads here, by screen. */
export function Arrivals({ screenKey }: { screenKey: string }) {
  const project = useProject();
  const { graph, design, app, base } = project;
  const byScreen = useMemo(() => {
    const groups = new Map<string, GraphLink[]>();
    for (const link of graph.arrivals.get(screenKey) ?? [])
      groups.set(link.from, [...(groups.get(link.from) ?? []), link]);
    return [...groups];
  }, [graph, screenKey]);
  return (
    <Column aria-label="Arrivals">
      <h2>
        Arrivals <span>{byScreen.length}</span>
      </h2>
      {app.start === screenKey && <p>The app starts here.</p>}
      {!byScreen.length && app.start !== screenKey && <p>No screen leads here yet.</p>}
      <ul>
        {byScreen.map(([from, links]) => (
          <li key={from}>
            <Row to={`${base}/junction/${from}?element=${encodeURIComponent(links[0].element)}`}>
              <div>
                <LazyPicture screen={screensByKey(design).get(from)!} width={36} />
              </div>
              <div>
                <b title={screenName(project, from)}>{screenName(project, from)}</b>
                <small title={links.map((link) => link.label).join(', ')}>
                  {links.length > 1 ? `${links.length} elements` : `“${links[0].label}”`}
                </small>
                <small>
                  {describeArrival(links[0].interaction.arrival) === 'none'
                    ? app.screens[from].route
                    : describeArrival(links[0].interaction.arrival)}
                </small>
              </div>
            </Row>
          </li>
        ))}
      </ul>
    </Column>
  );
}
