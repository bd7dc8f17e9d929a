import { readFile } from 'node:fs/promises';
import path from 'node:path';
import {
  answered,
  type Answers,
  type App,
  type AppliedIteration,
  applyIteration,
  ArchiveError,
  causeOptions,
  compareDrawn,
  deliveredCode,
  type Design,
  type DrawnComparison,
  type IntoPlan,
  type MergeSide,
  packProject,
  packZip,
  planIteration,
  EmissionPlan,
  emitReact,
  escapeText,
  plannerInto,
  shownElements,
  recordOf,
  type Screen,
  type ShownElement,
  type TargetName,
  unpackProject,
  type UtilityPlan,
  withWhatItNeeds,
} from '@tovel/core';
import { AppBuild, bundledPage } from '@tovel/renderer/app_build';
import { decoded, differencePicture, type DrawnPage } from '@tovel/renderer/pictures';
import { compileUtilities } from '@tovel/renderer/shipped/utilities';

/**
 * What takes long enough to hold everybody up, done in threads of its own. Each job takes and gives plain values; assets
 * come in as bytes by hash.
 */

export interface CodeInput {
  readonly name: string;
  readonly design: Design;
  readonly app: App;
  readonly target: TargetName;
  /** One file alone, with what it takes from others. */
  readonly only?: string;
}

/** The text files of a code base, and which assets go where. */
export async function emitCode({ name, design, app, target, only }: CodeInput): Promise<{
  readonly texts: readonly { readonly path: string; readonly text: string }[];
  readonly assets: readonly { readonly path: string; readonly hash: string }[];
  /** What is kept beside the whole of it, so that it can be delivered into again. */
  readonly record: readonly { readonly path: string; readonly bytes: Uint8Array }[];
}> {
  const emitted = await deliveredCode({ design, app }, name, target);
  const isThere = only === undefined || emitted.files.some(({ path }) => path === only);
  const files = only === undefined ? emitted.files : isThere ? withWhatItNeeds(emitted, only) : [];
  return {
    texts: files.flatMap((file) => ('text' in file ? [{ path: file.path, text: file.text }] : [])),
    assets: files.flatMap((file) => ('asset' in file ? [{ path: file.path, hash: file.asset }] : [])),
    record:
      only === undefined
        ? [...recordOf(name, target, files)].map(([file, bytes]) => ({ path: file, bytes }))
        : [],
  };
}

export interface IterationInput {
  readonly design: Design;
  readonly app: App;
  readonly read: Pick<Design, 'screens' | 'assets' | 'notices' | 'fonts' | 'brief'>;
  /** Whether what is not among the screens is gone. */
  readonly whole: boolean;
  /** What somebody said of what it asks. */
  readonly answers: Answers;
  readonly iteration: number;
}

/** Matches what was read with what is there, and works out what becomes of it. */
export function iterate({ design, app, read, whole, answers, iteration }: IterationInput): AppliedIteration {
  const project = { design, app };
  const plan = answered(planIteration(project, read.screens, { whole }), answers);
  return applyIteration(project, plan, read, iteration);
}

export interface FilesInput {
  readonly texts: readonly { readonly path: string; readonly text: string }[];
  readonly files: readonly { readonly path: string; readonly bytes: Uint8Array }[];
}

export function packFiles({ texts, files }: FilesInput): Uint8Array {
  const encoder = new TextEncoder();
  return packZip([...texts.map(({ path, text }) => ({ path, bytes: encoder.encode(text) })), ...files]);
}

export function packArchive(project: Parameters<typeof packProject>[0]): Uint8Array {
  return packProject(project);
}

/** What an archive holds; or why it cannot be opened, since errors lose their kind on the way. */
export function unpackArchive({
  bytes,
  name,
}: {
  readonly bytes: Uint8Array;
  readonly name?: string;
}): { readonly opened: ReturnType<typeof unpackProject> } | { readonly problem: string } {
  try {
    return { opened: unpackProject(bytes, name) };
  } catch (error) {
    if (error instanceof ArchiveError) return { problem: error.message };
    throw error;
  }
}

