import { lineGroups, linesInput, matchText, screenName, type Station } from '@tovel/core';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useOpenLinks } from '../junction/use_open_links';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, fieldBox } from '../ui/controls';
import { journeyLines } from './journey_lines';
import { useSince } from './Since';
import { StationDetails } from './StationDetails';
import { StationMark } from './StationMark';
import { marksOf, nearest, notesOf } from './station_marks';
import { Tracks } from './Tracks';
import { useEye } from './use_eye';
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

/** More screens than this are folded into groups until somebody unfolds them. */
const MANY = 60;

/** The groups that screens are folded into where there are many; more of them are unfolded one by one. */
function useFolded(groups: readonly { readonly id: string }[], count: number) {
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const isMany = count > MANY;
  const folded = useMemo(
    () => (isMany ? groups.map((group) => group.id).filter((group) => !unfolded.has(group)) : []),
    [isMany, groups, unfolded],
  );
  return {
    folded,
    isMany,
    isUnfolded: unfolded.size > 0,
    unfold: (group: string) => setUnfolded(new Set([...unfolded, group])),
    toggleAll: () => setUnfolded(unfolded.size ? new Set() : new Set(groups.map((group) => group.id))),
  };
}

/** The screens as stations: by their distance from the start, with who leads where, and journeys as lines. */
export function LinesView({ journey }: { journey: string | null }) {
  const project = useProject();
  const { graph, app, base } = project;
  const navigate = useNavigate();
  const groups = useMemo(() => lineGroups(project, graph), [project, graph]);
  const input = useMemo(() => linesInput(project, graph, groups), [project, graph, groups]);
  const { folded, isMany, isUnfolded, unfold, toggleAll } = useFolded(groups, graph.screens.length);
  const [aspect, setAspect] = useState(0);
  const drawing = useLines(input, folded, aspect);
  const proposals = useOpenLinks();
  const [chosen, setChosen] = useState<string | null>(null);
  const [hovered, setHovered] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  const svg = useRef<SVGSVGElement>(null);
  const { eye, fit, zoom, lookAt, dragging } = useEye(svg, drawing);
  useEffect(() => {
    const { clientWidth: width, clientHeight: height } = svg.current!;
    setAspect(Math.round((height / width) * 10) / 10);
  }, []);

  const stations = drawing?.stations ?? [];
  const at = stations.find(({ key }) => key === chosen) ?? null;
  const looked = hovered ?? at?.key ?? null;
  const nameOf = (key: string): string =>
    groups.find((group) => group.id === key)?.name ?? screenName(project, key);
  const search = (): void => {
    const score = ({ key, members = [] }: Station): number =>
      Math.min(...[key, ...members].map((one) => matchText(nameOf(one), typed) ?? Infinity));
    const [found] = stations
      .map((station) => ({ station, score: score(station) }))
      .filter((one) => one.score < 4)
      .sort((a, b) => a.score - b.score);
    if (!found) return;
    setChosen(found.station.key);
    lookAt(found.station);
  };
  const press = (station: Station): void => {
    if (station.members) unfold(station.key);
    else setChosen(station.key);
  };
  const onKeyDown = (event: KeyboardEvent, station: Station): void => {
    const by = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] }[event.key];
    if (by) {
      event.preventDefault();
      const next = nearest(stations, station, by[0], by[1]);
      if (!next) return;
      setChosen(next.key);
      document.getElementById(`station ${next.key}`)?.focus();
      lookAt(next);
    } else if (event.key === 'Enter') {
      if (station.members) press(station);
      else void navigate(`${base}/junction/${station.key}`);
    } else if (event.key === '+') zoom(1.25);
    else if (event.key === '-') zoom(0.8);
    else if (event.key === '0') fit();
  };

  const since = useSince();
  const marks = useMemo(() => marksOf(app, graph, proposals, since), [app, graph, proposals, since]);
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
        {isMany && <Button onPress={toggleAll}>{isUnfolded ? 'Fold' : 'Unfold all'}</Button>}
        <Button aria-label="Smaller" onPress={() => zoom(0.8)}>
          −
        </Button>
        <Button aria-label="Larger" onPress={() => zoom(1.25)}>
          +
        </Button>
        <Button onPress={fit}>Fit</Button>
      </Tools>
      <Drawing ref={svg} role="group" aria-label="Lines between screens" {...dragging}>
        {drawing && (
          <g transform={`scale(${eye.scale}) translate(${-eye.x} ${-eye.y})`}>
            <Tracks
              drawing={drawing}
              looked={looked}
              journeys={journeyLines(project, drawing, groups, journey)}
              since={since}
            />
            {stations.map((station) => (
              <StationMark
                key={station.key}
                station={station}
                name={nameOf(station.key)}
                note={notesOf(station, marks)}
                isOn={station === at}
                isFirst={at === null && station === stations[0]}
                isStart={station.key === app.start}
                isPlanned={app.screens[station.key]?.use === 'planned'}
                isOverlay={app.screens[station.key]?.use === 'overlay'}
                isLooked={station.key === looked}
                scale={eye.scale}
                isBad={marks.bad.has(station.key) || !station.isReached}
                onPress={() => press(station)}
                onKeyDown={(event) => onKeyDown(event, station)}
                onHover={setHovered}
              />
            ))}
          </g>
        )}
      </Drawing>
      {at && !at.members && <StationDetails screen={at.key} />}
    </Area>
  );
}
