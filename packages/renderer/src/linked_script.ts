import { VENDOR } from './vendor.ts';

/** A file of the project as it stands in the script, or in the sheet. */
export interface Module {
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

/** A module with the files that it asks for, by how it says it. */
export interface PlacedModule {
  readonly path: string;
  readonly module: Module;
  readonly ways: ReadonlyMap<string, string>;
}

/** A script as bytes, and the line from 0 that the code of each of its modules begins on. */
export interface LinkedScript {
  readonly bytes: Uint8Array;
  readonly placed: readonly { readonly path: string; readonly from: number; readonly module: Module }[];
}

interface Parts {
  /** What stands before the modules, whose packages are known as `packages`. */
  readonly before: readonly string[];
  /** What stands around each of them. */
  readonly open: string;
  readonly close: string;
  readonly after: string;
}

/** Puts modules one behind the other, each as a function that is called when somebody asks for it. */
function linked(modules: readonly PlacedModule[], { before, open, close, after }: Parts): LinkedScript {
  const asked = new Set(modules.flatMap(({ module }) => module.asks));
  // What components are drawn with, by themselves and while they change.
  if (asked.has('react/jsx-runtime')) asked.add('react');
  const packages = Object.keys(VENDOR).filter((name) => asked.has(name));
  const out = [
    ...packages.map((name, i) => `import * as package${i} from "/_vendor/${VENDOR[name]}.js";`),
    'const packages = {',
    ...packages.map((name, i) => `  ${JSON.stringify(name)}: { __esModule: true, ...package${i} },`),
    '};',
    ...before,
  ];
  const head = `${out.join('\n')}\n`;
  let line = head.split('\n').length - 1;
  const placed = modules.map(({ path, module }) => {
    const from = line + 1;
    line = from + module.lines + 1;
    return { path, from, module };
  });
  const code = modules.map((one) => pieceOf(one, open, close));
  return { bytes: Buffer.concat([Buffer.from(head), ...code, Buffer.from(`${after}\n`)]), placed };
}

const pieces = new WeakMap<PlacedModule, Map<string, Buffer>>();

/** A module as it stands in a script, as bytes: of an app of some size most are the same after an edit. */
function pieceOf(placed: PlacedModule, open: string, close: string): Buffer {
  const known = pieces.get(placed) ?? new Map<string, Buffer>();
  pieces.set(placed, known);
  let piece = known.get(open);
  if (!piece) {
    const { path, ways, module } = placed;
    const head = `${JSON.stringify(path)}, ${JSON.stringify(Object.fromEntries(ways))}`;
    piece = Buffer.from(`${open}${head}, function (exports, require, module) {\n${module.code}\n}${close}\n`);
    known.set(open, piece);
  }
  return piece;
}

/**
 * The whole app as a script that runs its main module.
 * @param runtime what knows its modules, as `tovelModules`
 * @param version what it is told apart by from others: the same for the same
 */
export const wholeScript = (
  modules: readonly PlacedModule[],
  main: string,
  version: string,
  { runtime, helpers }: { readonly runtime: string; readonly helpers: readonly string[] },
): LinkedScript =>
  linked(modules, {
    before: [runtime, `const app = tovelModules(packages, ${JSON.stringify(version)});`, ...helpers],
    open: 'app.define(',
    close: ');',
    after: `app.load(${JSON.stringify(main)});`,
  });

/** What became of an app, as a script that says it; `AppModules` takes it over while the app runs. */
export const changesScript = (
  modules: readonly PlacedModule[],
  version: string,
  isSheetNew: boolean,
  helpers: readonly string[],
): LinkedScript =>
  linked(modules, {
    before: [
      ...helpers,
      `export const version = ${JSON.stringify(version)};`,
      `export const isSheetNew = ${isSheetNew};`,
      'export { packages };',
      'export const modules = [',
    ],
    open: '[',
    close: '],',
    after: '];',
  });

/** What makes esbuild write all the helpers that a module may need. */
export const USES_ALL_HELPERS =
  "import a, * as b from 'a'; export * from 'b'; export const c = [a, b, () => import('c')];";

/** What begins a helper; one that is called otherwise, since a module has its name, stays where it is. */
const HELPER =
  /^var __(create|defProp|getOwnPropDesc|getOwnPropNames|getProtoOf|hasOwnProp|export|copyProps|reExport|toESM|toCommonJS) = /;

/** How many lines at the head of a module are helpers: each ends with the first line that is not indented. */
export function helperLines(lines: readonly string[]): number {
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
export function withoutHelpers(code: string): string {
  const lines = code.split('\n');
  const end = helperLines(lines);
  return '\n'.repeat(end) + lines.slice(end).join('\n');
}
