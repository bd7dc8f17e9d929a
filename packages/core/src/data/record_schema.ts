import { type Change, putCollection } from '../change/change.ts';
import { fieldTypeOf } from '../described/deeds.ts';
import { isRecord } from '../json/json.ts';
import type { Collection, RecordField } from '../model/app.ts';
import { camelCase, isCodeName } from '../model/names.ts';
import { cellOf } from './table_text.ts';

const JSON_TYPES: Readonly<Record<RecordField['type'], Readonly<Record<string, unknown>>>> = {
  text: { type: 'string' },
  number: { type: 'number' },
  money: { type: 'string', description: 'an amount with its currency' },
  percent: { type: 'number', description: 'of a hundred' },
  date: { type: 'string', format: 'date' },
  time: { type: 'string', format: 'time' },
  'yes-no': { type: 'boolean' },
  'one-of': { type: 'string' },
  email: { type: 'string', format: 'email' },
  phone: { type: 'string' },
  link: { type: 'string', format: 'uri' },
  picture: { type: 'string', format: 'uri-reference' },
};

/** The JSON Schema (2020-12) of one record of a collection. */
export const recordSchema = ({ name, fields }: Collection): Readonly<Record<string, unknown>> => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: name,
  type: 'object',
  properties: Object.fromEntries(
    fields.map(({ name: field, label, type, choices, byDefault }) => [
      field,
      {
        ...JSON_TYPES[type],
        ...(label ? { title: label } : {}),
        ...(type === 'one-of' && choices?.length ? { enum: choices } : {}),
        ...(byDefault === undefined ? {} : { default: asJson(type, byDefault) }),
      },
    ]),
  ),
  ...(fields.some((field) => field.required)
    ? { required: fields.filter((field) => field.required).map((field) => field.name) }
    : {}),
});

/** What a field says, as JSON of its type has it; as it is where it is none of that. */
function asJson(type: RecordField['type'], said: string): unknown {
  const { type: wanted } = JSON_TYPES[type];
  if (wanted === 'boolean') return /^(yes|true)$/i.test(said);
  const size = Number(said);
  return wanted === 'number' && said.trim() !== '' && Number.isFinite(size) ? size : said;
}

/** What a field says by itself, as a schema has it. */
const saidByDefault = (said: unknown): string | undefined =>
  /^(boolean|string|number)$/.test(typeof said) ? cellOf(said) : undefined;

/** Whether a text is the JSON Schema of a record, rather than values. */
export function isRecordSchema(text: string): boolean {
  const read = readJson(text);
  return isRecord(read) && isRecord(read.properties);
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}

/** What a schema says of the fields of a collection. */
export interface SchemaTaken {
  /** None where nothing differs. */
  readonly change: Change | null;
  /** How many fields it adds or types otherwise. */
  readonly changed: number;
  readonly problems: readonly string[];
}

/** So many fields can a collection have. */
const MOST_FIELDS = 200;

/**
 * Takes the fields that a JSON Schema says a record has: those that are there are typed and called as it says, others are
 * added. Fields that it does not have stay, as the screens show them.
 */
export function takeSchema(id: string, collection: Collection, text: string): SchemaTaken {
  const read = readJson(text);
  const properties = isRecord(read) && isRecord(read.properties) ? Object.entries(read.properties) : [];
  const needed = new Set(isRecord(read) && Array.isArray(read.required) ? (read.required as unknown[]) : []);
  if (!properties.length) return { change: null, changed: 0, problems: ['it has no properties'] };
  const problems: string[] = [];
  const fields = new Map(collection.fields.map((field) => [field.name, field]));
  let changed = 0;
  for (const [property, value] of properties) {
    const own = isRecord(value) ? fieldOf(property, value, problems) : null;
    if (!own) continue;
    const made = needed.has(property) ? { ...own, required: true as const } : own;
    const known = fields.get(made.name);
    if (!known && fields.size >= MOST_FIELDS) {
      problems.push(`“${property}” has no room: a collection has at most ${MOST_FIELDS} fields`);
      continue;
    }
    const next = { ...known, ...made };
    if (JSON.stringify(known) === JSON.stringify(next)) continue;
    fields.set(made.name, next);
    changed++;
  }
  const change = changed ? putCollection(id, { ...collection, fields: [...fields.values()] }) : null;
  return { change, changed, problems };
}

function fieldOf(
  property: string,
  schema: Readonly<Record<string, unknown>>,
  problems: string[],
): RecordField | null {
  const name = /^[a-z]\w{0,60}$/i.test(property) ? property : camelCase(property);
  if (!isCodeName(name) || name.length > 61) {
    problems.push(`“${property.slice(0, 80)}” is no name that a field can have`);
    return null;
  }
  const choices = Array.isArray(schema.enum)
    ? schema.enum.filter((one): one is string => typeof one === 'string' && one !== '').slice(0, 200)
    : [];
  const own = typeIn(schema);
  const type = own ?? fieldTypeOf(schema, name, choices.length > 0);
  if (type === 'record' || type === 'list') {
    problems.push(`“${property}” holds more than one value, and no field does`);
    return null;
  }
  const label = typeof schema.title === 'string' ? schema.title.trim().slice(0, 200) : '';
  const byDefault = saidByDefault(schema.default);
  return {
    name,
    ...(label ? { label } : {}),
    type,
    ...(choices.length ? { choices } : {}),
    ...(byDefault === undefined ? {} : { byDefault: byDefault.slice(0, 2000) }),
  };
}

/** The type of a field that is written just so; null where it has to be guessed. */
function typeIn(schema: Readonly<Record<string, unknown>>): RecordField['type'] | null {
  const says = (type: keyof typeof JSON_TYPES): boolean =>
    JSON_TYPES[type].description !== undefined &&
    Object.entries(JSON_TYPES[type]).every(([key, value]) => schema[key] === value);
  return says('money')
    ? 'money'
    : says('percent')
      ? 'percent'
      : schema.format === 'uri-reference'
        ? 'picture'
        : null;
}
