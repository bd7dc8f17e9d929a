import { type RefObject, useEffect, useRef } from 'react';

/** The frames in which the app runs: one, or several beside each other, of which the first counts where there can be only one. */
export interface Frames {
  readonly first: RefObject<HTMLIFrameElement | null>;
  /** Those beside the first, with the width of each in CSS px. */
  readonly others: RefObject<Map<HTMLIFrameElement, number>>;
  readonly all: () => readonly (HTMLIFrameElement | null)[];
  /** Tells the app in the first frame something. */
  readonly tell: (message: object) => void;
  /** Tells it in all of them. */
  readonly tellAll: (message: object) => void;
}

/**
 * @param origin where the app is served; null as long as that is not known
 * @param hear is told what an app says, and by which frame it does
 */
export function useFrames<Told>(
  origin: string | null,
  hear: (told: Told, frame: HTMLIFrameElement) => void,
): Frames {
  const first = useRef<HTMLIFrameElement>(null);
  const others = useRef(new Map<HTMLIFrameElement, number>());
  const hears = useRef(hear);
  hears.current = hear;
  const all = (): (HTMLIFrameElement | null)[] => [first.current, ...others.current.keys()];
  useEffect(() => {
    const onMessage = ({ data, origin: from, source }: MessageEvent<Told | null>): void => {
      if (from !== origin || !data) return;
      const frame = all().find((one) => one?.contentWindow === source);
      if (frame) hears.current(data, frame);
    };
    window.addEventListener('message', onMessage);
    return () => window.removeEventListener('message', onMessage);
  }, [origin]);
  const post = (frame: HTMLIFrameElement | null, message: object): void =>
    frame?.contentWindow?.postMessage(message, origin ?? '');
  return {
    first,
    others,
    all,
    tell: (message) => post(first.current, message),
    tellAll: (message) => all().forEach((frame) => post(frame, message)),
  };
}
