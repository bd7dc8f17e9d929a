import { useEffect, useRef, useState } from 'react';
import { useTogether } from '../run/use_together';

interface Place {
  readonly tovel?: string;
  readonly path?: string;
}

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
  /** Where the frames are in the app. */
  const here = useRef<string | null>(null);
  useTogether(frames, origin);
  const tell = (id: string): void => {
    const values = looks.current.get(id) ?? {};
    frames.current.get(id)?.contentWindow?.postMessage({ tovel: 'dress', values }, origin ?? '');
  };
  useEffect(() => {
    const hear = ({ data, source, origin: from }: MessageEvent<Place | null>): void => {
      if (from !== origin || data?.tovel !== 'place') return;
      for (const [id, frame] of frames.current)
        if (frame && frame.contentWindow === source) {
          setThere(true);
          tell(id);
          // One that comes later goes where the others have gone meanwhile.
          const isNew = !came.current.has(frame);
          came.current.add(frame);
          if (isNew && here.current !== null && here.current !== data.path)
            frame.contentWindow?.postMessage({ tovel: 'go', to: here.current }, origin ?? '');
          else here.current = data.path ?? null;
        }
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [origin]);
  useEffect(() => {
    if (origin) for (const id of frames.current.keys()) tell(id);
  }, [worn, origin]);
  const first = useRef(stamp);
  useEffect(() => {
    if (first.current === stamp) return;
    first.current = stamp;
    for (const frame of frames.current.values())
      frame?.contentWindow?.postMessage({ tovel: 'reload' }, origin ?? '');
  }, [stamp, origin]);
  return {
    isThere,
    frameOf: (id) => (frame) => {
      if (frame) frames.current.set(id, frame);
      else frames.current.delete(id);
    },
  };
}
