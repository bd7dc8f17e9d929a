import type { Journey } from '@tovel/core';
import { useRef, useState } from 'react';
import { useProject } from '../project/context';
import { screenAtPath } from './place';
import { recorded, type Told } from './recorded';

export interface Recorder {
  /** What was recorded so far; null while nothing is. */
  readonly journey: Journey | null;
  /** Why recording ended by itself. */
  readonly ended: string | null;
  readonly begin: (path: string) => void;
  /** Goes on with what was done before: from where it began, as far as it can be followed. */
  readonly resume: (path: string, done: readonly Told[]) => void;
  readonly stop: () => void;
  readonly hear: (told: Told) => void;
}

/** Follows somebody through the running app, and makes a journey of what is pressed and entered. */
export function useRecorder(isAtOnce: boolean): Recorder {
  const project = useProject();
  const [journey, setJourney] = useState<Journey | null>(null);
  const [ended, setEnded] = useState<string | null>(null);
  const waits = useRef(isAtOnce);
  const now = useRef(journey);
  now.current = journey;

  const show = (next: Journey | null): void => {
    now.current = next;
    setJourney(next);
  };
  const begin = (path: string): void => {
    const start = screenAtPath(project, path);
    setEnded(null);
    show(start ? { name: '', start, steps: [] } : null);
  };
  const take = (told: Told): void => {
    if (!now.current) return;
    const next = recorded(project, now.current, told);
    if ('ended' in next) setEnded(next.ended);
    else if (next !== now.current) show(next);
  };
  const hear = (told: Told): void => {
    if (told.tovel === 'place' && waits.current) {
      waits.current = false;
      begin(told.path);
    } else take(told);
  };
  const resume = (path: string, done: readonly Told[]): void => {
    begin(path);
    for (const told of done) take(told);
  };
  return { journey, ended, begin, resume, stop: () => show(null), hear };
}
