import {
  type Expression as Node,
  parseExpressionAt,
  type Pattern,
  type PrivateIdentifier,
  type SpreadElement,
  type Super,
} from 'acorn';
import type { FieldType } from '../model/app.ts';
import { recordVariable, uniqueCodeName } from '../model/names.ts';
import type { Comparison, Expression, ListingQuestion } from './expression.ts';

/** What an expression comes to. */
export type Type =
  | { readonly kind: 'number' | 'yes-no' | 'date' }
  /** Several texts, in an order. */
  | { readonly kind: 'list' }
  /** Of a text that is one of some: which; of one that calls a record: of which collection, and in which field that says it. */
  | {
      readonly kind: 'text';
      readonly choices?: readonly string[];
      readonly refersTo?: KnownField['refersTo'];
    }
  | { readonly kind: 'records' | 'record'; readonly of: string };

/** A field of records, as expressions know it. */
export interface KnownField {
  readonly name: string;
  readonly type: FieldType;
  /** The collection whose records it refers to, and the field in which those say what it says. */
  readonly refersTo?: { readonly of: string; readonly by: string };
}

/** What expressions can speak of, by the names that they have in code. */
export interface KnownNames {
  /** The fields of the records of each collection. */
  readonly collections: Readonly<Record<string, readonly KnownField[]>>;
  /** What the app remembers, by the name of each variable in code. */
  readonly variables: Readonly<Record<string, Type>>;
  /** Whether it is worked out when something was entered, which is called so then. */
  readonly hasEntered?: boolean;
  /** Single records that are at hand, by what they are called, with the collection of each. */
  readonly items?: Readonly<Record<string, string>>;
  /** The record that the screen shows, by the name that it has there, with its collection and what gives it. */
  readonly records?: Readonly<Record<string, { readonly of: string; readonly hook: string }>>;
  /** What gives the list of a collection where the expression stands; only such lists can be asked how they are looked at. */
  readonly lists: Readonly<Record<string, { readonly name: string; readonly hook: string }>>;
  /** Is told each name that is spoken of, with its place. */
  readonly onName?: (spoken: SpokenName) => void;
}

/** A name of the app in an expression: from the first letter to behind the last, from 0 on. */
export interface SpokenName {
  readonly what: 'variable' | 'collection' | 'record' | 'field';
  readonly name: string;
  /** The collection that a record or a field is of. */
  readonly of?: string;
  readonly start: number;
  readonly end: number;
}

/** What is wrong with an expression, and where: from the first letter to behind the last, from 0 on. */
export interface ExpressionProblem {
  readonly message: string;
  readonly start: number;
  readonly end: number;
}

export type ParsedExpression =
  | { readonly expression: Expression; readonly type: Type; readonly problem?: undefined }
  | { readonly problem: ExpressionProblem };

/** Longer texts and deeper ones are not read. */
export const LONGEST_EXPRESSION = 2000;
const DEEPEST = 40;

/** What what was entered into an element is called. */
export const ENTERED = 'entered';

const TEXT: Type = { kind: 'text' };
const NUMBER: Type = { kind: 'number' };
const YES_NO: Type = { kind: 'yes-no' };
const LIST: Type = { kind: 'list' };

/** How a list can be asked how it is looked at. */
export const QUESTIONS: Readonly<Record<string, { readonly asks: ListingQuestion; readonly says: string }>> =
  {
    firstShown: { asks: 'first', says: 'which of those that fit is the first that is seen' },
    lastShown: { asks: 'last', says: 'which of those that fit is the last that is seen' },
    found: { asks: 'found', says: 'how many fit what is looked for' },
    page: { asks: 'page', says: 'which page is seen' },
    pages: { asks: 'pages', says: 'how many pages there are' },
  };

/** Whether a function asks how a list is looked at, and not what its records are. */
export const isQuestion = (name: string): boolean => Object.hasOwn(QUESTIONS, name);

type Each = 'number' | 'yes-no' | 'any';

interface Listed {
  /** `many` are records or a list of texts. */
  readonly takes: readonly ('records' | 'list' | 'many' | 'each' | 'any')[];
  /** `one` is one of the records that it takes. */
  readonly gives: Type | 'same' | 'one';
  /** What comes of each item. */
  readonly each?: Each;
  readonly says: string;
}

