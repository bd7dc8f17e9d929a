import { type Screen, walkElements } from '@tovel/core';
import { type KeyboardEvent, type PointerEvent, type ReactNode, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';

const Box = styled.div`
  position: relative;
  flex: none;
  min-height: 0;
  height: 100%;
  margin: 0 auto;
  display: grid;
  grid-template-rows: 20px minmax(0, 1fr);
  && iframe {
    width: 100%;
    margin: 0;
  }
`;

const Ruler = styled.div`
  position: relative;
  border-bottom: 1px solid ${color.fieldRule};
  font-size: 11px;
  color: ${color.ink2};
  font-variant-numeric: tabular-nums;
  user-select: none;
`;

const Tick = styled.button`
  position: absolute;
  bottom: 0;
  height: 18px;
  padding: 0 0 0 4px;
  border: 0;
  border-left: 1px solid ${color.lake};
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
`;

const Handle = styled.div`
  position: absolute;
  top: 0;
  bottom: 0;
  right: -12px;
  width: 12px;
  cursor: ew-resize;
  touch-action: none;
  display: grid;
  place-items: center;
  &::before {
    content: '';
    width: 4px;
    height: 44px;
    background: ${color.fieldRule};
  }
  &:hover::before {
    background: ${color.lake};
  }
`;

const NARROWEST = 240;
const WIDEST = 2400;
const STEP = 10;

/** Widths in px up to which, or from which on, something of a screen is otherwise. */
function breakpointsOf(screen: Screen | undefined): number[] {
  const found = new Set<number>();
  if (screen)
    walkElements(screen.root, ({ style }) => {
      for (const width of Object.keys(style.at ?? {})) found.add(Number(width));
      for (const width of Object.keys(style.from ?? {})) found.add(Number(width));
    });
  return [...found].filter((width) => width >= NARROWEST && width <= WIDEST).sort((a, b) => a - b);
}

interface SizedProps {
  /** In CSS px; null for all the room that there is. */
  readonly width: number | null;
  readonly screen: Screen | undefined;
  readonly onWidth: (width: number) => void;
  readonly children: ReactNode;
}

/** The running app in a window of a width that is dragged; its ruler marks the widths at which the screen changes. */
export function Sized({ width, screen, onWidth, children }: SizedProps) {
  const breakpoints = useMemo(() => breakpointsOf(screen), [screen]);
  const drag = useRef<{ readonly x: number; readonly width: number } | null>(null);
  const set = (next: number): void => onWidth(Math.round(Math.min(WIDEST, Math.max(NARROWEST, next))));
  const move = ({ clientX, currentTarget }: PointerEvent<HTMLDivElement>): void => {
    if (!drag.current) return;
    const room = currentTarget.parentElement!.parentElement!.clientWidth;
    // What stands in the middle grows to both sides.
    const by = drag.current.width < room - 60 ? 2 : 1;
    set(drag.current.width + (clientX - drag.current.x) * by);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>): void => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set((width ?? event.currentTarget.parentElement!.clientWidth) + by * (event.shiftKey ? 10 : 1));
  };
  return (
    <Box style={{ width: width === null ? '100%' : width + 2 }}>
      <Ruler>
        <span style={{ position: 'absolute', left: 0, top: 2 }}>
          {width === null ? 'All the room there is' : `${width} px`}
        </span>
        {breakpoints.map((at) => (
          <Tick
            key={at}
            type="button"
            style={{ left: at }}
            aria-label={`${at} px wide, where it changes`}
            onClick={() => set(at)}
          >
            {at}
          </Tick>
        ))}
      </Ruler>
      {children}
      <Handle
        role="separator"
        aria-orientation="vertical"
        aria-label="Width of the window"
        aria-valuenow={width ?? undefined}
        aria-valuetext={width === null ? 'all the room there is' : `${width} px`}
        aria-valuemin={NARROWEST}
        aria-valuemax={WIDEST}
        tabIndex={0}
        onKeyDown={onKeyDown}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = {
            x: event.clientX,
            width: width ?? event.currentTarget.parentElement!.clientWidth,
          };
        }}
        onPointerMove={move}
        onPointerUp={() => (drag.current = null)}
      />
    </Box>
  );
}
