import { type InputFile, kindOfFile, resolveReference, textOfFile } from '../files.ts';

/** A page that leads on after longer than this, in seconds, is there to be read. */
const SOON = 5;
/** So many letters stand on a page that does nothing but lead on: a word for whom it does not lead. */
const MOST_SAID = 160;
/** Pages that lead on to each other are followed so far. */
const FARTHEST = 10;

/** Where the page that does nothing but lead on leads: its reference; null where it is a page to be seen. */
function leadsOn(html: string): string | null {
  const meta = /<meta\b[^>]*http-equiv\s*=\s*["']?refresh["']?[^>]*>/i.exec(html)?.[0];
  const content = meta && /\bcontent\s*=\s*(?:"([^"]*)"|'([^']*)')/i.exec(meta);
  const to =
    content && /^\s*(\d+)(?:\.\d+)?\s*[;,]\s*(?:url\s*=\s*)?["']?([^"']+)/i.exec(content[1] ?? content[2]);
  if (!to || Number(to[1]) > SOON) return null;
  const said = html
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/<(script|style|title|noscript)\b[\s\S]*?<\/\1\s*>/gi, '')
    .replace(/<[^>]*>/g, '')
    .replace(/\s+/g, ' ')
    .trim();
  const shows = /<(img|svg|form|input|button|video|canvas|iframe|table)\b/i.test(html);
  return said.length > MOST_SAID || shows ? null : to[2].trim();
}

/**
 * Pages of a batch that do nothing but lead on to others of it, with what they lead to in the end.
 * @returns paths by paths
 */
export function pagesLeadingOn(files: readonly InputFile[]): ReadonlyMap<string, string> {
  const pages = new Map(
    files.filter(({ path }) => kindOfFile(path) === 'html').map((file) => [file.path, file]),
  );
  const next = new Map<string, string>();
  for (const [path, file] of pages) {
    const reference = leadsOn(textOfFile(file));
    const to = reference === null ? null : resolveReference(reference, path);
    const found =
      to === null ? undefined : [to, to ? `${to}/index.html` : 'index.html'].find((one) => pages.has(one));
    if (found !== undefined && found !== path) next.set(path, found);
  }
  const ends = new Map<string, string>();
  for (const [path, first] of next) {
    let end = first;
    for (let i = 0; next.has(end) && i < FARTHEST; i++) end = next.get(end)!;
    // Pages that lead on in a circle are all that there is to see.
    if (!next.has(end)) ends.set(path, end);
  }
  return ends;
}

/**
 * Pages of a batch that do nothing but lead on to what did not come along, where others are something to see: references by
 * paths.
 */
export function pagesLeadingAway(files: readonly InputFile[]): ReadonlyMap<string, string> {
  const leadingOn = pagesLeadingOn(files);
  const pages = files.filter(({ path }) => kindOfFile(path) === 'html' && !leadingOn.has(path));
  const away = pages.flatMap((file) => {
    const reference = leadsOn(textOfFile(file));
    const isItself = reference !== null && resolveReference(reference, file.path) === file.path;
    return reference === null || isItself ? [] : [[file.path, reference] as const];
  });
  return new Map(away.length < pages.length ? away : []);
}
