import type { IterationReport, ReportedScreen } from '@tovel/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { color, size } from '../theme/theme';
import { STANDINGS } from './standings';

const Scroller = styled.div`
  overflow: auto;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  outline-offset: -3px;
`;

const Row = styled.div<{ $isOn: boolean; $isQuiet: boolean }>`
  position: absolute;
  left: 0;
  right: 0;
  height: ${size.row + 10}px;
  padding: 6px 14px;
  border-bottom: 1px solid ${color.rule};
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  cursor: pointer;
  b,
  span {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  b {
    font-weight: ${({ $isQuiet }) => ($isQuiet ? 400 : 600)};
  }
  span {
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
  }
`;

interface Line {
  /** Which screen of the report; null for all of them. */
  readonly at: number | null;
  readonly title: string;
  readonly says: string;
  readonly isQuiet: boolean;
}

interface RoundScreensProps {
  report: IterationReport;
  at: number | null;
  onChoose: (at: number | null) => void;
}

/** The screens of a round with what became of each; what is the same comes last. */
export function RoundScreens({ report, at, onChoose }: RoundScreensProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useMemo(() => linesOf(report), [report]);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => size.row + 10,
    overscan: 8,
  });
  const index = lines.findIndex((line) => line.at === at);
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowDown: 1, ArrowUp: -1, Home: -lines.length, End: lines.length }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = Math.max(0, Math.min(lines.length - 1, index + by));
    virtual.scrollToIndex(next);
    onChoose(lines[next].at);
  };
  return (
    <Scroller
      ref={scroller}
      role="listbox"
      aria-label="Screens of the round"
      tabIndex={0}
      aria-activedescendant={`round-${index}`}
      onKeyDown={onKey}
    >
      <div style={{ position: 'relative', height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index: i, start }) => {
          const line = lines[i];
          return (
            <Row
              key={i}
              id={`round-${i}`}
              role="option"
              aria-selected={i === index}
              $isOn={i === index}
              $isQuiet={line.isQuiet}
              style={{ top: start }}
              onClick={() => onChoose(line.at)}
            >
              <b title={line.title}>{line.title}</b>
              <span>{line.says}</span>
            </Row>
          );
        })}
      </div>
    </Scroller>
  );
}

function linesOf({ screens, asks, letGo }: IterationReport): Line[] {
  const waiting = new Map<string, number>();
  for (const { screen } of asks) waiting.set(screen, (waiting.get(screen) ?? 0) + 1);
  const order = Object.keys(STANDINGS);
  const rows = screens
    .map((screen, at) => ({ screen, at }))
    .sort((a, b) => order.indexOf(a.screen.standing) - order.indexOf(b.screen.standing))
    .map(({ screen, at }): Line => ({
      at,
      title: screen.name,
      says: saysOf(screen, waiting.get(screen.old ?? '') ?? 0),
      isQuiet: screen.standing === 'same',
    }));
  return [
    {
      at: null,
      title: 'All of it',
      says:
        [
          ...(asks.length ? [`${asks.length} to decide`] : []),
          ...(letGo.length ? [`${letGo.length} let go`] : []),
        ].join(', ') || 'what it does to the app',
      isQuiet: false,
    },
    ...rows,
  ];
}

function saysOf({ standing, links, file, over }: ReportedScreen, asked: number): string {
  const count = links.kept + links.asked + links.letGo;
  return [
    over ? `an overlay of ${over} now` : STANDINGS[standing],
    ...(standing === 'renamed' ? [file] : []),
    ...(count ? [`${count} ${count === 1 ? 'link' : 'links'}`] : []),
    ...(asked ? [`${asked} to decide`] : []),
    ...(links.letGo ? [`${links.letGo} let go`] : []),
  ].join(', ');
}
