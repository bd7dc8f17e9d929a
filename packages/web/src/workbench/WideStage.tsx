import type { Declarations, Screen } from '@tovel/core';
import { type PointerEvent, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { keyAtPoint, placeInPicture, pointInPicture } from '../picture/in_picture';
import { useOpenedAround } from '../picture/open_parts';
import { useScreenHtml } from '../picture/ScreenPicture';
import { color } from '../theme/theme';

const Scroller = styled.div`
  min-height: 0;
  overflow: auto;
  padding: 8px 26px 24px;
`;

const Holder = styled.div`
  position: relative;
  overflow: hidden;
  margin: 0 auto;
  outline: 1px solid ${color.fieldRule};
  background: ${color.field};
  cursor: pointer;
  iframe {
    position: absolute;
    left: 0;
    top: 0;
    border: 0;
    transform-origin: 0 0;
    pointer-events: none;
  }
`;

const Outline = styled.div<{ $look: 'selected' | 'hovered' | 'repeat' }>`
  position: absolute;
  pointer-events: none;
  border: ${({ $look }) =>
    ({
      selected: `2px solid ${color.ink}`,
      hovered: `2px solid ${color.lake}`,
      repeat: `1.5px dashed ${color.ochre}`,
    })[$look]};
  box-shadow: ${({ $look }) => ($look === 'repeat' ? 'none' : `0 0 0 1px ${color.sheet}`)};
`;

interface WideStageProps {
  screen: Screen;
  /** Width of the window that it is shown in, in px. */
  width: number;
  selected?: string | null;
  hovered?: string | null;
  /** How the chosen element looks in the state that is being decided about. */
  inState?: Declarations;
  /** Others that are marked. */
  marked?: readonly string[];
  onSelect?: (key: string, isTwice: boolean) => void;
  onHover?: (key: string | null) => void;
  label: string;
}

/** The screen in a window of any width, as large as there is room for. */
export function WideStage({
  screen,
  width,
  selected,
  hovered,
  inState,
  marked,
  onSelect,
  onHover,
  label,
}: WideStageProps) {
  const html = useScreenHtml(screen.key);
  const scroller = useRef<HTMLDivElement>(null);
  const holder = useRef<HTMLDivElement>(null);
  const frame = useRef<HTMLIFrameElement>(null);
  const [page, setPage] = useState<Document | null>(null);
  const [space, setSpace] = useState(0);
  const [height, setHeight] = useState(screen.height);
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([entry]) => setSpace(entry.contentRect.width));
    watcher.observe(scroller.current!);
    return () => watcher.disconnect();
  }, []);
  const scale = space > 0 ? Math.min(1, space / width) : 1;
  /** A window is as high as the drawing; a page that needs more is shown whole. */
  const measure = useCallback((): void => {
    const document = frame.current?.contentDocument;
    if (!frame.current || !document?.body) return;
    frame.current.style.height = `${screen.height}px`;
    setHeight(Math.max(screen.height, document.documentElement.scrollHeight));
  }, [screen.height]);
  useLayoutEffect(measure, [measure, width]);
  // A picture is in no state, so the chosen element is dressed as it would be.
  useEffect(() => {
    const node =
      selected && inState ? page?.querySelector<HTMLElement>(`[data-key="${CSS.escape(selected)}"]`) : null;
    if (!node) return;
    const entries = Object.entries(inState!);
    for (const [property, value] of entries) node.style.setProperty(property, value);
    return () => {
      for (const [property] of entries) node.style.removeProperty(property);
    };
  }, [page, selected, inState]);
  const opened = useOpenedAround(page, selected ?? null);
  const elementAt = (event: PointerEvent): string | null => {
    const [x, y] = pointInPicture(event, holder.current!, scale);
    return keyAtPoint(page, [x + 1 / scale, y + 1 / scale]);
  };
  const outline = (key: string | null | undefined, look: 'selected' | 'hovered' | 'repeat') => {
    const box = placeInPicture(opened.page, key ?? null, scale);
    return (
      box && (
        <Outline
          key={`${look} ${key}`}
          data-outline={look}
          $look={look}
          style={{ left: box.x - 2, top: box.y - 2, width: box.width + 4, height: box.height + 4 }}
        />
      )
    );
  };
  return (
    <Scroller ref={scroller}>
      {space > 0 && (
        <Holder
          ref={holder}
          data-stage
          aria-label={label}
          role="img"
          style={{ width: Math.round(width * scale), height: Math.round(height * scale) }}
          onPointerMove={(event) => onHover?.(elementAt(event))}
          onPointerLeave={() => onHover?.(null)}
          onClick={(event) => {
            const key = elementAt(event as unknown as PointerEvent);
            if (key) onSelect?.(key, event.detail > 1);
          }}
        >
          <iframe
            ref={frame}
            title={`Stage of ${screen.name}`}
            aria-hidden="true"
            tabIndex={-1}
            sandbox="allow-same-origin"
            srcDoc={html}
            style={{ width, height, transform: `scale(${scale})` }}
            onLoad={() => {
              measure();
              setPage(frame.current?.contentDocument ?? null);
            }}
          />
          {(marked ?? []).map((key) => outline(key, 'repeat'))}
          {outline(hovered, 'hovered')}
          {outline(selected, 'selected')}
        </Holder>
      )}
    </Scroller>
  );
}
