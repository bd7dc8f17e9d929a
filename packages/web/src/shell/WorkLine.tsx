import { useQuery } from '@tanstack/react-query';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useFound, useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Bar, Brand, Rail, Stop } from './rail';
import { stations } from './stations';

const JumpButton = styled.button`
  margin: 0 16px 0 14px;
  padding: 6px 10px;
  display: flex;
  justify-content: space-between;
  border: 1px solid ${color.fieldRule};
  background: ${color.paper};
  color: ${color.ink2};
  cursor: pointer;
  kbd {
    font: 12px ${font.code};
  }
`;

/** One rail with the stations of the work; what waits at each stands beside its name. */
export function WorkLine({ onJump }: { onJump: () => void }) {
  const { name, id, past, base, app, graph } = useProject();
  const { decisions } = useFound();
  const asked = Object.values(app.setAside).filter(({ standing }) => standing !== 'letGo').length;
  const { data: round } = useQuery({ queryKey: ['round', id], queryFn: () => api.round(id) });
  const { pathname } = useLocation();
  const shown = past === null ? stations : stations.filter((station) => station.isOfPast);
  const current = shown.findIndex((station) => pathname.startsWith(`${base}/${station.path}`));
  return (
    <Bar>
      <Brand to="/" aria-label={`Tovel, all projects. Open: ${name}`}>
        <b>Tovel</b>
        <span title={name}>{name}</span>
      </Brand>
      <Rail aria-label="Stations" $count={shown.length}>
        {shown.map((station, i) => {
          const waiting = station.waiting({
            counts: graph.counts,
            decisions,
            asked: asked + (round ? 1 : 0),
          });
          return (
            <Stop key={station.path} to={`${base}/${station.path}`} data-done={i < current || undefined}>
              <i aria-hidden="true" />
              {station.title}
              {waiting > 0 && <em title={`${waiting} to look at`}>{waiting}</em>}
            </Stop>
          );
        })}
      </Rail>
      <JumpButton type="button" onClick={onJump} aria-keyshortcuts="Alt+J">
        Jump to… <kbd>Alt J</kbd>
      </JumpButton>
    </Bar>
  );
}
