import { diff3Merge } from 'node-diff3';
import { type MergeConflict, conflictOf, type Merged, type MergeSide } from './conflict.ts';
import type { Versions } from './merge_file.ts';

/** Merges a text line by line: what both changed at one place is a conflict, for which their lines count until it is decided. */
export function mergeLines(
  { base, theirs, ours }: Versions,
  answers?: ReadonlyMap<string, MergeSide>,
): Merged {
  const [was, there, here] = [base, theirs, ours].map((text) => text.split('\n'));
  const conflicts: MergeConflict[] = [];
  const lines: string[] = [];
  for (const { ok, conflict } of diff3Merge(there, was, here, { excludeFalseConflicts: true })) {
    if (ok) lines.push(...ok);
    if (!conflict) continue;
    const texts = {
      base: conflict.o.join('\n'),
      theirs: conflict.a.join('\n'),
      ours: conflict.b.join('\n'),
    };
    const found = conflictOf('both-changed', conflict.aIndex + 1, texts, answers);
    conflicts.push(found);
    lines.push(...(found.side === 'ours' ? conflict.b : conflict.a));
  }
  return { text: lines.join('\n'), conflicts };
}

/** A file of which only the one or the other version can be had. */
export function wholeFile(
  { base, theirs, ours }: Versions,
  answers?: ReadonlyMap<string, MergeSide>,
): Merged {
  const conflict = conflictOf('no-place', 1, { base, theirs, ours }, answers);
  return { text: conflict.side === 'ours' ? ours : theirs, conflicts: [conflict] };
}
