import { formattedText } from './generated_code.ts';
import type { EmittedFile } from '../emit/emitted.ts';
import { hashOf } from '../intake/files.ts';
import { conflictOf, type MergeConflict, type MergeSide } from '../merge/conflict.ts';
import { mergeFile } from '../merge/merge_file.ts';
import { missingClasses } from './classes_used.ts';
import { counterpartsOf } from './counterparts.ts';
import {
  ATTRIBUTES,
  ATTRIBUTES_PATH,
  basePath,
  entryOf,
  linesOf,
  type Manifest,
  type ManifestFile,
  MANIFEST_PATH,
  manifestOf,
  type Owner,
  packBase,
  printManifest,
  unpackBase,
} from './manifest.ts';

/** What becomes of a file. */
export type Fate =
  /** It was not there. */
  | 'new'
  /** It is there as it would be written. */
  | 'same'
  /** Nobody but Tovel wrote it: it is written anew. */
  | 'updated'
  /** Somebody changed it: what they did and what is written now are brought together. */
  | 'merged'
  /** Somebody changed it, and nothing else is to be written: it stays. */
  | 'kept'
  /** The design has it no more, and nobody else wrote it. */
  | 'removed'
  /** Somebody took it away: it is not written again. */
  | 'left-out';

export interface PlannedFile {
  readonly path: string;
  readonly fate: Fate;
  readonly owner: Owner;
  /** Where it lay until now. */
  readonly movedFrom?: string;
  /** Why it was merged line by line, in words. */
  readonly byLines?: string;
  /** What the file said and says from now on; of pictures nothing. */
  readonly before?: string;
  readonly after?: string;
}

/** What is asked before anything is written. */
export interface DeliveryAsk extends Omit<MergeConflict, 'why'> {
  readonly path: string;
  readonly why: MergeConflict['why'] | 'in-the-way';
}

export interface DeliveryPlan {
  /** By path. */
  readonly files: readonly PlannedFile[];
  readonly asks: readonly DeliveryAsk[];
  /** What should be looked at, in words. */
  readonly notices: readonly string[];
  /** What is to be written, or taken away where it is null, with what is kept for the next time. */
  readonly writes: ReadonlyMap<string, Uint8Array | null>;
}

export interface DeliveryInput {
  readonly project: string;
  readonly target: string;
  /** What would be written into an empty folder, formatted, at the paths that it gets here. */
  readonly files: readonly EmittedFile[];
  readonly pictureOf: (hash: string) => Uint8Array | undefined;
  /** What was written last, where anything was. */
  readonly manifest: Manifest | null;
  /** A file as it lies there, or null. */
  readonly read: (path: string) => Promise<Uint8Array | null>;
  /** Which side counts, by the ids of what was asked. */
  readonly answers?: ReadonlyMap<string, MergeSide>;
  /** Only these files are written now; nothing is taken away. */
  readonly isPart?: boolean;
}

/**
 * What delivering into a folder would do, file by file: what nobody touched is written anew, what somebody changed is merged by
 * the syntax of its language with what was written last (kept in the folder) as base, and what cannot be decided is asked, with
 * both sides. Nothing is written by this.
 */
export async function planDelivery(input: DeliveryInput): Promise<DeliveryPlan> {
  return new Planning(input).plan();
}

const decoder = new TextDecoder();
const encoder = new TextEncoder();

/** A file that is to be written, as bytes. */
interface Written {
  readonly file: EmittedFile;
  readonly bytes: Uint8Array;
  readonly hash: string;
}

class Planning {
  readonly #input: DeliveryInput;
  readonly #files: PlannedFile[] = [];
  readonly #asks: DeliveryAsk[] = [];
  readonly #notices: string[] = [];
  readonly #writes = new Map<string, Uint8Array | null>();
  readonly #entries: ManifestFile[] = [];
  /** Texts that are written now, by their hashes. */
  readonly #bases = new Map<string, string>();
  /** What was read, by path. */
  readonly #lying = new Map<string, Uint8Array | null>();
  /** Texts as they will be. */
  readonly #texts = new Map<string, string>();

  constructor(input: DeliveryInput) {
    this.#input = input;
  }

