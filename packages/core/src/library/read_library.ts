import type * as t from '@babel/types';
import { isSpecifier, type Library, type LibraryComponent, type LibraryProp } from '../model/app.ts';
import { kebabCase } from '../model/names.ts';
import {
  type Found,
  type Module,
  moduleOf,
  Modules,
  type SourceFile,
  type ValueDeclaration,
} from './modules.ts';
import { isMarkup, PropTypes, typeOfFirst } from './prop_types.ts';

/** A library as it was read, and what could not be. */
export interface ReadLibrary {
  readonly library: Library;
  /** The file that gives each component, by its name. */
  readonly sources: ReadonlyMap<string, string>;
  /** What is wrong with which file, in words. */
  readonly problems: readonly string[];
}

/** Files that show or try components, and are none of what others import. */
const BESIDE = /(^|\/)(node_modules|__tests__|__mocks__|dist-test)\/|\.(test|spec|stories|story)\.[jt]sx?$/;
const SOURCE = /\.(tsx|ts)$/;
/** Where a library says what it gives, the first that is there. */
const ENTRIES = [
  'src/index.tsx',
  'src/index.ts',
  'index.tsx',
  'index.ts',
  'src/main.ts',
  'lib/index.ts',
  'dist/index.d.ts',
  'lib/index.d.ts',
  'types/index.d.ts',
  'index.d.ts',
];
const MOST_COMPONENTS = 2000;

/** The key that a library is kept under in a project: read again, it takes the place of what was read before. */
export const libraryKey = ({ name }: Pick<Library, 'name'>): string => kebabCase(name) || 'library';

/** Whether a file of a folder says something of its components. */
export const isLibraryFile = (path: string): boolean =>
  (SOURCE.test(path) && !BESIDE.test(path)) || path === 'package.json';

/**
 * The components that a folder or package of TypeScript sources gives, each with its props. What the file that it begins with
 * gives counts; where there is none, what any file gives, imported from that file.
 * @param files with paths from the folder; the name and the version are those of its `package.json`
 * @param name what it is imported by where nothing says so
 */
export function readLibrary(files: readonly SourceFile[], name: string): ReadLibrary {
  const problems: string[] = [];
  const read: Module[] = [];
  for (const file of files) {
    if (!SOURCE.test(file.path) || BESIDE.test(file.path)) continue;
    try {
      read.push(moduleOf(file));
    } catch (error) {
      problems.push(`${file.path} could not be read: ${(error as Error).message}`);
    }
  }
  const said = packageOf(files, problems);
  const reading = new Reading(new Modules(read));
  const entry = entryOf(said.types, reading.modules);
  const specifier = said.name ?? (kebabCase(name) || 'components');
  const sources = new Map<string, string>();
  const components = (entry ? [entry] : read).flatMap((module) => {
    const from = entry ? null : `${specifier}/${module.path.replace(/(\/index)?(\.d)?\.tsx?$/, '')}`;
    if (from !== null && !isSpecifier(from)) {
      problems.push(`${module.path} cannot be imported by that name: spaces and the like are in it.`);
      return [];
    }
    return reading.componentsOf(module, from).map((component) => {
      sources.set(component.name, module.path);
      return component;
    });
  });
  const own = [...new Map(components.map((one) => [one.name, one])).values()];
  if (!own.length)
    problems.push(
      read.length
        ? 'No component was found: what is looked for are functions and classes with a capital that give JSX.'
        : 'There is no TypeScript source in it (.tsx, .ts or .d.ts).',
    );
  return {
    library: {
      name: specifier,
      ...(said.version ? { version: said.version } : {}),
      components: own.sort((a, b) => (a.name < b.name ? -1 : 1)).slice(0, MOST_COMPONENTS),
    },
    sources,
    problems,
  };
}

/** What `package.json` says of the library. */
function packageOf(
  files: readonly SourceFile[],
  problems: string[],
): { name?: string; version?: string; types?: string } {
  const file = files.find(({ path }) => path === 'package.json');
  if (!file) return {};
  try {
    const said: unknown = JSON.parse(file.text);
    const get = (key: string): string | undefined => {
      const value = typeof said === 'object' && said !== null ? (said as Record<string, unknown>)[key] : null;
      return typeof value === 'string' ? value : undefined;
    };
    const [name, version, types] = [get('name'), get('version'), get('types') ?? get('typings')];
    return {
      ...(name && isSpecifier(name) ? { name } : {}),
      ...(version && /^\d[\w.+-]*$/.test(version) ? { version: `^${version}` } : {}),
      ...(types ? { types } : {}),
    };
  } catch (error) {
    problems.push(`package.json could not be read: ${(error as Error).message}`);
    return {};
  }
}

