import { all, applyChange, putInteraction } from '../change/change.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { Screen } from '../model/design.ts';
import { pressTo } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, svg } from './build.ts';

/** A tab of the bar. */
export const entry = (label: string, x: number, isHere: boolean): string =>
  `<g data-name="${label} tab"><rect x="${x}" y="790" width="70" height="40" rx="6" fill="${isHere ? '#234' : '#fff'}"/><text x="${x + 35}" y="815" font-size="13" text-anchor="middle" fill="${isHere ? '#fff' : '#234'}">${label}</text></g>`;
export const TABS = ['Home', 'Tools', 'Loans', 'Help'];
/** A screen with a bar of tabs at its foot, on which its own is marked, and content of its own above. */
export const tabbed = (name: string, bar = TABS): Screen =>
  screenOf(
    svg(
      `<g id="Content"><text x="24" y="60" font-size="26">${name} of the library</text>${Array.from({ length: 12 }, (_, i) => `<text x="24" y="${120 + 40 * i}" font-size="15">${name} says ${i}</text>`).join('')}</g><g id="Tab_bar" data-name="Tab bar"><rect x="0" y="780" width="390" height="64" fill="#eee"/>${bar.map((label, i) => entry(label, 20 + 90 * i, label === name)).join('')}</g>`,
    ),
    name.toLowerCase(),
  );
/** A project in which each entry of a bar leads to its screen. */
export function wired(...screens: Screen[]): Project {
  const project = projectOf(...screens);
  const links = screens.flatMap((screen) =>
    pressablesOf(screen).flatMap(({ element, label }) =>
      screens.some(({ key }) => key === label.toLowerCase())
        ? [putInteraction(element.key, pressTo({ kind: 'screen', screen: label.toLowerCase() }))]
        : [],
    ),
  );
  return { ...project, app: applyChange(project.app, all(links)) };
}
