import { createHash } from 'node:crypto';
import { type EmittedFile, type EmittedProject, scopedSheet } from '@tovel/core';
import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { transform } from 'esbuild';
import { assetAddress, type Built, environmentAt, fileAskedFor } from './app_build.ts';
import { modulesScript } from './in_page_scripts.ts';
import {
  changesScript,
  helperLines,
  type LinkedScript,
  type Module,
  type PlacedModule,
  USES_ALL_HELPERS,
  wholeScript,
  withoutHelpers,
} from './linked_script.ts';
import { VENDOR } from './vendor.ts';

/** Where something of a script was written: the line from 1, and all of the file as it was then. */
export interface Origin {
  readonly path: string;
  readonly line: number;
  readonly text: string | null;
}

const MAIN = '/src/main.tsx';
/** So many builds back it is said what changed since; who has an older one loads all of it. */
const KEPT_BUILDS = 4;
/** Changes that are longer than this, in bytes, are not worth more than all of it. */
const LONGEST_CHANGES = 500_000;
/** Scripts of which it is known where their lines were written. */
const KEPT_SCRIPTS = 24;
/** What the page is made of beside the script and the sheet. */
const BESIDE = /^\/(?:index\.html|api\/[^/]+\.json)$/;

/** What was built at a time. */
interface Version {
  readonly version: string;
  readonly modules: ReadonlyMap<string, PlacedModule>;
  readonly sheet: string;
  readonly beside: string;
}
/** What a module is called by before it is known where it stands. */
const ASKED = /\brequire\("([^"\n]+)"\)/g;

/**
 * Puts the modules of an emitted project one behind the other into a script and a sheet, each as esbuild writes it by itself.
 * After a change only what changed is written anew, so that the time for that does not grow with the app; what is handed out
 * is bundled as a whole instead (`AppBuild`).
 */
export class LinkedBuild {
  readonly #base: string;
  #modules: ReadonlyMap<string, Module> = new Map();
  /** Paths of all files, one a line, and what each asks another for with these. */
  #paths = '';
  #ways = new Map<string, { readonly asks: readonly string[]; readonly to: ReadonlyMap<string, string> }>();
  /** Files that are compiled before they are asked for, also those that nothing asked for the last time. */
  readonly #early = new Map<string, { readonly text: string; readonly module: Promise<Module> }>();
  #helpers: Promise<readonly string[]> | null = null;
  /** The last one last. */
  #versions: readonly Version[] = [];
  /** The scripts that were handed out, by what they are called. */
  readonly #scripts = new Map<string, LinkedScript>();

  /** @param base path under which the app is served, with slashes at both ends */
  constructor(base: string) {
    this.#base = base;
  }

