import type { ApiField, ApiOperation } from '../../described/description.ts';
import { keysOf as pathKeysOf, outerKeysOf } from '../../described/keep.ts';
import { camelCase, uniqueCodeName } from '../../model/names.ts';
import {
  type ApiCode,
  keepsToken,
  NAMES_IN_API,
  type SentAlong,
  standInAddress,
  typeOfRecords,
} from '../form/live/apis.ts';
import {
  joined,
  named,
  onLines,
  propertyAt,
  propertyName,
  remark,
  script,
  type Script,
  template,
} from '../script.ts';

/** Writes the requests to an API that the app makes, with the types of what they give and take. */
export function apiFile(code: ApiCode): string {
  const { description, functions, lists, types, variable } = code;
  const used = description.operations.filter(({ id }) => functions.has(id));
  const interfaces = [...types].map(([list, type]) => {
    const fields = new Map<string, ApiField>();
    // What a list gives may lack what a single record says.
    for (const { id, does, fields: own } of used)
      if (lists.get(id) === list && (does === 'list' || does === 'read'))
        for (const field of own) if (!fields.has(field.name)) fields.set(field.name, field);
    return script`export interface ${named(type)} {
${onLines([...fields.values()].map((field) => script`  ${propertyLine(field)}`))}
}
`;
  });
  const at = script`import.meta.env.${named(variable)} || ${template([named('import.meta.env.BASE_URL'), standInAddress(code).slice(1)])}`;
  const sent = alongOf(code.sent);
  const body = onLines([
    script`import { requestsTo${used.some(keepsToken) ? script`, signedIn` : NOTHING} } from './request';
`,
    script`/** ${remark(description.title || 'The API')}: where it is says the environment; else a stand-in answers, beside the app. */`,
    sent.length
      ? script`const request = requestsTo(${at}, {
${onLines(sent.map((line) => script`  ${line},`))}
});
`
      : script`const request = requestsTo(${at});
`,
    ...[...code.outer].map(
      ([name, outer]) => script`/** ${remark(`“${name}” of paths, as the environment says it.`)} */
const ${named(outer.constant)} = import.meta.env.${named(outer.variable)} || ${FIRST_KEY};
`,
    ),
    ...interfaces,
    ...used.map((operation) => functionOf(operation, code)),
  ]);
  return body.text;
}

/** What is sent along with each request, as the environment says it. */
function alongOf(sent: readonly SentAlong[]): Script[] {
  const headers: Script[] = [];
  const query: Script[] = [];
  for (const { credential, variable } of sent) {
    if (variable === null) continue;
    const said = script`import.meta.env.${named(variable)}`;
    if (credential.kind === 'bearer')
      headers.push(script`authorization: ${said} && ${template(['Bearer ', said])}`);
    else if (credential.kind === 'basic')
      headers.push(script`authorization: ${said} && ${template(['Basic ', script`btoa(${said})`])}`);
    else (credential.in === 'query' ? query : headers).push(script`${propertyName(credential.as!)}: ${said}`);
  }
  return [
    ...(headers.length ? [script`headers: { ${headers} }`] : []),
    ...(query.length ? [script`query: { ${query} }`] : []),
    ...(sent.some(({ variable }) => variable === null) ? [script`credentials: ${'include'}`] : []),
  ];
}

const propertyLine = (field: ApiField): Script =>
  script`${propertyName(field.name)}${field.required ? NOTHING : script`?`}: ${typeOfField(field)};`;

const NOTHING = script``;

/** What a path is asked under where the environment does not say it: a stand-in takes anything. */
const FIRST_KEY = '1';

/** A type of several properties, on one line. */
const objectType = (properties: readonly Script[]): Script => script`{ ${joined(properties, ' ')} }`;

function typeOfField({ json, choices, parts = [] }: Pick<ApiField, 'json' | 'choices' | 'parts'>): Script {
  if (choices?.length && (json === undefined || json === 'string'))
    return joined(
      choices.map((one) => script`${one}`),
      ' | ',
    );
  switch (json) {
    case 'string':
    case 'number':
    case 'boolean':
      return named(json);
    case 'integer':
      return script`number`;
    case 'array':
      return script`unknown[]`;
    default:
      if (parts.length) return objectType(parts.map(propertyLine));
      return json === 'object' ? script`object` : script`unknown`;
  }
}

