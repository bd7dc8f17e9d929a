import { elementSeen, seenAs, type Seen, shownElements } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import type { OpenProject } from '../project/context';

/** What a running app tells of an element that was pressed while it is pointed at. */
export interface PointedTold {
  readonly tovel: string;
  readonly seen?: Seen;
}

/** The element of the running app that is being changed where it is. */
export interface Pointed {
  readonly isOn: boolean;
  readonly key: string | null;
  /** What was pressed, where no element of the design is like it. */
  readonly unknown: string | null;
  readonly turn: (isOn: boolean) => void;
  readonly select: (key: string) => void;
  readonly hear: (told: PointedTold) => void;
}

/**
 * @param shown keys of the screens that can be seen
 * @param tell tells the running app something
 * @param loads counts how often the app was loaded, after which it has to be told anew
 */
export function usePointed(
  { plan }: Pick<OpenProject, 'plan'>,
  shown: readonly string[],
  tell: (message: object) => void,
  loads: number,
): Pointed {
  const [isOn, setOn] = useState(false);
  const [key, setKey] = useState<string | null>(null);
  const [unknown, setUnknown] = useState<string | null>(null);
  const said = shown.join(' ');
  const elements = useMemo(
    () => (isOn ? shown.flatMap((screen) => shownElements(plan, screen)) : []),
    [isOn, plan, said],
  );
  const mark = useMemo(() => (key === null ? null : seenAs(elements, key)), [elements, key]);
  useEffect(() => tell({ tovel: 'point', value: isOn, mark }), [isOn, mark, loads]);
  return {
    isOn,
    key: isOn ? key : null,
    unknown,
    turn: (on) => {
      setOn(on);
      setKey(null);
      setUnknown(null);
    },
    select: setKey,
    hear: ({ tovel, seen }) => {
      if (tovel !== 'pointed' || !seen) return;
      const found = elementSeen(elements, seen);
      setUnknown(found === null ? seen.says || seen.tag : null);
      if (found !== null) setKey(found);
    },
  };
}
