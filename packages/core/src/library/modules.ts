import { parse } from '@babel/parser';
import type * as t from '@babel/types';
import { resolvedPath } from '../emit/needed.ts';

/** A file of a library. */
export interface SourceFile {
  /** Within the library, with `/`. */
  readonly path: string;
  readonly text: string;
}

/** A name that a file takes from another one. */
interface Imported {
  readonly from: string;
  /** `default`, `*`, or what it is called there. */
  readonly name: string;
}

/** What a type is declared by, or a value. */
export type TypeDeclaration = t.TSInterfaceDeclaration | t.TSTypeAliasDeclaration;
export type ValueDeclaration =
  t.VariableDeclarator | t.FunctionDeclaration | t.TSDeclareFunction | t.ClassDeclaration;

/** What a file declares, takes from others, and gives. */
export interface Module {
  readonly path: string;
  readonly types: ReadonlyMap<string, TypeDeclaration>;
  readonly values: ReadonlyMap<string, ValueDeclaration>;
  readonly imports: ReadonlyMap<string, Imported>;
  /** What it gives under which name: a name of its own, or one of another file. */
  readonly exports: ReadonlyMap<string, string | Imported>;
  /** An expression that it gives as its default, as in `export default memo(Button)`. */
  readonly default: t.Expression | null;
  /** Files all of whose names it gives, too. */
  readonly stars: readonly string[];
  /** What is said of a value after it was declared, as in `Button.defaultProps = {}`. */
  readonly defaults: ReadonlyMap<string, t.ObjectExpression>;
}

/** A declaration with the file that it stands in. */
export interface Found<D> {
  readonly module: Module;
  readonly declaration: D;
}

/**
 * What a TypeScript file declares, takes and gives.
 * @throws SyntaxError with the place where it cannot be read
 */
export function moduleOf({ path, text }: SourceFile): Module {
  const { program } = parse(text, {
    sourceType: 'module',
    sourceFilename: path,
    allowUndeclaredExports: true,
    errorRecovery: true,
    plugins: [
      ['typescript', { dts: path.endsWith('.d.ts') }],
      ...(path.endsWith('.tsx') ? (['jsx'] as const) : []),
      'decorators-legacy',
    ],
  });
  const types = new Map<string, TypeDeclaration>();
  const values = new Map<string, ValueDeclaration>();
  const imports = new Map<string, Imported>();
  const exports = new Map<string, string | Imported>();
  const defaults = new Map<string, t.ObjectExpression>();
  const stars: string[] = [];
  let byDefault: t.Expression | null = null;
  /** The names that a statement declares. */
  const declare = (node: t.Statement | t.Declaration): string[] => {
    switch (node.type) {
      case 'TSInterfaceDeclaration':
      case 'TSTypeAliasDeclaration':
        types.set(node.id.name, node);
        return [node.id.name];
      case 'FunctionDeclaration':
      case 'TSDeclareFunction':
      case 'ClassDeclaration':
        if (!node.id) return [];
        values.set(node.id.name, node);
        return [node.id.name];
      case 'VariableDeclaration':
        return node.declarations.flatMap((one) => {
          if (one.id.type !== 'Identifier') return [];
          values.set(one.id.name, one as t.VariableDeclarator);
          return [one.id.name];
        });
      default:
        return [];
    }
  };
  for (const node of program.body) {
    if (node.type === 'ImportDeclaration')
      for (const one of node.specifiers)
        imports.set(one.local.name, {
          from: node.source.value,
          name:
            one.type === 'ImportDefaultSpecifier'
              ? 'default'
              : one.type === 'ImportNamespaceSpecifier'
                ? '*'
                : nameOf(one.imported),
        });
    else if (node.type === 'ExportAllDeclaration') stars.push(node.source.value);
    else if (node.type === 'ExportNamedDeclaration') {
      if (node.declaration) for (const name of declare(node.declaration)) exports.set(name, name);
      for (const one of node.specifiers) {
        if (one.type !== 'ExportSpecifier') continue;
        const local = one.local.name;
        exports.set(nameOf(one.exported), node.source ? { from: node.source.value, name: local } : local);
      }
    } else if (node.type === 'ExportDefaultDeclaration') {
      const given = node.declaration;
      if (given.type === 'Identifier') exports.set('default', given.name);
      else if (
        given.type === 'FunctionDeclaration' ||
        given.type === 'ClassDeclaration' ||
        given.type === 'TSDeclareFunction'
      ) {
        const name = given.id?.name ?? 'default';
        values.set(name, given);
        exports.set('default', name);
      } else byDefault = given as t.Expression;
    } else {
      declare(node);
      const said = node.type === 'ExpressionStatement' ? node.expression : null;
      if (
        said?.type === 'AssignmentExpression' &&
        said.left.type === 'MemberExpression' &&
        said.left.object.type === 'Identifier' &&
        said.left.property.type === 'Identifier' &&
        said.left.property.name === 'defaultProps' &&
        said.right.type === 'ObjectExpression'
      )
        defaults.set(said.left.object.name, said.right);
    }
  }
  return { path, types, values, imports, exports, default: byDefault, stars, defaults };
}

