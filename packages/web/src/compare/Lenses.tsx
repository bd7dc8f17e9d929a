import type { ComparisonAnswer } from '@tovel/core';
import { type ReactNode, type UIEvent, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { comparedUrl } from '../api/client';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { AttentionLens } from './AttentionLens';

export const LENSES = [
  { id: 'beside', label: 'Beside' },
  { id: 'wipe', label: 'Wipe' },
  { id: 'blink', label: 'Blink' },
  { id: 'difference', label: 'Difference' },
  { id: 'attention', label: 'Attention' },
] as const;
export type Lens = (typeof LENSES)[number]['id'];

const Room = styled.div`
  min-height: 0;
  min-width: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 38px;
  padding: 5px 16px;
  border-bottom: 1px solid ${color.rule};
  font-size: 12px;
  color: ${color.ink2};
  b {
    color: ${color.ink};
  }
  label {
    display: flex;
    align-items: center;
    gap: 8px;
    flex: 1;
  }
  input[type='range'] {
    flex: 1;
    max-width: 420px;
    accent-color: ${color.lake};
  }
`;

/** Wide pages stand above each other, so that they are seen as large as there is room for. */
const Sides = styled.div<{ $isWide: boolean }>`
  min-height: 0;
  display: grid;
  ${({ $isWide }) =>
    $isWide
      ? 'grid-template-rows: minmax(0, 1fr) minmax(0, 1fr);'
      : 'grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);'}
  > div + div {
    border: 0 solid ${color.rule};
    ${({ $isWide }) => ($isWide ? 'border-top-width: 1px;' : 'border-left-width: 1px;')}
  }
`;

const Scroller = styled.div`
  min-height: 0;
  overflow: auto;
  padding: 14px;
  outline-offset: -2px;
`;

const Sheet = styled.div`
  position: relative;
  width: max-content;
  margin: 0 auto;
  background: white;
  border: 1px solid ${color.fieldRule};
  img {
    display: block;
  }
  img + img {
    position: absolute;
    left: 0;
    top: 0;
  }
`;

const Mark = styled.span`
  position: absolute;
  border: 2px solid ${color.red};
  outline: 1px solid white;
  pointer-events: none;
`;

const Pointer = styled.span`
  position: absolute;
  width: 13px;
  height: 13px;
  margin: -7px 0 0 -7px;
  border: 2px solid ${color.red};
  border-radius: 50%;
  outline: 1px solid white;
  pointer-events: none;
`;

const Caption = styled.p`
  font: 11px/1.4 ${font.code};
  color: ${color.ink2};
  text-align: center;
  margin-bottom: 6px;
`;

const WIDE = 600;

type Box = ComparisonAnswer['causes'][number]['box'];
interface Place {
  readonly x: number;
  readonly y: number;
}

/** The two pictures through a lens, with what is chosen marked on them. */
export function Lenses({
  compared,
  lens,
  reference,
  chosen,
}: {
  compared: ComparisonAnswer;
  lens: Lens;
  /** What the reference is, in words. */
  reference: string;
  chosen: Box | null;
}) {
  switch (lens) {
    case 'beside':
      return <Beside compared={compared} reference={reference} chosen={chosen} />;
    case 'wipe':
      return <Wipe compared={compared} reference={reference} chosen={chosen} />;
    case 'blink':
      return <Blink compared={compared} reference={reference} chosen={chosen} />;
    case 'difference':
      return <Difference compared={compared} chosen={chosen} />;
    case 'attention':
      return <AttentionLens compared={compared} reference={reference} />;
  }
}

interface LensProps {
  readonly compared: ComparisonAnswer;
  readonly reference: string;
  readonly chosen: Box | null;
}

/** Both side by side; scrolling and pointing at one does the same at the other. */
function Beside({ compared: { pictures, view, heights }, reference, chosen }: LensProps) {
  const scrollers = useRef<(HTMLDivElement | null)[]>([]);
  const [place, setPlace] = useState<Place | null>(null);
  const [scale, setScale] = useState(1);
  const isWide = view.width > WIDE;
  const room = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const node = room.current;
    if (!node) return;
    const measure = (): void =>
      setScale(Math.min(1, (node.clientWidth / (isWide ? 1 : 2) - 34) / view.width));
    const watcher = new ResizeObserver(measure);
    watcher.observe(node);
    measure();
    return () => watcher.disconnect();
  }, [view.width, isWide]);
  const follow = (event: UIEvent<HTMLDivElement>): void => {
    for (const other of scrollers.current)
      if (other && other !== event.currentTarget) {
        other.scrollTop = event.currentTarget.scrollTop;
        other.scrollLeft = event.currentTarget.scrollLeft;
      }
  };
  useIntoView(scrollers, chosen, scale);
  const side = (which: 'reference' | 'running', title: string, height: number): ReactNode => (
    <Scroller
      ref={(node) => void (scrollers.current[which === 'reference' ? 0 : 1] = node)}
      onScroll={follow}
      tabIndex={0}
      role="group"
      aria-label={title}
    >
      <Caption>
        {title}, {view.width} × {height} px
      </Caption>
      <Sheet
        onPointerMove={(event) => {
          const { left, top } = event.currentTarget.getBoundingClientRect();
          setPlace({ x: event.clientX - left, y: event.clientY - top });
        }}
        onPointerLeave={() => setPlace(null)}
      >
        <img src={comparedUrl(pictures[which])} alt={title} width={view.width * scale} />
        {chosen && <Marked box={chosen} scale={scale} />}
        {place && <Pointer style={{ left: place.x, top: place.y }} />}
      </Sheet>
    </Scroller>
  );
  return (
    <Room style={{ gridTemplateRows: 'minmax(0, 1fr)' }}>
      <Sides ref={room} $isWide={isWide}>
        {side('reference', reference, heights.reference)}
        {side('running', 'What runs', heights.running)}
      </Sides>
    </Room>
  );
}

