import {
  FirstScreens,
  type IconLibrary,
  type InputFile,
  type IntakeOptions,
  type IntakeProgress,
  type IntakeResult,
  type PackageAddress,
  type PageReading,
  type Pixels,
  readBatch,
  type ReadingPlan,
  type ReadSoFar,
  type ShippedFace,
  type ShippedSheet,
  type UtilityPlan,
  type WebFont,
} from '@tovel/core';
import { readPdf } from '@tovel/reader/pdf';
import { readTextLines, type Recogniser } from '@tovel/reader/text_lines';
import { expose } from 'comlink';
import { addressOfFile } from './shown_files';
import { ProjectTeller, type ToldProject } from '../project/told_project';

/** What only the page around the worker can do. */
export interface Surroundings {
  /** Keeps a file that pages may ask for by its address. */
  addFile(hash: string, file: Blob): Promise<void>;
  /** @returns what was read, as JSON */
  readPage(html: string, plan: ReadingPlan): Promise<string>;
  compileUtilities(plan: UtilityPlan): Promise<string>;
  shippedFont(font: WebFont): Promise<readonly ShippedFace[]>;
  shippedSheet(address: PackageAddress): Promise<ShippedSheet | null>;
  shippedIcons(library: IconLibrary, names: readonly string[]): Promise<Readonly<Record<string, string>>>;
  recognise(png: Uint8Array): ReturnType<Recogniser['recognize']>;
  onProgress(progress: IntakeProgress): Promise<void>;
  /** Told of the first screens as they come, with files that they show and that were not told before. */
  onArrived(told: ToldProject, files: readonly ArrivedFile[]): Promise<void>;
}

export interface ArrivedFile {
  readonly hash: string;
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** How long nothing is told at first, and after the last time, in ms; what takes long is told less often. */
const FIRST_MS = 500;
const LEAST_MS = 1500;
const SHARE = 4;

/** Tells of the first screens as they come, as often as somebody can follow, and so that reading is not held up. */
class Arrivals {
  readonly #around: Surroundings;
  readonly #first = new FirstScreens();
  readonly #teller = new ProjectTeller();
  readonly #told = new Set<string>();
  #hasTold = false;
  /** When it may be told next; never while it is. */
  #next = performance.now() + FIRST_MS;

  constructor(around: Surroundings) {
    this.#around = around;
  }

  hear(read: () => ReadSoFar): void {
    if (performance.now() >= this.#next) this.#tell(read());
  }

  /** All are read, and shown until they are taken in. Of a small batch nothing is told before that. */
  end(read: ReadSoFar): void {
    if (this.#hasTold) this.#tell(read);
  }

  #tell({ assets, bytes, ...rest }: ReadSoFar): void {
    const began = performance.now();
    this.#next = Infinity;
    this.#hasTold = true;
    const files = assets.flatMap(({ hash, type }): ArrivedFile[] => {
      const file = this.#told.has(hash) ? undefined : bytes.get(hash);
      this.#told.add(hash);
      return file ? [{ hash, type, bytes: file }] : [];
    });
    const told = this.#teller.tell(this.#first.soFar({ ...rest, assets, bytes }));
    const again = (): void => {
      const now = performance.now();
      this.#next = now + Math.max(LEAST_MS, (now - began) * SHARE);
    };
    // Files that did not get through are sent again with the batch.
    void this.#around.onArrived(told, files).then(again, again);
  }
}

/** So many pages are given to be read while one is; the same on every machine, so that what comes in does not depend on it. */
const READS_AHEAD = 4;

let isStopped = false;

/** Reads a batch away from the interface. */
const intake = {
  stop(): void {
    isStopped = true;
  },

  async read(
    files: readonly InputFile[],
    there: Pick<IntakeOptions, 'taken' | 'known' | 'classes' | 'only'>,
    isFirst: boolean,
    around: Surroundings,
  ): Promise<IntakeResult> {
    const arrivals = isFirst ? new Arrivals(around) : null;
    const recogniser: Recogniser = { recognize: (png) => around.recognise(png as Uint8Array) };
    const result = await readBatch(
      files,
      {
        readsAhead: READS_AHEAD,
        readPage: async (page, plan) => JSON.parse(await around.readPage(page.html, plan)) as PageReading,
        addressOf: ({ hash, type }, bytes) => {
          void around.addFile(hash, new Blob([bytes as BlobPart], { type }));
          return addressOfFile(hash);
        },
        compileUtilities: (plan) => around.compileUtilities(plan),
        shippedFont: (font) => around.shippedFont(font),
        shippedSheet: (address) => around.shippedSheet(address),
        shippedIcons: (library, names) => around.shippedIcons(library, names),
        decodePicture,
        readText: (pixels, isPlain) => readTextLines(recogniser, pixels, (png) => png, isPlain),
        readPdf: async (bytes) => readPdf(await pdfLibrary(), bytes),
      },
      {
        ...there,
        onProgress: (progress) => around.onProgress(progress),
        onScreens: (read) => arrivals?.hear(read),
        isCancelled: () => isStopped,
      },
    );
    if (result.screens.length) arrivals?.end(result);
    return result;
  },
};

async function decodePicture(bytes: Uint8Array, type: string): Promise<Pixels> {
  const bitmap = await createImageBitmap(new Blob([bytes as BlobPart], { type }));
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return context.getImageData(0, 0, canvas.width, canvas.height);
}

async function pdfLibrary(): Promise<typeof import('pdfjs-dist')> {
  const [pdfjs, { default: worker }] = await Promise.all([
    import('pdfjs-dist'),
    import('pdfjs-dist/build/pdf.worker.mjs?url'),
  ]);
  pdfjs.GlobalWorkerOptions.workerSrc = worker;
  return pdfjs;
}

export type IntakeWorker = typeof intake;

expose(intake);