  async plan(): Promise<DeliveryPlan> {
    const { files, manifest, pictureOf, isPart } = this.#input;
    const known = new Map(manifest?.files.map((file) => [file.path, file]));
    const written = new Map<string, Written>();
    for (const file of files) {
      const bytes = 'text' in file ? encoder.encode(file.text) : pictureOf(file.asset);
      if (bytes) written.set(file.path, { file, bytes, hash: hashOf(bytes) });
      else this.#notices.push(`${file.path}: the picture is not in the project and was left out`);
    }
    const touched = await this.#touched(manifest);
    const moved = counterpartsOf(touched, known, files);
    const taken = new Set(moved.values());
    for (const [path, one] of written)
      if (!taken.has(path)) await this.#write(path, one, known.get(path), moved.has(path));
    for (const [from, to] of moved)
      await this.#move(from, to, written.get(to)!, known.get(from)!, written.has(from));
    for (const [path, entry] of known) {
      if (written.has(path) || moved.has(path)) continue;
      if (isPart) this.#keep(entry);
      else await this.#leave(entry);
    }
    this.#lookForClasses();
    this.#finish(manifest);
    return {
      files: this.#files.sort((a, b) => (a.path < b.path ? -1 : 1)),
      asks: this.#asks,
      notices: this.#notices,
      writes: this.#writes,
    };
  }

