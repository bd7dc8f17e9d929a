import { type Project, screenAtAddress } from '@tovel/core';

/** The screen that an address of the running app shows; the start screen also at `/`. */
export function screenAtPath(project: Project, address: string): string | null {
  const found = screenAtAddress(project, address);
  return found ?? (address.replace(/[?#].*$/, '') === '/' ? project.app.start : null);
}
