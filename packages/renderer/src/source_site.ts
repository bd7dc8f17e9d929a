import path from 'node:path';
import {
  type Design,
  fileName,
  fontCss,
  iconClassCss,
  type IconLibrary,
  isMovable,
  likestEnd,
  packageAddress,
  type PageFiles,
  resolveReference,
  type RootTheme,
  sanitisePage,
  scriptedIconsIn,
  type Screen,
  standInPicture,
  webFontsIn,
  withRootTheme,
  withScriptedIcons,
  withWrittenSheets,
} from '@tovel/core';
import type { Site, SiteAnswer } from './renderer.ts';
import { shippedIcons } from './shipped/icons.ts';
import { shippedSheet } from './shipped/sheets.ts';
import { compileUtilities } from './shipped/utilities.ts';

/** The address under which the files of a batch are; no such host exists. */
const ORIGIN = 'https://source.invalid';
/** Of what other hosts give to pages of any. */
const SHARED = { 'access-control-allow-origin': '*' };

export interface SourcePage {
  readonly address: string;
  readonly site: Site;
}

/**
 * The file that a screen came from as a page: what it refers to is found among the files that came along with it, as at intake.
 * A drawing is shown within a page of its size.
 * @param bytesOf the bytes of a kept file by its hash
 * @returns null where the file is not kept, or is not shown by a browser as it is
 */
