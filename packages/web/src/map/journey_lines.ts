import { checkJourney, type LineGroup, type LinesDrawing, type Project, type ScreenGraph } from '@tovel/core';
import { color } from '../theme/theme';

export const JOURNEY_COLORS = [color.line1, color.line2, color.line3, color.line4, color.line5];

/** A journey as a coloured line between stations. */
export interface JourneyLine {
  readonly id: string;
  readonly name: string;
  readonly color: string;
  readonly isBroken: boolean;
  readonly points: readonly (readonly [number, number])[];
}

/** Lines that run beside each other are this far apart, in px. */
const APART = 7;

/** The journeys along the tracks of a drawing; the chosen one alone, where one is. */
export function journeyLines(
  project: Project & { readonly graph: ScreenGraph },
  { stations, tracks }: LinesDrawing,
  groups: readonly LineGroup[],
  only: string | null,
): JourneyLine[] {
  const at = new Map(stations.map((station) => [station.key, station]));
  const shownAs = (key: string): string =>
    at.has(key) ? key : (groups.find((group) => group.screens.includes(key))?.id ?? key);
  const ways = new Map(tracks.map((track) => [`${track.from}\n${track.to}`, track.points]));
  return Object.entries(project.app.journeys).flatMap(([id, journey], i): JourneyLine[] => {
    if (only !== null && only !== id) return [];
    const { places, problem } = checkJourney(project, project.graph, journey);
    const points: (readonly [number, number])[] = [];
    places.slice(1).forEach((place, n) => {
      const [from, to] = [shownAs(places[n]), shownAs(place)];
      if (from === to) return;
      const back = ways.get(`${to}\n${from}`);
      const way = ways.get(`${from}\n${to}`) ?? (back && [...back].reverse());
      const [a, b] = [at.get(from), at.get(to)];
      if (way) points.push(...way);
      else if (a && b) points.push([a.x, a.y], [b.x, b.y]);
    });
    if (points.length < 2) return [];
    const shift = only === null ? (i % JOURNEY_COLORS.length) * APART - APART : 0;
    return [
      {
        id,
        name: journey.name,
        color: JOURNEY_COLORS[i % JOURNEY_COLORS.length],
        isBroken: problem !== null,
        points: points.map(([x, y]) => [x, y + shift]),
      },
    ];
  });
}
