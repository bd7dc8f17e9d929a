import { emitScreenOf, type PageOf, printHtml, type Screen, screensByKey, windowHeightOf } from '@tovel/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { assetUrl } from '../api/client';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { whenThereIsTime } from './picture_queue';

const Frame = styled.div`
  position: relative;
  overflow: hidden;
  background: ${color.field};
  iframe {
    position: absolute;
    left: 0;
    top: 0;
    border: 0;
    transform-origin: 0 0;
    pointer-events: none;
  }
`;

/** A screen as the emitter writes it, as a page of its own. */
export function useScreenHtml(key: string): string {
  const { plan, drawn, app } = useProject();
  const emitted = emitScreenOf(plan, key);
  const screen = screensByKey(drawn).get(key);
  const windowHeight = screen ? windowHeightOf(screen) : null;
  return useMemo(
    () => printHtml(emitted, assetUrl, drawn.fonts, app.tokens, windowHeight),
    [emitted, drawn.fonts, app.tokens, windowHeight],
  );
}

interface PictureProps {
  screen: Screen;
  /** Width in px that the picture takes; its height follows. */
  width: number;
  height?: number;
  /** Called when the frame holds the screen, and again when that has changed. */
  onReady?: (frame: Document) => void;
}

/** A picture of a screen in a frame that runs nothing. */
export function ScreenPicture({ screen, ...props }: PictureProps) {
  return <PagePicture page={{ ...screen, html: useScreenHtml(screen.key) }} {...props} />;
}

/** A page in a frame that runs nothing. */
export function PagePicture({
  page,
  width,
  height,
  onReady,
}: Omit<PictureProps, 'screen'> & { page: PageOf }) {
  const scale = width / page.width;
  const frame = useRef<HTMLIFrameElement>(null);
  const ready = useRef(onReady);
  ready.current = onReady;
  return (
    <Frame style={{ width, height: height ?? Math.round(page.height * scale) }}>
      <iframe
        ref={frame}
        title={`Picture of ${page.name}`}
        aria-hidden="true"
        tabIndex={-1}
        sandbox="allow-same-origin"
        srcDoc={page.html}
        style={{ width: page.width, height: page.height, transform: `scale(${scale})` }}
        onLoad={() => frame.current?.contentDocument && ready.current?.(frame.current.contentDocument)}
      />
    </Frame>
  );
}

/** A picture that is drawn when it first comes near the window. */
export function LazyPicture({ screen, width, height }: Omit<PictureProps, 'onReady'>) {
  const [isNear, setNear] = useState(false);
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let giveUp: (() => void) | null = null;
    const watcher = new IntersectionObserver(
      (entries) => {
        const isClose = entries.at(-1)?.isIntersecting ?? false;
        giveUp?.();
        giveUp = isClose ? whenThereIsTime(() => setNear(true)) : null;
      },
      { rootMargin: '200px' },
    );
    if (holder.current) watcher.observe(holder.current);
    return () => {
      watcher.disconnect();
      giveUp?.();
    };
  }, []);
  const full = height ?? Math.round((screen.height * width) / screen.width);
  return (
    <div ref={holder} style={{ width, height: full }}>
      {isNear && <ScreenPicture screen={screen} width={width} height={full} />}
    </div>
  );
}
