import { useQuery } from '@tanstack/react-query';
import { Link, NavLink, useLocation } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { stations } from './stations';

const Bar = styled.header`
  grid-row: 1;
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr) 220px;
  align-items: center;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
`;

const Brand = styled(Link)`
  padding-left: 18px;
  line-height: 1.15;
  text-decoration: none;
  overflow: hidden;
  b {
    font-size: 17px;
    font-stretch: 115%;
  }
  span {
    display: block;
    color: ${color.ink2};
    font-size: 12px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover span {
    text-decoration: underline;
  }
`;

const Rail = styled.nav<{ $count: number }>`
  position: relative;
  display: grid;
  grid-template-columns: repeat(${({ $count }) => $count}, minmax(0, 1fr));
  max-width: 760px;
  width: 100%;
  margin: 0 auto;
  &::before {
    content: '';
    position: absolute;
    left: ${({ $count }) => 50 / $count}%;
    right: ${({ $count }) => 50 / $count}%;
    top: 7px;
    height: 3px;
    background: ${color.rule};
  }
`;

const Stop = styled(NavLink)`
  position: relative;
  padding-top: 24px;
  text-align: center;
  text-decoration: none;
  font-size: 12.5px;
  font-stretch: 90%;
  color: ${color.ink2};
  i {
    position: absolute;
    left: 50%;
    top: 3px;
    width: 11px;
    height: 11px;
    margin-left: -6px;
    background: ${color.sheet};
    border: 3px solid ${color.ink2};
    border-radius: 50%;
  }
  em {
    font-style: normal;
    font-weight: 700;
    margin-left: 4px;
  }
  &[data-done] i {
    border-color: ${color.lake};
  }
  &:hover {
    color: ${color.ink};
  }
  &.active {
    color: ${color.ink};
    font-weight: 700;
    i {
      background: ${color.ink};
      border-color: ${color.ink};
      width: 15px;
      height: 15px;
      top: 1px;
      margin-left: -8px;
    }
  }
`;

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
  const { name, id, past, base, app, graph, decisions } = useProject();
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
