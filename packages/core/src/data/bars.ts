import { containersOf, screenOf } from '../model/places.ts';
import type { Project } from '../model/project.ts';

/** What stands on so many screens, and on such a share of all, belongs to no single one of them. */
const LEAST_OF_BAR = { screens: 3, share: 1 / 3 } as const;

/** The screens that share the bar that an element stands in: a component that many of all screens have. None where it is in no such. */
export function screensOfBar({ design, app }: Project, element: string): ReadonlySet<string> {
  const around = new Set([element, ...containersOf(design, element)]);
  const bar = Object.values(app.components).find(({ places }) => places.some((key) => around.has(key)));
  const screens = new Set(bar?.places.map((key) => screenOf(design, key)));
  const all = Object.values(app.screens).filter(({ use }) => use === 'screen').length;
  return screens.size < Math.max(LEAST_OF_BAR.screens, all * LEAST_OF_BAR.share) ? NONE : screens;
}

const NONE: ReadonlySet<string> = new Set();
