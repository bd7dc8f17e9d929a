import { grouped } from '../json/grouped.ts';
import { ASSET_TYPES, type AssetRef, type Notice } from '../model/design.ts';
import { uniqueName } from '../model/names.ts';
import {
  fileName,
  folderOf,
  hashOf,
  type InputFile,
  isMovable,
  kindOfFile,
  likestEnd,
  resolveReference,
  textOfFile,
  typeOfFile,
  unpack,
} from './files.ts';
import { limits, megabytes } from './limits.ts';
import { standInPicture } from './stand_in_picture.ts';

/** Parameters besides the encoding are said in several ways (`;charset=utf-8`, `;utf8`), and change nothing here. */
const INLINE = /^data:([a-z]+\/[a-z0-9.+-]+)(?:;[\w.+-]+(?:=[^;,]*)?)*?(;base64)?,(.*)$/is;

const STYLE_SOURCE = /\.(s[ac]ss|less|styl)$/i;

/** What says that a folder is a package by itself. */
const MANIFEST = /^(package|bower|component)\.json$/i;

/** The files of a batch, what refers to them, and the assets that are made of them. */
export class BatchFiles {
  readonly notices: Notice[] = [];
  readonly #files = new Map<string, InputFile>();
  readonly #assets = new Map<string, AssetRef>();
  readonly #bytes = new Map<string, Uint8Array>();
  readonly #addresses = new Map<string, string>();
  readonly #addressOfHash = new Map<string, string>();
  readonly #inline = new Map<string, AssetRef | null>();
  readonly #used = new Set<string>();
  readonly #packages = new Set<string>();
  readonly #styleSources: string[] = [];
  /** The only file of each name, or null where several have it. */
  #names: ReadonlyMap<string, readonly InputFile[]> | null = null;
  /** Pictures that stand for those of other hosts, by what they are kept as. */
  readonly #standIns = new Map<string, InputFile>();
  /** What comes with Tovel, by where it lies here, and the addresses at other hosts that sheets of it stand for. */
  readonly #shipped = new Map<string, InputFile>();
  readonly #stoodFor = new Map<string, InputFile>();
  /** What was found elsewhere, and has been said. */
  readonly #moved = new Set<string>();
  readonly #addressOf: (asset: AssetRef, bytes: Uint8Array) => string;
  readonly #known: ReadonlyMap<string, AssetRef>;

  /** @param known what came with earlier batches, and need not come again */
  constructor(
    input: readonly InputFile[],
    addressOf: (asset: AssetRef, bytes: Uint8Array) => string,
    known: readonly AssetRef[] = [],
  ) {
    this.#addressOf = addressOf;
    this.#known = new Map(known.map((asset) => [asset.file, asset]));
    for (const file of input) this.#add(file);
  }

