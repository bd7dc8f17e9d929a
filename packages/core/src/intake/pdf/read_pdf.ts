import type { Notice, Screen } from '../../model/design.ts';
import { textOf, walkElements } from '../../model/project.ts';
import { baseName, type InputFile } from '../files.ts';
import { readSvg } from '../svg/read_svg.ts';
import type { PdfPage, PdfShape, PdfText } from './pdf_page.ts';

export interface PdfContext {
  /** The key of the screen that a page becomes, by the page's number from 0. */
  readonly screenKey: (page: string) => string;
  readonly keep: (picture: InputFile) => string;
}

/** Makes a screen of each page: written as a drawing first, so that text and boxes are found as in any drawing. */
export function readPdfPages(
  file: InputFile,
  pages: readonly PdfPage[],
  context: PdfContext,
): { screens: Screen[]; notices: Notice[] } {
  const screens: Screen[] = [];
  const notices: Notice[] = [];
  pages.forEach((page, i) => {
    const path = pages.length > 1 ? String(i) : '';
    const pictures = page.pictures.map((picture, k) =>
      context.keep({ path: `${file.path}#${i + 1}-${k + 1}.png`, bytes: picture.png }),
    );
    const made = readSvg({
      file: file.path,
      text: svgOfPage(page),
      screenKey: context.screenKey(path),
      asset: (reference) => pictures[Number(/^picture:(\d+)$/.exec(reference)?.[1])] ?? null,
    });
    notices.push(
      ...made.notices.map((notice) => ({
        ...notice,
        ...(pages.length > 1 ? { message: `Page ${i + 1}: ${notice.message}` } : {}),
      })),
    );
    for (const [what, count] of Object.entries(page.leftOut))
      notices.push({
        level: 'info',
        code: 'pdf-dropped',
        file: file.path,
        message: `${pages.length > 1 ? `Page ${i + 1}: ` : ''}${what} ${count === 1 ? 'was' : `were, ${count} times,`} left out.`,
      });
    if (!made.screen) return;
    const title =
      headingOf(made.screen) ?? (pages.length > 1 ? `${baseName(file.path)} ${i + 1}` : baseName(file.path));
    screens.push({ ...made.screen, name: title, source: { file: file.path, path } });
  });
  return { screens, notices };
}

/** The heading that reading found, where it is short enough for a name. */
function headingOf(screen: Screen): string | null {
  let heading: string | null = null;
  walkElements(screen.root, (element) => {
    if (heading === null && element.tag === 'h1') heading = textOf(element).replace(/\s+/g, ' ');
    return heading === null;
  });
  return heading && (heading as string).length <= 60 ? heading : null;
}

/** XML has no place for control characters, whatever a font says that its glyphs mean. */
const isControl = (char: string): boolean => {
  const code = char.codePointAt(0)!;
  return (code < 32 && code !== 9 && code !== 10 && code !== 13) || code === 0xfffe || code === 0xffff;
};

const escape = (text: string): string =>
  [...text]
    .filter((char) => !isControl(char))
    .join('')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/"/g, '&quot;');

/** A page as a drawing, in the order in which it is painted. */
export function svgOfPage(page: PdfPage): string {
  const parts = [
    ...page.shapes.map((shape) => ({ order: shape.order, svg: shapeSvg(shape) })),
    ...page.texts.map((text) => ({ order: text.order, svg: textSvg(text) })),
    ...page.pictures.map((picture, i) => ({
      order: picture.order,
      svg: `<image x="${picture.x}" y="${picture.y}" width="${picture.width}" height="${picture.height}" preserveAspectRatio="none" href="picture:${i}"/>`,
    })),
  ].sort((a, b) => a.order - b.order);
  const body = parts.map((part) => part.svg).join('\n');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${page.width}" height="${page.height}" data-split="true">${body}</svg>`;
}

function shapeSvg(shape: PdfShape): string {
  const paint =
    `fill="${shape.fill ?? 'none'}"` +
    (shape.stroke ? ` stroke="${shape.stroke}" stroke-width="${shape.strokeWidth}"` : '') +
    (shape.isEvenOdd ? ' fill-rule="evenodd"' : '') +
    (shape.opacity < 1 ? ` opacity="${shape.opacity}"` : '');
  const box = rectangleIn(shape.path);
  return box
    ? `<rect x="${box.x}" y="${box.y}" width="${box.width}" height="${box.height}"${box.radius ? ` rx="${box.radius}"` : ''} ${paint}/>`
    : `<path d="${shape.path}" ${paint}/>`;
}

/** The rectangle, with or without round corners, that a path draws; null for any other path. */
export function rectangleIn(
  path: string,
): { x: number; y: number; width: number; height: number; radius: number } | null {
  const commands = [...path.matchAll(/([MLCZHV])([^MLCZHV]*)/g)].map(([, letter, numbers]) => ({
    letter,
    n: (numbers.match(/-?[\d.]+(e-?\d+)?/g) ?? []).map(Number),
  }));
  if (
    commands.some(({ letter, n }) => letter === 'M' && n.length !== 2) ||
    commands.filter(({ letter }) => letter === 'M').length !== 1
  )
    return null;
  const ends = commands
    .filter(({ n }) => n.length >= 2)
    .map(({ n }) => [n[n.length - 2], n[n.length - 1]] as const);
  const [xs, ys] = [ends.map(([x]) => x), ends.map(([, y]) => y)];
  const [x, y, right, bottom] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.05;
  const curves = commands.filter(({ letter }) => letter === 'C').length;
  if (!(right > x) || !(bottom > y)) return null;
  const box = { x, y, width: right - x, height: bottom - y };
  if (!curves) {
    const isCorner = ends.every(
      ([a, b]) => (near(a, x) || near(a, right)) && (near(b, y) || near(b, bottom)),
    );
    const lines = commands.filter(({ letter }) => letter === 'L').length;
    return isCorner && lines >= 3 && lines <= 4 && isAxisAligned(ends) ? { ...box, radius: 0 } : null;
  }
  if (curves !== 4 || ends.some(([a, b]) => !(near(a, x) || near(a, right) || near(b, y) || near(b, bottom))))
    return null;
  const onTop = ends.filter(([, b]) => near(b, y)).map(([a]) => a);
  const radius = Math.min(...onTop) - x;
  return radius > 0 && radius <= Math.min(box.width, box.height) / 2 + 0.1
    ? { ...box, radius: Math.round(radius * 100) / 100 }
    : null;
}

const isAxisAligned = (ends: readonly (readonly [number, number])[]): boolean =>
  ends.slice(1).every(([x, y], i) => Math.abs(x - ends[i][0]) < 0.05 || Math.abs(y - ends[i][1]) < 0.05);

function textSvg(text: PdfText): string {
  const font =
    `font-size="${text.size}" font-family="${escape(text.family)}"` +
    (text.isBold ? ' font-weight="700"' : '') +
    (text.isItalic ? ' font-style="italic"' : '');
  return `<text x="${text.x}" y="${text.y}" textLength="${text.width}" fill="${text.color}" ${font}>${escape(text.text)}</text>`;
}
