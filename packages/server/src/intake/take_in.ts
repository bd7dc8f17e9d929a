import { type Answers, type ChangeResult, type Design, emptyDesign, parseDesign } from '@tovel/core';
import type { AssetStore } from '../assets/store.ts';
import type { StepInput } from '../history/store.ts';
import { readOr } from '../http/check.ts';
import { HttpError } from '../http/errors.ts';
import type { Services } from '../services.ts';

/**
 * The design that a batch is by itself.
 * @throws HttpError where it is none, or files of it are not here.
 */
export async function readDesign(assets: AssetStore, read: object): Promise<Design> {
  const design = readOr('invalid', () => parseDesign({ ...emptyDesign, ...read }));
  const missing = await assets.missing(design.assets.map((asset) => asset.hash));
  if (missing.length)
    throw new HttpError(
      'asset-missing',
      `${missing.length} of the files did not arrive. Bring the batch in again.`,
    );
  return design;
}

/** Somebody changed the project while an iteration was worked out. */
class MovedOn extends Error {}

/** Matches a batch with what is there, and makes it part of the project as one step. */
export async function takeInScreens(
  { history, projects, threads, feed }: Services,
  project: string,
  input: StepInput,
  read: Design,
  { whole, answers, signal }: { whole: boolean; answers: Answers; signal: AbortSignal },
): Promise<ChangeResult> {
  const count = read.screens.length === 1 ? read.screens[0].name : `${read.screens.length} screens`;
  for (;;) {
    const now = await projects.read(project);
    const made = await threads.run(
      'iterate',
      {
        design: now.design,
        app: now.app,
        read,
        whole,
        answers,
        iteration: await projects.nextIteration(project),
      },
      signal,
    );
    try {
      const result = await history.append(project, input, `Bring in ${count}`, (current) => {
        // What was worked out holds for what it was worked out from.
        if (current.seq !== now.seq || current.revision !== now.revision) throw new MovedOn();
        return made;
      });
      feed.wake(project);
      return result;
    } catch (error) {
      if (!(error instanceof MovedOn)) throw error;
    }
  }
}
