import { type Expression, type Node, parse, type Property, type SpreadElement } from 'acorn';

/** What a page that relies on utility classes needs compiled before it can be laid out. */
export interface UtilityPlan {
  /** The configuration that the page gives, as data. */
  readonly config: Readonly<Record<string, unknown>> | null;
  /** The page's own source for the compiler. */
  readonly css: string;
  /** Whether the page expects the defaults of the library's older generation. */
  readonly isLegacy: boolean;
  /** Programs of the library that the page names; none where not said. */
  readonly plugins?: readonly string[];
  /** Every class that the page uses. */
  readonly classes: readonly string[];
}

/** Addresses of the script that compiles utility classes in the page. */
export const UTILITY_SCRIPT = /tailwind/i;

/** Addresses of a sheet that has all utility classes in it, as the older generation was served. */
export const UTILITY_SHEET = /^(?:https?:)?\/\/[^?#]*\btailwind[^/?#]*\.css(?:[?#]|$)/i;

/**
 * Reads `tailwind.config = {…}` from a script as data. The script is parsed, never run: what is not a literal is left
 * out and named.
 * @returns null for any other script.
 */
export function readUtilityConfig(
  script: string,
): { config: Record<string, unknown>; leftOut: string[] } | null {
  if (!/\btailwind\b/.test(script) || script.length > 200_000) return null;
  let program;
  try {
    program = parse(script, {
      ecmaVersion: 'latest',
      sourceType: 'script',
      allowReturnOutsideFunction: true,
    });
  } catch {
    return null;
  }
  for (const statement of program.body) {
    if (statement.type !== 'ExpressionStatement' || statement.expression.type !== 'AssignmentExpression')
      continue;
    const { left, right } = statement.expression;
    const name = script.slice(left.start, left.end).replace(/\s|^window\./g, '');
    if (name !== 'tailwind.config') continue;
    const leftOut: string[] = [];
    const config = literal(right, '', leftOut);
    return { config: (config ?? {}) as Record<string, unknown>, leftOut };
  }
  return null;
}

const MAX_DEPTH = 20;

/** The value of an expression that is a literal all the way down; undefined for what is not. */
function literal(node: Expression | SpreadElement, where: string, leftOut: string[]): unknown {
  const skip = (): undefined => void leftOut.push(where || 'the whole of it');
  if (where.split('.').length > MAX_DEPTH) return skip();
  switch (node.type) {
    case 'Literal':
      return node.value instanceof RegExp || typeof node.value === 'bigint' ? skip() : node.value;
    case 'TemplateLiteral':
      return node.expressions.length ? skip() : node.quasis[0].value.cooked;
    case 'UnaryExpression': {
      const value = literal(node.argument, where, leftOut);
      return node.operator === '-' && typeof value === 'number' ? -value : skip();
    }
    case 'ArrayExpression':
      return node.elements.flatMap((item, i) => {
        const value = item ? literal(item, `${where}[${i}]`, leftOut) : undefined;
        return value === undefined ? [] : [value];
      });
    case 'ObjectExpression': {
      const record: Record<string, unknown> = {};
      for (const property of node.properties) {
        const key = property.type === 'Property' ? keyOf(property) : null;
        if (key === null || key === '__proto__') {
          leftOut.push(`${where}…`);
          continue;
        }
        const value = literal(
          (property as Property).value as Expression,
          where ? `${where}.${key}` : key,
          leftOut,
        );
        if (value !== undefined) record[key] = value;
      }
      return record;
    }
    default:
      return skip();
  }
}

function keyOf({ key, computed }: Property): string | null {
  if (computed) return null;
  const node = key as Node & { name?: string; value?: unknown };
  return node.type === 'Identifier' ? node.name! : node.type === 'Literal' ? String(node.value) : null;
}
