import {
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
  type ShippedFace,
  type ShippedSheet,
  type UtilityPlan,
  type WebFont,
} from '@tovel/core';
import { readPdf } from '@tovel/reader/pdf';
import { readTextLines, type Recogniser } from '@tovel/reader/text_lines';
import { expose } from 'comlink';

/** What only the page around the worker can do. */
export interface Surroundings {
  readPage(html: string, plan: ReadingPlan): Promise<PageReading>;
  compileUtilities(plan: UtilityPlan): Promise<string>;
  shippedFont(font: WebFont): Promise<readonly ShippedFace[]>;
  shippedSheet(address: PackageAddress): Promise<ShippedSheet | null>;
  shippedIcons(library: IconLibrary, names: readonly string[]): Promise<Readonly<Record<string, string>>>;
  recognise(png: Uint8Array): ReturnType<Recogniser['recognize']>;
  onProgress(progress: IntakeProgress): Promise<void>;
}

/** Reads a batch away from the interface. */
const intake = {
  async read(
    files: readonly InputFile[],
    there: Pick<IntakeOptions, 'taken' | 'known' | 'classes'>,
    around: Surroundings,
  ): Promise<IntakeResult> {
    const recogniser: Recogniser = { recognize: (png) => around.recognise(png as Uint8Array) };
    return readBatch(
      files,
      {
        readPage: (page, plan) => around.readPage(page.html, plan),
        addressOf: (asset, bytes) => URL.createObjectURL(new Blob([bytes as BlobPart], { type: asset.type })),
        compileUtilities: (plan) => around.compileUtilities(plan),
        shippedFont: (font) => around.shippedFont(font),
        shippedSheet: (address) => around.shippedSheet(address),
        shippedIcons: (library, names) => around.shippedIcons(library, names),
        decodePicture,
        readText: (pixels, isPlain) => readTextLines(recogniser, pixels, (png) => png, isPlain),
        readPdf: async (bytes) => readPdf(await pdfLibrary(), bytes),
      },
      { ...there, onProgress: (progress) => around.onProgress(progress) },
    );
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
