import type { InputFile } from './files.ts';

/** Folders that tools and people put the work of others in; of no library in particular. */
const LIBRARIES = /^(node_modules|bower_components|jspm_packages|vendors?|third[-_ ]?party|libs?|plugins)$/i;

/**
 * The folder of libraries that a file lies in, up to where that folder begins; null for what lies in none.
 * @param packages folders that are packages by themselves
 */
function libraryOf(path: string, packages: ReadonlySet<string>): string | null {
  const folders = path.split('/').slice(0, -1);
  for (let i = 0; i < folders.length; i++) {
    const here = folders.slice(0, i + 1).join('/');
    if (LIBRARIES.test(folders[i]) || (i > 0 && packages.has(here))) return here;
  }
  return null;
}

/**
 * Files that libraries bring along with them, such as the pages of their demos, by the folder of the libraries. Nothing is one
 * where all lies in such folders, and nothing that a page outside of them leads to.
 * @param packages folders that are packages by themselves
 * @param designs what could be screens
 * @param leadsTo the files that a page leads to
 */
export function libraryFiles(
  packages: ReadonlySet<string>,
  designs: readonly InputFile[],
  leadsTo: (page: InputFile) => readonly string[],
): Map<string, InputFile[]> {
  // A package that holds all pages is the project itself.
  const inner = new Set(
    [...packages].filter((folder) => !designs.every(({ path }) => path.startsWith(folder && `${folder}/`))),
  );
  const found = new Map<string, InputFile[]>();
  const own: InputFile[] = [];
  for (const file of designs) {
    const library = libraryOf(file.path, inner);
    if (library === null) own.push(file);
    else found.set(library, [...(found.get(library) ?? []), file]);
  }
  if (!own.length || !found.size) return new Map();
  const led = new Set(own.flatMap(leadsTo));
  return new Map(
    [...found].flatMap(([folder, files]): [string, InputFile[]][] => {
      const rest = files.filter(({ path }) => !led.has(path));
      return rest.length ? [[folder, rest]] : [];
    }),
  );
}
