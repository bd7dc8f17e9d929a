import { withTellingNames } from './screen_names.ts';
import type { AssetRef, Design, FontFace, Notice, Screen } from '../model/design.ts';
import { isObjectMember, stringifySorted } from '../json/json.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { BatchFiles } from './batch_files.ts';
import { baseName, folderOf, type InputFile, kindOfFile, resolveReference, textOfFile } from './files.ts';
import { libraryFiles } from './library_pages.ts';
import { cleanNotice, cleanScreen, fewEnough } from './gate.ts';
import type { IntakeHost } from './host.ts';
import { limits } from './limits.ts';
import { pagesLeadingAway, pagesLeadingOn } from './html/leads_on.ts';
import { type BegunPage, PageIntake } from './html/page_intake.ts';
import { piecesOfPages } from './html/page_pieces.ts';
import { samePages } from './html/same_pages.ts';
import { withoutNamespaces } from './html/class_namespace.ts';
import { withSameCanvas } from './html/same_canvas.ts';
import { readOra } from './ora/read_ora.ts';
import { withLetters } from './painted/letters.ts';
import { readPdfPages } from './pdf/read_pdf.ts';
import { isScreenPicture, pairPictures, type Pairing } from './picture/pairing.ts';
import { readPicture } from './picture/read_picture.ts';
import { openSvg, type SvgInput, type SvgResult } from './svg/read_svg.ts';

export interface IntakeProgress {
  readonly done: number;
  readonly total: number;
  /** The file that is being read. */
  readonly file: string;
}

export interface IntakeOptions {
  /** Keys of screens that are there already; the ones read here get others. */
  readonly taken?: readonly string[];
  /** Assets that are there already: a drawing that comes again alone finds its pictures among them. */
  readonly known?: readonly AssetRef[];
  /** Classes of pages that are there already, as `classesOf` gives them. */
  readonly classes?: readonly string[];
  readonly widths?: readonly number[];
  /** The path of the one file to read, which somebody wants as a screen, whatever it is among the others. */
  readonly only?: string;
  readonly onProgress?: (progress: IntakeProgress) => void | Promise<void>;
  /** Told each time that more screens were read; `read` is what there is until then. */
  readonly onScreens?: (read: () => ReadSoFar) => void;
  /** Asked before every file; what was read until then is kept. */
  readonly isCancelled?: () => boolean;
}

export interface IntakeResult {
  readonly screens: readonly Screen[];
  readonly assets: readonly AssetRef[];
  readonly fonts: readonly FontFace[];
  readonly notices: readonly Notice[];
  /** Texts that came along and say what the app is to be. */
  readonly brief: string | null;
  /** The bytes of the assets, by hash. */
  readonly bytes: ReadonlyMap<string, Uint8Array>;
  readonly wasCancelled: boolean;
}

/** What of a batch was read while more of it is to come. Names, and what all pages share, are settled at the end only. */
export type ReadSoFar = Pick<IntakeResult, 'screens' | 'assets' | 'fonts' | 'bytes'>;

/** Reads a batch of files into screens. A file that cannot be read is a notice; the others still come in. */
export async function readBatch(
  input: readonly InputFile[],
  host: IntakeHost,
  options: IntakeOptions = {},
): Promise<IntakeResult> {
  return new Batch(input, host, options).read();
}

const DESIGNS = ['svg', 'html', 'ora', 'pdf'];
/** What pages show, and could be a screen by itself. */
const SHOWN: ReadonlySet<string> = new Set(['svg', 'picture']);
/** A drawing at most this large, in px, beside pages is one of their icons. */
const ICON_SIZE = 128;
/** So many drawings of one kind in a folder beside pages are a set of icons. */
const LEAST_SET = 6;

/** How pages and sheets ask for drawings: to show them, parts of them, or beside the title of the page; not where links lead. */
const DRAWING_ASKED =
  /(?:\b(?:src|srcset|xlink:href)|<(?:link|use|image)\b[^<>]*?\shref)\s*=\s*["']([^"'\s?#]+\.svg)(?:[\s?#][^"']*)?["']|url\(\s*["']?([^"')?#]+\.svg)/gi;

