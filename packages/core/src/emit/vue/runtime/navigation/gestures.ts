interface Gestures {
  longPress?: () => void;
  swipeLeft?: () => void;
  swipeRight?: () => void;
  swipeTop?: () => void;
  swipeBottom?: () => void;
}

/** Held at least so long, in milliseconds, is a long press; moved at least so far, in px, is a swipe. */
const LONG = 500;
const FAR = 48;

/** Attributes that recognise what is done with a pointer beyond pressing. */
export function gestures(acts: Gestures) {
  let begin: { x: number; y: number; timer: ReturnType<typeof setTimeout> } | null = null;
  const end = (): void => {
    if (begin) clearTimeout(begin.timer);
    begin = null;
  };
  return {
    style: acts.swipeLeft || acts.swipeRight ? { touchAction: 'pan-y' } : undefined,
    onPointerdown: (event: PointerEvent): void => {
      end();
      const timer = setTimeout(() => acts.longPress?.(), LONG);
      begin = { x: event.clientX, y: event.clientY, timer };
    },
    onPointermove: (event: PointerEvent): void => {
      if (!begin) return;
      const [x, y] = [event.clientX - begin.x, event.clientY - begin.y];
      if (Math.abs(x) > FAR / 4 || Math.abs(y) > FAR / 4) clearTimeout(begin.timer);
      if (Math.max(Math.abs(x), Math.abs(y)) < FAR) return;
      end();
      const isAcross = Math.abs(x) > Math.abs(y);
      if (isAcross) (x < 0 ? acts.swipeLeft : acts.swipeRight)?.();
      else (y < 0 ? acts.swipeTop : acts.swipeBottom)?.();
    },
    onPointerup: end,
    onPointercancel: end,
  };
}
