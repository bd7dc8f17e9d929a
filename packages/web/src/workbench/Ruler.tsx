import type { Breakpoint } from '@tovel/core';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import styled from 'styled-components';
import { color, font } from '../theme/theme';

/** Widths that the ruler shows, in px of the window. */
export const WIDTHS = { min: 280, max: 1600 };

const Bar = styled.div`
  position: relative;
  height: 54px;
  margin: 0 26px;
  touch-action: none;
  cursor: ew-resize;
  &::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 25px;
    height: 3px;
    background: ${color.rule};
  }
`;

const Tick = styled.i`
  position: absolute;
  top: 28px;
  height: 5px;
  border-left: 1px solid ${color.fieldRule};
  font: 11px ${font.code};
  color: ${color.ink2};
  pointer-events: none;
  span {
    position: absolute;
    top: 6px;
    left: 0;
    transform: translateX(-50%);
  }
`;
const TICKS = [400, 600, 800, 1000, 1200, 1400, 1600];

const Mark = styled.button<{ $kind: 'drawn' | 'break' }>`
  position: absolute;
  top: 17px;
  width: 11px;
  height: 19px;
  padding: 0;
  border: 0;
  background: none;
  transform: translateX(-50%);
  cursor: pointer;
  &::before {
    content: '';
    position: absolute;
    ${({ $kind }) =>
      $kind === 'drawn'
        ? `left: 1px; top: 5px; width: 9px; height: 9px; border: 2px solid ${color.ink}; border-radius: 50%; background: ${color.sheet};`
        : `left: 5px; top: 0; width: 0; height: 19px; border-left: 2px dashed ${color.ink2};`}
  }
  span {
    position: absolute;
    left: 50%;
    bottom: 17px;
    transform: translateX(-50%);
    font: 11px ${font.code};
    color: ${color.ink2};
  }
`;

const Handle = styled.div`
  position: absolute;
  top: 15px;
  width: 15px;
  height: 23px;
  transform: translateX(-50%);
  background: ${color.lake};
  cursor: ew-resize;
  &::after {
    content: attr(data-width);
    position: absolute;
    left: 50%;
    top: -13px;
    transform: translateX(-50%);
    padding: 0 4px;
    font: 600 11px ${font.code};
    white-space: nowrap;
    color: ${color.lake};
    background: ${color.paper};
  }
`;

const share = (width: number): number =>
  ((Math.min(WIDTHS.max, Math.max(WIDTHS.min, width)) - WIDTHS.min) / (WIDTHS.max - WIDTHS.min)) * 100;

interface RulerProps {
  width: number;
  /** Widths at which the screen was drawn. */
  drawn: readonly number[];
  breakpoints: readonly Breakpoint[];
  onWidth: (width: number) => void;
}

/** How wide the window is: drag the handle, press a mark, or use the arrow keys. */
export function Ruler({ width, drawn, breakpoints, onWidth }: RulerProps) {
  const bar = useRef<HTMLDivElement>(null);
  const put = (next: number): void => onWidth(Math.round(Math.min(WIDTHS.max, Math.max(WIDTHS.min, next))));
  const drag = (event: PointerEvent): void => {
    const { left, width: length } = bar.current!.getBoundingClientRect();
    put(WIDTHS.min + ((event.clientX - left) / length) * (WIDTHS.max - WIDTHS.min));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = event.shiftKey ? 1 : 10;
    const next: Record<string, number> = {
      ArrowLeft: width - step,
      ArrowDown: width - step,
      ArrowRight: width + step,
      ArrowUp: width + step,
      Home: WIDTHS.min,
      End: WIDTHS.max,
    };
    if (!(event.key in next)) return;
    event.preventDefault();
    event.stopPropagation();
    put(next[event.key]);
  };
  return (
    <Bar
      ref={bar}
      onPointerDown={(event) => {
        if ((event.target as HTMLElement).closest('button')) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && drag(event)}
    >
      {TICKS.map((at) => (
        <Tick key={at} aria-hidden="true" style={{ left: `${share(at)}%` }}>
          <span>{at}</span>
        </Tick>
      ))}
      {breakpoints.map((point) => (
        <Mark
          key={`${point.kind} ${point.width}`}
          type="button"
          tabIndex={-1}
          $kind="break"
          style={{ left: `${share(point.width)}%` }}
          title={`Breakpoint: ${point.kind === 'upTo' ? 'up to' : 'from'} ${point.width} px, ${point.elements} elements`}
          aria-label={`Breakpoint ${point.kind === 'upTo' ? 'up to' : 'from'} ${point.width} px`}
          onClick={() => put(point.width)}
        >
          <span>{Math.abs(point.width - width) > 70 ? point.width : ''}</span>
        </Mark>
      ))}
      {drawn.map((at) => (
        <Mark
          key={at}
          type="button"
          tabIndex={-1}
          $kind="drawn"
          style={{ left: `${share(at)}%` }}
          title={`Drawn at ${at} px`}
          aria-label={`To the drawn width, ${at} px`}
          onClick={() => put(at)}
        />
      ))}
      <Handle
        role="slider"
        tabIndex={0}
        aria-label="Width of the window"
        aria-valuemin={WIDTHS.min}
        aria-valuemax={WIDTHS.max}
        aria-valuenow={width}
        aria-valuetext={`${width} px`}
        data-width={`${width} px`}
        style={{ left: `${share(width)}%` }}
        onKeyDown={onKeyDown}
      />
    </Bar>
  );
}