class Batch {
  readonly #host: IntakeHost;
  readonly #options: IntakeOptions;
  readonly #files: BatchFiles;
  readonly #pages: PageIntake;
  /** Pages that do nothing but lead on, with those that they lead to. */
  readonly #leadingOn: ReadonlyMap<string, string>;
  /** Pages that say the very same as others, with those. */
  readonly #same: ReadonlyMap<string, string>;
  readonly #keys: Set<string>;
  readonly #begun = new Map<InputFile, Promise<BegunPage>>();

  constructor(input: readonly InputFile[], host: IntakeHost, options: IntakeOptions) {
    this.#host = host;
    this.#options = options;
    this.#keys = new Set(options.taken);
    this.#files = new BatchFiles(input, (asset, bytes) => host.addressOf(asset, bytes), options.known);
    this.#leadingOn = pagesLeadingOn(this.#files.all);
    this.#same = samePages(this.#files.all.filter(({ path }) => !this.#leadingOn.has(path)));
    const led = [...this.#leadingOn].map(([path, end]) => [path, this.#same.get(end) ?? end] as const);
    this.#pages = new PageIntake(this.#files, host, options.widths, new Map([...this.#same, ...led]));
  }

  async read(): Promise<IntakeResult> {
    const { queue, pairing } = this.#plan();
    const screens: Screen[] = [];
    let wasCancelled = false;
    for (const [done, file] of queue.entries()) {
      if (this.#options.isCancelled?.()) {
        wasCancelled = true;
        this.#files.notice('info', 'cancelled', file.path, 'Not read, because the intake was cancelled.');
        continue;
      }
      await this.#options.onProgress?.({ done, total: queue.length, file: file.path });
      await this.#beginPages(queue, done);
      const read = await this.#readDesign(file, pairing);
      screens.push(...read);
      if (read.length) this.#options.onScreens?.(() => this.#soFar(screens));
    }
    await this.#options.onProgress?.({ done: queue.length, total: queue.length, file: '' });
    const texts = this.#files.all.filter((file) => kindOfFile(file.path) === 'text');
    for (const file of texts) this.#files.take(file);
    this.#sayWhatBecameOfFiles(new Set(screens.map(({ source }) => source.file)));
    return {
      screens: withTellingNames(withoutNamespaces(withSameCanvas(screens), this.#options.classes)),
      assets: this.#files.assets,
      fonts: this.#pages.fonts,
      notices: fewEnough(this.#files.notices.map(cleanNotice)),
      brief: texts.length ? this.#brief(texts) : null,
      bytes: this.#files.bytes,
      wasCancelled,
    };
  }

  #soFar(screens: readonly Screen[]): ReadSoFar {
    const { assets, bytes } = this.#files;
    return { screens: withTellingNames(screens), assets, fonts: this.#pages.fonts, bytes };
  }

  /** Begins to read the pages of a queue from a place on, as far ahead as the host says. */
  async #beginPages(queue: readonly InputFile[], at: number): Promise<void> {
    for (const file of queue.slice(at, at + 1 + (this.#host.readsAhead ?? 0))) {
      if (kindOfFile(file.path) !== 'html' || this.#begun.has(file)) continue;
      const begun = this.#pages.begin(file);
      this.#begun.set(file, begun);
      // Each is made ready before the next: what they bring comes in their order. A failure is said when its turn comes.
      await begun.catch(() => undefined);
    }
  }

  async #page(file: InputFile): Promise<{ screen: Screen; notices: readonly Notice[] }> {
    const begun = await this.#begun.get(file)!;
    this.#begun.delete(file);
    return this.#pages.finish(begun, this.#keyFor(file.path, ''));
  }

  #brief(texts: readonly InputFile[]): string {
    const whole = texts.map(textOfFile).join('\n\n');
    if (whole.length <= limits.brief) return whole;
    this.#files.notice(
      'warning',
      'text-too-long',
      texts.at(-1)!.path,
      `The texts that came along have ${whole.length} characters; the first ${limits.brief} were kept.`,
    );
    return whole.slice(0, limits.brief).replace(/\p{Surrogate}/gu, '');
  }

  /** Which files are read as screens, and which pictures show how a screen should look. */
  #plan(): { queue: readonly InputFile[]; pairing: Pairing } {
    const all = this.#files.all;
    const { only } = this.#options;
    if (only !== undefined) {
      const queue = all.filter(({ path }) => path === only);
      return { queue, pairing: pairPictures(queue, [], '') };
    }
    const pages = all.filter((file) => kindOfFile(file.path) === 'html');
    // A drawing that a page or its style sheet shows as a picture is not a screen of its own.
    const sheets = pages.length ? all.filter((file) => kindOfFile(file.path) === 'css') : [];
    const shown = new Set([...pages, ...sheets].flatMap((file) => this.#picturesIn(file)));
    const sets = pages.length ? this.#iconSets(all, shown) : new Set<string>();
    const brought = pages.length ? this.#broughtByLibraries(all, shown) : new Set<string>();
    const inPictureFolder = pages.length ? pictureFolders(all, shown) : () => false;
    for (const [path, end] of this.#leadingOn)
      this.#files.notice(
        'info',
        'page-leads-on',
        path,
        `It does nothing but lead on to “${end}”: links to it lead there.`,
      );
    for (const [path, other] of this.#same)
      this.#files.notice(
        'info',
        'page-twice',
        path,
        `Left out: it says the very same as “${other}”, and links to it lead there.`,
      );
    const leadingAway = pagesLeadingAway(all);
    for (const [path, reference] of leadingAway)
      this.#files.notice(
        'info',
        'page-leads-away',
        path,
        `Left out: it does nothing but lead on to “${reference}”, which did not come along.`,
      );
    const pieces = piecesOfPages(all);
    for (const [path, page] of pieces)
      this.#files.notice('info', 'page-piece', path, `Left out: it is a piece of “${page}”, which has it.`);
    const designs = all.filter((file) => {
      if ([this.#leadingOn, this.#same, leadingAway, pieces].some((left) => left.has(file.path)))
        return false;
      if (sets.has(file.path) || brought.has(file.path)) return false;
      if (!DESIGNS.includes(kindOfFile(file.path)) || shown.has(file.path)) return false;
      if (!pages.length || kindOfFile(file.path) !== 'svg') return true;
      const svg = textOfFile(file);
      const why = isSymbolSheet(svg)
        ? 'a sheet of symbols, which shows nothing by itself'
        : isIcon(svg)
          ? 'a drawing as small as an icon, that no page shows'
          : inPictureFolder(file.path) && !hasTexts(svg)
            ? 'a drawing without words among the pictures of the pages, that no page shows'
            : null;
      if (why) this.#files.notice('info', 'icon-unused', file.path, `Left out: ${why}.`);
      return why === null;
    });
    const pictures = all.filter(
      (file) => kindOfFile(file.path) === 'picture' && !shown.has(file.path) && !brought.has(file.path),
    );
    const pairing = pairPictures(designs, pictures, this.#textsOf(pages));
    const screens = pictures.filter((picture) => isScreenPicture(picture, designs, pairing));
    return { queue: [...designs, ...screens].sort((a, b) => (a.path < b.path ? -1 : 1)), pairing };
  }

  /** Pages and pictures that libraries have for themselves, such as those of their demos. */
  #broughtByLibraries(all: readonly InputFile[], shown: ReadonlySet<string>): Set<string> {
    const could = all.filter(
      ({ path }) => [...DESIGNS, 'picture'].includes(kindOfFile(path)) && !shown.has(path),
    );
    const leadsTo = (page: InputFile): string[] =>
      kindOfFile(page.path) === 'html'
        ? [...textOfFile(page).matchAll(/\shref\s*=\s*["']([^"'#?]+\.x?html?)/gi)].flatMap(
            ([, href]) => resolveReference(href, page.path) ?? [],
          )
        : [];
    const found = libraryFiles(this.#files.packages, could, leadsTo);
    for (const [folder, files] of found)
      for (const { path } of files)
        if (kindOfFile(path) === 'html')
          this.#files.notice(
            'info',
            'library-pages',
            path,
            `Left out: a page of “${folder}”, which holds libraries and to which no other page leads.`,
          );
    return new Set([...found.values()].flatMap((files) => files.map(({ path }) => path)));
  }

  /** Drawings of folders that hold nothing else, all of one size and without a text: icons, flags and the like. */
  #iconSets(all: readonly InputFile[], shown: ReadonlySet<string>): Set<string> {
    const folders = new Map<string, InputFile[]>();
    for (const file of all) {
      const folder = file.path.replace(/[^/]*$/, '');
      folders.set(folder, [...(folders.get(folder) ?? []), file]);
    }
    const found = new Set<string>();
    for (const [folder, files] of folders) {
      const drawings = files.filter((file) => kindOfFile(file.path) === 'svg' && !shown.has(file.path));
      if (drawings.length < LEAST_SET || files.some((file) => kindOfFile(file.path) === 'html')) continue;
      const heads = drawings.map(textOfFile);
      const sizes = new Set(heads.map((text) => /viewBox\s*=\s*["']([^"']*)["']/.exec(text)?.[1] ?? ''));
      const withText = heads.filter((text) => /<text\b/.test(text)).length;
      if (sizes.size > Math.max(1, drawings.length / 20) || withText > drawings.length / 20) continue;
      for (const { path } of drawings) {
        found.add(path);
        this.#files.notice(
          'info',
          'icons-unused',
          path,
          `Left out: one of the drawings of “${folder}”, which are of one size, have no words, are shown by no page, and so are taken for icons.`,
        );
      }
    }
    return found;
  }

  /** All that could name a picture: pages and style sheets. */
  #textsOf(pages: readonly InputFile[]): string {
    const sheets = this.#files.all.filter((file) => ['css', 'svg'].includes(kindOfFile(file.path)));
    return [...pages, ...sheets].map(textOfFile).join('\n');
  }

  #picturesIn(page: InputFile): string[] {
    return [...textOfFile(page).matchAll(DRAWING_ASKED)].flatMap(
      ([, src, url]) => this.#files.at(src ?? url, page.path)?.path ?? [],
    );
  }

  async #readDesign(file: InputFile, pairing: Pairing): Promise<Screen[]> {
    const kind = kindOfFile(file.path);
    try {
      const made = await this.#readKind(kind, file);
      this.#files.notices.push(...made.notices);
      const screens = made.screens.flatMap((read) => {
        const { screen, notices } = cleanScreen(read);
        this.#files.notices.push(...notices);
        return screen ?? [];
      });
      if (!screens.length) return [];
      this.#files.take(file);
      const reference = pairing.referenceOf.get(file.path);
      const asset = reference && this.#files.take(reference);
      return screens.map((screen) => (asset ? { ...screen, reference: asset.hash } : screen));
    } catch (error) {
      this.#files.notice(
        'error',
        `${kind}-unreadable`,
        file.path,
        `This file could not be read: ${(error as Error).message}`,
      );
      return [];
    }
  }

  async #readKind(
    kind: string,
    file: InputFile,
  ): Promise<{ screens: readonly Screen[]; notices: readonly Notice[] }> {
    const key = (path = ''): string => this.#keyFor(file.path, path);
    const one = (made: { screen: Screen | null; notices: readonly Notice[] }) => ({
      screens: made.screen ? [made.screen] : [],
      notices: made.notices,
    });
    const asset = (reference: string): string | null =>
      this.#files.pictureAt(reference, file.path)?.hash ?? null;
    switch (kind) {
      case 'svg':
        return one(await this.#svg({ file: file.path, text: textOfFile(file), screenKey: key(), asset }));
      case 'html':
        return one(await this.#page(file));
      case 'ora':
        return one(
          readOra({
            file: file.path,
            bytes: file.bytes,
            screenKey: key(),
            keep: (layer) => this.#files.keep(layer).hash,
          }),
        );
      case 'pdf':
        return readPdfPages(file, await this.#ask('readPdf', 'PDF files')(file.bytes), {
          screenKey: key,
          keep: (picture) => this.#files.keep(picture).hash,
        });
      default:
        return one(await readPicture(this.#files.keep(file), file, key(), this.#host));
    }
  }

  async #svg(input: SvgInput): Promise<SvgResult> {
    const opened = openSvg(input);
    if (!opened.page) return opened;
    return opened.read(await withLetters(opened.page, this.#host.readText?.bind(this.#host) ?? null));
  }

  #ask<K extends 'readPdf'>(ability: K, what: string): NonNullable<IntakeHost[K]> {
    const found = this.#host[ability]?.bind(this.#host);
    if (!found) throw new Error(`${what} cannot be read here.`);
    return found as NonNullable<IntakeHost[K]>;
  }

  #keyFor(file: string, path: string): string {
    const stem = kebabCase(`${baseName(file).slice(0, 80)}${path ? ` ${Number(path) + 1}` : ''}`) || 'screen';
    const key = uniqueName(stem, (candidate) => this.#keys.has(candidate) || isObjectMember(candidate));
    this.#keys.add(key);
    return key;
  }

  /** A folder of sources has pages that look bare, since their style sheets are not made yet. */
  #saySourcesOfStyles(): void {
    const { all, styleSources } = this.#files;
    const kinds = all.filter(({ path }) => this.#files.isUsed(path)).map(({ path }) => kindOfFile(path));
    if (!styleSources.length || !kinds.includes('html') || kinds.includes('css')) return;
    const more = styleSources.length > 1 ? ` (and ${styleSources.length - 1} more)` : '';
    this.#files.notice(
      'warning',
      'styles-unbuilt',
      styleSources[0],
      `No page of this batch uses a style sheet, but “${styleSources[0]}”${more} came along, which a build makes style sheets of. Build the project, and bring in what the build makes.`,
    );
  }

  /** @param screens files that are screens */
  #sayWhatBecameOfFiles(screens: ReadonlySet<string>): void {
    const hasPages = [...screens].some((path) => kindOfFile(path) === 'html');
    const WORDS: Record<string, string> = {
      picture: 'No page or drawing of this batch shows this picture, so it was left out.',
      css: 'No page of this batch uses this style sheet, so it was left out.',
      font: 'No page of this batch uses this font file, so it was left out.',
    };
    const isAlone = this.#options.only !== undefined;
    if (!isAlone) this.#saySourcesOfStyles();
    for (const file of this.#files.all) {
      const kind = kindOfFile(file.path);
      if (this.#files.isUsed(file.path)) {
        this.#files.keep(file);
        if (!isAlone && hasPages && SHOWN.has(kind) && !screens.has(file.path))
          this.#files.notice(
            'info',
            'shown-by-pages',
            file.path,
            'It is shown by pages, and came in as a picture of theirs.',
          );
      } else if (isAlone) continue;
      else if (WORDS[kind]) this.#files.notice('info', `${kind}-unused`, file.path, WORDS[kind]);
    }
  }
}

