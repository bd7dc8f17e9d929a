import {
  type GraphDifference,
  analysisOf,
  isDeadEnd,
  lineGroups,
  type LinesDrawing,
  linesInput,
  matchText,
  screenName,
  type Station,
} from '@tovel/core';
import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useOpenLinks } from '../junction/use_open_links';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, fieldBox } from '../ui/controls';
import { journeyLines } from './journey_lines';
import { useSince } from './Since';
import { StationDetails } from './StationDetails';
import { useLines } from './use_lines';

const Area = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
`;

const Tools = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 16px 8px;
  input {
    ${fieldBox}
    width: 170px;
    min-height: 28px;
    margin-right: auto;
  }
`;

const Drawing = styled.svg`
  width: 100%;
  height: 100%;
  cursor: grab;
  touch-action: none;
  user-select: none;
  g[role='button'] {
    cursor: pointer;
  }
  g[role='button']:focus {
    outline: none;
  }
  g[role='button']:focus-visible circle {
    stroke-width: 6px;
    stroke: ${color.lake};
  }
  text {
    font-size: 13px;
    fill: ${color.ink};
    paint-order: stroke;
    stroke: ${color.paper};
    stroke-width: 4px;
  }
  text.note {
    font-size: 11px;
    fill: ${color.ink2};
  }
  text.bad {
    fill: ${color.red};
  }
`;

