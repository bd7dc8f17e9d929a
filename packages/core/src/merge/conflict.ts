import { hash } from '../json/hash.ts';

/** Which side of a conflict counts: what stands in their file, or what is written now. */
export type MergeSide = 'theirs' | 'ours';

/** Something that both sides say something else about. */
export interface MergeConflict {
  /** The same for the same texts, so that an answer can be kept. */
  readonly id: string;
  readonly why:
    | 'both-changed'
    | 'both-moved'
    | 'both-replaced'
    | 'ours-removed'
    | 'theirs-removed'
    /** Ours has not any more what theirs uses. */
    | 'still-used'
    /** What it stood in is no more. */
    | 'no-place';
  /** The line of their file that it is about, from 1. */
  readonly line: number;
  /** What it said when it was written last, says in their file, and would say now; null where it is not there. */
  readonly base: string | null;
  readonly theirs: string | null;
  readonly ours: string | null;
  /** The element of the design that it is about, where that is known. */
  readonly element?: string;
  /** Which side it was decided for; theirs, while nobody decided. */
  readonly side: MergeSide;
}

export interface Merged {
  readonly text: string;
  /** By the lines that they are about. */
  readonly conflicts: readonly MergeConflict[];
}

/** A conflict with its id, and the side that it was decided for. */
export function conflictOf(
  why: MergeConflict['why'],
  line: number,
  texts: Pick<MergeConflict, MergeSide | 'base'>,
  answers: ReadonlyMap<string, MergeSide> = new Map(),
): MergeConflict {
  const id = `${why}-${hash(JSON.stringify([texts.base, texts.theirs, texts.ours]))}`;
  return { id, why, line, ...texts, side: answers.get(id) ?? 'theirs' };
}
