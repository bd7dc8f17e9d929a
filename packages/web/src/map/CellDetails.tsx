import { describeArrival, gatesTo, type GraphLink, screenName, shortestWay } from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';

/** What is chosen in the grid: one way from a screen to another. */
export interface Cell {
  readonly from: string;
  readonly to: string;
}

export const DetailsPanel = styled.div`
  border-top: 2px solid ${color.ink};
  background: ${color.side};
  padding: 10px 16px 12px;
  max-height: 270px;
  overflow: auto;
  li {
    display: flex;
    gap: 12px;
    padding: 4px 0;
  }
  p,
  li span {
    color: ${color.ink2};
  }
`;

/** What leads from the one screen to the other: the elements themselves, or else the shortest way round. */
export function CellDetails({ cell: { from, to }, links }: { cell: Cell; links: readonly GraphLink[] }) {
  const project = useProject();
  const { graph } = project;
  const name = (key: string): string => screenName(project, key);
  const way = links.length || from === to ? null : shortestWay(graph, from, to);
  const gates = from === graph.start && from !== to ? gatesTo(graph, to).slice(1) : [];
  return (
    <DetailsPanel role="region" aria-label="Links of the chosen cell">
      <b>
        {name(from)} → {name(to)}
      </b>
      {!links.length && (
        <p>
          {way
            ? `No element leads there at once. The shortest way is ${way.length} presses:`
            : from === to
              ? 'No element leads there.'
              : 'No element leads there, and there is no way round.'}
        </p>
      )}
      <ul>
        {links.map((link) => (
          <li key={link.key + link.to}>
            <Pressed link={link} />
            <span>{link.problem ?? `arrives by ${describeArrival(link.interaction.arrival)}`}</span>
          </li>
        ))}
        {way?.map((link) => (
          <li key={link.element}>
            <Pressed link={link} />
            <span>
              on {name(link.from)}, to {name(link.to!)}
            </span>
          </li>
        ))}
      </ul>
      {gates.length > 0 && <p>Every way there passes through {gates.map(name).join(', ')}.</p>}
    </DetailsPanel>
  );
}

const Pressed = ({ link }: { link: GraphLink }) => (
  <Link to={`${useProject().base}/junction/${link.from}?element=${encodeURIComponent(link.element)}`}>
    “{link.label}”
  </Link>
);