/** What can be called, with what it is given. */
export const FUNCTIONS: Readonly<Record<string, Listed>> = {
  count: { takes: ['many'], gives: NUMBER, says: 'how many there are' },
  filter: {
    takes: ['many', 'each'],
    gives: 'same',
    each: 'yes-no',
    says: 'only those of which this holds',
  },
  sort: { takes: ['many', 'each'], gives: 'same', each: 'any', says: 'in the order of this' },
  first: { takes: ['records'], gives: 'one', says: 'the first of them' },
  sum: { takes: ['records', 'each'], gives: NUMBER, each: 'number', says: 'all of these together' },
  least: { takes: ['records', 'each'], gives: NUMBER, each: 'number', says: 'the smallest of these' },
  most: { takes: ['records', 'each'], gives: NUMBER, each: 'number', says: 'the largest of these' },
  map: { takes: ['many', 'each'], gives: LIST, each: 'any', says: 'a list of what each says' },
  unique: { takes: ['list'], gives: LIST, says: 'each text of a list once' },
  including: { takes: ['list', 'any'], gives: LIST, says: 'a list with one more text' },
  without: { takes: ['list', 'any'], gives: LIST, says: 'a list without a text' },
  toggled: {
    takes: ['list', 'any'],
    gives: LIST,
    says: 'a list with a text, or without it where it is there',
  },
  holds: { takes: ['list', 'any'], gives: YES_NO, says: 'whether a text is in a list' },
  join: { takes: ['list', 'any'], gives: TEXT, says: 'a list as one text, with this between' },
  upper: { takes: ['any'], gives: TEXT, says: 'in capital letters' },
  lower: { takes: ['any'], gives: TEXT, says: 'in small letters' },
  contains: { takes: ['any', 'any'], gives: YES_NO, says: 'whether the one holds the other' },
  today: { takes: [], gives: { kind: 'date' }, says: 'the day that it is' },
  formatNumber: { takes: ['any'], gives: TEXT, says: 'as people write numbers' },
  formatMoney: { takes: ['any', 'any'], gives: TEXT, says: "with a currency, such as 'GBP'" },
  formatDate: { takes: ['any'], gives: TEXT, says: 'as people write dates' },
};

class Wrong extends Error {
  readonly start: number;
  readonly end: number;

  constructor(message: string, { start, end }: { readonly start: number; readonly end: number }) {
    super(message);
    this.start = start;
    this.end = end;
  }
}

/** Trees of what was read last: the same is read at each change of a project. */
const trees = new Map<string, ReturnType<typeof parseExpressionAt>>();
const MOST_TREES = 2000;

function parsed(source: string): ReturnType<typeof parseExpressionAt> {
  let tree = trees.get(source);
  if (!tree) {
    tree = parseExpressionAt(source, 0, { ecmaVersion: 2022 });
    if (trees.size >= MOST_TREES) trees.clear();
    trees.set(source, tree);
  }
  return tree;
}

/**
 * Reads an expression as people write it: a part of the expressions of TypeScript. It is never run; what it cannot hold is
 * told with its place.
 */
export function parseExpression(source: string, known: KnownNames): ParsedExpression {
  if (source.length > LONGEST_EXPRESSION)
    return {
      problem: {
        message: `an expression has at most ${LONGEST_EXPRESSION} letters; this has ${source.length}`,
        start: LONGEST_EXPRESSION,
        end: source.length,
      },
    };
  try {
    const node = parsed(source);
    const rest = source.slice(node.end).search(/\S/);
    if (rest >= 0)
      throw new Wrong('an expression ends before this', { start: node.end + rest, end: source.length });
    const { expression, type } = new Reader(known).read(node, 0);
    return { expression, type };
  } catch (error) {
    if (error instanceof Wrong)
      return { problem: { message: error.message, start: error.start, end: error.end } };
    const { pos = 0, message = '' } = error as { pos?: number; message?: string };
    const isOver = pos >= source.trimEnd().length;
    return {
      problem: {
        message:
          source.trim() === ''
            ? 'nothing is written yet'
            : isOver
              ? 'it ends too early'
              : /stack/i.test(message)
                ? 'it is too deep'
                : /string|template/i.test(message)
                  ? 'a text is not closed'
                  : 'this cannot stand here',
        start: Math.min(pos, source.length),
        end: Math.min(pos + 1, source.length),
      },
    };
  }
}

