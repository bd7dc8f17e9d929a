import { type ComparisonScore, screenName, type View } from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useProject, useStanding } from '../project/context';
import { useScores } from '../project/use_compared_findings';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { ScoreChart } from './ScoreChart';
import { ThroughBar } from './ThroughBar';
import { type Reference, useCompareAll, viewId } from './use_compared';

const Room = styled.div`
  min-height: 0;
  overflow: auto;
  padding: 16px 24px 32px;
  display: grid;
  gap: 18px;
  align-content: start;
`;

const Table = styled.table`
  border-collapse: collapse;
  width: max-content;
  max-width: 100%;
  th {
    text-align: left;
    font-size: 12px;
    padding: 5px 14px 5px 0;
    border-bottom: 1px solid ${color.ink};
  }
  thead th + th {
    text-align: right;
    padding-right: 11px;
  }
  tbody th {
    font-weight: 600;
    max-width: 300px;
    overflow-wrap: anywhere;
    border-bottom: 1px solid ${color.rule};
  }
  td {
    padding: 0;
    border-bottom: 1px solid ${color.rule};
  }
  td button {
    min-width: 104px;
    text-align: right;
    border: 0;
    background: none;
    font: 12px ${font.code};
    font-variant-numeric: tabular-nums;
  }
  td small {
    margin-left: 6px;
    color: ${color.ink2};
  }
`;

/** Above this much, in percent, a screen is worth looking at. */
const MUCH = 0.5;

/** All screens at all widths, with how near they are, and how that went over time. */
export function AllScreens({
  views,
  reference,
  onOpen,
}: {
  views: readonly View[];
  reference: Reference;
  onOpen: (view: View) => void;
}) {
  const project = useProject();
  const { savedAt } = useStanding();
  const { data: all = [] } = useScores(project.id);
  const { going, failed, start, stop } = useCompareAll(reference);
  const scores = useMemo(() => all.filter((score) => score.reference === reference), [all, reference]);
  const last = new Map(scores.map((score) => [viewId(score), score]));
  const widths = [...new Set(views.map(({ width }) => width))].sort((a, b) => b - a);
  const screens = [...new Set(views.map(({ screen }) => screen))];
  const compared = views.flatMap((view) => last.get(viewId(view)) ?? []);
  const isStale = compared.some(({ at }) => at < savedAt);
  return (
    <Room>
      <ThroughBar
        going={going}
        begin={`Compare all ${views.length}`}
        done="compared"
        onBegin={() => void start(views)}
        onStop={stop}
      >
        {compared.length === 0
          ? 'Nothing was compared yet.'
          : isStale
            ? 'Some were compared before the last steps.'
            : summary(compared)}
      </ThroughBar>
      <Table aria-label="All screens">
        <thead>
          <tr>
            <th scope="col">Screen</th>
            {widths.map((width) => (
              <th key={width} scope="col">
                {width} px
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {screens.map((screen) => (
            <tr key={screen}>
              <th scope="row">{screenName(project, screen)}</th>
              {widths.map((width) => {
                const view = views.find((one) => one.screen === screen && one.width === width);
                const score = view && last.get(viewId(view));
                const problem = view && failed.get(viewId(view));
                return (
                  <td key={width}>
                    {view && (
                      <Button
                        aria-label={`${screenName(project, screen)} at ${width}: ${problem ?? (score ? `${score.percent.toFixed(2)} %` : 'not compared')}`}
                        onPress={() => onOpen(view)}
                        style={score && score.percent > MUCH ? { color: color.red, fontWeight: 700 } : {}}
                      >
                        {problem ? 'failed' : score ? `${score.percent.toFixed(2)} %` : '–'}
                        {score && score.causes > 0 && (
                          <small>
                            {score.causes} {score.causes === 1 ? 'cause' : 'causes'}
                          </small>
                        )}
                      </Button>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Table>
      {[...failed].map(([one, problem]) => (
        <p key={one} role="alert" style={{ color: color.red }}>
          {one}: {problem}
        </p>
      ))}
      <ScoreChart scores={scores} />
    </Room>
  );
}

function summary(compared: readonly ComparisonScore[]): string {
  const much = compared.filter(({ percent }) => percent > MUCH).length;
  return much
    ? `${much} of ${compared.length} differ by more than ${MUCH} %.`
    : `None of ${compared.length} differs by more than ${MUCH} %.`;
}
