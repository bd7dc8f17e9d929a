import type { EmittedFile, EmittedProject } from '../emit/emitted.ts';
import { counterpartsOf, endingOf } from './counterparts.ts';
import { entryOf } from './manifest.ts';

/** What became of a file of the code between two times. */
export interface CodeChange {
  /** Where it is; of one that is gone, where it was. */
  readonly path: string;
  readonly fate: 'new' | 'updated' | 'removed';
  /** Where it was before, if it was elsewhere. */
  readonly movedFrom?: string;
  /** Its text then and now; a picture has none. */
  readonly before?: string;
  readonly after?: string;
  /** Key of the screen that it is of. */
  readonly screen?: string;
}

/**
 * Which files of a code base became something else, by path. A file whose elements are for the most part in another one by now is
 * taken for that one, as a screen that is called otherwise.
 */
export function codeChanges(before: EmittedProject, after: EmittedProject): CodeChange[] {
  const was = byPath(before.files);
  const is = byPath(after.files);
  const gone = before.files.filter(({ path }) => !is.has(path));
  const known = new Map(gone.map((file) => [file.path, entryOf(file, '')] as const));
  const moved = counterpartsOf(
    new Set(known.keys()),
    known,
    after.files.filter(({ path }) => !was.has(path)),
  );
  const [screensThen, screensNow] = [screensByFile(before), screensByFile(after)];
  // What lies beside a screen goes along with it, whatever it is about.
  const added = new Map(
    after.files.flatMap(({ path }) =>
      was.has(path) ? [] : [[`${screensNow(path) ?? ''} ${endingOf(path)}`, path] as const],
    ),
  );
  for (const { path } of gone) {
    const screen = screensThen(path);
    const now = screen === undefined ? undefined : added.get(`${screen} ${endingOf(path)}`);
    if (now !== undefined && !moved.has(path)) moved.set(path, now);
  }
  const from = new Map([...moved].map(([old, now]) => [now, old]));
  const ofScreen = (screen: string | undefined) => (screen === undefined ? {} : { screen });
  const changes = after.files.flatMap((file): CodeChange[] => {
    const { path } = file;
    const movedFrom = from.get(path);
    const old = was.get(movedFrom ?? path);
    if (old && movedFrom === undefined && isSame(old, file)) return [];
    return [
      {
        path,
        fate: old ? 'updated' : 'new',
        ...(movedFrom === undefined ? {} : { movedFrom }),
        ...(old && 'text' in old ? { before: old.text } : {}),
        ...('text' in file ? { after: file.text } : {}),
        ...ofScreen(screensNow(path)),
      },
    ];
  });
  const removed = gone
    .filter(({ path }) => !moved.has(path))
    .map((file): CodeChange => ({
      path: file.path,
      fate: 'removed',
      ...('text' in file ? { before: file.text } : {}),
      ...ofScreen(screensThen(file.path)),
    }));
  return [...changes, ...removed].sort((a, b) => (a.path < b.path ? -1 : 1));
}

const byPath = (files: readonly EmittedFile[]): ReadonlyMap<string, EmittedFile> =>
  new Map(files.map((file) => [file.path, file]));

const isSame = (a: EmittedFile, b: EmittedFile): boolean =>
  'text' in a && 'text' in b ? a.text === b.text : 'asset' in a && 'asset' in b && a.asset === b.asset;

/** Which screen a file is of: that whose own file lies beside it and is called alike up to its ending. */
function screensByFile({ fileOfScreen }: EmittedProject): (path: string) => string | undefined {
  const screens = new Map([...fileOfScreen].map(([screen, path]) => [withoutEnding(path), screen]));
  return (path) => screens.get(withoutEnding(path));
}

/** A path up to the first dot of its file: what a screen's component, styles and logic have in common. */
const withoutEnding = (path: string): string => path.replace(/\.[^/]*$/, '');
