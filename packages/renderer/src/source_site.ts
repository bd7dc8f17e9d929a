import {
  type Design,
  fileName,
  fontCss,
  iconClassCss,
  isMovable,
  likestEnd,
  type PageFiles,
  resolveReference,
  type RootTheme,
  sanitisePage,
  type Screen,
  standInPicture,
  webFontsIn,
  withRootTheme,
  withWrittenSheets,
} from '@tovel/core';
import type { Site, SiteAnswer } from './renderer.ts';

/** The address under which the files of a batch are; no such host exists. */
const ORIGIN = 'https://source.invalid';

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
  /** The theme that a page came in with, whose script would choose one. */
  const themeOf = async (html: string, from: string): Promise<RootTheme | null> => {
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
      return sanitisePage(from, html, { styleSheet, picture: () => null, font: () => null }).theme;
    } catch {
      // A page that is too large to be read is shown as it is.
      return null;
    }
  };
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
    const html = withWrittenSheets(withoutRefresh(found.body), isThere);
    const theme = await themeOf(html, decodeURIComponent(pathname.slice(1)));
    return { ...found, body: theme ? withRootTheme(html, theme) : html };
  };
  return { address: ORIGIN + (kind === 'svg' ? around : page), site };
}

/** A page that goes elsewhere by itself could not be looked at. */
const withoutRefresh = (body: SiteAnswer['body']): string =>
  (typeof body === 'string' ? body : new TextDecoder().decode(body)).replace(
    /<meta\b[^>]*http-equiv\s*=\s*["']?\s*refresh[^>]*>/gi,
    '',
  );

const charset = (type: string): string => (type.startsWith('text/') ? `${type}; charset=utf-8` : type);
