import type { AssetRef, Design, Notice, Screen } from '../model/design.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import {
  hashOf,
  type InputFile,
  kindOfFile,
  resolveReference,
  textOfFile,
  typeOfFile,
  unpack,
} from './files.ts';
import { assembleScreen } from './html/assemble.ts';
import { defaultPlan, type PageReading, type ReadingPlan } from './html/reading.ts';
import { type SafePage, sanitisePage } from './html/sanitise.ts';
import { limits, megabytes } from './limits.ts';
import { readSvg } from './svg/read_svg.ts';

/** What intake needs from where it runs: a browser that lays out a page, and addresses under which it may show assets. */
export interface IntakeHost {
  /** Lays out a page in a frame without scripts and reads it. Rejects when that takes too long. */
  readPage(page: SafePage, plan: ReadingPlan): Promise<PageReading>;
  /** An address that the frame may show an asset under. */
  addressOf(asset: AssetRef, bytes: Uint8Array): string;
}

export interface IntakeProgress {
  readonly done: number;
  readonly total: number;
  /** The file that is being read. */
  readonly file: string;
}

export interface IntakeOptions {
  /** Keys that screens have already, so that new ones differ. */
  readonly takenKeys?: Iterable<string>;
  readonly widths?: readonly number[];
  readonly onProgress?: (progress: IntakeProgress) => void | Promise<void>;
  /** Asked before every file; what was read until then is kept. */
  readonly isCancelled?: () => boolean;
}

export interface IntakeResult {
  readonly screens: readonly Screen[];
  readonly assets: readonly AssetRef[];
  readonly notices: readonly Notice[];
  /** The bytes of the assets, by hash. */
  readonly bytes: ReadonlyMap<string, Uint8Array>;
  readonly wasCancelled: boolean;
}

/** Reads a batch of files into screens. A file that cannot be read is a notice; the others still come in. */
export async function readBatch(
  input: readonly InputFile[],
  host: IntakeHost,
  options: IntakeOptions = {},
): Promise<IntakeResult> {
  const batch = new Batch(input, host, options);
  return batch.read();
}

class Batch {
  readonly #host: IntakeHost;
  readonly #options: IntakeOptions;
  readonly #notices: Notice[] = [];
  readonly #files = new Map<string, InputFile>();
  readonly #assets = new Map<string, AssetRef>();
  readonly #bytes = new Map<string, Uint8Array>();
  readonly #addresses = new Map<string, string>();
  readonly #used = new Set<string>();
  readonly #keys: Set<string>;

  constructor(input: readonly InputFile[], host: IntakeHost, options: IntakeOptions) {
    this.#host = host;
    this.#options = options;
    this.#keys = new Set(options.takenKeys ?? []);
    for (const file of input) this.#add(file);
  }

