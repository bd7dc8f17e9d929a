import type { CauseOptions } from './causes.ts';
import type { RenderedElement } from './rendering.ts';
import { counterpartsOf } from '../counterparts/merge.ts';
import { defaultPlan } from '../intake/html/reading.ts';
import { emptyApp, type App } from '../model/app.ts';
import type { Design, Screen } from '../model/design.ts';
import { parseEditKey } from '../model/edit_key.ts';
import { isUsed, orderedScreens, type Project, screensByKey, walkElements } from '../model/project.ts';
import { fillRoute } from '../paths/pattern.ts';
import { takeIn } from '../project/take_in.ts';
import { applyChange } from '../change/change.ts';

/** A screen at a width for which there is something to compare it with. */
export interface View {
  /** Key of the screen in the app. */
  readonly screen: string;
  /** Key of the drawing that says how it should look: its own, or a counterpart for this width. */
  readonly drawing: string;
  /** Of the window, in CSS px. */
  readonly width: number;
  readonly height: number;
}

/** Widths at which pages are compared where nobody says which. */
export const COMPARED_WIDTHS: readonly number[] = [1280, 768, 390];
/** The highest window in px; higher drawings are scrolled. */
const HIGHEST = 2000;

const isPage = (screen: Pick<Screen, 'source'>): boolean => /\.x?html?$/i.test(screen.source.file);

/**
 * What can be compared: pages at each of the widths, drawings at their own, and counterparts at theirs. Overlays have no address
 * of their own, and are left out.
 */
export function viewsOf(project: Project, widths: readonly number[] = COMPARED_WIDTHS): View[] {
  const drawings = screensByKey(project.design);
  const counterparts = counterpartsOf(project.app, drawings);
  return orderedScreens(project.app).flatMap((key) => {
    const screen = drawings.get(key);
    if (!screen || !isUsed(project, key)) return [];
    const others = (counterparts.get(key) ?? []).flatMap(
      ({ screen: { key: other } }) => drawings.get(other) ?? [],
    );
    return [screen, ...others].flatMap((drawing) =>
      (isPage(drawing) && drawing === screen ? widths : [Math.round(drawing.width)]).map((width) => ({
        screen: key,
        drawing: drawing.key,
        width,
        height: isPage(drawing) ? defaultPlan.height : windowOf(drawing),
      })),
    );
  });
}

const windowOf = ({ height }: Screen): number =>
  Math.min(HIGHEST, Math.max(defaultPlan.height, Math.round(height)));

/** The address in the app at which a screen is shown, with its own values of parameters. */
export function addressOfScreen({ app }: Project, screen: string): string {
  const { route, params = {} } = app.screens[screen];
  return fillRoute(route, params);
}

/** A project in which nothing is decided: all screens as they were drawn. */
export function asDrawn(design: Design): Project {
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  return { design, app };
}

/** What is known of a drawing when causes are told: which element a place in its file is, and what was decided about it. */
export function causeOptions(
  { app }: { readonly app: Pick<App, 'edits' | 'layers'> },
  drawing: Screen,
): CauseOptions {
  const keys = new Map<string, string>();
  walkElements(drawing.root, ({ key, source }) => void keys.set(source.path, key));
  const decided = decisionsIn(app);
  return {
    keyOf: ({ path }: RenderedElement) => keys.get(path) ?? null,
    isDecided: (element, property) =>
      decided.has(`${element}|${property}`) || isLeftOut(app, element, property),
  };
}

function decisionsIn({ edits }: Pick<App, 'edits'>): Set<string> {
  const found = new Set<string>();
  for (const key of Object.keys(edits)) {
    const edit = parseEditKey(key);
    if (edit) found.add(`${edit.element}|${edit.property}`);
  }
  return found;
}

/** What somebody left out is missing because they said so. */
const isLeftOut = (app: Pick<App, 'layers'>, element: string, property: string): boolean =>
  property === 'missing' && app.layers[element]?.show === false;
