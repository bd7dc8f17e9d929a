import { type Screen, walkElements } from '@tovel/core';
import {
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  type RefObject,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
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
  align-content: start;
  && iframe {
    width: 100%;
    height: 100%;
    margin: 0;
  }
`;

const Pane = styled.div`
  min-height: 0;
  overflow: hidden;
  > div {
    transform-origin: 0 0;
  }
`;

const Switches = styled.div`
  position: absolute;
  right: 0;
  top: 0;
  z-index: 1;
  display: flex;
  background: ${color.paper};
  button {
    height: 19px;
    padding: 0 5px;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
  button:hover {
    color: ${color.ink};
  }
  button[aria-pressed='true'] {
    color: ${color.ink};
    font-weight: 650;
    text-decoration: underline;
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

/** A label on the ruler takes so many px; one that the next tick leaves less shows none. */
const LABEL = 30;
/** Height of the ruler, in px. */
const RULER = 20;
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

/** How high a window of a width is, in px, where it is that of a device which can be turned; narrower ones are phones. */
const heightFor = (width: number): number => Math.round(width < 600 ? width * 2.16 : width * 1.333);
/** Wider than this nothing is turned. */
const WIDEST_TURNED = 1100;
const LEAST_SCALE = 0.2;

/** The room that there is for the window, in px. */
function useRoom(box: RefObject<HTMLElement | null>): { readonly width: number; readonly height: number } {
  const [room, setRoom] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([{ contentRect }]) =>
      setRoom({ width: contentRect.width, height: contentRect.height }),
    );
    watcher.observe(box.current!.parentElement!);
    return () => watcher.disconnect();
  }, []);
  return room;
}

/** The running app in a window of a width that is dragged; its ruler marks the widths at which the screen changes. */
export function Sized({ width, screen, onWidth, children }: SizedProps) {
  const breakpoints = useMemo(() => breakpointsOf(screen), [screen]);
  const drag = useRef<{ readonly x: number; readonly width: number } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const room = useRoom(box);
  const [lying, setLying] = useState<{ readonly width: number; readonly upright: number } | null>(null);
  const [isFit, setFit] = useState(false);
  // Who chooses another width has it upright.
  const isLying = lying !== null && lying.width === width;
  const height = isLying ? lying.upright : null;
  const fitting = Math.min(
    1,
    (room.width - 4) / (width ?? 1),
    height === null ? 1 : (room.height - RULER) / height,
  );
  const scale = isFit && width !== null ? Math.max(LEAST_SCALE, fitting) : 1;
  const shown = width === null ? room.width : width * scale;
  // What stands in the middle has as much room on both sides; a mark beyond it would be scrolled to for nothing.
  const marks = breakpoints.filter(
    (at) => at * scale <= shown || at * scale + LABEL <= (room.width + shown) / 2,
  );
  const turn = (): void => {
    if (width === null) return;
    if (isLying) {
      setLying(null);
      onWidth(lying.upright);
      return;
    }
    setLying({ width: heightFor(width), upright: width });
    onWidth(heightFor(width));
  };
  const set = (next: number): void => onWidth(Math.round(Math.min(WIDEST, Math.max(NARROWEST, next))));
  const move = ({ clientX }: PointerEvent<HTMLDivElement>): void => {
    if (!drag.current) return;
    // What stands in the middle grows to both sides.
    const by = drag.current.width * scale < room.width - 28 ? 2 : 1;
    set(drag.current.width + ((clientX - drag.current.x) * by) / scale);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>): void => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set((width ?? event.currentTarget.parentElement!.clientWidth) + by * (event.shiftKey ? 10 : 1));
  };
  return (
    <Box ref={box} style={{ width: width === null ? '100%' : width * scale + 2 }}>
      <Ruler>
        <span style={{ position: 'absolute', left: 0, top: 2 }}>
          {width === null ? 'All the room there is' : `${width} px`}
          {scale < 1 && ` at ${Math.round(scale * 100)} %`}
        </span>
        {width !== null && (
          <Switches>
            {width <= WIDEST_TURNED && (
              <button type="button" aria-pressed={isLying} onClick={turn}>
                Lying
              </button>
            )}
            <button type="button" aria-pressed={isFit} onClick={() => setFit(!isFit)}>
              Fit
            </button>
          </Switches>
        )}
        {marks.map((at, i) => (
          <Tick
            key={at}
            type="button"
            style={{ left: at * scale }}
            aria-label={`${at} px wide, where it changes`}
            onClick={() => set(at)}
          >
            {(marks[i + 1] - at) * scale < LABEL ? '' : at}
          </Tick>
        ))}
      </Ruler>
      <Pane style={height === null ? undefined : { height: height * scale + 2 }}>
        <div
          style={{
            width: width === null ? '100%' : width + 2,
            height: height === null ? `${100 / scale}%` : height + 2,
            transform: scale < 1 ? `scale(${scale})` : undefined,
          }}
        >
          {children}
        </div>
      </Pane>
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
