import type { Recogniser } from '@tovel/reader/text_lines';
import type { Worker as TesseractWorker } from 'tesseract.js';

/** Reads text in pictures, in a worker of its own that is started when it is first needed. All of it comes from here. */
export class TextRecogniser {
  #worker: Promise<TesseractWorker> | null = null;

  async recognise(png: Uint8Array): Promise<Awaited<ReturnType<Recogniser['recognize']>>> {
    this.#worker ??= import('tesseract.js').then(({ createWorker }) =>
      createWorker('eng', 1, {
        workerPath: '/ocr/program/worker.min.js',
        corePath: '/ocr/core',
        langPath: '/ocr/data',
        workerBlobURL: false,
        gzip: true,
        cacheMethod: 'none',
      }),
    );
    const worker = await this.#worker;
    const { data } = await worker.recognize(
      new Blob([png as BlobPart], { type: 'image/png' }),
      {},
      { blocks: true, text: false },
    );
    return { data: { blocks: data.blocks } };
  }

  dispose(): void {
    void this.#worker?.then((worker) => worker.terminate());
    this.#worker = null;
  }
}
