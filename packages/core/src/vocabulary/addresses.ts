/** Which addresses a screen or an app may hold. Others run or hold something instead of leading somewhere. */

const SCHEMES: ReadonlySet<string> = new Set(['http', 'https', 'mailto', 'tel', 'sms']);

/** The scheme of an address as a browser finds it: control characters and spaces do not hide it. */
function schemeOf(address: string): string | null {
  const bare = [...address].filter((char) => char > ' ' && char !== '\u007f').join('');
  return /^([a-z][a-z0-9+.-]*):/i.exec(bare)?.[1].toLowerCase() ?? null;
}

/** Whether following an address leads to another page, or place, and nothing else. */
export function isPlainAddress(address: string): boolean {
  const scheme = schemeOf(address);
  return scheme === null || SCHEMES.has(scheme);
}

/** Addresses that an element may lead to outside the app. */
export const isExternalAddress = (href: string): boolean =>
  /^(https?:\/\/[^\s/]|mailto:\S|tel:\S)/i.test(href) && isPlainAddress(href);

/** What the first page of a site, or of a folder of it, is called without its ending. */
export const FIRST_PAGE = /^(index|default|main)$/i;
