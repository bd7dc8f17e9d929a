import {
  checkJourney,
  enteredElement,
  type Journey,
  type JourneyStep,
  pressedElement,
  pressStep,
  screenName,
} from '@tovel/core';
import { useRef, useState } from 'react';
import { useProject } from '../project/context';
import { screenAtPath } from './place';

/** What the running app says of what is done in it. */
export interface Told {
  readonly tovel?: string;
  readonly path: string;
  /** Of `press` and `enter`: which of the pressable elements or fields of the page it is, from 0. */
  readonly index?: number;
  readonly text?: string;
}

export interface Recorder {
  /** What was recorded so far; null while nothing is. */
  readonly journey: Journey | null;
  /** Why recording ended by itself. */
  readonly ended: string | null;
  readonly begin: (path: string) => void;
  readonly stop: () => void;
  readonly hear: (told: Told) => void;
}

/** Follows somebody through the running app, and makes a journey of what is pressed and entered. */
export function useRecorder(isAtOnce: boolean): Recorder {
  const project = useProject();
  const { graph, plan } = project;
  const [journey, setJourney] = useState<Journey | null>(null);
  const [ended, setEnded] = useState<string | null>(null);
  const waits = useRef(isAtOnce);
  const now = useRef(journey);
  now.current = journey;

  const begin = (path: string): void => {
    const start = screenAtPath(project, path);
    setEnded(null);
    setJourney(start ? { name: '', start, steps: [] } : null);
  };
  const add = (step: JourneyStep): void => {
    now.current = { ...now.current!, steps: [...now.current!.steps, step] };
    setJourney(now.current);
  };
  const hear = ({ tovel, path, index = 0, text = '' }: Told): void => {
    if (tovel === 'place' && waits.current) {
      waits.current = false;
      begin(path);
      return;
    }
    const recorded = now.current;
    if (!recorded || (tovel !== 'press' && tovel !== 'enter')) return;
    const { places, screens } = checkJourney(project, graph, recorded);
    const [place, screen] = [places.at(-1)!, screens.at(-1)!];
    const here = screenAtPath(project, path);
    if (here !== screen) {
      setEnded(
        `The app is at ${here ? screenName(project, here) : path} now, which none of the recorded steps led to.`,
      );
      return;
    }
    const shown = place === screen ? [screen] : [screen, place];
    if (tovel === 'enter') {
      const field = enteredElement(plan, shown, index);
      if (field?.place === place) add({ kind: 'enter', element: field.element, text: text.slice(0, 2000) });
      return;
    }
    const pressed = pressedElement(plan, shown, index);
    const next = pressed && pressStep(project, graph, recorded, pressed.element);
    if (next) add(next.step);
  };
  return { journey, ended, begin, stop: () => setJourney(null), hear };
}
