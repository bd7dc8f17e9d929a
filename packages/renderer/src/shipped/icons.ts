import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { IconLibrary } from '@tovel/core';

const require = createRequire(import.meta.url);

/** Icons as data: what is in each drawing, and other names for some. */
interface IconData {
  readonly width?: number;
  readonly height?: number;
  readonly icons: Readonly<Record<string, { readonly body: string }>>;
  readonly aliases?: Readonly<Record<string, { readonly parent: string }>>;
}

/** What a script would say of the whole drawing is said of its one group here. */
const GROUPED = /^<g ([^>]*)>((?:(?!<\/?g\b)[^])*)<\/g>$/;

function drawing(body: string, width: number, height: number): string {
  const [, attributes = '', inner = body] = GROUPED.exec(body) ?? [];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" ${attributes}>${inner}</svg>`;
}

const loaded = new Map<IconLibrary, Promise<IconData>>();

/**
 * The drawings that a library of icons, as comes with Tovel, has under these names, as SVG; those that it has not are left out.
 * Its script would put them into a page when that is loaded.
 */
export async function shippedIcons(
  library: IconLibrary,
  names: readonly string[],
): Promise<Readonly<Record<string, string>>> {
  let data = loaded.get(library);
  if (!data) {
    data = readFile(require.resolve(`@iconify-json/${library}/icons.json`), 'utf8').then(
      (text) => JSON.parse(text) as IconData,
    );
    loaded.set(library, data);
  }
  const { icons, aliases = {}, width = 24, height = 24 } = await data;
  const of = (name: string): string | undefined => {
    const known = Object.hasOwn(aliases, name) ? aliases[name].parent : name;
    return Object.hasOwn(icons, known) ? icons[known].body : undefined;
  };
  return Object.fromEntries(
    names.flatMap((name) => {
      const body = of(name);
      return body === undefined ? [] : [[name, drawing(body, width, height)]];
    }),
  );
}
