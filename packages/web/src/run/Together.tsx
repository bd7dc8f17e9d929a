import { useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';
import type { Frames } from './use_frames';
import { useTogether } from './use_together';

const Row = styled.div`
  flex: 1;
  min-width: 0;
  height: 100%;
  display: flex;
  gap: 16px;
`;

const One = styled.figure`
  flex: none;
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 4px;
  overflow: hidden;
  figcaption {
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
  }
  div {
    position: relative;
    overflow: hidden;
  }
  && iframe {
    position: absolute;
    inset: 0 auto auto 0;
    margin: 0;
    transform-origin: 0 0;
  }
`;

/** In px of the interface. */
const GAP = 16;
const CAPTION = 22;

interface TogetherProps {
  readonly widths: readonly number[];
  readonly src: string;
  readonly origin: string;
  readonly frames: Frames;
}

/** The running app at several widths beside each other: what is done in one of them is done in all. */
export function Together({ widths, src, origin, frames }: TogetherProps) {
  const row = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([{ contentRect }]) =>
      setRoom({ width: contentRect.width, height: contentRect.height }),
    );
    watcher.observe(row.current!);
    return () => watcher.disconnect();
  }, []);
  useTogether(frames.all, origin);
  const all = widths.reduce((sum, width) => sum + width, 0);
  const scale = Math.min(1, Math.max(0.1, (room.width - GAP * (widths.length - 1)) / all));
  return (
    <Row ref={row}>
      {widths.map((width, i) => (
        <One key={width} style={{ width: width * scale }}>
          <figcaption>{width} px</figcaption>
          <div>
            <iframe
              ref={
                i === 0
                  ? frames.first
                  : (frame) => {
                      if (frame) frames.others.current.set(frame, width);
                      return () => {
                        if (frame) frames.others.current.delete(frame);
                      };
                    }
              }
              title={i === 0 ? 'The running app' : `The running app at ${width} px`}
              src={src}
              sandbox="allow-scripts allow-same-origin allow-forms"
              style={{
                width,
                height: Math.max(0, room.height - CAPTION) / scale,
                transform: `scale(${scale})`,
              }}
            />
          </div>
        </One>
      ))}
    </Row>
  );
}
