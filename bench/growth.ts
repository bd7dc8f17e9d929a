/**
 * How the delivered code grows with the pages of one frame: the side bar and top bar of a template, on each page a heading, a line,
 * and two to four of the template's own cards with other words; 10 pages and 40. Nobody decides anything.
 */
import {
  addToDesign,
  applyChange,
  deliveredCode,
  emptyApp,
  emptyDesign,
  type InputFile,
  partedAtFirst,
  readBatch,
  takeIn,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { chance } from '../packages/core/src/testing/chance.ts';
import { installed } from './installed.ts';
import { templateFiles } from './revisions/prepare.ts';

const TEMPLATE = 'startbootstrap-sb-admin-2@4.1.4';
const SIZES = [10, 40];
const WORDS =
  'Amber Birch Cedar Delta Ember Fjord Grove Harbor Iris Juniper Kelp Lagoon Maple Nectar Opal Prairie Quartz River Summit Tundra Umber Violet Willow Xenon Yarrow Zephyr Alder Basin Canyon Dune Estuary Fern Glacier Heath Islet Jetty Knoll Loch Mesa Nook'.split(
    ' ',
  );

const packaged = await installed([TEMPLATE]);
const host = new HeadlessHost();
try {
  const files = await templateFiles(packaged.rootOf(TEMPLATE));
  const textAt = (name: string): string =>
    new TextDecoder().decode(files.find(({ path }) => path.endsWith(name))!.bytes);
  const [frame, cards] = [textAt('blank.html'), textAt('cards.html')];
  const between = (from: string, to: string): string =>
    cards.slice(cards.indexOf(from), cards.indexOf(to, cards.indexOf(from) + from.length));
  const pieces = [
    between('<!-- Default Card Example -->', '<!-- Basic Card Example -->'),
    between('<!-- Basic Card Example -->', '</div>\n\n                        <div class="col-lg-6">'),
  ];
  const rest = files.filter(({ path }) => !path.endsWith('.html'));
  const lines: Awaited<ReturnType<typeof measure>>[] = [];
  for (const size of SIZES) lines.push(await measure([...rest, ...pages(size, frame, pieces)]));
  console.log(`  ${['pages', 'TSX lines', 'CSS lines', 'all'].map((cell) => cell.padStart(12)).join('')}`);
  SIZES.forEach((size, i) =>
    console.log(
      `  ${[size, lines[i].tsx, lines[i].css, lines[i].tsx + lines[i].css].map((cell) => String(cell).padStart(12)).join('')}`,
    ),
  );
  const [few, many] = lines.map(({ tsx, css }) => tsx + css);
  console.log(`\n  ${(many / few).toFixed(2)} times from ${SIZES[0]} to ${SIZES[1]} pages`);
} finally {
  await host.close();
  await packaged.remove();
}

function pages(count: number, frame: string, pieces: readonly string[]): InputFile[] {
  return Array.from({ length: count }, (_, i) => {
    const random = chance(i + 1);
    const words = (n: number): string =>
      Array.from({ length: n }, () => WORDS[Math.floor(random() * WORDS.length)]).join(' ');
    const shown = Array.from({ length: 2 + Math.floor(random() * 3) }, () => {
      const piece = pieces[Math.floor(random() * pieces.length)];
      const said = piece
        .replace(/(card-header">\s*)[^<]+/, (_all, before: string) => before + words(2))
        .replace(/(<h6[^>]*>)[^<]+/, (_all, before: string) => before + words(2))
        .replace(/(card-body">\s*)[^<]+/, (_all, before: string) => before + words(9));
      return `<div class="col-lg-6">${said}</div>`;
    });
    const title = `${WORDS[i % WORDS.length]} report`;
    const body = `<h1 class="h3 mb-4 text-gray-800">${title}</h1><p>${words(12)}.</p><div class="row">${shown.join('')}</div>`;
    const text = frame
      .replace(/<h1 class="h3 mb-4 text-gray-800">Blank Page<\/h1>/, () => body)
      .replace(/<title>[^<]*/, () => `<title>${title}`);
    return { path: `${WORDS[i % WORDS.length].toLowerCase()}.html`, bytes: new TextEncoder().encode(text) };
  });
}

async function measure(files: readonly InputFile[]): Promise<{ readonly tsx: number; readonly css: number }> {
  const design = addToDesign(emptyDesign, await readBatch(files, host, { widths: [1280] }));
  const came = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const app = applyChange(came, partedAtFirst({ design, app: came }));
  const { files: written } = await deliveredCode({ design, app }, 'Grown', 'react');
  const linesOf = (ending: string): number =>
    written.reduce(
      (sum, file) =>
        'text' in file && file.path.startsWith('src/') && file.path.endsWith(ending)
          ? sum + file.text.split('\n').length
          : sum,
      0,
    );
  return { tsx: linesOf('.tsx'), css: linesOf('.css') };
}
