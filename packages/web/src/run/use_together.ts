import { useEffect } from 'react';

interface Did {
  readonly tovel?: string;
  readonly isTrusted?: boolean;
  readonly text?: string;
  readonly seen?: object;
}

/**
 * What somebody does in one of several frames of the running app is done in all of them.
 * @param allFrames gives those that are there now
 */
export function useTogether(
  allFrames: () => readonly (HTMLIFrameElement | null)[],
  origin: string | null,
): void {
  useEffect(() => {
    if (!origin) return;
    const hear = ({ data, source, origin: from }: MessageEvent<Did | null>): void => {
      if (from !== origin || !data?.isTrusted || !data.seen) return;
      if (data.tovel !== 'press' && (data.tovel !== 'enter' || !data.text)) return;
      const all = allFrames();
      if (!all.some((frame) => frame?.contentWindow === source)) return;
      const order = {
        tovel: 'do',
        mark: { key: '', seen: data.seen },
        ...(data.tovel === 'enter' ? { name: data.text ?? '' } : {}),
      };
      for (const frame of all)
        if (frame && frame.contentWindow !== source) frame.contentWindow?.postMessage(order, origin);
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [origin]);
}
