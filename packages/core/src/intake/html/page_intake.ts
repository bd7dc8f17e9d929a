import type { FontFace, Notice, Screen } from '../../model/design.ts';
import type { BatchFiles } from '../batch_files.ts';
import { type InputFile, resolveReference, textOfFile } from '../files.ts';
import type { IntakeHost } from '../host.ts';
import { assembleScreen } from './assemble.ts';
import { type GlyphSource, IconGlyphs } from './icon_glyphs.ts';
import { defaultPlan, type PageReading, type ReadingPlan } from './reading.ts';
import { type SafePage, sanitisePage } from './sanitise.ts';
import { type IconLibrary, packageAddress, packageSheetsIn, scriptedIconsIn } from './outside_packages.ts';
import { type CleanSheet, fontFaceCss, type FontRule, type PageFiles } from './style_sheet.ts';
import { iconClassCss, type WebFont } from './web_fonts.ts';

/** A page that is being read. */
export interface BegunPage {
  readonly file: InputFile;
  readonly title: string;
  /** The faces that it may show its text in. */
  readonly faces: readonly FontRule[];
  readonly notices: readonly Notice[];
  readonly reading: Promise<PageReading>;
}

/** Reads the pages of a batch: what they share is looked at once. */
export class PageIntake {
  readonly #files: BatchFiles;
  readonly #host: IntakeHost;
  readonly #widths: readonly number[];
  readonly #cleaned = new Map<string, CleanSheet>();
  readonly #faces = new Map<string, FontFace>();
  readonly #shipped = new Map<string, Promise<readonly FontRule[]>>();
  /** Sheets of other hosts, by their addresses: which version stands for each; null where none does. */
  readonly #sheets = new Map<string, Promise<string | null>>();
  /** Drawings by the names that pages give scripts. */
  readonly #icons = new Map<IconLibrary, Map<string, string>>();
  readonly #glyphs: GlyphSource;
  readonly #leadingOn: ReadonlyMap<string, string>;

  /** @param leadingOn pages that do nothing but lead on, with those that they lead to */
  constructor(
    files: BatchFiles,
    host: IntakeHost,
    widths: readonly number[] = defaultPlan.widths,
    leadingOn: ReadonlyMap<string, string> = new Map(),
  ) {
    this.#files = files;
    this.#leadingOn = leadingOn;
    this.#host = host;
    this.#widths = widths;
    this.#glyphs = new IconGlyphs(() => [...this.#faces.values()], files.bytes);
  }

