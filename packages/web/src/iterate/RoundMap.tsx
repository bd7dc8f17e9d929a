import { type Project, screenName } from '@tovel/core';
import { useEffect, useState } from 'react';
import { Navigate, useLocation } from 'react-router';
import styled from 'styled-components';
import type { Cell } from '../map/CellDetails';
import { FromToGrid } from '../map/FromToGrid';
import { LinesView } from '../map/LinesView';
import { HeldAgainst } from '../map/Since';
import { AsItWouldBe, useProject } from '../project/context';
import type { OpenRound } from './use_round';

const Fill = styled.div`
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
  height: 100%;
  > * {
    min-height: 0;
  }
`;

interface RoundMapProps {
  round: OpenRound;
  view: 'lines' | 'grid';
}

/** The Map as it would be with a round taken in, held against the Map as it is. */
export function RoundMap({ round, view }: RoundMapProps) {
  const now = useProject();
  const [made, setMade] = useState<Project | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [cell, setCell] = useState<Cell | null>(null);
  const { project: make, effects } = round;
  useEffect(() => {
    let isStale = false;
    make().then(
      (project) => void (isStale || setMade(project)),
      (error: Error) => void (isStale || setProblem(error.message)),
    );
    return () => {
      isStale = true;
    };
  }, [make]);
  if (!made) return <p role="status">{problem ?? 'Drawing the lines …'}</p>;
  const nameOf = (key: string): string => screenName(made.app.screens[key] ? made : now, key);
  return (
    <Fill>
      <AsItWouldBe project={made} base={`${now.base}/round`}>
        <HeldAgainst graph={effects?.graph ?? null} nameOf={nameOf}>
          {view === 'grid' ? <FromToGrid cell={cell} onCell={setCell} /> : <LinesView journey={null} />}
        </HeldAgainst>
      </AsItWouldBe>
    </Fill>
  );
}

/** What the Map of a round leads to is that screen of the round, before and after. */
export function ToRoundScreen() {
  const { base } = useProject();
  const { pathname, search } = useLocation();
  const key =
    new URLSearchParams(search).get('screen') ?? decodeURIComponent(pathname.split('/').at(-1) ?? '');
  return <Navigate replace to={`${base}/iterate?screen=${encodeURIComponent(key)}`} />;
}
