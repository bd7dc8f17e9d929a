import { useEffect, useRef, useState } from 'react';
import { useTogether } from '../run/use_together';

interface Place {
  readonly tovel?: string;
  readonly path?: string;
}

/** Milliseconds after which those that have not come along are told where the others are. */
const SETTLING = 400;
/** Milliseconds within which where one comes to is where it was told to go. */
const LED = 1000;

/**
 * Frames of the running app that each wear a look of their own, told again whenever they load; what is done in one is done in all.
 * @param worn the values of each look, by its id
 * @param stamp the frames load anew when it changes
 */
export function useDressed(
  origin: string | null,
  worn: ReadonlyMap<string, Readonly<Record<string, string>>>,
  stamp: unknown,
): {
  readonly isThere: boolean;
  readonly frameOf: (id: string) => (frame: HTMLIFrameElement | null) => void;
} {
  const frames = useRef(new Map<string, HTMLIFrameElement | null>());
  const [isThere, setThere] = useState(false);
  const looks = useRef(worn);
  looks.current = worn;
  const came = useRef(new WeakSet<HTMLIFrameElement>());
  /** Where the frames are in the app: where the last one went, and each by its id. */
  const here = useRef<string | null>(null);
  const places = useRef(new Map<string, string>());
  /** When each was last told where to go, in ms: where it comes to by that is no way for the others. */
  const toldAt = useRef(new Map<string, number>());
  useTogether(() => [...frames.current.values()], origin);
  const tell = (id: string): void => {
    const values = looks.current.get(id) ?? {};
    frames.current.get(id)?.contentWindow?.postMessage({ tovel: 'dress', values }, origin ?? '');
  };
  useEffect(() => {
    let late: ReturnType<typeof setTimeout> | undefined;
    const lead = (id: string, frame: HTMLIFrameElement | null): void => {
      toldAt.current.set(id, Date.now());
      frame?.contentWindow?.postMessage({ tovel: 'go', to: here.current }, origin ?? '');
    };
    /** What was done before a frame was there, or is not to be done in it, leads it on all the same. */
    const gather = (): void => {
      for (const [id, frame] of frames.current)
        if (here.current !== null && places.current.has(id) && places.current.get(id) !== here.current)
          lead(id, frame);
    };
    const hear = ({ data, source, origin: from }: MessageEvent<Place | null>): void => {
      if (from !== origin || data?.tovel !== 'place') return;
      for (const [id, frame] of frames.current)
        if (frame && frame.contentWindow === source) {
          setThere(true);
          tell(id);
          if (data.path !== undefined) places.current.set(id, data.path);
          const isNew = !came.current.has(frame);
          came.current.add(frame);
          if (Date.now() - (toldAt.current.get(id) ?? 0) < LED) continue;
          // One that comes later goes where the others have gone meanwhile.
          if (isNew && here.current !== null && here.current !== data.path) lead(id, frame);
          else {
            here.current = data.path ?? null;
            clearTimeout(late);
            late = setTimeout(gather, SETTLING);
          }
        }
    };
    window.addEventListener('message', hear);
    return () => {
      clearTimeout(late);
      window.removeEventListener('message', hear);
    };
  }, [origin]);
  useEffect(() => {
    if (origin) for (const id of frames.current.keys()) tell(id);
  }, [worn, origin]);
  const first = useRef(stamp);
  useEffect(() => {
    if (first.current === stamp) return;
    first.current = stamp;
    for (const frame of frames.current.values())
      frame?.contentWindow?.postMessage({ tovel: 'refresh' }, origin ?? '');
  }, [stamp, origin]);
  return {
    isThere,
    frameOf: (id) => (frame) => {
      if (frame) frames.current.set(id, frame);
      else frames.current.delete(id);
    },
  };
}