  /** The faces that the pages read so far show their text in. */
  get fonts(): readonly FontFace[] {
    return [...this.#faces.values()];
  }

  /**
   * Makes a page ready and begins to read it. Pages can be read side by side; what becomes of them is the same as one
   * after the other where they are finished in the order in which they were begun.
   */
  async begin(file: InputFile): Promise<BegunPage> {
    const source = textOfFile(file);
    const stoodIn = await this.#bringSheets(source);
    await this.#bringIcons(source);
    const page = sanitisePage(file.path, source, this.#pageFiles());
    const notices: Notice[] = [...page.notices];
    const say = (level: Notice['level'], code: string, message: string): void =>
      void notices.push({ level, code, file: file.path, message });
    for (const [address, shipped] of stoodIn)
      say(
        'info',
        'sheet-stood-in',
        `The style sheet “${address.slice(0, 120)}” is somewhere else and is not fetched; ${shipped}, which comes with Tovel, stands for it.`,
      );
    const styles: string[] = [];
    /** What the page's own rules may overrule. */
    const early: string[] = [];
    const faces = [...page.fonts];
    for (const font of page.webFonts) {
      const rules = await this.#shippedRules(font);
      styles.push(...rules.map(fontFaceCss));
      if (font.isIcons) early.push(iconClassCss(font));
      if (rules.length) faces.push(...rules);
      else
        say(
          'warning',
          'missing-font',
          `The font “${font.family}” comes from a font service and is not among those that Tovel ships; ${fallbackOf(page, font.family)} is used. Bring its file in with the page.`,
        );
    }
    if (page.utilities) styles.push(await this.#utilities(page, say));
    const begun = early.length
      ? page.html.replace(/<head[^>]*>/i, (head) => `${head}<style>${early.join('')}</style>`)
      : page.html;
    const html = styles.length
      ? begun.replace('</head>', () => `<style>${styles.join('\n').replace(/<\/style/gi, '')}</style></head>`)
      : begun;
    const reading = this.#host.readPage({ html }, this.#planFor(page.width));
    // Said by who finishes the page.
    reading.catch(() => undefined);
    return { file, title: page.title, faces, notices, reading };
  }

  async finish(
    { file, title, faces, notices, reading }: BegunPage,
    screenKey: string,
  ): Promise<{ screen: Screen; notices: readonly Notice[] }> {
    for (const rule of faces) this.#remember(rule);
    const made = assembleScreen(
      {
        file: file.path,
        screenKey,
        title,
        asset: (address) => this.#files.hashAt(address),
        glyphs: this.#glyphs,
      },
      await reading,
    );
    return { screen: made.screen, notices: [...notices, ...made.notices] };
  }

  #planFor(width: number | null): ReadingPlan {
    return {
      ...defaultPlan,
      widths: width
        ? [width, ...this.#widths.filter((w) => w < width)]
        : [...this.#widths].sort((a, b) => b - a),
    };
  }

  /** Sheets that a page asks other hosts for and that come with Tovel, with what they are. */
  async #bringSheets(html: string): Promise<ReadonlyMap<string, string>> {
    const brought = new Map<string, string>();
    for (const address of packageSheetsIn(html)) {
      let shipped = this.#sheets.get(address);
      if (!shipped) this.#sheets.set(address, (shipped = this.#bringSheet(address)));
      const name = await shipped;
      if (name !== null) brought.set(address, name);
    }
    return brought;
  }

  async #bringSheet(address: string): Promise<string | null> {
    const named = packageAddress(address);
    // Without it the page comes in as it is, which is said then.
    const shipped = named && (await this.#host.shippedSheet?.(named).catch(() => null));
    if (!shipped) return null;
    const folder = `shipped/${named.name}-${shipped.version}`;
    this.#files.stand(
      address,
      { path: `${folder}/${shipped.sheet}`, bytes: new TextEncoder().encode(shipped.text) },
      shipped.files.map((one) => ({ ...one, path: `${folder}/${one.path}` })),
    );
    return `${named.name} ${shipped.version}`;
  }

  async #bringIcons(html: string): Promise<void> {
    for (const [library, names] of scriptedIconsIn(html)) {
      let known = this.#icons.get(library);
      if (!known) this.#icons.set(library, (known = new Map()));
      const missing = names.filter((name) => !known.has(name));
      if (!missing.length) continue;
      const drawn = (await this.#host.shippedIcons?.(library, missing).catch(() => null)) ?? {};
      for (const [name, svg] of Object.entries(drawn)) known.set(name, svg);
    }
  }

  #pageFiles(): PageFiles {
    const shown =
      (kinds: readonly string[]) =>
      (reference: string, from: string): string | null => {
        const asset = this.#files.assetAt(reference, from, kinds);
        return asset && this.#files.addressOf(asset);
      };
    return {
      styleSheet: (reference, from) => this.#files.styleSheetAt(reference, from),
      picture: shown(['picture', 'svg']),
      font: shown(['font']),
      icon: (library, name) => this.#icons.get(library)?.get(name) ?? null,
      leadsOn: (reference, from) => {
        const path = resolveReference(reference, from);
        const end = path === null ? undefined : this.#leadingOn.get(path);
        return end === undefined ? null : `/${end}${/[?#].*$/.exec(reference)?.[0] ?? ''}`;
      },
      cleaned: this.#cleaned,
    };
  }

  async #utilities(
    page: SafePage,
    say: (level: Notice['level'], code: string, message: string) => void,
  ): Promise<string> {
    if (!this.#host.compileUtilities) {
      say(
        'warning',
        'utilities',
        'The utility classes of this page cannot be compiled here, so it looks bare.',
      );
      return '';
    }
    try {
      return await this.#host.compileUtilities(page.utilities!);
    } catch (error) {
      say(
        'warning',
        'utilities',
        `The utility classes of this page could not be compiled: ${(error as Error).message}`,
      );
      return '';
    }
  }

  #remember(rule: FontRule): void {
    const asset = this.#files.hashAt(rule.address);
    if (!asset) return;
    const { address: _address, ...face } = rule;
    this.#faces.set(`${face.family} ${face.weight} ${face.style} ${face.unicodeRange ?? ''}`, {
      ...face,
      asset,
    });
  }

  #shippedRules(font: WebFont): Promise<readonly FontRule[]> {
    const key = JSON.stringify(font);
    let rules = this.#shipped.get(key);
    if (!rules) {
      rules = Promise.resolve(this.#host.shippedFont?.(font) ?? []).then((faces) =>
        faces.map(({ bytes, type, file, ...face }) => ({
          family: font.family,
          weight: face.weight,
          style: face.style,
          ...(face.unicodeRange ? { unicodeRange: face.unicodeRange } : {}),
          address: this.#files.addressOf(this.#files.keep({ path: file, bytes }, type)),
        })),
      );
      this.#shipped.set(key, rules);
    }
    return rules;
  }
}

/** What a page shows in place of a family: the next one in its own list. */
function fallbackOf(page: SafePage, family: string): string {
  const name = family.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const next = new RegExp(`["']?${name}["']?\\s*,\\s*["']?([\\w -]+)`, 'i').exec(page.html)?.[1].trim();
  return next ? `“${next}”, the next in the list,` : 'the browser’s own font';
}
