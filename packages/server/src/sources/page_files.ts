import { type InputFile, kindOfFile } from '@tovel/core';
import { type Fetched, FetchError, fetchLimits, type FetchOptions, fetchSafely } from './fetch_safely.ts';

const MAX_FILES = 80;

/** The name that a fetched file gets in its batch: its path on the server, with an extension that says what it is. */
export function fileNameOf(fetched: Pick<Fetched, 'address' | 'type'>): string {
  const { pathname, hostname } = new URL(fetched.address);
  let path = pathname.replace(/^\/+/, '');
  try {
    path = decodeURIComponent(path);
  } catch {
    // A stray percent sign is part of the name.
  }
  path = path
    .split('/')
    .filter((part) => part && part !== '.' && part !== '..')
    .join('/');
  if (!path || pathname.endsWith('/')) path = `${path ? `${path}/` : ''}index`;
  if (kindOfFile(path) !== 'other') return path;
  const extension: Readonly<Record<string, string>> = {
    'text/html': 'html',
    'image/svg+xml': 'svg',
    'application/zip': 'zip',
    'application/x-zip-compressed': 'zip',
    'application/pdf': 'pdf',
    'image/png': 'png',
    'image/jpeg': 'jpg',
    'image/webp': 'webp',
    'text/css': 'css',
  };
  const known = extension[fetched.type];
  if (!known)
    throw new FetchError(
      `${hostname} sends ${fetched.type || 'something without a type'}, which is no page, drawing, picture, PDF or zip.`,
    );
  return `${path}.${known}`;
}

/** What a page needs to look as it should: its style sheets, pictures and fonts, from the page's own server. */
export async function withItsFiles(page: Fetched, options: FetchOptions): Promise<InputFile[]> {
  const files: InputFile[] = [{ path: fileNameOf(page), bytes: page.bytes }];
  const queue = referencesIn(new TextDecoder().decode(page.bytes), page.address, true);
  const seen = new Set<string>([page.address]);
  const origin = new URL(page.address).origin;
  let total = page.bytes.length;
  for (let address = queue.shift(); address !== undefined; address = queue.shift()) {
    if (seen.has(address) || new URL(address).origin !== origin) continue;
    if (seen.size > MAX_FILES || total > fetchLimits.bytes) break;
    seen.add(address);
    try {
      const part = await fetchSafely(address, { allowed: options.allowed });
      total += part.bytes.length;
      const path = fileNameOf({ address, type: part.type });
      if (kindOfFile(path) === 'html') continue;
      files.push({ path, bytes: part.bytes });
      if (kindOfFile(path) === 'css')
        queue.push(...referencesIn(new TextDecoder().decode(part.bytes), address, false));
    } catch (error) {
      // What is missing is said by intake, as for a file that did not come along.
      if (!(error instanceof FetchError)) throw error;
    }
  }
  return files;
}

function referencesIn(text: string, base: string, isPage: boolean): string[] {
  const found = [
    ...text.matchAll(/url\(\s*["']?([^"')]+)["']?\s*\)/gi),
    ...text.matchAll(/@import\s+["']([^"']+)["']/gi),
    ...(isPage
      ? [
          ...text.matchAll(/<link\b[^>]*\bhref\s*=\s*["']([^"']+)["']/gi),
          ...text.matchAll(/<(?:img|source|input)\b[^>]*\bsrc\s*=\s*["']([^"']+)["']/gi),
          ...text.matchAll(/<source\b[^>]*\bsrcset\s*=\s*["']([^"'\s,]+)/gi),
        ]
      : []),
  ];
  return found.flatMap(([, reference]) => {
    try {
      const url = new URL(reference, base);
      url.hash = '';
      return /^https?:$/.test(url.protocol) ? [url.href] : [];
    } catch {
      return [];
    }
  });
}
