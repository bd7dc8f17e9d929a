import type { Notice, Screen } from '../../model/design.ts';
import { textOf, walkElements } from '../../model/project.ts';
import { baseName, type InputFile } from '../files.ts';
import { movedPage } from '../painted/moved.ts';
import type { PaintedPage } from '../painted/painted_page.ts';
import { pixelScale } from '../painted/pixel_scale.ts';
import { screensOfPages } from '../painted/join_pages.ts';
import { readPainted } from '../painted/read_painted.ts';

export interface PdfContext {
  /** The key of the screen that a page becomes, by the page's number from 0. */
  readonly screenKey: (page: string) => string;
  readonly keep: (picture: InputFile) => string;
}

/** Makes a screen of each page. */
export function readPdfPages(
  file: InputFile,
  pages: readonly PaintedPage[],
  context: PdfContext,
): { screens: Screen[]; notices: Notice[] } {
  const screens: Screen[] = [];
  const notices: Notice[] = [];
  const scale = pixelScale(pages);
  const inPixels = scale === 1 ? pages : pages.map((page) => movedPage(page, scale));
  const parts = screensOfPages(
    inPixels,
    pages.some(({ isPrinted }) => isPrinted),
  );
  if (parts.length < pages.length)
    notices.push({
      level: 'info',
      code: 'pages-joined',
      file: file.path,
      message: `Its ${pages.length} pages are one long screen that was cut for paper, and were put together again.`,
    });
  parts.forEach((page, i) => {
    const path = parts.length > 1 ? String(i) : '';
    const made = readPainted({
      file: file.path,
      path,
      name: parts.length > 1 ? `${baseName(file.path)} ${i + 1}` : baseName(file.path),
      screenKey: context.screenKey(path),
      page,
      keep: (png, at) => context.keep({ path: `${file.path}#${i + 1}-${at}.png`, bytes: png }),
    });
    notices.push(
      ...made.notices.map((notice) => ({
        ...notice,
        ...(parts.length > 1 ? { message: `Page ${i + 1}: ${notice.message}` } : {}),
      })),
    );
    if (made.screen) screens.push({ ...made.screen, name: headingOf(made.screen) ?? made.screen.name });
  });
  return { screens, notices };
}

/** The heading that reading found, where it is short enough for a name. */
function headingOf(screen: Screen): string | null {
  let heading: string | null = null;
  walkElements(screen.root, (element) => {
    if (heading === null && element.tag === 'h1') heading = textOf(element).replace(/\s+/g, ' ');
    return heading === null;
  });
  return heading && (heading as string).length <= 60 ? heading : null;
}
