import { type RefObject, useEffect, useState } from 'react';
import { useProject } from '../project/context';
import { useQuiet } from '../project/use_quiet';
import { type Pressed, useOpenEnds } from './OpenEnds';
import { screenAtPath } from './place';
import type { Told } from './recorded';
import type { Place } from './RunBar';
import { useFrames } from './use_frames';
import { type PointedTold, usePointed } from './use_pointed';
import { useRecorder } from './use_recorder';
import { type StateTold, useRemembered } from './use_remembered';
import { type ReplayTold, useReplay } from './use_replay';
import { type TapeTold, useTape } from './use_tape';

/** All that the running app tells. */
type Heard = Place & Told & StateTold & TapeTold & ReplayTold & PointedTold & Pressed;

/** What was pressed in a frame, which may be drawn smaller, placed in what the frame lies in. */
function placedIn(stage: HTMLElement, frame: HTMLElement, { key, x, y }: Pressed): Pressed {
  const [outer, inner] = [stage.getBoundingClientRect(), frame.getBoundingClientRect()];
  const scale = inner.width / frame.offsetWidth;
  return {
    key,
    x: inner.left - outer.left + stage.scrollLeft + x * scale,
    y: inner.top - outer.top + stage.scrollTop + y * scale,
  };
}

/** How long nothing changes before open ends and what can be pointed at are looked for, in ms: what shows an edit has the machine first. */
const LIT_AFTER = 150;

const NOWHERE: readonly string[] = [];

interface Shown {
  /** Where the app begins. */
  readonly begins: string;
  /** Whether a journey is recorded from the beginning. */
  readonly isRecording: boolean;
  /** Whether what looks pressable and does nothing is marked. */
  readonly isLit: boolean;
}

/**
 * The running app: where it is, what it tells, and what can be done with it.
 * @param origin where it is served; null as long as that is not known
 * @param stage what its frames lie in
 */
export function useRunningApp(
  origin: string | null,
  stage: RefObject<HTMLElement | null>,
  { begins, isRecording, isLit }: Shown,
) {
  const project = useProject();
  const { graph } = project;
  const quiet = useQuiet(project, LIT_AFTER);
  const [isThere, setThere] = useState(false);
  const [place, setPlace] = useState<Place>({ path: begins, canGoBack: false, canGoForward: false });
  const [pressed, setPressed] = useState<Pressed | null>(null);
  /** Of the frame in which something was pointed at, where it is not the first. */
  const [pointedWidth, setPointedWidth] = useState<number | null>(null);
  const [loads, setLoads] = useState(0);
  const frames = useFrames<Heard>(origin, (told, frame) => {
    const isFirst = frame === frames.first.current;
    if (isFirst) for (const { hear } of [recorder, remembered, tape, replay]) hear(told);
    // Each of them can be pointed at.
    pointed.hear(told);
    if (told.tovel === 'pointed') setPointedWidth(frames.others.current.get(frame) ?? null);
    if (told.tovel === 'open-end') setPressed(placedIn(stage.current!, frame, told));
    if (told.tovel !== 'place') return;
    // What was loaded anew is told anew.
    setLoads((count) => count + 1);
    if (!isFirst) return;
    setPressed(null);
    setPlace(told);
    setThere(true);
  });
  const recorder = useRecorder(isRecording);
  const remembered = useRemembered();
  const tape = useTape();
  const replay = useReplay(frames.tell);
  const here = screenAtPath(project, place.path);
  const seen = here ? [here, ...graph.overlays] : NOWHERE;
  const pointed = usePointed(quiet, seen, frames.tellAll, loads);

  const { marks, states } = useOpenEnds(quiet, seen);
  useEffect(() => {
    if (isThere) frames.tellAll({ tovel: 'mark', marks: isLit ? marks : [] });
  }, [marks, isLit, isThere, loads]);
  // Those of what may open over it are lit when it does.
  const own = new Set((here ? graph.elements.get(here) : undefined)?.map(({ element }) => element.key));
  const count = marks.filter(({ key }) => own.has(key)).length;

  return {
    isThere,
    place,
    here,
    frames,
    pointed,
    pointedWidth,
    pressed,
    setPressed,
    openEnds: { count, states },
    recorder,
    remembered,
    tape,
    replay,
  };
}
