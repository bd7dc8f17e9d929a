import type { PageOf } from '@tovel/core';
import { type PointerEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { keyAtPoint, placeInPicture, pointInPicture } from '../picture/in_picture';
import { PagePicture } from '../picture/ScreenPicture';
import { color } from '../theme/theme';
import { Button, Segments } from '../ui/controls';

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, max-content));
  justify-content: center;
  gap: 14px;
  align-items: start;
`;

const Side = styled.figure`
  margin: 0;
  min-width: 0;
  figcaption {
    color: ${color.ink2};
    padding-bottom: 4px;
  }
`;

const Holder = styled.div<{ $canPick: boolean }>`
  position: relative;
  border: 1px solid ${color.fieldRule};
  width: fit-content;
  /* What is drawn past the edge of a screen is no reason to scroll. */
  overflow: clip;
  overflow-clip-margin: 3px;
  cursor: ${({ $canPick }) => ($canPick ? 'pointer' : 'default')};
`;

const Outline = styled.div<{ $isOld: boolean }>`
  position: absolute;
  border: 2px ${({ $isOld }) => ($isOld ? 'dashed' : 'solid')}
    ${({ $isOld }) => ($isOld ? color.ochre : color.lake)};
  box-shadow: 0 0 0 1px ${color.sheet};
  pointer-events: none;
`;

const Nothing = styled.p`
  padding: 22px 16px;
  border: 1px dashed ${color.fieldRule};
  color: ${color.ink2};
`;

const Over = styled.div`
  display: grid;
  justify-content: center;
  gap: 8px;
  label {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto;
    gap: 10px;
    color: ${color.ink2};
  }
  input {
    accent-color: ${color.lake};
  }
`;

const Stacked = styled.div`
  position: relative;
  > div + div {
    position: absolute;
    inset: 0;
  }
`;

/** Where the one picture ends and the other begins. */
const Edge = styled.i`
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: ${color.lake};
  box-shadow: 0 0 0 1px ${color.sheet};
  pointer-events: none;
`;

/** Outlines drawn at once, at most. */
const MOST_MARKED = 80;

interface PictureOfPage {
  page: PageOf;
  width: number;
  marked: readonly string[];
  isOld?: boolean;
  /** Whether the first of what is marked is brought into the window. */
  isFollowed?: boolean;
  onPick?: (key: string) => void;
}

function Picture({ page, width, marked, isOld = false, isFollowed = false, onPick }: PictureOfPage) {
  const holder = useRef<HTMLDivElement>(null);
  const first = useRef<HTMLDivElement>(null);
  const [frame, setFrame] = useState<Document | null>(null);
  const ratio = width / page.width;
  const boxes = marked.slice(0, MOST_MARKED).flatMap((key) => placeInPicture(frame, key, ratio) ?? []);
  const followed = isFollowed ? marked[0] : undefined;
  useEffect(() => {
    if (followed) first.current?.scrollIntoView?.({ block: 'nearest' });
  }, [followed, frame]);
  const pick = (event: PointerEvent): void => {
    const key = keyAtPoint(frame, pointInPicture(event, holder.current!, ratio));
    if (key) onPick?.(key);
  };
  return (
    <Holder
      ref={holder}
      $canPick={onPick !== undefined}
      onPointerDown={onPick && pick}
      data-side={isOld ? 'before' : 'after'}
    >
      <PagePicture page={page} width={width} onReady={setFrame} />
      {boxes.map((box, i) => (
        <Outline
          key={`${box.x} ${box.y} ${i}`}
          ref={i ? null : first}
          $isOld={isOld}
          data-outline
          style={{ left: box.x - 2, top: box.y - 2, width: box.width + 4, height: box.height + 4 }}
        />
      ))}
    </Holder>
  );
}

export type Laid = 'beside' | 'over';

interface LaidChoiceProps {
  laid: Laid;
  onLaid: (laid: Laid) => void;
  /** Whether there is only one picture. */
  isDisabled: boolean;
}

/** How both pictures are laid. */
export const LaidChoice = ({ laid, onLaid, isDisabled }: LaidChoiceProps) => (
  <Segments role="group" aria-label="How both are laid">
    <Button aria-pressed={laid === 'beside'} onPress={() => onLaid('beside')}>
      Side by side
    </Button>
    <Button aria-pressed={laid === 'over'} isDisabled={isDisabled} onPress={() => onLaid('over')}>
      Over each other
    </Button>
  </Segments>
);

interface BeforeAfterProps {
  before: PageOf | null;
  after: PageOf | null;
  laid: Laid;
  /** Keys of what is marked on either side. */
  marked: { readonly olds: readonly string[]; readonly nows: readonly string[] };
  /** Chooses an element of the newer one by pressing it. */
  onPick?: (key: string) => void;
  /** What stands where there is no picture. */
  nothingBefore: string;
  nothingAfter: string;
}

/** One screen as it was and as it is: side by side, or laid over each other with a slider between them. */
export function BeforeAfter({
  before,
  after,
  laid,
  marked,
  onPick,
  nothingBefore,
  nothingAfter,
}: BeforeAfterProps) {
  const room = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [share, setShare] = useState(50);
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([entry]) => setWidth(Math.floor(entry.contentRect.width)));
    watcher.observe(room.current!);
    return () => watcher.disconnect();
  }, []);
  const isOver = laid === 'over' && before !== null && after !== null;
  const columns = isOver ? 1 : 2;
  const most = (width - (columns - 1) * 14) / columns - 4;
  const widest = Math.max(before?.width ?? 0, after?.width ?? 0, 1);
  const ratio = Math.min(1, most / widest);
  const widthOf = (page: PageOf): number => Math.max(40, Math.floor(page.width * ratio));
  return (
    <div ref={room}>
      {width > 0 && isOver && (
        <Over>
          <label>
            Before
            <input
              type="range"
              min={0}
              max={100}
              value={share}
              aria-label="How much of the newer one shows"
              onChange={(event) => setShare(Number(event.target.value))}
            />
            After
          </label>
          <Stacked>
            <div>
              <Picture page={before} width={widthOf(before)} marked={marked.olds} isOld />
            </div>
            <div style={{ clipPath: `inset(0 0 0 ${100 - share}%)` }}>
              <Picture
                page={after}
                width={widthOf(after)}
                marked={marked.nows}
                isFollowed
                {...(onPick ? { onPick } : {})}
              />
            </div>
            <Edge aria-hidden="true" style={{ left: `${100 - share}%` }} />
          </Stacked>
        </Over>
      )}
      {width > 0 && !isOver && (
        <Pair>
          <Side>
            <figcaption>Before</figcaption>
            {before ? (
              <Picture page={before} width={widthOf(before)} marked={marked.olds} isOld />
            ) : (
              <Nothing>{nothingBefore}</Nothing>
            )}
          </Side>
          <Side>
            <figcaption>After</figcaption>
            {after ? (
              <Picture
                page={after}
                width={widthOf(after)}
                marked={marked.nows}
                isFollowed
                {...(onPick ? { onPick } : {})}
              />
            ) : (
              <Nothing>{nothingAfter}</Nothing>
            )}
          </Side>
        </Pair>
      )}
    </div>
  );
}
