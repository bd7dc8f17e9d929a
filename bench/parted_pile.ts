/** A pile as a project is when its screens first come in: with the layouts and components that are surely there. */
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  type InputFile,
  partedAtFirst,
  type Project,
  readBatch,
  takeIn,
} from '@tovel/core';
import type { HeadlessHost } from '@tovel/reader/headless';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';
import { templateFiles } from './revisions/prepare.ts';

/** The files of the demo, or of a template by the folder that it lies in. */
export const pileFiles = (name: string, rootOf: (name: string) => string): Promise<readonly InputFile[]> =>
  name === 'demo' ? folderFiles(path.resolve('demo/iteration-1')) : templateFiles(rootOf(name));

export async function partedPile(
  source: readonly InputFile[],
  host: HeadlessHost,
): Promise<{ readonly project: Project; readonly bytes: ReadonlyMap<string, Uint8Array> }> {
  const read = await readBatch(source, host, { widths: [1280, 390] });
  const design = addToDesign(emptyDesign, read);
  const raw = { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens)) };
  return {
    project: { design, app: applyChange(raw.app, partedAtFirst(raw)) },
    bytes: read.bytes,
  };
}