const nameOf = (node: t.Identifier | t.StringLiteral): string =>
  node.type === 'Identifier' ? node.name : node.value;

/** Finds what names of files stand for, across the files of a library. */
export class Modules {
  readonly #byPath: ReadonlyMap<string, Module>;

  constructor(modules: readonly Module[]) {
    this.#byPath = new Map(modules.map((module) => [module.path, module]));
  }

  get all(): readonly Module[] {
    return [...this.#byPath.values()];
  }

  at(path: string): Module | undefined {
    return this.#byPath.get(path);
  }

  /** The file that another one means by an address; undefined for packages and what is not there. */
  meant(by: Module, address: string): Module | undefined {
    if (!address.startsWith('.')) return undefined;
    const path = resolvedPath(by.path, address.replace(/\/$/, '')).replace(/\.(jsx?|tsx?|mjs)$/, '');
    for (const ending of ['.tsx', '.ts', '.d.ts', '/index.tsx', '/index.ts', '/index.d.ts'])
      if (this.#byPath.has(path + ending)) return this.#byPath.get(path + ending);
    return undefined;
  }

  /** The type that a name of a file stands for. */
  typeNamed(name: string, module: Module): Found<TypeDeclaration> | null {
    return this.#find(name, module, ({ types }) => types, new Set());
  }

  /** The value that a name of a file stands for. */
  valueNamed(name: string, module: Module): Found<ValueDeclaration> | null {
    return this.#find(name, module, ({ values }) => values, new Set());
  }

  /** What a file gives under a name. */
  given(name: string, module: Module, seen = new Set<string>()): Found<ValueDeclaration> | null {
    return this.#given(name, module, ({ values }) => values, seen);
  }

  /** All names that a file gives, with those of the files that it passes on. */
  namesGiven(module: Module, seen = new Set<Module>()): string[] {
    if (seen.has(module)) return [];
    seen.add(module);
    const passed = module.stars.flatMap((address) => {
      const other = this.meant(module, address);
      return other ? this.namesGiven(other, seen).filter((name) => name !== 'default') : [];
    });
    return [...new Set([...module.exports.keys(), ...(module.default ? ['default'] : []), ...passed])];
  }

  #find<D>(
    name: string,
    module: Module,
    declared: (module: Module) => ReadonlyMap<string, D>,
    seen: Set<string>,
  ): Found<D> | null {
    const declaration = declared(module).get(name);
    if (declaration) return { module, declaration };
    const imported = module.imports.get(name);
    const other = imported && this.meant(module, imported.from);
    return other ? this.#given(imported.name, other, declared, seen) : null;
  }

  #given<D>(
    name: string,
    module: Module,
    declared: (module: Module) => ReadonlyMap<string, D>,
    seen: Set<string>,
  ): Found<D> | null {
    if (seen.has(`${module.path} ${name}`)) return null;
    seen.add(`${module.path} ${name}`);
    const exported = module.exports.get(name);
    if (typeof exported === 'string') return this.#find(exported, module, declared, seen);
    if (exported) {
      const other = this.meant(module, exported.from);
      return other ? this.#given(exported.name, other, declared, seen) : null;
    }
    for (const address of module.stars) {
      const other = this.meant(module, address);
      const found = other && this.#given(name, other, declared, seen);
      if (found) return found;
    }
    return null;
  }
}
