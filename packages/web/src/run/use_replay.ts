import {
  checkJourney,
  elementOfInteraction,
  type Journey,
  screenName,
  seenAs,
  shownElements,
  testedAddress,
} from '@tovel/core';
import { useRef, useState } from 'react';
import { pause } from '../project/pause';
import { useProject } from '../project/context';
import { screenAtPath } from './place';

/** How a journey went in the running app. */
export type Replayed =
  | { readonly kind: 'running'; readonly step: number }
  | { readonly kind: 'done'; readonly steps: number; readonly ms: number }
  | { readonly kind: 'broke'; readonly step: number; readonly why: string };

export interface ReplayTold {
  readonly tovel?: string;
  readonly path?: string;
  readonly found?: boolean;
}

export interface Replay {
  /** By the id of the journey. */
  readonly results: ReadonlyMap<string, Replayed>;
  readonly isRunning: boolean;
  readonly hear: (told: ReplayTold) => void;
  /** @param isAtOnce whether it goes as fast as the app does, else at the pace of a person */
  readonly run: (ids: readonly string[], isAtOnce: boolean) => void;
}

/** A person's pace: milliseconds between two steps. */
const PACE = 900;
/** Milliseconds after which something that is not there yet is looked for again. */
const AGAIN = 120;
/** So long is waited for something to be there. */
const PATIENCE = 4000;
/** So often an app is asked to open where a journey begins. */
const MOST_TRIES = 3;

/** Journeys, made in the running app as a person would make them. */
export function useReplay(tell: (message: object) => void): Replay {
  const project = useProject();
  const [results, setResults] = useState<ReadonlyMap<string, Replayed>>(new Map());
  const [isRunning, setRunning] = useState(false);
  const waiting = useRef<((told: ReplayTold) => void) | null>(null);
  /** Where the app is; null while it loads. */
  const path = useRef<string | null>('/');
  const latest = useRef(project);
  latest.current = project;
  const hear = (told: ReplayTold): void => {
    if (told.tovel === 'place' && told.path !== undefined) path.current = told.path;
    waiting.current?.(told);
  };
  /** Waits until what the app tells makes something true, or patience ends. */
  const until = (isSo: (told: ReplayTold | null) => boolean): Promise<boolean> =>
    new Promise((resolve) => {
      const end = (is: boolean): void => {
        clearTimeout(timer);
        waiting.current = null;
        resolve(is);
      };
      const timer = setTimeout(() => end(false), PATIENCE);
      waiting.current = (told) => isSo(told) && end(true);
      if (isSo(null)) end(true);
    });
  const here = (): string | null =>
    path.current === null ? null : screenAtPath(latest.current, path.current);
  const isAt = (screen: string): boolean => here() === screen;

  const make = async (id: string, journey: Journey, isAtOnce: boolean): Promise<Replayed> => {
    const { app, plan, graph } = latest.current;
    const put = (result: Replayed): Replayed => {
      setResults((before) => new Map(before).set(id, result));
      return result;
    };
    const nameOf = (key: string): string => screenName(latest.current, key);
    const check = checkJourney(latest.current, graph, journey);
    const began = performance.now();
    put({ kind: 'running', step: 0 });
    const { route, params } = app.screens[journey.start] ?? { route: '/' };
    path.current = null;
    const open = {
      tovel: 'restore',
      kept: { variables: null, records: {} },
      to: testedAddress(route, params),
    };
    // What is said to an app that is just being loaded is not heard.
    let isOpen = false;
    for (let tries = 0; tries < MOST_TRIES && !isOpen; tries++) {
      tell(open);
      isOpen = await until(() => isAt(journey.start));
    }
    if (!isOpen) return put({ kind: 'broke', step: 0, why: `${nameOf(journey.start)} does not open` });
    for (const [i, step] of journey.steps.entries()) {
      put({ kind: 'running', step: i + 1 });
      if (!isAtOnce) await pause(PACE);
      const broke = (why: string): Replayed => put({ kind: 'broke', step: i + 1, why });
      const place = check.places[i];
      if (place === undefined || check.problem?.step === i)
        return broke(check.problem?.message ?? 'it does not lead here any more');
      const key = step.kind === 'enter' ? step.element : elementOfInteraction(step.interaction);
      const elements = shownElements(plan, place);
      const seen = seenAs(elements, key);
      const label = seen?.says ? `“${seen.says}”` : 'What is to be pressed';
      if (!seen) return broke(`${label} is not on ${nameOf(place)}`);
      const order = {
        tovel: 'do',
        mark: { key, seen },
        ...(step.kind === 'enter' ? { name: step.text } : {}),
      };
      // A screen that has just come may still be on its way.
      let isFound = false;
      for (let waited = 0; waited < PATIENCE && !isFound; waited += AGAIN) {
        tell(order);
        const isHeard = await until((told) => {
          if (told?.tovel === 'did') isFound = told.found === true;
          return told?.tovel === 'did';
        });
        if (!isHeard) break;
        if (!isFound) await pause(AGAIN);
      }
      if (!isFound) return broke(`${label} is not there on ${nameOf(place)}`);
      const next = check.screens[i + 1];
      if (next === undefined) return broke(check.problem?.message ?? 'it does not lead on');
      if (!(await until(() => isAt(next)))) {
        const place = here();
        return broke(`${label} leads to ${place ? nameOf(place) : path.current}, not to ${nameOf(next)}`);
      }
    }
    return put({ kind: 'done', steps: journey.steps.length, ms: performance.now() - began });
  };

  const run = (ids: readonly string[], isAtOnce: boolean): void => {
    if (isRunning) return;
    setRunning(true);
    void (async () => {
      for (const id of ids) {
        const journey = latest.current.app.journeys[id];
        if (journey) await make(id, journey, isAtOnce);
      }
      setRunning(false);
    })();
  };
  return { results, isRunning, hear, run };
}
