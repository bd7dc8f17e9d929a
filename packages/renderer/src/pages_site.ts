import { type App, type EmittedProject, type Project, targets, typeOfFile } from '@tovel/core';
import type { FileStore } from './draw_views.ts';
import type { Site } from './renderer.ts';

const ORIGIN = 'https://pages.invalid';

const written = new WeakMap<App, EmittedProject>();

/** The plain pages of a project, written once for each state of it. */
function pagesOf(project: Project): EmittedProject {
  let pages = written.get(project.app);
  if (!pages) written.set(project.app, (pages = targets.html.emit(project, 'Pages')));
  return pages;
}

/**
 * A screen as one of the plain pages that the project is written as, answered for as a file server does.
 * @returns null where the screen is on no page
 */
export function plainPage(
  project: Project,
  screen: string,
  files: FileStore,
): { readonly address: string; readonly site: Site } | null {
  const pages = pagesOf(project);
  const page = pages.fileOfScreen.get(screen);
  if (page === undefined || !page.endsWith('.html')) return null;
  const byPath = new Map(pages.files.map((file) => [file.path, file]));
  const site: Site = async ({ origin, pathname }) => {
    if (origin !== ORIGIN) return null;
    const asked = decodeURIComponent(pathname.slice(1));
    const name = asked === '' || asked.endsWith('/') ? `${asked}index.html` : asked;
    const file = byPath.get(name);
    if (!file) return null;
    if ('text' in file) return { type: `${typeOfFile(name)}; charset=utf-8`, body: file.text };
    const kept = await files(file.asset);
    return kept && { type: kept.type, body: kept.bytes };
  };
  return { address: `${ORIGIN}/${page.split('/').map(encodeURIComponent).join('/')}`, site };
}
