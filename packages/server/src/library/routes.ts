import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { readLibrary, type ReadLibrary, type SourceFile } from '@tovel/core';
import { drawLibrary, type DrawnLibrary, type Renderer } from '@tovel/renderer';
import type { FastifyInstance } from 'fastify';
import { HttpError } from '../http/errors.ts';
import { route } from '../http/route.ts';
import type { Services } from '../services.ts';

/** Components that a team has already: read from their sources, and drawn where these can be built. */
export function libraryRoutes(app: FastifyInstance, { comparing, scratch }: Services): void {
  route(app, 'readLibrary', async ({ body: { name, files } }) => {
    const read = readLibrary(files, name);
    if (!read.library.components.length) throw new HttpError('library-failed', read.problems.join(' '));
    const drawn = await drawnFrom(files, read, comparing.renderer, scratch);
    return { library: drawn.library, problems: [...read.problems, ...drawn.problems] };
  });
}

/** The library with how its components look, bundled from a folder that is gone afterwards. */
async function drawnFrom(
  files: readonly SourceFile[],
  { library, sources }: ReadLibrary,
  renderer: Renderer,
  scratch: string,
): Promise<DrawnLibrary> {
  await mkdir(scratch, { recursive: true });
  const folder = await mkdtemp(path.join(scratch, 'library-'));
  try {
    for (const file of files) {
      const full = path.join(folder, file.path);
      await mkdir(path.dirname(full), { recursive: true });
      await writeFile(full, file.text);
    }
    return await drawLibrary(renderer, folder, library, sources, false);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
