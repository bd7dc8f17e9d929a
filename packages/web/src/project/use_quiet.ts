import { startTransition, useEffect, useReducer, useRef } from 'react';

/**
 * A value once it has not changed for a while, and until then the one before, for what need not be worked out at each change.
 * @param ms how long; 0 where it is wanted at once
 */
export function useQuiet<T>(value: T, ms: number): T {
  const shown = useRef(value);
  const [, showAgain] = useReducer((times: number) => times + 1, 0);
  if (!ms) shown.current = value;
  useEffect(() => {
    if (shown.current === value) return;
    const timer = setTimeout(() => {
      shown.current = value;
      startTransition(showAgain);
    }, ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return shown.current;
}
