import { isDeadEnd, routeTable } from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';

const Column = styled.section`
  background: ${color.side};
  border-right: 1px solid ${color.rule};
`;

const Row = styled(Link)<{ $isMarked: boolean }>`
  display: grid;
  grid-template-columns: minmax(min-content, 1fr) minmax(0, auto);
  gap: 12px;
  padding: 6px 16px;
  border-top: 1px solid ${color.rule};
  text-decoration: none;
  color: ${({ $isMarked }) => ($isMarked ? color.red : 'inherit')};
  &:hover {
    background: ${color.lakeTint};
  }
  span:first-child {
    font: 12px/1.5 ${font.code};
    max-width: 150px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  span:last-child {
    color: ${({ $isMarked }) => ($isMarked ? color.red : color.ink2)};
    text-align: right;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** Every route with its screen; parts that a route shares with the one above are indented away. */
export function RouteList() {
  const project = useProject();
  const { graph, app, id } = project;
  const rows = routeTable(project);
  return (
    <Column aria-label="Routes">
      <h2>
        Routes <span>{rows.length} screens</span>
      </h2>
      <ul>
        {rows.map(({ screen, name, path }) => {
          const parents = rows.filter((row) => row.path !== '/' && path.startsWith(`${row.path}/`));
          const parent = parents.at(-1);
          const shown = path === '/' ? '/' : parent ? path.slice(parent.path.length + 1) : path.slice(1);
          const isUnreached = graph.reached.size > 0 && !graph.reached.has(screen);
          const hasNoExit = isDeadEnd(graph.departures.get(screen)!, screen);
          const note = isUnreached
            ? ' · no way in'
            : hasNoExit
              ? ' · no way out'
              : app.start === screen
                ? ' · start'
                : '';
          return (
            <li key={screen}>
              <Row
                to={`/p/${id}/junction/${screen}`}
                $isMarked={isUnreached || hasNoExit}
                title={`${name}${note}, at ${path}`}
              >
                <span style={{ paddingLeft: path === '/' ? 0 : 8 + 16 * parents.length }}>{shown}</span>
                <span>
                  {name}
                  {note}
                </span>
              </Row>
            </li>
          );
        })}
      </ul>
    </Column>
  );
}
