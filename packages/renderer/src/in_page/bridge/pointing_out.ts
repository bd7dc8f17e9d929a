import { elementMeant, type Seen, seenOf } from '../pointing.ts';
import type { Frame } from './frame.ts';

const OVER = 'data-pointed-over';
const CHOSEN = 'data-pointed-chosen';

/** While it is asked for, what is pressed is told instead of done, and what was chosen is outlined. */
export function pointAsTold(frame: Frame): void {
  let isAsked = false;
  let chosen: Seen | null = null;
  let isWaiting = false;
  const style = document.createElement('style');
  style.textContent = `
    [${OVER}] { outline: 2px dashed #0c6a6a !important; outline-offset: 1px !important; cursor: crosshair !important; }
    [${CHOSEN}] { outline: 3px solid #0c6a6a !important; outline-offset: 1px !important; }`;
  const only = (name: string, element: Element | null): void => {
    for (const one of document.querySelectorAll(`[${name}]`)) if (one !== element) one.removeAttribute(name);
    if (element && !element.hasAttribute(name)) element.setAttribute(name, '');
  };
  const outline = (): void => only(CHOSEN, isAsked && chosen ? elementMeant(chosen) : null);
  // The app may draw itself anew at any time.
  new MutationObserver(() => {
    if (!isAsked || isWaiting) return;
    isWaiting = true;
    requestAnimationFrame(() => {
      isWaiting = false;
      outline();
    });
  }).observe(document.body, { childList: true, subtree: true });
  frame.on('point', (told) => {
    isAsked = told.value === true;
    chosen = (told.mark as Seen | null | undefined) ?? null;
    if (isAsked) document.head.append(style);
    else style.remove();
    if (!isAsked) only(OVER, null);
    outline();
  });
  const pointedAt = ({ target }: Event): Element | null =>
    isAsked && target instanceof Element && target !== document.documentElement && target !== document.body
      ? // Of a drawing the whole is meant.
        (target.closest('svg') ?? target)
      : null;
  document.addEventListener('pointerover', (event) => only(OVER, pointedAt(event)), true);
  for (const type of ['click', 'pointerdown', 'pointerup', 'dblclick', 'submit'] as const)
    document.addEventListener(
      type,
      (event) => {
        if (!isAsked) return;
        event.preventDefault();
        event.stopImmediatePropagation();
        const element = type === 'click' ? pointedAt(event) : null;
        if (element) frame.tell('pointed', { seen: seenOf(element) });
      },
      true,
    );
}
