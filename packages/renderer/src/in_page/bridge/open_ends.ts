import { elementMeant, type Seen } from '../pointing.ts';
import type { Frame } from './frame.ts';

/** An element of the app, by the key that it has in the project. */
export interface Mark {
  readonly key: string;
  readonly seen: Seen;
}

const LIT = 'data-lit';
/** Elements that are reached by keyboard only while they are lit. */
const REACHED = 'data-lit-reached';

/** Lights up what leads nowhere yet, and tells that it was pressed; the app may draw itself anew at any time. */
export function lightOpenEnds(frame: Frame): void {
  let marks: readonly Mark[] = [];
  let isWaiting = false;
  const style = document.createElement('style');
  style.textContent = `[${LIT}] { outline: 3px dashed #c75300 !important; outline-offset: 2px !important; cursor: pointer !important; }`;
  const light = (): void => {
    const lit = new Map(
      marks.flatMap(({ key, seen }) => {
        const element = elementMeant(seen);
        return element ? [[element, key] as const] : [];
      }),
    );
    for (const element of document.querySelectorAll(`[${LIT}]`)) if (!lit.has(element)) darken(element);
    for (const [element, key] of lit) {
      if (element.getAttribute(LIT) !== key) element.setAttribute(LIT, key);
      if (element.matches('a[href], button, input, select, textarea, [tabindex]')) continue;
      element.setAttribute('tabindex', '0');
      element.setAttribute(REACHED, '');
    }
  };
  new MutationObserver(() => {
    if (!marks.length || isWaiting) return;
    isWaiting = true;
    requestAnimationFrame(() => {
      isWaiting = false;
      light();
    });
  }).observe(document.body, { childList: true, subtree: true });
  frame.on('mark', (told) => {
    marks = (told.marks ?? []) as readonly Mark[];
    if (marks.length) document.head.append(style);
    else style.remove();
    light();
  });
  const press = (event: Event): void => {
    const element = event.target instanceof Element ? event.target.closest(`[${LIT}]`) : null;
    const isMeant = !(event instanceof KeyboardEvent) || event.key === 'Enter' || event.key === ' ';
    if (!element || !isMeant) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    const { left: x, bottom: y } = element.getBoundingClientRect();
    frame.tell('open-end', { key: element.getAttribute(LIT), x, y });
  };
  document.addEventListener('click', press, true);
  document.addEventListener('keydown', press, true);
}

function darken(element: Element): void {
  element.removeAttribute(LIT);
  if (element.hasAttribute(REACHED)) element.removeAttribute('tabindex');
  element.removeAttribute(REACHED);
}
