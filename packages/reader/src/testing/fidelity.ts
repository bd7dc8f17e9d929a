import { mkdir, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import {
  addToDesign,
  applyChange,
  defaultPlan,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  type InputFile,
  printHtml,
  readBatch,
  type Screen,
  takeIn,
  walkElements,
  webFontsIn,
} from '@tovel/core';
import { HeadlessHost } from '../headless.ts';
import { shippedFont } from '@tovel/renderer/shipped/fonts';
import pixelmatch from 'pixelmatch';
import { launchChromium } from '@tovel/renderer/chromium';
import type { Page } from 'playwright-core';
import { PNG } from 'pngjs';

export interface FidelityRow {
  readonly file: string;
  readonly width: number;
  /** Share of pixels that differ, 0 to 1. */
  readonly share: number;
}

export interface Fidelity {
  readonly rows: readonly FidelityRow[];
  readonly elements: number;
  /** Milliseconds that reading all of the pages took. */
  readonly readingMs: number;
  /** Largest resident memory of this process meanwhile, in bytes. */
  readonly peakBytes: number;
}

const WIDTHS = [1280, 768, 390];

/**
 * Reads every screen of a batch and compares what is emitted with its source: both drawn by the same Chromium, scripts
 * off, full page, pixel by pixel (pixelmatch, threshold 0.1). Pages at three widths, drawings at their own.
 * @param folder where the files of the batch lie on disk.
 * @param pictures a folder for pictures of source, emitted screen and difference, side by side.
 */
export async function measureFidelity(
  files: readonly InputFile[],
  folder: string,
  pictures?: string,
): Promise<Fidelity> {
  const host = new HeadlessHost();
  let peakBytes = 0;
  // Starting the browser is not reading.
  await host.readPage({ html: '<!doctype html><html><head></head><body></body></html>' }, defaultPlan);
  const begin = performance.now();
  const result = await readBatch(files, host, {
    onProgress: () => void (peakBytes = Math.max(peakBytes, process.memoryUsage().rss)),
  });
  const readingMs = performance.now() - begin;
  await host.close();
  const design = addToDesign(emptyDesign, result);
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const plan = new EmissionPlan({ design, app });
  const dataUrl = (hash: string): string => {
    const asset = design.assets.find((candidate) => candidate.hash === hash)!;
    return `data:${asset.type};base64,${Buffer.from(result.bytes.get(hash)!).toString('base64')}`;
  };

  const browser = await launchChromium('Measuring', ['--allow-file-access-from-files']);
  const context = await browser.newContext({ javaScriptEnabled: false });
  // Nothing outside is reached; a font service is stood in for by the fonts that Tovel ships, where it has them.
  await context.route(/^https?:/, async (route) => {
    const css = await fontServiceCss(route.request().url());
    return css ? route.fulfill({ contentType: 'text/css', body: css }) : route.abort();
  });
  const page = await context.newPage();
  if (pictures) await mkdir(pictures, { recursive: true });
  const rows: FidelityRow[] = [];
  let elements = 0;
  for (const screen of design.screens) {
    walkElements(screen.root, () => void elements++);
    const html = printHtml(emitScreenOf(plan, screen.key), dataUrl, design.fonts);
    const isDrawing = !/\.x?html?$/.test(screen.source.file);
    for (const width of isDrawing ? [screen.width] : WIDTHS) {
      const height = isDrawing ? Math.min(Math.max(800, screen.height), 2000) : 800;
      await page.setViewportSize({ width, height });
      const drawn = await shoot(page, await addressOf(folder, screen));
      const emitted = await shoot(page, await pageAt(html));
      const out = pictures && path.join(pictures, `${screen.key}-${width}.png`);
      rows.push({ file: screen.source.file, width, share: await differing(drawn, emitted, out) });
    }
  }
  await browser.close();
  return { rows, elements, readingMs, peakBytes };
}

async function fontServiceCss(address: string): Promise<string> {
  const faces = await Promise.all(
    webFontsIn(address).map(async (font) => ({ font, files: await shippedFont(font) })),
  );
  return faces
    .flatMap(({ font, files }) =>
      files.map(
        (face) =>
          `@font-face{font-family:"${font.family}";font-weight:${face.weight};font-style:${face.style};src:url("data:${face.type};base64,${Buffer.from(face.bytes).toString('base64')}")${face.unicodeRange ? `;unicode-range:${face.unicodeRange}` : ''}}`,
      ),
    )
    .join('');
}

export async function shoot(page: Page, address: string): Promise<Buffer> {
  await page.goto(address, { waitUntil: 'load' });
  return page.screenshot({ fullPage: true, animations: 'disabled' });
}

export async function pageAt(html: string): Promise<string> {
  const file = path.join(tmpdir(), `tovel-fidelity-${process.pid}.html`);
  await writeFile(file, html);
  return `file://${file}`;
}

/** A drawing is shown within a page, since Chromium takes no screenshots of a bare one. */
async function addressOf(folder: string, screen: Screen): Promise<string> {
  const source = path.join(folder, screen.source.file);
  if (!source.endsWith('.svg')) return `file://${source}`;
  return pageAt(
    `<body style="margin:0"><object type="image/svg+xml" data="file://${source}" width="${screen.width}" height="${screen.height}" style="display:block"></object>`,
  );
}

/** The share of pixels that differ; sizes are padded with what cannot match. */
export async function differing(drawn: Buffer, emitted: Buffer, out?: string): Promise<number> {
  // Most are the same to the byte, and reading a picture takes longer than taking it.
  if (!out && drawn.equals(emitted)) return 0;
  const [a, b] = [PNG.sync.read(drawn), PNG.sync.read(emitted)];
  const [width, height] = [Math.max(a.width, b.width), Math.max(a.height, b.height)];
  const pad = (image: PNG, fill: number): PNG => {
    if (image.width === width && image.height === height) return image;
    const padded = new PNG({ width, height });
    padded.data.fill(fill);
    PNG.bitblt(image, padded, 0, 0, image.width, image.height, 0, 0);
    return padded;
  };
  const [left, right, diff] = [pad(a, 0), pad(b, 255), new PNG({ width, height })];
  const count = pixelmatch(left.data, right.data, diff.data, width, height, { threshold: 0.1 });
  if (out) {
    const side = new PNG({ width: width * 3, height });
    [left, right, diff].forEach((image, i) => PNG.bitblt(image, side, 0, 0, width, height, i * width, 0));
    await writeFile(out, PNG.sync.write(side));
  }
  return count / (width * height);
}

/** Prints a line for each screen: its difference at each width in percent; then the middle, the worst and the costs. */
export function printFidelity({ rows, elements, readingMs, peakBytes }: Fidelity): void {
  const percent = (share: number): string => `${(100 * share).toFixed(2)} %`;
  for (const file of new Set(rows.map((row) => row.file))) {
    const own = rows.filter((row) => row.file === file);
    console.log(
      `  ${file.padEnd(36)} ${own.map((row) => `${row.width}: ${percent(row.share).padStart(8)}`).join('   ')}`,
    );
  }
  const shares = rows.map((row) => row.share).sort((a, b) => a - b);
  console.log(
    `  median ${percent(shares[Math.floor(shares.length / 2)] ?? 0)}, worst ${percent(shares.at(-1) ?? 0)}; ` +
      `${elements} elements read, ${(readingMs / Math.max(elements, 1)).toFixed(2)} ms an element, ` +
      `peak memory ${Math.round(peakBytes / 2 ** 20)} MB`,
  );
}
