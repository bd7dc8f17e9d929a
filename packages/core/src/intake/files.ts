import { unzipSync } from 'fflate';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Notice } from '../model/design.ts';
import { limits, megabytes } from './limits.ts';

/** A file as it came in: a path within the batch and its bytes. */
export interface InputFile {
  readonly path: string;
  readonly bytes: Uint8Array;
}

export type FileKind =
  'svg' | 'html' | 'css' | 'picture' | 'ora' | 'pdf' | 'text' | 'archive' | 'font' | 'project' | 'other';

const KINDS: Readonly<Record<string, FileKind>> = {
  svg: 'svg',
  html: 'html',
  htm: 'html',
  xhtml: 'html',
  css: 'css',
  png: 'picture',
  jpg: 'picture',
  jpeg: 'picture',
  webp: 'picture',
  gif: 'picture',
  avif: 'picture',
  ora: 'ora',
  pdf: 'pdf',
  md: 'text',
  txt: 'text',
  zip: 'archive',
  woff: 'font',
  woff2: 'font',
  ttf: 'font',
  otf: 'font',
  tovel: 'project',
};
const TYPES: Readonly<Record<string, string>> = {
  svg: 'image/svg+xml',
  html: 'text/html',
  htm: 'text/html',
  xhtml: 'application/xhtml+xml',
  css: 'text/css',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
  avif: 'image/avif',
  ora: 'image/openraster',
  pdf: 'application/pdf',
  md: 'text/markdown',
  txt: 'text/plain',
  woff: 'font/woff',
  woff2: 'font/woff2',
  ttf: 'font/ttf',
  otf: 'font/otf',
};

const extension = (path: string): string => /\.([^./]+)$/.exec(path)?.[1].toLowerCase() ?? '';

export const kindOfFile = (path: string): FileKind => KINDS[extension(path)] ?? 'other';
export const typeOfFile = (path: string): string => TYPES[extension(path)] ?? 'application/octet-stream';

/** The name of a file without its folders and its extension. */
export const baseName = (path: string): string => path.replace(/^.*\//, '').replace(/\.[^.]*$/, '');

/** The name of a file without its folders, the same however it is written. */
export const fileName = (path: string): string => path.replace(/^.*\//, '').toLowerCase();

/** The folders of a path, without a slash at the end; empty at the top. */
export const folderOf = (path: string): string => path.replace(/\/?[^/]*$/, '');

const hashes = new WeakMap<Uint8Array, string>();

/** The name of an asset: the SHA-256 of its bytes, in hex; worked out once for the same bytes, which never change. */
export function hashOf(bytes: Uint8Array): string {
  let hash = hashes.get(bytes);
  if (hash === undefined) hashes.set(bytes, (hash = bytesToHex(sha256(bytes))));
  return hash;
}

export const textOfFile = (file: InputFile): string => new TextDecoder().decode(file.bytes);

/** A path with `.` and `..` resolved; null when it leads outside the batch. */
export function resolvePath(path: string): string | null {
  const parts: string[] = [];
  for (const part of path.replace(/\\/g, '/').split('/')) {
    if (part === '' || part === '.') continue;
    if (part !== '..') parts.push(part);
    else if (parts.pop() === undefined) return null;
  }
  return parts.join('/');
}

/** Where a relative reference in a file leads within the batch; null for what leads outside. */
export function resolveReference(reference: string, from: string): string | null {
  if (/^([a-z][a-z0-9+.-]*:|\/\/)/i.test(reference)) return null;
  let path = reference.replace(/[?#].*$/, '');
  try {
    path = decodeURIComponent(path);
  } catch {
    // A stray percent sign is part of the name.
  }
  if (!path) return null;
  return path.startsWith('/') ? resolvePath(path) : resolvePath(`${from.replace(/[^/]*$/, '')}${path}`);
}

const MOVABLE: ReadonlySet<string> = new Set(['css', 'picture', 'svg', 'font']);

/** Whether a file is of a kind that pages show, and that a name is enough to know by. */
export const isMovable = (path: string): boolean => MOVABLE.has(kindOfFile(path));

/**
 * Of files of one name the one that was meant by a path that leads to none: the only one, or the only one that has more folders at
 * its end in common with the path than all others.
 */
export function likestEnd<F extends Pick<InputFile, 'path'>>(
  files: readonly F[],
  path: string,
): F | undefined {
  if (files.length < 2) return files[0];
  const wanted = path.toLowerCase().split('/');
  const shared = files.map((file) => {
    const parts = file.path.toLowerCase().split('/');
    let count = 0;
    while (count < parts.length && count < wanted.length && parts.at(-1 - count) === wanted.at(-1 - count))
      count += 1;
    return count;
  });
  const most = Math.max(...shared);
  const best = files.filter((_, at) => shared[at] === most);
  return most > 1 && best.length === 1 ? best[0] : undefined;
}

/** Unpacks an archive. What lies outside it, is too large or is the packer's own is a notice and is left out. */
export function unpack(archive: InputFile): { files: InputFile[]; notices: Notice[] } {
  const notices: Notice[] = [];
  const notice = (level: Notice['level'], code: string, file: string, message: string): void =>
    void notices.push({ level, code, file, message });
  if (archive.bytes.length > limits.archiveBytes) {
    notice(
      'error',
      'archive-too-large',
      archive.path,
      `The archive is larger than ${megabytes(limits.archiveBytes)}. Split it into smaller ones.`,
    );
    return { files: [], notices };
  }
  let total = 0;
  let count = 0;
  const paths = new Map<string, string>();
  try {
    const entries = unzipSync(archive.bytes, {
      filter: (entry) => {
        if (entry.name.endsWith('/') || /(^|\/)(__MACOSX|\.DS_Store|Thumbs\.db)/.test(entry.name))
          return false;
        const path =
          entry.name.startsWith('/') || /^[a-z]:/i.test(entry.name) ? null : resolvePath(entry.name);
        if (path === null || entry.name.split(/[\\/]/).includes('..')) {
          notice(
            'error',
            'archive-path',
            entry.name,
            `“${entry.name}” points outside the archive and was left out. Nothing was written there.`,
          );
          return false;
        }
        if (entry.originalSize > limits.fileBytes) {
          notice(
            'error',
            'file-too-large',
            path,
            `“${path}” is ${megabytes(entry.originalSize)}; at most ${megabytes(limits.fileBytes)} is read.`,
          );
          return false;
        }
        total += entry.originalSize;
        if (total > limits.unpackedBytes || ++count > limits.files) {
          notice(
            'error',
            'archive-too-large',
            path,
            `“${path}” was left out: the archive holds more than ${megabytes(limits.unpackedBytes)} or ${limits.files} files.`,
          );
          return false;
        }
        paths.set(entry.name, path);
        return true;
      },
    });
    return {
      files: Object.entries(entries).map(([name, bytes]) => ({ path: paths.get(name)!, bytes })),
      notices,
    };
  } catch (error) {
    notice(
      'error',
      'archive-unreadable',
      archive.path,
      `The archive cannot be unpacked (${(error as Error).message}). Pack it again as a plain zip.`,
    );
    return { files: [], notices };
  }
}