/** A type where names lead to it: `{ data: { items: Tool[] } }`. */
const within = (names: readonly string[], inner: Script): Script =>
  names.reduceRight((type, name) => script`{ ${propertyName(name)}: ${type} }`, inner);

/** What an operation gives, as a type. */
function givenBy({ does, envelope, total, fields, status }: ApiOperation, record: Script): Script {
  if (status === 204 || does === 'remove' || !fields.length) return script`unknown`;
  if (does !== 'list') return within(envelope, record);
  const rows = within(envelope, script`${record}[]`);
  return total ? script`${rows} & ${within(total, script`number`)}` : rows;
}

/** What is asked for its own sake, with texts that somebody filled in; who has signed in is kept. */
function callOf(operation: ApiOperation, code: ApiCode): Script {
  const { id, method, does, sends, token } = operation;
  const name = named(code.functions.get(id)!);
  const keys = givenKeys(operation, code);
  const body = sends.map((field) => script`${propertyName(field.name)}?: string;`);
  const isSent = method !== 'get' && method !== 'delete' && sends.length > 0;
  const takes = [...keys, ...(isSent ? [script`body: ${objectType(body)}`] : [])];
  const asked = [
    script`${method.toUpperCase()}`,
    pathOf(operation, code),
    ...(isSent ? [script`{ body }`] : []),
  ];
  if (does === 'sign-in' && token)
    return script`export const ${name} = async (${takes}) => {
  const answer = await request<${within(token, script`string`)}>(${asked});
  signedIn(${propertyAt(script`answer`, token)});
};
`;
  if (does === 'sign-out')
    return script`export const ${name} = async (${takes}) => {
  await request<unknown>(${asked});
  signedIn(null);
};
`;
  return script`export const ${name} = (${takes}) => request<unknown>(${asked});
`;
}

function functionOf(operation: ApiOperation, code: ApiCode): Script {
  const { id, method, does, parameters } = operation;
  const type = typeOfRecords(code, operation);
  if (type === undefined) return callOf(operation, code);
  const record = named(type);
  const asked = does === 'list' ? parameters.filter((one) => one.in === 'query') : [];
  const canEnd = does === 'list' || does === 'read';
  const isSent = does === 'add' || does === 'change';
  const query = asked.map(({ name }) => script`${propertyName(name)}?: string | number;`);
  const takes = [
    ...givenKeys(operation, code),
    ...(query.length ? [script`query: ${objectType(query)}`] : []),
    ...(isSent ? [script`body: Partial<${record}>`] : []),
    ...(canEnd ? [script`signal?: AbortSignal`] : []),
  ];
  const options = [
    ...(query.length ? [script`query`] : []),
    ...(isSent ? [script`body`] : []),
    ...(canEnd ? [script`signal`] : []),
  ];
  const rest = options.length ? script`, { ${options} }` : NOTHING;
  return script`export const ${named(code.functions.get(id)!)} = (${takes}) =>
  request<${givenBy(operation, record)}>(${method.toUpperCase()}, ${pathOf(operation, code)}${rest});
`;
}

/** What stands for the parameters of a path, in order: what the function is given, but for what the whole app is asked under. */
function keysOf(
  operation: ApiOperation,
  code: ApiCode,
): { readonly name: string; readonly isGiven: boolean }[] {
  const taken = new Set([...NAMES_IN_API, ...[...code.outer.values()].map(({ constant }) => constant)]);
  const outer = outerKeysOf(operation).length;
  return pathKeysOf(operation).map((name, i) => {
    const constant = i < outer ? code.outer.get(name)?.constant : undefined;
    if (constant !== undefined) return { name: constant, isGiven: false };
    const key = uniqueCodeName(camelCase(name), 'key', (one) => taken.has(one));
    taken.add(key);
    return { name: key, isGiven: true };
  });
}

/** The parameters of a function that are put into the path. */
const givenKeys = (operation: ApiOperation, code: ApiCode): Script[] =>
  keysOf(operation, code).flatMap(({ name, isGiven }) => (isGiven ? [script`${named(name)}: string`] : []));

/** A path with what is given put into it. */
function pathOf(operation: ApiOperation, code: ApiCode): Script {
  const keys = keysOf(operation, code);
  return template(
    operation.path
      .split(/\{[^}]+\}/)
      .flatMap((text, i) => (keys[i] ? [text, script`encodeURIComponent(${named(keys[i].name)})`] : [text])),
  );
}
