import * as csstree from 'css-tree';
import { Forms, nodeOf, type SyntaxNode, Unreadable } from './syntax_tree.ts';

/**
 * A style sheet as a tree: rules and at-rules known by what stands before their braces, declarations by their property.
 * @throws Unreadable with the line
 */
export function styleTree(text: string, forms: Forms): SyntaxNode {
  const wrong: { message: string; line: number | null }[] = [];
  const sheet = csstree.parse(text, {
    positions: true,
    parseValue: false,
    parseRulePrelude: false,
    parseAtrulePrelude: false,
    parseCustomProperty: false,
    onParseError: (error) =>
      wrong.push({ message: error.message, line: (error as { line?: number }).line ?? null }),
  });
  if (wrong.length) throw new Unreadable(wrong[0].message, wrong[0].line);
  const list = (
    children: csstree.List<csstree.CssNode>,
    from: number,
    to: number,
  ): [SyntaxNode[], string] => {
    const parts: SyntaxNode[] = [];
    let at = from;
    for (const child of children) {
      // Comments are in what stands before a part.
      if (child.type === 'Comment' || !child.loc) continue;
      let end = child.loc.end.offset;
      if (child.type === 'Declaration') end += /^\s*;?/.exec(text.slice(end, to))![0].length;
      const before = text.slice(at, child.loc.start.offset);
      parts.push({ ...node(child, end), before });
      at = end;
    }
    return [parts, text.slice(at, to)];
  };
  const node = (child: csstree.CssNode, end: number): SyntaxNode => {
    const start = child.loc!.start.offset;
    const said = text.slice(start, end);
    const place = { before: '', after: '', start, end };
    const block = child.type === 'Rule' || child.type === 'Atrule' ? child.block : null;
    if (!block?.loc) {
      const property = child.type === 'Declaration' ? child.property : null;
      return nodeOf(forms, {
        kind: child.type,
        name: property ?? spaced(said),
        own: spaced(said).replace(/\s*;$/, ''),
        slots: [],
        ...place,
        // The last one may have come without what ends it.
        print: () => (property && !said.endsWith(';') ? `${said.trimEnd()};` : said),
      });
    }
    const [open, close] = [block.loc.start.offset + 1, block.loc.end.offset - 1];
    const [parts, foot] = list(block.children, open, close);
    const head = text.slice(start, open);
    const name = spaced(head.slice(0, -1));
    return nodeOf(forms, {
      kind: child.type,
      name,
      own: name,
      slots: [{ name: 'block', parts, many: true, join: '', ordered: false }],
      ...place,
      print: ([inside]) => `${head}${inside}${foot}}`,
    });
  };
  const [parts, foot] = list((sheet as csstree.StyleSheet).children, 0, text.length);
  return nodeOf(forms, {
    kind: 'StyleSheet',
    name: null,
    own: '',
    slots: [{ name: 'rules', parts, many: true, join: '', ordered: false }],
    before: '',
    after: '',
    start: 0,
    end: text.length,
    print: ([inside]) => inside + foot,
  });
}

const spaced = (text: string): string => text.replace(/\s+/g, ' ').trim();
