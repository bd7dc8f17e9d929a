import { useEffect, useEffectEvent } from 'react';

/** Does something some milliseconds after the screen was shown. */
export function useAfter(ms: number, act: () => void): void {
  const onTime = useEffectEvent(act);
  useEffect(() => {
    const timer = setTimeout(onTime, ms);
    return () => clearTimeout(timer);
  }, [ms]);
}

/** Does something when a key is pressed that no field takes. */
export function useKey(key: string, act: () => void): void {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const isTyped =
      event.target instanceof Element && event.target.closest('input, textarea, select');
    if (event.key !== key || event.defaultPrevented || (isTyped && key.length === 1)) return;
    event.preventDefault();
    act();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
