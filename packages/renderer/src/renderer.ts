import { createRequire } from 'node:module';
import path from 'node:path';
import type { Rendering } from '@tovel/core';
import type { Browser, Page } from 'playwright-core';
import { launchChromium } from './chromium.ts';
import { pageScript } from './page_script.ts';
import { Tab } from './tab.ts';

/** What a page asks for under an address; null for what is not there. */
export type Site = (address: URL, request: SiteRequest) => Promise<SiteAnswer | null>;

export interface SiteRequest {
  readonly method: string;
  readonly body: string | null;
}

export interface SiteAnswer {
  readonly type: string;
  readonly body: string | Uint8Array;
  readonly status?: number;
  readonly headers?: Readonly<Record<string, string>>;
}

export interface DrawOrder {
  readonly address: string;
  /** What answers; nothing else is reached. */
  readonly site: Site;
  /** Of the window, in CSS px. */
  readonly width: number;
  readonly height: number;
  /** Whether scripts of the page run: of what was generated, never of what came in. */
  readonly withScripts: boolean;
  /** Whether it is only measured, and no picture is taken. */
  readonly isMeasured?: boolean;
  readonly signal?: AbortSignal | undefined;
  /** Done to the page before it is looked at. */
  readonly before?: ((page: Page) => Promise<void>) | undefined;
}

export interface DrawnPage {
  /** Of the whole page; empty where it was only measured. */
  readonly png: Uint8Array;
  readonly rendering: Rendering;
}

/** Milliseconds after which a page is given up. */
const LONGEST = 45_000;
/** All that is not answered in this process goes to a place where nobody listens, connections made in advance included. */
const NO_NETWORK = ['--proxy-server=127.0.0.1:9', '--proxy-bypass-list=<-loopback>'];
/** Pages that are drawn at once. */
const AT_ONCE = 2;

/**
 * Draws pages in one headless Chromium, at most two at a time; the others wait their turn. A browser that died is started again for
 * the next.
 */
export class Renderer {
  #browser: Promise<Browser> | null = null;
  #script: Promise<string> | null = null;
  #tabs: Tab[] = [];
  #busy = 0;
  readonly #waiting: (() => void)[] = [];

  /** How many pages wait for their turn. */
  get waiting(): number {
    return this.#waiting.length;
  }

  /**
   * Draws a page and reads what is drawn. One that does not finish loading is drawn as far as it is, and says so.
   * @throws Error in words where nothing could be drawn; the signal's reason where nobody waits for it any more
   */
  async draw(order: DrawOrder): Promise<DrawnPage> {
    await this.#turn(order.signal);
    try {
      return await this.#drawNow(order);
    } finally {
      this.#busy--;
      this.#waiting.shift()?.();
    }
  }

  async close(): Promise<void> {
    const browser = this.#browser;
    this.#browser = null;
    this.#tabs = [];
    await (await browser?.catch(() => null))?.close();
  }

  async #turn(signal?: AbortSignal): Promise<void> {
    signal?.throwIfAborted();
    while (this.#busy >= AT_ONCE) {
      await new Promise<void>((resolve) => {
        const go = (): void => {
          signal?.removeEventListener('abort', leave);
          resolve();
        };
        const leave = (): void => {
          this.#waiting.splice(this.#waiting.indexOf(go), 1);
          resolve();
        };
        this.#waiting.push(go);
        signal?.addEventListener('abort', leave, { once: true });
      });
      signal?.throwIfAborted();
    }
    this.#busy++;
  }

  async #drawNow(order: DrawOrder): Promise<DrawnPage> {
    const browser = await this.#started();
    const tab = this.#tabs.pop() ?? (await Tab.in(browser, await (this.#script ??= readerScript())));
    let stop = (): void => {};
    const ended = new Promise<never>((_, reject) => {
      const late = setTimeout(
        () => reject(new Error(`The page could not be drawn within ${LONGEST / 1000} seconds.`)),
        LONGEST,
      );
      const leave = (): void => reject(order.signal!.reason as Error);
      const die = (): void =>
        reject(new Error('The browser that draws pages ended while it drew. Ask again.'));
      if (order.signal?.aborted) leave();
      order.signal?.addEventListener('abort', leave, { once: true });
      browser.once('disconnected', die);
      stop = () => {
        clearTimeout(late);
        order.signal?.removeEventListener('abort', leave);
        browser.off('disconnected', die);
      };
    });
    try {
      const drawn = await Promise.race([tab.draw(order), ended]);
      this.#tabs.push(tab);
      return drawn;
    } catch (error) {
      // What hangs in it would hang in the next, too.
      void tab.close();
      throw error;
    } finally {
      stop();
    }
  }

  #started(): Promise<Browser> {
    this.#browser ??= launchChromium('Drawing pages', NO_NETWORK).then(
      (browser) => {
        browser.on('disconnected', () => {
          this.#browser = null;
          this.#tabs = [];
        });
        return browser;
      },
      (error: unknown) => {
        this.#browser = null;
        throw error;
      },
    );
    return this.#browser;
  }
}

/** What reads a drawn page, as one script. */
const readerScript = (): Promise<string> =>
  pageScript(
    `import { readRendering } from './read_rendering.ts';
import { showAwaited } from './in_page/awaited.ts';
import { drawCurtains } from './in_page/curtains.ts';
import { hold, settle } from './in_page/stillness.ts';
import { hideWindowBars } from './in_page/window_bars.ts';
globalThis.tovelRendering = (missing, isForeign) => {
  settle(document);
  hold(document);
  // Where its scripts do not run nothing else takes away what lies over it, or shows what waits for them.
  if (isForeign) {
    hideWindowBars(document);
    drawCurtains(document);
    showAwaited(document);
  }
  return readRendering(document, missing);
};`,
    path.dirname(createRequire(import.meta.url).resolve('@tovel/renderer')),
  );
