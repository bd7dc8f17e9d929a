/** Attributes that make an element, neither link nor button, act as a link, by pointer and by keyboard. */
export function pressable(act: () => void) {
  return {
    role: 'link',
    tabindex: 0,
    onClick: (event: MouseEvent): void => {
      if (!isInner(event.target, event.currentTarget as HTMLElement)) act();
    },
    onKeydown: (event: KeyboardEvent): void => {
      if (event.key === 'Enter' && event.target === event.currentTarget) act();
    },
  };
}

/** A press on a link or field inside belongs to that one. */
function isInner(target: EventTarget | null, outer: HTMLElement): boolean {
  if (!(target instanceof Element)) return false;
  const inner = target.closest('a, button, input, select, textarea');
  return inner !== null && inner !== outer && outer.contains(inner);
}
