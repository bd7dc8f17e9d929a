import { type Box, findElement, hostOf, screensByKey } from '@tovel/core';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { broughtIntoPicture } from '../picture/in_picture';
import { useOpenedAround } from '../picture/open_parts';
import { ScreenPicture } from '../picture/ScreenPicture';
import { whenThereIsTime } from '../picture/picture_queue';
import { useProject } from '../project/context';
import { color } from '../theme/theme';

const Window = styled.div`
  position: relative;
  overflow: hidden;
  border: 1px solid ${color.rule};
  background: ${color.field};
`;

/**
 * The part of a screen that an element takes, at most so wide and high.
 * @param least it is drawn at least at this scale, and cut off where it is wider then
 */
export function PlacePicture({
  element: key,
  width,
  height,
  least = 0,
}: {
  element: string;
  width: number;
  height: number;
  least?: number;
}) {
  const { design, app } = useProject();
  const screen = screensByKey(design).get(hostOf({ design, app }, key));
  const element = findElement(design, key);
  const [isNear, setNear] = useState(false);
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let giveUp: (() => void) | null = null;
    const watcher = new IntersectionObserver((entries) => {
      giveUp?.();
      giveUp = entries.at(-1)?.isIntersecting ? whenThereIsTime(() => setNear(true)) : null;
    });
    if (holder.current) watcher.observe(holder.current);
    return () => {
      watcher.disconnect();
      giveUp?.();
    };
  }, []);
  const [page, setPage] = useState<Document | null>(null);
  const [seen, setSeen] = useState<Box | null>(null);
  // What stands in a part that is closed is seen as it is when that is open.
  const opened = useOpenedAround(page, key);
  useLayoutEffect(() => setSeen(opened.page && broughtIntoPicture(opened.page, key)), [opened, key]);
  if (!screen || !element) return <Window style={{ width, height: 40 }} />;
  const box = seen ?? element.box;
  const scale = Math.max(
    least,
    Math.min(1, width / Math.max(1, box.width), height / Math.max(1, box.height)),
  );
  return (
    <Window
      ref={holder}
      style={{
        width: Math.min(width, Math.max(20, Math.round(box.width * scale))),
        height: Math.min(height, Math.max(16, Math.round(box.height * scale))),
      }}
    >
      {isNear && (
        <div style={{ position: 'absolute', left: -box.x * scale, top: -box.y * scale }}>
          <ScreenPicture screen={screen} width={screen.width * scale} onReady={setPage} />
        </div>
      )}
    </Window>
  );
}
