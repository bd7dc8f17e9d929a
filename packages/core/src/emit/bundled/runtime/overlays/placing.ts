/** What can be chosen in a menu. */
export const itemsOf = (menu: HTMLElement): HTMLElement[] => [
  ...menu.querySelectorAll<HTMLElement>('a, button, [role="menuitem"]'),
];

/** Puts it below what opened it, or above where there is no room. */
export function placeBeside(element: HTMLElement, opener: Element | null): void {
  if (!opener || opener === document.body) return;
  const { left, top, bottom } = opener.getBoundingClientRect();
  const { width, height } = element.getBoundingClientRect();
  const room = document.documentElement;
  const y = bottom + 4 + height > room.clientHeight && top > height ? top - height - 4 : bottom + 4;
  element.style.margin = '0';
  element.style.inset = 'auto';
  element.style.top = `${y}px`;
  element.style.left = `${Math.max(4, Math.min(left, room.clientWidth - width - 4))}px`;
}
