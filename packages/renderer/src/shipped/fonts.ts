import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { ShippedFace, WebFont } from '@tovel/core';

const require = createRequire(import.meta.url);

/** Families that come as one file for all weights, and as a file for each. */
const VARIABLE = [
  'archivo',
  'dm-sans',
  'inter',
  'montserrat',
  'nunito',
  'open-sans',
  'playfair-display',
  'roboto',
  'spline-sans-mono',
  'work-sans',
];
const STATIC = ['lato', 'poppins'];
/** Fonts of icons, by family, with their files. */
const ICONS: Readonly<Record<string, string>> = {
  'material-icons': 'material-icons/iconfont/material-icons.woff2',
  'material-icons-outlined': 'material-icons/iconfont/material-icons-outlined.woff2',
  'material-icons-round': 'material-icons/iconfont/material-icons-round.woff2',
  'material-icons-sharp': 'material-icons/iconfont/material-icons-sharp.woff2',
  'material-icons-two-tone': 'material-icons/iconfont/material-icons-two-tone.woff2',
  'material-symbols-outlined': 'material-symbols/material-symbols-outlined.woff2',
  'material-symbols-rounded': 'material-symbols/material-symbols-rounded.woff2',
  'material-symbols-sharp': 'material-symbols/material-symbols-sharp.woff2',
};
const LATIN =
  'U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+0304, U+0308, U+0329, U+2000-206F, U+20AC, U+2122, U+2191, U+2193, U+2212, U+2215, U+FEFF, U+FFFD';

const idOf = (family: string): string => family.trim().toLowerCase().replace(/\s+/g, '-');

/** The faces of a family that Tovel ships; none for any other. */
export async function shippedFont(
  font: Pick<WebFont, 'family' | 'weights' | 'hasItalic'>,
): Promise<ShippedFace[]> {
  const id = idOf(font.family);
  const face = async (
    file: string,
    weight: string,
    style: string,
    unicodeRange?: string,
  ): Promise<ShippedFace[]> => {
    const full = locate(file);
    if (!full) return [];
    return [
      {
        weight,
        style,
        ...(unicodeRange ? { unicodeRange } : {}),
        type: 'font/woff2',
        file: `fonts/${path.basename(full)}`,
        bytes: new Uint8Array(await readFile(full)),
      },
    ];
  };
  if (ICONS[id]) return face(ICONS[id], id.includes('symbols') ? '100 700' : '400', 'normal');
  const styles = font.hasItalic ? ['normal', 'italic'] : ['normal'];
  if (VARIABLE.includes(id)) {
    const files = styles.map((style) =>
      face(`@fontsource-variable/${id}/files/${id}-latin-wght-${style}.woff2`, '100 900', style, LATIN),
    );
    return (await Promise.all(files)).flat();
  }
  if (STATIC.includes(id)) {
    const files = styles.flatMap((style) =>
      font.weights.map((weight) =>
        face(`@fontsource/${id}/files/${id}-latin-${weight}-${style}.woff2`, String(weight), style, LATIN),
      ),
    );
    return (await Promise.all(files)).flat();
  }
  return [];
}

/** Where a file of a package lies: found by the package's folder, since not every package names its files. */
function locate(file: string): string | null {
  const name = /^(@[^/]+\/)?[^/]+/.exec(file)![0];
  for (const folder of require.resolve.paths(name) ?? []) {
    const full = path.join(folder, file);
    if (existsSync(full)) return full;
  }
  return null;
}
