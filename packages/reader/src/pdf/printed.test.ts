import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  type IntakeResult,
  printHtml,
  readBatch,
  takeIn,
  textOf,
  walkElements,
} from '@tovel/core';
import { launchChromium } from '@tovel/renderer/chromium';
import type { Browser, Page } from 'playwright-core';
import { HeadlessHost } from '../headless.ts';
import { differing } from '../testing/fidelity.ts';

/** What browsers print in ways of their own: gradients, shadows, round corners, clips, turned text, pictures, faded groups. */
const PAGE = `<!doctype html><title>Shed</title><style>
  body { margin: 0; width: 1000px; font: 16px "Liberation Sans", Arial, sans-serif; background: #eef1ec; color: #23302a }
  header { height: 120px; padding: 20px 40px; background: linear-gradient(120deg, #17402f, #5c8f6b); color: #fff }
  header h1 { font-size: 32px; margin: 0 }
  .card { width: 400px; margin: 40px; padding: 20px; background: #fff; border-radius: 10px; box-shadow: 0 6px 24px rgb(0 0 0 / .25); overflow: hidden }
  .card div { margin: -20px -20px 20px; padding: 16px 20px; background: #dfe7dd }
  .pill { display: inline-block; padding: 8px 24px; border: 2px solid #17402f; border-radius: 20px; color: inherit }
  .pale { opacity: .4 }
  .round { width: 80px; height: 80px; border-radius: 50%; object-fit: cover; display: block }
  .shade { width: 300px; height: 60px; background: linear-gradient(to right, #c0392b, #f1c40f) }
</style>
<header><h1>The shed by the mill</h1><p>Tools that neighbours share</p></header>
<div class="card"><div>Hedge trimmer</div><p>Lent until Friday, and back by noon.</p><a class="pill" href="loans.html">Lend it</a></div>
<p class="pale" style="margin: 20px 40px">Seen less</p>
<img class="round" style="margin: 20px 40px" src="data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='160' height='80'%3E%3Crect width='80' height='80' fill='%23c55'/%3E%3Crect x='80' width='80' height='80' fill='%2355c'/%3E%3C/svg%3E">
<svg width="40" height="40" style="margin: 0 40px; display: block"><path d="M4 36L20 4L36 36Z" fill="#17402f"/><path d="M12 30H28" stroke="#fff" stroke-width="3"/></svg>
<div class="shade" style="margin: 20px 40px"></div>
<footer style="margin: 500px 40px 60px">Down to here</footer>`;

const host = new HeadlessHost();
let browser: Browser;
let page: Page;
let height = 0;

beforeAll(async () => {
  browser = await launchChromium('Printing');
  page = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  await page.emulateMedia({ media: 'screen' });
  await page.setViewportSize({ width: 1000, height: 900 });
  // From a file, as links lead somewhere only from there.
  const file = path.join(tmpdir(), `tovel-printed-${process.pid}.html`);
  await writeFile(file, PAGE);
  await page.goto(`file://${file}`);
  height = await page.locator('html').evaluate((html) => html.scrollHeight);
}, 60_000);

afterAll(async () => {
  await browser.close();
  await host.close();
});

async function printed(paper: number): Promise<IntakeResult> {
  const margin = { top: 0, right: 0, bottom: 0, left: 0 };
  const bytes = await page.pdf({ width: '1000px', height: `${paper}px`, printBackground: true, margin });
  return readBatch([{ path: 'shed.pdf', bytes: new Uint8Array(bytes) }], host);
}

function textsOf({ screens }: IntakeResult): string[] {
  const texts: string[] = [];
  for (const { root } of screens)
    walkElements(root, (element) => {
      if (element.text) texts.push(textOf(element));
    });
  return texts;
}

test('a page that a browser printed looks as the page does, with its words and where they lead', async () => {
  const result = await printed(height + 1);
  expect(result.notices.filter(({ level }) => level !== 'info')).toEqual([]);
  expect(textsOf(result)).toEqual([
    'The shed by the mill',
    'Tools that neighbours share',
    'Hedge trimmer',
    'Lent until Friday, and back by noon.',
    'Lend it',
    'Seen less',
    'Down to here',
  ]);
  const [screen] = result.screens;
  expect(screen.width).toBe(1000);
  const looks: Readonly<Record<string, string>>[] = [];
  const hrefs: string[] = [];
  walkElements(screen.root, ({ style, attributes }) => {
    looks.push(style.base);
    if (attributes?.href) hrefs.push(attributes.href);
  });
  expect(hrefs).toEqual(['loans.html']);
  expect(looks.filter((look) => look['box-shadow']).length).toBe(1);
  expect(looks.filter((look) => look['background-image']?.startsWith('linear-gradient')).length).toBe(2);

  const design = addToDesign(emptyDesign, result);
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const html = printHtml(
    emitScreenOf(new EmissionPlan({ design, app }), screen.key),
    (hash) => `data:image/png;base64,${Buffer.from(result.bytes.get(hash)!).toString('base64')}`,
    design.fonts,
  );
  const drawn = await page.screenshot({ fullPage: true, animations: 'disabled' });
  const emitted = await browser.newPage({ viewport: { width: 1000, height: 900 } });
  await emitted.setContent(html);
  const picture = await emitted.screenshot({ fullPage: true, animations: 'disabled' });
  await emitted.close();
  expect(await differing(drawn, picture)).toBeLessThan(0.01);
}, 60_000);

test('pages of paper that it was cut into are one screen again', async () => {
  const result = await printed(700);
  expect(result.screens.length).toBe(1);
  expect(textsOf(result).at(-1)).toBe('Down to here');
  expect(result.notices.map(({ code }) => code)).toContain('pages-joined');
}, 60_000);
