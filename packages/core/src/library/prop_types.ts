import type * as t from '@babel/types';
import type { LibraryProp } from '../model/app.ts';
import type { Module, Modules } from './modules.ts';

/** Types within types that are followed, so that those that speak of themselves end. */
const DEEPEST = 12;

const NODES =
  /^(ReactNode|ReactElement|ReactChild|JSX\.Element|Element|ReactText|ComponentType|ElementType)$/;
/** Types of components, by what they are called wherever they are declared. */
const COMPONENTS = /(Component|FC|ComponentClass|ComponentType)$/;
const HANDLERS = /(Handler|EventHandler|Callback|Dispatch)$/;

/** Props of elements of the page that a component passes on, where its type says that it takes them all. */
const PASSED: Readonly<Record<string, readonly LibraryProp[]>> = {
  any: [
    { name: 'className', type: 'text' },
    { name: 'aria-label', type: 'text' },
    { name: 'children', type: 'node' },
    { name: 'onClick', type: 'press' },
  ],
  a: [{ name: 'href', type: 'text' }],
  button: [
    { name: 'disabled', type: 'yes-no' },
    { name: 'type', type: 'one-of', choices: ['button', 'submit', 'reset'] },
  ],
  img: [
    { name: 'src', type: 'text' },
    { name: 'alt', type: 'text' },
  ],
  input: [
    { name: 'value', type: 'text' },
    { name: 'defaultValue', type: 'text' },
    { name: 'placeholder', type: 'text' },
    { name: 'name', type: 'text' },
    { name: 'type', type: 'text' },
    { name: 'disabled', type: 'yes-no' },
    { name: 'onChange', type: 'press' },
  ],
};

/** The tags that types of elements speak of, by the part of their names that tells. */
const TAGS: Readonly<Record<string, string>> = {
  Anchor: 'a',
  Button: 'button',
  Img: 'img',
  Image: 'img',
  Input: 'input',
  Textarea: 'input',
  TextArea: 'input',
};

const passedTo = (tag: string): LibraryProp[] => [
  ...PASSED.any.filter(({ name }) => name !== 'children' || (tag !== 'img' && tag !== 'input')),
  ...(Object.hasOwn(PASSED, tag) ? PASSED[tag] : []),
];

/** What the type of a component's props says. */
export class PropTypes {
  readonly #modules: Modules;
  /** The props of another component of the library, by its name in a file. */
  readonly #propsOf: (name: string, module: Module) => readonly LibraryProp[];

  constructor(modules: Modules, propsOf: (name: string, module: Module) => readonly LibraryProp[]) {
    this.#modules = modules;
    this.#propsOf = propsOf;
  }

  /**
   * The props of what a type says is a component, as `FC<Props>` and `ForwardRefComponent<'button', Props>` do; null where it
   * says no such thing.
   */
  ofComponent(type: t.TSType, module: Module): LibraryProp[] | null {
    switch (type.type) {
      case 'TSParenthesizedType':
        return this.ofComponent(type.typeAnnotation, module);
      case 'TSIntersectionType':
        // With further components as its properties.
        return type.types.map((one) => this.ofComponent(one, module)).find((props) => props !== null) ?? null;
      case 'TSFunctionType': {
        const annotation = type.typeAnnotation;
        if (!annotation || !isMarkup(annotation.typeAnnotation)) return null;
        const props = typeOfFirst(type.parameters);
        return props ? this.props(props, module) : [];
      }
      case 'TSTypeReference':
        if (!COMPONENTS.test(nameOf(type.typeName))) return null;
        return merged(
          (type.typeParameters?.params ?? []).map((given) =>
            isText(given) ? passedTo(given.literal.value) : this.props(given, module),
          ),
        );
      default:
        return null;
    }
  }

