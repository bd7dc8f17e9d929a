import type { HTMLAttributes, KeyboardEvent, MouseEvent } from 'react';

/** Makes an element that is neither link nor button act as a link, by pointer and by keyboard. */
export function pressable(act: () => void): HTMLAttributes<HTMLElement> {
  return {
    role: 'link',
    tabIndex: 0,
    onClick: (event: MouseEvent<HTMLElement>) => {
      if (!isInner(event.target, event.currentTarget)) act();
    },
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
      if (event.key === 'Enter' && event.target === event.currentTarget) act();
    },
  };
}

/** A press on a link or field inside belongs to that one. */
function isInner(target: EventTarget, outer: HTMLElement): boolean {
  if (!(target instanceof Element)) return false;
  const inner = target.closest('a, button, input, select, textarea');
  return inner !== null && inner !== outer && outer.contains(inner);
}
