import type { ReadingPlan } from '@tovel/core';
import { FrameReader } from '@tovel/reader';
import { ShownFiles } from './shown_files';

/** Reads pages, one after the other, in frames of one document. */
export class PageReading {
  readonly #reader = new FrameReader(document);
  readonly #files = new ShownFiles();

  /**
   * @param files what of the page's files was not given to this document before, by hash
   * @returns what was read, as JSON: a tree of values takes longer to cross than to read
   */
  async read(html: string, plan: ReadingPlan, files: ReadonlyMap<string, Blob>): Promise<string> {
    for (const [hash, file] of files) this.#files.add(hash, file);
    const reading = await this.#reader.read(this.#files.shownIn(html), plan);
    return this.#files.asCame(JSON.stringify(reading));
  }

  dispose(): void {
    this.#reader.dispose();
    this.#files.dispose();
  }
}
