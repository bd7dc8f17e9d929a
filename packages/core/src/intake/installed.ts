import { type InputFile, kindOfFile, resolveReference, textOfFile } from './files.ts';

/** Whether a file lies among the packages that were installed for a project: there are thousands, and pages use a few. */
export const isInstalled = (path: string): boolean => /(^|\/)node_modules\//.test(path);

/** So many files of installed packages come along at most. */
const MOST_FILES = 2_000;

/** What refers to other files, in pages and in style sheets. */
const REFERENCES =
  /(?:\s(?:href|src|srcset|data|poster|xlink:href)\s*=\s*["']?|@import\s+["']|url\(\s*["']?)([^"'()<>\s,]+)/gi;

/**
 * What pages use of installed packages: the files that they refer to, and those that these refer to in turn.
 * @param files all other files of the batch
 * @param read gives what is in a file of the batch; null where there is none of that path
 */
export async function installedFiles(
  files: readonly InputFile[],
  read: (path: string) => Promise<Uint8Array | null>,
): Promise<InputFile[]> {
  const found: InputFile[] = [];
  const asked = new Set<string>();
  for (const open = [...files]; open.length;) {
    const file = open.shift()!;
    if (!/^(html|css)$/.test(kindOfFile(file.path))) continue;
    for (const [, reference] of textOfFile(file).matchAll(REFERENCES)) {
      const path = resolveReference(reference, file.path);
      if (path === null || !isInstalled(path) || asked.has(path) || found.length >= MOST_FILES) continue;
      asked.add(path);
      const bytes = await read(path);
      if (!bytes) continue;
      found.push({ path, bytes });
      // Pages of packages are none of this project's.
      if (kindOfFile(path) === 'css') open.push({ path, bytes });
    }
  }
  return found;
}
