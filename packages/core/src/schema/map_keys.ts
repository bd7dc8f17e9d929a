import type { FieldsShape, KeyShape, Shape } from './schema.ts';

/** Says where a screen or element key went. */
export type MapTo = (key: string) => string | null;

/** A key after the screen or element that it names moved, with what follows it; null when that is gone. */
export function mapKeyText(of: KeyShape, key: string, map: MapTo): string | null {
  if (of.of === 'own') {
    if (!of.names) return key;
    const [rule, ...words] = key.split(' ');
    // What is said of something that is gone stays said.
    return [rule, ...words.map((word) => map(word) ?? word)].join(' ');
  }
  const bar = of.suffix ? key.indexOf('|') : -1;
  const own = bar < 0 ? key : key.slice(0, bar);
  const moved = map(own);
  return moved === null ? null : moved === own ? key : moved + key.slice(own.length);
}

/** The words of a key of one's own that may name screens and elements: those after the rule. */
export const wordsOfKey = (key: string): string[] => key.split(' ').slice(1);

const places = new WeakMap<Shape, boolean>();

/** Whether keys of screens or elements can stand in values of a shape. */
function hasKeys(shape: Shape): boolean {
  const known = places.get(shape);
  if (known !== undefined) return known;
  // Of a shape that holds itself, what it holds besides decides.
  places.set(shape, false);
  const any = (shapes: readonly Shape[]): boolean => shapes.some(hasKeys);
  const found = ((): boolean => {
    switch (shape.shape) {
      case 'key':
        return shape.of !== 'own';
      case 'list':
        return hasKeys(shape.of);
      case 'table':
        return hasKeys(shape.key) || hasKeys(shape.value);
      case 'fields':
        return any([...Object.values(shape.required), ...Object.values(shape.optional)]);
      case 'kinds':
        return any(Object.values(shape.kinds));
      case 'either':
        return any(shape.of);
      case 'lazy':
        return hasKeys(shape.of());
      default:
        return false;
    }
  })();
  places.set(shape, found);
  return found;
}

/**
 * A value of a shape after the keys in it moved; itself when none did. What is gone keeps its old key: it stays listed,
 * broken, instead of vanishing.
 */
export function mapKeysIn<T>(shape: Shape, value: T, map: MapTo): T {
  return mapped(shape, value, map) as T;
}

function mapped(shape: Shape, value: unknown, map: MapTo): unknown {
  if (value === undefined || value === null || !hasKeys(shape)) return value;
  switch (shape.shape) {
    case 'key':
      return mapKeyText(shape, value as string, map) ?? value;
    case 'list': {
      const list = value as readonly unknown[];
      const made = list.map((one) => mapped(shape.of, one, map));
      return made.every((one, i) => one === list[i]) ? list : made;
    }
    case 'table': {
      const table = value as Readonly<Record<string, unknown>>;
      const made = Object.entries(table).map(
        ([key, one]) => [mapped(shape.key, key, map) as string, mapped(shape.value, one, map)] as const,
      );
      const isSame = made.every(([key, one]) => Object.hasOwn(table, key) && table[key] === one);
      return isSame ? table : Object.fromEntries(made);
    }
    case 'fields':
      return mapFields({ ...shape.required, ...shape.optional }, value as Record<string, unknown>, map);
    case 'kinds': {
      const record = value as Record<string, unknown>;
      const own = shape.kinds[String(record.kind)];
      return own ? mapFields({ ...own.required, ...own.optional }, record, map) : value;
    }
    case 'lazy':
      return mapped(shape.of(), value, map);
    case 'either': {
      // Of alternatives those that are records hold keys; where there are several, a word in each says which it is.
      const record = shape.of.find((one) => one.shape === 'fields' && isOf(one, value));
      return record && typeof value === 'object' ? mapped(record, value, map) : value;
    }
    default:
      return value;
  }
}

function mapFields(
  of: Readonly<Record<string, Shape>>,
  value: Record<string, unknown>,
  map: MapTo,
): Record<string, unknown> {
  let made: Record<string, unknown> | null = null;
  for (const [name, part] of Object.entries(value)) {
    const moved = of[name] ? mapped(of[name], part, map) : part;
    if (moved !== part) (made ??= { ...value })[name] = moved;
  }
  return made ?? value;
}

/** Whether a value has the words that a record is told from others by. */
const isOf = ({ required }: FieldsShape, value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.entries(required).every(
    ([name, part]) =>
      part.shape !== 'choice' || part.values.includes((value as Readonly<Record<string, string>>)[name]),
  );
