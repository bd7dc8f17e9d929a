import { type CodeChange, sentenceCase } from '@tovel/core';

export type Grouping = 'screen' | 'fate';

interface Group {
  readonly title: string;
  readonly files: readonly CodeChange[];
}

const FATES: readonly (readonly [CodeChange['fate'], string])[] = [
  ['updated', 'changed'],
  ['new', 'new'],
  ['removed', 'gone'],
];

/**
 * Changed files in groups: by the screen that they are of, what all share last, or by what became of them.
 * @param nameOf what a screen is called; null where it is gone
 */
export function groupsOf(
  changes: readonly CodeChange[],
  grouping: Grouping,
  nameOf: (screen: string) => string | null,
): Group[] {
  if (grouping === 'fate')
    return FATES.map(([fate, word]) => ({
      title: sentenceCase(word),
      files: changes.filter((change) => change.fate === fate),
    })).filter(({ files }) => files.length);
  const groups = new Map<string, CodeChange[]>();
  const shared: CodeChange[] = [];
  for (const change of changes) {
    const title = change.screen === undefined ? null : (nameOf(change.screen) ?? 'Screens that are gone');
    if (title === null) shared.push(change);
    else groups.set(title, [...(groups.get(title) ?? []), change]);
  }
  return [
    ...[...groups].sort(([a], [b]) => (a < b ? -1 : 1)).map(([title, files]) => ({ title, files })),
    ...(shared.length ? [{ title: groups.size ? 'Shared by screens' : 'Shared', files: shared }] : []),
  ];
}

/** `3 files changed, 1 new`. */
export function inFigures(changes: readonly CodeChange[]): string {
  const counts = FATES.map(
    ([fate, word]) => [changes.filter((change) => change.fate === fate).length, word] as const,
  ).filter(([count]) => count);
  if (!counts.length) return 'No file changed.';
  return `${counts
    .map(([count, word], i) => `${count}${i ? '' : count === 1 ? ' file' : ' files'} ${word}`)
    .join(', ')}.`;
}