const entryOf = (types: string | undefined, modules: Modules): Module | undefined =>
  [...ENTRIES.slice(0, 4), ...(types ? [types.replace(/^\.\//, '')] : []), ...ENTRIES.slice(4)]
    .map((path) => modules.at(path))
    .find((module) => module !== undefined);

/** A function that is a component, as far as its sources show. */
interface Shape {
  readonly module: Module;
  /** The type of its props, or these where they were read. */
  readonly type: t.TSType | readonly LibraryProp[] | null;
  /** What it takes its props as. */
  readonly pattern: t.ObjectPattern | null;
}

class Reading {
  readonly modules: Modules;
  readonly #types: PropTypes;
  readonly #open = new Set<string>();

  constructor(modules: Modules) {
    this.modules = modules;
    this.#types = new PropTypes(modules, (name, module) => this.#propsNamed(name, module));
  }

  /** The components that a file gives. */
  componentsOf(module: Module, from: string | null): LibraryComponent[] {
    return this.modules.namesGiven(module).flatMap((name): LibraryComponent[] => {
      const found =
        name === 'default' && module.default
          ? { module, declaration: null, value: module.default }
          : this.modules.given(name, module);
      if (!found) return [];
      const called = name === 'default' ? calledBy(found, module) : name;
      if (!called || !/^[A-Z]\w{0,99}$/.test(called)) return [];
      const shape = found.declaration
        ? this.#shapeOf(found)
        : this.#shapeOfValue(module.default!, null, module);
      if (!shape) return [];
      return [
        {
          name: called,
          ...(from ? { from } : {}),
          ...(name === 'default' ? { isDefault: true } : {}),
          props: this.#props(shape, nameOfDeclared(found.declaration) ?? called),
        },
      ];
    });
  }

  #propsNamed(name: string, module: Module): readonly LibraryProp[] {
    const key = `${module.path} ${name}`;
    const found = this.modules.valueNamed(name, module);
    const shape = found && !this.#open.has(key) ? this.#shapeOf(found) : null;
    if (!shape) return [];
    this.#open.add(key);
    const props = this.#props(shape, name);
    this.#open.delete(key);
    return props;
  }

  #props({ module, type, pattern }: Shape, name: string): LibraryProp[] {
    const defaults = new Map<string, string>();
    for (const one of pattern?.properties ?? []) {
      if (
        one.type !== 'ObjectProperty' ||
        one.value.type !== 'AssignmentPattern' ||
        one.key.type !== 'Identifier'
      )
        continue;
      const value = literalOf(one.value.right);
      if (value !== null) defaults.set(one.key.name, value);
    }
    for (const one of module.defaults.get(name)?.properties ?? []) {
      if (one.type !== 'ObjectProperty' || one.key.type !== 'Identifier') continue;
      const value = literalOf(one.value);
      if (value !== null) defaults.set(one.key.name, value);
    }
    const props = type === null ? [] : 'type' in type ? this.#types.props(type, module) : type;
    return props
      .filter((prop) => prop.name !== 'ref' && prop.name !== 'key')
      .map(({ isRequired, ...prop }) => ({
        ...prop,
        ...(isRequired && !defaults.has(prop.name) ? { isRequired } : {}),
        ...(defaults.has(prop.name) ? { byDefault: defaults.get(prop.name)!.slice(0, 200) } : {}),
      }))
      .slice(0, 300);
  }

  #shapeOf({ module, declaration }: Found<ValueDeclaration>): Shape | null {
    switch (declaration.type) {
      case 'FunctionDeclaration':
        return givesMarkup(declaration) ? shapeOfFunction(declaration, module) : null;
      case 'TSDeclareFunction':
        return declaration.returnType?.type === 'TSTypeAnnotation' &&
          isMarkup(declaration.returnType.typeAnnotation)
          ? shapeOfFunction(declaration, module)
          : null;
      case 'ClassDeclaration': {
        const parent = declaration.superClass;
        const name =
          parent?.type === 'Identifier'
            ? parent.name
            : parent?.type === 'MemberExpression' && parent.property.type === 'Identifier'
              ? parent.property.name
              : '';
        if (!/^(Pure)?Component$/.test(name)) return null;
        const given = declaration.superTypeParameters;
        const type = given?.type === 'TSTypeParameterInstantiation' ? (given.params[0] ?? null) : null;
        return { module, type, pattern: null };
      }
      default: {
        const annotation = declaration.id.type === 'Identifier' ? declaration.id.typeAnnotation : null;
        const type = annotation?.type === 'TSTypeAnnotation' ? annotation.typeAnnotation : null;
        return this.#shapeOfValue(declaration.init ?? null, type, module);
      }
    }
  }

  /** A component from the value of a constant, and the type that it is said to be of. */
  #shapeOfValue(value: t.Expression | null, said: t.TSType | null, module: Module): Shape | null {
    const inner = value && unwrapped(value);
    const shape =
      inner?.type === 'ArrowFunctionExpression' || inner?.type === 'FunctionExpression'
        ? givesMarkup(inner) || said
          ? shapeOfFunction(inner, module)
          : null
        : inner?.type === 'CallExpression'
          ? this.#shapeOfCall(inner, module)
          : inner?.type === 'Identifier'
            ? this.#named(inner.name, module)
            : null;
    const props = said && this.#types.ofComponent(said, module);
    return props ? { module, type: props, pattern: shape?.pattern ?? null } : shape;
  }

  /** `forwardRef(…)`, `memo(…)` and whatever else is given a component. */
  #shapeOfCall(call: t.CallExpression, module: Module): Shape | null {
    const name =
      call.callee.type === 'Identifier'
        ? call.callee.name
        : call.callee.type === 'MemberExpression' && call.callee.property.type === 'Identifier'
          ? call.callee.property.name
          : '';
    const given = call.typeParameters?.params ?? [];
    for (const argument of call.arguments) {
      if (argument.type === 'SpreadElement' || argument.type === 'ArgumentPlaceholder') continue;
      const shape = this.#shapeOfValue(argument, null, module);
      if (!shape) continue;
      const type = name === 'forwardRef' ? given[1] : name === 'memo' ? given[0] : undefined;
      return { ...shape, type: shape.type ?? type ?? null };
    }
    return null;
  }

  #named(name: string, module: Module): Shape | null {
    const key = `value ${module.path} ${name}`;
    const found = this.modules.valueNamed(name, module);
    if (!found || this.#open.has(key)) return null;
    this.#open.add(key);
    const shape = this.#shapeOf(found);
    this.#open.delete(key);
    return shape;
  }
}

