import { screenName } from '@tovel/core';
import { useRef, useState } from 'react';
import { useProject } from '../project/context';
import { screenAtPath } from './place';
import type { Told } from './recorded';
import type { Changed, RequestSeen } from './use_remembered';

/** What the running app remembered at a moment, as its bridge says it. */
export type Kept = object;

/** Something that happened in the running app. */
export interface TapeEntry {
  readonly number: number;
  readonly kind: 'place' | 'press' | 'enter' | 'state' | 'request' | 'error' | 'console';
  readonly says: string;
  /** More of it, in words. */
  readonly more: string;
  /** Milliseconds since the tape began. */
  readonly at: number;
  readonly path: string;
  /** Key of the screen that was shown, where one was. */
  readonly screen: string | null;
  /** Of a place: what the app remembered there. */
  readonly kept?: Kept;
  /** Of what was pressed or entered: as it was told. */
  readonly told?: Told;
  /** Of an error: where in the scripts it was thrown, the innermost call first. */
  readonly thrownAt?: readonly ThrownAt[];
}

/** A place in a script of the running app: the line from 1, the column from 0. */
export interface ThrownAt {
  /** What the script is called, as `LinkedBuild` calls it. */
  readonly script: string;
  readonly line: number;
  readonly column: number;
}

export interface TapeTold {
  readonly tovel?: string;
  readonly path?: string;
  readonly says?: string;
  readonly text?: string;
  readonly index?: number;
  readonly kept?: Kept;
  readonly level?: string;
  /** Of an error: where in the scripts it was thrown, the innermost call first. */
  readonly places?: readonly ThrownAt[];
  readonly by?: string;
  readonly changes?: readonly Changed[];
  readonly request?: RequestSeen;
}

export interface Tape {
  /** The oldest first. */
  readonly entries: readonly TapeEntry[];
  readonly hear: (told: TapeTold) => void;
  readonly clear: () => void;
}

/** Older entries are forgotten. */
const MOST_ENTRIES = 300;

/** What happens in the running app, one after another. */
export function useTape(): Tape {
  const project = useProject();
  const [entries, setEntries] = useState<readonly TapeEntry[]>([]);
  const began = useRef(performance.now());
  const path = useRef('/');
  const add = (
    made: readonly Pick<TapeEntry, 'kind' | 'says' | 'more' | 'kept' | 'told' | 'thrownAt'>[],
  ): void => {
    if (!made.length) return;
    const place = { path: path.current, screen: screenAtPath(project, path.current) };
    const at = performance.now() - began.current;
    setEntries((before) => {
      const first = (before.at(-1)?.number ?? 0) + 1;
      const next = made.map((one, i): TapeEntry => ({ ...one, ...place, at, number: first + i }));
      return [...before, ...next].slice(-MOST_ENTRIES);
    });
  };
  const hear = (told: TapeTold): void => {
    const isMove = told.tovel === 'place' && told.path !== undefined && told.path !== path.current;
    if (told.path !== undefined) path.current = told.path;
    if (told.tovel !== 'place') return add(entriesOf(told));
    const { path: to = '', kept } = told;
    const screen = screenAtPath(project, to);
    if (isMove || !entries.length)
      add([
        {
          kind: 'place',
          says: screen ? screenName(project, screen) : to,
          more: to,
          ...(kept ? { kept } : {}),
        },
      ]);
  };
  return { entries, hear, clear: () => setEntries([]) };
}

/** What of it stands on the tape; a place is there only where it is another one. */
function entriesOf(
  told: TapeTold,
): readonly Pick<TapeEntry, 'kind' | 'says' | 'more' | 'told' | 'thrownAt'>[] {
  const by = told.by ? `after “${told.by}”` : '';
  switch (told.tovel) {
    case 'press':
      return [{ kind: 'press', says: `Pressed “${told.says ?? ''}”`, more: '', told: asDone(told) }];
    case 'enter':
      return [
        {
          kind: 'enter',
          says: `Entered “${told.text ?? ''}”`,
          more: told.says ? `into “${told.says}”` : '',
          told: asDone(told),
        },
      ];
    case 'state':
      return (told.changes ?? []).map(
        (change) => ({ kind: 'state', says: wordsOf(change), more: by }) as const,
      );
    case 'request':
      return told.request
        ? [
            {
              kind: 'request',
              says: `${told.request.method} ${told.request.path}`,
              more: [told.request.status || 'no answer', `${told.request.ms} ms`, by]
                .filter(Boolean)
                .join(' · '),
            },
          ]
        : [];
    case 'error':
      return [
        {
          kind: 'error',
          says: told.says ?? '',
          more: by,
          ...(told.places?.length ? { thrownAt: told.places } : {}),
        },
      ];
    case 'console':
      return [{ kind: 'console', says: told.says ?? '', more: [told.level, by].filter(Boolean).join(' · ') }];
    default:
      return [];
  }
}

const asDone = ({ tovel, path = '/', index, text }: TapeTold): Told => ({
  ...(tovel === undefined ? {} : { tovel }),
  path,
  ...(index === undefined ? {} : { index }),
  ...(text === undefined ? {} : { text }),
});

/** What a variable is, in words. */
export const saidValue = (value: unknown): string =>
  value === true
    ? 'yes'
    : value === false
      ? 'no'
      : value === '' || (Array.isArray(value) && !value.length)
        ? 'nothing'
        : Array.isArray(value)
          ? value.join(', ')
          : String(value);

const wordsOf = (change: Changed): string =>
  'request' in change
    ? change.request.path
    : 'variable' in change
      ? `${change.variable}: ${saidValue(change.is)}`
      : `${change.collection}: ${change.did}, ${change.says}`;
