import {
  classesOf,
  comesAgain,
  type InputFile,
  installedFiles,
  type IntakeOptions,
  type IntakeResult,
  isInstalled,
  kindOfFile,
  limits,
  looksWhole,
  megabytes,
  type Notice,
  type Project,
} from '@tovel/core';
import { proxy, transfer, wrap } from 'comlink';
import { api } from '../api/client';
import { newName } from '../project/identity';
import type { ProjectSession } from '../project/session';
import { ProjectMemory } from '../project/told_project';
import type { IntakeWorker, Surroundings } from './intake_worker';
import { PageReaders } from './page_readers';
import { TextRecogniser } from './text_recogniser';

/** A file that was dropped, chosen, pasted or fetched, with its path within what came along. */
export interface ChosenFile {
  readonly path: string;
  readonly file: Blob;
}

export interface Progress {
  /** `taking` is when the server makes what was read part of the project. */
  readonly step: 'reading' | 'sending' | 'taking';
  readonly done: number;
  readonly total: number;
  readonly file: string;
}

/** What was read, and whether it waits at Iterate, since screens that are there already came again. */
export type Batch = IntakeResult & { readonly isHeld: boolean };

/** What is known of a batch beforehand. */
export interface BatchOptions {
  /** Whether these are all screens there are: what is not among them is gone. */
  readonly whole: boolean;
  /** The path of the one file of them to make a screen of, whatever it is among the others. */
  readonly only?: string;
  /** What was fetched for a source, that has to be told when it was taken in. */
  readonly ticket?: string;
}

export interface RunningIntake {
  readonly finished: Promise<Batch>;
  /** Nothing becomes of it. */
  readonly cancel: () => void;
  /** Reads no more; what was read until then comes in. */
  readonly stop: () => void;
}

/** The batch was read, but the server could not keep it. What was read is held, so that it need not be read again. */
export class NotKept extends Error {
  /** Sends what was read once more. */
  readonly again: (onProgress: (progress: Progress) => void) => Promise<Batch>;

  constructor(error: Error, again: NotKept['again']) {
    super(error.message);
    this.again = again;
  }
}

/** A file that is read for longer than this, in ms, is left out, and the others are read without it. */
const STUCK_MS = 30_000;

/**
 * Reads files, sends what was read, and makes it part of the project; screens that are there already wait for somebody to
 * look at what they would do.
 */
export function startIntake(
  session: ProjectSession,
  chosen: readonly ChosenFile[],
  onProgress: (progress: Progress) => void,
  options: BatchOptions = { whole: false },
): RunningIntake {
  const { design, app, history } = session.getState();
  const taken = [...design.screens.map(({ key }) => key), ...Object.keys(app.screens)];
  // Screens that came after others that were taken back have keys that only the server knows.
  const isFirst = !taken.length && !history.seq;
  const leftOut = new Map<string, Notice>();
  let reading: Reading | null = null;
  let isCancelled = false;
  const work = async (): Promise<Batch> => {
    for (;;) {
      const { files, notices } = await readFiles(chosen.filter(({ path }) => !leftOut.has(path)));
      if (isCancelled) return nothingOf([...notices, ...leftOut.values()]);
      reading = new Reading();
      const ended = await reading.read(
        files,
        {
          taken,
          known: design.assets,
          classes: classesOf(design.screens),
          ...(options.only === undefined ? {} : { only: options.only }),
        },
        onProgress,
        isFirst ? (project) => session.meanwhile(project) : null,
      );
      if (ended === 'cancelled') return nothingOf([...notices, ...leftOut.values()]);
      if (typeof ended === 'string') {
        // A file within an archive holds up all of the archive.
        const whole =
          chosen.find(({ path }) => path === ended) ??
          chosen.find(({ path }) => kindOfFile(path) === 'archive');
        if (!whole || leftOut.has(whole.path))
          throw new Error(`“${ended}” takes too long to read. Bring in the others.`);
        leftOut.set(whole.path, {
          level: 'error',
          code: 'takes-too-long',
          file: whole.path,
          message: `${ended === whole.path ? 'It' : `“${ended}” in it`} takes longer than ${STUCK_MS / 1000} seconds to read and was left out. Simplify it, or bring it in in parts.`,
        });
        continue;
      }
      const result = { ...ended, notices: [...notices, ...leftOut.values(), ...ended.notices] };
      if (!result.screens.length) return { ...result, isHeld: false };
      // Said again it is the same step, which is done once.
      const step = newName(16);
      const keep = async (tell: (progress: Progress) => void): Promise<Batch> => {
        try {
          return { ...result, isHeld: await send(session, result, step, tell, { ...options, isFirst }) };
        } catch (error) {
          throw new NotKept(error as Error, keep);
        }
      };
      return keep(onProgress);
    }
  };
  const finished = work();
  // Where nothing came of it nothing is left of it; what was read, but not kept yet, is.
  finished.then(
    ({ screens }) => screens.length || session.meanwhile(null),
    (error: Error) => error instanceof NotKept || session.meanwhile(null),
  );
  return {
    finished,
    cancel: () => {
      isCancelled = true;
      reading?.end('cancelled');
    },
    stop: () => reading?.stop(),
  };
}

