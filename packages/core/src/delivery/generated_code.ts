import { type EmittedFile, type EmittedProject } from '../emit/emitted.ts';
import { FLOW_SHEET, printFlow } from '../flow/print_flow.ts';
import type { Project } from '../model/project.ts';
import type { EmissionProgress } from '../emit/progress.ts';
import { PRINT_WIDTH } from '../emit/line_width.ts';
import { type TargetName, targets } from '../emit/targets.ts';
import { movedLines } from './moved_lines.ts';

/**
 * Texts that are formatted, with the formatter's name for their language. HTML is not among them: what a break between lines
 * shows follows from styles that it does not know.
 */
const PARSERS: readonly (readonly [RegExp, string])[] = [
  [/\.tsx?$/, 'typescript'],
  [/\.js$/, 'babel'],
  [/\.css$/, 'css'],
  [/\.vue$/, 'vue'],
  [/\.json$/, 'json'],
];

/**
 * The code base as it is generated: written for a target, then formatted by Prettier with the settings that it is delivered with.
 * Run has no need of that and takes what is written as it is.
 * @param target a name of `targets`
 * @param isWanted which files are looked at; others are as they were written first
 */
export async function generatedCode(
  project: Project,
  name: string,
  target: TargetName,
  tell?: EmissionProgress,
  isWanted: (path: string, emitted: EmittedProject) => boolean = () => true,
): Promise<EmittedProject> {
  const emitted = targets[target].emit(project, name, tell);
  const unread: string[] = [];
  const files = await Promise.all(
    emitted.files.map(async (file) => {
      if (!isWanted(file.path, emitted)) return file;
      try {
        return await formatted(file);
      } catch (error) {
        // One file that is not as it should be is no reason to hand over none.
        if (!(error instanceof SyntaxError)) throw error;
        unread.push(`${file.path}: ${error.message.split('\n')[0]}`);
        return file;
      }
    }),
  );
  files.push(
    { path: FLOW_SHEET, text: printFlow(project, name) },
    { path: 'ci.sh', text: jobFile(target !== 'html') },
  );
  return {
    ...emitted,
    files: files.sort((a, b) => (a.path < b.path ? -1 : 1)),
    ...(unread.length ? { unread: unread.sort() } : {}),
  };
}

/** What a service of continuous integration runs: the app's own checks, then whether it is still what the design says. */
const jobFile = (isBuilt: boolean): string =>
  [
    '#!/bin/sh',
    '# For continuous integration: any service that runs a shell can run this file.',
    '# PROJECT is the project as Tovel exports it, TOVEL the command that Tovel is called by.',
    'set -eu',
    ...(isBuilt ? ['', 'npm install', 'npm run build', 'npm test'] : []),
    '',
    'PROJECT="${PROJECT:-design.tovel}"',
    'if [ -f "$PROJECT" ]; then',
    '  ${TOVEL:-npx tovel} check "$PROJECT" --fail-on error',
    '  ${TOVEL:-npx tovel} deliver "$PROJECT" --into . --dry-run',
    'else',
    '  echo "There is no $PROJECT, so nothing was held against the design."',
    'fi',
    '',
  ].join('\n');

async function formatted(file: EmittedFile): Promise<EmittedFile> {
  if (!('text' in file)) return file;
  const text = await formattedText(file.path, file.text);
  if (text === file.text) return file;
  const { lines, ...rest } = file;
  return { ...rest, text, ...(lines ? { lines: movedLines(file.text, lines, text) } : {}) };
}

/**
 * A text as it is handed over; the very text where it is of no language that is formatted.
 * @throws SyntaxError of the formatter where it cannot be read
 */
export async function formattedText(path: string, written: string): Promise<string> {
  const parser = PARSERS.find(([pattern]) => pattern.test(path))?.[1];
  if (!parser) return written;
  const before = known.get(path);
  if (before?.written === written) return before.text;
  // Large, and of use only here.
  const [{ format }, ...plugins] = await Promise.all([
    import('prettier/standalone'),
    import('prettier/plugins/estree'),
    import('prettier/plugins/typescript'),
    import('prettier/plugins/postcss'),
    import('prettier/plugins/babel'),
    import('prettier/plugins/html'),
  ]);
  const print = (code: string): Promise<string> =>
    format(code, {
      parser,
      // What ends in .tsx is written otherwise in some places.
      filepath: path,
      plugins: plugins.map((plugin) => ('default' in plugin ? plugin.default : plugin)) as never[],
      singleQuote: true,
      printWidth: PRINT_WIDTH,
    });
  const once = await print(written);
  const text = isSettled(parser, once) ? once : await print(once);
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(path, { written, text });
  return text;
}

/**
 * Whether the formatter leaves what it wrote as it is. Templates are settled only the second time, and so are lines of
 * elements with blanks of their own between them.
 */
const isSettled = (parser: string, once: string): boolean =>
  parser === 'typescript' ? !once.includes(`{' '}`) : parser !== 'vue';

/** What was formatted last, by path: from one change to the next most files stay as they are. */
const known = new Map<string, { readonly written: string; readonly text: string }>();
const MOST_KNOWN = 2000;
