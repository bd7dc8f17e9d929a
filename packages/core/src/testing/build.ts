import { applyChange } from '../change/change.ts';
import { readSvg } from '../intake/svg/read_svg.ts';
import { type App, emptyApp } from '../model/app.ts';
import { type Design, type Element, emptyDesign, type Notice, type Screen } from '../model/design.ts';
import { type Project, walkElements } from '../model/project.ts';
import { takeIn } from '../project/take_in.ts';

/** A drawing of 390 × 844 with this inside. */
export const svg = (body: string, attributes = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="390" height="844" viewBox="0 0 390 844" ${attributes}>${body}</svg>`;

/** Reads a drawing that must be readable. */
export function screenOf(text: string, key = 'test'): Screen {
  const { screen, notices } = readSvg({
    file: `${key}.svg`,
    text,
    screenKey: key,
    asset: (name) => (name === 'known.png' ? 'a'.repeat(64) : null),
  });
  if (!screen) throw new Error(notices.map((notice) => notice.message).join());
  return screen;
}

export function noticesOf(text: string): readonly Notice[] {
  return readSvg({ file: 'test.svg', text, screenKey: 'test', asset: () => null }).notices;
}

/** A screen with a button a name, 60 px apart: `screenWith('home', 'Go', 'Back')`. */
export const screenWith = (key: string, ...buttons: string[]): Screen =>
  screenOf(
    svg(
      buttons
        .map(
          (label, i) =>
            `<g id="Button_${i}" data-name="Button"><rect x="24" y="${40 + 60 * i}" width="342" height="48" rx="8" fill="#234"/><text x="195" y="${69 + 60 * i}" font-size="16" text-anchor="middle" fill="#fff">${label}</text></g>`,
        )
        .join(''),
    ),
    key,
  );

/** A project of screens, taken in as they would be. */
export function projectOf(...screens: Screen[]): Project {
  const design: Design = { ...emptyDesign, screens };
  return { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens)) };
}

export const withApp = (project: Project, app: Partial<App>): Project => ({
  ...project,
  app: { ...project.app, ...app },
});

/** The first element of a screen that is called this. */
export function named(screen: Screen, name: string): Element {
  let found: Element | null = null;
  walkElements(screen.root, (element) => {
    if (!found && element.name === name) found = element;
    return !found;
  });
  if (!found) throw new Error(`no element "${name}"; there are ${namesOf(screen).join(', ')}`);
  return found;
}

/** Names of what shows. */
export function namesOf(screen: Screen): string[] {
  const names: string[] = [];
  walkElements(screen.root, (element) => {
    if (!element.hidden) names.push(element.name);
    return !element.hidden;
  });
  return names;
}