  /**
   * Begins with files of which it is known already that they will be in the next build.
   * @returns whether there was anything to do
   */
  begin(files: readonly EmittedFile[]): boolean {
    let begun = false;
    for (const file of files) {
      if (!('text' in file) || !/\.tsx?$/.test(file.path)) continue;
      const { text } = file;
      const path = `/${file.path}`;
      if (this.#modules.get(path)?.text === text || this.#early.get(path)?.text === text) continue;
      const module = this.#compiled(text, path);
      // Whoever asks for it hears what is wrong with it.
      module.catch(() => {});
      this.#early.set(path, { text, module });
      begun = true;
    }
    return begun;
  }

  /**
   * The app as a script and a sheet (`app.js`, `app.css`), and what became of it since it was built before
   * (`changes.VERSION.js`, by the version that a page has), where that can be taken over without loading all of it.
   * What cannot be read is said with its file and line.
   */
  async build(project: EmittedProject): Promise<Built> {
    const texts = new Map(project.files.map((file) => [`/${file.path}`, 'text' in file ? file.text : null]));
    const paths = [...texts.keys()].join('\n');
    if (paths !== this.#paths) this.#ways = new Map();
    this.#paths = paths;
    const beside = [...texts].filter(([path]) => BESIDE.test(path)).join('\n');
    try {
      const modules = new Map<string, Module>();
      // Those that are asked for are all read side by side, then those that they ask for.
      for (let open = [MAIN]; open.length;) {
        const made = await Promise.all(
          open.map((file) => this.#known(file, texts) ?? this.#module(file, texts)),
        );
        open.forEach((file, i) => modules.set(file, made[i]));
        const asked = open.flatMap((file) => [...this.#waysOf(file, modules.get(file)!, texts).values()]);
        open = [...new Set(asked)].filter((file) => !modules.has(file));
      }
      this.#modules = modules;
      return { files: await this.#linked(beside), error: null };
    } catch (error) {
      return { files: new Map(), error: (error as Error).message };
    } finally {
      for (const file of this.#early.keys())
        if (this.#modules.has(file) || !texts.has(file)) this.#early.delete(file);
    }
  }

  /**
   * Where something of a script was written; null where nothing is known of it.
   * @param script `VERSION` for all of the app, `VERSION-VERSION` for what became of it from one to the other
   * @param line from 1
   * @param column from 0
   */
  where(script: string, line: number, column: number): Origin | null {
    const place = this.#scripts.get(script)?.placed.findLast(({ from }) => from <= line - 1);
    if (!place?.module.map || line - 1 - place.from >= place.module.lines) return null;
    const found = originalPositionFor(new TraceMap(place.module.map), { line: line - place.from, column });
    return found.line === null
      ? null
      : { path: place.path.slice(1), line: found.line, text: place.module.text };
  }

  /** The files that one asks for, by how it says it; packages are none. */
  #waysOf(
    from: string,
    { asks }: Module,
    texts: ReadonlyMap<string, string | null>,
  ): ReadonlyMap<string, string> {
    const known = this.#ways.get(from);
    if (known?.asks === asks) return known.to;
    const to = new Map<string, string>();
    for (const asked of asks) {
      if (VENDOR[asked]) continue;
      const found = fileAskedFor(from, asked, (one) => texts.has(one));
      // A text may speak of it as code does; what is really missing is told when it is asked for.
      if (found !== null) to.set(asked, found);
    }
    this.#ways.set(from, { asks, to });
    return to;
  }

  /** All modules, each behind those that it asks for. */
  #inOrder(): string[] {
    const order: string[] = [];
    const seen = new Set<string>();
    const visit = (file: string): void => {
      if (seen.has(file)) return;
      seen.add(file);
      for (const to of this.#ways.get(file)!.to.values()) visit(to);
      order.push(file);
    };
    visit(MAIN);
    return order;
  }

  /** A module that is as it was. */
  #known(file: string, texts: ReadonlyMap<string, string | null>): Module | null {
    const known = this.#modules.get(file);
    return known && known.text === (texts.get(file) ?? null) ? known : null;
  }

  async #module(file: string, texts: ReadonlyMap<string, string | null>): Promise<Module> {
    const text = texts.get(file) ?? null;
    if (text === null) return plain(null, asDefault(assetAddress(this.#base, file)));
    if (file.endsWith('.module.css')) {
      const sheet = scopedSheet(text, file.replace(/^\/src\/|\.module\.css$/g, '').replace(/\W+/g, '_'));
      return plain(text, asDefault(Object.fromEntries(sheet.names)), this.#sheet(sheet.text));
    }
    if (file.endsWith('.css')) return plain(text, '', this.#sheet(text));
    if (file.endsWith('.json')) return plain(text, `module.exports = ${text.trim()};`);
    const early = this.#early.get(file);
    return early?.text === text ? early.module : this.#compiled(text, file);
  }

  async #compiled(text: string, file: string): Promise<Module> {
    const { code: whole, map } = await this.#transformed(text, file);
    const code = withoutHelpers(whole);
    const asks = [...new Set([...code.matchAll(ASKED)].map(([, asked]) => asked))];
    return { text, code, lines: code.split('\n').length, map, css: '', asks };
  }

  /** What esbuild writes at the head of each module that needs it, a line each: here it stands in the script once. */
  async #readHelpers(): Promise<readonly string[]> {
    const { code } = await this.#transformed(USES_ALL_HELPERS, 'helpers.ts');
    const lines = code.split('\n');
    return lines.slice(0, helperLines(lines));
  }

  #transformed(text: string, file: string): Promise<{ readonly code: string; readonly map: string }> {
    return transform(text, {
      sourcefile: file,
      loader: file.endsWith('.tsx') ? 'tsx' : 'ts',
      format: 'cjs',
      jsx: 'automatic',
      target: 'es2022',
      sourcemap: 'external',
      sourcesContent: false,
      supported: { 'dynamic-import': false },
      define: environmentAt(this.#base),
      logLevel: 'silent',
    });
  }

  /** A sheet with the addresses of its pictures. */
  #sheet(text: string): string {
    return text.replace(
      /url\(\s*(["']?)(\.[^"')]+)\1\s*\)/g,
      (_, __, to: string) => `url("${assetAddress(this.#base, to)}")`,
    );
  }

  async #linked(beside: string): Promise<Map<string, Uint8Array>> {
    const order = this.#inOrder();
    const sheet = order
      .map((file) => this.#modules.get(file)!.css)
      .filter((css) => css !== '')
      .join('\n');
    const last = this.#versions.at(-1)?.modules;
    const modules = order.map((path): PlacedModule => {
      const now = { path, module: this.#modules.get(path)!, ways: this.#ways.get(path)!.to };
      const before = last?.get(path);
      return before?.module === now.module && before.ways === now.ways ? before : now;
    });
    const helpers = await (this.#helpers ??= this.#readHelpers());
    const version = versionOf(modules, sheet, beside);
    const now: Version = {
      version,
      modules: new Map(modules.map((one) => [one.path, one])),
      sheet,
      beside,
    };
    const whole = wholeScript(modules, MAIN, version, { runtime: await modulesScript(), helpers });
    const scripts = new Map([['app.js', whole]]);
    this.#keep(version, whole);
    const known = this.#versions.filter((one) => one.version !== version);
    for (const before of [...known, now]) {
      const changes = before.beside === beside && changesSince(before, now, helpers);
      if (!changes || changes.bytes.length > LONGEST_CHANGES) continue;
      scripts.set(`changes.${before.version}.js`, changes);
      this.#keep(`${before.version}-${version}`, changes);
    }
    this.#versions = [...known, now].slice(-KEPT_BUILDS);
    return new Map([
      ...[...scripts].map(([name, { bytes }]) => [name, bytes] as const),
      ['app.css', new TextEncoder().encode(sheet)],
    ]);
  }

  #keep(name: string, script: LinkedScript): void {
    this.#scripts.set(name, script);
    if (this.#scripts.size > KEPT_SCRIPTS) this.#scripts.delete(this.#scripts.keys().next().value!);
  }
}

/** What an app is known by: whatever it is made of goes into it. */
function versionOf(modules: readonly PlacedModule[], sheet: string, beside: string): string {
  const bytes = createHash('sha256').update(sheet).update(beside);
  for (const one of modules) bytes.update(signOf(one));
  return bytes.digest('hex').slice(0, 16);
}

const signs = new WeakMap<PlacedModule, Buffer>();

/** What tells one module from any other. */
function signOf(placed: PlacedModule): Buffer {
  let sign = signs.get(placed);
  if (!sign) {
    const { path, ways, module } = placed;
    const said = JSON.stringify([path, [...ways]]);
    signs.set(placed, (sign = createHash('sha256').update(said).update(module.code).digest()));
  }
  return sign;
}

function changesSince(before: Version, now: Version, helpers: readonly string[]): LinkedScript {
  const changed = [...now.modules.values()].filter((one) => !isSame(one, before.modules.get(one.path)));
  return changesScript(changed, now.version, before.sheet !== now.sheet, helpers);
}

/** Whether a module does the same; what it looks like is in the sheet. */
const isSame = (one: PlacedModule, other: PlacedModule | undefined): boolean =>
  one === other ||
  (other !== undefined &&
    one.module.code === other.module.code &&
    one.ways.size === other.ways.size &&
    [...one.ways].every(([asked, to]) => other.ways.get(asked) === to));

const asDefault = (value: unknown): string =>
  `Object.defineProperty(exports, '__esModule', { value: true });\nexports.default = ${JSON.stringify(value)};`;

const plain = (text: string | null, code: string, css = ''): Module => ({
  text,
  code,
  lines: code.split('\n').length,
  map: null,
  css,
  asks: [],
});