type AnyFunction =
  t.FunctionDeclaration | t.TSDeclareFunction | t.ArrowFunctionExpression | t.FunctionExpression;

function shapeOfFunction(node: AnyFunction, module: Module): Shape {
  const [first] = node.params;
  const parameter = first?.type === 'AssignmentPattern' ? first.left : first;
  return {
    module,
    type: typeOfFirst(node.params),
    pattern: parameter?.type === 'ObjectPattern' ? parameter : null,
  };
}

/** Whether a function gives JSX, by what it says that it gives or by what stands in it. */
function givesMarkup(
  node: t.FunctionDeclaration | t.ArrowFunctionExpression | t.FunctionExpression,
): boolean {
  if (node.returnType?.type === 'TSTypeAnnotation' && isMarkup(node.returnType.typeAnnotation)) return true;
  return holdsMarkup(node.body);
}

/** Whether JSX, or a call that makes an element, stands in a node. */
function holdsMarkup(node: unknown): boolean {
  if (typeof node !== 'object' || node === null) return false;
  if (Array.isArray(node)) return node.some(holdsMarkup);
  const { type, callee } = node as {
    type?: unknown;
    callee?: { name?: unknown; property?: { name?: unknown } };
  };
  if (typeof type !== 'string') return false;
  if (type === 'JSXElement' || type === 'JSXFragment') return true;
  if (type === 'CallExpression' && [callee?.name, callee?.property?.name].includes('createElement'))
    return true;
  return Object.entries(node).some(([field, inner]) => !BESIDE_FIELDS.has(field) && holdsMarkup(inner));
}
const BESIDE_FIELDS = new Set(['loc', 'extra', 'leadingComments', 'trailingComments', 'innerComments']);

const unwrapped = (value: t.Expression): t.Expression =>
  value.type === 'TSAsExpression' ||
  value.type === 'TSSatisfiesExpression' ||
  value.type === 'ParenthesizedExpression'
    ? unwrapped(value.expression)
    : value;

/** A value that is written down, as a text. */
function literalOf(node: t.Node): string | null {
  if (node.type === 'StringLiteral') return node.value;
  if (node.type === 'NumericLiteral' || node.type === 'BooleanLiteral') return String(node.value);
  return null;
}

const nameOfDeclared = (declaration: ValueDeclaration | null): string | null =>
  declaration?.id?.type === 'Identifier' ? declaration.id.name : null;

/** What a default export is called: as it is declared, else as its file. */
const calledBy = (found: { readonly declaration: ValueDeclaration | null }, module: Module): string =>
  nameOfDeclared(found.declaration) ?? /([^/]+?)(?:\/index)?(?:\.d)?\.tsx?$/.exec(module.path)?.[1] ?? '';