  get all(): readonly InputFile[] {
    return [...this.#files.values()];
  }

  /** In the order of their files, whichever was asked for first. */
  get assets(): readonly AssetRef[] {
    return [...this.#assets.values()].sort((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : 0));
  }

  get bytes(): ReadonlyMap<string, Uint8Array> {
    return this.#bytes;
  }

  has(path: string): boolean {
    return this.#files.has(path);
  }

  isUsed(path: string): boolean {
    return this.#used.has(path);
  }

  notice(level: Notice['level'], code: string, file: string, message: string, path?: string): void {
    this.notices.push({ level, code, file, message, ...(path === undefined ? {} : { path }) });
  }

  /** The file that a reference within another leads to; counts it as used. */
  at(reference: string, from: string): InputFile | null {
    const file = this.#find(reference, from);
    if (!file) return null;
    this.#used.add(file.path);
    return file;
  }

  /**
   * Puts a sheet that comes with Tovel in the place of one at another host.
   * @param files what the sheet refers to, with paths from where it lies
   */
  stand(reference: string, sheet: InputFile, files: readonly InputFile[]): void {
    this.#stoodFor.set(reference, sheet);
    for (const file of files) this.#shipped.set(file.path, file);
  }

  /** A style sheet's text. */
  styleSheetAt(reference: string, from: string): { text: string; file: string } | null {
    const file = this.#stoodFor.get(reference.trim()) ?? this.at(reference, from);
    return file && kindOfFile(file.path) === 'css' ? { text: textOfFile(file), file: file.path } : null;
  }

  /** A picture or font as an asset; also one that is written into the reference itself. */
  assetAt(reference: string, from: string, kinds: readonly string[] = ['picture', 'svg']): AssetRef | null {
    if (reference.startsWith('data:')) {
      const known = this.#inline.get(reference);
      if (known !== undefined) return known;
      const inline = INLINE.exec(reference);
      const made = inline ? this.#inlineAsset(inline, from) : null;
      this.#inline.set(reference, made);
      return made;
    }
    const known = this.#find(reference, from);
    if (!known && kinds.includes('picture')) return this.#standIn(reference, from);
    if (!known || !kinds.includes(kindOfFile(known.path))) return null;
    this.#used.add(known.path);
    return this.keep(known);
  }

  /** A picture as an asset; one that does not come along may have come before, from the same place. */
  pictureAt(reference: string, from: string): AssetRef | null {
    const path = reference.startsWith('data:') ? null : resolveReference(reference, from);
    const before = path === null ? undefined : this.#known.get(path);
    // What came from that very place goes before what is only called the same.
    if (!before || this.#files.has(path!) || this.#byEnding(path!)) return this.assetAt(reference, from);
    this.#assets.set(before.hash, before);
    return before;
  }

  /** What stands for a picture of another host. */
  #standIn(reference: string, from: string): AssetRef | null {
    const made = standInPicture(reference);
    if (!made) return null;
    const host = reference
      .replace(/^(https?:)?\/\//i, '')
      .replace(/[/?#][^]*$/, '')
      .slice(0, 120);
    const said = `${host} ${from}`;
    if (!this.#moved.has(said)) {
      this.#moved.add(said);
      this.notice(
        'info',
        'picture-stood-in',
        from,
        `Pictures at “${host}” are somewhere else and are not fetched; blank ones of the sizes that their addresses say stand for them. Bring the files in with the page to see them.`,
      );
    }
    let file = this.#standIns.get(made.path);
    if (!file) this.#standIns.set(made.path, (file = { path: made.path, bytes: made.bytes }));
    return this.keep(file);
  }

  keep(file: InputFile, type = typeOfFile(file.path)): AssetRef {
    // A picture is asked for by every page that shows it.
    const hash = hashOf(file.bytes);
    const known = this.#assets.get(hash);
    if (known) return known;
    const asset: AssetRef = { hash, type, size: file.bytes.length, file: file.path };
    this.#assets.set(hash, asset);
    this.#bytes.set(hash, file.bytes);
    return asset;
  }

  /** Marks a file as taken in, and keeps it. */
  take(file: InputFile): AssetRef {
    this.#used.add(file.path);
    return this.keep(file);
  }

  addressOf(asset: AssetRef): string {
    const known = this.#addressOfHash.get(asset.hash);
    if (known) return known;
    const address = this.#addressOf(asset, this.#bytes.get(asset.hash)!);
    this.#addressOfHash.set(asset.hash, address);
    this.#addresses.set(address, asset.hash);
    return address;
  }

  /** The hash of the asset that is shown under an address. */
  hashAt(address: string): string | null {
    return this.#addresses.get(address) ?? null;
  }

  #inlineAsset([, type, isBase64, data]: RegExpExecArray, from: string): AssetRef | null {
    const kept = keptType(type.toLowerCase());
    if (!kept) return null;
    try {
      const bytes = isBase64
        ? Uint8Array.from(atob(data.replace(/\s/g, '')), (c) => c.charCodeAt(0))
        : new TextEncoder().encode(decodeURIComponent(data));
      return bytes.length > limits.fileBytes ? null : this.keep({ path: `${from}#inline`, bytes }, kept);
    } catch {
      return null;
    }
  }

  #find(reference: string, from: string): InputFile | undefined {
    const path = resolveReference(reference, from);
    if (path === null) return undefined;
    return (
      this.#files.get(path) ?? this.#shipped.get(path) ?? this.#byEnding(path) ?? this.#byName(path, from)
    );
  }

  /**
   * Files that were dropped without their folders, or that lie elsewhere: the only one of its name, or the only one
   * that shares most of its path's end with what was asked for.
   */
  #byName(path: string, from: string): InputFile | undefined {
    this.#names ??= grouped(
      [...this.#files.values()].filter((file) => isMovable(file.path)),
      (file) => fileName(file.path),
    );
    const named = this.#names.get(fileName(path)) ?? [];
    const file = likestEnd(named, path);
    if (!file) return undefined;
    if (!this.#moved.has(path)) {
      this.#moved.add(path);
      const why = named.length > 1 ? 'whose path ends most alike' : 'the only file of that name';
      this.notice(
        'info',
        'found-elsewhere',
        from,
        `“${path}” did not come along; “${file.path}”, ${why}, stands for it.`,
      );
    }
    return file;
  }

  /** Pages are often written for a server's root, and come in as a folder somewhere beneath it. */
  #byEnding(path: string): InputFile | undefined {
    if (!path.includes('/')) return undefined;
    for (const [known, file] of this.#files) if (known.endsWith(`/${path}`)) return file;
    return undefined;
  }

  /** Folders that are packages by themselves. */
  get packages(): ReadonlySet<string> {
    return this.#packages;
  }

  /** Files that a build makes style sheets of. */
  get styleSources(): readonly string[] {
    return this.#styleSources;
  }

  #add(file: InputFile): void {
    if (MANIFEST.test(file.path.replace(/^.*\//, ''))) this.#packages.add(folderOf(file.path));
    const kind = kindOfFile(file.path);
    const refuse = (level: Notice['level'], code: string, message: string): void =>
      this.notice(level, code, file.path, message);
    if (STYLE_SOURCE.test(file.path)) this.#styleSources.push(file.path);
    if (kind === 'other') refuse('info', 'file-unknown', 'Left out: Tovel does not read files of this kind.');
    else if (kind === 'archive') this.#addArchive(file);
    else if (file.bytes.length > limits.fileBytes)
      refuse(
        'error',
        'file-too-large',
        `The file is ${megabytes(file.bytes.length)}; at most ${megabytes(limits.fileBytes)} is read. Export it with smaller pictures.`,
      );
    // A style sheet may say nothing.
    else if (file.bytes.length === 0 && kind !== 'css') refuse('error', 'file-empty', 'The file is empty.');
    else if (this.#files.size >= limits.files)
      refuse('error', 'too-many-files', `Left out: a batch has at most ${limits.files} files.`);
    else if (kind === 'project')
      refuse('warning', 'file-project', 'A .tovel file is a whole project: open it on the Projects page.');
    else {
      const path = uniqueName(file.path, (candidate) => this.#files.has(candidate), ' ');
      this.#files.set(path, { ...file, path });
    }
  }

  #addArchive(file: InputFile): void {
    const { files, notices } = unpack(file);
    this.notices.push(...notices);
    if (!files.length && !notices.length)
      this.notice('warning', 'archive-empty', file.path, 'The archive holds no files.');
    for (const inner of files) {
      if (kindOfFile(inner.path) === 'archive')
        this.notice(
          'warning',
          'archive-nested',
          inner.path,
          'An archive within an archive is not opened. Bring it in by itself.',
        );
      else this.#add(inner);
    }
  }
}

/** A file's name without its folders; some machines do not tell capitals. */

/** The type that something written into a reference is kept under; null for what is not kept. */
function keptType(type: string): string | null {
  const font = /^(?:font|application)\/(?:x-)?(?:font-)?(woff2?|ttf|truetype|otf|opentype)$/.exec(type)?.[1];
  if (font) return `font/${font === 'truetype' ? 'ttf' : font === 'opentype' ? 'otf' : font}`;
  return type.startsWith('image/') && (ASSET_TYPES as readonly string[]).includes(type) ? type : null;
}
