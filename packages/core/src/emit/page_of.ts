import { settle } from '../layers/settle.ts';
import { type Project, screenName, screensByKey } from '../model/project.ts';
import { printHtml, windowHeightOf } from './html/print_html.ts';
import { emitScreenOf, type EmissionPlan } from './form/plan.ts';

/** A screen as a page of its own, and how large it is, in px. */
export interface PageOf {
  readonly html: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
}

/** A screen of a project as a page of its own; null where the app does not have it. */
export function pageOf(
  project: Project,
  emission: EmissionPlan,
  key: string,
  assetUrl: (hash: string) => string,
): PageOf | null {
  const screen = screensByKey(settle(project).design).get(key);
  if (!screen) return null;
  const { fonts } = project.design;
  const emitted = emitScreenOf(emission, key);
  const html = printHtml(emitted, assetUrl, fonts, project.app.tokens, windowHeightOf(screen));
  return { html, name: screenName(project, key), width: screen.width, height: screen.height };
}
