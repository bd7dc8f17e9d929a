import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, rm, rmdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { Misuse } from './command.ts';
import { systemErrorInWords } from './system_errors.ts';

/** Where files lie while they are exchanged, and what was done so far. */
const WORK = '.tovel/writing';

interface Journal {
  /** Paths that are exchanged, and whether a file was there. */
  readonly files: readonly { readonly path: string; readonly was: boolean }[];
}

/**
 * Writes and takes away files, all of them or none: they are written beside first, then exchanged, and where anything fails what
 * was exchanged is put back.
 * @param writes bytes by path, null for what is taken away
 * @throws Misuse with what the file system says, after all is as it was
 */
export async function writeTogether(
  folder: string,
  writes: ReadonlyMap<string, Uint8Array | null>,
): Promise<void> {
  const wasThere = existsSync(folder);
  const work = path.join(folder, WORK);
  const journal: Journal = {
    files: [...writes.keys()].map((file) => ({ path: file, was: existsSync(path.join(folder, file)) })),
  };
  try {
    await mkdir(work, { recursive: true });
    for (const [file, bytes] of writes) if (bytes) await put(path.join(work, 'new', file), bytes);
    await put(path.join(work, 'journal.json'), new TextEncoder().encode(JSON.stringify(journal)));
    for (const [file, bytes] of writes) {
      const at = path.join(folder, file);
      if (existsSync(at)) await move(at, path.join(work, 'old', file));
      if (bytes) await move(path.join(work, 'new', file), at);
    }
  } catch (error) {
    await finishWriting(folder);
    if (!wasThere) await rm(folder, { recursive: true, force: true });
    const said = systemErrorInWords(error);
    throw said === null ? error : new Misuse(`${said} Nothing was written: ${folder} is as it was.`);
  }
  await rm(work, { recursive: true, force: true });
  await dropEmpty(folder, '.tovel');
  for (const [file, bytes] of writes) if (!bytes) await dropEmpty(folder, path.dirname(file));
}

/**
 * Puts back what a delivery had exchanged that ended in the middle.
 * @returns whether there was one
 */
export async function finishWriting(folder: string): Promise<boolean> {
  const work = path.join(folder, WORK);
  if (!existsSync(work)) return false;
  const journal = await readFile(path.join(work, 'journal.json'), 'utf8').catch(() => null);
  if (journal !== null)
    for (const { path: file, was } of (JSON.parse(journal) as Journal).files) {
      const old = path.join(work, 'old', file);
      if (existsSync(old)) await move(old, path.join(folder, file));
      // It is new if it is not waiting any more.
      else if (!was && !existsSync(path.join(work, 'new', file)))
        await rm(path.join(folder, file), { force: true });
      if (!was) await dropEmpty(folder, path.dirname(file));
    }
  await rm(work, { recursive: true, force: true });
  await dropEmpty(folder, '.tovel');
  return true;
}

async function put(file: string, bytes: Uint8Array): Promise<void> {
  await mkdir(path.dirname(file), { recursive: true });
  await writeFile(file, bytes);
}

async function move(from: string, to: string): Promise<void> {
  await mkdir(path.dirname(to), { recursive: true });
  await rename(from, to);
}

/** Takes folders away that hold nothing any more, upwards. */
async function dropEmpty(folder: string, at: string): Promise<void> {
  for (let inner = at; inner !== '.' && inner !== ''; inner = path.dirname(inner))
    try {
      await rmdir(path.join(folder, inner));
    } catch {
      return;
    }
}
