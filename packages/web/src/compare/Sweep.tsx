import { screenName, SWEPT_WIDTHS, type View, widthsInWords } from '@tovel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { useSweeps } from '../project/use_compared_findings';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { ThroughBar } from './ThroughBar';
import { useThrough } from './use_compared';

const Room = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
`;

const Strips = styled.div`
  min-height: 0;
  overflow: auto;
  padding: 16px 24px 32px;
  > div {
    margin-bottom: 14px;
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  th:first-child {
    width: 190px;
    text-align: left;
    padding-right: 10px;
    overflow-wrap: anywhere;
  }
  thead th {
    font: 10.5px ${font.code};
    color: ${color.ink2};
    padding-bottom: 4px;
    font-weight: 400;
  }
  tbody th {
    font-size: 12.5px;
    padding: 4px 10px 4px 0;
  }
  tbody tr {
    border-top: 1px solid ${color.rule};
  }
  td {
    padding: 3px 1px;
    height: 34px;
  }
`;

const Cell = styled(Button)<{ $level: number }>`
  display: block;
  width: 100%;
  min-height: 26px;
  padding: 0;
  border-color: ${({ $level }) => ($level ? color.red : color.rule)};
  background: ${({ $level }) => ($level > 2 ? color.red : $level ? color.redTint : color.sheet)};
  color: ${({ $level }) => ($level > 2 ? color.sheet : $level ? color.red : color.ink2)};
  font: 600 11px ${font.code};
  &[data-hovered],
  &[aria-pressed='true'] {
    border-color: ${color.ink};
    background: ${color.ink};
    color: ${color.onInk};
  }
`;

const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  padding: 14px 16px 24px;
  border-left: 1px solid ${color.rule};
  background: ${color.side};
  h3 {
    font-size: 13px;
    padding-bottom: 4px;
    border-bottom: 1px solid ${color.ink};
  }
  li {
    padding: 7px 0;
    border-bottom: 1px solid ${color.rule};
  }
  span {
    display: block;
    font: 12px/1.45 ${font.code};
  }
  small {
    color: ${color.ink2};
  }
  p {
    margin: 8px 0;
    color: ${color.ink2};
  }
`;

interface Chosen {
  readonly screen: string;
  readonly width: number | null;
}

/** Each screen from narrow windows to wide ones: a strip on which one sees where it breaks. */
export function Sweep({
  views,
  asked,
}: {
  views: readonly View[];
  /** Key of the screen that somebody asked to see. */
  asked: string;
}) {
  const project = useProject();
  const { id, base, app } = project;
  const { savedAt } = useStanding();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState<Chosen | null>(asked ? { screen: asked, width: null } : null);
  const { data: sweeps = [] } = useSweeps(id);
  const work = useCallback(
    async (screen: string, signal: AbortSignal) => {
      await api.sweep(id, screen, signal);
      await queries.invalidateQueries({ queryKey: ['sweeps', id] });
    },
    [id, queries],
  );
  const { going, failed, start, stop } = useThrough(work, (screen) => screen);
  const screens = [...new Set(views.map(({ screen }) => screen))];
  const swept = new Map(sweeps.map((one) => [one.screen, one]));
  const isStale = screens.some((screen) => (swept.get(screen)?.at ?? savedAt) < savedAt);
  const isBegun = screens.some((screen) => swept.has(screen));
  const faults = chosen ? (swept.get(chosen.screen)?.faults ?? []) : [];
  const shown = faults.filter(({ widths }) => chosen?.width == null || widths.includes(chosen.width));
  return (
    <Room>
      <Strips>
        <ThroughBar
          going={going}
          begin={isBegun ? 'Look again' : 'Look at all widths'}
          done="screens"
          onBegin={() => void start(screens)}
          onStop={stop}
        >
          {!isBegun
            ? `Each screen is laid out at ${SWEPT_WIDTHS.length} widths, and what breaks there is told.`
            : isStale
              ? 'Some were looked at before the last steps.'
              : 'Numbers say how much is wrong at a width.'}
        </ThroughBar>
        <Table aria-label="Screens by width">
          <thead>
            <tr>
              <th scope="col">Screen</th>
              {SWEPT_WIDTHS.map((width) => (
                <th key={width} scope="col">
                  {width}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {screens.map((screen) => {
              const found = swept.get(screen);
              const name = screenName(project, screen);
              return (
                <tr key={screen}>
                  <th scope="row">{name}</th>
                  {SWEPT_WIDTHS.map((width) => {
                    const count = found?.faults.filter(({ widths }) => widths.includes(width)).length;
                    return (
                      <td key={width}>
                        {count !== undefined && (
                          <Cell
                            $level={count}
                            aria-label={`${name} at ${width}: ${count || 'nothing'} wrong`}
                            aria-pressed={chosen?.screen === screen && chosen.width === width}
                            onPress={() => setChosen({ screen, width })}
                          >
                            {count || '·'}
                          </Cell>
                        )}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </Table>
        {[...failed].map(([screen, problem]) => (
          <p key={screen} role="alert" style={{ color: color.red }}>
            {screenName(project, screen)}: {problem}
          </p>
        ))}
      </Strips>
      <Side aria-label="What is wrong">
        {chosen ? (
          <>
            <h3>
              {screenName(project, chosen.screen)}
              {chosen.width !== null && ` at ${chosen.width} px`}
            </h3>
            {chosen.width !== null && (
              <p>
                <Link
                  to={`${base}/run?at=${encodeURIComponent(app.screens[chosen.screen]?.route ?? '/')}&width=${chosen.width}`}
                >
                  See it there, in Run
                </Link>
              </p>
            )}
            {shown.length === 0 && <p>Nothing is wrong there.</p>}
            <ul aria-label="Faults">
              {shown.map((fault) => (
                <li key={fault.id}>
                  <b>{fault.name}</b>
                  <span>{fault.says}</span>
                  <small>at {widthsInWords(fault.widths, SWEPT_WIDTHS)} px</small>
                </li>
              ))}
            </ul>
          </>
        ) : (
          <p>
            Press a number to see what is wrong at that width: what sticks out, overlaps, is cut off, is too
            small to press or to read, or stands out too little.
          </p>
        )}
      </Side>
    </Room>
  );
}
