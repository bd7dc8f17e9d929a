/** Projects of any size, made of the screens of the demo. */
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  type Design,
  emptyApp,
  emptyDesign,
  type Project,
  pressablesOf,
  putInteraction,
  readBatch,
  type Screen,
  takeIn,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';

export const DEMO = path.resolve('demo/iteration-1');

/** A project of so many screens: the demo's, over and over, as screens of their own. */
export async function projectOf(count: number): Promise<Project> {
  const host = new HeadlessHost();
  const { screens } = await readBatch(await folderFiles(DEMO), host);
  await host.close();
  const many = Array.from({ length: count }, (_, i): Screen => {
    const screen = screens[i % screens.length];
    const key = `${screen.key}-${i}`;
    const rekeyed = JSON.parse(JSON.stringify(screen).replaceAll(`"${screen.key}:`, `"${key}:`)) as Screen;
    return { ...rekeyed, key, name: `${screen.name} ${i}` };
  });
  const design: Design = addToDesign(emptyDesign, { screens: many, assets: [], notices: [] });
  let app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, many));
  many.forEach((screen, i) => {
    for (const { element } of pressablesOf(screen))
      app = applyChange(
        app,
        putInteraction(element.key, {
          on: 'press',
          target: { kind: 'screen', screen: many[(i * 7 + 1) % count].key },
          arrival: { kind: 'none' },
        }),
      );
  });
  return { design, app };
}

/** The same project as values that nothing has been computed for yet. */
export const fresh = (project: Project): Project => JSON.parse(JSON.stringify(project)) as Project;