export function sourcePage(
  design: Design,
  screen: Screen,
  bytesOf: (hash: string) => Promise<Uint8Array | null>,
): SourcePage | null {
  const { file } = screen.source;
  const kind = /\.(x?html?|svg)$/i.exec(file)?.[1].toLowerCase();
  const byFile = new Map(design.assets.map((asset) => [asset.file, asset]));
  if (!kind || !byFile.has(file)) return null;
  const at = (path: string): { readonly hash: string; readonly type: string } | undefined => {
    // Servers of files take several slashes for one.
    const asked = path.replace(/\/{2,}/g, '/');
    const known = byFile.get(asked);
    if (known || !asked.includes('/')) return known;
    // Pages are often written for a server's root, and come in as a folder somewhere beneath it.
    for (const [name, asset] of byFile) if (name.endsWith(`/${asked}`)) return asset;
    // What lies elsewhere stands for what is not there, as it did when the page came in.
    const named = [...byFile.keys()].filter((path) => isMovable(path) && fileName(path) === fileName(asked));
    return byFile.get(
      likestEnd(
        named.map((path) => ({ path })),
        asked,
      )?.path ?? '',
    );
  };
  const kept = async (hash: string): Promise<SiteAnswer | null> => {
    const asset = design.assets.find((one) => one.hash === hash);
    const bytes = asset && (await bytesOf(hash));
    return bytes ? { type: charset(asset.type), body: bytes } : null;
  };
  /** What the scripts of a page would have done before it is seen: the theme that it came in with, and its classes compiled. */
  const scriptedOf = async (
    html: string,
    from: string,
  ): Promise<{ readonly theme: RootTheme | null; readonly css: string }> => {
    const sheets = new Map<string, string>();
    for (const { hash, type } of design.assets) {
      const bytes = type.startsWith('text/css') ? await bytesOf(hash) : null;
      if (bytes) sheets.set(hash, new TextDecoder().decode(bytes));
    }
    const styleSheet: PageFiles['styleSheet'] = (reference, of) => {
      const path = resolveReference(reference, of);
      const asset = path === null ? undefined : at(path);
      const text = asset && sheets.get(asset.hash);
      return text === undefined ? null : { text, file: path! };
    };
    try {
      const { theme, utilities } = sanitisePage(from, html, {
        styleSheet,
        picture: () => null,
        font: () => null,
      });
      return { theme, css: utilities ? await compileUtilities(utilities) : '' };
    } catch {
      // A page that is too large to be read, or whose classes cannot be compiled, is shown as it is.
      return { theme: null, css: '' };
    }
  };
  /** What sheets that stand for those of other hosts refer to, by its address there. */
  const shippedFonts = new Map<string, Uint8Array>();
  const page = `/${file.split('/').map(encodeURIComponent).join('/')}`;
  const around = '/tovel-drawing';
  const site: Site = async ({ origin, pathname, href }) => {
    // A service of fonts is stood in for by the faces that were kept when the screens came in.
    const asked = webFontsIn(href);
    if (asked.length) {
      const families = new Set(asked.map(({ family }) => family));
      const faces = (design.fonts ?? []).filter(({ family }) => families.has(family));
      const classes = asked.filter(({ isIcons }) => isIcons).map(iconClassCss);
      return {
        type: 'text/css; charset=utf-8',
        body: [fontCss(faces, (hash) => `${ORIGIN}/tovel-kept/${hash}`), ...classes].join('\n'),
      };
    }
    const font = shippedFonts.get(href.replace(/[?#].*$/, ''));
    if (font) return { type: 'font/woff2', body: font, headers: SHARED };
    const named = packageAddress(href);
    const sheet = named && (await shippedSheet(named));
    if (sheet) {
      // What it refers to is asked for beside where the sheet is.
      for (const file of sheet.files)
        shippedFonts.set(new URL(referenceTo(file.path, sheet.sheet), href).href, file.bytes);
      return { type: 'text/css; charset=utf-8', body: sheet.text, headers: SHARED };
    }
    // What stood for a picture of another host when the screen came in stands for it here, too.
    if (origin !== ORIGIN) {
      const blank = standInPicture(href);
      return blank && { type: 'image/svg+xml', body: blank.bytes };
    }
    if (pathname.startsWith('/tovel-kept/')) return kept(pathname.slice(12));
    if (pathname === around)
      return {
        type: 'text/html; charset=utf-8',
        // Within a picture element a drawing would show no pictures of its own.
        body: `<!doctype html><body style="margin:0"><object type="image/svg+xml" data="${page.replace(/"/g, '%22')}" width="${screen.width}" height="${screen.height}" style="display:block"></object>`,
        headers: { 'content-security-policy': "script-src 'none'" },
      };
    const asset = at(decodeURIComponent(pathname.slice(1)));
    const found = asset ? await kept(asset.hash) : null;
    if (!found?.type.includes('html')) return found;
    const isThere = (href: string): boolean => {
      try {
        return at(decodeURIComponent(new URL(href, ORIGIN + pathname).pathname.slice(1))) !== undefined;
      } catch {
        return false;
      }
    };
    const written = withWrittenSheets(withoutIntegrity(withoutRefresh(found.body)), isThere);
    const html = await withIcons(written);
    const { theme, css } = await scriptedOf(html, decodeURIComponent(pathname.slice(1)));
    const styled = css ? withStyle(html, css) : html;
    return { ...found, body: theme ? withRootTheme(styled, theme) : styled };
  };
  return { address: ORIGIN + (kind === 'svg' ? around : page), site };
}

/** How a sheet may refer to a file of its package. */
const referenceTo = (file: string, sheet: string): string =>
  path.posix.relative(path.posix.dirname(sheet), file);

async function withIcons(html: string): Promise<string> {
  const drawings = new Map<IconLibrary, Readonly<Record<string, string>>>();
  for (const [library, names] of scriptedIconsIn(html))
    drawings.set(library, await shippedIcons(library, names));
  return drawings.size
    ? withScriptedIcons(html, (library, name) => drawings.get(library)?.[name] ?? null)
    : html;
}

/** A page with a sheet after all others of its head, where a script would put it. */
function withStyle(html: string, css: string): string {
  const style = `<style>${css.replace(/<\/style/gi, '')}</style>`;
  return /<\/head/i.test(html) ? html.replace(/<\/head/i, () => `${style}</head`) : style + html;
}

/** A page that goes elsewhere by itself could not be looked at. */
const withoutRefresh = (body: SiteAnswer['body']): string =>
  (typeof body === 'string' ? body : new TextDecoder().decode(body)).replace(
    /<meta\b[^>]*http-equiv\s*=\s*["']?\s*refresh[^>]*>/gi,
    '',
  );

/** What stands for a file of another host is not that file, whatever a page says of its bytes. */
const withoutIntegrity = (html: string): string =>
  html.replace(/<(?:link|script)\b[^>]*>/gi, (tag) =>
    tag.replace(/\sintegrity\s*=\s*(?:"[^"]*"|'[^']*'|[^\s>]+)/gi, ''),
  );

const charset = (type: string): string => (type.startsWith('text/') ? `${type}; charset=utf-8` : type);
