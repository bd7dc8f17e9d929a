import type { Behind, Collection } from '../model/app.ts';
import type { Design } from '../model/design.ts';
import type { Project } from '../model/project.ts';
import { recordsOf } from '../records/records.ts';
import { recordName } from '../model/names.ts';
import type { OperationDoes } from './deeds.ts';
import type { ApiDescription, ApiField, ApiOperation } from './description.ts';
import { apiOf, keysOf, listsRecords, outerKeysOf } from './keep.ts';
import { type ApiMatch, fieldsAlike, matchApi, type Sought } from './match.ts';

/** A collection and the operations that its records can come from. */
export interface BehindProposal {
  /** Id of the collection. */
  readonly collection: string;
  readonly behind: Behind;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

/** For each collection whose records are kept in the app the operations of a described API that they can come from. */
export function proposeBehind({ design, app }: Project): BehindProposal[] {
  const open = Object.entries(app.collections).filter(([, { behind }]) => !behind);
  const used = new Set(Object.values(app.collections).flatMap(({ behind }) => behind?.list ?? []));
  return Object.keys(app.apis)
    .sort()
    .flatMap((id): BehindProposal[] => {
      const api = apiOf(app, id)!;
      const free = api.operations
        .flatMap((one) =>
          !used.has(one.id) && listsRecords(one) ? [{ ...one, fields: undotted(one.fields) }] : [],
        )
        // Of two lists of the same records the one that gives all of them.
        .sort((a, b) => keysOf(a).length - keysOf(b).length);
      // Collections are called by their ids here, which no two share.
      const matches = matchApi(
        { operations: free },
        open.map(([key, collection]) => ({ name: key, fields: saidIn(design, collection) })),
      );
      return matches.flatMap((match) => {
        const collection = app.collections[match.collection];
        const behind = behindBy(id, api, match.operation, collection, match.fields);
        return behind ? [{ collection: match.collection, behind, ...surenessOf(match, api) }] : [];
      });
    })
    .sort((a, b) => b.confidence - a.confidence);
}

/** Fields with what they say where they are drawn. */
function saidIn(design: Design, collection: Collection): Sought['fields'] {
  const records = recordsOf(design, collection);
  return collection.fields.map((field) => ({
    ...field,
    said: records.flatMap(({ values }) => values[field.name]?.text ?? []),
  }));
}

/** A list of what belongs to one of something may be meant, or all there are. */
const OF_ONE = 0.85;

/** How sure a match is, and why; what its path is asked under is said by the environment. */
function surenessOf(
  { operation, confidence, reason }: ApiMatch,
  { operations }: ApiDescription,
): Pick<BehindProposal, 'confidence' | 'reason'> {
  const keys = outerKeysOf(operations.find(({ id }) => id === operation)!);
  if (!keys.length) return { confidence, reason };
  const listed = new Intl.ListFormat('en').format(keys);
  return {
    confidence: confidence * OF_ONE,
    reason: `${reason}; ${listed} in its path ${keys.length === 1 ? 'is' : 'are'} the same for the whole app, and said by the environment`,
  };
}

/**
 * What stands behind a collection when an operation lists its records: the operations of the same records beside it, what
 * they are known by, and which property each field is.
 * @param known fields that are matched already; they are matched anew where nothing is given
 * @returns null where the API has no such operation that gives a list
 */
export function behindBy(
  id: string,
  { operations }: Pick<ApiDescription, 'operations'>,
  list: string,
  collection: Sought,
  known?: ApiMatch['fields'],
): Behind | null {
  const found = operations.find((one) => one.id === list && listsRecords(one));
  const lists = found && { ...found, fields: undotted(found.fields) };
  if (!lists?.fields.length) return null;
  const one = (does: OperationDoes): { readonly [does: string]: string } => {
    const found = besides(operations, lists, does);
    return found ? { [does]: found.id } : {};
  };
  const properties = spread(lists.fields);
  const titled = new Map(
    lists.fields.flatMap(({ name, parts = [] }) => {
      const title = parts.find((part) => CALLS.test(part.name));
      return title ? [[name, `${name}.${title.name}`] as const] : [];
    }),
  );
  const matched = new Map(
    (known ?? fieldsAlike(collection, lists.fields)).map((of) => [of.field, of.property]),
  );
  const rest = {
    name: collection.name,
    fields: collection.fields.filter(({ name }) => !matched.has(name)),
  };
  const taken = new Set(matched.values());
  const inner = fieldsAlike(
    rest,
    properties.filter(({ name }) => name.includes('.') && !taken.has(name.split('.')[0])),
  );
  return {
    api: id,
    list: lists.id,
    ...one('read'),
    ...one('add'),
    ...one('change'),
    ...one('remove'),
    key: keyOf(operations, lists),
    fields: Object.fromEntries([
      ...[...matched].map(([field, property]) => [field, titled.get(property) ?? property]),
      ...inner.map(({ field, property }) => [field, property]),
    ]),
  };
}

const CALLS = /^(name|title|label|display_?name|full_?name)$/i;

/** The properties of a record with those of the records within it, by dotted names. */
export const spread = (fields: readonly ApiField[]): ApiField[] =>
  undotted(fields).flatMap((field) => [
    field,
    ...undotted(field.parts ?? []).map((part) => ({ ...part, name: `${field.name}.${part.name}` })),
  ]);

/** Those whose names say of themselves that they are no way into a record. */
const undotted = (fields: readonly ApiField[]): ApiField[] =>
  fields.filter(({ name }) => !name.includes('.'));

/** The operation of the same records that does something else: on the same path, or on that and a key. */
function besides(
  operations: readonly ApiOperation[],
  list: ApiOperation,
  does: OperationDoes,
): ApiOperation | undefined {
  const base = list.path.replace(/\/+$/, '');
  const isBeside = ({ path }: ApiOperation): boolean =>
    path === base || (path.startsWith(`${base}/`) && /^\{[^}]+\}$/.test(path.slice(base.length + 1)));
  // One that is added has no key yet; all else is done to the one of a key.
  const outer = new Set(outerKeysOf(list));
  const all = operations.filter(
    (one) =>
      one.does === does &&
      keysOf(one).length === outerKeysOf(one).length + (does === 'add' ? 0 : 1) &&
      outerKeysOf(one).every((name) => outer.has(name)),
  );
  const near = all.filter(isBeside);
  const other = all.filter(({ record }) => record !== null && record === list.record);
  // What writes some of a record does not need all of it.
  return near.find(({ method }) => method === 'patch') ?? near[0] ?? other[0];
}

/** The property by which a record is known where an operation is given the key of one. */
function keyOf(operations: readonly ApiOperation[], list: ApiOperation): string {
  // What is a record or a list itself is no key.
  const plain = list.fields.filter(({ type }) => type !== 'record' && type !== 'list');
  const names = (plain.length ? plain : list.fields).map(({ name }) => name);
  const asked = (besides(operations, list, 'read') ?? besides(operations, list, 'remove'))?.parameters
    .filter((one) => one.in === 'path')
    .at(-1)?.name;
  const record = list.record === null ? '' : recordName(list.record);
  const wanted = [asked, 'id', `${record}Id`, `${record}_id`, 'uuid', 'key', 'slug', 'code'];
  return (
    wanted.find((one) => one !== undefined && names.includes(one)) ??
    names.find((name) => /(^|_)id$|Id$/.test(name)) ??
    plain.find(({ required }) => required)?.name ??
    names[0]
  );
}
