import { type EmittedProject, scopedSheet } from '@tovel/core';
import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { transform } from 'esbuild';
import { assetAddress, type Built, environmentAt, fileAskedFor } from './app_build.ts';
import { VENDOR } from './vendor.ts';

/** A file of the project as it stands in the script, or in the sheet. */
interface Module {
  readonly text: string | null;
  /** What it does, as a function of `exports`, `require` and `module`. */
  readonly code: string;
  /** Lines of the code. */
  readonly lines: number;
  readonly map: string | null;
  readonly css: string;
  /** What it takes from other files and from packages, as it says it, in the order that it says it in. */
  readonly asks: readonly string[];
}

/** Where something of the script was written; the line from 1. */
export interface Origin {
  readonly path: string;
  readonly line: number;
}

const MAIN = '/src/main.tsx';
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
  #helpers: Promise<readonly string[]> | null = null;
  /** The modules of the script, with the line from 0 that the code of each begins on. */
  #placed: readonly { readonly path: string; readonly from: number; readonly module: Module }[] = [];

  /** @param base path under which the app is served, with slashes at both ends */
  constructor(base: string) {
    this.#base = base;
  }

  /** The app as a script and a sheet (`app.js`, `app.css`); what cannot be read is said with its file and line. */
  async build(project: EmittedProject): Promise<Built> {
    const texts = new Map(project.files.map((file) => [`/${file.path}`, 'text' in file ? file.text : null]));
    const paths = [...texts.keys()].join('\n');
    if (paths !== this.#paths) this.#ways = new Map();
    this.#paths = paths;
    try {
      const modules = new Map<string, Module>();
      // Those that are asked for are all read side by side, then those that they ask for.
      for (let open = [MAIN]; open.length;) {
        const made = await Promise.all(open.map((file) => this.#module(file, texts)));
        open.forEach((file, i) => modules.set(file, made[i]));
        const asked = open.flatMap((file) => [...this.#waysOf(file, modules.get(file)!, texts).values()]);
        open = [...new Set(asked)].filter((file) => !modules.has(file));
      }
      this.#modules = modules;
      return { files: await this.#linked(this.#inOrder()), error: null };
    } catch (error) {
      return { files: new Map(), error: (error as Error).message };
    }
  }

  /**
   * Where something of the script was written; null where nothing is known of it.
   * @param line from 1
   * @param column from 0
   */
  where(line: number, column: number): Origin | null {
    const place = this.#placed.findLast(({ from }) => from <= line - 1);
    if (!place?.module.map || line - 1 - place.from >= place.module.lines) return null;
    const found = originalPositionFor(new TraceMap(place.module.map), { line: line - place.from, column });
    return found.line === null ? null : { path: place.path.slice(1), line: found.line };
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

  async #module(file: string, texts: ReadonlyMap<string, string | null>): Promise<Module> {
    const text = texts.get(file) ?? null;
    const known = this.#modules.get(file);
    if (known?.text === text) return known;
    if (text === null) return plain(null, asDefault(assetAddress(this.#base, file)));
    if (file.endsWith('.module.css')) {
      const sheet = scopedSheet(text, file.replace(/^\/src\/|\.module\.css$/g, '').replace(/\W+/g, '_'));
      return plain(text, asDefault(Object.fromEntries(sheet.names)), this.#sheet(sheet.text));
    }
    if (file.endsWith('.css')) return plain(text, '', this.#sheet(text));
    if (file.endsWith('.json')) return plain(text, `module.exports = ${text.trim()};`);
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

  async #linked(order: readonly string[]): Promise<Map<string, Uint8Array>> {
    const asked = new Set(order.flatMap((file) => this.#modules.get(file)!.asks));
    const packages = Object.keys(VENDOR).filter((name) => asked.has(name));
    const out = [
      ...packages.map((name, i) => `import * as package${i} from "/_vendor/${VENDOR[name]}.js";`),
      'const packages = {',
      ...packages.map((name, i) => `  ${JSON.stringify(name)}: { __esModule: true, ...package${i} },`),
      '};',
      RUNTIME,
      ...(await (this.#helpers ??= this.#readHelpers())),
    ];
    let line = out.join('\n').split('\n').length;
    const placed = order.map((file) => {
      const module = this.#modules.get(file)!;
      const ways = Object.fromEntries(this.#ways.get(file)!.to);
      out.push(
        `define(${JSON.stringify(file)}, ${JSON.stringify(ways)}, function (exports, require, module) {`,
        module.code,
        '});',
      );
      const from = line + 1;
      line = from + module.lines + 1;
      return { path: file, from, module };
    });
    this.#placed = placed;
    out.push(`load(${JSON.stringify(MAIN)});`, '');
    const bytes = new TextEncoder();
    const css = order.map((file) => this.#modules.get(file)!.css).filter((sheet) => sheet !== '');
    return new Map([
      ['app.js', bytes.encode(out.join('\n'))],
      ['app.css', bytes.encode(css.join('\n'))],
    ]);
  }
}

/** Knows modules by their path, and runs each when it is first asked for. */
const RUNTIME = `const modules = new Map();
function define(path, ways, run) {
  modules.set(path, { ways, run, module: null });
}
function wayOf(path, asked) {
  const to = modules.get(path).ways[asked];
  if (!to) throw new Error(path + ' imports ' + asked + ', which is not there');
  return to;
}
function load(path) {
  const known = modules.get(path);
  if (!known.module) {
    known.module = { exports: {} };
    known.run(known.module.exports, (asked) => packages[asked] ?? load(wayOf(path, asked)), known.module);
  }
  return known.module.exports;
}`;

const USES_ALL_HELPERS =
  "import a, * as b from 'a'; export * from 'b'; export const c = [a, b, () => import('c')];";

/** What begins a helper; one that is called otherwise, since a module has its name, stays where it is. */
const HELPER =
  /^var __(create|defProp|getOwnPropDesc|getOwnPropNames|getProtoOf|hasOwnProp|export|copyProps|reExport|toESM|toCommonJS) = /;

/** How many lines at the head of a module are helpers: each ends with the first line that is not indented. */
function helperLines(lines: readonly string[]): number {
  let end = 0;
  while (HELPER.test(lines[end] ?? '')) {
    if (!lines[end].endsWith(';'))
      do end++;
      while (/^\s/.test(lines[end] ?? ''));
    end++;
  }
  return end;
}

/** A module without the helpers at its head, on the same lines. */
function withoutHelpers(code: string): string {
  const lines = code.split('\n');
  const end = helperLines(lines);
  return '\n'.repeat(end) + lines.slice(end).join('\n');
}

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
