import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { momentInWords, stepInWords, type TimelineLine, timeOf } from './sittings';

const Scroller = styled.div`
  overflow: auto;
  min-height: 0;
  outline-offset: -3px;
`;

const Head = styled.h3`
  position: absolute;
  left: 0;
  right: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 12px 16px 5px;
  font-size: 12.5px;
  border-bottom: 1px solid ${color.ink};
  span {
    font-weight: 400;
    color: ${color.ink2};
  }
`;

const Row = styled.div<{ $isOn: boolean; $isGone: boolean }>`
  position: absolute;
  left: 0;
  right: 0;
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr);
  gap: 2px 8px;
  align-content: center;
  padding: 0 16px;
  border-bottom: 1px solid ${color.rule};
  cursor: pointer;
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  time {
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    ${({ $isGone }) => $isGone && `color: ${color.ink2}; text-decoration: line-through;`}
  }
  > b {
    grid-column: 2;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: ${color.lake};
  }
`;

const HEAD = 38;
const LINE = 31;
const NAMED = 50;

interface TimelineProps {
  lines: readonly TimelineLine[];
  chosen: number;
  nameOf: (screen: string) => string | null;
  onChoose: (seq: number) => void;
  /** Asked for more when the end comes near. */
  onEnd: () => void;
}

/** The steps of a project in words, the newest first, by sitting; with the names and iterations at their places. */
export function Timeline({ lines, chosen, nameOf, onChoose, onEnd }: TimelineProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => heightOf(lines[i]),
    overscan: 12,
  });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (lines.length && last >= lines.length - 20) onEnd();
  }, [last, lines.length, onEnd]);
  useEffect(() => virtual.measure(), [lines, virtual]);
  const at = lines.findIndex((line) => line.kind === 'step' && line.step.seq === chosen);
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    let to = Math.max(0, Math.min(lines.length - 1, at + by));
    // The heads of sittings are passed over.
    while (lines[to]?.kind === 'sitting' && to + Math.sign(by) >= 0) to += Math.sign(by);
    const line = lines[to];
    if (line?.kind !== 'step') return;
    virtual.scrollToIndex(to);
    onChoose(line.step.seq);
  };
  return (
    <Scroller
      ref={scroller}
      role="listbox"
      aria-label="Steps, the newest first"
      tabIndex={0}
      aria-activedescendant={at < 0 ? undefined : `step-${chosen}`}
      onKeyDown={onKey}
    >
      <div style={{ position: 'relative', height: virtual.getTotalSize() }}>
        {items.map(({ index, start }) => {
          const line = lines[index];
          if (line.kind === 'sitting')
            return (
              <Head key={index} style={{ top: start, height: HEAD }}>
                {momentInWords(line.from)}
                {timeOf(line.to) !== timeOf(line.from) && ` – ${timeOf(line.to)}`}
                <span>
                  {line.steps} {line.steps === 1 ? 'step' : 'steps'}
                </span>
              </Head>
            );
          const { step, versions } = line;
          const marks = [
            ...versions.map(({ name }) => name),
            ...(step.isIteration ? ['The design moved here'] : []),
          ];
          const words = stepInWords(step, nameOf);
          return (
            <Row
              key={index}
              id={`step-${step.seq}`}
              role="option"
              aria-selected={step.seq === chosen}
              $isOn={step.seq === chosen}
              $isGone={step.standing === 'undone' || step.standing === 'dropped'}
              style={{ top: start, height: heightOf(line) }}
              onClick={() => onChoose(step.seq)}
            >
              <time dateTime={step.madeAt}>{timeOf(step.madeAt)}</time>
              <span title={words}>{words}</span>
              {marks.length > 0 && <b>{marks.join(' · ')}</b>}
            </Row>
          );
        })}
      </div>
    </Scroller>
  );
}

const heightOf = (line: TimelineLine): number =>
  line.kind === 'sitting' ? HEAD : line.versions.length || line.step.isIteration ? NAMED : LINE;
