import type { ReadingPlan } from '@tovel/core';
import { type Remote, wrap } from 'comlink';
import { PageReading } from './page_reading';
import type { ReaderFrame } from './reader_frame';
import { filesIn } from './shown_files';

/** So many pages are read side by side at most: each takes the memory of a process of the browser. */
const MOST = 4;
/** How long a page that reads may take to be there, in ms. */
const PATIENCE = 5000;

/** Where pages are read: beside this document where the browser can, else in it. */
interface Reader {
  readonly read: (html: string, plan: ReadingPlan, files: ReadonlyMap<string, Blob>) => Promise<string>;
  readonly given: Set<string>;
  readonly end: () => void;
}

/**
 * Reads pages of a batch side by side, in documents of hosts of their own: a browser gives each host a process, so that reading
 * uses all of the machine and holds nobody up, and what is read is kept apart from the application. Where such hosts cannot be
 * reached pages are read in this document, one after the other.
 */
export class PageReaders {
  readonly #files = new Map<string, Blob>();
  readonly #free: Reader[] = [];
  readonly #all: Reader[] = [];
  readonly #waiting: ((reader: Reader) => void)[] = [];
  readonly #most: number;
  #opened = 0;
  #isOver = false;

  constructor(most = Math.min(MOST, navigator.hardwareConcurrency || 1)) {
    this.#most = most;
  }

  /** Keeps a file that pages may ask for. */
  add(hash: string, file: Blob): void {
    this.#files.set(hash, file);
  }

  /** @returns what was read, as JSON; rejects when that takes too long */
  async read(html: string, plan: ReadingPlan): Promise<string> {
    const reader = await this.#take();
    try {
      const files = new Map<string, Blob>();
      for (const hash of filesIn(html)) {
        const file = this.#files.get(hash);
        if (!file || reader.given.has(hash)) continue;
        reader.given.add(hash);
        files.set(hash, file);
      }
      return await reader.read(html, plan, files);
    } finally {
      this.#give(reader);
    }
  }

  dispose(): void {
    this.#isOver = true;
    for (const reader of this.#all) reader.end();
  }

  #take(): Promise<Reader> {
    const free = this.#free.pop();
    if (free) return Promise.resolve(free);
    if (this.#opened < this.#most) void this.#open(this.#opened++);
    return new Promise((resolve) => this.#waiting.push(resolve));
  }

  #give(reader: Reader): void {
    const next = this.#waiting.shift();
    if (next) next(reader);
    else this.#free.push(reader);
  }

  async #open(number: number): Promise<void> {
    const beside = await openBeside(number + 1);
    // One reads in this document where none can beside it.
    const reader = beside ?? (number === 0 ? here() : null);
    if (!reader) return;
    if (this.#isOver) return reader.end();
    this.#all.push(reader);
    this.#give(reader);
  }
}

function here(): Reader {
  const reading = new PageReading();
  return {
    read: (html, plan, files) => reading.read(html, plan, files),
    given: new Set(),
    end: () => reading.dispose(),
  };
}

/** A document of a host of its own that reads pages; null where there is none. */
async function openBeside(number: number): Promise<Reader | null> {
  const { hostname, port, protocol } = location;
  if (protocol !== 'http:' || !['127.0.0.1', 'localhost'].includes(hostname)) return null;
  const origin = `http://reader-${number}.localhost:${port}`;
  const frame = document.createElement('iframe');
  frame.setAttribute('aria-hidden', 'true');
  frame.tabIndex = -1;
  // Within the window, so that the browser does not put it off as something that nobody sees.
  frame.style.cssText =
    'position:fixed;left:0;bottom:0;width:1px;height:1px;border:0;opacity:0;pointer-events:none';
  frame.src = `${origin}/reader.html`;
  const remote = new Promise<Remote<ReaderFrame>>((resolve) => {
    frame.onload = () => {
      const { port1, port2 } = new MessageChannel();
      frame.contentWindow?.postMessage('read', origin, [port2]);
      resolve(wrap<ReaderFrame>(port1));
    };
  });
  document.body.append(frame);
  const isThere = await Promise.race([
    remote.then((there) => there.isThere()),
    new Promise<false>((resolve) => setTimeout(() => resolve(false), PATIENCE)),
  ]);
  if (!isThere) {
    frame.remove();
    return null;
  }
  const { read } = await remote;
  return { read, given: new Set(), end: () => frame.remove() };
}
