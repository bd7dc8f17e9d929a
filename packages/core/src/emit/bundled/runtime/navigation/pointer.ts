/** What is done with a pointer beyond pressing. */
export interface Gestures {
  longPress?: () => void;
  swipeLeft?: () => void;
  swipeRight?: () => void;
  swipeTop?: () => void;
  swipeBottom?: () => void;
}

interface Point {
  readonly clientX: number;
  readonly clientY: number;
}

/** Held at least so long, in milliseconds, is a long press; moved at least so far, in px, is a swipe. */
const LONG = 500;
const FAR = 48;

/** Recognises gestures from where a pointer goes down, moves and ends. */
export function recogniser(acts: Gestures) {
  let begin: { x: number; y: number; timer: ReturnType<typeof setTimeout> } | null = null;
  const end = (): void => {
    if (begin) clearTimeout(begin.timer);
    begin = null;
  };
  return {
    /** Scrolling across is left to swipes, where there are such. */
    style: acts.swipeLeft || acts.swipeRight ? { touchAction: 'pan-y' } : undefined,
    down: ({ clientX, clientY }: Point): void => {
      end();
      begin = { x: clientX, y: clientY, timer: setTimeout(() => acts.longPress?.(), LONG) };
    },
    move: ({ clientX, clientY }: Point): void => {
      if (!begin) return;
      const [x, y] = [clientX - begin.x, clientY - begin.y];
      if (Math.abs(x) > FAR / 4 || Math.abs(y) > FAR / 4) clearTimeout(begin.timer);
      if (Math.max(Math.abs(x), Math.abs(y)) < FAR) return;
      end();
      const isAcross = Math.abs(x) > Math.abs(y);
      if (isAcross) (x < 0 ? acts.swipeLeft : acts.swipeRight)?.();
      else (y < 0 ? acts.swipeTop : acts.swipeBottom)?.();
    },
    end,
  };
}
