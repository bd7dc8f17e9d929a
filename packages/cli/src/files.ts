import { mkdir, readdir, readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import {
  ArchiveError,
  type Design,
  elementsByKey,
  type InputFile,
  installedFiles,
  limits,
  megabytes,
  parseDesign,
  type ProjectArchive,
  screenWith,
  unpackProject,
} from '@tovel/core';
import { Misuse, type Output } from './command.ts';

/**
 * Reads files and folders into a batch; paths are relative to the folder that was named. Of installed packages only what pages
 * use comes along.
 */
export async function readInputs(paths: readonly string[], output: Output): Promise<InputFile[]> {
  const files: InputFile[] = [];
  const add = async (file: string, name: string): Promise<void> => {
    const { size } = await stat(file);
    if (size > limits.archiveBytes) output.say(`${name}: ${megabytes(size)} is too large and was left out`);
    else files.push({ path: name, bytes: new Uint8Array(await readFile(file)) });
  };
  for (const input of paths) {
    const info = await stat(input).catch(() => null);
    if (!info) throw new Misuse(`There is no file or folder ${input}.`);
    if (!info.isDirectory()) {
      await add(input, path.basename(input));
      continue;
    }
    const before = files.length;
    for (const entry of (await readdir(input, { recursive: true, withFileTypes: true })).sort((a, b) =>
      path.join(a.parentPath, a.name) < path.join(b.parentPath, b.name) ? -1 : 1,
    )) {
      const full = path.join(entry.parentPath, entry.name);
      if (entry.isFile() && !/(^|\/)(\.|node_modules\/)/.test(path.relative(input, full)))
        await add(full, path.relative(input, full).split(path.sep).join('/'));
    }
    files.push(
      ...(await installedFiles(files.slice(before), async (name) => {
        const full = path.join(input, name);
        const known = await stat(full).catch(() => null);
        return known?.isFile() && known.size <= limits.fileBytes
          ? new Uint8Array(await readFile(full))
          : null;
      })),
    );
  }
  return files;
}

/** @throws Misuse when the file is not there or not a project. */
export async function readProject(file: string | undefined): Promise<ProjectArchive> {
  if (!file) throw new Misuse('Which project? Name a .tovel file.');
  const bytes = await readFile(file).catch(() => {
    throw new Misuse(`There is no file ${file}.`);
  });
  try {
    return unpackProject(new Uint8Array(bytes), path.basename(file, '.tovel'));
  } catch (error) {
    if (error instanceof ArchiveError) throw new Misuse(`${file}: ${error.message}`);
    throw error;
  }
}

/**
 * A design from a design document or from a project.
 * @throws Misuse when the file is not there or neither of them.
 */
export async function readDesign(file: string | undefined): Promise<Design> {
  if (!file) throw new Misuse('Which design? Name a design document (.json) or a .tovel file.');
  if (file.endsWith('.tovel')) return (await readProject(file)).design;
  const text = await readFile(file, 'utf8').catch(() => {
    throw new Misuse(`There is no file ${file}.`);
  });
  try {
    return parseDesign(JSON.parse(text));
  } catch (error) {
    throw new Misuse(`${file} is no design document: ${(error as Error).message}`);
  }
}

export async function writeOut(file: string, content: string | Uint8Array): Promise<void> {
  await mkdir(path.dirname(path.resolve(file)), { recursive: true });
  await writeFile(file, content);
}

/** Where an element stands, for scripts: the file of its screen, its place in it, and its id. */
export function placeOf(design: Design, key: string): { screen: string; path: string; id: string | null } {
  const screen = screenWith(design, key)!;
  const { source } = elementsByKey(screen).get(key)!;
  return { screen: screen.source.file, path: source.path, id: source.id ?? null };
}
