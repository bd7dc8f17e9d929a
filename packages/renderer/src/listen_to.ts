import { createRequire } from 'node:module';
import { readFile } from 'node:fs/promises';
import type { HeardContrast, HeardPage, HeardStop } from '@tovel/core';
import type { Page } from 'playwright-core';
import type { Listening } from './in_page/listening.ts';
import { listeningScript } from './in_page_scripts.ts';

/** Presses of the Tab key at most, and elements whose contrast is looked at under the pointer. */
const MOST_STOPS = 150;
const MOST_HOVERED = 40;
/** Presses that stay within one element. */
const MOST_WITHIN = 8;

declare const tovelListening: Listening;

let axe: Promise<string> | null = null;
const axeScript = (): Promise<string> =>
  (axe ??= readFile(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8'));

/**
 * Listens to a page: what axe-core says of it, where the Tab key comes to and what is read out there, its headings and landmarks,
 * and the contrast of what has the focus or is under the pointer. It is left as it was but for what pointing does to it.
 */
export async function listenTo(page: Page): Promise<HeardPage> {
  await page.evaluate(await axeScript());
  await page.evaluate(await listeningScript());
  const [rules, headings, landmarks, reachable] = [
    await page.evaluate(() => tovelListening.rules()),
    await page.evaluate(() => tovelListening.headings()),
    await page.evaluate(() => tovelListening.landmarks()),
    await page.evaluate(() => tovelListening.reachable()),
  ];
  const contrasts: HeardContrast[] = [];
  const stops: HeardStop[] = [];
  const numbers: number[] = [];
  let isTrapped = false;
  let within = 0;
  for (let i = 0; i < MOST_STOPS; i++) {
    await page.keyboard.press('Tab');
    const found = await page.evaluate(() => tovelListening.stop());
    if (!found) break;
    const { number, ...stop } = found;
    // Fields of dates and times have stops within.
    if (number === numbers.at(-1) && ++within <= MOST_WITHIN) continue;
    within = 0;
    if (numbers.includes(number)) {
      // From the last one around to the first, or around among a few of many.
      isTrapped = number !== numbers[0] || numbers.length < Math.min(reachable, MOST_STOPS) / 2;
      break;
    }
    numbers.push(number);
    stops.push(stop);
    const contrast = await page.evaluate((which) => tovelListening.contrast(which, 'focus'), number);
    if (contrast) contrasts.push(contrast);
  }
  await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
    window.scrollTo(0, 0);
  });
  const { width } = page.viewportSize() ?? { width: 0 };
  for (const [i, { box }] of stops.slice(0, MOST_HOVERED).entries()) {
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    if (x < 0 || x >= width) continue;
    await page.evaluate((to) => window.scrollTo(0, Math.max(0, to)), y - 200);
    const scrolled = await page.evaluate(() => window.scrollY);
    await page.mouse.move(x, y - scrolled);
    const contrast = await page.evaluate((which) => tovelListening.contrast(which, 'hover'), numbers[i]);
    if (contrast) contrasts.push(contrast);
  }
  await page.mouse.move(0, 0);
  await page.evaluate(() => window.scrollTo(0, 0));
  return { rules, stops, isTrapped, headings, landmarks, contrasts };
}
