import { isObjectMember, isRecord } from '../json/json.ts';
import { type KeyShape, LONGEST_KEY, type Shape, type TextShape } from './schema.ts';

/** What is wrong with a value, and where: a path of field names and places in lists. */
export interface Problem {
  readonly at: readonly (string | number)[];
  readonly says: string;
}

/** A problem as one text: `screens/3/name: …`. */
export const problemText = ({ at, says }: Problem): string => {
  // Names are somebody else's: they stay on their line.
  const place = at.map((part) => String(part).replace(/[\s\p{C}]+/gu, ' ')).join('/');
  return at.length ? `${place}: ${says}` : says;
};

/** Deeper than this, values are refused; documents nest elements at most 200 deep, each two levels of JSON. */
const DEEPEST = 600;

/**
 * The first thing that is wrong with a value from outside, or null. Takes no more time than the value is large, whatever
 * it is; names of an object's own prototype are never keys.
 */
export function findProblem(shape: Shape, value: unknown): Problem | null {
  const at: (string | number)[] = [];
  const fail = (says: string): Problem => ({ at: [...at], says });

  const inside = (name: string | number, of: Shape, part: unknown): Problem | null => {
    if (at.length >= DEEPEST) return fail('is nested too deeply');
    at.push(name);
    const problem = check(of, part);
    if (!problem) at.pop();
    return problem;
  };

  const check = (of: Shape, part: unknown): Problem | null => {
    switch (of.shape) {
      case 'text': {
        const says = textProblem(of, part);
        return says === null ? null : fail(says);
      }
      case 'key': {
        const says = keyProblem(of, part);
        return says === null ? null : fail(says);
      }
      case 'number':
        if (typeof part !== 'number' || !Number.isFinite(part)) return fail('expected a number');
        if (of.isWhole && !Number.isInteger(part)) return fail('expected a whole number');
        return part < of.min || part > of.max
          ? fail(`expected a number from ${of.min} to ${of.max}, not ${part}`)
          : null;
      case 'flag':
        if (typeof part !== 'boolean') return fail('expected true or false');
        return of.only !== undefined && part !== of.only ? fail(`can only be ${of.only}`) : null;
      case 'choice':
        return typeof part === 'string' && of.values.includes(part)
          ? null
          : fail(`expected one of ${shown(of.values)}, not ${quoted(part)}`);
      case 'list': {
        if (!Array.isArray(part)) return fail('expected a list');
        if (part.length < of.min || part.length > of.max)
          return fail(`expected ${of.min} to ${of.max} entries, not ${part.length}`);
        for (let i = 0; i < part.length; i++) {
          const problem = inside(i, of.of, part[i]);
          if (problem) return problem;
        }
        return null;
      }
      case 'table': {
        if (!isRecord(part)) return fail('expected an object');
        const names = Object.keys(part);
        if (names.length > of.max) return fail(`expected at most ${of.max} entries, not ${names.length}`);
        for (const name of names) {
          const says = isObjectMember(name) ? 'that key is not allowed' : keyOfTableProblem(of.key, name);
          if (says !== null) return { at: [...at, name.slice(0, 80)], says };
          const problem = inside(name, of.value, part[name]);
          if (problem) return problem;
          const wrong = of.problem?.(name, part[name]);
          if (wrong) return { at: [...at, name], says: wrong };
        }
        return null;
      }
      case 'fields': {
        if (!isRecord(part)) return fail('expected an object');
        const problem = checkFields(of.required, of.optional, part);
        const together = problem ? null : (of.problem?.(part) ?? null);
        return together === null ? problem : fail(together);
      }
      case 'kinds': {
        if (!isRecord(part)) return fail('expected an object');
        const kind = typeof part.kind === 'string' && Object.hasOwn(of.kinds, part.kind) ? part.kind : null;
        if (kind === null)
          return { at: [...at, 'kind'], says: `expected one of ${shown(Object.keys(of.kinds))}` };
        return checkFields(of.kinds[kind].required, of.kinds[kind].optional, part, 'kind');
      }
      case 'either': {
        if (of.of.some((one) => findProblem(one, part) === null)) return null;
        return fail(of.says);
      }
      case 'nothing':
        return part === null ? null : fail('expected null');
      case 'lazy':
        return check(of.of(), part);
    }
  };

  const checkFields = (
    required: Readonly<Record<string, Shape>>,
    optional: Readonly<Record<string, Shape>>,
    part: Record<string, unknown>,
    known?: string,
  ): Problem | null => {
    for (const name in required) {
      if (!Object.hasOwn(part, name) || part[name] === undefined)
        return { at: [...at, name], says: 'is missing' };
      const problem = inside(name, required[name], part[name]);
      if (problem) return problem;
    }
    for (const name of Object.keys(part)) {
      if (name === known || Object.hasOwn(required, name) || part[name] === undefined) continue;
      if (!Object.hasOwn(optional, name))
        return { at: [...at, name.slice(0, 80)], says: 'is no field that belongs here' };
      const problem = inside(name, optional[name], part[name]);
      if (problem) return problem;
    }
    return null;
  };

  return check(shape, value);
}

/** Reads a value from outside. @throws RangeError that says where what is wrong, after `what`. */
export function assertShape(shape: Shape, value: unknown, what: string): void {
  const problem = findProblem(shape, value);
  if (problem) throw new RangeError(`${what}: ${problemText(problem)}`);
}

const shown = (values: readonly string[]): string =>
  values.slice(0, 30).join(', ') + (values.length > 30 ? ' …' : '');
const quoted = (value: unknown): string =>
  typeof value === 'string' ? `“${value.slice(0, 60)}”` : value === null ? 'null' : typeof value;

function textProblem(of: TextShape, value: unknown): string | null {
  if (typeof value !== 'string') return 'expected a text';
  if (value.length > of.max) return `expected at most ${of.max} characters, not ${value.length}`;
  if (value.length < of.min || (of.isTitle && !value.trim())) return 'expected a text that is not empty';
  if (!isWellFormed(value)) return 'holds half a character';
  if (of.pattern && !of.pattern.test(value)) return `${of.says ?? 'has another form'}, not ${quoted(value)}`;
  return of.holds && !of.holds(value) ? `${of.says ?? 'is not allowed'}, not ${quoted(value)}` : null;
}

/** Half a surrogate pair cannot be stored or written to a file and read again. */
const isWellFormed = (value: string): boolean => !/\p{Surrogate}/u.test(value);

function keyProblem(of: KeyShape, value: unknown): string | null {
  if (typeof value !== 'string') return 'expected a key';
  if (!value || value.length > LONGEST_KEY) return `expected a key of 1 to ${LONGEST_KEY} characters`;
  if (isObjectMember(value) || !isWellFormed(value)) return 'that key is not allowed';
  const bar = value.indexOf('|');
  if (of.of !== 'own') {
    if (bar === 0) return `${quoted(value)} names no ${of.of}`;
    if (bar > 0 && !of.suffix?.test(value.slice(bar))) return of.says ?? `${quoted(value)} names no ${of.of}`;
  }
  return of.problem?.(value) ?? null;
}

const keyOfTableProblem = (of: Shape, name: string): string | null => findProblem(of, name)?.says ?? null;
