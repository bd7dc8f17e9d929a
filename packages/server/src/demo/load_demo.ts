import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import {
  addToDesign,
  all,
  applyChange,
  type App,
  type Change,
  emptyApp,
  emptyDesign,
  graphOf,
  type Interaction,
  type Journey,
  keptApi,
  nextSteps,
  pressablesOf,
  type Project,
  putApi,
  putInteraction,
  putJourney,
  putScreen,
  putStill,
  readBatch,
  setStart,
  settle,
  takeIn,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { folderFiles } from './folder_files.ts';
import { screenCalled, type Working, workingAs } from './working.ts';
import type { Services } from '../services.ts';

/** A project's wiring in people's words: names of screens, and texts of elements. */
export interface Wiring {
  readonly name: string;
  readonly start: string;
  readonly routes: Readonly<Record<string, string>>;
  readonly skip: readonly string[];
  readonly links: readonly {
    readonly on: string;
    readonly press: string;
    readonly to: string;
    readonly arrival?: Interaction['arrival'];
    readonly fallback?: string;
  }[];
  readonly still: readonly { readonly on: string; readonly press: string }[];
  /** Ways through the app: what is pressed on each screen, in order. */
  readonly journeys?: readonly {
    readonly name: string;
    readonly start: string;
    readonly press: readonly string[];
  }[];
}

/**
 * Takes in the demo's screens like any other files, and wires them as its `wiring.json` says.
 * @param shared where its screens can be asked for again
 */
export async function loadDemo(
  services: Services,
  folder: string,
  say: (text: string) => void,
  shared?: string,
): Promise<string | null> {
  const screensFolder = path.join(folder, 'iteration-1');
  if (!existsSync(path.join(folder, 'wiring.json'))) return null;
  const wiring = JSON.parse(await readFile(path.join(folder, 'wiring.json'), 'utf8')) as Wiring;
  const files = await folderFiles(screensFolder);
  const host = new HeadlessHost();
  try {
    const result = await readBatch(files, host);
    for (const notice of result.notices)
      if (notice.level === 'error') say(`${notice.file}: ${notice.message}`);
    for (const asset of result.assets)
      await services.assets.put(asset.hash, asset.type, result.bytes.get(asset.hash)!);
    const design = addToDesign(emptyDesign, result);
    const taken: App = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
    const wired = applyChange(taken, wire({ design, app: taken }, wiring));
    // Before the one to begin with, which is listed first then.
    await loadWorking(services, folder, { design, app: wired }, host);
    const id = await services.projects.create(
      wiring.name,
      design,
      applyChange(wired, journeysOf({ design, app: wired }, wiring)),
    );
    if (shared)
      await services.sources.keep(id, {
        address: shared,
        etag: null,
        modified: null,
        hash: null,
        fetchedAt: new Date(),
      });
    return id;
  } finally {
    await host.close();
  }
}

/** The demo once more, with all that stands behind its screens. */
async function loadWorking(
  services: Services,
  folder: string,
  wired: Project,
  host: HeadlessHost,
): Promise<void> {
  const file = path.join(folder, 'working.json');
  if (!existsSync(file)) return;
  const working = JSON.parse(await readFile(file, 'utf8')) as Working;
  const read = await readBatch(await folderFiles(path.join(folder, 'states')), host);
  for (const asset of read.assets)
    await services.assets.put(asset.hash, asset.type, read.bytes.get(asset.hash)!);
  const design = addToDesign(wired.design, read);
  const known = new Set(wired.design.screens.map(({ key }) => key));
  const more = design.screens.filter(({ key }) => !known.has(key));
  const project = {
    design,
    app: applyChange(wired.app, takeIn({ design, app: wired.app }, more)),
  };
  let app = applyChange(project.app, workingAs(project, working));
  if (working.api) {
    const { api } = keptApi(await readFile(path.join(folder, working.api.file), 'utf8'));
    if (api) app = applyChange(app, putApi('library', { ...api, name: working.api.name }));
  }
  await services.projects.create(working.name, design, app);
}

/**
 * The change that a wiring amounts to.
 * @throws RangeError for a screen or element that is not there.
 */
export function wire(project: Project, wiring: Wiring): Change {
  const screen = (name: string): string => screenCalled(project.app, name);
  /** `Return` is the first element of that text, `Return#2` the second. */
  const element = (on: string, press: string): string => {
    const [, label, nth] = /^(.*?)(?:#(\d+))?$/s.exec(press)!;
    const drawn = project.design.screens.find((s) => s.key === screen(on))!;
    const found = pressablesOf(drawn).filter((p) => p.label === label || p.label.startsWith(`${label} `))[
      Number(nth ?? 1) - 1
    ];
    if (!found) throw new RangeError(`wiring: nothing pressable on ${on} is called "${press}"`);
    return found.element.key;
  };
  const interaction = (link: Wiring['links'][number]): Interaction => ({
    on: 'press',
    target:
      link.to === 'back'
        ? { kind: 'back', ...(link.fallback ? { fallback: screen(link.fallback) } : {}) }
        : /^\w+:/.test(link.to)
          ? { kind: 'external', href: link.to }
          : { kind: 'screen', screen: screen(link.to) },
    arrival: link.arrival ?? { kind: 'none' },
  });
  const entry = (name: string): App['screens'][string] => project.app.screens[screen(name)];
  return all([
    ...Object.entries(wiring.routes).map(([name, route]) =>
      putScreen(screen(name), { ...entry(name), route }),
    ),
    ...wiring.skip.map((name) => putScreen(screen(name), { ...entry(name), use: 'skip' })),
    setStart(screen(wiring.start)),
    ...wiring.links.map((link) => putInteraction(element(link.on, link.press), interaction(link))),
    ...wiring.still.map(({ on, press }) => putStill(element(on, press), true)),
  ]);
}

/**
 * The change that makes the journeys of a wiring.
 * @throws RangeError for a step that cannot be done.
 */
export function journeysOf(project: Project, { journeys = [] }: Wiring): Change {
  const settled = settle(project);
  const graph = graphOf(settled);
  return all(
    journeys.map(({ name, start, press }, i) => {
      const key = graph.screens.find((screen) => project.app.screens[screen].name === start);
      if (!key) throw new RangeError(`wiring: the journey "${name}" begins at no screen "${start}"`);
      let journey: Journey = { name, start: key, steps: [] };
      for (const label of press) {
        const next = nextSteps(settled, graph, journey).find(
          (one) => one.label === label || one.label.startsWith(`${label} `),
        );
        if (!next) throw new RangeError(`wiring: the journey "${name}" cannot press "${label}"`);
        journey = { ...journey, steps: [...journey.steps, next.step] };
      }
      return putJourney(`journey-${i + 1}`, journey);
    }),
  );
}
