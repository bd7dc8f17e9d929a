import { limits, type PaintedPage } from '@tovel/core';
import type * as PdfJs from 'pdfjs-dist';
import { PageWalk } from './page_walk.ts';

/**
 * Reads what the pages of a PDF paint: text as text, drawings as paths, pictures as PNG. Lengths are in points, as in the
 * file; what one px is, is told from all of the pages.
 * @param pdfjs the library as built for where this runs.
 * @throws Error for what is not a PDF or is locked with a password.
 */
export async function readPdf(pdfjs: typeof PdfJs, bytes: Uint8Array): Promise<PaintedPage[]> {
  const task = pdfjs.getDocument({
    // The library keeps what it is given for itself.
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    isOffscreenCanvasSupported: false,
    isImageDecoderSupported: false,
    maxImageSize: limits.pixels,
    verbosity: 0,
  });
  try {
    const document = await task.promise;
    if (document.numPages > limits.pages)
      throw new Error(`it has ${document.numPages} pages; at most ${limits.pages} are read`);
    const isPrinted = isOfBrowser(((await document.getMetadata()).info ?? {}) as Record<string, unknown>);
    const pages: PaintedPage[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      pages.push({ ...(await new PageWalk(pdfjs, page).read()), ...(isPrinted ? { isPrinted } : {}) });
      page.cleanup();
    }
    return pages;
  } catch (error) {
    if ((error as Error).name === 'PasswordException') throw new Error('it is locked with a password');
    throw error;
  } finally {
    await task.destroy();
  }
}

/** Browsers sign what they print as they sign what they ask for. */
const isOfBrowser = ({ Creator }: Record<string, unknown>): boolean =>
  typeof Creator === 'string' && /^Mozilla\b/.test(Creator);
