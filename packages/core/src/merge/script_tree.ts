import { parse, parseExpression, type ParserPlugin } from '@babel/parser';
import { Forms, nodeOf, type Slot, type SyntaxNode, Unreadable } from './syntax_tree.ts';

/** A node as the parser gives it. */
interface Parsed {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly extra?: { readonly parenthesized?: boolean; readonly parenStart?: number };
  readonly [field: string]: unknown;
}

const BESIDE = new Set([
  'type',
  'start',
  'end',
  'loc',
  'extra',
  'range',
  'errors',
  'comments',
  'tokens',
  'leadingComments',
  'trailingComments',
  'innerComments',
  'interpreter',
]);

/** Slots in which it says nothing which part comes first. */
const SETS = new Set(['attributes', 'members', 'properties', 'named', 'TSInterfaceBody.body']);

/** Where an empty list would stand that its parser gives no place for: before what closes its node. */
const CLOSED = new Set(['body', 'properties', 'members', 'elements', 'arguments', 'cases']);

const COMMAS = new Set(['params', 'arguments', 'elements', 'properties', 'declarations', 'expressions']);

const JOINS: Readonly<Record<string, string>> = {
  'TSUnionType.types': '|',
  'TSIntersectionType.types': '&',
  'TSEnumDeclaration.members': ',',
  'TSEnumBody.members': ',',
};

/** What stands between the parts of a list. */
const joinOf = (type: string, field: string): string =>
  JOINS[`${type}.${field}`] ?? (COMMAS.has(field) ? ',' : '');

const isParsed = (value: unknown): value is Parsed =>
  typeof value === 'object' &&
  value !== null &&
  'type' in value &&
  'start' in value &&
  typeof value.type === 'string';

/**
 * A script (JavaScript or TypeScript, with or without JSX) or a JSON value as a tree.
 * @param language `jsx` for files in which `<` begins an element, `json` for a value
 * @throws Unreadable with the line
 */
export function scriptTree(text: string, language: 'jsx' | 'script' | 'json', forms: Forms): SyntaxNode {
  const plugins: ParserPlugin[] = ['typescript', ...(language === 'jsx' ? (['jsx'] as const) : [])];
  try {
    const root =
      language === 'json'
        ? parseExpression(text, {})
        : parse(text, { sourceType: 'module', plugins }).program;
    return new Reader(text, forms).whole(root as unknown as Parsed);
  } catch (error) {
    const { message, loc } = error as Error & { loc?: { line: number } };
    throw new Unreadable(message.replace(/ \(\d+:\d+\)$/, ''), loc?.line ?? null);
  }
}

interface Child {
  readonly field: string;
  readonly nodes: readonly Parsed[];
  readonly many: boolean;
}

class Reader {
  readonly #text: string;
  readonly #forms: Forms;

  constructor(text: string, forms: Forms) {
    this.#text = text;
    this.#forms = forms;
  }

