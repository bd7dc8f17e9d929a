/**
 * How long after an edit in Run the running app shows it, as a person sees it: the whole server, the whole interface and a
 * browser, from the key that ends the edit until the frame has drawn it. Beside it the same app loaded anew, which sets the
 * scale. `npm run bench -- drawn [SCREENS...]`; the web application has to be built.
 */
import { packProject } from '@tovel/core';
import { launchChromium } from '@tovel/renderer/chromium';
import type { Frame, Page } from 'playwright-core';
import { projectOf } from './many_screens.ts';
import { RunningServer } from './running_server.ts';

const EDITS = 15;
/** Between one edit and the next, in ms: what follows from one is done before a person makes another. */
const REST = 1000;

const middle = (times: readonly number[]): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** Milliseconds until the frame shows a text, since a moment by the clock of the machine. */
const shownAfter = (frame: Frame, text: string, since: number): Promise<number> =>
  frame.evaluate(
    ([wanted, begun]) =>
      new Promise<number>((resolve) => {
        if (document.querySelector('h1')?.textContent === wanted)
          return resolve(performance.timeOrigin + performance.now() - begun);
        new MutationObserver((_, observer) => {
          if (document.querySelector('h1')?.textContent !== wanted) return;
          observer.disconnect();
          // What is in the page now is drawn in the next frame.
          requestAnimationFrame(() => resolve(performance.timeOrigin + performance.now() - begun));
        }).observe(document.body, { childList: true, subtree: true, characterData: true });
      }),
    [text, since] as const,
  );

async function measured(page: Page, server: RunningServer, count: number): Promise<string[]> {
  const project = await projectOf(count);
  const bytes = packProject({ ...project, name: `Of ${count}`, bytes: new Map() });
  const opened = await fetch(`${server.base}/api/projects/open?name=Of${count}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: bytes as Uint8Array<ArrayBuffer>,
  });
  const { id } = (await opened.json()) as { id: string };
  const heading = Object.values(project.app.screens).find(({ name }) => name.startsWith('Members'))!;
  await page.goto(`${server.base}/p/${id}/run?at=${encodeURIComponent(heading.route)}&width=1280`);
  const app = page.frameLocator('iframe[title="The running app"]');
  await app.getByRole('heading', { level: 1 }).waitFor({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Adapt' }).click();
  await app.getByRole('heading', { level: 1 }).click();
  const field = page.getByRole('complementary', { name: 'Adapt' }).getByRole('textbox', { name: 'Text' });
  const frame = page.frames().find((one) => one.url().includes(`/${id}${heading.route}`))!;
  const times: number[] = [];
  for (let i = 0; i <= EDITS; i++) {
    await field.fill(`Members, ${i}`);
    const since = Date.now();
    const shown = shownAfter(frame, `Members, ${i}`, since);
    const [time] = await Promise.all([shown, page.keyboard.press('Enter')]);
    if (i) times.push(time);
    await new Promise((resolve) => setTimeout(resolve, REST));
  }
  const since = Date.now();
  await page.getByRole('button', { name: 'Reload' }).click();
  await frame.waitForFunction((begun) => performance.timeOrigin > begun, since);
  const anew = await shownAfter(frame, `Members, ${EDITS}`, since);
  return [`${middle(times).toFixed(0)} ms`, `${Math.max(...times).toFixed(0)} ms`, `${anew.toFixed(0)} ms`];
}

const server = await new RunningServer().start();
const browser = await launchChromium('Measuring', []);
try {
  const page = await browser.newPage({ viewport: { width: 1600, height: 900 } });
  console.log('screens   edit to drawn, middle   longest   loaded anew');
  const sizes = process.argv.slice(2).map(Number);
  for (const count of sizes.length ? sizes : [20, 200]) {
    const [usual, longest, anew] = await measured(page, server, count);
    console.log(String(count).padEnd(9), usual.padStart(22), longest.padStart(9), anew.padStart(13));
  }
} finally {
  await browser.close();
  await server.dispose();
}