interface Eye {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** More screens than this are folded into groups until somebody unfolds them. */
const MANY = 60;
/** More links than this beside the main ones show only around what is looked at. */
const DENSE = 90;
const SCALES = { min: 0.15, max: 2 };
/** Room for a name beside its station, in px of the drawing; letters are about so wide by their size. */
const NAME = 136;
const LETTER = 0.54;
/** A name is never smaller than this on the screen, in px; where no letters of it fit it shows when it is looked at. */
const LEAST_SIZE = 11;
const LEAST_LETTERS = 6;

const pathOf = (points: readonly (readonly [number, number])[]): string =>
  points.map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`).join('');

/** The screens as stations: by their distance from the start, with who leads where, and journeys as lines. */
export function LinesView({ journey }: { journey: string | null }) {
  const project = useProject();
  const { graph, app, base } = project;
  const navigate = useNavigate();
  const groups = useMemo(() => lineGroups(project, graph), [project, graph]);
  const input = useMemo(() => linesInput(project, graph, groups), [project, graph, groups]);
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const isMany = graph.screens.length > MANY;
  const folded = useMemo(
    () => (isMany ? groups.map((group) => group.id).filter((group) => !unfolded.has(group)) : []),
    [isMany, groups, unfolded],
  );
  const [aspect, setAspect] = useState(0);
  const drawing = useLines(input, folded, aspect);
  const proposals = useOpenLinks();
  const [eye, setEye] = useState<Eye | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [hovered, setHovered] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<{ x: number; y: number; eye: Eye } | null>(null);

  const fitted = (to: LinesDrawing): Eye => {
    const { clientWidth: width, clientHeight: height } = svg.current!;
    const scale = Math.max(SCALES.min, Math.min(1, width / to.width, height / to.height));
    return { x: 0, y: 0, scale };
  };
  useEffect(() => {
    const { clientWidth: width, clientHeight: height } = svg.current!;
    setAspect(Math.round((height / width) * 10) / 10);
  }, []);
  const shown = eye ?? { x: 0, y: 0, scale: 1 };
  useEffect(() => {
    if (drawing && !eye && svg.current) setEye(fitted(drawing));
  }, [drawing, eye]);

  /** Larger or smaller around a point of the drawing's window. */
  const zoom = (by: number, at?: { x: number; y: number }): void => {
    const { clientWidth, clientHeight } = svg.current!;
    const center = at ?? { x: clientWidth / 2, y: clientHeight / 2 };
    setEye((now) => {
      const old = now ?? shown;
      const scale = Math.max(SCALES.min, Math.min(SCALES.max, old.scale * by));
      const ratio = 1 / old.scale - 1 / scale;
      return { scale, x: old.x + center.x * ratio, y: old.y + center.y * ratio };
    });
  };
  // React listens to the wheel passively; zooming has to keep the page where it is.
  useEffect(() => {
    const element = svg.current!;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      if (event.ctrlKey || event.metaKey) {
        const { left, top } = element.getBoundingClientRect();
        zoom(event.deltaY < 0 ? 1.15 : 1 / 1.15, { x: event.clientX - left, y: event.clientY - top });
      } else
        setEye((now) => {
          const old = now ?? { x: 0, y: 0, scale: 1 };
          return { ...old, x: old.x + event.deltaX / old.scale, y: old.y + event.deltaY / old.scale };
        });
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });

  const stations = new Map(drawing?.stations.map((station) => [station.key, station]));
  const at = chosen && stations.has(chosen) ? chosen : null;
  const looked = hovered ?? at;
  const nameOf = (key: string): string =>
    groups.find((group) => group.id === key)?.name ?? screenName(project, key);
  const lookAt = (station: Station): void => {
    const { clientWidth, clientHeight } = svg.current!;
    setEye((now) => {
      const { scale } = now ?? shown;
      return {
        scale,
        x: station.x - clientWidth / 2 / scale,
        y: station.y - clientHeight / 2 / scale,
      };
    });
  };
  const choose = (key: string): void => {
    setChosen(key);
    document.getElementById(`station ${key}`)?.focus();
  };
  const search = (): void => {
    const found = [...(drawing?.stations ?? [])]
      .map((station) => ({
        station,
        score: Math.min(
          ...[station.key, ...(station.members ?? [])].map(
            (key) => matchText(nameOf(key), typed) ?? Infinity,
          ),
        ),
      }))
      .filter(({ score }) => score < 4)
      .sort((a, b) => a.score - b.score);
    if (!found.length) return;
    setChosen(found[0].station.key);
    lookAt(found[0].station);
  };
  const press = (station: Station): void => {
    if (station.members) setUnfolded(new Set([...unfolded, station.key]));
    else setChosen(station.key);
  };
  const onKeyDown = (event: KeyboardEvent, station: Station): void => {
    const by = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] }[event.key];
    if (by) {
      event.preventDefault();
      const next = nearest(drawing!.stations, station, by[0], by[1]);
      if (next) {
        choose(next.key);
        lookAt(next);
      }
    } else if (event.key === 'Enter') {
      if (station.members) press(station);
      else void navigate(`${base}/junction/${station.key}`);
    } else if (event.key === '+') zoom(1.25);
    else if (event.key === '-') zoom(0.8);
    else if (event.key === '0' && drawing) setEye(fitted(drawing));
  };
  const onPan = (event: PointerEvent): void => {
    if (!drag.current) return;
    const { x, y, eye: from } = drag.current;
    setEye({
      ...from,
      x: from.x - (event.clientX - x) / from.scale,
      y: from.y - (event.clientY - y) / from.scale,
    });
  };

  const extra = drawing?.tracks.filter((track) => !track.isMain).length ?? 0;
  const isNear = (from: string, to: string): boolean => looked !== null && (from === looked || to === looked);
  const lines = drawing ? journeyLines(project, drawing, groups, journey) : [];
  const since = useSince();
  const marks = useMemo(() => marksOf(project, graph, proposals, since), [project, graph, proposals, since]);
  return (
    <Area>
      <Tools role="group" aria-label="Lines">
        <input
          type="search"
          aria-label="Find a screen"
          placeholder="Find a screen"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && search()}
        />
        {isMany && (
          <Button
            onPress={() => setUnfolded(unfolded.size ? new Set() : new Set(groups.map((group) => group.id)))}
          >
            {unfolded.size ? 'Fold' : 'Unfold all'}
          </Button>
        )}
        <Button aria-label="Smaller" onPress={() => zoom(0.8)}>
          −
        </Button>
        <Button aria-label="Larger" onPress={() => zoom(1.25)}>
          +
        </Button>
        <Button onPress={() => drawing && setEye(fitted(drawing))}>Fit</Button>
      </Tools>
      <Drawing
        ref={svg}
        role="group"
        aria-label="Lines between screens"
        onPointerDown={(event) => {
          if ((event.target as Element).closest('[role=button]')) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { x: event.clientX, y: event.clientY, eye: shown };
        }}
        onPointerMove={onPan}
        onPointerUp={() => (drag.current = null)}
      >
        {drawing && (
          <g transform={`scale(${shown.scale}) translate(${-shown.x} ${-shown.y})`}>
            {drawing.tracks.map((track) => {
              const near = isNear(track.from, track.to);
              if (!track.isMain && !near && extra > DENSE) return null;
              return (
                <path
                  key={`${track.from} ${track.to}`}
                  d={pathOf(track.points)}
                  fill="none"
                  stroke={near ? color.ink : track.isMain ? color.fieldRule : color.rule}
                  strokeWidth={near ? 3 : track.isMain ? 3 : 1.5}
                  strokeOpacity={looked && !near ? 0.35 : 1}
                />
              );
            })}
            {since &&
              drawing.tracks
                .filter(({ from, to }) =>
                  [`${from} ${to}`, `${to} ${from}`].some((way) => since.links.get(way) === 'new'),
                )
                .map(({ from, to, points }) => (
                  <path
                    key={`new ${from} ${to}`}
                    d={pathOf(points)}
                    fill="none"
                    stroke={color.lake}
                    strokeWidth={5}
                  >
                    <title>New</title>
                  </path>
                ))}
            {since &&
              [...since.links].flatMap(([way, became]) => {
                const [from, to] = way.split(' ').map((key) => stations.get(key));
                return became === 'gone' && from && to
                  ? [
                      <path
                        key={`gone ${way}`}
                        d={pathOf([
                          [from.x, from.y],
                          [to.x, to.y],
                        ])}
                        fill="none"
                        stroke={color.ochre}
                        strokeWidth={2.5}
                        strokeDasharray="7 6"
                      >
                        <title>Gone</title>
                      </path>,
                    ]
                  : [];
              })}
            {lines.map((line) => (
              <path
                key={line.id}
                d={pathOf(line.points)}
                fill="none"
                stroke={line.color}
                strokeWidth={6}
                strokeLinejoin="round"
                strokeDasharray={line.isBroken ? '10 6' : undefined}
              >
                <title>{line.name}</title>
              </path>
            ))}
            {drawing.stations.map((station) => (
              <StationMark
                key={station.key}
                station={station}
                name={nameOf(station.key)}
                note={notesOf(station, marks)}
                isOn={station.key === at}
                isFirst={at === null && station.key === drawing.stations[0].key}
                isStart={station.key === app.start}
                isPlanned={app.screens[station.key]?.use === 'planned'}
                isOverlay={app.screens[station.key]?.use === 'overlay'}
                isLooked={station.key === looked}
                scale={shown.scale}
                isBad={marks.bad.has(station.key) || !station.isReached}
                onPress={() => press(station)}
                onKeyDown={(event) => onKeyDown(event, station)}
                onHover={setHovered}
              />
            ))}
          </g>
        )}
      </Drawing>
      {at && !stations.get(at)!.members && <StationDetails screen={at} />}
    </Area>
  );
}

interface Marks {
  readonly notes: ReadonlyMap<string, string>;
  readonly bad: ReadonlySet<string>;
}

/** What is said beneath stations: what is broken, a dead end, open or proposed there. */
function marksOf(
  { app }: ReturnType<typeof useProject>,
  graph: ReturnType<typeof useProject>['graph'],
  proposals: ReadonlyMap<string, { readonly element: string }>,
  since: GraphDifference | null,
): Marks {
  const notes = new Map<string, string>();
  const bad = new Set<string>();
  for (const [key, states] of graph.elements) {
    const count = (standing: string): number => states.filter((state) => state.standing === standing).length;
    const proposed = states.filter(
      (state) => state.standing === 'open' && proposals.has(state.element.key),
    ).length;
    const isPlanned = app.screens[key].use === 'planned';
    const isEnd = graph.screens.includes(key) && !isPlanned && isDeadEnd(graph.departures.get(key)!, key);
    const isLost = graph.reached.size > 0 && !graph.reached.has(key);
    if (count('broken') || isEnd || isLost) bad.add(key);
    const said = [
      since?.screens.get(key) === 'new' && 'new',
      isPlanned && 'to be drawn',
      isLost && 'nobody comes here',
      isEnd && 'no way out',
      count('broken') > 0 && `${count('broken')} broken`,
      count('open') - proposed > 0 && `${count('open') - proposed} open`,
      proposed > 0 && `${proposed} proposed`,
    ].filter((text) => typeof text === 'string');
    if (said.length) notes.set(key, said.join(' · '));
  }
  return { notes, bad };
}

const notesOf = (station: Station, { notes }: Marks): string =>
  station.members ? `${station.members.length} screens, press to unfold` : (notes.get(station.key) ?? '');

/** The station that lies nearest in a direction. */
function nearest(all: readonly Station[], from: Station, dx: number, dy: number): Station | null {
  let best: Station | null = null;
  let least = Infinity;
  for (const station of all) {
    const along = (station.x - from.x) * dx + (station.y - from.y) * dy;
    const aside = Math.abs((station.x - from.x) * dy) + Math.abs((station.y - from.y) * dx);
    if (along <= 0 || along + 2 * aside >= least) continue;
    least = along + 2 * aside;
    best = station;
  }
  return best;
}

interface MarkProps {
  station: Station;
  name: string;
  note: string;
  isOn: boolean;
  isFirst: boolean;
  isStart: boolean;
  isPlanned: boolean;
  isOverlay: boolean;
  isBad: boolean;
  /** Chosen or pointed at: shown whole. */
  isLooked: boolean;
  /** Of the drawing: names stay readable when it is small. */
  scale: number;
  onPress: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
  onHover: (key: string | null) => void;
}

function StationMark({
  station,
  name,
  note,
  isOn,
  isFirst,
  isStart,
  isPlanned,
  isOverlay,
  isBad,
  isLooked,
  scale,
  onPress,
  onKeyDown,
  onHover,
}: MarkProps) {
  const { x, y, key, members, isReached } = station;
  const size = Math.max(13, LEAST_SIZE / scale);
  const most = Math.floor(NAME / (size * LETTER));
  const cut = (text: string, to: number): string => (text.length > to ? `${text.slice(0, to - 1)}…` : text);
  const hasRoom = most >= LEAST_LETTERS;
  const short = hasRoom || isLooked ? cut(name, isLooked ? Math.max(most, NAME) : most) : '';
  const small = Math.max(11, LEAST_SIZE / scale);
  const told =
    size <= 15 || isLooked ? cut(note, isLooked ? note.length : Math.floor(NAME / (small * LETTER))) : '';
  const stroke = isBad ? color.red : color.ink;
  return (
    <g
      id={`station ${key}`}
      role="button"
      tabIndex={isOn || isFirst ? 0 : -1}
      aria-pressed={isOn}
      aria-label={`${name}${isStart ? ', start' : ''}${note ? `, ${note}` : ''}`}
      transform={`translate(${x} ${y})`}
      onClick={onPress}
      onKeyDown={onKeyDown}
      onPointerEnter={() => onHover(key)}
      onPointerLeave={() => onHover(null)}
    >
      <title>{note ? `${name}: ${note}` : name}</title>
      {members ? (
        <rect
          x={-12}
          y={-12}
          width={24}
          height={24}
          fill={isOn ? color.ink : color.sheet}
          stroke={stroke}
          strokeWidth={3}
        />
      ) : isOverlay ? (
        <rect
          x={-8}
          y={-8}
          width={16}
          height={16}
          transform="rotate(45)"
          fill={isOn ? color.ink : color.sheet}
          stroke={stroke}
          strokeWidth={2.5}
        />
      ) : (
        <circle
          r={9}
          fill={isOn ? stroke : isBad ? color.redTint : color.sheet}
          stroke={stroke}
          strokeWidth={3}
          strokeDasharray={isPlanned || !isReached ? '3 3' : undefined}
        />
      )}
      {isStart && <circle r={3.5} fill={isOn ? color.sheet : color.ink} />}
      {members && (
        <text x={0} y={4} textAnchor="middle" style={{ fontSize: 11, strokeWidth: 0 }}>
          {members.length}
        </text>
      )}
      <text
        x={15}
        y={-13}
        style={{ fontWeight: isOn ? 650 : 400, fontSize: size }}
        className={isBad ? 'bad' : undefined}
      >
        {short}
      </text>
      {told && (
        <text x={15} y={9 + size * 0.8} className={isBad ? 'note bad' : 'note'} style={{ fontSize: small }}>
          {told}
        </text>
      )}
    </g>
  );
}

/** Presses from the start, in words. */
export const presses = (graph: ReturnType<typeof useProject>['graph'], key: string): string => {
  const depth = analysisOf(graph).depth.get(key);
  return depth === undefined
    ? 'nobody gets there from the start'
    : depth === 0
      ? 'the start'
      : `${depth} ${depth === 1 ? 'press' : 'presses'} from the start`;
};
