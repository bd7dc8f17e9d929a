import { kindOfFile, type InputFile, textOfFile } from '../files.ts';

/** A piece of markup without anything that only a whole page has. */
const isPiece = (text: string): boolean => !/<(!doctype|html|head|body)\b/i.test(text);
/** So much of a piece is looked for, in UTF-16 units without white space; of less, anything could begin so. */
const BEGINNING = 300;
const LEAST = 80;

const dense = (text: string): string => text.replace(/<!--[^]*?-->|\s+/g, '');

/**
 * Files that are pieces of pages, kept apart for a build that puts them together, each with a page that has it already.
 * What no page has is a screen like any other.
 */
export function piecesOfPages(files: readonly InputFile[]): ReadonlyMap<string, string> {
  const pages: { readonly path: string; readonly text: string }[] = [];
  const pieces: { readonly path: string; readonly begins: string }[] = [];
  for (const file of files) {
    if (kindOfFile(file.path) !== 'html') continue;
    const text = textOfFile(file);
    if (!isPiece(text)) pages.push({ path: file.path, text });
    else pieces.push({ path: file.path, begins: dense(text).slice(0, BEGINNING) });
  }
  const wanted = pieces.filter(({ begins }) => begins.length >= LEAST);
  const found = new Map<string, string>();
  for (const page of wanted.length ? pages : []) {
    const text = dense(page.text);
    for (const { path, begins } of wanted)
      if (!found.has(path) && text.includes(begins)) found.set(path, page.path);
  }
  return found;
}
