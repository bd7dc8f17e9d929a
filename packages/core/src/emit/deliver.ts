import { type EmittedFile, type EmittedProject } from './emitted.ts';
import type { Project } from '../model/project.ts';
import type { EmissionProgress } from './progress.ts';
import { PRINT_WIDTH } from './line_width.ts';
import { type TargetName, targets } from './targets.ts';

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
 * The code base as it is handed over: written for a target, then formatted by Prettier with the settings that it is
 * delivered with. Run has no need of that and takes what is written as it is.
 * @param target a name of `targets`
 */
export async function deliveredCode(
  project: Project,
  name: string,
  target: TargetName,
  tell?: EmissionProgress,
): Promise<EmittedProject> {
  const emitted = targets[target].emit(project, name, tell);
  return { ...emitted, files: await Promise.all(emitted.files.map(formatted)) };
}

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
  // Templates are settled only the second time.
  return parser === 'vue' ? print(once) : once;
}

/** What each line is about after the breaks between lines have moved: that of the line which its first letters were on. */
function movedLines(before: string, lines: readonly (string | null)[], after: string): (string | null)[] {
  const flat = before.split('\n').map((line) => line.replace(/\s+/g, ''));
  let at = 0;
  return after
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => {
      const wanted = line.replace(/\s+/g, '').slice(0, 24);
      // Close by, since nothing changes its order.
      for (let i = at; wanted !== '' && i < Math.min(flat.length, at + 12); i++)
        if (flat[i].includes(wanted)) {
          at = i;
          break;
        }
      return lines[at] ?? null;
    });
}
