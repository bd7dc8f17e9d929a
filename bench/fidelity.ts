/**
 * How near the emitted screens come to their sources: both are drawn by the same Chromium and compared pixel by
 * pixel (pixelmatch, threshold 0.1, full page). Pages at three widths, drawings at their own.
 */
import { mkdir, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  printHtml,
  readBatch,
  type Screen,
  takeIn,
} from '@tovel/core';
import { findChromium, HeadlessHost } from '@tovel/reader/headless';
import pixelmatch from 'pixelmatch';
import { chromium } from 'playwright-core';
import { PNG } from 'pngjs';
import { folderFiles } from './inputs.ts';

const folder = path.resolve(process.argv[2] ?? 'demo/iteration-1');
const pictures = process.argv[3];

const files = await folderFiles(folder);
const host = new HeadlessHost();
const result = await readBatch(files, host);
await host.close();
const design = addToDesign(emptyDesign, result);
const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
const plan = new EmissionPlan({ design, app });

const browser = await chromium.launch({
  executablePath: findChromium()!,
  chromiumSandbox: process.getuid?.() !== 0,
  args: [
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--hide-scrollbars',
    '--allow-file-access-from-files',
  ],
});
const page = await browser.newPage();
if (pictures) await mkdir(pictures, { recursive: true });

for (const screen of design.screens) {
  const widths = screen.source.file.endsWith('.svg') ? [screen.width] : [1280, 768, 390];
  for (const width of widths) {
    await page.setViewportSize({
      width,
      height: Math.min(Math.max(800, screen.source.file.endsWith('.svg') ? screen.height : 800), 2000),
    });
    await page.goto(await addressOf(screen));
    const drawn = PNG.sync.read(await page.screenshot({ fullPage: true }));
    const html = printHtml(emitScreenOf(plan, screen.key), (hash) => {
      const bytes = result.bytes.get(hash)!;
      return `data:${design.assets.find((asset) => asset.hash === hash)!.type};base64,${Buffer.from(bytes).toString('base64')}`;
    });
    await page.goto('about:blank');
    await page.setContent(html);
    const emitted = PNG.sync.read(await page.screenshot({ fullPage: true }));
    const share = compare(drawn, emitted, pictures && path.join(pictures, `${screen.key}-${width}.png`));
    console.log(
      `${screen.source.file.padEnd(24)} ${String(width).padStart(5)}  ${(100 * share).toFixed(2).padStart(6)} %  heights ${drawn.height} ${emitted.height}`,
    );
  }
}
await browser.close();

/** A drawing is shown within a page, since Chromium takes no screenshots of a bare one. */
async function addressOf(screen: Screen): Promise<string> {
  const source = path.join(folder, screen.source.file);
  if (!source.endsWith('.svg')) return `file://${source}`;
  const wrapper = path.join(tmpdir(), `tovel-fidelity-${process.pid}.html`);
  await writeFile(
    wrapper,
    `<body style="margin:0"><object type="image/svg+xml" data="file://${source}" width="${screen.width}" height="${screen.height}" style="display:block"></object>`,
  );
  return `file://${wrapper}`;
}

/** The share of pixels that differ; sizes are padded with what cannot match. */
function compare(a: PNG, b: PNG, out?: string): number {
  const [width, height] = [Math.max(a.width, b.width), Math.max(a.height, b.height)];
  const pad = (image: PNG, fill: number): PNG => {
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
    void writeFile(out, PNG.sync.write(side));
  }
  return count / (width * height);
}
