/**
 * Shapes of JSON values, declared once as data. Types are inferred from them; checks (`problem.ts`), the mapping of keys
 * (`map_keys.ts`), JSON Schema (`json_schema.ts`) and generated test values walk the same declarations.
 */

/** A shape of the values of type T; the type is only there for the compiler. */
export type Schema<T = unknown> = Shape & { readonly typed?: T };

/** The type of the values of a shape. */
export type ValueOf<S> = S extends { readonly typed?: infer T } ? Exclude<T, undefined> : never;

export type Shape =
  | TextShape
  | NumberShape
  | FlagShape
  | ChoiceShape
  | KeyShape
  | ListShape
  | TableShape
  | FieldsShape
  | KindsShape
  | EitherShape
  | NothingShape
  | LazyShape;

export interface TextShape {
  readonly shape: 'text';
  /** Fewest and most UTF-16 units. */
  readonly min: number;
  readonly max: number;
  /** Must not be empty once spaces at both ends are gone. */
  readonly isTitle?: boolean;
  readonly pattern?: RegExp;
  /** What the text has to be, in words; goes with `pattern` and `holds`. */
  readonly says?: string;
  /** A further condition that no pattern can say. */
  readonly holds?: (text: string) => boolean;
  /** Some that are right, for the published schema and for tests. */
  readonly examples?: readonly string[];
}

export interface NumberShape {
  readonly shape: 'number';
  readonly min: number;
  readonly max: number;
  readonly isWhole: boolean;
}

/** Yes or no, or only the one of them. */
export interface FlagShape {
  readonly shape: 'flag';
  readonly only?: boolean;
}

export interface ChoiceShape {
  readonly shape: 'choice';
  readonly values: readonly string[];
}

/** What a key names. Those of screens and elements move when the design does; the others are the project's own. */
export type KeyKind = 'screen' | 'element' | 'own';

/** A key of a screen, an element or an entry of a table. */
export interface KeyShape {
  readonly shape: 'key';
  readonly of: KeyKind;
  /** What may follow the key of an element, from its first `|` on. */
  readonly suffix?: RegExp;
  /** Of a key of one's own: a rule, and after it words that may be keys of screens and elements. */
  readonly names?: true;
  readonly says?: string;
  /** What is wrong with the key; null when nothing is. */
  readonly problem?: (key: string) => string | null;
  readonly examples?: readonly string[];
}

export interface ListShape {
  readonly shape: 'list';
  readonly of: Shape;
  readonly min: number;
  readonly max: number;
}

/** Values under keys that are not known before. */
export interface TableShape {
  readonly shape: 'table';
  readonly key: Shape;
  readonly value: Shape;
  readonly max: number;
  /** What is wrong with a value under its key; null when nothing is. */
  readonly problem?: (key: string, value: unknown) => string | null;
}

/** An object of these fields and no others. */
export interface FieldsShape {
  readonly shape: 'fields';
  readonly required: Readonly<Record<string, Shape>>;
  readonly optional: Readonly<Record<string, Shape>>;
  /** What is wrong with the fields together; null when nothing is. */
  readonly problem?: (value: Readonly<Record<string, unknown>>) => string | null;
}

/** An object whose field `kind` says which fields it has besides. */
export interface KindsShape {
  readonly shape: 'kinds';
  readonly kinds: Readonly<Record<string, FieldsShape>>;
}

export interface EitherShape {
  readonly shape: 'either';
  readonly of: readonly Shape[];
  /** What it has to be, in words. */
  readonly says: string;
}

/** Null. */
export interface NothingShape {
  readonly shape: 'nothing';
}

/** A shape that holds itself. The name is that of its definition in a JSON Schema. */
export interface LazyShape {
  readonly shape: 'lazy';
  readonly name: string;
  readonly of: () => Shape;
}

/** A field that may be missing. */
export interface Optional<T> {
  readonly maybe: Shape;
  readonly typed?: T;
}

