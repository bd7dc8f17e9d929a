import {
  type ComparisonAnswer,
  elementsByKey,
  labelOf,
  pressablesOf,
  screensByKey,
  shareOn,
} from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { comparedUrl } from '../api/client';
import { useProject } from '../project/context';
import { remoteOf } from '../project/remote';
import { color, font } from '../theme/theme';
import { Choice } from '../ui/controls';
import type { AttentionWorker, SeenAttention } from './attention_worker';

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
`;

const Sides = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  align-content: start;
  overflow: auto;
  > section + section {
    border-left: 1px solid ${color.rule};
  }
`;

const Side = styled.section`
  padding: 12px 14px 20px;
  h4 {
    font-size: 12.5px;
    margin: 0 0 6px;
  }
  ol {
    margin: 10px 0 0;
    padding-left: 22px;
    font-size: 12px;
    list-style: decimal;
  }
  p {
    margin-top: 8px;
    font: 12px/1.45 ${font.code};
  }
`;

const Picture = styled.div`
  position: relative;
  overflow: hidden;
  border: 1px solid ${color.fieldRule};
  background: white;
  img,
  canvas,
  svg {
    position: absolute;
    left: 0;
    top: 0;
    width: 100%;
  }
  canvas,
  svg {
    height: 100%;
  }
  canvas {
    opacity: 0.75;
    mix-blend-mode: multiply;
  }
`;

let started: Worker | null = null;
/** Started when somebody looks through this lens. */
const worker = () =>
  remoteOf<AttentionWorker>(
    (started ??= new Worker(new URL('./attention_worker.ts', import.meta.url), { type: 'module' })),
  );

type Box = ComparisonAnswer['causes'][number]['box'];
interface Named {
  readonly key: string;
  readonly label: string;
  readonly box: Box;
  readonly isPressed: boolean;
}

/** Where the reference and what runs draw the eye, beside each other, and how much of that goes to one element. */
export function AttentionLens({ compared, reference }: { compared: ComparisonAnswer; reference: string }) {
  const { view, pictures } = compared;
  const named = useNamed(compared);
  const pressed = named.filter(({ isPressed }) => isPressed);
  const [asked, setAsked] = useState<string | null>(null);
  const { data: running } = useAttention(pictures.running, view.height);
  const lift = ({ box }: Named): number =>
    running ? shareOn(running, box, running.seen) / (box.width * box.height) : 0;
  // What stands out most of what can be pressed is what a screen is for, until somebody says otherwise.
  const chosen = pressed.find(({ key }) => key === asked) ?? pressed.toSorted((a, b) => lift(b) - lift(a))[0];
  return (
    <Room>
      <Head>
        {chosen && (
          <Choice
            label="Share that goes to"
            value={chosen.key}
            options={pressed.map(({ key, label }) => ({ id: key, label }))}
            onChange={setAsked}
          />
        )}
        <span>
          A model of what stands out in a picture (Itti, Koch and Niebur 1998): it knows nothing of meaning or
          of habits.
        </span>
      </Head>
      <Sides>
        <Seen title={reference} picture={pictures.reference} height={view.height} named={named} on={chosen} />
        <Seen title="What runs" picture={pictures.running} height={view.height} named={named} on={chosen} />
      </Sides>
    </Room>
  );
}

const useAttention = (picture: string, height: number) =>
  useQuery<SeenAttention>({
    queryKey: ['attention', picture, height],
    queryFn: () => worker().on(comparedUrl(picture), height),
    staleTime: Infinity,
    retry: false,
  });

/** What can be named on a view that is drawn at its own width: what is pressed, texts and pictures. */
function useNamed({ view }: ComparisonAnswer): readonly Named[] {
  const { drawn } = useProject();
  return useMemo(() => {
    const screen = screensByKey(drawn).get(view.drawing);
    if (!screen || screen.width !== view.width) return [];
    const pressed = new Set(pressablesOf(screen).map(({ element }) => element.key));
    return [...elementsByKey(screen).values()]
      .filter(
        (element) =>
          !element.hidden &&
          element.box.y < view.height &&
          element.box.width > 0 &&
          (pressed.has(element.key) || element.kind === 'text' || element.kind === 'image'),
      )
      .map((element) => ({
        key: element.key,
        label: labelOf(element),
        box: element.box,
        isPressed: pressed.has(element.key),
      }));
  }, [drawn, view.drawing, view.width, view.height]);
}

