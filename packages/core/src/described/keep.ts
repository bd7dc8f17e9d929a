import { isRecord } from '../json/json.ts';
import { type Api, type App, LONGEST_API } from '../model/app.ts';
import {
  type ApiDescription,
  type ApiOperation,
  type ApiProblem,
  readApi,
  readDocument,
} from './description.ts';

/** What nothing is read from. */
const UNREAD =
  /^(x-.*|example|examples|externalDocs|tags|contact|license|termsOfService|xml|callbacks|links)$/;
/** What is left out where the document is too long with it. */
const WORDY = /^(description|summary|title)$/;
/** What has names of its own choice in it. */
const NAMED = /^(properties|paths|schemas|parameters|responses|requestBodies|pathItems|patternProperties)$/;

/**
 * An API as it is kept with a project: what is read from its document, as JSON.
 * @returns no API where the document cannot be read or is too long; problems say where and what
 */
export function keptApi(text: string): {
  readonly api: Api | null;
  readonly problems: readonly ApiProblem[];
} {
  const read = readApi(text);
  if (!read.operations.length)
    return {
      api: null,
      problems: read.problems.length ? read.problems : [{ at: '/paths', message: 'there are no operations' }],
    };
  const whole = readDocument(text);
  const document = [0, 1]
    .map((step) => JSON.stringify(without(whole, false, step > 0)))
    .find(({ length }) => length <= LONGEST_API);
  if (document === undefined)
    return {
      api: null,
      problems: [
        {
          at: '',
          message: `even without its descriptions the document is longer than ${LONGEST_API} characters: leave out the paths that the app does not need`,
        },
      ],
    };
  return { api: { name: read.title.trim().slice(0, 200) || 'API', document }, problems: read.problems };
}

function without(value: unknown, isNamed: boolean, isShort: boolean): unknown {
  if (Array.isArray(value)) return value.map((one) => without(one, false, isShort));
  if (!isRecord(value)) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, one]) =>
      !isNamed && (UNREAD.test(name) || (isShort && WORDY.test(name) && typeof one === 'string'))
        ? []
        : [[name, without(one, !isNamed && NAMED.test(name), isShort)]],
    ),
  );
}

const known = new Map<string, ApiDescription>();
/** So many documents are kept as they were read. */
const MOST_KNOWN = 12;

/** What a kept document says; read once. */
export function describedBy(document: string): ApiDescription {
  const there = known.get(document);
  if (there) return there;
  const [oldest] = known.keys();
  if (known.size >= MOST_KNOWN) known.delete(oldest);
  const read = readApi(document);
  known.set(document, read);
  return read;
}

/** Whether the records of a collection come from an API that is there and lists them. */
export function comesFromApi(app: Pick<App, 'apis' | 'collections'>, collection: string): boolean {
  const behind = app.collections[collection]?.behind;
  const api = behind && apiOf(app, behind.api);
  return !!api && api.operations.some((one) => one.id === behind.list && listsRecords(one));
}

/** Whether an operation gives all records of one kind by itself, and something is said of what they are. */
export const listsRecords = (operation: ApiOperation): boolean =>
  operation.does === 'list' && operation.fields.length > 0 && keysOf(operation) === 0;

/** How many keys stand in the path of an operation. */
export const keysOf = ({ path }: Pick<ApiOperation, 'path'>): number => path.split('{').length - 1;

/** What an API of an app says; null where the app has none of that id. */
export function apiOf({ apis }: Pick<App, 'apis'>, id: string): ApiDescription | null {
  const api = apis[id];
  return api ? describedBy(api.document) : null;
}
