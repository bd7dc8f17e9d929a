import type { FieldType } from '../model/app.ts';

/** What an operation of an API is taken for. */
export type OperationDoes = 'list' | 'read' | 'add' | 'change' | 'remove' | 'sign-in' | 'sign-out' | 'other';

/** What a parameter is taken for. */
export type ParameterFor =
  'key' | 'page' | 'page-size' | 'offset' | 'cursor' | 'sort' | 'order' | 'search' | 'filter' | 'other';

const SIGNS_IN = /\b(log ?-?in|sign ?-?in|authenticate)\b/i;
const SIGNS_OUT = /\b(log ?-?out|sign ?-?out)\b/i;
/** What one signs in to, as the whole last part of a path. */
const SESSIONS = /^(sessions?|tokens?|login|auth|authenticate|authentication)$/i;

/** What operations are called by, whatever method they have. */
const VERBS: readonly (readonly [Exclude<OperationDoes, 'sign-in' | 'sign-out' | 'other'>, RegExp])[] = [
  ['list', /^(list|search|query|find all|get all|index|browse)$/],
  ['read', /^(read|retrieve|show|describe|view|get by id|find by id)$/],
  ['add', /^(create|add|insert|register)$/],
  ['change', /^(update|edit|patch|modify|replace|change|put)$/],
  ['remove', /^(delete|remove|destroy)$/],
];

/** The words of the last part of a name: `pets.listAll` → `list`, `all`. */
const wordsIn = (name: string): string[] =>
  (name.split(/[./:#=_]/).findLast((part) => /[a-z]{3}/i.test(part)) ?? '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/([A-Z])([A-Z][a-z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter(Boolean);

/** The verb that an operation is called by, in its id or, of procedures that are called, at the end of its path. */
function verbOf(id: string, path: string): OperationDoes | null {
  for (const name of [id, path.includes('{') ? '' : path]) {
    const [first = '', second = ''] = wordsIn(name);
    const found = VERBS.find(([, pattern]) => pattern.test(first) || pattern.test(`${first} ${second}`));
    if (found) return found[0];
  }
  return null;
}

interface Shown {
  readonly id: string;
  readonly method: string;
  readonly path: string;
  readonly summary: string;
  readonly givesList: boolean;
}

/** What an operation is taken for, and why. */
export function deedOf({ id, method, path, summary, givesList }: Shown): readonly [OperationDoes, string] {
  const said = `${id} ${summary} ${path}`.replace(/([a-z])([A-Z])/g, '$1 $2').replace(/[/_{}]/g, ' ');
  const last = path.split('/').findLast((part) => part !== '') ?? '';
  const endsInKey = /\{[^}]+\}$/.test(last);
  if (SIGNS_OUT.test(said)) return ['sign-out', 'it says that one leaves'];
  if (method === 'delete' && SESSIONS.test(last)) return ['sign-out', 'it ends a session'];
  if (method === 'post' && (SIGNS_IN.test(said) || SESSIONS.test(last)))
    return ['sign-in', 'it says that one signs in'];
  const verb = verbOf(id, path);
  // A search that is asked by key is none, nor is a list that a path with a key ends in.
  if (verb && !(verb === 'list' && !givesList && endsInKey)) return [verb, `it is called by the word for it`];
  switch (method) {
    case 'get':
      if (endsInKey && !givesList) return ['read', 'its path ends in the key of one record'];
      if (givesList) return ['list', 'it gives a list'];
      return ['other', 'it gives neither a list nor the record of a key'];
    case 'post':
      return endsInKey ? ['change', 'it is sent to one record'] : ['add', 'it is sent to the path of many'];
    case 'put':
      return ['change', endsInKey ? 'it writes the record of a key' : 'it writes'];
    case 'patch':
      return ['change', 'it writes'];
    case 'delete':
      return ['remove', 'it removes'];
    default:
      return ['other', `${method} says nothing of records`];
  }
}

const PARAMETERS: readonly (readonly [ParameterFor, RegExp])[] = [
  ['page-size', /^(page_?size|per_?page|limit|size|count|take|top|first|max_?results?|page\[size\])$/i],
  ['page', /^(page|page_?(number|no|index)|p|page\[number\])$/i],
  ['offset', /^(offset|skip|start|from|start_?index)$/i],
  ['cursor', /^(cursor|after|before|page_?token|next|continuation(_?token)?|marker)$/i],
  ['order', /^(order|direction|dir|sort_?(order|dir|direction)|ascending|desc)$/i],
  ['sort', /^(sort|sort_?by|order_?by|sorting|orderings?)$/i],
  ['search', /^(q|query|search|term|text|keywords?|s|search_?(term|text|query))$/i],
];

/** What a parameter is taken for, by its place and its name. */
export function purposeOf(name: string, place: string, description: string): ParameterFor {
  if (place === 'path') return 'key';
  if (place !== 'query') return 'other';
  const found = PARAMETERS.find(([, pattern]) => pattern.test(name))?.[0];
  if (found) return found;
  if (/\b(search|free text|full text)\b/i.test(description)) return 'search';
  return /^(fields?|include|expand|embed|locale|lang|format|api_?key|token|callback)$/i.test(name)
    ? 'other'
    : 'filter';
}

/** What a property of a schema holds. */
export function fieldTypeOf(
  schema: Readonly<Record<string, unknown>>,
  name: string,
  isChoice: boolean,
): FieldType | 'record' | 'list' {
  const type = typeOf(schema);
  const format = typeof schema.format === 'string' ? schema.format : '';
  if (isChoice) return 'one-of';
  if (type === 'array') return 'list';
  if (type === 'object' || schema.properties !== undefined || schema.allOf !== undefined) return 'record';
  if (type === 'boolean') return 'yes-no';
  if (/^(price|cost|amount|total|fee|salary|balance)$/i.test(name)) return 'money';
  if (type === 'number' || type === 'integer')
    return /percent|share|progress/i.test(name) ? 'percent' : 'number';
  if (format === 'date' || format === 'date-time') return 'date';
  if (format === 'time') return 'time';
  if (format === 'email' || /^e?mail$/i.test(name)) return 'email';
  if (/(image|picture|photo|avatar|thumbnail|logo)/i.test(name)) return 'picture';
  if (/^(phone|mobile|tel)/i.test(name)) return 'phone';
  return /^(uri|url)/.test(format) ? 'link' : 'text';
}

/** The type of a schema, where it has one besides none. */
export const typeOf = ({ type, items }: Readonly<Record<string, unknown>>): string | null => {
  const said = Array.isArray(type) ? type.find((one) => one !== 'null') : type;
  return typeof said === 'string' ? said : items === undefined ? null : 'array';
};
