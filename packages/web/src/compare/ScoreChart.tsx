import type { ComparisonScore } from '@tovel/core';
import { useEffect, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { font } from '../theme/theme';
import { scoresOverTime } from './scores_over_time';

const Box = styled.figure`
  margin: 0;
  max-width: 760px;
  figcaption {
    font-size: 13px;
    font-weight: 650;
    margin-bottom: 6px;
  }
  div {
    position: relative;
    height: 220px;
  }
`;

/** How near all screens were over the steps of the project. */
export function ScoreChart({ scores }: { scores: readonly ComparisonScore[] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const points = useMemo(() => scoresOverTime(scores), [scores]);
  const isShown = points.length > 1;
  useEffect(() => {
    const node = canvas.current;
    if (!node || !isShown) return;
    let end = (): void => {};
    let isGone = false;
    // Loaded when there is something to draw.
    void import('chart.js/auto').then(({ Chart }) => {
      if (isGone) return;
      const look = getComputedStyle(document.documentElement);
      const of = (name: string): string => look.getPropertyValue(`--${name}`).trim();
      const line = (label: string, values: number[], colour: string, dash: number[]) => ({
        label,
        data: values,
        borderColor: colour,
        backgroundColor: colour,
        borderWidth: 2,
        borderDash: dash,
        pointRadius: 3,
        tension: 0,
      });
      const chart = new Chart(node, {
        type: 'line',
        data: {
          labels: points.map(({ seq, iteration }) => `Step ${seq}, iteration ${iteration}`),
          datasets: [
            line(
              'The worst screen',
              points.map(({ worst }) => worst),
              of('red'),
              [],
            ),
            line(
              'All screens, on average',
              points.map(({ mean }) => mean),
              of('lake'),
              [6, 3],
            ),
          ],
        },
        options: {
          animation: false,
          maintainAspectRatio: false,
          color: of('ink'),
          font: { family: font.text },
          scales: {
            x: { ticks: { color: of('ink2') }, grid: { color: of('rule') } },
            y: {
              beginAtZero: true,
              ticks: { color: of('ink2'), callback: (value) => `${value} %` },
              grid: { color: of('rule') },
            },
          },
        },
      });
      end = () => chart.destroy();
    });
    return () => {
      isGone = true;
      end();
    };
  }, [points, isShown]);
  if (!isShown) return null;
  const [first, latest] = [points[0], points.at(-1)!];
  return (
    <Box>
      <figcaption>How it went</figcaption>
      <div>
        <canvas
          ref={canvas}
          role="img"
          aria-label={`The worst screen differed by ${first.worst.toFixed(2)} % at step ${first.seq} and by ${latest.worst.toFixed(2)} % at step ${latest.seq}.`}
        />
      </div>
    </Box>
  );
}
