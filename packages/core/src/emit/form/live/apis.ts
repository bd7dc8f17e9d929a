import { apiOf, outerKeysOf } from '../../../described/keep.ts';
import { fieldsAlike } from '../../../described/match.ts';
import type { ApiCredential } from '../../../described/credentials.ts';
import type { ApiDescription, ApiOperation } from '../../../described/description.ts';
import type { Wired } from '../../../links/wiring.ts';
import {
  camelCase,
  kebabCase,
  pascalCase,
  recordName,
  uniqueCodeName,
  uniqueName,
} from '../../../model/names.ts';
import type { Project } from '../../../model/project.ts';
import type { CallTarget } from '../emitted_wiring.ts';
import type { CallStep } from './controls.ts';
import type { LiveCollection } from './live.ts';

/** An API as the code speaks of it. */
export interface ApiCode {
  readonly id: string;
  /** Name of its file, in `src/api`, and of its folder under the address of the stand-in. */
  readonly file: string;
  /** The variable of the environment that says where it is. */
  readonly variable: string;
  /** What paths are asked under, such as a company, by the names of their parameters. */
  readonly outer: ReadonlyMap<string, OuterKey>;
  /** What is sent along with each request. */
  readonly sent: readonly SentAlong[];
  readonly description: ApiDescription;
  /** The function that makes each request, by the id of its operation. */
  readonly functions: ReadonlyMap<string, string>;
  /** The operation that lists the records which each operation is about, by the ids of both. */
  readonly lists: ReadonlyMap<string, string | null>;
  /** The type of the records that each of those lists gives. */
  readonly types: ReadonlyMap<string, string>;
}

/** What a path is asked under: the variable of the environment that says it, and its constant. */
export interface OuterKey {
  readonly variable: string;
  readonly constant: string;
}

/** Names that the file of an API has already. */
export const NAMES_IN_API: readonly string[] = [
  'query',
  'body',
  'signal',
  'request',
  'requestsTo',
  'signedIn',
  'answer',
];

/** A credential, with the variable of the environment that says it; none for cookies, which browsers send by themselves. */
export interface SentAlong {
  readonly credential: ApiCredential;
  readonly variable: string | null;
}

/** Whether an operation says who has signed in. */
const givesToken = ({ does, token }: ApiOperation): boolean => does === 'sign-in' && token !== undefined;

/** The same, or that nobody has any more. */
export const keepsToken = (operation: ApiOperation): boolean =>
  operation.does === 'sign-out' || givesToken(operation);

/** What the operations that are asked want to be sent along; who signs in within the app has the token from there. */
function sentAlong(
  { operations, credentials }: ApiDescription,
  isAsked: (operation: string) => boolean,
  prefix: string,
): SentAlong[] {
  const used = operations.filter(({ id }) => isAsked(id));
  const names = new Set(used.flatMap((operation) => operation.credentials));
  const signsIn = used.some(givesToken);
  const taken = new Set([`${prefix}_URL`]);
  return credentials.flatMap((credential): SentAlong[] => {
    const { name, kind, as = '' } = credential;
    if (!names.has(name) || (kind === 'bearer' && signsIn)) return [];
    if (credential.in === 'cookie') return [{ credential, variable: null }];
    const own = { bearer: 'token', basic: 'login', key: kebabCase(as.replace(/^x-/i, '')) || 'key' }[kind];
    const called = `${prefix}_${screaming(own)}`;
    const variable = kind === 'key' && taken.has(called) ? `${called}_KEY` : called;
    // Several schemes may end in the same token.
    if (taken.has(variable)) return [];
    taken.add(variable);
    return [{ credential, variable }];
  });
}

const screaming = (words: string): string => words.toUpperCase().replaceAll('-', '_');

/**
 * What the code calls an API and what is in it.
 * @param lists the operations that the app asks, each with the one that lists the same records, if one does
 * @param taken names of files that are there already
 */
