import type { GraphDifference, LinesDrawing } from '@tovel/core';
import { color } from '../theme/theme';
import type { JourneyLine } from './journey_lines';

/** More links than this beside the main ones show only around what is looked at. */
const DENSE = 90;

const pathOf = (points: readonly (readonly [number, number])[]): string =>
  points.map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`).join('');

interface TracksProps {
  readonly drawing: LinesDrawing;
  /** The station that is looked at, by key: its ways stand out. */
  readonly looked: string | null;
  readonly journeys: readonly JourneyLine[];
  /** What became of ways since another state; null where none is held against. */
  readonly since: GraphDifference | null;
}

/** The ways between stations, what became of them, and journeys over them. */
export function Tracks({ drawing, looked, journeys, since }: TracksProps) {
  const extra = drawing.tracks.filter((track) => !track.isMain).length;
  const isNear = (from: string, to: string): boolean => looked !== null && (from === looked || to === looked);
  return (
    <>
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
      {since && <Became drawing={drawing} since={since} />}
      {journeys.map((line) => (
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
    </>
  );
}

/** Ways that are new, and those that are gone, between stations that are still there. */
function Became({ drawing, since }: { drawing: LinesDrawing; since: GraphDifference }) {
  const stations = new Map(drawing.stations.map((station) => [station.key, station]));
  const isNew = (from: string, to: string): boolean =>
    [`${from} ${to}`, `${to} ${from}`].some((way) => since.links.get(way) === 'new');
  return (
    <>
      {drawing.tracks
        .filter(({ from, to }) => isNew(from, to))
        .map(({ from, to, points }) => (
          <path key={`${from} ${to}`} d={pathOf(points)} fill="none" stroke={color.lake} strokeWidth={5}>
            <title>New</title>
          </path>
        ))}
      {[...since.links].map(([way, became]) => {
        const [from, to] = way.split(' ').map((key) => stations.get(key));
        if (became !== 'gone' || !from || !to) return null;
        const points = [from, to].map(({ x, y }) => [x, y] as const);
        return (
          <path
            key={`gone ${way}`}
            d={pathOf(points)}
            fill="none"
            stroke={color.ochre}
            strokeWidth={2.5}
            strokeDasharray="7 6"
          >
            <title>Gone</title>
          </path>
        );
      })}
    </>
  );
}
