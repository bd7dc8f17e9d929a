import type { Pairs } from './match_trees.ts';
import { nodesOf, type SyntaxNode } from './syntax_tree.ts';

/** What a name became, for names that became the same wherever they stood. */
export type Renames = ReadonlyMap<string, string>;

/** Kinds whose own words are a name that others may say, too. */
const NAMING = /^(MemberExpression|JSXElement|Element|Class|Rule|ImportSpecifier|ImportDefaultSpecifier)$/;

const NAME = /^\.?[\p{L}_$][\p{L}\p{N}_$.-]*$/u;

/** Names that a version has not any more, and by what each was replaced at all places where it stood. */
export function renamesOf(base: SyntaxNode, pairs: Pairs, version: SyntaxNode): Renames {
  const became = new Map<string, Set<string>>();
  for (const node of nodesOf(base)) {
    if (!NAMING.test(node.kind) || !NAME.test(node.own)) continue;
    const now = pairs.there(node)?.own;
    if (now === undefined || now === node.own || !NAME.test(now)) continue;
    // An element of another kind is not another name for it.
    if (/^(JSXElement|Element)$/.test(node.kind) && !(/^[A-Z]/.test(node.own) && /^[A-Z]/.test(now)))
      continue;
    became.set(node.own, (became.get(node.own) ?? new Set()).add(now));
  }
  for (const node of nodesOf(version)) if (NAMING.test(node.kind)) became.delete(node.own);
  return new Map([...became].flatMap(([from, to]) => (to.size === 1 ? [[from, [...to][0]] as const] : [])));
}

/** A text with names replaced, where they stand as words of their own. */
export function withRenames(text: string, renames: Renames): string {
  let renamed = text;
  for (const [from, to] of renames) {
    if (!renamed.includes(from)) continue;
    const word = from.replace(/[.$]/g, '\\$&');
    renamed = renamed.replace(new RegExp(`(?<![\\w$.-])${word}(?![\\w$-])`, 'g'), () => to);
  }
  return renamed;
}