const PICTURE_FOLDER =
  /^(img|imgs|images?|pictures?|pics?|photos?|icons?|logos?|flags?|fonts?|webfonts|sprites?|illustrations?|artworks?|pictograms?|favicons?|backgrounds?|brands?)$/i;

/** Whether a file lies among pictures: in a folder without pages that is called so, or that pages show pictures of. */
function pictureFolders(all: readonly InputFile[], shown: ReadonlySet<string>): (path: string) => boolean {
  const ofPages = new Set(
    all.filter(({ path }) => kindOfFile(path) === 'html').map(({ path }) => folderOf(path)),
  );
  const ofPictures = new Set([...shown].map(folderOf));
  return (path) => {
    const folder = folderOf(path);
    return (
      !ofPages.has(folder) &&
      (ofPictures.has(folder) || folder.split('/').some((name) => PICTURE_FOLDER.test(name)))
    );
  };
}

/** A drawing with so many texts is a screen wherever it lies. */
const LEAST_TEXTS = 4;
const hasTexts = (svg: string): boolean => svg.split(/<text\b/i, LEAST_TEXTS + 1).length > LEAST_TEXTS;

/** Whether a drawing only defines symbols that others use, and draws none of them. */
function isSymbolSheet(svg: string): boolean {
  if (!/<symbol\b/i.test(svg) || !/<\/svg>\s*$/i.test(svg)) return false;
  let within = 0;
  for (const [, end, tag, rest] of svg.matchAll(PARTS)) {
    if (!/^(symbol|defs)$/i.test(tag)) {
      if (within === 0 && !end) return false;
    } else if (end) within--;
    else if (!rest.endsWith('/')) within++;
  }
  return true;
}
/** Tags that draw, and those within which nothing is drawn; read in one pass, however the file is broken. */
const PARTS =
  /<(\/?)(symbol|defs|path|rect|circle|ellipse|line|polygon|polyline|text|image|use|foreignObject)\b([^<>]*)>/gi;

