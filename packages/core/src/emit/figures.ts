import type { EmittedProject } from './emitted.ts';

/** What a developer wants to know of code before taking it over. Lines are those of the text as it is. */
export interface CodeFigures {
  readonly files: number;
  /** Lines of markup and code, and of styles. */
  readonly codeLines: number;
  readonly styleLines: number;
  /** Files that each draw something: screens, layouts, components. */
  readonly parts: number;
  /** The longest of them, and the one that is given most. */
  readonly longest: { readonly path: string; readonly lines: number } | null;
  readonly mostGiven: { readonly path: string; readonly props: number } | null;
  readonly rules: number;
  /** Declarations a rule, mean. */
  readonly declarations: number;
  /** Rules that say the very same as another. */
  readonly sameRules: number;
  /** Elements that are written, each once. */
  readonly elements: number;
  /** Colours that have no name. */
  readonly hardColors: number;
}

/** Files that are written for this project, and not the same in every one: of a project that is built, and of plain pages. */
const BUILT = /^src\/(screens|components|layouts|overlays)\/|^src\/styles\/shared\.module\.css$/;
const PLAIN = /\.html$|(^|\/)(page|not-found)\.(css|js)$|^styles\/shared\.css$|^overlays\//;
const PART = /\.(tsx|vue|html)$/;

export function figuresOf({ files }: EmittedProject): CodeFigures {
  const isOwn = files.some(({ path }) => path === 'package.json') ? BUILT : PLAIN;
  const own = files.flatMap((file) => ('text' in file && isOwn.test(file.path) ? [file] : []));
  const sheets = own.filter(({ path }) => path.endsWith('.css'));
  const code = own.filter(({ path }) => /\.(tsx?|vue|html|js)$/.test(path) && !/\.test\.tsx?$/.test(path));
  const parts = code.filter(({ path }) => PART.test(path) && !path.endsWith('.data.tsx'));
  const bodies = sheets.flatMap(({ text }) =>
    [...text.matchAll(/\{([^{}]*)\}/g)].map(([, body]) => body.trim()),
  );
  const sum = <T>(some: readonly T[], of: (one: T) => number): number =>
    some.reduce((total, one) => total + of(one), 0);
  const count = (text: string, pattern: RegExp): number => text.match(pattern)?.length ?? 0;
  const most = <T>(some: readonly T[], of: (one: T) => number): T | undefined =>
    some.reduce<T | undefined>((best, one) => (best && of(best) >= of(one) ? best : one), undefined);
  const propsIn = ({ text }: { readonly text: string }): number =>
    /Props \{\n([\s\S]*?)\n\}/.exec(text)?.[1].match(/^ {2}\w+\??:/gm)?.length ?? 0;
  const longest = most(parts, ({ text }) => linesIn(text));
  const mostGiven = most(parts, propsIn);
  return {
    files: files.length,
    codeLines: sum(code, ({ text }) => linesIn(text)),
    styleLines: sum(sheets, ({ text }) => linesIn(text)),
    parts: parts.length,
    longest: longest ? { path: longest.path, lines: linesIn(longest.text) } : null,
    mostGiven: mostGiven && propsIn(mostGiven) ? { path: mostGiven.path, props: propsIn(mostGiven) } : null,
    rules: bodies.length,
    declarations: bodies.length
      ? sum(bodies, (body) => body.split(';').filter((part) => part.trim()).length) / bodies.length
      : 0,
    sameRules: bodies.length - new Set(bodies).size,
    elements: sum(parts, ({ text }) => count(text, /<[a-zA-Z]/g)),
    hardColors: sum(sheets, ({ text }) => count(text, /#[0-9a-f]{3,8}\b|\brgb\(/g)),
  };
}

const linesIn = (text: string): number => text.replace(/\n$/, '').split('\n').length;
