import { graphFiles, printFlow, printJourneyTests, stationOf } from '@tovel/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { FlowSheet } from '../flow/FlowSheet';
import { useFound, useProject } from '../project/context';
import { color } from '../theme/theme';
import { ActionMenu } from '../ui/ActionMenu';
import { Button, Segments } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { saveFile } from '../ui/save_file';
import { useQueryParam } from '../ui/use_query_param';
import { FindingsList } from './FindingsList';
import { Since, SinceChoice } from './Since';
import type { Cell } from './CellDetails';
import { FromToGrid } from './FromToGrid';
import { JourneyList } from './JourneyList';
import { JourneyPanel } from './JourneyPanel';
import { LinesView } from './LinesView';
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

const Left = styled.div`
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  overflow: hidden !important;
`;

const Middle = styled.section`
  background: ${color.paper};
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  overflow: hidden !important;
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding-right: 16px;
  && h2 {
    flex: 1;
    gap: 10px;
    justify-content: flex-start;
    white-space: nowrap;
  }
`;

const TITLES = { lines: 'Lines', grid: 'From → to', sheet: 'Flow sheet' } as const;
const VIEWS = [
  { id: 'lines', label: 'Lines' },
  { id: 'grid', label: 'Grid' },
  { id: 'sheet', label: 'Sheet' },
] as const;

/** The whole: routes and journeys, who leads where, and what is wrong. */
export function MapView() {
  const project = useProject();
  const { graph, base, app } = project;
  const { findings: all } = useFound();
  const navigate = useNavigate();
  const [cell, setCell] = useState<Cell | null>(null);
  const [asked, setView] = useQueryParam('view', 'lines');
  const [wanted, setJourney] = useQueryParam('journey', '');
  const view = VIEWS.find(({ id }) => id === asked)?.id ?? 'lines';
  const journey = app.journeys[wanted] ? wanted : null;
  const [since, setSince] = useQueryParam('since', '');
  const findings = useMemo(() => all.filter((finding) => stationOf(finding.code) === 'map'), [all]);
  if (!graph.screens.length) {
    return (
      <Empty title="Nothing to map yet" text="Routes and links show here as soon as there are screens.">
        <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  }
  const files = Object.values(graphFiles).map(({ title, extension, type, print }) => ({
    id: title,
    label: `The graph as ${title}`,
    act: () => saveFile(project.name, extension, type, print(project, project.name)),
  }));
  return (
    <View>
      <Left>
        <RouteTree />
        <JourneyList chosen={journey} onChoose={(next) => setJourney(next ?? '')} />
      </Left>
      <Middle
        aria-label={view === 'grid' ? 'From and to' : TITLES[view]}
        style={view === 'sheet' ? { gridColumn: '2 / -1' } : {}}
      >
        <Head>
          <h2>
            {TITLES[view]} <span>{graph.links.length} links</span>
          </h2>
          <SinceChoice since={since} onSince={setSince} />
          <Segments role="group" aria-label="View">
            {VIEWS.map((one) => (
              <Button key={one.id} aria-pressed={view === one.id} onPress={() => setView(one.id)}>
                {one.label}
              </Button>
            ))}
          </Segments>
          <ActionMenu
            label="Save"
            actions={[
              ...files,
              {
                id: 'sheet',
                label: 'The flow sheet',
                act: () => saveFile(project.name, '.txt', 'text/plain', printFlow(project, project.name)),
              },
              {
                id: 'journeys',
                label: 'The journeys as Playwright tests',
                isDisabled: !Object.keys(app.journeys).length,
                act: () => saveFile(project.name, '.spec.ts', 'text/plain', printJourneyTests(project)),
              },
            ]}
          />
        </Head>
        <Since since={since}>
          {view === 'grid' && <FromToGrid cell={cell} onCell={setCell} />}
          {view === 'lines' && <LinesView journey={journey} />}
          {view === 'sheet' && <FlowSheet />}
        </Since>
        {journey && <JourneyPanel key={journey} id={journey} onClose={() => setJourney('')} />}
      </Middle>
      {view !== 'sheet' && <FindingsList findings={findings} />}
    </View>
  );
}