/** One over the other, parted by a line that is drawn from side to side. */
function Wipe({ compared: { pictures, view }, reference, chosen }: LensProps) {
  const [share, setShare] = useState(50);
  return (
    <OneSheet
      view={view}
      chosen={chosen}
      head={
        <label>
          <b>{reference}</b>
          <input
            type="range"
            min={0}
            max={100}
            value={share}
            onChange={(event) => setShare(Number(event.target.value))}
            aria-label="How much of the reference is seen"
            aria-valuetext={`${share} %`}
          />
          <b>What runs</b>
        </label>
      }
    >
      {(width) => (
        <>
          <img src={comparedUrl(pictures.running)} alt="What runs" width={width} />
          <img
            src={comparedUrl(pictures.reference)}
            alt={reference}
            width={width}
            style={{
              clipPath: `inset(0 ${100 - share}% 0 0)`,
            }}
          />
          <span
            aria-hidden
            style={{
              position: 'absolute',
              top: 0,
              bottom: 0,
              left: `${share}%`,
              borderLeft: `2px solid ${color.red}`,
            }}
          />
        </>
      )}
    </OneSheet>
  );
}

const BLINK_MS = 700;

/** One in place of the other, in turn; by hand where somebody wants no motion. */
function Blink({ compared: { pictures, view }, reference, chosen }: LensProps) {
  const [isReference, setReference] = useState(true);
  const [isGoing, setGoing] = useState(() => !window.matchMedia('(prefers-reduced-motion: reduce)').matches);
  useEffect(() => {
    if (!isGoing) return;
    const timer = setInterval(() => setReference((now) => !now), BLINK_MS);
    return () => clearInterval(timer);
  }, [isGoing]);
  return (
    <OneSheet
      view={view}
      chosen={chosen}
      head={
        <>
          <Button onPress={() => setGoing(!isGoing)}>{isGoing ? 'Hold' : 'Go on'}</Button>
          <Button isDisabled={isGoing} onPress={() => setReference(!isReference)}>
            The other one
          </Button>
          <b>{isReference ? reference : 'What runs'}</b>
        </>
      }
    >
      {(width) => (
        <>
          <img src={comparedUrl(pictures.running)} alt="What runs" width={width} />
          <img
            src={comparedUrl(pictures.reference)}
            alt={reference}
            width={width}
            style={{ visibility: isReference ? 'visible' : 'hidden', background: 'white' }}
          />
        </>
      )}
    </OneSheet>
  );
}

/** What runs, paled, with each pixel marked that differs. */
function Difference({ compared: { pictures, view, percent }, chosen }: Omit<LensProps, 'reference'>) {
  return (
    <OneSheet
      view={view}
      chosen={chosen}
      head={<>{percent.toFixed(2)} % of all pixels differ; they are marked.</>}
    >
      {(width) => (
        <>
          <img src={comparedUrl(pictures.running)} alt="What runs" width={width} style={{ opacity: 0.35 }} />
          <img src={comparedUrl(pictures.difference)} alt="What differs" width={width} />
        </>
      )}
    </OneSheet>
  );
}

function OneSheet({
  view,
  chosen,
  head,
  children,
}: {
  view: ComparisonAnswer['view'];
  chosen: Box | null;
  head: ReactNode;
  children: (width: number) => ReactNode;
}) {
  const scrollers = useRef<(HTMLDivElement | null)[]>([]);
  useIntoView(scrollers, chosen, 1);
  return (
    <Room>
      <Head>{head}</Head>
      <Scroller
        ref={(node) => void (scrollers.current[0] = node)}
        tabIndex={0}
        role="group"
        aria-label="The pictures"
      >
        <Sheet>
          {children(view.width)}
          {chosen && <Marked box={chosen} scale={1} />}
        </Sheet>
      </Scroller>
    </Room>
  );
}

function Marked({ box, scale }: { box: Box; scale: number }) {
  return (
    <Mark
      style={{
        left: box.x * scale - 3,
        top: box.y * scale - 3,
        width: box.width * scale + 6,
        height: box.height * scale + 6,
      }}
    />
  );
}

/** Scrolls what is chosen into the middle. */
function useIntoView(
  scrollers: React.RefObject<(HTMLDivElement | null)[]>,
  chosen: Box | null,
  scale: number,
): void {
  useEffect(() => {
    if (!chosen) return;
    for (const node of scrollers.current)
      node?.scrollTo({
        top: Math.max(0, (chosen.y + chosen.height / 2) * scale - node.clientHeight / 2),
        left: Math.max(0, (chosen.x + chosen.width / 2) * scale - node.clientWidth / 2),
      });
  }, [chosen, scale, scrollers]);
}
