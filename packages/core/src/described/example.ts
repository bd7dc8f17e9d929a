import { isRecord } from '../json/json.ts';
import { sentenceCase } from '../model/names.ts';
import type { ApiProblem } from './description.ts';
import { samplesOf } from './samples.ts';

type Schema = Readonly<Record<string, unknown>>;

/** So much of an example is looked at. */
const LIMITS = { depth: 12, rows: 200, fields: 300 } as const;

/**
 * An OpenAPI document for an API of which only an answer is known: the operation that gives it, with the schema of what it
 * holds. What some records lack is optional; texts that are all dates, addresses or mail are told as that.
 * @param path where it is asked, such as `/tools`
 * @returns no document where the example is no JSON, or holds no list of records
 */
export function documentOfExample(
  text: string,
  path: string,
): { readonly document: string | null; readonly problems: readonly ApiProblem[] } {
  const problem = (message: string): ReturnType<typeof documentOfExample> => ({
    document: null,
    problems: [{ at: '', message }],
  });
  if (!/^\/[\w\-./]*$/.test(path))
    return problem(`a path begins with a slash, unlike “${path.slice(0, 80)}”`);
  let answer: unknown;
  try {
    answer = JSON.parse(text);
  } catch (error) {
    return problem(`it is no JSON: ${(error as Error).message.split('\n')[0]}`);
  }
  if (!holdsRecords(answer, 0)) return problem('it holds no list of records');
  const title = sentenceCase(path.split('/').findLast((part) => part !== '') ?? 'records');
  const document = {
    openapi: '3.1.0',
    info: { title, version: '1' },
    paths: {
      [path]: {
        get: {
          operationId: `list${title.replace(/\W+/g, '')}`,
          summary: `${title}, as an example answers`,
          responses: {
            200: { content: { 'application/json': { schema: schemaOf([answer], 0) } } },
          },
        },
      },
    },
  };
  return { document: JSON.stringify(document), problems: [] };
}

const holdsRecords = (value: unknown, depth: number): boolean =>
  Array.isArray(value)
    ? value.some(isRecord)
    : isRecord(value) && depth < 4 && Object.values(value).some((one) => holdsRecords(one, depth + 1));

/** What all these values are. */
export function schemaOf(values: readonly unknown[], depth: number): Schema {
  const there = values.filter((value) => value !== null && value !== undefined);
  const isNullable = there.length < values.length;
  const types = new Set(there.map(typeOf));
  if (types.has('integer') && types.has('number')) types.delete('integer');
  const [type, ...others] = types;
  if (type === undefined || others.length || depth > LIMITS.depth) return {};
  const typed = { type: isNullable ? [type, 'null'] : type };
  if (type === 'array') {
    const items = there.flatMap((one) => one as unknown[]).slice(0, LIMITS.rows);
    return { ...typed, items: items.length ? schemaOf(items, depth + 1) : {} };
  }
  if (type === 'object') {
    const records = there as Record<string, unknown>[];
    const names = [...new Set(records.flatMap((one) => Object.keys(one)))].slice(0, LIMITS.fields);
    return {
      ...typed,
      properties: Object.fromEntries(
        names.map((name) => [
          name,
          schemaOf(
            records.flatMap((one) => (Object.hasOwn(one, name) ? [one[name]] : [])),
            depth + 1,
          ),
        ]),
      ),
      required: names.filter((name) =>
        records.every((one) => Object.hasOwn(one, name) && one[name] !== null),
      ),
    };
  }
  const examples = samplesOf({ examples: there });
  return {
    ...typed,
    ...(type === 'string' ? formatOf(there as string[]) : {}),
    ...(examples.length ? { examples } : {}),
  };
}

const FORMATS: readonly (readonly [string, RegExp])[] = [
  ['date', /^\d{4}-\d\d-\d\d$/],
  ['date-time', /^\d{4}-\d\d-\d\dT\d\d:\d\d/],
  ['email', /^[^\s@]+@[^\s@]+\.[^\s@]+$/],
  ['uri', /^https?:\/\/\S+$/],
  ['uuid', /^[\da-f]{8}-[\da-f]{4}-[\da-f]{4}-[\da-f]{4}-[\da-f]{12}$/i],
];

function formatOf(texts: readonly string[]): Schema {
  const found = FORMATS.find(([, pattern]) => texts.every((text) => pattern.test(text)));
  return found ? { format: found[0] } : {};
}

function typeOf(value: unknown): string {
  if (Array.isArray(value)) return 'array';
  return typeof value === 'number' ? (Number.isInteger(value) ? 'integer' : 'number') : typeof value;
}