  async read(): Promise<IntakeResult> {
    const designs = [...this.#files.values()].filter((file) =>
      ['svg', 'html'].includes(kindOfFile(file.path)),
    );
    // A drawing that a page shows as a picture is not a screen of its own.
    const pages = designs.filter((file) => kindOfFile(file.path) === 'html');
    const shown = new Set(pages.flatMap((page) => this.#picturesIn(page)));
    const queue = designs.filter((file) => !shown.has(file.path)).sort((a, b) => (a.path < b.path ? -1 : 1));
    const screens: Screen[] = [];
    let wasCancelled = false;
    for (const [done, file] of queue.entries()) {
      if (this.#options.isCancelled?.()) {
        wasCancelled = true;
        this.#notice('info', 'cancelled', file.path, 'Not read, because the intake was cancelled.');
        continue;
      }
      await this.#options.onProgress?.({ done, total: queue.length, file: file.path });
      const screen = await this.#readScreen(file);
      if (screen) screens.push(screen);
    }
    await this.#options.onProgress?.({ done: queue.length, total: queue.length, file: '' });
    this.#sayWhatWasNotUsed();
    return {
      screens: withDistinctNames(screens),
      assets: [...this.#assets.values()],
      notices: this.#notices,
      bytes: this.#bytes,
      wasCancelled,
    };
  }

  #notice(level: Notice['level'], code: string, file: string, message: string): void {
    this.#notices.push({ level, code, file, message });
  }

  #add(file: InputFile): void {
    const kind = kindOfFile(file.path);
    if (kind === 'archive') {
      const { files, notices } = unpack(file);
      this.#notices.push(...notices);
      if (!files.length && !notices.length)
        this.#notice('warning', 'archive-empty', file.path, 'The archive holds no files.');
      for (const inner of files) {
        if (kindOfFile(inner.path) === 'archive')
          this.#notice(
            'warning',
            'archive-nested',
            inner.path,
            'An archive within an archive is not opened. Bring it in by itself.',
          );
        else this.#add(inner);
      }
    } else if (file.bytes.length > limits.fileBytes) {
      this.#notice(
        'error',
        'file-too-large',
        file.path,
        `The file is ${megabytes(file.bytes.length)}; at most ${megabytes(limits.fileBytes)} is read. Export it with smaller pictures.`,
      );
    } else if (file.bytes.length === 0) {
      this.#notice('error', 'file-empty', file.path, 'The file is empty.');
    } else if (this.#files.size >= limits.files) {
      this.#notice(
        'error',
        'too-many-files',
        file.path,
        `Left out: a batch has at most ${limits.files} files.`,
      );
    } else if (kind === 'other') {
      this.#notice('info', 'file-unknown', file.path, 'Left out: Tovel does not read files of this kind.');
    } else if (kind === 'project') {
      this.#notice(
        'warning',
        'file-project',
        file.path,
        'A .tovel file is a whole project: open it on the Projects page.',
      );
    } else {
      const path = uniqueName(file.path, (candidate) => this.#files.has(candidate), ' ');
      this.#files.set(path, { ...file, path });
    }
  }

  #picturesIn(page: InputFile): string[] {
    return [
      ...textOfFile(page).matchAll(
        /(?:src|xlink:href)\s*=\s*["']([^"']+\.svg)["']|url\(\s*["']?([^"')]+\.svg)/gi,
      ),
    ].flatMap(([, src, url]) => {
      const path = resolveReference(src ?? url, page.path);
      return path && this.#files.has(path) ? [path] : [];
    });
  }

  async #readScreen(file: InputFile): Promise<Screen | null> {
    const screenKey = uniqueName(
      kebabCase(file.path.replace(/^.*\//, '').replace(/\.[^.]*$/, '')) || 'screen',
      (key) => this.#keys.has(key),
    );
    const kind = kindOfFile(file.path);
    try {
      const { screen, notices } =
        kind === 'svg' ? this.#readSvg(file, screenKey) : await this.#readHtml(file, screenKey);
      this.#notices.push(...notices);
      if (!screen) return null;
      this.#keys.add(screenKey);
      this.#keep(file);
      return screen;
    } catch (error) {
      this.#notice(
        'error',
        `${kind}-unreadable`,
        file.path,
        `This file could not be read: ${(error as Error).message}`,
      );
      return null;
    }
  }

  #readSvg(file: InputFile, screenKey: string): { screen: Screen | null; notices: Notice[] } {
    return readSvg({
      file: file.path,
      text: textOfFile(file),
      screenKey,
      asset: (reference) => this.#assetAt(reference, file.path)?.hash ?? null,
    });
  }

  async #readHtml(file: InputFile, screenKey: string): Promise<{ screen: Screen | null; notices: Notice[] }> {
    const page = sanitisePage(file.path, textOfFile(file), {
      styleSheet: (reference, from) => {
        const path = resolveReference(reference, from);
        const sheet = path ? this.#files.get(path) : undefined;
        if (!sheet) return null;
        this.#used.add(sheet.path);
        return { text: textOfFile(sheet), file: sheet.path };
      },
      picture: (reference, from) => {
        const asset = this.#assetAt(reference, from);
        return asset ? this.#addressOf(asset) : null;
      },
    });
    const widths = this.#options.widths ?? defaultPlan.widths;
    const plan: ReadingPlan = {
      ...defaultPlan,
      widths: page.width
        ? [page.width, ...widths.filter((w) => w < page.width!)]
        : [...widths].sort((a, b) => b - a),
    };
    const reading = await this.#host.readPage(page, plan);
    const made = assembleScreen(
      {
        file: file.path,
        screenKey,
        title: page.title,
        asset: (address) => this.#addresses.get(address) ?? null,
      },
      reading,
    );
    return { screen: made.screen, notices: [...page.notices, ...made.notices] };
  }

  #assetAt(reference: string, from: string): AssetRef | null {
    const inline = /^data:(image\/(?:png|jpeg|webp|gif|avif));base64,([\sA-Za-z0-9+/=]+)$/.exec(reference);
    if (inline) {
      const bytes = Uint8Array.from(atob(inline[2].replace(/\s/g, '')), (c) => c.charCodeAt(0));
      return this.#keep({ path: `${from}#inline`, bytes }, inline[1]);
    }
    const path = resolveReference(reference, from);
    const file = path ? this.#files.get(path) : undefined;
    if (!file || !['picture', 'svg'].includes(kindOfFile(file.path))) return null;
    this.#used.add(file.path);
    return this.#keep(file);
  }

  #keep(file: InputFile, type = typeOfFile(file.path)): AssetRef {
    const hash = hashOf(file.bytes);
    const known = this.#assets.get(hash);
    if (known) return known;
    const asset: AssetRef = { hash, type, size: file.bytes.length, file: file.path };
    this.#assets.set(hash, asset);
    this.#bytes.set(hash, file.bytes);
    return asset;
  }

  #addressOf(asset: AssetRef): string {
    for (const [address, hash] of this.#addresses) if (hash === asset.hash) return address;
    const address = this.#host.addressOf(asset, this.#bytes.get(asset.hash)!);
    this.#addresses.set(address, asset.hash);
    return address;
  }

  #sayWhatWasNotUsed(): void {
    for (const file of this.#files.values()) {
      const kind = kindOfFile(file.path);
      if (this.#used.has(file.path)) this.#keep(file);
      else if (kind === 'picture')
        this.#notice(
          'info',
          'picture-unused',
          file.path,
          'No page or drawing of this batch shows this picture, so it was left out.',
        );
      else if (kind === 'css')
        this.#notice(
          'info',
          'css-unused',
          file.path,
          'No page of this batch uses this style sheet, so it was left out.',
        );
      else if (kind === 'font')
        this.#notice(
          'info',
          'font-unused',
          file.path,
          'Fonts are not carried over yet; the next one in the list is used.',
        );
    }
  }
}

