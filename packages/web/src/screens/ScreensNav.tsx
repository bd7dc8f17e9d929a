import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { StationBar } from './StationView';

const Bar = styled(StationBar)`
  nav {
    display: flex;
    gap: 2px;
    height: 44px;
  }
  nav a {
    display: grid;
    align-items: center;
    padding: 0 11px;
    text-decoration: none;
    color: ${color.ink2};
    border-bottom: 3px solid transparent;
    border-top: 3px solid transparent;
  }
  nav a:hover {
    color: ${color.ink};
  }
  nav a.active {
    color: ${color.ink};
    font-weight: 650;
    border-bottom-color: ${color.ink};
  }
`;

/** The views of the Screens station, and what can be done in the present one. */
export function ScreensNav({ screen, children }: { screen?: string; children?: ReactNode }) {
  const { base: project, graph, past } = useProject();
  const base = `${project}/screens`;
  const first = screen ?? graph.screens[0];
  return (
    <Bar>
      <nav aria-label="Views of the screens">
        <NavLink to={base} end>
          Board
        </NavLink>
        {first && (
          <NavLink to={`${base}/at/${first}`} className={screen ? 'active' : undefined}>
            Elements
          </NavLink>
        )}
        <NavLink to={`${base}/repeats`}>Repeats</NavLink>
        <NavLink to={`${base}/tokens`}>Tokens</NavLink>
        {past === null && <NavLink to={`${base}/alternatives`}>Alternatives</NavLink>}
      </nav>
      {children}
    </Bar>
  );
}
