import {
  type InputFile,
  type IntakeProgress,
  type IntakeResult,
  type PageReading,
  readBatch,
  type ReadingPlan,
} from '@tovel/core';
import { expose } from 'comlink';

let isCancelled = false;

/** Reads a batch away from the interface. Only pages go back there, since a worker cannot lay them out. */
const intake = {
  async read(
    files: readonly InputFile[],
    takenKeys: readonly string[],
    readPage: (html: string, plan: ReadingPlan) => Promise<PageReading>,
    onProgress: (progress: IntakeProgress) => Promise<void>,
  ): Promise<IntakeResult> {
    isCancelled = false;
    return readBatch(
      files,
      {
        readPage: (page, plan) => readPage(page.html, plan),
        addressOf: (asset, bytes) => URL.createObjectURL(new Blob([bytes as BlobPart], { type: asset.type })),
      },
      { takenKeys, onProgress, isCancelled: () => isCancelled },
    );
  },
  cancel(): void {
    isCancelled = true;
  },
};

export type IntakeWorker = typeof intake;

expose(intake);