/** Screens that bear the same name take the name of their file as well. */
function withDistinctNames(screens: readonly Screen[]): Screen[] {
  const count = new Map<string, number>();
  for (const screen of screens)
    count.set(screen.name.toLowerCase(), (count.get(screen.name.toLowerCase()) ?? 0) + 1);
  const taken = new Set<string>();
  return screens.map((screen) => {
    const isShared = count.get(screen.name.toLowerCase())! > 1;
    const wanted = isShared
      ? `${screen.name} (${screen.source.file.replace(/^.*\//, '').replace(/\.[^.]*$/, '')})`
      : screen.name;
    const name = uniqueName(wanted, (candidate) => taken.has(candidate.toLowerCase()), ' ');
    taken.add(name.toLowerCase());
    return name === screen.name ? screen : { ...screen, name };
  });
}

/** The design with what a batch brought added; screens of files that were there before stay beside the new ones. */
export function addToDesign(
  design: Design,
  result: Pick<IntakeResult, 'screens' | 'assets' | 'notices'>,
): Design {
  const known = new Set(design.assets.map((asset) => asset.hash));
  return {
    ...design,
    screens: [...design.screens, ...result.screens],
    assets: [...design.assets, ...result.assets.filter((asset) => !known.has(asset.hash))],
    notices: [...design.notices, ...result.notices],
  };
}
