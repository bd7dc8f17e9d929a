/**
 * The delivered app in a browser, written as plain pages: how far its pages run over the window from 320 to 1600 px, how many
 * serious and critical things axe-core says of them that it does not say of their sources, how many pixels differ from the
 * picture of each screen, and how much JavaScript a page loads. `npm run bench -- pages [PACKAGE...]` measures others.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { deliveredCode, EmissionPlan, emitScreenOf, type InputFile, printHtml } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { launchChromium } from '@tovel/renderer/chromium';
import type { Page } from 'playwright-core';
import { bareName, installed } from './installed.ts';
import { partedPile, pileFiles } from './parted_pile.ts';
import { differing, serving } from './serving.ts';

const TO_DEVELOP = [
  'demo',
  'startbootstrap-sb-admin-2@4.1.4',
  'paper-dashboard@1.1.0',
  'black-dashboard@1.0.0',
];
const TO_MEASURE = [
  'startbootstrap-sb-admin@7.0.7',
  'soft-ui-dashboard@1.0.1',
  'startbootstrap-shop-homepage@5.0.6',
];
const WIDTHS = [320, 360, 390, 480, 600, 768, 900, 1024, 1280, 1440, 1600];

const wanted = process.argv.slice(2);
const packages = wanted.length ? wanted : [...TO_DEVELOP, ...TO_MEASURE];
const packaged = await installed([...packages.filter((name) => name !== 'demo'), 'axe-core@4']);
const axe = readFileSync(path.join(packaged.rootOf('axe-core@4'), 'axe.min.js'), 'utf8');
const host = new HeadlessHost();
const browser = await launchChromium('Measuring');
try {
  for (const name of packages) {
    const files = await pileFiles(name, packaged.rootOf);
    await measure(name, files);
  }
} finally {
  await browser.close();
  await host.close();
  await packaged.remove();
}

async function measure(name: string, source: readonly InputFile[]): Promise<void> {
  const { project, bytes: kept } = await partedPile(source, host);
  const { design } = project;
  const { files, fileOfScreen } = await deliveredCode(project, name, 'html');
  const plan = new EmissionPlan(project);
  const content = new Map<string, string | Uint8Array>(
    files.map((file) => [file.path, 'text' in file ? file.text : (kept.get(file.asset) ?? '')]),
  );
  for (const key of plan.screens)
    content.set(
      `pictures/${key}.html`,
      printHtml(emitScreenOf(plan, key), (hash) => `../assets/${hash}`, design.fonts, project.app.tokens),
    );
  const types = new Map(design.assets.map(({ hash, type }) => [`assets/${hash}`, type]));
  for (const { hash } of design.assets) content.set(`assets/${hash}`, kept.get(hash) ?? '');
  const sources = new Map(source.map((file) => [file.path, file.bytes]));
  const [site, drawn] = await Promise.all([serving(content, types), serving(sources, new Map())]);
  const context = await browser.newContext({ reducedMotion: 'reduce' });
  const still = await browser.newContext({ javaScriptEnabled: false });
  try {
    const tally = {
      wide: 0,
      beyond: 0,
      says: new Map<string, number>(),
      pixels: [] as number[],
      scripts: [] as number[],
    };
    for (const key of plan.screens) {
      const screen = design.screens.find((one) => one.key === key)!;
      const address = site.at(fileOfScreen.get(key)!.replace(/index\.html$/, ''));
      const page = await context.newPage();
      let bytes = 0;
      page.on('response', (response) => {
        const { pathname } = new URL(response.url());
        const file = content.get(pathname.slice(1));
        if (pathname.endsWith('.js') && file) bytes += file.length;
      });
      const runsOver = await overAt(page, address);
      tally.scripts.push(bytes);
      const ours = await saidOf(page, address);
      const isPage = /\.x?html?$/i.test(screen.source.file);
      const original = drawn.at(screen.source.file);
      // A source's own scripts are not what is measured.
      const theirPage = await context.newPage();
      await theirPage.route(/\.js(\?|$)/, (route) => route.abort());
      const theirs = isPage ? await saidOf(theirPage, original) : new Map<string, number>();
      const forced = new Set(isPage ? await overAt(theirPage, original) : []);
      const beyond = runsOver.filter((width) => !forced.has(width));
      if (runsOver.length) tally.wide++;
      if (beyond.length) {
        tally.beyond++;
        console.log(`    ${screen.source.file} runs over at ${beyond.join(', ')}, and its source does not`);
      }
      for (const [rule, count] of ours) {
        const more = count - (theirs.get(rule) ?? 0);
        // Colours and what is drawn as a progress are the design's.
        if (more > 0 && (isPage || rule !== 'color-contrast'))
          tally.says.set(rule, (tally.says.get(rule) ?? 0) + more);
      }
      const size = { width: isPage ? 1280 : screen.width, height: Math.min(screen.height, 1500) };
      tally.pixels.push(
        await differing(still, size, address, site.at(`pictures/${encodeURIComponent(key)}.html`)),
      );
      await Promise.all([page.close(), theirPage.close()]);
    }
    const half = TO_MEASURE.includes(name) ? 'to measure on' : 'to develop on';
    const said = [...tally.says].map(([rule, count]) => `${rule} ${count}`).join(', ') || 'nothing more';
    console.log(
      `  ${bareName(name)} (${half}): ${tally.wide} of ${plan.screens.length} pages run over the window, ${tally.beyond} of them where their source does not; axe beyond the source: ${said}; pixels at most ${Math.max(...tally.pixels).toFixed(2)} %; scripts ${(Math.max(...tally.scripts) / 1000).toFixed(1)} kB at most`,
    );
  } finally {
    await Promise.all([context.close(), still.close()]);
    site.server.close();
    drawn.server.close();
  }
}

/** The widths at which a page is wider than the window. */
async function overAt(page: Page, address: string): Promise<number[]> {
  const found: number[] = [];
  await page.setViewportSize({ width: WIDTHS[0], height: 800 });
  await page.goto(address, { waitUntil: 'load' });
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 800 });
    const over = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    if (over > 0) found.push(width);
  }
  return found;
}

/** Serious and critical things that axe-core says of a page, by rule. */
async function saidOf(page: Page, address: string): Promise<Map<string, number>> {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(address, { waitUntil: 'load' });
  await page.evaluate(axe);
  const found = await page.evaluate(async () => {
    const { violations } = await (
      globalThis as unknown as {
        axe: { run: () => Promise<{ violations: { id: string; impact: string; nodes: unknown[] }[] }> };
      }
    ).axe.run();
    return violations
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(({ id, nodes }) => [id, nodes.length] as const);
  });
  return new Map(found);
}