  /** The props that a type lists; what is not found within the library says nothing. */
  props(type: t.TSType, module: Module, depth = 0): LibraryProp[] {
    if (depth > DEEPEST) return [];
    const inner = (other: t.TSType): LibraryProp[] => this.props(other, module, depth + 1);
    switch (type.type) {
      case 'TSTypeLiteral':
        return this.#members(type.members, module, depth);
      case 'TSParenthesizedType':
        return inner(type.typeAnnotation);
      case 'TSIntersectionType':
        return merged(type.types.map(inner));
      case 'TSUnionType':
        return eitherOf(type.types.map(inner));
      case 'TSIndexedAccessType':
        // JSX.IntrinsicElements['button']
        return type.objectType.type === 'TSTypeReference' &&
          nameOf(type.objectType.typeName).endsWith('IntrinsicElements') &&
          isText(type.indexType)
          ? passedTo(type.indexType.literal.value)
          : [];
      case 'TSTypeReference':
        return this.#referred(nameOf(type.typeName), type.typeParameters?.params ?? [], module, depth);
      default:
        return [];
    }
  }

  #referred(name: string, given: readonly t.TSType[], module: Module, depth: number): LibraryProp[] {
    const own = this.#modules.typeNamed(name, module);
    if (own) {
      const { declaration } = own;
      if (declaration.type === 'TSTypeAliasDeclaration')
        return this.props(declaration.typeAnnotation, own.module, depth + 1);
      return merged([
        ...(declaration.extends ?? []).map((other) =>
          other.expression.type === 'Identifier' || other.expression.type === 'TSQualifiedName'
            ? this.#referred(
                nameOf(other.expression),
                other.typeParameters?.params ?? [],
                own.module,
                depth + 1,
              )
            : [],
        ),
        this.#members(declaration.body.body, own.module, depth),
      ]);
    }
    const last = name.replace(/^.*\./, '');
    const [first, second] = given;
    const inner = (): LibraryProp[] => (first ? this.props(first, module, depth + 1) : []);
    const named = (): ReadonlySet<string> => new Set(second ? textsIn(second) : []);
    switch (last) {
      case 'Omit':
        return inner().filter((prop) => !named().has(prop.name));
      case 'Pick':
        return inner().filter((prop) => named().has(prop.name));
      case 'Partial':
        return inner().map(asOptional);
      case 'Required':
        return inner().map((prop) => ({ ...prop, isRequired: true }));
      case 'Readonly':
      case 'RefAttributes':
      case 'NoInfer':
        return last === 'RefAttributes' ? [] : inner();
      case 'PropsWithChildren':
        return merged([inner(), [{ name: 'children', type: 'node' }]]);
      case 'PropsWithoutRef':
      case 'PropsWithRef':
        return inner();
      case 'ComponentProps':
      case 'ComponentPropsWithoutRef':
      case 'ComponentPropsWithRef':
        if (first && isText(first)) return passedTo(first.literal.value);
        return first?.type === 'TSTypeQuery' && first.exprName.type === 'Identifier'
          ? [...this.#propsOf(first.exprName.name, module)]
          : [];
      default: {
        const ofElement = /^(?:HTML)?(\w*?)(?:HTML)?(Attributes|Props)$/.exec(last);
        if (!ofElement || !/Attributes$|HTMLProps$|^DetailedHTMLProps$/.test(last)) return [];
        if (last === 'DetailedHTMLProps') return inner();
        return passedTo(TAGS[ofElement[1]] ?? tagOfElement(first) ?? 'any');
      }
    }
  }

  #members(members: readonly t.TSTypeElement[], module: Module, depth: number): LibraryProp[] {
    return members.flatMap((member): LibraryProp[] => {
      if (member.type !== 'TSPropertySignature' && member.type !== 'TSMethodSignature') return [];
      const name =
        member.key.type === 'Identifier' && !member.computed
          ? member.key.name
          : member.key.type === 'StringLiteral'
            ? member.key.value
            : null;
      if (name === null || !/^[A-Za-z_$][\w$-]{0,99}$/.test(name)) return [];
      const annotation = member.type === 'TSPropertySignature' ? member.typeAnnotation : null;
      const said: Pick<LibraryProp, 'type' | 'choices'> =
        member.type === 'TSMethodSignature'
          ? { type: 'press' }
          : annotation?.type === 'TSTypeAnnotation'
            ? this.#kind(annotation.typeAnnotation, module, depth)
            : { type: 'other' };
      return [{ name, ...said, ...(member.optional ? {} : { isRequired: true }) }];
    });
  }

  /** What a type takes. */
  #kind(type: t.TSType, module: Module, depth: number): Pick<LibraryProp, 'type' | 'choices'> {
    if (depth > DEEPEST) return { type: 'other' };
    switch (type.type) {
      case 'TSStringKeyword':
        return { type: 'text' };
      case 'TSNumberKeyword':
        return { type: 'number' };
      case 'TSBooleanKeyword':
        return { type: 'yes-no' };
      case 'TSFunctionType':
        return { type: 'press' };
      case 'TSParenthesizedType':
        return this.#kind(type.typeAnnotation, module, depth + 1);
      case 'TSLiteralType':
        return isText(type)
          ? { type: 'one-of', choices: choicesAmong([type.literal.value]) }
          : type.literal.type === 'BooleanLiteral'
            ? { type: 'yes-no' }
            : { type: type.literal.type === 'NumericLiteral' ? 'number' : 'other' };
      case 'TSUnionType':
        return this.#union(type.types, module, depth);
      case 'TSTypeOperator': {
        const choices = type.operator === 'keyof' ? this.#keysOf(type.typeAnnotation, module, depth) : null;
        return choices ? { type: 'one-of', choices } : { type: 'other' };
      }
      case 'TSIndexedAccessType': {
        const choices = this.#entriesOf(type, module);
        return choices ? { type: 'one-of', choices } : { type: 'other' };
      }
      case 'TSIntersectionType':
        // (string & {}) takes any text.
        return type.types.some(({ type: kind }) => kind === 'TSStringKeyword')
          ? { type: 'text' }
          : { type: 'other' };
      case 'TSTypeReference': {
        const name = nameOf(type.typeName);
        const own = this.#modules.typeNamed(name, module);
        if (own?.declaration.type === 'TSTypeAliasDeclaration')
          return this.#kind(own.declaration.typeAnnotation, own.module, depth + 1);
        if (NODES.test(name.replace(/^React\./, ''))) return { type: 'node' };
        return { type: HANDLERS.test(name) ? 'press' : 'other' };
      }
      default:
        return { type: 'other' };
    }
  }

  #union(types: readonly t.TSType[], module: Module, depth: number): Pick<LibraryProp, 'type' | 'choices'> {
    const kinds = types
      .filter(({ type }) => type !== 'TSUndefinedKeyword' && type !== 'TSNullKeyword')
      .map((type) => this.#kind(type, module, depth + 1));
    const has = (wanted: LibraryProp['type']): boolean => kinds.some(({ type }) => type === wanted);
    if (has('node')) return { type: 'node' };
    if (has('one-of') && kinds.every(({ type }) => type === 'one-of' || type === 'text' || type === 'other'))
      return {
        type: 'one-of',
        choices: choicesAmong(kinds.flatMap(({ choices = [] }) => choices)),
      };
    for (const type of ['text', 'number', 'yes-no', 'press'] as const) if (has(type)) return { type };
    return { type: 'other' };
  }

  /** The names of `keyof typeof sizes`, or of the members of a type. */
  #keysOf(type: t.TSType, module: Module, depth: number): string[] | null {
    if (type.type === 'TSParenthesizedType') return this.#keysOf(type.typeAnnotation, module, depth);
    if (type.type !== 'TSTypeQuery' || type.exprName.type !== 'Identifier') {
      const names = this.props(type, module, depth + 1).map(({ name }) => name);
      return names.length ? names : null;
    }
    const value = this.#constant(type.exprName.name, module);
    if (value?.type !== 'ObjectExpression') return null;
    const names = value.properties.flatMap((one) =>
      one.type !== 'ObjectProperty'
        ? []
        : one.key.type === 'Identifier'
          ? [one.key.name]
          : one.key.type === 'StringLiteral'
            ? [one.key.value]
            : [],
    );
    return names.length ? choicesAmong(names) : null;
  }

  /** The entries of `(typeof sizes)[number]`. */
  #entriesOf({ objectType, indexType }: t.TSIndexedAccessType, module: Module): string[] | null {
    const of = objectType.type === 'TSParenthesizedType' ? objectType.typeAnnotation : objectType;
    if (
      indexType.type !== 'TSNumberKeyword' ||
      of.type !== 'TSTypeQuery' ||
      of.exprName.type !== 'Identifier'
    )
      return null;
    const value = this.#constant(of.exprName.name, module);
    if (value?.type !== 'ArrayExpression') return null;
    const texts = value.elements.flatMap((one) => (one?.type === 'StringLiteral' ? [one.value] : []));
    return texts.length ? choicesAmong(texts) : null;
  }

  #constant(name: string, module: Module): t.Expression | null {
    const found = this.#modules.valueNamed(name, module)?.declaration;
    const value = found?.type === 'VariableDeclarator' ? found.init : null;
    return value?.type === 'TSAsExpression' || value?.type === 'TSSatisfiesExpression'
      ? value.expression
      : (value ?? null);
  }
}

