/** A text of a script that is one whole link. */
const LINK = /(['"`])(<link\b(?:(?!\1)[^\n])*>)\1/gi;
const saidIn = (link: string, name: string): string =>
  new RegExp(`\\s${name}\\s*=\\s*\\\\?["']?([^"'\\\\\\s>]+)`, 'i').exec(link)?.[1] ?? '';

/**
 * Addresses of the style sheets that a script writes into its page as they are (`document.write('<link …>')`), in order: themes
 * are often chosen so. What the script puts together is not known.
 */
export function sheetsWritten(script: string): string[] {
  if (!/\bdocument\s*\.\s*write(ln)?\s*\(/.test(script)) return [];
  return [...script.matchAll(LINK)].flatMap(([, , link]) => {
    const href = saidIn(link, 'href');
    return /\bstylesheet\b/i.test(saidIn(link, 'rel')) && href && !/[+${}]/.test(href) ? [href] : [];
  });
}

/**
 * A page with the sheet that each of its scripts writes, where that runs no scripts: of several the last one that is there, which
 * is what a script does where nothing was chosen before.
 */
export const withWrittenSheets = (html: string, isThere: (href: string) => boolean): string =>
  html.replace(/<script\b[^>]*>([^]*?)<\/script\s*>/gi, (whole, script: string) => {
    const href = sheetsWritten(script).findLast(isThere);
    return href === undefined
      ? whole
      : `${whole}<link rel="stylesheet" href="${href.replace(/[&"<]/g, (sign) => `&#${sign.charCodeAt(0)};`)}">`;
  });
