import type { FieldType } from '../model/app.ts';
import { singular } from '../model/names.ts';
import type { ApiDescription, ApiField, ApiOperation } from './description.ts';

/** A collection as it is looked for: what it and its fields are called. */
export interface Sought {
  readonly name: string;
  readonly fields: readonly {
    readonly name: string;
    readonly label?: string;
    readonly type: FieldType;
    /** What it says where it is drawn. */
    readonly said?: readonly string[];
  }[];
}

/** A drawn collection and the operation that lists its records. */
export interface ApiMatch {
  readonly collection: string;
  /** Id of the operation. */
  readonly operation: string;
  /** Which property each field is. */
  readonly fields: readonly { readonly field: string; readonly property: string }[];
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

/** Two fields are one from this likeness on. */
const ALIKE = 0.5;
/** Matches below this are not told. */
const LEAST = 0.35;

/** Words for the same thing, in what people draw and in what APIs are called. */
const SAME: readonly (readonly string[])[] = [
  ['name', 'title', 'label'],
  ['picture', 'image', 'photo', 'avatar', 'thumbnail', 'logo'],
  ['status', 'state', 'availability', 'condition'],
  ['price', 'amount', 'cost', 'fee', 'total'],
  ['date', 'day', 'at', 'on', 'since', 'due', 'created', 'updated'],
  ['detail', 'description', 'summary', 'note', 'text', 'body'],
  ['email', 'mail'],
  ['phone', 'tel', 'mobile', 'telephone'],
  ['count', 'number', 'quantity', 'qty'],
  ['street', 'address'],
  ['person', 'user', 'member', 'customer', 'author', 'owner'],
];
const canon = new Map(SAME.flatMap((words) => words.map((word) => [word, words[0]] as const)));

const wordsOf = (name: string): string[] =>
  name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((word) => word && word !== 'id')
    .map((word) => canon.get(singular(word)) ?? singular(word));

const NUMBERS: ReadonlySet<string> = new Set<FieldType>(['number', 'money', 'percent']);

function likeness(field: Sought['fields'][number], property: ApiField): number {
  const drawn = new Set([...wordsOf(field.name), ...wordsOf(field.label ?? '')]);
  const said = wordsOf(property.name);
  const shared = said.filter((word) => drawn.has(word)).length;
  const words = said.length ? shared / Math.max(said.length, Math.min(drawn.size, said.length)) : 0;
  const fits =
    field.type === property.type ||
    (NUMBERS.has(field.type) && NUMBERS.has(property.type)) ||
    (field.type === 'one-of' && property.type === 'text') ||
    (field.type === 'text' && property.type === 'record');
  // Only one picture, only one amount: the type alone says much.
  const rare =
    ['picture', 'money', 'email', 'one-of'].includes(field.type) && field.type === property.type ? 0.45 : 0;
  const same = saysTheSame(field, property) ? 0.9 : 0;
  return Math.max(words * (fits ? 1 : 0.7), rare + (words ? 0.2 : 0), same);
}

/** Of what is drawn so much is among the examples of a property that is the same. */
const SAID = 0.5;
/** Fewer letters, and fewer digits, are the same by chance. */
const TELLING = 3;

/** Whether what a field says where it is drawn is what the document gives as examples of a property. */
export function saysTheSame(field: Sought['fields'][number], property: ApiField): boolean {
  const examples = new Set((property.samples ?? []).map(plain));
  const drawn = new Set((field.said ?? []).map(plain));
  const [fewer, more] = examples.size < drawn.size ? [examples, drawn] : [drawn, examples];
  const both = [...fewer].filter((text) => more.has(text));
  return both.some((text) => text.length >= TELLING) && both.length >= fewer.size * SAID;
}

/** A text in small letters, and an amount without what it is of: `€ 62.00` is 62. */
function plain(text: string): string {
  const amount = /^[^\p{L}\d]*(-?\d[\d,]*(?:\.\d+)?)[^\p{L}\d]*$/u.exec(text)?.[1];
  return amount === undefined ? text.trim().toLowerCase() : `${Number(amount.replaceAll(',', ''))} `;
}

/** Which operation lists the records of each collection, the surest first; each operation is of one collection at most. */
export function matchApi(
  { operations }: Pick<ApiDescription, 'operations'>,
  collections: readonly Sought[],
): ApiMatch[] {
  const pairs = collections.flatMap((collection) =>
    operations
      .filter(({ does }) => does === 'list')
      .map((operation) => pairOf(collection, operation))
      .filter(({ confidence }) => confidence >= LEAST),
  );
  return eachOnce(
    pairs.sort((a, b) => b.confidence - a.confidence),
    ({ collection, operation }) => [collection, operation],
  );
}

/** The pairs whose one and other side no earlier pair has. */
function eachOnce<T>(pairs: readonly T[], sidesOf: (pair: T) => readonly [string, string]): T[] {
  const [ones, others] = [new Set<string>(), new Set<string>()];
  return pairs.filter((pair) => {
    const [one, other] = sidesOf(pair);
    if (ones.has(one) || others.has(other)) return false;
    ones.add(one);
    others.add(other);
    return true;
  });
}

/** Which property each field is, as far as they are called and typed alike. */
export function fieldsAlike(
  collection: Sought,
  properties: readonly ApiField[],
): { readonly field: string; readonly property: string }[] {
  const candidates = collection.fields
    .flatMap((field) =>
      properties.map((property) => ({
        field: field.name,
        property: property.name,
        score: likeness(field, property),
      })),
    )
    .filter(({ score }) => score >= ALIKE)
    .sort((a, b) => b.score - a.score);
  return eachOnce(candidates, ({ field, property }) => [field, property]).map(({ field, property }) => ({
    field,
    property,
  }));
}

function pairOf(collection: Sought, operation: ApiOperation): ApiMatch {
  const fields = fieldsAlike(collection, operation.fields);
  const covered = fields.length / collection.fields.length;
  const named = wordsOf(collection.name).some((word) =>
    [...wordsOf(operation.record ?? ''), ...wordsOf(operation.path)].includes(word),
  );
  const same = fields.filter(({ field, property }) =>
    saysTheSame(
      collection.fields.find(({ name }) => name === field)!,
      operation.fields.find(({ name }) => name === property)!,
    ),
  ).length;
  const reasons = [
    ...(named ? [`both are about ${collection.name}`] : []),
    `${fields.length} of ${collection.fields.length} fields are called alike`,
    ...(same ? [`${same} say what its examples say`] : []),
  ];
  const sampled = (0.37 * same) / collection.fields.length;
  return {
    collection: collection.name,
    operation: operation.id,
    fields,
    confidence: Math.round(Math.min(0.97, 0.6 * covered + (named ? 0.37 : 0) + sampled) * 100) / 100,
    reason: reasons.join('; '),
  };
}