export function apiCode(
  id: string,
  name: string,
  description: ApiDescription,
  lists: ReadonlyMap<string, string | null>,
  taken: ReadonlySet<string>,
): ApiCode {
  const file = uniqueCodeName(camelCase(name), 'api', (one) => taken.has(one) || RESERVED_FILES.has(one));
  const functions = new Map<string, string>();
  const types = new Map<string, string>();
  for (const operation of description.operations) {
    if (!lists.has(operation.id)) continue;
    const names = new Set(functions.values());
    functions.set(
      operation.id,
      uniqueCodeName(
        camelCase(operation.id.replace(/[{}]/g, ' ')),
        'ask',
        (one) => names.has(one) || one === 'request',
      ),
    );
    if (lists.get(operation.id) !== operation.id) continue;
    const known = new Set(types.values());
    types.set(
      operation.id,
      uniqueCodeName(
        pascalCase(recordName(operation.record ?? operation.id)),
        'Entry',
        (one) => known.has(one) || RESERVED_TYPES.has(one),
      ),
    );
  }
  const prefix = `VITE_${screaming(kebabCase(file))}`;
  const sent = sentAlong(description, (operation) => lists.has(operation), prefix);
  const variables = new Set([`${prefix}_URL`, ...sent.map(({ variable }) => variable)]);
  const constants = new Set([...NAMES_IN_API, ...functions.values()]);
  const outer = new Map<string, OuterKey>();
  for (const operation of description.operations)
    for (const name of lists.has(operation.id) ? outerKeysOf(operation) : []) {
      if (outer.has(name)) continue;
      const wanted = `${prefix}_${screaming(kebabCase(name)) || 'KEY'}`;
      const variable = uniqueName(wanted, (one) => variables.has(one), '_');
      const constant = uniqueCodeName(camelCase(name), 'key', (one) => constants.has(one));
      variables.add(variable);
      constants.add(constant);
      outer.set(name, { variable, constant });
    }
  return {
    id,
    file,
    variable: `${prefix}_URL`,
    outer,
    sent,
    description,
    functions,
    lists,
    types,
  };
}

const RESERVED_FILES: ReadonlySet<string> = new Set(['request', 'queryClient', 'notices']);
const RESERVED_TYPES: ReadonlySet<string> = new Set([
  'Record',
  'Partial',
  'Date',
  'Map',
  'Set',
  'AbortSignal',
]);

/** The type of the records that an operation is about; none where no list of the app gives them. */
export const typeOfRecords = ({ lists, types }: ApiCode, { id }: ApiOperation): string | undefined =>
  types.get(lists.get(id) ?? '');

/** Where a stand-in answers for an API, from the root of the app. */
export const standInAddress = ({ file }: Pick<ApiCode, 'file'>): string => `/api/${kebabCase(file)}`;

/** The described APIs that an app asks, in order of their ids. */
export function apisOf(
  { app }: Project,
  live: ReadonlyMap<string, LiveCollection>,
  wired: ReadonlyMap<string, readonly Wired[]>,
): ApiCode[] {
  if (!Object.keys(app.apis).length) return [];
  const used = new Map<string, Map<string, string | null>>();
  const of = (api: string): Map<string, string | null> => {
    const operations = used.get(api) ?? new Map<string, string | null>();
    used.set(api, operations);
    return operations;
  };
  for (const { collection, isRemote } of live.values()) {
    const { behind } = collection;
    if (!isRemote || !behind) continue;
    const { api, list, read, add, change, remove } = behind;
    const operations = of(api);
    operations.set(list, list);
    for (const id of [read, add, change, remove])
      if (id !== undefined && !operations.has(id)) operations.set(id, list);
  }
  for (const { interaction } of [...wired.values()].flat())
    for (const step of [...(interaction.before ?? []), interaction.target])
      if (step.kind === 'call' && app.apis[step.api] && !of(step.api).has(step.operation))
        of(step.api).set(step.operation, null);
  const files = new Set<string>();
  return [...used.keys()].sort().map((id) => {
    const code = apiCode(id, app.apis[id].name, apiOf(app, id)!, used.get(id)!, files);
    files.add(code.file);
    return code;
  });
}

/** Properties and the fields that say them, in the order in which the API has the properties. */
const inOrder = (
  { sends }: ApiOperation,
  alike: readonly { readonly field: string; readonly property: string }[],
): (readonly [property: string, field: string])[] =>
  sends.flatMap(({ name }) =>
    alike.flatMap(({ field, property }) => (property === name ? [[property, field] as const] : [])),
  );

/** What asks an operation, with what the fields of its form are in the words of the API; null where it is gone. */
export function callOf(
  { app }: Project,
  apis: readonly ApiCode[],
  { api, operation: id, form }: CallTarget,
): CallStep | null {
  const code = apis.find((one) => one.id === api);
  const name = code?.functions.get(id);
  const operation = code?.description.operations.find((one) => one.id === id);
  if (!code || name === undefined || !operation) return null;
  const fields = form === undefined ? undefined : app.forms[form]?.fields;
  const named = fields?.map(({ field }) => ({ name: field, type: 'text' as const }));
  const sends =
    named && operation.sends.length
      ? inOrder(operation, fieldsAlike({ name: '', fields: named }, operation.sends))
      : (named?.map(({ name: field }) => [field, field] as const) ?? null);
  return { kind: 'call', api: code.file, name, sends: sends?.length ? sends : null };
}