export async function compileClasses(plan: UtilityPlan): Promise<{ css: string } | { problem: string }> {
  try {
    return { css: await compileUtilities(plan) };
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

export interface IntoFolderInput {
  readonly name: string;
  readonly design: Design;
  readonly app: App;
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  /** A folder of this machine, and paths of its files. */
  readonly folder: string;
  readonly paths: readonly string[];
  readonly answers: ReadonlyMap<string, MergeSide>;
}

/** What delivering into a folder would do; or why it cannot be said, since errors lose their kind on the way. */
export async function planIntoFolder(
  input: IntoFolderInput,
): Promise<{ readonly plan: IntoPlan } | { readonly problem: string }> {
  const { name, design, app, pictures, folder, paths, answers } = input;
  try {
    const planWith = await plannerInto({
      project: { design, app },
      name,
      folder: {
        read: (file) => readFile(path.join(folder, file)).catch(() => null),
        list: () => Promise.resolve(paths),
      },
      pictureOf: (hash) => pictures.get(hash),
    });
    return { plan: await planWith(answers) };
  } catch (error) {
    if (error instanceof RangeError) return { problem: error.message };
    throw error;
  }
}

export interface CompareInput {
  readonly was: DrawnPage;
  readonly is: DrawnPage;
  /** The drawing that says how it should look. */
  readonly screen: Screen;
  /** What was decided about its elements. */
  readonly app: Pick<App, 'edits' | 'layers'>;
}

/** Where two drawn pages differ and why, with a picture of it. */
export function compareViews({ was, is, screen, app }: CompareInput): Omit<DrawnComparison, 'marks'> & {
  readonly difference: Uint8Array;
} {
  const { marks, ...found } = compareDrawn(decoded(was), decoded(is), causeOptions({ app }, screen));
  const difference = differencePicture({ ...found, marks });
  return { ...found, difference };
}

export interface FrozenInput {
  readonly title: string;
  readonly name: string;
  readonly design: Design;
  readonly app: App;
}

/** An app as it is published: its texts by path, which assets go where, and what its screens show. */
export async function freezeApp({ title, name, design, app }: FrozenInput): Promise<{
  readonly files: ReadonlyMap<string, Uint8Array>;
  readonly assets: ReadonlyMap<string, string>;
  readonly shown: readonly {
    readonly screen: string;
    readonly route: string;
    readonly elements: readonly ShownElement[];
  }[];
  readonly error: string | null;
}> {
  const project = { design, app };
  const emitted = emitReact(project, name);
  const build = new AppBuild('/');
  const { files: built, error } = await build.build(emitted);
  await build.dispose();
  const page = emitted.files.find((file) => file.path === 'index.html');
  const html = bundledPage(page && 'text' in page ? page.text : '', '/').replace(
    /<title>[\s\S]*?<\/title>/,
    () => `<title>${escapeText(title)}</title>`,
  );
  const plan = new EmissionPlan(project);
  const screens = plan.screens.map((screen) => ({
    screen,
    route: app.screens[screen].route,
    elements: [screen, ...plan.overlays.keys()].flatMap((key) => shownElements(plan, key)),
  }));
  // The first screen opens at the root, whatever its own route.
  const first = screens.find(({ screen }) => screen === app.start);
  const isAtRoot = screens.some(({ route }) => route === '/');
  return {
    files: new Map([
      ...[...built].map(([file, bytes]) => [`_app/${file}`, bytes] as const),
      ...emitted.files.flatMap((file) =>
        /^api\/[\w-]+\.json$/.test(file.path) && 'text' in file
          ? [[file.path, new TextEncoder().encode(file.text)] as const]
          : [],
      ),
      ['index.html', new TextEncoder().encode(html)],
    ]),
    assets: new Map(
      emitted.files.flatMap((file) =>
        'asset' in file ? [[file.path.replace(/^src\/assets\//, '_assets/'), file.asset] as const] : [],
      ),
    ),
    shown: first && !isAtRoot ? [...screens, { ...first, route: '/' }] : screens,
    error,
  };
}
