import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import type { InputFile } from '@tovel/core';

/** All files of a folder as a batch. */
export async function folderFiles(folder: string): Promise<InputFile[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  const files = entries
    .filter((entry) => entry.isFile())
    .map((entry) => path.join(entry.parentPath, entry.name));
  return Promise.all(
    files.sort().map(async (file) => ({
      path: path.relative(folder, file),
      bytes: new Uint8Array(await readFile(file)),
    })),
  );
}
