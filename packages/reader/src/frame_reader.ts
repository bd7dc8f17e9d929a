import { baseCss, type PageReading, type ReadingPlan } from '@tovel/core';
import { BareLook } from './computed.ts';
import { PageReader } from './page_reader.ts';

/** Nothing but pictures and fonts that are part of the page itself, and its own styles. */
const POLICY = "default-src 'none'; img-src data: blob:; style-src 'unsafe-inline'; font-src data: blob:";
const OWN = `<meta http-equiv="Content-Security-Policy" content="${POLICY}"><style data-tovel-own>html{scrollbar-width:none}</style>`;

/** Loads sanitised pages into a frame that runs no scripts, one after the other, and reads them. */
export class FrameReader {
  readonly #document: Document;
  readonly #timeout: number;
  #bare: Promise<{ look: BareLook; frame: HTMLIFrameElement }> | null = null;

  /** @param timeout milliseconds that a page may take to load. */
  constructor(document: Document, timeout = 20_000) {
    this.#document = document;
    this.#timeout = timeout;
  }

  /** @throws Error when the page does not load in time. */
  async read(html: string, plan: ReadingPlan): Promise<PageReading> {
    this.#bare ??= this.#load(
      `<!doctype html><html><head>${OWN}<style>${baseCss}</style></head><body></body></html>`,
      800,
      600,
    ).then((frame) => ({ look: new BareLook(frame.contentDocument!), frame }));
    const { look } = await this.#bare;
    const withPolicy = html.replace(/<head[^>]*>/i, (head) => head + OWN);
    const frame = await this.#load(withPolicy, plan.widths[0], plan.height);
    try {
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
    frame.srcdoc = html;
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        frame.remove();
        reject(new Error(`The page did not finish loading within ${this.#timeout / 1000} seconds.`));
      }, this.#timeout);
      frame.onload = () => {
        clearTimeout(timer);
        resolve(frame);
      };
      this.#document.body.append(frame);
    });
  }
}
