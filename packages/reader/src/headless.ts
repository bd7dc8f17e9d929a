import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { IntakeHost, PageReading, ReadingPlan } from '@tovel/core';
import { build } from 'esbuild';
import { type Browser, chromium, type Page } from 'playwright-core';

/** Where Chromium usually is; `TOVEL_CHROMIUM` names another place. */
const PLACES = [
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
  '/snap/bin/chromium',
];
const ARGUMENTS = [
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--hide-scrollbars',
];

export const findChromium = (): string | null =>
  [process.env.TOVEL_CHROMIUM, ...PLACES].find((place): place is string => !!place && existsSync(place)) ??
  null;

/** Reads pages in a headless Chromium, for where there is no browser of the user's. Started when first needed. */
export class HeadlessHost implements IntakeHost {
  #browser: Promise<{ browser: Browser; page: Page }> | null = null;

  async readPage(safe: { readonly html: string }, plan: ReadingPlan): Promise<PageReading> {
    this.#browser ??= launch();
    const { page } = await this.#browser;
    return page.evaluate(
      ([html, how]) =>
        (
          globalThis as unknown as { tovelReader: { read(h: string, p: ReadingPlan): Promise<PageReading> } }
        ).tovelReader.read(html, how),
      [safe.html, plan] as const,
    );
  }

  addressOf(asset: { readonly type: string }, bytes: Uint8Array): string {
    return `data:${asset.type};base64,${Buffer.from(bytes).toString('base64')}`;
  }

  async close(): Promise<void> {
    const started = this.#browser;
    this.#browser = null;
    if (started) await (await started).browser.close();
  }
}

async function launch(): Promise<{ browser: Browser; page: Page }> {
  const executablePath = findChromium();
  if (!executablePath)
    throw new Error(
      'Reading HTML needs Chromium: install the package "chromium", or set TOVEL_CHROMIUM to where it is.',
    );
  const browser = await chromium.launch({
    executablePath,
    chromiumSandbox: process.getuid?.() !== 0,
    args: ARGUMENTS,
  });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, offline: true });
  const page = await context.newPage();
  await page.setContent('<!doctype html><html><head></head><body></body></html>');
  await page.addScriptTag({ content: await readerScript() });
  return { browser, page };
}

/** The reader as one script for the page. */
async function readerScript(): Promise<string> {
  const result = await build({
    stdin: {
      contents:
        "import { FrameReader } from './frame_reader.ts'; globalThis.tovelReader = new FrameReader(document);",
      resolveDir: path.dirname(createRequire(import.meta.url).resolve('@tovel/reader')),
      loader: 'ts',
    },
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
  });
  return result.outputFiles[0].text;
}