  /** The whole file: what stands before and behind the root's parts is the root's. */
  whole(root: Parsed): SyntaxNode {
    const { start, end } = extent(root, this.#text);
    return {
      ...this.#node(root, '', ''),
      before: this.#text.slice(0, root.type === 'Program' ? 0 : start),
      after: root.type === 'Program' ? '' : this.#text.slice(end),
    };
  }

  #node(parsed: Parsed, before: string, after: string): SyntaxNode {
    const made = this.#inside(parsed);
    if (!parsed.extra?.parenthesized || parsed.type === 'Program') return { ...made, before, after };
    // Parentheses go where their content goes.
    const { start, end } = extent(parsed, this.#text);
    const [open, close] = [this.#text.slice(start, parsed.start), this.#text.slice(parsed.end, end)];
    const print = (parts: readonly string[]): string => open + made.print(parts) + close;
    return { ...made, before, after, parens: { open, close }, print };
  }

  #inside(parsed: Parsed): SyntaxNode {
    switch (parsed.type) {
      case 'JSXElement':
      case 'JSXFragment':
        return this.#element(parsed);
      case 'ImportDeclaration':
        return this.#import(parsed);
      case 'TemplateLiteral':
        return this.#template(parsed);
      case 'MemberExpression':
        // `styles.row` is one name.
        return !parsed.computed && (parsed.object as Parsed).type === 'Identifier'
          ? this.#leaf(parsed)
          : this.#plain(parsed);
      case 'Program':
        return this.#plain({ ...parsed, start: 0, end: this.#text.length });
      default:
        return this.#plain(parsed);
    }
  }

  #plain(parsed: Parsed): SyntaxNode {
    const children = childrenOf(parsed);
    const flat = children.flatMap(({ nodes }) => nodes.map((node) => extent(node, this.#text)));
    const inOrder = flat.every(({ start }, i) => i === 0 || start >= flat[i - 1].end);
    if (!inOrder || !children.length) return this.#leaf(parsed);

    const literals: string[] = [];
    const slots: Slot[] = [];
    let at = parsed.start;
    for (const { field, nodes, many } of children) {
      if (!nodes.length) {
        const place = this.#placeOfNone(parsed, field, at);
        if (place === null) continue;
        literals.push(this.#text.slice(at, place));
        slots.push(this.#slot(parsed, field, [], many));
        at = place;
        continue;
      }
      const read = this.#list(nodes, many, joinOf(parsed.type, field), at, parsed.end);
      if (!read) return this.#leaf(parsed);
      const { parts, start, end } = read;
      literals.push(this.#text.slice(at, start));
      slots.push(this.#slot(parsed, field, parts, many));
      at = end;
    }
    literals.push(this.#text.slice(at, parsed.end));
    return nodeOf(this.#forms, {
      kind: parsed.type,
      name: this.#nameOf(parsed),
      own: literals.map(wordsOf).join('□'),
      slots,
      before: '',
      after: '',
      start: parsed.start,
      end: parsed.end,
      print: (texts) => literals.map((literal, i) => `${literal}${texts[i] ?? ''}`).join(''),
    });
  }

  #slot(parsed: Parsed, field: string, parts: readonly SyntaxNode[], many: boolean): Slot {
    return {
      name: field,
      parts,
      many,
      join: many ? joinOf(parsed.type, field).replace(/[|&]/, ' $&') : '',
      ordered: !SETS.has(field) && !SETS.has(`${parsed.type}.${field}`),
    };
  }

  /**
   * Parts that follow each other, with what stands between them; where the first begins and the last one ends. Null where
   * something else than the separator, breaks and comments is between them.
   */
  #list(
    nodes: readonly Parsed[],
    many: boolean,
    join: string,
    from: number,
    limit: number,
  ): { readonly parts: readonly SyntaxNode[]; readonly start: number; readonly end: number } | null {
    const places = nodes.map((node) => extent(node, this.#text));
    let [start, end] = [places[0].start, places[places.length - 1].end];
    if (!many) return { parts: [this.#node(nodes[0], '', '')], start, end };
    // Comments on lines of their own before the first part are the part's.
    let before = leadOf(this.#text.slice(from, start));
    start -= before.length;
    const parts: SyntaxNode[] = [];
    for (const [i, node] of nodes.entries()) {
      const last = i + 1 === places.length;
      const gap = this.#text.slice(places[i].end, last ? limit : places[i + 1].start);
      const [head, foot] = partedAt(gap, join);
      if (!last && (!isTrivia(head) || !isTrivia(foot))) return null;
      const trail = sameLineComment(foot);
      // What stands on lines of its own before a separator is about what follows it.
      const [behind, ahead] = /^[^\S\n]*\/[/*]/.test(head) ? [head.trimEnd(), ''] : ['', head.trimEnd()];
      parts.push(this.#node(node, before, (last ? '' : behind) + trail));
      before = ahead + foot.slice(trail.length);
      if (last && trail) end += gap.length - foot.length + trail.length;
    }
    return { parts, start, end };
  }

  #placeOfNone(parsed: Parsed, field: string, at: number): number | null {
    if (parsed.type === 'Program') return parsed.end;
    const last = parsed.end - 1;
    if (CLOSED.has(field) && /[\])}]/.test(this.#text[last] ?? '')) return last;
    if (field !== 'params') return null;
    const open = this.#text.indexOf('(', at);
    return open >= 0 && open < parsed.end ? open + 1 : null;
  }

  #leaf(parsed: Parsed): SyntaxNode {
    const text = this.#text.slice(parsed.start, parsed.end);
    return nodeOf(this.#forms, {
      kind: parsed.type,
      name: this.#nameOf(parsed),
      own: ownOfLeaf(parsed, text),
      slots: [],
      before: '',
      after: '',
      start: parsed.start,
      end: parsed.end,
      print: () => text,
    });
  }

  #element(parsed: Parsed): SyntaxNode {
    const opening = (parsed.openingElement ?? parsed.openingFragment) as Parsed;
    const named = opening.name as Parsed | undefined;
    const typed = (opening.typeArguments ?? opening.typeParameters) as Parsed | undefined;
    const tag = named ? this.#text.slice(named.start, (typed ?? named).end) : '';
    const closing = (parsed.closingElement ?? parsed.closingFragment) as Parsed | null;
    const given = (opening.attributes ?? []) as readonly Parsed[];
    const attributes = given.length
      ? (this.#list(given, true, '', (typed ?? named ?? opening).end, opening.end - 1)?.parts ?? [])
      : [];
    const inner = ((parsed.children ?? []) as readonly Parsed[]).filter(
      (child) =>
        child.type !== 'JSXText' ||
        !/^\s*$/.test(this.#text.slice(child.start, child.end)) ||
        !/\n/.test(this.#text.slice(child.start, child.end)),
    );
    let at = opening.end;
    const children = inner.map((child): SyntaxNode => {
      const lead = this.#text.slice(at, child.start);
      at = child.end;
      if (child.type !== 'JSXText') return this.#node(child, lead, '');
      // Breaks at the ends of a text are the formatter's, blanks are content.
      const text = this.#text.slice(child.start, child.end);
      const [, first, said, last] = /^(\s*\n\s*)?([\s\S]*?)(\s*\n\s*)?$/.exec(text)!;
      return nodeOf(this.#forms, {
        kind: 'JSXText',
        name: null,
        own: said.replace(/\s+/g, ' '),
        slots: [],
        before: lead + (first ?? ''),
        after: last ?? '',
        start: child.start,
        end: child.end,
        print: () => said,
      });
    });
    const foot = closing ? this.#text.slice(at, closing.start) : '';
    const lastAttribute = given.length ? given[given.length - 1].end : (typed ?? named ?? opening).end;
    const tail = named ? this.#text.slice(lastAttribute, opening.end).replace(/\/?>$/, '') : '';
    return nodeOf(this.#forms, {
      kind: 'JSXElement',
      name: null,
      own: tag,
      slots: [
        { name: 'attributes', parts: attributes, many: true, join: '', ordered: false },
        { name: 'children', parts: children, many: true, join: '', ordered: true, isText: true },
      ],
      before: '',
      after: '',
      start: parsed.start,
      end: parsed.end,
      print: ([has, holds]) => {
        const head = `<${tag}${has && !/^\s/.test(has) ? ' ' : ''}${has}`;
        // One that held something and holds nothing any more is closed at once.
        if (closing && (holds || !children.length)) return `${head}${tail}>${holds}${foot}</${tag}>`;
        return holds ? `${head}${tail.trimEnd()}>${holds}</${tag}>` : `${head}${tail || ' '}/>`;
      },
    });
  }

  #import(parsed: Parsed): SyntaxNode {
    const source = parsed.source as Parsed;
    const specifiers = (parsed.specifiers ?? []) as readonly Parsed[];
    const of = (type: string): readonly SyntaxNode[] => {
      const nodes = specifiers.filter((specifier) => specifier.type === type);
      return nodes.map((node) => this.#node(node, '', ''));
    };
    const typed = parsed.importKind === 'type';
    const from = this.#text.slice(source.start, source.end);
    const rest = this.#text.slice(source.end, parsed.end);
    return nodeOf(this.#forms, {
      kind: parsed.type,
      name: `${typed ? 'type ' : ''}${String(source.value)}`,
      own: `${typed ? 'type ' : ''}${String(source.value)}`,
      slots: [
        { name: 'default', parts: of('ImportDefaultSpecifier'), many: false, join: '', ordered: true },
        { name: 'namespace', parts: of('ImportNamespaceSpecifier'), many: false, join: '', ordered: true },
        { name: 'named', parts: of('ImportSpecifier'), many: true, join: ', ', ordered: false },
      ],
      before: '',
      after: '',
      start: parsed.start,
      end: parsed.end,
      print: ([all, space, named]) => {
        const what = [all, space, named && `{ ${named.trim()} }`].filter(Boolean).join(', ');
        return `import ${typed ? 'type ' : ''}${what ? `${what} from ` : ''}${from}${rest}`;
      },
    });
  }

  /** A template of pieces between single blanks, as lists of classes are; any other one is one piece. */
  #template(parsed: Parsed): SyntaxNode {
    const quasis = parsed.quasis as readonly Parsed[];
    const expressions = parsed.expressions as readonly Parsed[];
    const said = quasis.map(({ start, end }) => this.#text.slice(start, end));
    if (/^\s|\s$/.test(said.join('_')) || said.some((text) => /[^\S ]| {2}/.test(text)))
      return this.#leaf(parsed);
    const pieces: (string | Parsed)[][] = [[]];
    for (const [i, text] of said.entries()) {
      for (const [n, word] of text.split(' ').entries()) {
        if (n > 0) pieces.push([]);
        if (word) pieces[pieces.length - 1].push(word);
      }
      if (expressions[i]) pieces[pieces.length - 1].push(expressions[i]);
    }
    const parts = pieces.filter((piece) => piece.length).map((piece) => this.#piece(piece, parsed));
    return nodeOf(this.#forms, {
      kind: parsed.type,
      name: null,
      own: '`',
      slots: [{ name: 'parts', parts, many: true, join: ' ', ordered: true }],
      before: '',
      after: '',
      start: parsed.start,
      end: parsed.end,
      print: ([text]) => `\`${text}\``,
    });
  }

  /** Words and holes without a blank between them. */
  #piece(piece: readonly (string | Parsed)[], { start, end }: Parsed): SyntaxNode {
    const holes = piece.filter((one) => typeof one !== 'string');
    return nodeOf(this.#forms, {
      kind: holes.length ? 'TemplateHole' : 'TemplateWord',
      name: null,
      own: piece.map((one) => (typeof one === 'string' ? one : '${}')).join(''),
      slots: holes.map((hole, i) => ({
        name: `of${String(i)}`,
        parts: [this.#node(hole, '', '')],
        many: false,
        join: '',
        ordered: true,
      })),
      before: '',
      after: '',
      start: holes[0]?.start ?? start,
      end: holes[0]?.end ?? end,
      print: (texts) => {
        let at = 0;
        return piece.map((one) => (typeof one === 'string' ? one : `\${${texts[at++]}}`)).join('');
      },
    });
  }

  /** What a statement declares, an attribute sets or a member is called. */
  #nameOf(parsed: Parsed): string | null {
    const text = (value: unknown): string | null =>
      isParsed(value) ? this.#text.slice(value.start, value.end).replace(/\s+/g, ' ') : null;
    switch (parsed.type) {
      case 'ExportNamedDeclaration':
      case 'ExportDefaultDeclaration':
        return isParsed(parsed.declaration) ? this.#nameOf(parsed.declaration) : parsed.type;
      case 'VariableDeclaration':
        return (parsed.declarations as readonly Parsed[])
          .map((declared) => this.#nameOf(declared) ?? '')
          .join(',');
      case 'VariableDeclarator': {
        const id = parsed.id as Parsed;
        // What is taken apart is known by what it is taken from.
        return id.type === 'Identifier' ? (id.name as string) : text(parsed.init);
      }
      case 'FunctionDeclaration':
      case 'ClassDeclaration':
      case 'TSInterfaceDeclaration':
      case 'TSTypeAliasDeclaration':
      case 'TSEnumDeclaration':
        return isParsed(parsed.id) ? (parsed.id.name as string) : null;
      case 'JSXAttribute':
        return text(parsed.name);
      case 'ObjectProperty':
      case 'ObjectMethod':
      case 'ClassMethod':
      case 'ClassProperty':
      case 'TSPropertySignature':
      case 'TSMethodSignature':
        return text(parsed.key);
      case 'ImportSpecifier':
        return text(parsed.local);
      default:
        return null;
    }
  }
}

function childrenOf(parsed: Parsed): Child[] {
  const children: Child[] = [];
  for (const field of Object.keys(parsed)) {
    const value = parsed[field];
    if (BESIDE.has(field)) continue;
    if (isParsed(value)) children.push({ field, nodes: [value], many: false });
    else if (Array.isArray(value) && (!value.length || value.some(isParsed))) {
      // A hole in a list has no place of its own.
      if (value.every(isParsed)) children.push({ field, nodes: value, many: true });
      else return [];
    }
  }
  const first = ({ nodes }: Child): number => nodes[0]?.start ?? Infinity;
  const there = children.filter(({ nodes }) => nodes.length).sort((a, b) => first(a) - first(b));
  const none = children.filter(({ nodes }) => !nodes.length);
  // Parameters stand before what follows them, all other lists that are empty at the end.
  const params = none.filter(({ field }) => field === 'params');
  const rest = none.filter(({ field }) => field !== 'params' && CLOSED.has(field));
  const named = there.filter(({ field }) => field === 'id' || field === 'key' || field === 'typeParameters');
  return [...named, ...params, ...there.filter((child) => !named.includes(child)), ...rest];
}

/** Where a node stands, with the parentheses around it. */
function extent(node: Parsed, text: string): { readonly start: number; readonly end: number } {
  const open = node.extra?.parenStart;
  if (!node.extra?.parenthesized || open === undefined) return node;
  const close = /^(?:\s|\/\/[^\n]*\n|\/\*[\s\S]*?\*\/)*\)/.exec(text.slice(node.end));
  return close ? { start: open, end: node.end + close[0].length } : node;
}

/** The comments that stand on lines of their own right before a place, with the break before them. */
function leadOf(text: string): string {
  const lead = /(?:(?:^|\n)[ \t]*(?:\/\/[^\n]*|\/\*(?:[^*]|\*(?!\/))*\*\/))*\s*$/.exec(text);
  return lead?.[0] ?? '';
}

const TRIVIA = /^(?:\s|\/\/[^\n]*(?:\n|$)|\/\*[\s\S]*?\*\/)*/;

const isTrivia = (gap: string): boolean => TRIVIA.exec(gap)![0] === gap;

/** What stands before and behind the separator in a gap; all of it behind where there is none. */
function partedAt(gap: string, join: string): [string, string] {
  const at = TRIVIA.exec(gap)![0].length;
  return join && gap.startsWith(join, at) ? [gap.slice(0, at), gap.slice(at + join.length)] : ['', gap];
}

/** A comment that ends the line on which something ends. */
const sameLineComment = (gap: string): string =>
  /^[^\S\n]*(?:\/\/[^\n]*|\/\*[^\n]*?\*\/[^\S\n]*(?=\n))/.exec(gap)?.[0] ?? '';

/** Words of a node's own text as they count: breaks, what separates last and what ends a statement do not. */
function wordsOf(literal: string): string {
  return literal
    .replace(/\s+/g, ' ')
    .replace(/ ?([(){}[\];,=<>:]) ?/g, '$1')
    .replace(/^,|[,;]+$/g, '')
    .replace(/,([\])}])/g, '$1')
    .trim();
}

function ownOfLeaf(parsed: Parsed, text: string): string {
  if (parsed.type === 'StringLiteral' || parsed.type === 'DirectiveLiteral')
    return JSON.stringify(parsed.value);
  return wordsOf(text);
}
