import type { App } from '../model/app.ts';
import { type ApiDescription, type ApiOperation, descriptionOf } from './description.ts';

const known = new Map<string, ApiDescription>();
/** So many documents are kept as they were read. */
const MOST_KNOWN = 12;

/** What a kept document says; read once. */
export function describedBy(document: string): ApiDescription {
  const there = known.get(document);
  if (there) return there;
  const [oldest] = known.keys();
  if (known.size >= MOST_KNOWN) known.delete(oldest);
  const read = descriptionOf(keptDocument(document));
  known.set(document, read);
  return read;
}

/** What is kept is JSON; what somebody put into an archive may be anything. */
function keptDocument(document: string): unknown {
  try {
    return JSON.parse(document);
  } catch {
    return null;
  }
}

/** Whether the records of a collection come from an API that is there and lists them. */
export function comesFromApi(app: Pick<App, 'apis' | 'collections'>, collection: string): boolean {
  const behind = app.collections[collection]?.behind;
  const api = behind && apiOf(app, behind.api);
  return !!api && api.operations.some((one) => one.id === behind.list && listsRecords(one));
}

/** Whether an operation gives all records of one kind, not those of a word that it is asked with, and something is said of them. */
export const listsRecords = ({ does, fields, path }: ApiOperation): boolean =>
  does === 'list' && fields.length > 0 && !/\}(\.\w+)?\/*$/.test(path);

/** The names of the keys in the path of an operation, in order. */
export const keysOf = ({ path }: Pick<ApiOperation, 'path'>): string[] =>
  [...path.matchAll(/\{([^}]+)\}/g)].map(([, name]) => name);

/**
 * The keys in the path of an operation that are no key of the record that it is about: of whose records it is asked, such as the
 * company in `/companies/{companyId}/people/{personId}`. They are the same for the whole app, and the environment says them.
 */
export const outerKeysOf = (operation: Pick<ApiOperation, 'path' | 'does'>): string[] =>
  ABOUT_ONE.has(operation.does) ? keysOf(operation).slice(0, -1) : keysOf(operation);

const ABOUT_ONE: ReadonlySet<ApiOperation['does']> = new Set(['read', 'change', 'remove']);

/** What an API of an app says; null where the app has none of that id. */
export function apiOf({ apis }: Pick<App, 'apis'>, id: string): ApiDescription | null {
  const api = apis[id];
  return api ? describedBy(api.document) : null;
}
