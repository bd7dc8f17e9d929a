import { gatesTo, type GraphLink, screenName, shortestWay } from '@tovel/core';
import { Link } from 'react-router';
import { useProject } from '../project/context';
import { DetailsPanel } from './CellDetails';
import { presses } from './station_marks';
import { MustHold } from './MustHold';

/** What there is to know of one screen in the graph: the way there, who leads there, and where it leads. */
export function StationDetails({ screen }: { screen: string }) {
  const project = useProject();
  const { graph, base } = project;
  const name = (key: string): string => screenName(project, key);
  const way = graph.start ? shortestWay(graph, graph.start, screen) : null;
  const gates = gatesTo(graph, screen).slice(1);
  const from = [...new Set((graph.arrivals.get(screen) ?? []).map((link) => link.from))];
  const to = (graph.departures.get(screen) ?? []).filter((link) => link.to && !link.problem);
  return (
    <DetailsPanel role="region" aria-label={`About ${name(screen)}`}>
      <b>
        <Link to={`${base}/junction/${screen}`}>{name(screen)}</Link>
      </b>
      <p>
        {presses(graph, screen)}
        {way &&
          way.length > 0 &&
          `: ${way.map((link) => `“${link.label}” on ${name(link.from)}`).join(', ')}`}
        {gates.length > 0 && `. Every way there passes through ${gates.map(name).join(', ')}`}.
      </p>
      <p>Reached from {from.length ? from.map(name).join(', ') : 'no screen'}.</p>
      <p>Leads to {to.length ? byTarget(to).map(name).join(', ') : 'no screen'}.</p>
      <MustHold screen={screen} />
    </DetailsPanel>
  );
}

const byTarget = (links: readonly GraphLink[]): string[] => [...new Set(links.map((link) => link.to!))];
