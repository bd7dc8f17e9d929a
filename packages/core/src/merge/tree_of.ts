import { markupTree } from './markup_tree.ts';
import { scriptTree } from './script_tree.ts';
import { styleTree } from './style_tree.ts';
import type { Forms, SyntaxNode } from './syntax_tree.ts';

type Reader = (text: string, forms: Forms) => SyntaxNode;

const READERS: readonly (readonly [RegExp, Reader])[] = [
  [/\.[jt]sx$/, (text, forms) => scriptTree(text, 'jsx', forms)],
  [/\.[cm]?[jt]s$/, (text, forms) => scriptTree(text, 'script', forms)],
  [/\.json$/, (text, forms) => scriptTree(text, 'json', forms)],
  [/\.css$/, styleTree],
  [/\.vue$/, (text, forms) => markupTree(text, 'component', forms)],
  [/\.html?$/, (text, forms) => markupTree(text, 'page', forms)],
];

/**
 * A file as a tree of the language that its name says, or null for one that is read line by line.
 * @throws Unreadable with the line
 */
export function treeOf(text: string, path: string, forms: Forms): SyntaxNode | null {
  return READERS.find(([pattern]) => pattern.test(path))?.[1](text, forms) ?? null;
}
