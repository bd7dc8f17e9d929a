import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import type { InputFile } from '@tovel/core';

/** All files of a folder as a batch, with their paths within it. */
export async function folderFiles(folder: string): Promise<InputFile[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  return Promise.all(
    entries
      .filter((entry) => entry.isFile())
      .map(async (entry) => {
        const full = path.join(entry.parentPath, entry.name);
        return {
          path: path.relative(folder, full).split(path.sep).join('/'),
          bytes: new Uint8Array(await readFile(full)),
        };
      }),
  );
}