type Flat<T> = { [K in keyof T]: T[K] };
type Declared = Readonly<Record<string, Schema<unknown> | Optional<unknown>>>;

/** The object type of declared fields. */
export type FieldsOf<F> = Flat<
  { readonly [K in keyof F as F[K] extends Optional<unknown> ? never : K]: ValueOf<F[K]> } & {
    readonly [K in keyof F as F[K] extends Optional<unknown> ? K : never]?: F[K] extends Optional<infer T>
      ? T
      : never;
  }
>;

export const text = (max: number, more: Partial<Omit<TextShape, 'shape' | 'max'>> = {}): Schema<string> => ({
  shape: 'text',
  min: 0,
  max,
  ...more,
});

/** A text that says something: not only spaces. */
export const title = (max: number): Schema<string> => text(max, { min: 1, isTitle: true });

export const number = (min: number, max: number): Schema<number> => ({
  shape: 'number',
  min,
  max,
  isWhole: false,
});
export const whole = (min: number, max: number): Schema<number> => ({
  shape: 'number',
  min,
  max,
  isWhole: true,
});

export const flag: Schema<boolean> = { shape: 'flag' };
/** Only ever true: where it is not, it is not there. */
export const yes: Schema<true> = { shape: 'flag', only: true };

export const choice = <const V extends readonly string[]>(values: V): Schema<V[number]> => ({
  shape: 'choice',
  values,
});

/** Longest key of anything, in UTF-16 units. */
export const LONGEST_KEY = 500;

export const screenKey: Schema<string> = { shape: 'key', of: 'screen' };
export const elementKey: Schema<string> = { shape: 'key', of: 'element' };
export const ownKey: Schema<string> = { shape: 'key', of: 'own' };
/** An element; what there is more than one of for it has a number after its key. */
export const numberedElementKey: Schema<string> = {
  shape: 'key',
  of: 'element',
  suffix: /^\|([2-9]|[1-9]\d{1,3})$/,
  says: 'is no element with, at most, a number after it',
  examples: ['home:0', 'home:0|2'],
};

export const list = <T>(
  of: Schema<T>,
  { min = 0, max }: { min?: number; max: number },
): Schema<readonly T[]> => ({
  shape: 'list',
  of,
  min,
  max,
});

export const table = <T>(
  key: Schema<string>,
  value: Schema<T>,
  more: { readonly max: number; readonly problem?: TableShape['problem'] },
): Schema<Readonly<Record<string, T>>> => ({ shape: 'table', key, value, ...more });

export const optional = <T>(of: Schema<T>): Optional<T> => ({ maybe: of });

export function fields<const F extends Declared>(
  declared: F,
  problem?: FieldsShape['problem'],
): Schema<FieldsOf<F>> & FieldsShape {
  const required: Record<string, Shape> = {};
  const missing: Record<string, Shape> = {};
  for (const [name, field] of Object.entries(declared))
    if ('maybe' in field) missing[name] = field.maybe;
    else required[name] = field;
  return { shape: 'fields', required, optional: missing, ...(problem ? { problem } : {}) };
}

/** Objects told apart by their `kind`. */
export function kinds<const K extends Readonly<Record<string, Declared>>>(
  declared: K,
): Schema<{ [N in keyof K]: Flat<{ readonly kind: N } & FieldsOf<K[N]>> }[keyof K]> & KindsShape {
  return {
    shape: 'kinds',
    kinds: Object.fromEntries(Object.entries(declared).map(([kind, own]) => [kind, fields(own)])),
  };
}

export const either = <const S extends readonly Schema<unknown>[]>(
  says: string,
  ...of: S
): Schema<ValueOf<S[number]>> => ({ shape: 'either', of, says });

export const lazy = <T>(name: string, of: () => Schema<T>): Schema<T> => ({ shape: 'lazy', name, of });

export const nothing: Schema<null> = { shape: 'nothing' };
