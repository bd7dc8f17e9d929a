import { isRecord } from '../json/json.ts';
import type { Behind, Collection } from '../model/app.ts';
import { plural, recordName } from '../model/names.ts';
import type { Project } from '../model/project.ts';
import { type DataRecord, recordsById } from '../records/records.ts';
import type { ApiDescription, ApiField, ApiOperation } from '../described/description.ts';
import { apiOf } from '../described/keep.ts';
import { fieldsAlike } from '../described/match.ts';
import type { AskedBy, Rule, StandInOperation, StandInPlan } from './answer.ts';

/**
 * What a stand-in needs to answer the operations of an API from the records that the screens show.
 * @param project with all edits
 * @param pictureAt the name of a picture by its hash
 * @returns null where the app has no API of that id
 */
export function standInPlan(
  { app, design }: Project,
  id: string,
  pictureAt: (hash: string) => string,
): StandInPlan | null {
  const api = apiOf(app, id);
  if (!api) return null;
  const collections = Object.entries(app.collections)
    .filter(([, { behind }]) => behind?.api === id)
    .sort(([a], [b]) => (a < b ? -1 : 1));
  const stores = new Stores(api);
  for (const [name, { behind }] of collections) stores.bind(name, behind!);
  return {
    title: api.title,
    operations: api.operations.map((operation): StandInOperation => ({
      id: operation.id,
      method: operation.method.toUpperCase(),
      path: operation.path,
      does: operation.does,
      records: stores.of(operation),
      status: operation.status,
      within: operation.envelope,
      ...(operation.total ? { total: operation.total } : {}),
      ...(operation.token ? { token: operation.token } : {}),
      query: askedBy(operation),
      sends: operation.sends.map(ruleOf),
      ...(operation.isGuarded ? { isGuarded: true } : {}),
    })),
    keys: stores.keys(),
    records: Object.fromEntries(
      collections.map(([name, collection]) => {
        const list = api.operations.find((one) => one.id === collection.behind!.list);
        return [
          name,
          [...recordsById(design, collection, app.code)].map(([key, record]) =>
            sampleOf({ key, record, collection, fields: list?.fields ?? [], pictureAt }),
          ),
        ];
      }),
    ),
  };
}

/** Which records each operation of an API is about. */
class Stores {
  readonly #byOperation = new Map<string, string>();
  readonly #byPath = new Map<string, string>();
  readonly #byRecord = new Map<string, string>();
  readonly #keys: Record<string, string> = {};
  readonly #operations: readonly ApiOperation[];

  constructor({ operations }: ApiDescription) {
    this.#operations = operations;
  }

  bind(name: string, { list, read, add, change, remove, key }: Behind): void {
    this.#keys[name] = key;
    for (const id of [list, read, add, change, remove]) {
      const operation = this.#operations.find((one) => one.id === id);
      if (!operation) continue;
      this.#byOperation.set(operation.id, name);
      this.#byPath.set(basePath(operation.path), name);
      if (operation.record !== null) this.#byRecord.set(operation.record, name);
    }
  }

  of({ id, path, record }: ApiOperation): string {
    return (
      this.#byOperation.get(id) ??
      this.#byPath.get(basePath(path)) ??
      (record === null ? undefined : this.#byRecord.get(record)) ??
      // What nobody shows is kept by the path that it is asked at, whatever what is sent is called.
      plural(
        recordName(
          basePath(path)
            .split('/')
            .findLast((part) => part && !part.startsWith('{')) ?? 'record',
        ),
      )
    );
  }

  keys(): Readonly<Record<string, string>> {
    return this.#keys;
  }
}

/** `/tools/{toolId}` → `/tools`. */
const basePath = (path: string): string => path.replace(/\/+$/, '').replace(/\/\{[^}]+\}$/, '');

const PURPOSES: ReadonlySet<string> = new Set<AskedBy['for']>([
  'page',
  'page-size',
  'offset',
  'sort',
  'order',
  'search',
  'filter',
]);

/** What the parameters of an operation's query are for, with the property that each filter looks at. */
export function askedBy({ parameters, fields }: Pick<ApiOperation, 'parameters' | 'fields'>): AskedBy[] {
  return parameters.flatMap(({ name, in: place, for: purpose }): AskedBy[] => {
    if (place !== 'query' || !PURPOSES.has(purpose)) return [];
    if (purpose !== 'filter') return [{ name, for: purpose as AskedBy['for'] }];
    const own = fields.some((field) => field.name === name);
    const [alike] = own ? [] : fieldsAlike({ name: '', fields: [{ name, type: 'text' }] }, fields);
    return [{ name, for: 'filter', ...(alike ? { property: alike.property } : {}) }];
  });
}

const ruleOf = ({ name, json, required, choices, format, least, most, pattern }: ApiField): Rule => ({
  name,
  ...(json === undefined ? {} : { type: json }),
  ...(required ? { required: true } : {}),
  ...(choices ? { choices } : {}),
  ...(format === undefined ? {} : { format }),
  ...(least === undefined ? {} : { least }),
  ...(most === undefined ? {} : { most }),
  ...(pattern === undefined ? {} : { pattern }),
});

interface Sampled {
  readonly key: string;
  readonly record: DataRecord;
  readonly collection: Collection;
  readonly fields: readonly ApiField[];
  readonly pictureAt: (hash: string) => string;
}

/** A drawn record as the API gives it. */
function sampleOf({ key, record, collection, fields, pictureAt }: Sampled): Record<string, unknown> {
  const behind = collection.behind!;
  const made: Record<string, unknown> = {};
  for (const field of fields) if (field.required) made[field.name] = emptyOf(field);
  for (const { name } of collection.fields) {
    const [property, value] = [behind.fields[name], record.values[name]];
    if (property === undefined || !value) continue;
    const [outer, inner] = property.split('.');
    const field = fields.find((one) => one.name === outer);
    const said = value.asset
      ? `/pictures/${pictureAt(value.asset)}`
      : typed(value.text, inner ? undefined : field);
    const before = made[outer];
    made[outer] = inner ? { ...(isRecord(before) ? before : {}), [inner]: said } : said;
  }
  const kind = fields.find((one) => one.name === behind.key)?.json;
  return { ...made, [behind.key]: typed(key, kind === undefined ? undefined : { json: kind }) };
}

/** What parts the thousands of a number. */
const GROUPS = /(?<=\d)[, '](?=\d{3}\b)/g;

/** What a text is in the type of a property, where it says the same there; else the text, so that nothing drawn is lost. */
function typed(text: string, field: Pick<ApiField, 'json' | 'choices'> | undefined): unknown {
  const number = Number(text.replace(GROUPS, ''));
  switch (field?.json) {
    case 'integer':
    case 'number':
      return Number.isFinite(number) && String(number) === text.replace(GROUPS, '').trim() ? number : text;
    case 'boolean':
      return /^(yes|true|on)$/i.test(text) ? true : /^(no|false|off|)$/i.test(text) ? false : text;
    default:
      return field?.choices?.find((one) => one.toLowerCase() === text.trim().toLowerCase()) ?? text;
  }
}

function emptyOf({ json, choices }: ApiField): unknown {
  if (choices?.length) return choices[0];
  switch (json) {
    case 'integer':
    case 'number':
      return 0;
    case 'boolean':
      return false;
    case 'array':
      return [];
    case 'object':
      return {};
    default:
      return '';
  }
}
