import { type App, type Region, screenOfOwn } from '@tovel/core';

/** What was drawn or taken on one screen. */
export const regionsOn = (app: App, screen: string): Region[] =>
  Object.entries(app.regions)
    .filter(([key, region]) => screenOfOwn(key, region) === screen)
    .map(([, region]) => region);

/** Keys for so many new regions of a screen, after those that it has. */
export function newRegionKeys(app: App, screen: string, count: number): string[] {
  const stem = `${screen}:~r`;
  const taken = Object.keys(app.regions).filter((key) => key.startsWith(stem));
  const last = Math.max(0, ...taken.map((key) => Number(key.slice(stem.length))));
  return Array.from({ length: count }, (_, i) => `${stem}${last + i + 1}`);
}