const nothingOf = (notices: readonly Notice[]): Batch => ({
  isHeld: false,
  screens: [],
  assets: [],
  fonts: [],
  notices,
  brief: null,
  bytes: new Map(),
  wasCancelled: true,
});

/** One reading of a batch, in a worker of its own: whatever a file makes it do, it can be ended at once. */
class Reading {
  readonly #worker = new Worker(new URL('./intake_worker.ts', import.meta.url), { type: 'module' });
  readonly #reader = new PageReaders();
  readonly #text = new TextRecogniser();
  readonly #remote = wrap<IntakeWorker>(this.#worker);
  #end: (why: string) => void = () => {};
  #isEnded = false;

  /** Ends it now. @param why what `read` resolves with. */
  end(why: string): void {
    this.#isEnded = true;
    this.#end(why);
  }

  /** Ends it before the next file, with what was read. */
  stop(): void {
    void this.#remote.stop();
  }

  /**
   * @param onArrived told of the first screens as they come; null where they are not the first
   * @returns what was read; or why it ended: `cancelled`, or the path of the file that it was stuck at.
   */
  async read(
    files: readonly InputFile[],
    there: Pick<IntakeOptions, 'taken' | 'known' | 'classes' | 'only'>,
    onProgress: (progress: Progress) => void,
    onArrived: ((project: Project) => void) | null,
  ): Promise<IntakeResult | string> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ended = new Promise<string>((resolve) => (this.#end = resolve));
    const watch = (file: string): void => {
      clearTimeout(timer);
      if (file) timer = setTimeout(() => this.end(file), STUCK_MS);
    };
    const [reader, text, remote] = [this.#reader, this.#text, this.#remote];
    const arrived = new ProjectMemory();
    watch(files[0]?.path ?? '');
    let last: Project | null = null;
    try {
      const read = remote.read(
        transfer(
          [...files],
          files.map((file) => file.bytes.buffer),
        ),
        there,
        onArrived !== null,
        proxy<Surroundings>({
          addFile: async (hash, file) => reader.add(hash, file),
          readPage: (html, plan) => reader.read(html, plan),
          compileUtilities: (plan) => api.compileUtilities(plan),
          shippedFont: (font) => api.shippedFont(font),
          shippedSheet: (address) => api.shippedSheet(address),
          shippedIcons: (library, names) => api.shippedIcons(library, names),
          recognise: (png) => text.recognise(png),
          onProgress: async (progress) => {
            watch(progress.file);
            onProgress({ step: 'reading', ...progress });
          },
          onArrived: async (told, files) => {
            // Heard in any case: the next is told as what is new since.
            const project = (last = arrived.hear(told));
            for (const { hash, type, bytes } of await notThere(files)) await api.putAsset(hash, type, bytes);
            // Later ones may have been through with it before.
            if (project === last && !this.#isEnded) onArrived?.(project);
          },
        }),
      );
      return await Promise.race([read, ended]);
    } finally {
      clearTimeout(timer);
      this.#worker.terminate();
      reader.dispose();
      text.dispose();
    }
  }
}

/** A file that is too large is not even read, nor one of an installed package that no page uses. */
async function readFiles(chosen: readonly ChosenFile[]): Promise<{ files: InputFile[]; notices: Notice[] }> {
  const files: InputFile[] = [];
  const notices: Notice[] = [];
  const own = chosen.filter(({ path }) => !isInstalled(path));
  for (const { path, file } of own.length ? own : chosen) {
    const limit = kindOfFile(path) === 'archive' ? limits.archiveBytes : limits.fileBytes;
    if (file.size > limit) {
      notices.push({
        level: 'error',
        code: 'file-too-large',
        file: path,
        message: `The file is ${megabytes(file.size)}; at most ${megabytes(limit)} is read. Export it with smaller pictures, or in parts.`,
      });
      continue;
    }
    try {
      files.push({ path, bytes: new Uint8Array(await file.arrayBuffer()) });
    } catch {
      notices.push({
        level: 'error',
        code: 'file-unreadable',
        file: path,
        message: 'The browser could not read this file. Was it moved or is it open elsewhere?',
      });
    }
  }
  const byPath = new Map(chosen.map((one) => [one.path, one.file]));
  const installed = await installedFiles(files, async (path) => {
    const file = own.length ? byPath.get(path) : undefined;
    return file && file.size <= limits.fileBytes ? new Uint8Array(await file.arrayBuffer()) : null;
  });
  return { files: [...files, ...installed], notices };
}

/** @returns whether it waits at Iterate. */
async function send(
  session: ProjectSession,
  result: IntakeResult,
  step: string,
  onProgress: (progress: Progress) => void,
  { whole, ticket, isFirst }: BatchOptions & { readonly isFirst: boolean },
): Promise<boolean> {
  const missing = await notThere(result.assets);
  for (const [done, { hash, type, file }] of missing.entries()) {
    onProgress({ step: 'sending', done, total: missing.length, file });
    await api.putAsset(hash, type, result.bytes.get(hash)!);
  }
  onProgress({ step: 'taking', done: 0, total: result.screens.length, file: '' });
  const { screens, assets, notices, fonts, brief } = result;
  const { id, design } = session.getState();
  const read = { screens, assets, notices, fonts, ...(brief ? { brief } : {}), whole };
  if (!isFirst && design.screens.length && (whole || comesAgain(design, screens))) {
    await api.keepRound(id, {
      ...read,
      whole: whole || looksWhole(design, screens),
      ...(ticket ? { ticket } : {}),
    });
    return true;
  }
  await session.accept((input) => api.intake(id, { ...input, ...read }), step);
  if (ticket) await api.confirmSource(id, ticket);
  return false;
}

/** Those that the server does not have. */
async function notThere<T extends { readonly hash: string }>(files: readonly T[]): Promise<readonly T[]> {
  const missing = new Set(await api.missingAssets(files.map(({ hash }) => hash)));
  return files.filter(({ hash }) => missing.has(hash));
}

/** Everything in what was dropped, folders opened. */
export async function filesInDrop(transferred: DataTransfer): Promise<ChosenFile[]> {
  const entries = [...transferred.items]
    .map((item) => item.webkitGetAsEntry?.())
    .filter((entry) => entry !== null && entry !== undefined);
  if (!entries.length) return [...transferred.files].map((file) => ({ path: file.name, file }));
  const files: ChosenFile[] = [];
  const visit = async (entry: FileSystemEntry, folder: string): Promise<void> => {
    const path = folder + entry.name;
    if (entry.isFile) {
      files.push({
        path,
        file: await new Promise<File>((resolve, reject) =>
          (entry as FileSystemFileEntry).file(resolve, reject),
        ),
      });
      return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    for (;;) {
      // A reader hands out a folder in parts, and says with an empty one that it is done.
      const part = await new Promise<FileSystemEntry[]>((resolve, reject) =>
        reader.readEntries(resolve, reject),
      );
      if (!part.length) return;
      for (const inner of part) await visit(inner, `${path}/`);
    }
  };
  for (const entry of entries) await visit(entry, '');
  return files;
}

/** Files of a file input; those of a chosen folder without the folder's own name. */
export function filesInInput(list: FileList): ChosenFile[] {
  return [...list].map((file) => ({
    path: file.webkitRelativePath.replace(/^[^/]*\//, '') || file.name,
    file,
  }));
}
