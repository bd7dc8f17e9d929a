import type { Screen } from '@tovel/core';
import { type PointerEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { keyAtPoint, placeInPicture, pointInPicture } from './in_picture';
import { useOpenedAround } from './open_parts';
import { ScreenPicture } from './ScreenPicture';
import { color } from '../theme/theme';

const Column = styled.section`
  overflow: auto;
  padding: 14px;
  border-left: 1px solid ${color.rule};
`;

const Holder = styled.div`
  position: relative;
  border: 1px solid ${color.fieldRule};
  width: fit-content;
  margin: 0 auto;
  cursor: pointer;
`;

const Outline = styled.div`
  position: absolute;
  border: 2px solid ${color.lake};
  box-shadow: 0 0 0 1px ${color.sheet};
  pointer-events: none;
`;

/** The screen that a file writes; the chosen element is outlined, and pressing another chooses that. */
export function ElementPicture({
  screen,
  element,
  onPick,
}: {
  screen: Screen;
  element: string | null;
  onPick?: (key: string) => void;
}) {
  const column = useRef<HTMLElement>(null);
  const holder = useRef<HTMLDivElement>(null);
  const outline = useRef<HTMLDivElement>(null);
  const [page, setPage] = useState<Document | null>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([entry]) =>
      setWidth(Math.min(screen.width, Math.floor(entry.contentRect.width) - 2)),
    );
    watcher.observe(column.current!);
    return () => watcher.disconnect();
  }, [screen]);
  const ratio = width / screen.width;
  const opened = useOpenedAround(page, element);
  const box = placeInPicture(opened.page, element, ratio);
  useEffect(() => {
    outline.current?.scrollIntoView?.({ block: 'nearest' });
  }, [element, page, width]);
  const pick = (event: PointerEvent): void => {
    const key = keyAtPoint(page, pointInPicture(event, holder.current!, ratio));
    if (key) onPick?.(key);
  };
  return (
    <Column ref={column} aria-label={`Picture of ${screen.name}`}>
      {width > 0 && (
        <Holder ref={holder} onPointerDown={pick} data-stage>
          <ScreenPicture screen={screen} width={width} onReady={setPage} />
          {box && (
            <Outline
              ref={outline}
              data-outline
              style={{
                left: box.x - 2,
                top: box.y - 2,
                width: box.width + 4,
                height: box.height + 4,
              }}
            />
          )}
        </Holder>
      )}
    </Column>
  );
}
