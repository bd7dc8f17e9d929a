import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { addToDesign, type Design, type Element, emptyDesign, type InputFile, readBatch } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { folderFiles } from '../../packages/reader/src/testing/folder_files.ts';
import { editPage, type EditShares, withoutScripts } from './edit_page.ts';
import { serialize } from 'parse5';

/** A batch of files before and after, and which element of each page is which: new paths by old ones, by file. */
export interface Revision {
  readonly name: string;
  readonly before: Design;
  readonly after: Design;
  readonly truth: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

const isPage = (file: InputFile): boolean => /\.html?$/i.test(file.path);

/** The files of a template as they are dropped in: no sources, no packages, no documentation. */
export async function templateFiles(root: string): Promise<InputFile[]> {
  return (await folderFiles(root)).filter(
    (file) => !/(^|\/)(node_modules|src|scss|less|docs|documentation|\.[^/]*)\//i.test(file.path),
  );
}

export async function designOf(files: readonly InputFile[], host: HeadlessHost): Promise<Design> {
  return addToDesign(emptyDesign, await readBatch(files, host, { widths: [1280] }));
}

/** Reads a template before and after made-up edits of its pages; kept in a folder, since reading takes long. */
export async function editedRevision(
  name: string,
  root: string,
  seed: number,
  kept: string,
  shares?: EditShares,
): Promise<Revision> {
  const file = path.join(kept, `${name.replace(/\W+/g, '-')}-${seed}.json`);
  if (existsSync(file)) return JSON.parse(await readFile(file, 'utf8')) as Revision;
  const files = await templateFiles(root);
  const decoder = new TextDecoder();
  const encoder = new TextEncoder();
  const truth: Record<string, Record<string, string>> = {};
  const pages = files.filter(isPage);
  const edited = new Map(
    pages.map((page, i) => {
      const made = editPage(decoder.decode(page.bytes), seed * 1000 + i, shares);
      truth[page.path] = Object.fromEntries(made.truth);
      return [page.path, made] as const;
    }),
  );
  const version = (which: 'before' | 'after'): InputFile[] =>
    files.map((one) => {
      const made = edited.get(one.path);
      return made ? { ...one, bytes: encoder.encode(made[which]) } : one;
    });
  const host = new HeadlessHost();
  try {
    const revision: Revision = {
      name,
      before: await designOf(version('before'), host),
      after: await designOf(version('after'), host),
      truth,
    };
    await mkdir(kept, { recursive: true });
    await writeFile(file, JSON.stringify(revision));
    return revision;
  } finally {
    await host.close();
  }
}

/** An element and all in it as if no link of theirs led anywhere. */
export function withoutLinks(element: Element): Element {
  const { href: _, ...attributes } = element.attributes ?? {};
  return {
    ...element,
    ...(element.attributes ? { attributes } : {}),
    children: element.children.map(withoutLinks),
  };
}

/** A page without scripts, as text. */
export const plainPage = (html: string): string => serialize(withoutScripts(html));