interface Read {
  readonly expression: Expression;
  readonly type: Type;
}

const COMPARISONS: Readonly<Record<string, Comparison>> = {
  '===': 'equal',
  '!==': 'different',
  '<': 'less',
  '<=': 'atMost',
  '>': 'more',
  '>=': 'atLeast',
};
const ARITHMETIC = { '+': 'plus', '-': 'minus', '*': 'times', '/': 'over', '%': 'rest' } as const;

type AnyNode = Node | SpreadElement | PrivateIdentifier | Super | Pattern;

class Reader {
  readonly #known: KnownNames;
  /** What items are called within functions that look at each, with the collections that they are of; none of texts. */
  readonly #items: Map<string, string | null>;

  constructor(known: KnownNames) {
    this.#known = known;
    this.#items = new Map(Object.entries(known.items ?? {}));
  }

  read(node: AnyNode, depth: number): Read {
    if (depth > DEEPEST) throw new Wrong('it is too deep', node);
    const inner = (one: AnyNode): Read => this.read(one, depth + 1);
    switch (node.type) {
      case 'Literal':
        return this.#literal(node);
      case 'TemplateLiteral':
        return {
          expression: {
            kind: 'text',
            parts: node.quasis.flatMap(({ value }, i): Expression[] => [
              ...(value.cooked ? [{ kind: 'literal', value: value.cooked } as const] : []),
              ...(node.expressions[i] ? [this.#said(inner(node.expressions[i]), node.expressions[i])] : []),
            ]),
          },
          type: TEXT,
        };
      case 'Identifier':
        return this.#named(node);
      case 'MemberExpression':
        return this.#field(node, inner);
      case 'UnaryExpression': {
        const of = inner(node.argument);
        if (node.operator === '!') return { expression: { kind: 'not', of: of.expression }, type: YES_NO };
        if (node.operator === '-')
          return {
            expression: {
              kind: 'arithmetic',
              by: 'minus',
              left: { kind: 'literal', value: 0 },
              right: this.#number(of, node.argument),
            },
            type: NUMBER,
          };
        throw new Wrong(`“${node.operator}” cannot be used; there are ! and -`, node);
      }
      case 'LogicalExpression': {
        if (node.operator === '??') throw new Wrong('write || for what is taken otherwise', node);
        const [left, right] = [inner(node.left), inner(node.right)];
        return {
          expression: {
            kind: node.operator === '&&' ? 'and' : 'or',
            of: [left.expression, right.expression],
          },
          type: left.type.kind === right.type.kind ? either(left.type, right.type) : YES_NO,
        };
      }
      case 'ConditionalExpression': {
        const [when, yes, no] = [node.test, node.consequent, node.alternate].map(inner);
        return {
          expression: { kind: 'choice', when: when.expression, yes: yes.expression, no: no.expression },
          type: yes.type.kind === no.type.kind ? either(yes.type, no.type) : TEXT,
        };
      }
      case 'BinaryExpression':
        return this.#binary(node.operator, node.left, node.right, node, inner);
      case 'CallExpression':
        return this.#call(node, inner);
      case 'AssignmentExpression':
        throw new Wrong('write === to hold two values against each other', node);
      case 'ArrowFunctionExpression':
        throw new Wrong('such a function is given to filter, sort, map, sum, least or most', node);
      default:
        throw new Wrong('this cannot be used in an expression', node);
    }
  }

  #literal(node: Extract<AnyNode, { type: 'Literal' }>): Read {
    const { value } = node;
    if (typeof value === 'string')
      return { expression: { kind: 'literal', value }, type: { kind: 'text', choices: [value] } };
    if (typeof value === 'number') return { expression: { kind: 'literal', value }, type: NUMBER };
    if (typeof value === 'boolean') return { expression: { kind: 'literal', value }, type: YES_NO };
    throw new Wrong('a value is a text, a number, true or false', node);
  }

  #named(node: Extract<AnyNode, { type: 'Identifier' }>): Read {
    const { name } = node;
    const { collections, variables, hasEntered } = this.#known;
    const item = this.#items.get(name);
    const { start, end } = node;
    const tell = (what: SpokenName['what'], of?: string): void =>
      this.#known.onName?.({ what, name, start, end, ...(of === undefined ? {} : { of }) });
    if (item !== undefined) {
      if (this.#known.items?.[name] !== undefined) tell('record', this.#known.items[name]);
      return {
        expression: { kind: 'item', name },
        type: item === null ? TEXT : { kind: 'record', of: item },
      };
    }
    const record = this.#known.records?.[name];
    if (record) {
      tell('record', record.of);
      return {
        expression: { kind: 'record', name, of: record.of, from: record.hook },
        type: { kind: 'record', of: record.of },
      };
    }
    if (Object.hasOwn(collections, name)) {
      tell('collection');
      return { expression: { kind: 'records', name }, type: { kind: 'records', of: name } };
    }
    if (Object.hasOwn(variables, name)) {
      tell('variable');
      return remembered(name, variables[name]);
    }
    if (name === ENTERED && hasEntered) return { expression: { kind: 'prop', name }, type: TEXT };
    const names = [
      ...this.#items.keys(),
      ...Object.keys(this.#known.records ?? {}),
      ...Object.keys(collections),
      ...Object.keys(variables),
      ...(hasEntered ? [ENTERED] : []),
    ];
    throw new Wrong(
      Object.hasOwn(FUNCTIONS, name) || Object.hasOwn(QUESTIONS, name)
        ? `${name} is called with what it is about: ${name}(…)`
        : `nothing is called ${name}${names.length ? `; there are ${names.slice(0, 8).join(', ')}` : ''}`,
      node,
    );
  }

  #field(node: Extract<AnyNode, { type: 'MemberExpression' }>, inner: (one: AnyNode) => Read): Read {
    if (node.computed || node.property.type !== 'Identifier')
      throw new Wrong('a field is called by its name: tool.name', node);
    const { expression, type } = this.#referred(inner(node.object));
    const { name } = node.property;
    if (type.kind === 'records')
      throw new Wrong(`${type.of} are many; count(${type.of}) says how many, filter takes some`, node);
    if (type.kind !== 'record') throw new Wrong('only a record has fields', node.property);
    const fields = this.#known.collections[type.of] ?? [];
    const field = fields.find((one) => one.name === name);
    if (!field)
      throw new Wrong(
        `${type.of} have no field ${name}; they have ${fields.map((one) => one.name).join(', ')}`,
        node.property,
      );
    const { refersTo } = field;
    const { start, end } = node.property;
    this.#known.onName?.({ what: 'field', name, of: type.of, start, end });
    return {
      expression: { kind: 'field', of: expression, name },
      type: refersTo ? { kind: 'text', refersTo } : typeOfField(field),
    };
  }

  /** The record that a field refers to, where a field of that is asked for. */
  #referred(read: Read): Read {
    const refersTo = read.type.kind === 'text' ? read.type.refersTo : undefined;
    if (!refersTo || !Object.hasOwn(this.#known.collections, refersTo.of)) return read;
    const { of, by } = refersTo;
    const item = uniqueCodeName(recordVariable(of), 'one', (name) => this.#isTaken(name));
    return {
      expression: {
        kind: 'call',
        name: 'first',
        args: [
          {
            kind: 'each',
            by: 'filter',
            list: { kind: 'records', name: of },
            item,
            of: {
              kind: 'compare',
              by: 'equal',
              left: { kind: 'field', of: { kind: 'item', name: item }, name: by },
              right: read.expression,
            },
          },
        ],
      },
      type: { kind: 'record', of },
    };
  }

  /** Whether something is called so where an expression stands. */
  #isTaken(name: string): boolean {
    const { collections, variables, records = {} } = this.#known;
    return this.#items.has(name) || [collections, variables, records].some((one) => Object.hasOwn(one, name));
  }

  #binary(
    operator: string,
    left: AnyNode,
    right: AnyNode,
    node: AnyNode,
    inner: (one: AnyNode) => Read,
  ): Read {
    const [a, b] = [inner(left), inner(right)];
    const by = COMPARISONS[operator];
    if (by) {
      if (a.type.kind === 'record' && b.type.kind === 'record' && a.type.of === b.type.of)
        return {
          expression: { kind: 'compare', by, left: idOf(a.expression), right: idOf(b.expression) },
          type: YES_NO,
        };
      const areNumbers = a.type.kind === 'number' || b.type.kind === 'number';
      if (areNumbers)
        return {
          expression: { kind: 'compare', by, left: this.#number(a, left), right: this.#number(b, right) },
          type: YES_NO,
        };
      this.#comparable(a, b, node);
      return { expression: { kind: 'compare', by, left: a.expression, right: b.expression }, type: YES_NO };
    }
    if (operator === '+' && (a.type.kind === 'text' || b.type.kind === 'text'))
      return {
        expression: { kind: 'text', parts: [this.#said(a, left), this.#said(b, right)] },
        type: TEXT,
      };
    if (Object.hasOwn(ARITHMETIC, operator))
      return {
        expression: {
          kind: 'arithmetic',
          by: ARITHMETIC[operator as keyof typeof ARITHMETIC],
          left: this.#number(a, left),
          right: this.#number(b, right),
        },
        type: NUMBER,
      };
    throw new Wrong(
      operator === '==' || operator === '!='
        ? `write ${operator}= instead of ${operator}`
        : `“${operator}” cannot be used`,
      node,
    );
  }

  #comparable(a: Read, b: Read, node: AnyNode): void {
    const kinds = [a.type.kind, b.type.kind].map((kind) => (kind === 'date' ? 'text' : kind));
    if (kinds[0] !== kinds[1] || /^(records?|list)$/.test(kinds[0]))
      throw new Wrong(`a ${a.type.kind} cannot be held against a ${b.type.kind}`, node);
    for (const [one, other] of [
      [a, b],
      [b, a],
    ])
      if (
        one.type.kind === 'text' &&
        one.type.choices &&
        other.expression.kind === 'literal' &&
        !one.type.choices.includes(String(other.expression.value))
      )
        throw new Wrong(`it is never “${other.expression.value}”, but ${one.type.choices.join(', ')}`, node);
  }

  /** A value as a number: what records say are texts. */
  #number({ expression, type }: Read, node: AnyNode): Expression {
    if (type.kind === 'records') throw new Wrong(`write count(${type.of}) for how many there are`, node);
    if (type.kind === 'record' || type.kind === 'yes-no' || type.kind === 'list')
      throw new Wrong(`a ${type.kind} is no number`, node);
    return expression.kind === 'field' || type.kind !== 'number'
      ? { kind: 'call', name: 'number', args: [expression] }
      : expression;
  }

  /** A value as a part of a text. */
  #said({ expression, type }: Read, node: AnyNode): Expression {
    if (type.kind === 'records') throw new Wrong(`write count(${type.of}) for how many there are`, node);
    if (type.kind === 'record') throw new Wrong('say which field of it', node);
    if (type.kind === 'list') throw new Wrong("write join(…, ', ') for a list as one text", node);
    return expression;
  }

  #call(node: Extract<AnyNode, { type: 'CallExpression' }>, inner: (one: AnyNode) => Read): Read {
    const { callee, arguments: given } = node;
    const name = callee.type === 'Identifier' ? callee.name : '';
    if (Object.hasOwn(QUESTIONS, name)) return this.#question(name, given, node);
    if (!Object.hasOwn(FUNCTIONS, name))
      throw new Wrong(
        `there is no function ${name || 'of that kind'}; there are ${[...Object.keys(FUNCTIONS), ...Object.keys(QUESTIONS)].join(', ')}`,
        callee,
      );
    const { takes, gives, each } = FUNCTIONS[name];
    if (given.length !== takes.length)
      throw new Wrong(
        `${name} takes ${takes.length || 'nothing'}${takes.length ? ` value${takes.length > 1 ? 's' : ''}` : ''}, not ${given.length}`,
        node,
      );
    const [first, ...others] = given;
    const read = takes[0] && takes[0] !== 'any' ? inner(first) : null;
    if (read && !MANY[takes[0] as keyof typeof MANY].includes(read.type.kind))
      throw new Wrong(`${name} takes ${SAYS_MANY[takes[0] as keyof typeof SAYS_MANY] ?? 'records'}`, first);
    if (read && each)
      return {
        expression: {
          kind: 'each',
          by: name as Extract<Expression, { kind: 'each' }>['by'],
          list: read.expression,
          ...this.#lambda(given[1], read.type.kind === 'records' ? read.type.of : null, each, inner),
        },
        type: typeof gives === 'string' ? read.type : gives,
      };
    const found: Type =
      read && gives === 'one' ? { kind: 'record', of: (read.type as { of: string }).of } : TEXT;
    return {
      expression: {
        kind: 'call',
        name: name as Extract<Expression, { kind: 'call' }>['name'],
        args: [
          ...(read ? [read.expression] : []),
          ...(read ? others : given).map((one) => this.#said(inner(one), one)),
        ],
      },
      type: typeof gives === 'string' ? found : gives,
    };
  }

  #lambda(
    node: AnyNode,
    of: string | null,
    each: Each,
    inner: (one: AnyNode) => Read,
  ): { readonly item: string; readonly of: Expression } {
    const field = of === null ? '' : `.${this.#known.collections[of]?.[0]?.name ?? 'name'}`;
    const hint = `write what is looked at of each: (one) => one${field}`;
    if (node.type !== 'ArrowFunctionExpression' || node.body.type === 'BlockStatement')
      throw new Wrong(hint, node);
    const [parameter, ...more] = node.params;
    if (!parameter || more.length || parameter.type !== 'Identifier') throw new Wrong(hint, node);
    const { name } = parameter;
    const { collections, variables } = this.#known;
    if (this.#items.has(name) || Object.hasOwn(collections, name) || Object.hasOwn(variables, name))
      throw new Wrong(`something else is called ${name}`, parameter);
    this.#items.set(name, of);
    const body = inner(node.body);
    this.#items.delete(name);
    const isNumber = each === 'number' || (each === 'any' && body.type.kind === 'number');
    if (each === 'any' && /^(records?|list)$/.test(body.type.kind)) this.#said(body, node.body);
    return { item: name, of: isNumber ? this.#number(body, node.body) : body.expression };
  }

  #question(name: string, given: readonly AnyNode[], node: AnyNode): Read {
    const [list] = given;
    const of = list?.type === 'Identifier' ? list.name : '';
    if (given.length !== 1 || !Object.hasOwn(this.#known.collections, of))
      throw new Wrong(`${name} takes the name of a collection`, list ?? node);
    const { start, end } = list;
    this.#known.onName?.({ what: 'collection', name: of, start, end });
    const at = Object.hasOwn(this.#known.lists, of) ? this.#known.lists[of] : undefined;
    if (!at) throw new Wrong(`no list of ${of} stands on this screen`, list);
    return {
      expression: { kind: 'listing', of: at.name, from: at.hook, asks: QUESTIONS[name].asks, given: [] },
      type: NUMBER,
    };
  }
}

const SAYS_MANY = { list: 'a list of texts', many: 'records or a list of texts' } as const;

/** What a function takes that is about many. */
const MANY: Readonly<Record<'records' | 'list' | 'many' | 'each', readonly Type['kind'][]>> = {
  records: ['records'],
  list: ['list'],
  many: ['records', 'list'],
  each: [],
};

/** What the app remembers; of a record that is its id. */
const remembered = (name: string, type: Type): Read => ({
  expression:
    type.kind === 'record'
      ? {
          kind: 'call',
          name: 'byId',
          args: [
            { kind: 'records', name: type.of },
            { kind: 'variable', name },
          ],
        }
      : { kind: 'variable', name },
  type,
});

/** What a record is known by; of one that is found by its id, that. */
export const idOf = (record: Expression): Expression =>
  record.kind === 'call' && record.name === 'byId'
    ? record.args[1]
    : { kind: 'field', of: record, name: 'id' };

/** What something is that is the one or the other, of the same kind. */
const either = (a: Type, b: Type): Type =>
  a.kind === 'text' && b.kind === 'text'
    ? a.choices && b.choices
      ? { kind: 'text', choices: [...new Set([...a.choices, ...b.choices])] }
      : TEXT
    : a;

function typeOfField({ type }: KnownField): Type {
  if (type === 'number' || type === 'money' || type === 'percent') return NUMBER;
  if (type === 'date') return { kind: 'date' };
  return TEXT;
}