  /** A file as it lies there; it is looked at for more than one reason. */
  async #read(path: string): Promise<Uint8Array | null> {
    const known = this.#lying.get(path);
    if (known !== undefined) return known;
    const bytes = await this.#input.read(path);
    this.#lying.set(path, bytes);
    return bytes;
  }

  /** Files that somebody changed since they were written. */
  async #touched(manifest: Manifest | null): Promise<Set<string>> {
    const touched = new Set<string>();
    for (const { path, hash } of manifest?.files ?? []) {
      const there = await this.#read(path);
      if (there && hashOf(there) !== hash) touched.add(path);
    }
    return touched;
  }

  async #write(path: string, one: Written, entry: ManifestFile | undefined, isMoved: boolean): Promise<void> {
    // What lay here goes elsewhere; this is another file of its name.
    const there = isMoved ? null : await this.#read(path);
    // What is theirs is written once; where it is not there any more, what needs it would not build.
    if ('text' in one.file && one.file.owner === 'yours')
      return there
        ? this.#put(path, one, hashOf(there) === one.hash ? 'same' : 'kept', there, there)
        : this.#put(path, one, 'new');
    if (!there && entry && !isMoved) {
      // What is the same as before asks for nothing.
      if (entry.hash === one.hash || this.#ask('theirs-removed', path, null, one) === 'theirs')
        return this.#leaveOut(entry);
    }
    if (!there) return this.#put(path, one, 'new');
    const now = hashOf(there);
    if (now === one.hash) return this.#put(path, one, 'same');
    if (now === entry?.hash) return this.#put(path, one, 'updated', there);
    await this.#merge(path, one, entry, there);
  }

  async #move(
    from: string,
    to: string,
    one: Written,
    entry: ManifestFile,
    isWrittenAnew: boolean,
  ): Promise<void> {
    const there = (await this.#read(from))!;
    await this.#merge(to, one, entry, there, from);
    if (!isWrittenAnew) this.#writes.set(from, null);
  }

  async #merge(
    path: string,
    one: Written,
    entry: ManifestFile | undefined,
    there: Uint8Array,
    movedFrom?: string,
  ): Promise<void> {
    const { file } = one;
    const kept = entry && (await this.#read(basePath(entry.hash)));
    const base = kept ? unpackBase(kept) : null;
    if (!('text' in file) || !entry || base === null) {
      if (entry && 'text' in file)
        this.#notices.push(
          `${path}: what was written last is not kept any more, so that nothing can be merged`,
        );
      const side = this.#ask(entry ? 'both-changed' : 'in-the-way', path, there, one);
      return side === 'ours'
        ? this.#put(path, one, 'updated', there)
        : this.#put(path, one, 'kept', there, there);
    }
    const theirs = decoder.decode(there);
    const merged = mergeFile(
      path,
      {
        base,
        theirs,
        ours: file.text,
        ...(entry?.parts && file.lines ? { lines: { base: linesOf(entry.parts), ours: file.lines } } : {}),
      },
      this.#input.answers,
    );
    for (const conflict of merged.conflicts) this.#asks.push({ ...conflict, path });
    // What they write in another manner stays in theirs.
    const isFormatted = isWrittenAlike(base, theirs) || (await tidied(path, theirs)) === theirs;
    const text = isFormatted ? ((await tidied(path, merged.text)) ?? merged.text) : merged.text;
    const after = encoder.encode(text);
    if (text === theirs && movedFrom === undefined) return this.#put(path, one, 'kept', there, there);
    this.#put(path, one, 'merged', there, after, {
      ...(movedFrom === undefined ? {} : { movedFrom }),
      ...(merged.byLines === null ? {} : { byLines: merged.byLines }),
    });
  }

  /** A file that is written no more. */
  async #leave(entry: ManifestFile): Promise<void> {
    const there = await this.#read(entry.path);
    if (!there) return;
    if (hashOf(there) !== entry.hash && this.#ask('ours-removed', entry.path, there, null) === 'theirs') {
      this.#files.push({ path: entry.path, fate: 'kept', owner: entry.owner });
      return;
    }
    this.#writes.set(entry.path, null);
    this.#files.push({ path: entry.path, fate: 'removed', owner: entry.owner, ...textOf(there, 'before') });
  }

  #leaveOut(entry: ManifestFile): void {
    this.#keep(entry);
    this.#files.push({ path: entry.path, fate: 'left-out', owner: entry.owner });
  }

  /** What was written last is still what is known of a file. */
  #keep(entry: ManifestFile): void {
    this.#entries.push(entry);
  }

  #put(
    path: string,
    { file, bytes, hash }: Written,
    fate: Fate,
    before?: Uint8Array,
    after: Uint8Array = bytes,
    more: Partial<PlannedFile> = {},
  ): void {
    const entry = entryOf({ ...file, path }, hash);
    const { owner } = entry;
    const isText = 'text' in file;
    if (fate !== 'same' && fate !== 'kept') this.#writes.set(path, after);
    this.#files.push({
      path,
      fate,
      owner,
      ...more,
      ...(isText && before && fate !== 'kept' ? textOf(before, 'before') : {}),
      ...(isText ? textOf(after, 'after') : {}),
    });
    if (isText) this.#texts.set(path, decoder.decode(after));
    this.#entries.push(entry);
    if (isText) this.#bases.set(hash, file.text);
  }

  #ask(why: DeliveryAsk['why'], path: string, there: Uint8Array | null, one: Written | null): MergeSide {
    const said = (bytes: Uint8Array | null): string | null =>
      bytes && (bytes.includes(0) ? `${String(bytes.length)} bytes` : decoder.decode(bytes));
    const conflict = conflictOf(
      why === 'in-the-way' ? 'no-place' : why,
      1,
      { base: null, theirs: said(there), ours: said(one?.bytes ?? null) },
      this.#input.answers,
    );
    this.#asks.push({ ...conflict, why, path });
    return conflict.side;
  }

  #lookForClasses(): void {
    for (const { path, line, sheet, name } of missingClasses(this.#texts))
      this.#notices.push(
        `${path}:${String(line)} takes “${name}” from ${sheet}, which has no such class (any more)`,
      );
  }

  #finish(manifest: Manifest | null): void {
    const { project, target } = this.#input;
    const writes = this.#writes;
    writes.set(MANIFEST_PATH, encoder.encode(printManifest(manifestOf(project, target, this.#entries))));
    if (!manifest) writes.set(ATTRIBUTES_PATH, encoder.encode(ATTRIBUTES));
    const needed = new Set(this.#entries.map(({ hash }) => basePath(hash)));
    const known = new Set(manifest?.files.map(({ hash }) => basePath(hash)));
    for (const [hash, text] of this.#bases)
      if (!known.has(basePath(hash))) writes.set(basePath(hash), packBase(text));
    for (const path of known) if (!needed.has(path)) writes.set(path, null);
  }
}

/** Whether most lines of a text are those of its base: its manner was left as it was. */
function isWrittenAlike(base: string, text: string): boolean {
  const known = new Set(base.split('\n'));
  const lines = text.split('\n');
  return lines.filter((line) => known.has(line)).length > 0.7 * lines.length;
}

/** A text as the formatter writes it; null where it cannot. */
const tidied = (path: string, text: string): Promise<string | null> =>
  formattedText(path, text).catch(() => null);

const textOf = (bytes: Uint8Array, field: 'before' | 'after'): Partial<PlannedFile> => ({
  [field]: decoder.decode(bytes),
});