const asOptional = ({ name, type, choices, byDefault }: LibraryProp): LibraryProp => ({
  name,
  type,
  ...(choices ? { choices } : {}),
  ...(byDefault === undefined ? {} : { byDefault }),
});

/** What a prop can be, each once; what is too long for a choice says something else. */
const choicesAmong = (texts: readonly string[]): string[] =>
  [...new Set(texts)].filter((one) => one.length <= 100).slice(0, 200);

const isText = (type: t.TSType): type is t.TSLiteralType & { readonly literal: t.StringLiteral } =>
  type.type === 'TSLiteralType' && type.literal.type === 'StringLiteral';

/** The texts of `'a' | 'b'`. */
const textsIn = (type: t.TSType): string[] =>
  type.type === 'TSUnionType' ? type.types.flatMap(textsIn) : isText(type) ? [type.literal.value] : [];

/** The tag of `HTMLButtonElement`. */
function tagOfElement(type: t.TSType | undefined): string | null {
  if (type?.type !== 'TSTypeReference') return null;
  const named = /^HTML(\w*)Element$/.exec(nameOf(type.typeName));
  return named ? (TAGS[named[1]] ?? 'any') : null;
}

/** A name as it is written, with dots. */
export function nameOf(node: t.TSEntityName | t.Expression): string {
  if (node.type === 'Identifier') return node.name;
  return node.type === 'TSQualifiedName' ? `${nameOf(node.left)}.${nameOf(node.right)}` : '';
}

