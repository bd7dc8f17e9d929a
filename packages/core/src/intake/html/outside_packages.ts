/** What pages ask for at hosts that serve the packages of a registry, as far as it says which package that is. */

import type { InputFile } from '../files.ts';

/** A file of a package, as the address of a host that serves it names it. */
export interface PackageAddress {
  readonly name: string;
  /** As the address says it: `5.3.0`, `5`, or `latest`. */
  readonly version: string;
  /** Within the package, or what is left of it: `css/all.min.css`; empty where only the package is named. */
  readonly file: string;
}

/** A style sheet of a package that comes with Tovel. */
export interface ShippedSheet {
  /** The version that comes with Tovel. */
  readonly version: string;
  /** Where the sheet lies in its package; what it refers to is found from there. */
  readonly sheet: string;
  readonly text: string;
  /** What the sheet refers to, by paths within the package. */
  readonly files: readonly InputFile[];
}

/** Libraries whose script puts a drawing in the place of each element that names one. */
export const ICON_LIBRARIES = ['feather', 'lucide'] as const;
export type IconLibrary = (typeof ICON_LIBRARIES)[number];
/** What names an icon of each. */
export const ICON_ATTRIBUTES: Readonly<Record<string, IconLibrary>> = {
  'data-lucide': 'lucide',
  'data-feather': 'feather',
};

const OUTSIDE = /^(?:https?:)?\/\/([\w.-]+)\/(.+)$/i;
/** `name@1.2.3/file` and `name/1.2.3/file`. */
const VERSIONED = /(?:^|\/)((?:@[\w.-]+\/)?[a-z][\w.-]*)[@/](?:v?(\d+(?:\.\d+)*)[\w.-]*|(latest))\/([^?#]+)/i;

/** `name@1.2.3`, which a host answers with the sheet that the package is known for. */
const WHOLE = /(?:^|\/)((?:@[\w.-]+\/)?[a-z][\w.-]*)@(?:v?(\d+(?:\.\d+)*)[\w.-]*|(latest))\/?$/i;

/** The version of addresses that ask for the newest. */
export const LATEST = 'latest';

/** The file of a package that an address names; null where it names none. */
export function packageAddress(address: string): PackageAddress | null {
  const [, host, path] = OUTSIDE.exec(address.trim()) ?? [];
  const asked = path?.replace(/[?#].*$/, '') ?? '';
  const [, name, version = LATEST, , file = ''] = WHOLE.exec(asked) ?? VERSIONED.exec(asked) ?? [];
  if (!name) return null;
  // A host that serves one library names only its versions.
  const isRelease = name === 'releases';
  const own = host.split('.').at(-2);
  return isRelease && !own ? null : { name: (isRelease ? own! : name).toLowerCase(), version, file };
}

const LONGEST = 500;
const SHEET = /(?:https?:)?\/\/[^\s"'()<>]+(?:\.css\b[^\s"'()<>]*|@(?:v?\d[\w.-]*|latest)\/?(?=["'\s>)]))/gi;

/** The addresses of sheets of packages that stand in a page. */
export function packageSheetsIn(html: string): string[] {
  const found = html.replace(/<!--[^]*?-->/g, '').match(SHEET) ?? [];
  return [...new Set(found)].filter((one) => one.length <= LONGEST && packageAddress(one));
}

const NAMED = new RegExp(
  `\\b(${Object.keys(ICON_ATTRIBUTES).join('|')})\\s*=\\s*["']?([a-z0-9]+(?:-[a-z0-9]+)*)\\b`,
  'gi',
);
/** So many icons of a library are asked for at once. */
export const MOST_ICONS = 500;

/** The icons that a page names for scripts to draw, by library. */
export function scriptedIconsIn(html: string): ReadonlyMap<IconLibrary, readonly string[]> {
  const found = new Map<IconLibrary, Set<string>>();
  for (const [, attribute, name] of html.matchAll(NAMED)) {
    const library = ICON_ATTRIBUTES[attribute.toLowerCase()];
    const names = found.get(library) ?? new Set();
    if (names.size < MOST_ICONS) found.set(library, names.add(name.toLowerCase()));
  }
  return new Map([...found].map(([library, names]) => [library, [...names].sort()]));
}