/** Whether a drawing is as small as an icon, by the size that it gives itself. */
function isIcon(svg: string): boolean {
  if (!/<\/svg>\s*$/i.test(svg)) return false;
  const head = /<svg\b[^>]*>/i.exec(svg.slice(0, 20_000))?.[0] ?? '';
  const view = /viewBox\s*=\s*["']\s*[-\d.]+[\s,]+[-\d.]+[\s,]+([\d.]+)[\s,]+([\d.]+)/i.exec(head);
  const given = /\swidth\s*=\s*["']([\d.]+)(px)?["']/i.exec(head)?.[1];
  const isSmall = Number(given ?? view?.[1] ?? Infinity) <= ICON_SIZE;
  // Icon sets often draw on a large grid and give no size; they have a path or two and no text.
  return (
    isSmall ||
    (given === undefined &&
      !/<(text|image|use)\b/i.test(svg) &&
      (svg.match(/<(path|circle|rect|polygon|g)\b/gi)?.length ?? 0) <= 4)
  );
}

/** The design with what a batch brought: a screen that came in again takes its old place, new ones stand at the end. */
export function addToDesign(
  design: Design,
  result: Pick<IntakeResult, 'screens' | 'assets' | 'notices'> &
    Partial<Pick<IntakeResult, 'fonts' | 'brief'>>,
): Design {
  const incoming = new Map(result.screens.map((screen) => [screen.key, screen]));
  const known = new Set(design.assets.map((asset) => asset.hash));
  const files = new Set(result.screens.map((screen) => screen.source.file));
  const kept = design.screens.map((screen) => {
    const again = incoming.get(screen.key);
    incoming.delete(screen.key);
    return again ?? screen;
  });
  const faces = new Map(
    [...(design.fonts ?? []), ...(result.fonts ?? [])].map((face) => [stringifySorted(face), face]),
  );
  const brief = result.brief ?? design.brief;
  return {
    ...design,
    screens: [...kept, ...incoming.values()],
    assets: [...design.assets, ...result.assets.filter((asset) => !known.has(asset.hash))],
    notices: fewEnough([...design.notices.filter((notice) => !files.has(notice.file)), ...result.notices]),
    ...(faces.size ? { fonts: [...faces.values()] } : {}),
    ...(brief ? { brief } : {}),
  };
}
