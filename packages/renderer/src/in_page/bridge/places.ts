import type { Frame } from './frame.ts';

const TOP = 'tovel-top';
const SCROLL = 'tovel-scroll';

/**
 * Tells where the app is, and goes where it is told.
 * @returns what tells where it is, and what loads the page anew, as it is
 */
export function tellPlaces(
  frame: Frame,
  kept: () => object,
): { readonly tell: () => void; readonly reload: () => void } {
  const index = (): number => (history.state as { idx?: number } | null)?.idx ?? 0;
  let top = Number(sessionStorage.getItem(TOP) ?? 0);
  const tell = (): void => {
    const at = index();
    top = Math.max(top, at);
    sessionStorage.setItem(TOP, String(top));
    frame.tell('place', { path: frame.path, canGoBack: at > 0, canGoForward: at < top, kept: kept() });
  };
  for (const name of ['pushState', 'replaceState'] as const) {
    const original = history[name].bind(history);
    history[name] = (...given: Parameters<History['pushState']>) => {
      original(...given);
      if (name === 'pushState') top = index();
      tell();
    };
  }
  addEventListener('popstate', tell);
  frame.on('back', () => {
    if (index() > 0) history.back();
  });
  frame.on('forward', () => {
    if (index() < top) history.forward();
  });
  frame.on('go', ({ to = '/' }) => frame.goTo(to));
  const reload = (): void => {
    sessionStorage.setItem(SCROLL, JSON.stringify([scrollX, scrollY]));
    location.reload();
  };
  frame.on('reload', reload);
  // The app may be loaded anew after a change of the project, and asks nobody about that.
  addEventListener('beforeunload', (event) => event.stopImmediatePropagation());
  scrollBack();
  tell();
  return { tell, reload };
}

/** What was loaded anew is scrolled to where it was, as soon as it is that long. */
function scrollBack(): void {
  const scroll = sessionStorage.getItem(SCROLL);
  if (!scroll) return;
  sessionStorage.removeItem(SCROLL);
  const [x, y] = JSON.parse(scroll) as [number, number];
  const restore = (left: number): void => {
    scrollTo(x, y);
    if (left > 0 && scrollY < y) requestAnimationFrame(() => restore(left - 1));
  };
  restore(30);
}