/** Props of several types that all hold; of one name the last says what it is. */
const merged = (parts: readonly (readonly LibraryProp[])[]): LibraryProp[] => [
  ...new Map(parts.flat().map((prop) => [prop.name, prop])).values(),
];

/** Props of several types of which one holds: needed is what all of them need. */
function eitherOf(parts: readonly (readonly LibraryProp[])[]): LibraryProp[] {
  return merged(parts).map((prop) => {
    const all = parts.map((part) => part.find(({ name }) => name === prop.name));
    const rest = asOptional(prop);
    const choices = all.every((one) => one?.type === 'one-of')
      ? { choices: choicesAmong(all.flatMap((one) => one?.choices ?? [])) }
      : {};
    return all.every((one) => one?.isRequired) ? { ...prop, ...choices } : { ...rest, ...choices };
  });
}

/** Whether a type is that of something that is shown. */
export const isMarkup = (type: t.TSType): boolean =>
  type.type === 'TSUnionType'
    ? type.types.some(isMarkup)
    : type.type === 'TSTypeReference' &&
      /(^|\.)(Element|ReactElement|ReactNode)$/.test(nameOf(type.typeName));

/** The type of the first parameter of a function. */
export function typeOfFirst(parameters: readonly t.Node[]): t.TSType | null {
  const [first] = parameters;
  const parameter = first?.type === 'AssignmentPattern' ? first.left : first;
  const annotation =
    parameter?.type === 'Identifier' || parameter?.type === 'ObjectPattern' ? parameter.typeAnnotation : null;
  return annotation?.type === 'TSTypeAnnotation' ? annotation.typeAnnotation : null;
}
