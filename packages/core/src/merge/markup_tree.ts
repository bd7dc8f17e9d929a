import { parse, type AttributeNode, type DirectiveNode, type TemplateChildNode } from '@vue/compiler-dom';
import { Forms, nodeOf, type Slot, type SyntaxNode, Unreadable } from './syntax_tree.ts';
import { scriptTree } from './script_tree.ts';
import { styleTree } from './style_tree.ts';

/** Elements of one line whose content is not markup, by the language that it is in. */
type Inner = (text: string) => SyntaxNode;

/**
 * A page or a single-file component as a tree: elements with their attributes (classes word by word), texts, and what scripts and
 * style sheets in it say as trees of their own.
 * @param language `component` for what has scripts and styles beside its template
 * @throws Unreadable with the line
 */
export function markupTree(text: string, language: 'page' | 'component', forms: Forms): SyntaxNode {
  const wrong: Unreadable[] = [];
  const root = parse(text, {
    parseMode: language === 'page' ? 'html' : 'sfc',
    prefixIdentifiers: false,
    comments: true,
    whitespace: 'preserve',
    onError: (error) => wrong.push(new Unreadable(error.message, error.loc?.start.line ?? null)),
  });
  if (wrong.length) throw wrong[0];
  const { parts, foot } = new Reader(text, forms).children(root.children, 0, text.length);
  return nodeOf(forms, {
    kind: 'Markup',
    name: null,
    own: '',
    slots: [list('children', parts, true)],
    before: '',
    after: '',
    start: 0,
    end: text.length,
    print: ([inside]) => inside + foot,
  });
}

const list = (name: string, parts: readonly SyntaxNode[], ordered: boolean): Slot => ({
  name,
  parts,
  many: true,
  join: '',
  ordered,
});

class Reader {
  readonly #text: string;
  readonly #forms: Forms;

  constructor(text: string, forms: Forms) {
    this.#text = text;
    this.#forms = forms;
  }

  /** Parts of an element between two places; blanks with a break in them, and comments, stand before the next part. */
  children(
    nodes: readonly TemplateChildNode[],
    from: number,
    to: number,
  ): { readonly parts: readonly SyntaxNode[]; readonly foot: string } {
    const parts: SyntaxNode[] = [];
    let at = from;
    for (const node of nodes) {
      const [start, end] = [node.loc.start.offset, node.loc.end.offset];
      // A comment (3) stands before what follows it.
      if (node.type === 3 || (node.type === 2 && /^\s*$/.test(this.#text.slice(start, end)))) continue;
      const before = this.#text.slice(at, start);
      at = end;
      if (node.type === 1) parts.push({ ...this.#element(node), before });
      else {
        const [, lead, said, tail] = /^(\s*)([\s\S]*?)(\s*)$/.exec(this.#text.slice(start, end))!;
        parts.push({
          ...this.#leaf(node.type === 2 ? 'Text' : 'Interpolation', null, said, start + lead.length),
          before: before + lead,
          after: tail,
        });
      }
    }
    return { parts, foot: this.#text.slice(at, to) };
  }

  #leaf(kind: string, name: string | null, said: string, start: number): SyntaxNode {
    return nodeOf(this.#forms, {
      kind,
      name,
      own: said.replace(/\s+/g, ' '),
      slots: [],
      before: '',
      after: '',
      start,
      end: start + said.length,
      print: () => said,
    });
  }

  #element(element: Extract<TemplateChildNode, { type: 1 }>): SyntaxNode {
    const [start, end] = [element.loc.start.offset, element.loc.end.offset];
    const { tag } = element;
    let at = start + 1 + tag.length;
    const attributes = element.props.map((prop): SyntaxNode => {
      const before = this.#text.slice(at, prop.loc.start.offset);
      at = prop.loc.end.offset;
      return { ...this.#attribute(prop), before };
    });
    const opened = at + /^\s*\/?>/.exec(this.#text.slice(at))![0].length;
    const head = this.#text.slice(at, opened);
    const last = /<\/[^<>]*>\s*$/.exec(this.#text.slice(opened, end));
    const closed = last ? opened + last.index : end;
    const content = this.#text.slice(opened, closed);
    const inner = /^(script|style)$/.test(tag) && !/^\s*$/.test(content) ? this.#inner(element) : null;
    const { parts, foot } = inner
      ? { parts: [inner(content)], foot: '' }
      : this.children(element.children, opened, closed);
    return nodeOf(this.#forms, {
      kind: 'Element',
      name: /^(script|style|template|head|body|html|title)$/.test(tag) ? tag : null,
      own: tag,
      slots: [list('attributes', attributes, false), list('children', parts, true)],
      before: '',
      after: '',
      start,
      end,
      print: ([has, holds]) => {
        const lead = `<${tag}${has && !/^\s/.test(has) ? ' ' : ''}${has}`;
        if (holds && !last) return `${lead.trimEnd()}>${holds}</${tag}>`;
        return `${lead}${head}${holds}${foot}${last?.[0] ?? ''}`;
      },
    });
  }

  #inner(element: Extract<TemplateChildNode, { type: 1 }>): Inner {
    const said = (name: string): string => {
      const found = element.props.find((prop) => prop.name === name);
      return found?.type === 6 ? (found.value?.content ?? '') : '';
    };
    const type = said('type');
    if (element.tag === 'style') return (text) => styleTree(text, this.#forms);
    if (/json|importmap|speculationrules/.test(type)) return (text) => scriptTree(text, 'json', this.#forms);
    return (text) => scriptTree(text, said('lang') === 'tsx' ? 'jsx' : 'script', this.#forms);
  }

  #attribute(prop: AttributeNode | DirectiveNode): SyntaxNode {
    const [start, end] = [prop.loc.start.offset, prop.loc.end.offset];
    const said = this.#text.slice(start, end);
    const [, name, opening, value, closing] = /^([^=\s]+)(?:(\s*=\s*["']?)([\s\S]*?)(["']?))?$/.exec(said)!;
    if (name !== 'class' || !value) return this.#leaf('Attribute', name, said, start);
    const words = [...value.matchAll(/(\s*)(\S+)/g)].map(([, before, word]): SyntaxNode => ({
      ...this.#leaf('Class', word, word, start),
      before: before || ' ',
    }));
    return nodeOf(this.#forms, {
      kind: 'Attribute',
      name,
      own: name,
      slots: [list('classes', words, false)],
      before: '',
      after: '',
      start,
      end,
      print: ([classes]) => `${name}${opening}${classes.trim()}${closing}`,
    });
  }
}
