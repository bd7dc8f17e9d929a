import type { Box, FoundRegion, Region, Screen } from '@tovel/core';
import { type PointerEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { keyAtPoint, placeInPicture, pointInPicture } from '../picture/in_picture';
import { ScreenPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { regionsOn } from './regions';

const Column = styled.section`
  overflow: auto;
  padding: 18px;
`;

const Holder = styled.div<{ $isDrawn: boolean }>`
  position: relative;
  width: fit-content;
  margin: 0 auto;
  border: 1px solid ${color.fieldRule};
  cursor: ${({ $isDrawn }) => ($isDrawn ? 'crosshair' : 'pointer')};
  touch-action: none;
`;

const Outline = styled.div<{ $look: 'selected' | 'hovered' | 'drawn' | 'found' }>`
  position: absolute;
  pointer-events: none;
  border: ${({ $look }) =>
    ({
      selected: `2px solid ${color.ink}`,
      hovered: `2px solid ${color.lake}`,
      drawn: `2px solid ${color.lake}`,
      found: `1.5px dashed ${color.ochre}`,
    })[$look]};
  box-shadow: ${({ $look }) => ($look === 'found' ? 'none' : `0 0 0 1px ${color.sheet}`)};
`;

interface ReadingPictureProps {
  screen: Screen;
  selected: string | null;
  hovered: string | null;
  onSelect: (key: string) => void;
  onHover: (key: string | null) => void;
  /** Takes a frame that was drawn by hand; only on screens that are pictures. */
  onDraw?: (region: Region) => void;
}

/** A frame smaller than this, in px of the screen, is a press. */
const LEAST = 8;

/** The screen as it is in the app. Hovering an element here marks it in the list, and the other way round. */
export function ReadingPicture({
  screen,
  selected,
  hovered,
  onSelect,
  onHover,
  onDraw,
}: ReadingPictureProps) {
  const { app } = useProject();
  const column = useRef<HTMLElement>(null);
  const holder = useRef<HTMLDivElement>(null);
  const [page, setPage] = useState<Document | null>(null);
  const [space, setSpace] = useState({ width: 0, height: 0 });
  const [drag, setDrag] = useState<{ from: [number, number]; to: [number, number] } | null>(null);
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([entry]) =>
      setSpace({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    watcher.observe(column.current!);
    return () => watcher.disconnect();
  }, []);
  const fit = Math.min(
    1,
    (space.width - 4) / screen.width,
    screen.width <= 600 ? Math.max(0.55, (space.height - 4) / screen.height) : 1,
  );
  const width = Math.max(60, Math.floor(screen.width * fit));
  const ratio = width / screen.width;
  const placeOf = (key: string | null): Box | null => placeInPicture(page, key, ratio);
  const pointIn = (event: PointerEvent): [number, number] => pointInPicture(event, holder.current!, ratio);
  const elementAt = (event: PointerEvent): string | null => keyAtPoint(page, pointIn(event));
  const frame = drag && {
    x: Math.max(0, Math.min(drag.from[0], drag.to[0])),
    y: Math.max(0, Math.min(drag.from[1], drag.to[1])),
    width: Math.abs(drag.to[0] - drag.from[0]),
    height: Math.abs(drag.to[1] - drag.from[1]),
  };
  const open = useMemo(
    () => (onDraw ? openRegions(screen.regions ?? [], regionsOn(app, screen.key)) : []),
    [onDraw, screen, app],
  );
  const outline = (box: Box | null, look: 'selected' | 'hovered' | 'drawn', scale = 1) =>
    box && (
      <Outline
        key={look}
        data-outline={look}
        $look={look}
        style={{
          left: box.x * scale - 2,
          top: box.y * scale - 2,
          width: box.width * scale + 4,
          height: box.height * scale + 4,
        }}
      />
    );
  return (
    <Column ref={column} aria-label="Picture of the screen">
      {space.width > 0 && (
        <Holder
          ref={holder}
          data-stage
          $isDrawn={!!onDraw}
          onPointerDown={(event) => {
            if (!onDraw) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            setDrag({ from: pointIn(event), to: pointIn(event) });
          }}
          onPointerMove={(event) =>
            drag ? setDrag({ ...drag, to: pointIn(event) }) : onHover(elementAt(event))
          }
          onPointerUp={(event) => {
            setDrag(null);
            if (frame && onDraw && frame.width >= LEAST && frame.height >= LEAST) {
              const box = {
                x: Math.round(frame.x),
                y: Math.round(frame.y),
                width: Math.round(frame.width),
                height: Math.round(frame.height),
              };
              onDraw({ kind: 'box', box, name: textWithin(box, screen.regions ?? []) ?? 'Button' });
              return;
            }
            const key = elementAt(event);
            if (key) onSelect(key);
          }}
          onPointerLeave={() => onHover(null)}
        >
          <ScreenPicture screen={screen} width={width} onReady={setPage} />
          {open.map((region, i) => (
            <Outline
              key={i}
              $look="found"
              style={{
                left: region.box.x * ratio,
                top: region.box.y * ratio,
                width: region.box.width * ratio,
                height: region.box.height * ratio,
              }}
            />
          ))}
          {outline(placeOf(hovered), 'hovered')}
          {outline(placeOf(selected), 'selected')}
          {outline(frame, 'drawn', ratio)}
        </Holder>
      )}
    </Column>
  );
}

/** What was found and not taken yet. */
export function openRegions(found: readonly FoundRegion[], taken: readonly Region[]): FoundRegion[] {
  return found.filter(
    ({ box }) =>
      !taken.some(
        ({ box: other }) =>
          Math.abs(other.x - box.x) < 1 &&
          Math.abs(other.y - box.y) < 1 &&
          Math.abs(other.width - box.width) < 1 &&
          Math.abs(other.height - box.height) < 1,
      ),
  );
}

/** The text that was read inside a frame. */
export function textWithin(box: Box, found: readonly FoundRegion[]): string | null {
  const texts = found.filter(
    ({ text, box: other }) =>
      text &&
      other.x >= box.x - 4 &&
      other.y >= box.y - 4 &&
      other.x + other.width <= box.x + box.width + 4 &&
      other.y + other.height <= box.y + box.height + 4,
  );
  return (
    texts
      .map(({ text }) => text)
      .join(' ')
      .slice(0, 60) || null
  );
}
