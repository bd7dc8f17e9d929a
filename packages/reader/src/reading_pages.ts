import { launchChromium } from '@tovel/renderer/chromium';
import type { Browser, Page } from 'playwright-core';

interface Lane {
  page: Promise<Page> | null;
  isBusy: boolean;
}

/**
 * Pages of one headless browser that work side by side, each in a process of its own. The browser is started when
 * first needed; what died is started anew, so that one page never costs the next.
 */
export class ReadingPages {
  readonly #why: string;
  readonly #prepare: (browser: Browser) => Promise<Page>;
  readonly #lanes: readonly Lane[];
  readonly #waiting: (() => void)[] = [];
  readonly #dead = new WeakSet<Page>();
  #browser: Promise<Browser> | null = null;
  /** What was under way when the browser died is done again one after the other: one of them was the cause. */
  #again: Promise<unknown> = Promise.resolve();

  /**
   * @param why what the browser is needed for, in words for whoever has none.
   * @param size how many pages work at once.
   * @param prepare makes a page that is ready to work.
   */
  constructor(why: string, size: number, prepare: (browser: Browser) => Promise<Page>) {
    this.#why = why;
    this.#prepare = prepare;
    this.#lanes = Array.from({ length: size }, () => ({ page: null, isBusy: false }));
  }

  /** Does something in a page that nobody else uses meanwhile, as soon as there is one. */
  async use<T>(work: (page: Page) => Promise<T>): Promise<T> {
    const lane = await this.#take();
    try {
      try {
        return await this.#workIn(lane, work);
      } catch (error) {
        if ((await this.#browser)?.isConnected() !== false) throw error;
        const again = this.#again.then(() => this.#workIn(lane, work));
        this.#again = again.catch(() => undefined);
        return await again;
      }
    } finally {
      lane.isBusy = false;
      this.#waiting.shift()?.();
    }
  }

  async close(): Promise<void> {
    const started = this.#browser;
    this.#browser = null;
    for (const lane of this.#lanes) lane.page = null;
    // What could not be started has been said by what asked for it, and leaves nothing to close.
    await started?.then((browser) => browser.close()).catch(() => undefined);
  }

  async #workIn<T>(lane: Lane, work: (page: Page) => Promise<T>): Promise<T> {
    const page = await this.#pageOf(lane);
    try {
      return await work(page);
    } catch (error) {
      // May be said before the page's own event comes.
      if (/Target crashed/.test((error as Error).message)) this.#dead.add(page);
      throw error;
    }
  }

  async #take(): Promise<Lane> {
    for (;;) {
      const free = this.#lanes.find((lane) => !lane.isBusy);
      if (free) {
        free.isBusy = true;
        return free;
      }
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    }
  }

  async #pageOf(lane: Lane): Promise<Page> {
    const known = await lane.page?.catch(() => null);
    if (known && this.#isAlive(known)) return known;
    await known
      ?.context()
      .close()
      .catch(() => undefined);
    lane.page = this.#open();
    return lane.page;
  }

  async #open(): Promise<Page> {
    const page = await this.#prepare(await this.#running());
    page.on('crash', () => this.#dead.add(page));
    return page;
  }

  #isAlive(page: Page): boolean {
    return !this.#dead.has(page) && !page.isClosed() && page.context().browser()?.isConnected() === true;
  }

  async #running(): Promise<Browser> {
    const asked = (this.#browser ??= launchChromium(this.#why));
    const browser = await asked;
    if (browser.isConnected()) return browser;
    if (this.#browser === asked) this.#browser = launchChromium(this.#why);
    return this.#browser!;
  }
}
