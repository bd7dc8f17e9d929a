import path from 'node:path';
import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  type InputFile,
  noticeCauses,
  packProject,
  readBatch,
  stringifySorted,
  partedAtFirst,
  takeIn,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { type Command, EXIT, Misuse, type Output, parseArguments } from './command.ts';
import { readInputs, writeOut } from './files.ts';

export const intake: Command = {
  usage: 'tovel intake PATH... [--widths 390,768,1280] [--out FILE]',
  summary: 'reads screens from files, folders and zips',
  help: `Reads SVG drawings, HTML pages with the style sheets, pictures and fonts beside them,
OpenRaster files, PDF files (a page a screen), and PNG, JPEG and WebP pictures with the
text in them; from files, folders and zips. A picture named like a page, or the only one
beside it, shows how that page should look.

  --widths LIST  widths in px at which pages are read; the widest is the page's own
  --out FILE     FILE.json: the design document. FILE.tovel: a project with routes made
                 from the names and the links that the pages themselves have.
                 Without it the design document goes to standard output.

What was left out or could not be read is said on standard error.`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['widths', 'out']);
    if (!paths.length) throw new Misuse('Which files? Name files, folders or zips.');
    const widths = options.widths?.split(',').map(Number);
    if (widths?.some((width) => !Number.isInteger(width) || width < 200 || width > 4000))
      throw new Misuse('--widths takes whole numbers from 200 to 4000, with commas between.');
    const { out } = options;
    if (out !== undefined && !/\.(json|tovel)$/.test(out))
      throw new Misuse('--out takes a name that ends in .json or .tovel.');
    const files = await readInputs(paths, output);
    const result = await read(files, widths, output);
    for (const { level, message, files: of } of noticeCauses(result.notices)) {
      const more = of.length > 1 ? ` (and ${of.length - 1} more)` : '';
      output.say(`${level}: ${of[0]}${more}: ${message}`);
    }
    const design = addToDesign(emptyDesign, result);
    if (out?.endsWith('.tovel')) {
      const came = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
      const app = applyChange(came, partedAtFirst({ design, app: came }));
      await writeOut(
        out,
        packProject({ name: path.basename(out, '.tovel'), design, app, bytes: result.bytes }),
      );
    } else if (out) await writeOut(out, `${stringifySorted(design, 1)}\n`);
    else output.out(`${stringifySorted(design, 1)}\n`);
    return result.notices.some((notice) => notice.level === 'error') ? EXIT.findings : EXIT.good;
  },
};

/** Reads a batch; the browser is gone again before anything is made of what was read. */
async function read(
  files: readonly InputFile[],
  widths: readonly number[] | undefined,
  output: Output,
): Promise<Awaited<ReturnType<typeof readBatch>>> {
  const host = new HeadlessHost();
  try {
    return await readBatch(files, host, {
      ...(widths ? { widths } : {}),
      onProgress: ({ done, total, file }) => void (file && output.say(`${done + 1}/${total} ${file}`)),
    });
  } finally {
    await host.close();
  }
}
