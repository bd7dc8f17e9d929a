import type { App } from '@tovel/core';

/** The screen that an address of the running app shows; the start screen also at `/`. */
export function screenAtPath(app: App, address: string): string | null {
  const path = address.replace(/[?#].*$/, '').toLowerCase();
  const found = Object.keys(app.screens).find(
    (key) => app.screens[key].use === 'screen' && app.screens[key].route.toLowerCase() === path,
  );
  return found ?? (path === '/' ? app.start : null);
}