/** Px around a look within which it still is one at an element. */
const NEAR = 24;

function nameAt(
  named: readonly Named[],
  { x, y }: { readonly x: number; readonly y: number },
): string | null {
  const distance = ({ box }: Named): number =>
    Math.hypot(Math.max(box.x - x, 0, x - box.x - box.width), Math.max(box.y - y, 0, y - box.y - box.height));
  const size = ({ box }: Named): number => box.width * box.height;
  const [nearest] = named
    .filter((one) => distance(one) <= NEAR)
    .sort((a, b) => distance(a) - distance(b) || size(a) - size(b));
  return nearest?.label ?? null;
}

function Seen({
  title,
  picture,
  height,
  named,
  on,
}: {
  title: string;
  picture: string;
  height: number;
  named: readonly Named[];
  on: Named | undefined;
}) {
  const { data, error } = useAttention(picture, height);
  const share = data && on ? shareOn(data, on.box, data.seen) : null;
  return (
    <Side aria-label={title}>
      <h4>{title}</h4>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <p role="status">Looking at the picture …</p>}
      {data && (
        <>
          <Picture
            style={{
              aspectRatio: `${data.seen.width} / ${data.seen.height}`,
              // A tall one is seen whole.
              maxWidth: `calc((100vh - 330px) * ${data.seen.width / data.seen.height})`,
            }}
          >
            <img src={comparedUrl(picture)} alt={title} />
            <Heat attention={data} />
            <Path attention={data} on={on} />
          </Picture>
          {share !== null && on && (
            <p>
              “{on.label}”: {(100 * share).toFixed(1)} % of the attention on{' '}
              {((100 * on.box.width * on.box.height) / (data.seen.width * data.seen.height)).toFixed(1)} % of
              the room
            </p>
          )}
          <ol aria-label="In the order in which they draw the eye">
            {data.path.map((at, i) => (
              <li key={i}>{nameAt(named, at) ?? `at ${Math.round(at.x)}, ${Math.round(at.y)}`}</li>
            ))}
          </ol>
          {!data.path.length && <p>Nothing stands out.</p>}
        </>
      )}
    </Side>
  );
}

/** The map over its picture: what draws nobody is pale, what does is dark. */
function Heat({ attention: { map, width, height } }: { attention: SeenAttention }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const most = map.reduce((max, value) => Math.max(max, value), 0) || 1;
    const pixels = context.createImageData(width, height);
    map.forEach((value, i) => {
      const strength = value / most;
      pixels.data.set([255 - 30 * strength, 255 - 150 * strength, 255 - 235 * strength, 255], 4 * i);
    });
    context.putImageData(pixels, 0, 0);
  }, [map, width, height]);
  return <canvas ref={canvas} width={width} height={height} aria-hidden="true" />;
}

/** Marks on pictures, which are as they are in the light and in the dark. */
const [INK, PAPER] = ['#16211d', '#fbfcf8'];

function Path({ attention: { path, seen }, on }: { attention: SeenAttention; on: Named | undefined }) {
  const scale = seen.width / 420;
  return (
    <svg viewBox={`0 0 ${seen.width} ${seen.height}`} aria-hidden="true">
      {on && (
        <rect
          x={on.box.x}
          y={on.box.y}
          width={on.box.width}
          height={on.box.height}
          fill="none"
          stroke={color.red}
          strokeWidth={2 * scale}
        />
      )}
      <polyline
        points={path.map(({ x, y }) => `${x},${y}`).join(' ')}
        fill="none"
        stroke={INK}
        strokeWidth={1.2 * scale}
        strokeDasharray={`${4 * scale} ${3 * scale}`}
      />
      {path.map(({ x, y }, i) => (
        <g key={i} transform={`translate(${x} ${y})`}>
          <circle r={9 * scale} fill={INK} stroke={PAPER} strokeWidth={scale} />
          <text
            textAnchor="middle"
            dominantBaseline="central"
            fontSize={10 * scale}
            fontWeight={650}
            fill={PAPER}
          >
            {i + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}
