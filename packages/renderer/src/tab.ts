import { setTimeout as wait } from 'node:timers/promises';
import type { Rendering } from '@tovel/core';
import type { Browser, BrowserContext, Page, Route } from 'playwright-core';
import type { DrawnPage, DrawOrder } from './renderer.ts';

/** Milliseconds that a page may take to load before it is drawn as it is. */
const LOADING = 10_000;
/** Milliseconds without a request after which a page has all that it asks for. */
const QUIET = 60;
/** The highest page that is drawn whole, in px. */
const HIGHEST = 16_000;
/**
 * What foreign pages may not do. Scripts are not turned off in the browser: then nobody could look at the page, either. What older
 * pages ask for without a secure connection is asked for with one, since browsers block it otherwise.
 */
const FOREIGN = "script-src 'none'; object-src 'none'; frame-src http: https:; upgrade-insecure-requests";

/** A tab of the browser, which draws one page after another. */
export class Tab {
  readonly #context: BrowserContext;
  readonly #page: Page;
  readonly #script: string;
  #order: DrawOrder | null = null;
  #problems: string[] = [];
  /** Addresses that nothing was found under. */
  readonly #missing = new Set<string>();
  /** What the page has asked for: how much is not answered yet, and when the last answer was given, in ms. */
  #open = 0;
  /** Whether the page that is to be drawn was asked for. */
  #isLoaded = false;
  #last = 0;

  private constructor(context: BrowserContext, page: Page, script: string) {
    this.#context = context;
    this.#page = page;
    this.#script = script;
    page.on('pageerror', (error) => this.#problems.push(`A script failed: ${error.message.slice(0, 300)}`));
  }

  /** @param script what reads a drawn page */
  static async in(browser: Browser, script: string): Promise<Tab> {
    const context = await browser.newContext({
      reducedMotion: 'reduce',
      acceptDownloads: false,
      serviceWorkers: 'block',
    });
    const tab = new Tab(context, await context.newPage(), script);
    await context.route('**', (route) => tab.#answer(route));
    return tab;
  }

  async draw(order: DrawOrder): Promise<DrawnPage> {
    const page = this.#page;
    this.#order = order;
    this.#problems = [];
    this.#missing.clear();
    this.#isLoaded = false;
    await page.setViewportSize({ width: order.width, height: order.height });
    await page.goto(order.address, { waitUntil: 'load', timeout: LOADING }).catch((error: Error) => {
      if (!/Timeout/.test(error.message)) throw new Error(`The page cannot be loaded: ${plain(error)}`);
      this.#problems.push(`The page did not finish loading within ${LOADING / 1000} seconds.`);
    });
    if (order.withScripts) await this.#quiet();
    await order.before?.(page);
    await page.evaluate(settledInPage);
    // What a page puts the focus on by itself is not what was drawn.
    if (!order.withScripts) await page.evaluate(blurInPage);
    const json = await page.evaluate(
      `${this.#script}; JSON.stringify(globalThis.tovelRendering(new Set(${JSON.stringify([...this.#missing])}), ${!order.withScripts}))`,
    );
    const read = JSON.parse(json as string) as Omit<Rendering, 'problems'>;
    const height = Math.min(HIGHEST, Math.max(order.height, read.height));
    if (read.height > HIGHEST)
      this.#problems.push(`The page is ${read.height} px high; the first ${HIGHEST} are drawn.`);
    const png = order.isMeasured
      ? new Uint8Array()
      : await page.screenshot({
          fullPage: true,
          animations: 'disabled',
          caret: 'hide',
          clip: { x: 0, y: 0, width: order.width, height },
        });
    const problems = this.#problems;
    if (order.withScripts) await page.evaluate(forgetInPage);
    this.#order = null;
    return { png: new Uint8Array(png), rendering: { ...read, problems } };
  }

  async close(): Promise<void> {
    await this.#context.close().catch(() => {});
  }

  async #answer(route: Route): Promise<void> {
    const order = this.#order;
    const request = route.request();
    if (!order) return route.abort().catch(() => {});
    // A foreign page is looked at where it is, wherever it would go by itself.
    const isLeaving = request.isNavigationRequest() && !request.frame().parentFrame() && this.#isLoaded;
    if (isLeaving && !order.withScripts) return route.abort('aborted').catch(() => {});
    if (request.isNavigationRequest()) this.#isLoaded = true;
    this.#open++;
    const answer = await order
      .site(new URL(request.url()), { method: request.method(), body: request.postData() })
      .catch(() => null);
    this.#open--;
    this.#last = performance.now();
    // Pages in frames of foreign pages stay empty, as they do in the app: a browser would say there that they are blocked.
    const isFramed = request.isNavigationRequest() && request.frame().parentFrame();
    if (isFramed && !order.withScripts && !answer?.type.includes('svg'))
      return route.fulfill({ contentType: 'text/html', body: '' }).catch(() => {});
    // A page that was left has nobody to answer.
    if (!answer) {
      this.#missing.add(request.url());
      return route.abort().catch(() => {});
    }
    return route
      .fulfill({
        status: answer.status ?? 200,
        contentType: answer.type,
        headers: {
          'access-control-allow-origin': '*',
          ...(order.withScripts ? {} : { 'content-security-policy': FOREIGN }),
          ...answer.headers,
        },
        body: typeof answer.body === 'string' ? answer.body : Buffer.from(answer.body),
      })
      .catch(() => {});
  }

  /** Waits until scripts have shown something, and have asked for nothing for a while. */
  async #quiet(): Promise<void> {
    const began = performance.now();
    while (performance.now() - began < LOADING) {
      const isQuiet = this.#open === 0 && performance.now() - this.#last > QUIET;
      if (isQuiet && (await this.#page.evaluate(showsInPage))) return;
      await wait(15);
    }
    this.#problems.push(`The app showed nothing within ${LOADING / 1000} seconds.`);
  }
}

const plain = (error: Error): string => error.message.split('\n')[0].replace(/^page\.goto: /, '');

/* Runs in the page. */
function blurInPage(): void {
  const { document } = globalThis as unknown as { document: Document };
  (document.activeElement as HTMLElement | null)?.blur();
}

/* Runs in the page. */
function showsInPage(): boolean {
  const { document } = globalThis as unknown as { document: Document };
  return document.body.querySelector('body > * > *, body > main, body > img') !== null;
}

/* Runs in the page: fonts and pictures are there, and it was laid out once more. */
async function settledInPage(): Promise<void> {
  const { document } = globalThis as unknown as { document: Document };
  await Promise.race([document.fonts.ready, new Promise((resolve) => setTimeout(resolve, 3000))]);
  await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
}

/* Runs in the page: the next one shall find nothing of it. */
function forgetInPage(): void {
  localStorage.clear();
  sessionStorage.clear();
}
