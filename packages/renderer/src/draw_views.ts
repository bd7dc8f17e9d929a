import {
  addressOfScreen,
  asDrawn,
  EmissionPlan,
  emitReact,
  emitScreenOf,
  printHtml,
  type Project,
  type Screen,
  screensByKey,
  SWEPT_WIDTHS,
  sweptFaults,
  type SweptScreen,
  targets,
  type View,
  type WidthFault,
  widthFaults,
} from '@tovel/core';
import { type RunningApp, runningApp } from './app_site.ts';
import type { DrawnPage, DrawOrder, Renderer, Site } from './renderer.ts';
import { plainPage } from './pages_site.ts';
import { sourcePage } from './source_site.ts';

export interface StoredFile {
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** The bytes of a kept file by its hash. */
export type FileStore = (hash: string) => Promise<StoredFile | null>;

/**
 * What a screen is compared with: its source, the picture that came with it, or what it is in another target: one of the plain
 * pages, or a screen of the app written in Vue.
 */
export const REFERENCES = ['source', 'picture', 'pages', 'vue'] as const;
export type ReferenceKind = (typeof REFERENCES)[number];

const DRAWN_ORIGIN = 'https://drawn.invalid';

/**
 * How a view was drawn: its source as a browser shows it, or the picture that came with it; or how it is in another
 * target. Where the source is no page, its elements are those that were read of it.
 * @throws Error in words where there is nothing to compare with
 */
export async function drawReference(
  renderer: Renderer,
  project: Project,
  view: View,
  files: FileStore,
  kind: ReferenceKind = 'source',
  signal?: AbortSignal,
): Promise<DrawnPage> {
  const drawing = screensByKey(project.design).get(view.drawing)!;
  if (kind === 'pages') {
    const page = plainPage(project, view.screen, files);
    if (!page) throw new Error(`“${drawing.name}” is on none of the plain pages.`);
    return renderer.draw({ ...page, ...sizeOf(view), withScripts: true, signal });
  }
  if (kind === 'vue') return drawRunning(renderer, await vueAppOf(project, files), project, view, { signal });
  const source =
    kind === 'source'
      ? sourcePage(project.design, drawing, async (hash) => (await files(hash))?.bytes ?? null)
      : null;
  const isPage = /\.x?html?$/i.test(drawing.source.file);
  const drawn = source && (await renderer.draw({ ...source, ...sizeOf(view), withScripts: false, signal }));
  if (drawn && isPage) return drawn;
  const elements = await renderer.draw({
    ...asDrawnPage(project, drawing, files),
    ...sizeOf(view),
    withScripts: false,
    signal,
  });
  if (drawn) return { png: drawn.png, rendering: elements.rendering };
  const asset = kind === 'picture' ? drawing.reference : (drawing.root.asset ?? drawing.reference);
  const picture = asset === undefined ? null : await files(asset);
  if (!picture)
    throw new Error(
      kind === 'picture'
        ? `No picture came along with “${drawing.name}” that says how it should look.`
        : `The file that “${drawing.name}” came from is not kept in this project. Bring it in again, or name its folder.`,
    );
  const shown = await renderer.draw({
    address: `${DRAWN_ORIGIN}/`,
    site: async ({ pathname }) =>
      pathname === '/picture'
        ? { type: picture.type, body: picture.bytes }
        : {
            type: 'text/html; charset=utf-8',
            body: '<!doctype html><body style="margin:0"><img src="/picture" style="display:block;max-width:100%" alt="">',
          },
    ...sizeOf(view),
    withScripts: false,
    signal,
  });
  return { png: shown.png, rendering: elements.rendering };
}

/** A screen as it was read, nothing decided, with the keys of its elements. */
function asDrawnPage(project: Project, drawing: Screen, files: FileStore): { address: string; site: Site } {
  const drawn = asDrawn({ ...project.design, screens: [drawing] });
  const html = printHtml(
    emitScreenOf(new EmissionPlan(drawn), drawing.key),
    (hash) => `/kept/${hash}`,
    drawn.design.fonts,
  );
  return {
    address: `${DRAWN_ORIGIN}/`,
    site: async ({ pathname }) => {
      if (pathname === '/') return { type: 'text/html; charset=utf-8', body: html };
      const kept = await files(pathname.replace(/^\/kept\//, ''));
      return kept && { type: kept.type, body: kept.bytes };
    },
  };
}

const inVue = new WeakMap<Project['app'], Promise<RunningApp>>();

/** The app that a project makes in Vue, built once for each state of it. */
function vueAppOf(project: Project, files: FileStore): Promise<RunningApp> {
  const known = inVue.get(project.app);
  if (known) return known;
  const made = runningApp(targets.vue.emit(project, 'Vue'), files);
  inVue.set(project.app, made);
  return made;
}

/** The app that a project makes, as it is delivered. */
export function appOf(project: Project, name: string, files: FileStore): Promise<RunningApp> {
  return runningApp(emitReact(project, name), files);
}

/** How a view looks in the running app. */
export function drawRunning(
  renderer: Renderer,
  app: RunningApp,
  project: Project,
  view: View,
  how: Pick<DrawOrder, 'signal' | 'before' | 'isMeasured'> = {},
): Promise<DrawnPage> {
  return renderer.draw({
    ...how,
    address: app.at(addressOfScreen(project, view.screen)),
    site: app.site,
    ...sizeOf(view),
    withScripts: true,
  });
}

/** Height in px of the windows of a sweep. */
const SWEPT_HEIGHT = 800;

/**
 * What is wrong with a screen at the widths of a sweep; a width at which it cannot be measured is said, and the others are looked at.
 * @param measure gives what a browser shows of the view
 * @param isEnd whether an error ends the sweep
 */
export async function sweepView(
  view: View,
  measure: (at: View) => Promise<DrawnPage>,
  isEnd: (error: unknown) => boolean = () => false,
): Promise<SweptScreen> {
  const problems: string[] = [];
  const byWidth = new Map<number, readonly WidthFault[]>();
  for (const width of SWEPT_WIDTHS)
    try {
      const { rendering } = await measure({ ...view, width, height: SWEPT_HEIGHT });
      byWidth.set(width, widthFaults(rendering));
    } catch (error) {
      if (isEnd(error)) throw error;
      problems.push(`At ${width} px: ${(error as Error).message}`);
    }
  return { screen: view.screen, faults: sweptFaults(byWidth), problems };
}

const sizeOf = ({ width, height }: View): { width: number; height: number } => ({ width, height });
