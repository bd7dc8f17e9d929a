/** Pages of templates as machines draw them: printed to PDF by Chromium, and that PDF as SVG by two converters. */
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { folderFiles } from '../../packages/reader/src/testing/folder_files.ts';

/** How a drawing was made. */
export type Maker = 'pdf' | 'pages' | 'text-svg' | 'outline-svg';

/** One page of a template, what it looks like, and the drawings of it. */
export interface DrawnPage {
  readonly name: string;
  /** The page itself at the width of the drawings, as PNG. */
  readonly picture: Buffer;
  readonly words: readonly string[];
  readonly drawings: Readonly<Partial<Record<Maker, string>>>;
  /** How the drawing looks where it is shown, as PNG; by the maker. */
  readonly looks: Readonly<Partial<Record<Maker, Buffer>>>;
}

export const WIDTH = 1280;
/** Height of the pages that a long page is cut into. */
const PAPER = 900;
/** Programs that turn PDF into SVG, with how they are called. */
const CONVERTERS = {
  'text-svg': [
    'mutool',
    (pdf: string, svg: string) => ['convert', '-F', 'svg', '-O', 'text=text', '-o', svg, pdf],
  ],
  'outline-svg': ['pdftocairo', (pdf: string, svg: string) => ['-svg', pdf, svg]],
} as const satisfies Partial<Record<Maker, readonly [string, (pdf: string, svg: string) => string[]]>>;

const PAGE = /\.html?$/;

/** Some of a template's pages, spread over all that it has. */
export async function somePages(root: string, most: number): Promise<string[]> {
  const all = (await folderFiles(root))
    .map((file) => file.path)
    .filter(
      (file) => PAGE.test(file) && !/(^|\/)(node_modules|src|scss|less|docs?|partials|\.[^/]*)\//.test(file),
    );
  const step = Math.max(1, all.length / most);
  return all.filter((_, i) => Math.floor(i / step) !== Math.floor((i - 1) / step)).slice(0, most);
}

/**
 * Draws a page in all ways that this machine has the programs for.
 * @param page a page of a browser in which no script runs and nothing outside is reached
 */
export async function drawPage(page: Page, root: string, file: string, folder: string): Promise<DrawnPage> {
  await mkdir(folder, { recursive: true });
  const name = file.replace(PAGE, '').replace(/[^\w-]+/g, '_');
  const at = (ending: string): string => path.join(folder, `${name}${ending}`);
  await page.setViewportSize({ width: WIDTH, height: 800 });
  await page.emulateMedia({ media: 'screen' });
  await page.goto(`file://${path.join(root, file)}`, { waitUntil: 'load' });
  const { height, words } = await page.evaluate(textOfPage);
  await page.setViewportSize({ width: WIDTH, height: PAPER });
  const onPaper = await page.screenshot({ animations: 'disabled', fullPage: true });
  await page.setViewportSize({ width: WIDTH, height });
  const picture = await page.screenshot({ animations: 'disabled' });
  const print = { printBackground: true, margin: { top: 0, right: 0, bottom: 0, left: 0 } };
  await writeFile(at('.pdf'), await page.pdf({ ...print, width: `${WIDTH}px`, height: `${height + 1}px` }));
  await writeFile(at('.pages.pdf'), await page.pdf({ ...print, width: `${WIDTH}px`, height: `${PAPER}px` }));
  const drawings: Partial<Record<Maker, string>> = { pdf: at('.pdf'), pages: at('.pages.pdf') };
  const looks: Partial<Record<Maker, Buffer>> = { pages: onPaper };
  for (const [maker, [program, args]] of Object.entries(CONVERTERS) as [
    keyof typeof CONVERTERS,
    (typeof CONVERTERS)[keyof typeof CONVERTERS],
  ][]) {
    const svg = at(`.${maker}.svg`);
    try {
      execFileSync(program, args(at('.pdf'), svg), { stdio: 'ignore' });
    } catch {
      console.log(`  ${program} did not make ${path.basename(svg)}; its figures are not there.`);
      continue;
    }
    // One converter numbers its pages.
    const made = [svg, at(`.${maker}1.svg`)].find(existsSync);
    if (made) drawings[maker] = made;
  }
  try {
    execFileSync('pdftoppm', ['-r', '96', '-png', '-singlefile', at('.pdf'), at('.pdf-look')], {
      stdio: 'ignore',
    });
    looks.pdf = await readFile(at('.pdf-look.png'));
  } catch {
    // The page itself is what is left to compare with.
  }
  await writeFile(at('.png'), picture);
  return { name, picture, words, drawings, looks };
}

/* Runs in the page. */
function textOfPage(): { height: number; words: string[] } {
  const texts: string[] = [];
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const parent = node.parentElement!;
    if (/^(script|style|noscript|option|textarea|template)$/i.test(parent.tagName)) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    const box = range.getBoundingClientRect();
    const style = getComputedStyle(parent);
    if (box.width < 1 || box.height < 1 || style.visibility !== 'visible' || style.opacity === '0') continue;
    if (box.right <= 0 || box.left >= innerWidth || box.bottom <= 0) continue;
    if (box.top >= document.documentElement.scrollHeight) continue;
    const how = style.textTransform;
    const text = node.textContent ?? '';
    const shown =
      how === 'uppercase'
        ? text.toUpperCase()
        : how === 'lowercase'
          ? text.toLowerCase()
          : how === 'capitalize'
            ? text.replace(/(^|\s)\S/g, (letter) => letter.toUpperCase())
            : text;
    texts.push(shown);
  }
  // What fields show is no text of the page.
  for (const field of document.querySelectorAll<HTMLInputElement>('input, textarea, select')) {
    const box = field.getBoundingClientRect();
    if (box.width < 1 || /^(checkbox|radio|hidden|range|color|file|image)$/.test(field.type)) continue;
    texts.push(
      field instanceof HTMLSelectElement
        ? (field.selectedOptions[0]?.text ?? '')
        : field.value || field.placeholder,
    );
  }
  // Icons of a font are drawings, not words.
  const words = texts
    .join(' ')
    .replace(/[\ue000-\uf8ff]/g, ' ')
    .split(/\s+/)
    .filter(Boolean);
  return { height: Math.max(document.documentElement.scrollHeight, 300), words };
}
