import { baseCss, type PageReading, PLACE_TAGS, type ReadingPlan } from '@tovel/core';
import { BareLook } from './computed.ts';
import { PageReader } from './page_reader.ts';

/** Nothing but pictures and fonts that came along, and the page's own styles. */
const policy = (assets: string): string =>
  `default-src 'none'; img-src data: blob: ${assets}; style-src 'unsafe-inline'; font-src data: blob: ${assets}`;
const ownHead = (assets: string): string =>
  `<meta http-equiv="Content-Security-Policy" content="${policy(assets)}"><style data-tovel-own>html{scrollbar-width:none}</style>`;

const sheetOf = (css: string, attribute = ''): string => css && `<style${attribute}>${css}</style>`;

/** What browsers make what says nothing of its size, in px. */
const UNSAID = { width: 300, height: 150 } as const;
const SIDES = ['width', 'height'] as const;

/** What an attribute of a tag says, where that is of the pattern as a whole, with the pattern's own groups behind it. */
const saidBy = (tag: string, name: string, pattern: string): RegExpExecArray | null =>
  new RegExp(`\\s${name}="(${pattern})"`, 'i').exec(tag);

/** Sizes by attributes are beneath all that the page says. */
const sizeRule = (which: string, css: string): string => `:where(${which}){${css}}`;

/** What browsers take as a number of px: what follows the digits is not looked at (HTML, 2.3.4.2). */
const DIGITS = ' *(\\d{1,5})(?!\\d)[^"<>\\\\\\n\\r\\f]{0,20}';

/**
 * Where no scripts run a canvas is no box of its own, but whatever is written in it for those who cannot see it. With them it is
 * as wide as it says, and in proportion as high: also where the page says how wide it is, and nothing more.
 */
function canvasSheet(html: string): string {
  const rules = new Map<string, string>();
  for (const [tag] of html.matchAll(/<canvas\b[^>]*>/gi)) {
    const size: { width: number; height: number } = { ...UNSAID };
    let which = 'canvas';
    for (const name of SIDES) {
      const said = saidBy(tag, name, DIGITS);
      if (!said) continue;
      size[name] = Number(said[2]);
      which += `[${name}="${said[1]}"]`;
    }
    const { width, height } = size;
    const high = width && height ? `aspect-ratio:${width}/${height};min-height:0` : `height:${height}px`;
    rules.set(which, sizeRule(which, `display:inline-block;width:${width}px;${high}`));
  }
  // Of two that are about one canvas the one that says more of it comes last.
  const conditions = (which: string): number => which.split('[').length;
  const sorted = [...rules].sort(([a], [b]) => conditions(a) - conditions(b));
  return sheetOf(sorted.map(([, rule]) => rule).join(''), ' data-tovel-own');
}

/** Places are as large as what they are kept for. */
function placeSheet(html: string): string {
  const all = PLACE_TAGS.join();
  const rules = new Set<string>();
  for (const [tag] of html.matchAll(new RegExp(`<(?:${PLACE_TAGS.join('|')})\\b[^>]*>`, 'gi'))) {
    rules.add(sizeRule(all, `display:inline-block;width:${UNSAID.width}px;height:${UNSAID.height}px`));
    for (const name of SIDES) {
      const said = saidBy(tag, name, '\\d{1,5}(?:\\.\\d+)?(?:px|%)?')?.[1];
      if (said !== undefined)
        rules.add(
          sizeRule(`:is(${all})[${name}="${said}"]`, `${name}:${/\d$/.test(said) ? `${said}px` : said}`),
        );
    }
  }
  return sheetOf([...rules].join(''));
}

/** With it a page is laid out by today's rules, whatever stands before it. */
const HAS_DOCTYPE = /^\s*(?:<!--[^]*?-->\s*)*<!doctype\s+html\s*>/i;

/** Loads sanitised pages into a frame that runs no scripts, one after the other, and reads them. */
export class FrameReader {
  readonly #document: Document;
  readonly #timeout: number;
  readonly #head: string;
  #bare: Promise<{ look: BareLook; frame: HTMLIFrameElement }> | null = null;

  /**
   * @param timeout milliseconds that a page may take to load.
   * @param assets an origin at which files that came along are shown, besides addresses that hold their own data.
   */
  constructor(document: Document, timeout = 20_000, assets = '') {
    this.#document = document;
    this.#timeout = timeout;
    this.#head = ownHead(assets);
  }

  /** @throws Error when the page does not load in time. */
  async read(html: string, plan: ReadingPlan): Promise<PageReading> {
    this.#bare ??= this.#load(
      `<!doctype html><html><head>${this.#head}<style>${baseCss}</style></head><body></body></html>`,
      800,
      600,
    ).then((frame) => ({ look: new BareLook(frame.contentDocument!), frame }));
    const { look } = await this.#bare;
    const withPolicy = html.replace(
      /<head[^>]*>/i,
      (head) => head + this.#head + canvasSheet(html) + placeSheet(html),
    );
    const frame = await this.#load(withPolicy, plan.widths[0], plan.height);
    try {
      await isSized(frame, plan.widths[0], plan.height);
      return new PageReader(frame.contentDocument!, look, plan, (width, height) => {
        frame.style.width = `${width}px`;
        frame.style.height = `${height}px`;
        // The page inside learns of its new size when this document is laid out.
        frame.getBoundingClientRect();
      }).read();
    } finally {
      frame.remove();
    }
  }

  /** Takes the frames out of the document. */
  dispose(): void {
    void this.#bare?.then(({ frame }) => frame.remove());
    this.#bare = null;
  }

  #load(html: string, width: number, height: number): Promise<HTMLIFrameElement> {
    const frame = this.#document.createElement('iframe');
    frame.setAttribute('sandbox', 'allow-same-origin');
    frame.setAttribute('aria-hidden', 'true');
    frame.tabIndex = -1;
    frame.style.cssText = `position:fixed;left:-20000px;top:0;border:0;width:${width}px;height:${height}px;pointer-events:none`;
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        frame.remove();
        reject(new Error(`The page did not finish loading within ${this.#timeout / 1000} seconds.`));
      }, this.#timeout);
      const hear = (): void => {
        frame.onload = () => {
          clearTimeout(timer);
          resolve(frame);
        };
      };
      if (HAS_DOCTYPE.test(html)) {
        frame.srcdoc = html;
        hear();
        this.#document.body.append(frame);
        return;
      }
      // What is given as a source is laid out as if it had a doctype; what is written is not.
      this.#document.body.append(frame);
      hear();
      const inner = frame.contentDocument!;
      inner.open();
      inner.write(html);
      inner.close();
    });
  }
}

/** So often it is looked whether a frame has its size, and so long between, in milliseconds. */
const LOOKS = 100;
const PAUSE = 10;

/**
 * Resolves when the page inside a frame knows the size of its window. On a busy machine it can have loaded before that,
 * and lengths in units of the window would be nothing. Timers also run in a tab that nobody sees, frames of animation do
 * not.
 */
async function isSized({ contentWindow }: HTMLIFrameElement, width: number, height: number): Promise<void> {
  for (let i = 0; i < LOOKS; i++) {
    if (contentWindow?.innerWidth === width && contentWindow.innerHeight === height) return;
    await new Promise((resolve) => setTimeout(resolve, PAUSE));
  }
}
