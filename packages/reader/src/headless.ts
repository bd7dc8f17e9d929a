import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import type {
  IconLibrary,
  IntakeHost,
  PackageAddress,
  PageReading,
  PaintedPage,
  Pixels,
  ReadingPlan,
  ShippedFace,
  ShippedSheet,
  TextLine,
  UtilityPlan,
  WebFont,
} from '@tovel/core';
import { pageScript } from '@tovel/renderer/page_script';
import type { Browser, Page } from 'playwright-core';
import { createWorker } from 'tesseract.js';
import { readPdf } from './pdf/read_pdf.ts';
import { ReadingPages } from './reading_pages.ts';
import { shippedFont } from '@tovel/renderer/shipped/fonts';
import { shippedIcons } from '@tovel/renderer/shipped/icons';
import { shippedSheet } from '@tovel/renderer/shipped/sheets';
import { type Recogniser, readTextLines } from './text_lines.ts';
import { compileUtilities } from '@tovel/renderer/shipped/utilities';

/** Where the browser finds the files of a batch; no such host exists. */
const ASSETS = 'https://assets.invalid';

/** How many pages are read at once at most: each costs the memory of a process of the browser. */
const MOST_AT_ONCE = 4;

/** All that intake needs, for where there is no browser of the user's: a headless Chromium, started when first needed. */
export class HeadlessHost implements IntakeHost {
  /** The same on every machine, so that what comes in does not depend on it. */
  readonly readsAhead = MOST_AT_ONCE;
  readonly #pages = new ReadingPages(
    'Reading HTML',
    Math.min(os.availableParallelism(), MOST_AT_ONCE),
    (browser) => this.#prepare(browser),
  );
  readonly #shown = new Map<string, { readonly type: string; readonly bytes: Uint8Array }>();
  #recogniser: Promise<Recogniser & { terminate(): Promise<unknown> }> | null = null;

  async readPage(safe: { readonly html: string }, plan: ReadingPlan): Promise<PageReading> {
    const json = await this.#pages.use(async (page) => {
      // As text: a tree of values takes longer to cross than to read.
      const read = await page.evaluate(
        ([html, how]) =>
          (
            globalThis as unknown as {
              tovelReader: { read(h: string, p: ReadingPlan): Promise<PageReading> };
            }
          ).tovelReader
            .read(html, how)
            .then((reading) => JSON.stringify(reading)),
        [safe.html, plan] as const,
      );
      // What the page left behind would stay until the browser runs short of memory.
      await page.requestGC();
      return read;
    });
    return JSON.parse(json) as PageReading;
  }

  addressOf(asset: { readonly hash: string; readonly type: string }, bytes: Uint8Array): string {
    this.#shown.set(asset.hash, { type: asset.type, bytes });
    return `${ASSETS}/${asset.hash}`;
  }

  compileUtilities(plan: UtilityPlan): Promise<string> {
    return compileUtilities(plan);
  }

  shippedSheet(address: PackageAddress): Promise<ShippedSheet | null> {
    return shippedSheet(address);
  }

  shippedIcons(library: IconLibrary, names: readonly string[]): Promise<Readonly<Record<string, string>>> {
    return shippedIcons(library, names);
  }

  shippedFont(font: WebFont): Promise<readonly ShippedFace[]> {
    return shippedFont(font);
  }

  async readPdf(bytes: Uint8Array): Promise<readonly PaintedPage[]> {
    return readPdf(await import('pdfjs-dist/legacy/build/pdf.mjs'), bytes);
  }

  async decodePicture(bytes: Uint8Array, type: string): Promise<Pixels> {
    const address = `data:${type};base64,${Buffer.from(bytes).toString('base64')}`;
    const made = await this.#pages.use((page) => page.evaluate(decodeInPage, address));
    return { ...made, data: new Uint8Array(Buffer.from(made.data, 'base64')) };
  }

  async readText(pixels: Pixels, isPlain?: boolean): Promise<readonly TextLine[]> {
    this.#recogniser ??= startRecogniser();
    return readTextLines(await this.#recogniser, pixels, (png) => Buffer.from(png), isPlain);
  }

  async #prepare(browser: Browser): Promise<Page> {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    // Nothing is reached but the files that came along, and these are not fetched from anywhere.
    await context.route('**', async (route) => {
      const asset = this.#shown.get(
        route
          .request()
          .url()
          .slice(ASSETS.length + 1),
      );
      if (!asset) return route.abort();
      return route.fulfill({
        body: Buffer.from(asset.bytes),
        contentType: asset.type,
        headers: { 'access-control-allow-origin': '*' },
      });
    });
    const page = await context.newPage();
    await page.setContent('<!doctype html><html><head></head><body></body></html>');
    await page.addScriptTag({ content: await readerScript() });
    return page;
  }

  async close(): Promise<void> {
    const recogniser = this.#recogniser;
    this.#recogniser = null;
    if (recogniser) await (await recogniser).terminate();
    await this.#pages.close();
  }
}

/** Reads with the English data that is in the package; nothing is fetched. */
function startRecogniser(): Promise<Recogniser & { terminate(): Promise<unknown> }> {
  const data = path.dirname(createRequire(import.meta.url).resolve('@tesseract.js-data/eng/package.json'));
  return createWorker('eng', 1, {
    langPath: path.join(data, '4.0.0_best_int'),
    gzip: true,
    cacheMethod: 'none',
  }) as unknown as Promise<Recogniser & { terminate(): Promise<unknown> }>;
}

/* Runs in the page. */
async function decodeInPage(address: string): Promise<{ width: number; height: number; data: string }> {
  const image = new Image();
  image.src = address;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = image.naturalWidth;
  canvas.height = image.naturalHeight;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
  const parts: string[] = [];
  for (let i = 0; i < data.length; i += 0x8000)
    parts.push(String.fromCharCode(...data.subarray(i, i + 0x8000)));
  return { width, height, data: btoa(parts.join('')) };
}

/** The reader as one script for the page; put together once for all that read at the same time. */
let reader: Promise<string> | null = null;
const readerScript = (): Promise<string> =>
  (reader ??= pageScript(
    `import { FrameReader } from './frame_reader.ts'; globalThis.tovelReader = new FrameReader(document, 20_000, ${JSON.stringify(ASSETS)});`,
    path.dirname(createRequire(import.meta.url).resolve('@tovel/reader')),
  ));
