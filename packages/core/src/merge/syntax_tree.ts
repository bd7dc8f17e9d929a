/**
 * A file as a tree of its language, with all that is needed to write it again: each node knows its own words and has slots that
 * hold its parts. What a node says and where it stands can so be told apart, and be taken from different versions of the file.
 */
export interface SyntaxNode {
  /** As its parser calls it: only nodes of one kind can be the same in another version. */
  readonly kind: string;
  /** What tells it from its siblings of that kind (what it declares, the attribute it sets), or null. */
  readonly name: string | null;
  /** Its own words, without those of its parts, breaks and what a formatter would change. */
  readonly own: string;
  readonly slots: readonly Slot[];
  /** What stands before and behind it in its slot: breaks and comments, without what separates. */
  readonly before: string;
  readonly after: string;
  /** Where it stands in its text. */
  readonly start: number;
  readonly end: number;
  /** The parentheses that are written around it where it stands, with the breaks in them. */
  readonly parens?: { readonly open: string; readonly close: string };
  /** Writes it, given a text for each slot. */
  readonly print: (parts: readonly string[]) => string;
  /** A number that two nodes have in common if they say the same, with all their parts. */
  readonly form: number;
  /** How many nodes it is, itself counted. */
  readonly size: number;
}

export interface Slot {
  readonly name: string;
  readonly parts: readonly SyntaxNode[];
  /** Whether it can hold any number of parts, else one or none. */
  readonly many: boolean;
  /** What is written right behind each part but the last. */
  readonly join: string;
  /** Whether it says something which of its parts comes first. */
  readonly ordered: boolean;
  /** Whether parentheses around its parts would be text. */
  readonly isText?: boolean;
}

/** A text that is no tree of its language: what is wrong, and the line it is in (from 1), or null. */
export class Unreadable extends Error {
  readonly line: number | null;

  constructor(message: string, line: number | null) {
    super(message);
    this.name = 'Unreadable';
    this.line = line;
  }
}

/** Gives nodes that say the same the same number, in all trees that it makes. */
export class Forms {
  readonly #numbers = new Map<string, number>();

  of(kind: string, own: string, slots: readonly Slot[]): number {
    const said = `${kind}\0${own}\0${slots
      .filter(({ parts }) => parts.length)
      .map(({ name, parts }) => `${name}:${parts.map(({ form }) => form).join(',')}`)
      .join(';')}`;
    const known = this.#numbers.get(said);
    if (known !== undefined) return known;
    this.#numbers.set(said, this.#numbers.size);
    return this.#numbers.size - 1;
  }
}

/** A node with what follows from its parts. */
export const nodeOf = (forms: Forms, node: Omit<SyntaxNode, 'form' | 'size'>): SyntaxNode => ({
  ...node,
  form: forms.of(node.kind, node.own, node.slots),
  size: node.slots.reduce((sum, { parts }) => parts.reduce((n, { size }) => n + size, sum), 1),
});

/** All parts of a node, in their order. */
export const partsOf = (node: SyntaxNode): SyntaxNode[] => node.slots.flatMap(({ parts }) => parts);

/** The node and all that is in it, itself first. */
export function* nodesOf(node: SyntaxNode): Generator<SyntaxNode> {
  yield node;
  for (const { parts } of node.slots) for (const part of parts) yield* nodesOf(part);
}

/** The text of a node as it stands in its own version. */
export const textOf = (node: SyntaxNode): string => node.print(node.slots.map(slotText));

export const slotText = ({ parts, join }: Slot): string =>
  parts
    .map((part, i) => part.before + textOf(part) + (i + 1 < parts.length ? join : '') + part.after)
    .join('');

/** The comments in what stands before or behind a node. */
export const commentsIn = (gap: string): string => gap.replace(/\s+/g, ' ').trim();
