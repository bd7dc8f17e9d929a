/**
 * How near Tovel comes to drawings that machines made: pages of templates printed to PDF, and that PDF as SVG.
 * `npm run bench -- machine_drawings [PACKAGE...]` measures others; needs mupdf-tools and poppler-utils for the SVG.
 * With `TOVEL_BENCH_PICTURES` pictures of drawing, screen and difference lie in that folder.
 */
import { mkdir, mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  printHtml,
  readBatch,
  takeIn,
  textOf,
  walkElements,
  type Screen,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { launchChromium } from '@tovel/renderer/chromium';
import type { Page } from 'playwright-core';
import { differing, pageAt, shoot } from '../packages/reader/src/testing/fidelity.ts';
import { installed } from './installed.ts';
import { type DrawnPage, drawPage, type Maker, somePages, WIDTH } from './machine_drawings/drawings.ts';

const TO_LOOK_AT = [
  'startbootstrap-sb-admin-2@4.1.4',
  'now-ui-dashboard@1.0.1',
  'startbootstrap-clean-blog@6.0.9',
  'paper-dashboard@1.1.0',
];
const TO_MEASURE = [
  'soft-ui-dashboard@1.0.1',
  'black-dashboard@1.0.0',
  '@themesberg/volt-bootstrap-5-dashboard@1.4.1',
];
/** Pages of one template. */
const MOST = 4;

const option = (name: string): string | null =>
  process.argv.find((arg) => arg.startsWith(`--${name}=`))?.slice(name.length + 3) ?? null;
const wanted = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
const packages = wanted.length ? wanted : [...TO_LOOK_AT, ...TO_MEASURE];
const makers = (option('makers')?.split(',') ?? ['pdf', 'pages', 'text-svg', 'outline-svg']) as Maker[];
const pictures = process.env.TOVEL_BENCH_PICTURES;

interface Row {
  readonly name: string;
  readonly maker: Maker;
  /** Shares of pixels that differ from the page itself, and from the drawing as another program shows it. */
  readonly fromPage: number;
  readonly fromDrawing: number | null;
  /** Of the words of the page, those that are texts of the screen; and the other way round. */
  readonly recall: number;
  readonly precision: number;
  readonly elements: number;
  readonly vectors: number;
  readonly ms: number;
}

const packaged = await installed(packages);
const host = new HeadlessHost();
const folder = await mkdtemp(path.join(tmpdir(), 'tovel-drawings-'));
const browser = await launchChromium('Measuring', ['--allow-file-access-from-files']);
const context = await browser.newContext({ javaScriptEnabled: false });
await context.route(/^https?:/, (route) => route.abort());
const page = await context.newPage();
if (pictures) await mkdir(pictures, { recursive: true });
try {
  for (const name of packages) {
    const root = packaged.rootOf(name);
    const rows: Row[] = [];
    for (const file of await somePages(root, MOST)) {
      const drawn = await drawPage(page, root, file, path.join(folder, name.replace(/\W+/g, '_')));
      for (const maker of makers) if (drawn.drawings[maker]) rows.push(await measure(page, drawn, maker));
    }
    print(name, rows);
  }
} finally {
  await browser.close();
  await host.close();
  await packaged.remove();
  await rm(folder, { recursive: true, force: true });
}

async function measure(page: Page, drawn: DrawnPage, maker: Maker): Promise<Row> {
  const source = drawn.drawings[maker]!;
  const begin = performance.now();
  const result = await readBatch([{ path: path.basename(source), bytes: await readFile(source) }], host);
  const ms = performance.now() - begin;
  const design = addToDesign(emptyDesign, result);
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const plan = new EmissionPlan({ design, app });
  const screen = design.screens[0] as Screen | undefined;
  if (process.argv.includes('--notices'))
    for (const { level, message } of result.notices)
      console.log(`    ${maker} ${drawn.name}: ${level} ${message}`);
  const words: string[] = [];
  let [elements, vectors] = [0, 0];
  for (const { root } of design.screens)
    walkElements(root, (element) => {
      elements++;
      if (element.vector) vectors++;
      if (element.hidden) return false;
      if (element.text) words.push(...textOf(element).split(/\s+/).filter(Boolean));
    });
  let [fromPage, fromDrawing]: [number, number | null] = [1, null];
  if (screen) {
    const dataUrl = (hash: string): string => {
      const asset = design.assets.find((candidate) => candidate.hash === hash)!;
      return `data:${asset.type};base64,${Buffer.from(result.bytes.get(hash)!).toString('base64')}`;
    };
    const html = printHtml(emitScreenOf(plan, screen.key), dataUrl, design.fonts);
    await page.setViewportSize({
      width: Math.round(screen.width),
      height: Math.max(300, Math.min(Math.round(screen.height), 800)),
    });
    const emitted = await shoot(page, await pageAt(html));
    const out = pictures && path.join(pictures, `${drawn.name}.${maker}.png`);
    fromPage = await differing(drawn.picture, emitted, out);
    const look = maker.endsWith('svg') ? await lookOf(page, source, screen) : drawn.looks[maker];
    if (look) fromDrawing = await differing(look, emitted, out?.replace(/png$/, 'own.png'));
  }
  const { recall, precision } = agreement(drawn.words, words);
  return { name: drawn.name, maker, fromPage, fromDrawing, recall, precision, elements, vectors, ms };
}

/** A drawing as the browser shows it, at the size of the page that it was made of. */
async function lookOf(page: Page, source: string, { width, height }: Screen): Promise<Buffer> {
  await page.setViewportSize({ width: WIDTH, height: 800 });
  return shoot(
    page,
    await pageAt(
      `<body style="margin:0"><object type="image/svg+xml" data="file://${source}" width="${WIDTH}" height="${Math.round((height * WIDTH) / width)}" style="display:block"></object>`,
    ),
  );
}

/** Words as a bag: how many of the true ones are found, and of those found how many are true. */
function agreement(
  truth: readonly string[],
  found: readonly string[],
): { recall: number; precision: number } {
  const left = new Map<string, number>();
  for (const word of found) left.set(word, (left.get(word) ?? 0) + 1);
  let right = 0;
  for (const word of truth) {
    const n = left.get(word) ?? 0;
    if (n) {
      right++;
      left.set(word, n - 1);
    }
  }
  return { recall: right / Math.max(1, truth.length), precision: right / Math.max(1, found.length) };
}

function print(name: string, rows: readonly Row[]): void {
  const percent = (share: number | null): string =>
    (share === null ? '–' : `${(100 * share).toFixed(1)} %`).padStart(7);
  console.log(`\nDrawings that machines made: ${name}`);
  console.log(
    '                                       from page  drawing   words  of those  elements  drawn   ms',
  );
  for (const row of rows)
    console.log(
      `  ${row.maker.padEnd(12)}${row.name.slice(-22).padEnd(24)} ${percent(row.fromPage)}   ${percent(row.fromDrawing)} ${percent(row.recall)} ${percent(row.precision)}  ${String(row.elements).padStart(8)} ${String(row.vectors).padStart(6)} ${row.ms.toFixed(0).padStart(6)}`,
    );
}
