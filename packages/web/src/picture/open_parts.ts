import { useLayoutEffect, useState } from 'react';

/** The closed parts of a page that hold an element, the innermost first. */
function closedAround(page: Document, key: string): HTMLElement[] {
  const found: HTMLElement[] = [];
  let at = page.querySelector<HTMLElement>(`[data-key="${CSS.escape(key)}"]`);
  for (; at; at = at.parentElement) if (at.hidden) found.push(at);
  return found;
}

/**
 * Opens what is closed around an element of a page, and closes what is shown in place of it.
 * @returns what closes it again
 */
export function openAround(page: Document, key: string): () => void {
  const undo: (() => void)[] = [];
  const set = (part: HTMLElement, isHidden: boolean): void => {
    if (part.hidden === isHidden) return;
    part.hidden = isHidden;
    undo.push(() => (part.hidden = !isHidden));
  };
  for (const part of closedAround(page, key)) {
    const { among } = part.dataset;
    if (among)
      for (const other of page.querySelectorAll<HTMLElement>(`[data-among="${CSS.escape(among)}"]`))
        set(other, other !== part);
    set(part, false);
  }
  return () => undo.reverse().forEach((one) => one());
}

/**
 * Shows the chosen element of a page where it stands in a part that is closed.
 * @returns the page, as a value that is another one whenever what is open in it changed: what is measured has to be measured again
 */
export function useOpenedAround(
  page: Document | null,
  key: string | null,
): { readonly page: Document | null } {
  const [shown, setShown] = useState({ page });
  useLayoutEffect(() => {
    const isClosed = page !== null && key !== null && closedAround(page, key).length > 0;
    const close = isClosed ? openAround(page, key) : null;
    setShown((before) => (before.page === page && !isClosed ? before : { page }));
    if (!close) return;
    return () => {
      close();
      setShown({ page });
    };
  }, [page, key]);
  return shown;
}
