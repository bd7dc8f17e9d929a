import { stationOf } from '@tovel/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { FindingsList } from './FindingsList';
import { FromToGrid } from './FromToGrid';
import { RouteTree } from './RouteTree';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 264px minmax(0, 1fr) 344px;
  > * {
    min-height: 0;
    overflow: auto;
  }
  h2 {
    font-size: 15px;
    padding: 12px 16px 8px;
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    position: sticky;
    top: 0;
    left: 0;
    background: inherit;
    z-index: 3;
  }
  h2 span {
    font-size: 11.5px;
    font-weight: 600;
    color: ${color.ink2};
  }
`;

/** What is chosen in the grid: one way from a screen to another. */
export interface Cell {
  readonly from: string;
  readonly to: string;
}

/** The whole: routes, who leads where, and what is wrong. */
export function MapView() {
  const project = useProject();
  const { graph, id } = project;
  const navigate = useNavigate();
  const [cell, setCell] = useState<Cell | null>(null);
  const findings = useMemo(
    () => project.findings.filter((finding) => stationOf(finding.code) === 'map'),
    [project.findings],
  );
  if (!graph.screens.length) {
    return (
      <Empty title="Nothing to map yet" text="Routes and links show here as soon as there are screens.">
        <Button $kind="primary" onPress={() => void navigate(`/p/${id}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  }
  return (
    <View>
      <RouteTree />
      <FromToGrid cell={cell} onCell={setCell} />
      <FindingsList findings={findings} />
    </View>
  );
}
