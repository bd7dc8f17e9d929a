import { all, applyChange, type Change, putHandWritten } from '../change/change.ts';
import type { EmittedFile, EmittedProject, HandWrittenPart } from '../emit/emitted.ts';
import type { TargetName } from '../emit/targets.ts';
import type { MergeSide } from '../merge/conflict.ts';
import { mergeFile } from '../merge/merge_file.ts';
import { type App, type HandWritten, LONGEST_WRITTEN } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { endingOf } from './counterparts.ts';
import { generatedCode } from './generated_code.ts';
import { movedLines } from './moved_lines.ts';
import { type CodeOffer, offersIn } from './read_back.ts';

/**
 * A project with what people wrote by hand in it: what they did to a file as it was generated then is done to the file as it is
 * generated now, by the syntax of its language. Where both say something else, what people wrote counts until it is decided.
 */
export function withHandWritten(emitted: EmittedProject, written: App['handWritten']): EmittedProject {
  const entries = Object.entries(written);
  if (!entries.length) return emitted;
  const files = new Map(emitted.files.map((file) => [file.path, file]));
  const taken = new Set<string>();
  const parts = entries.map(([path, one]): HandWrittenPart => {
    const file = fileFor(path, one, emitted.files, taken);
    if (!file) return { path, file: null, generated: '', conflicts: [] };
    taken.add(file.path);
    const { text, conflicts } = mergeFile(file.path, { base: one.base, theirs: one.text, ours: file.text });
    const { lines, ...rest } = file;
    files.set(file.path, { ...rest, text, ...(lines ? { lines: movedLines(file.text, lines, text) } : {}) });
    return { path, file: file.path, generated: file.text, conflicts };
  });
  return { ...emitted, files: [...files.values()], handWritten: parts };
}

type TextFile = Extract<EmittedFile, { readonly text: string }>;

const isText = (file: EmittedFile): file is TextFile => 'text' in file;
const aboutOf = ({ lines }: TextFile): string | undefined =>
  lines?.find((line) => line !== null) ?? undefined;

/** The file that something was written into: the one at its path, else the one that is about the same by now. */
function fileFor(
  path: string,
  { about }: Pick<HandWritten, 'about'>,
  files: readonly EmittedFile[],
  taken: ReadonlySet<string>,
): TextFile | undefined {
  const free = files.filter(isText).filter((file) => !taken.has(file.path));
  const same = free.find((file) => file.path === path);
  if (about === undefined || (same && aboutOf(same) === about)) return same;
  return free.find((file) => endingOf(file.path) === endingOf(path) && aboutOf(file) === about) ?? same;
}

/** What somebody wrote into a file, read. */
export interface CodeRead {
  /** What of it means something in the project. */
  readonly offers: readonly CodeOffer[];
  /** Whether something of it is kept as it is written, since it means nothing there. */
  readonly isKept: boolean;
  /** All of it as one change; null where nothing was changed. */
  readonly change: Change | null;
}

/**
 * Reads a file as somebody left it: what means something in the project becomes a change of it, and the rest is kept as written
 * by hand.
 * @param path the file as it is delivered now
 * @throws RangeError where there is no such file, or it is too long
 */
export async function readCode(
  project: Project,
  name: string,
  target: TargetName,
  path: string,
  text: string,
): Promise<CodeRead> {
  if (text.length > LONGEST_WRITTEN)
    throw new RangeError(`A file has at most ${LONGEST_WRITTEN} letters; this has ${text.length}.`);
  const bare = { ...project, app: { ...project.app, handWritten: {} } };
  // One file is asked about, which may be called otherwise afterwards; others need not be formatted.
  const isWanted = (one: string): boolean => endingOf(one) === endingOf(path);
  const written = (one: Project): Promise<EmittedProject> =>
    generatedCode(one, name, target, undefined, isWanted);
  const before = await written(bare);
  const file = before.files.filter(isText).find((one) => one.path === path);
  if (!file) throw new RangeError(`There is no file ${path}.`);
  const known = withHandWritten(before, project.app.handWritten);
  const part = known.handWritten?.find((one) => one.file === path);
  const shown = known.files.filter(isText).find((one) => one.path === path)!;
  if (shown.text === text) return { offers: [], isKept: part !== undefined, change: null };
  const offers = await offersIn({
    project: bare,
    files: [{ path, base: file.text, theirs: text, lines: file.lines ?? [] }],
    write: async (changed) => (await written(changed)).files,
  });
  const changes = offers.map(({ change }) => change);
  const app = changes.reduce(applyChange, bare.app);
  const after = offers.length ? await written({ ...bare, app }) : before;
  const about = aboutOf(file);
  const now = fileFor(path, { about }, after.files, new Set());
  const isKept = now?.text !== text;
  const entry = { base: file.text, text, ...(about === undefined ? {} : { about }) };
  const at = part?.path ?? path;
  return {
    offers,
    isKept,
    change: all([...changes, ...(isKept || part ? [putHandWritten(at, isKept ? entry : null)] : [])]),
  };
}

/**
 * The change that decides what both sides said otherwise: from then on the file is held against how it is generated now.
 */
export function decideHandWritten(
  app: App,
  { path, file, generated, conflicts }: HandWrittenPart,
  side: MergeSide,
): Change {
  const entry = app.handWritten[path];
  if (!entry || file === null) return putHandWritten(path, null);
  const versions = { base: entry.base, theirs: entry.text, ours: generated };
  const { text } = mergeFile(file, versions, new Map(conflicts.map(({ id }) => [id, side])));
  const next = text === generated ? null : { ...entry, base: generated, text };
  return file === path
    ? putHandWritten(path, next)
    : all([putHandWritten(path, null), putHandWritten(file, next)]);
}
