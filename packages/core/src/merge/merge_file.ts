import type { Merged, MergeSide } from './conflict.ts';
import { mergeTrees } from './merge_trees.ts';
import { mergeLines, wholeFile } from './merge_lines.ts';
import { Forms, nodesOf, type SyntaxNode, Unreadable } from './syntax_tree.ts';
import { treeOf } from './tree_of.ts';

export interface MergedFile extends Merged {
  /** Why it was merged line by line, in words; null where it was merged as a tree of its language. */
  readonly byLines: string | null;
}

/** A file in three versions: as it was written last, as it stands there, and as it is written now. */
export interface Versions {
  readonly base: string;
  readonly theirs: string;
  readonly ours: string;
  /** The element of the design that each line of base and of ours was written for, where that is known. */
  readonly lines?: { readonly base: ElementLines; readonly ours: ElementLines };
}

type ElementLines = readonly (string | null)[];

/**
 * Merges a file by the syntax of its language, which its name says; by lines where that cannot be read. What is written is
 * read again: what would not be of its language is one conflict about the whole file.
 * @param path where it is, for its language
 * @param answers sides of conflicts, by their ids
 */
export function mergeFile(
  path: string,
  versions: Versions,
  answers?: ReadonlyMap<string, MergeSide>,
): MergedFile {
  const { base, theirs, ours } = versions;
  if (theirs === base || theirs === ours) return { text: ours, conflicts: [], byLines: null };
  if (ours === base) return { text: theirs, conflicts: [], byLines: null };
  const forms = new Forms();
  let which = 'it';
  try {
    const read = (text: string, called: string): SyntaxNode | null => {
      which = called;
      return treeOf(text, path, forms);
    };
    const trees = [
      read(base, 'what was written last'),
      read(theirs, 'the file'),
      read(ours, 'what is written now'),
    ] as const;
    const [was, there, here] = trees;
    if (!was || !there || !here)
      return { ...mergeLines(versions, answers), byLines: 'it is of no language that is read' };
    const known = versions.lines && {
      first: elementsOf(was, base, versions.lines.base),
      second: elementsOf(here, ours, versions.lines.ours),
    };
    const merged = mergeTrees(was, there, here, answers, known);
    if (merged.conflicts.some(({ why }) => why === 'no-place'))
      return { ...wholeFile(versions, answers), byLines: null };
    which = 'what they make together';
    treeOf(merged.text, path, forms);
    return { ...merged, byLines: null };
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    if (which === 'what they make together') return { ...wholeFile(versions, answers), byLines: null };
    const place = error.line === null ? '' : ` (line ${String(error.line)})`;
    return { ...mergeLines(versions, answers), byLines: `${which} cannot be read: ${error.message}${place}` };
  }
}

/**
 * The outermost node that begins on the first line of each element; of rules only those that are the one rule of their element:
 * which of several is which, their names say.
 */
function elementsOf(root: SyntaxNode, text: string, lines: ElementLines): Map<SyntaxNode, string> {
  const starts = [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
  const taken = new Map<string, SyntaxNode>();
  const elements = new Map<SyntaxNode, string>();
  let line = 0;
  for (const node of nodesOf(root)) {
    if (!/^(JSXElement|Element|Rule)$/.test(node.kind)) continue;
    while (line > 0 && starts[line] > node.start) line--;
    while (line + 1 < starts.length && starts[line + 1] <= node.start) line++;
    const element = lines[line];
    if (!element) continue;
    const other = taken.get(element);
    if (other?.kind === 'Rule') elements.delete(other);
    if (other) continue;
    taken.set(element, node);
    elements.set(node, element);
  }
  return elements;
}
