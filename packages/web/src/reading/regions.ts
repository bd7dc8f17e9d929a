import { type App, type Region, screenOfElement } from '@tovel/core';

/** What was drawn or taken on one screen. */
export const regionsOn = (app: App, screen: string): Region[] =>
  Object.entries(app.regions)
    .filter(([key]) => screenOfElement(key) === screen)
    .map(([, region]) => region);

/** Keys for so many new regions of a screen, after those that it has. */
export function newRegionKeys(app: App, screen: string, count: number): string[] {
  const stem = `${screen}:~r`;
  const taken = Object.keys(app.regions).filter((key) => key.startsWith(stem));
  const last = Math.max(0, ...taken.map((key) => Number(key.slice(stem.length))));
  return Array.from({ length: count }, (_, i) => `${stem}${last + i + 1}`);
}
