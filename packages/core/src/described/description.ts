import { isRecord } from '../json/json.ts';
import type { FieldType } from '../model/app.ts';
import { type ApiCredential, credentialsOf } from './credentials.ts';
import { deedOf, fieldTypeOf, type OperationDoes, type ParameterFor, purposeOf, typeOf } from './deeds.ts';
import { escaped, unescaped } from './pointer.ts';
import { examplesOf, samplesIn, samplesOf } from './samples.ts';
import { uncapital } from '../model/names.ts';

export interface ApiParameter {
  readonly name: string;
  readonly in: 'path' | 'query' | 'header' | 'cookie';
  readonly required: boolean;
  readonly for: ParameterFor;
  /** What it can be, where it is one of few. */
  readonly choices?: readonly string[];
}

export interface ApiField {
  readonly name: string;
  readonly type: FieldType | 'record' | 'list';
  readonly required: boolean;
  readonly choices?: readonly string[];
  /** Its type as JSON Schema names it; none where anything fits. */
  readonly json?: string;
  readonly format?: string;
  /** Fewest and most letters, smallest and largest number. */
  readonly least?: number;
  readonly most?: number;
  readonly pattern?: string;
  /** What it says in the examples of the document. */
  readonly samples?: readonly string[];
  /** Of a record within it: its own fields. */
  readonly parts?: readonly ApiField[];
}

export interface ApiOperation {
  readonly id: string;
  readonly method: string;
  readonly path: string;
  readonly does: OperationDoes;
  /** Why it is taken for that, in words. */
  readonly reason: string;
  readonly parameters: readonly ApiParameter[];
  /** What the records are called that it gives or takes; null where there are none. */
  readonly record: string | null;
  readonly fields: readonly ApiField[];
  /**
   * Names of the fields that lead to the list, or to the one record, within the answer; none where the answer is that.
   */
  readonly envelope: readonly string[];
  /** Of a list that is given in pages: names of the fields that lead to how many records there are in all. */
  readonly total?: readonly string[];
  /** Of an answer that says who has signed in: names of the fields that lead to that. */
  readonly token?: readonly string[];
  /** What is sent has these fields. */
  readonly sends: readonly ApiField[];
  /** Status of the answer that is given when all is well. */
  readonly status: number;
  /** Whether only those who have signed in are answered. */
  readonly isGuarded: boolean;
  /** Names of the credentials that it asks for. */
  readonly credentials: readonly string[];
}

/** Something in a document that could not be read, and where. */
export interface ApiProblem {
  /** A JSON Pointer (RFC 6901) into the document. */
  readonly at: string;
  readonly message: string;
}

export interface ApiDescription {
  readonly title: string;
  /** Base addresses, as they are written. */
  readonly servers: readonly string[];
  readonly operations: readonly ApiOperation[];
  /** What can have to be sent along. */
  readonly credentials: readonly ApiCredential[];
  readonly problems: readonly ApiProblem[];
}

export const LIMITS = {
  characters: 20_000_000,
  operations: 2000,
  fields: 400,
  depth: 40,
  problems: 50,
} as const;
const METHODS = ['get', 'put', 'post', 'delete', 'patch', 'head', 'options', 'trace'] as const;

/**
 * What an OpenAPI document (3.0 or 3.1) says. What is broken in it is told with its place, and the rest is read; references may
 * go in circles. Nothing outside the document is asked for.
 */
export function descriptionOf(document: unknown): ApiDescription {
  if (!isRecord(document)) return nothingRead('expected a document with “openapi”, “info” and “paths”');
  const version = document.openapi;
  if (typeof version !== 'string' || !/^3\.[01](\.|$)/.test(version))
    return nothingRead(
      document.swagger === undefined
        ? 'it says no version: expected “openapi: 3.0.…” or “3.1.…”'
        : `it is of version ${typeof document.swagger === 'string' ? document.swagger : '2'}: expected 3.0 or 3.1`,
    );
  return new Reader(document).read();
}

/** The description of what cannot be read, with the reason. */
export const nothingRead = (message: string): ApiDescription => ({
  title: '',
  servers: [],
  operations: [],
  credentials: [],
  problems: [{ at: '', message }],
});

class Reader {
  readonly #document: Readonly<Record<string, unknown>>;
  readonly #problems: ApiProblem[] = [];

  constructor(document: Readonly<Record<string, unknown>>) {
    this.#document = document;
  }

  read(): ApiDescription {
    const { info, servers, paths } = this.#document;
    const operations: ApiOperation[] = [];
    if (!isRecord(paths)) this.#tell('/paths', 'there are no paths');
    else
      for (const [path, item] of Object.entries(paths)) {
        const at = `/paths/${escaped(path)}`;
        const read = this.#resolved(item, at);
        if (!isRecord(read)) {
          this.#tell(at, 'expected the operations of a path');
          continue;
        }
        if (!path.startsWith('/')) this.#tell(at, 'a path begins with a slash');
        for (const method of METHODS)
          if (read[method] !== undefined && operations.length < LIMITS.operations) {
            const operation = this.#operation(path, method, read, `${at}/${method}`);
            if (operation) operations.push(operation);
          }
      }
    return {
      title: isRecord(info) && typeof info.title === 'string' ? info.title : '',
      servers: Array.isArray(servers)
        ? servers.flatMap((one) => (isRecord(one) && typeof one.url === 'string' ? [one.url] : []))
        : [],
      operations,
      credentials: credentialsOf(
        this.#document,
        (value, at) => this.#resolved(value, at),
        (at, message) => this.#tell(at, message),
      ),
      problems: this.#problems,
    };
  }

  #tell(at: string, message: string): void {
    if (this.#problems.length < LIMITS.problems) this.#problems.push({ at, message });
  }

  /** What a reference stands for, followed to its end; null for one that leads nowhere or in a circle. */
  #resolved(value: unknown, at: string): unknown {
    const seen = new Set<string>();
    let here = value;
    while (isRecord(here) && typeof here.$ref === 'string') {
      const ref = here.$ref;
      if (seen.has(ref)) {
        this.#tell(at, `the reference “${ref}” leads back to itself`);
        return null;
      }
      seen.add(ref);
      if (!ref.startsWith('#/')) {
        this.#tell(at, `the reference “${ref.slice(0, 80)}” leads out of the document, and is not followed`);
        return null;
      }
      here = ref
        .slice(2)
        .split('/')
        .map((part) => unescaped(part))
        .reduce<unknown>(
          (inner, part) =>
            (isRecord(inner) || Array.isArray(inner)) && Object.hasOwn(inner, part)
              ? (inner as Record<string, unknown>)[part]
              : undefined,
          this.#document,
        );
      if (here === undefined) {
        this.#tell(at, `there is nothing at “${ref.slice(0, 80)}”`);
        return null;
      }
    }
    return here;
  }

  /** A schema, followed through references and through what it only says more about. */
  #schema(value: unknown, depth = 0): Readonly<Record<string, unknown>> | null {
    const schema = this.#resolved(value, '/components');
    if (!isRecord(schema) || depth > LIMITS.depth) return null;
    if (typeOf(schema) !== null || !Array.isArray(schema.allOf)) return schema;
    const parts = schema.allOf.map((part) => this.#schema(part, depth + 1));
    return parts.find((part) => part !== null && typeOf(part) === 'array') ?? schema;
  }

  #operation(
    path: string,
    method: string,
    item: Readonly<Record<string, unknown>>,
    at: string,
  ): ApiOperation | null {
    const operation = item[method];
    if (!isRecord(operation)) {
      this.#tell(at, 'expected an operation');
      return null;
    }
    const parameters = this.#parameters([item.parameters, operation.parameters], path, at);
    const answer = this.#answer(operation.responses, `${at}/responses`);
    const sent = this.#content(operation.requestBody, `${at}/requestBody`);
    const list = isRecord(answer) ? this.#listIn(answer, [], 0) : null;
    const id = typeof operation.operationId === 'string' ? operation.operationId : '';
    const summary = typeof operation.summary === 'string' ? operation.summary : '';
    const [does, reason] = deedOf({ id, method, path, summary, givesList: list !== null });
    // What an operation says of who may call it goes before what the document says: alternatives, each with its schemes.
    const said = Array.isArray(operation.security) ? operation.security : this.#document.security;
    const security: readonly unknown[] = Array.isArray(said) ? said : [];
    const schema = list?.of ?? (method === 'get' ? answer : (sent ?? answer));
    const envelope = list?.envelope ?? (isRecord(answer) ? this.#recordIn(answer) : []);
    const samples = samplesIn(this.#examples(operation.responses, `${at}/responses`), envelope);
    return {
      id: id || `${method} ${path}`,
      method,
      path,
      does,
      reason,
      parameters,
      record: nameOfReference(schema) ?? recordInPath(path),
      fields: schema ? withSamples(this.#fields(schema, at, 0), samples) : [],
      envelope,
      ...(list && isRecord(answer) ? this.#saidIn(answer, 'total', TOTALS, /^(integer|number)$/) : {}),
      ...(does === 'sign-in' && isRecord(answer) ? this.#saidIn(answer, 'token', TOKENS, /^string$/) : {}),
      sends: isRecord(sent) ? this.#fields(sent, `${at}/requestBody`, 0) : [],
      status: statusOf(operation.responses, method),
      isGuarded: security.length > 0 && !security.some((one) => isRecord(one) && !Object.keys(one).length),
      credentials: [...new Set(security.flatMap((one) => (isRecord(one) ? Object.keys(one) : [])))],
    };
  }

  /** The one record in an answer, where that holds it under a name for such. */
  #recordIn(answer: unknown): readonly string[] {
    const properties = this.#properties(answer, 0);
    const name = Object.keys(properties).find((one) => HOLDS_RECORD.test(one));
    if (name === undefined || Object.keys(properties).some((one) => /^(id|name|title)$/i.test(one)))
      return [];
    return Object.keys(this.#properties(properties[name], 0)).length ? [name] : [];
  }

  /** Where an answer says something, by the name and the type of it: in itself or one level below. */
  #saidIn<N extends string>(
    answer: unknown,
    as: N,
    called: RegExp,
    type: RegExp,
  ): { readonly [K in N]?: readonly string[] } {
    const properties = Object.entries(this.#properties(answer, 0));
    const isIt = ([name, value]: readonly [string, unknown]): boolean => {
      const schema = this.#schema(value);
      return called.test(name) && schema !== null && type.test(typeOf(schema) ?? '');
    };
    const found = (path: readonly string[]) => ({ [as]: path }) as { readonly [K in N]?: readonly string[] };
    const own = properties.find(isIt);
    if (own) return found([own[0]]);
    for (const [name, value] of properties) {
      const inner = Object.entries(this.#properties(value, 0)).find(isIt);
      if (inner) return found([name, inner[0]]);
    }
    return {};
  }

  #parameters(lists: readonly unknown[], path: string, at: string): ApiParameter[] {
    const found = new Map<string, ApiParameter>();
    for (const [i, one] of lists.flatMap((list) => (Array.isArray(list) ? list : [])).entries()) {
      const parameter = this.#resolved(one, `${at}/parameters/${i}`);
      if (!isRecord(parameter) || typeof parameter.name !== 'string') {
        this.#tell(`${at}/parameters/${i}`, 'expected a parameter with a name');
        continue;
      }
      const { name } = parameter;
      // What a document holds may be anything, and much of that has no words.
      const place = typeof parameter.in === 'string' ? parameter.in : 'nothing';
      if (place !== 'path' && place !== 'query' && place !== 'header' && place !== 'cookie') {
        this.#tell(
          `${at}/parameters/${i}`,
          `a parameter is in path, query, header or cookie, not “${place.slice(0, 40)}”`,
        );
        continue;
      }
      found.set(`${place} ${name}`, {
        name,
        in: place,
        required: place === 'path' || parameter.required === true,
        for: purposeOf(name, place, typeof parameter.description === 'string' ? parameter.description : ''),
        ...this.#choices(parameter.schema),
      });
    }
    for (const [, name] of path.matchAll(/\{([^}]+)\}/g))
      if (!found.has(`path ${name}`)) {
        this.#tell(at, `“${name}” stands in the path, and is no parameter`);
        found.set(`path ${name}`, { name, in: 'path', required: true, for: 'key' });
      }
    return [...found.values()];
  }

  #choices(value: unknown): { readonly choices?: readonly string[] } {
    const said = this.#schema(value)?.enum;
    const choices = Array.isArray(said) ? said.filter((one) => typeof one === 'string') : [];
    return choices.length ? { choices } : {};
  }

  /** The schema of the answer that is given when all is well. */
  #answer(responses: unknown, at: string): unknown {
    const good = this.#good(responses, at);
    return good && this.#content(good.response, good.at);
  }

  /** The answers that are given as examples of that. */
  #examples(responses: unknown, at: string): readonly unknown[] {
    const good = this.#good(responses, at);
    const media = good && this.#media(good.response, good.at);
    return media ? examplesOf(media) : [];
  }

  #good(responses: unknown, at: string): { readonly response: unknown; readonly at: string } | null {
    if (!isRecord(responses)) return null;
    const code = ['200', '201', '2XX', 'default'].find((one) => responses[one] !== undefined);
    return code === undefined ? null : { response: responses[code], at: `${at}/${code}` };
  }

  #content(value: unknown, at: string): unknown {
    return this.#media(value, at)?.schema ?? null;
  }

  #media(value: unknown, at: string): Readonly<Record<string, unknown>> | null {
    const body = this.#resolved(value, at);
    if (!isRecord(body) || !isRecord(body.content)) return null;
    const type = Object.keys(body.content).find((one) => /json/.test(one)) ?? Object.keys(body.content)[0];
    const media = type === undefined ? null : body.content[type];
    return isRecord(media) ? media : null;
  }

  /** The list in an answer: the answer itself, or what one of its fields holds. */
  #listIn(
    value: unknown,
    envelope: readonly string[],
    depth: number,
  ): { readonly of: unknown; readonly envelope: readonly string[] } | null {
    const schema = this.#schema(value);
    if (!schema || depth > 3) return null;
    if (typeOf(schema) === 'array') return { of: schema.items ?? null, envelope };
    const properties = this.#properties(schema, 0);
    const lists = Object.entries(properties).flatMap(([name, one]) => {
      const inner = this.#schema(one);
      if (!inner || typeOf(inner) !== 'array') return [];
      const items = this.#schema(inner.items);
      return items && (typeOf(items) === 'string' || Object.keys(this.#properties(items, 0)).length)
        ? [name]
        : [];
    });
    const known = lists.find((name) => ENVELOPES.test(name));
    // What has a key or a name of its own is a record that holds a list.
    const isRecordOf = Object.keys(properties).some((name) => /^(id|key|uuid|name|title)$/i.test(name));
    const held =
      known ??
      (lists.length === 1 && !isRecordOf
        ? lists[0]
        : Object.keys(properties).find((name) => ENVELOPES.test(name)));
    return held === undefined ? null : this.#listIn(properties[held], [...envelope, held], depth + 1);
  }

  /** The properties of a schema with those of all that it is put together from. */
  #properties(value: unknown, depth: number): Record<string, unknown> {
    const schema = this.#resolved(value, '/components');
    if (!isRecord(schema) || depth > LIMITS.depth) return {};
    const parts = [schema.allOf, schema.oneOf, schema.anyOf].flatMap((list) =>
      Array.isArray(list) ? list : [],
    );
    return Object.assign(
      {},
      ...parts.map((part) => this.#properties(part, depth + 1)),
      isRecord(schema.properties) ? schema.properties : {},
    ) as Record<string, unknown>;
  }

  #fields(value: unknown, at: string, depth: number): ApiField[] {
    const schema = this.#resolved(value, at);
    if (!isRecord(schema)) return [];
    const required = new Set(this.#required(schema, depth));
    return Object.entries(this.#properties(schema, depth))
      .slice(0, LIMITS.fields)
      .flatMap(([name, one]): ApiField[] => {
        const property = this.#resolved(one, `${at}/properties/${escaped(name)}`);
        if (!isRecord(property)) return [];
        const choices = Array.isArray(property.enum)
          ? property.enum.filter((choice) => typeof choice === 'string')
          : undefined;
        const samples = samplesOf(property);
        return [
          {
            name,
            type: fieldTypeOf(property, name, choices !== undefined),
            required: required.has(name),
            ...(choices?.length ? { choices } : {}),
            ...(samples.length ? { samples } : {}),
            ...this.#more(property, at, depth),
          },
        ];
      });
  }

  /** What else a property has to be. */
  #more(property: Readonly<Record<string, unknown>>, at: string, depth: number): Partial<ApiField> {
    const { format, pattern } = property;
    const json = typeOf(property) ?? (property.properties === undefined ? null : 'object');
    const number = (...names: readonly string[]): number | undefined =>
      names.map((name) => property[name]).find((one) => typeof one === 'number');
    const least = number('minLength', 'minimum');
    const most = number('maxLength', 'maximum');
    const parts = depth === 0 && json !== 'array' ? this.#fields(property, at, 1) : [];
    return {
      ...(json === null ? {} : { json }),
      ...(typeof format === 'string' ? { format } : {}),
      ...(least === undefined ? {} : { least }),
      ...(most === undefined ? {} : { most }),
      ...(typeof pattern === 'string' && isPattern(pattern) ? { pattern } : {}),
      ...(parts.length ? { parts } : {}),
    };
  }

  #required(value: unknown, depth: number): string[] {
    const schema = this.#resolved(value, '/components');
    if (!isRecord(schema) || depth > LIMITS.depth) return [];
    const own = Array.isArray(schema.required)
      ? schema.required.filter((one) => typeof one === 'string')
      : [];
    const parts = Array.isArray(schema.allOf) ? schema.allOf : [];
    return [...own, ...parts.flatMap((part) => this.#required(part, depth + 1))];
  }
}

/** Fields with what they say in examples of a whole answer, where nothing nearer says it. */
const withSamples = (
  fields: readonly ApiField[],
  samples: ReadonlyMap<string, readonly string[]>,
): readonly ApiField[] =>
  fields.map((field) => {
    const said = samples.get(field.name) ?? [];
    return field.samples || !said.length ? field : { ...field, samples: said };
  });

const HOLDS_RECORD = /^(data|item|result|record|value)$/i;
const TOTALS = /^(total|count|total_?(count|items|results|records|elements|hits)|num_?(found|results))$/i;

const TOKENS = /^((access|auth|id|bearer|session)_?)?token$|^jwt$/i;

/** The status of the answer that is given when all is well. */
function statusOf(responses: unknown, method: string): number {
  const good = isRecord(responses) ? Object.keys(responses).filter((code) => /^2\d\d$/.test(code)) : [];
  return good.length ? Math.min(...good.map(Number)) : method === 'post' ? 201 : 200;
}

/** Whether a text is a regular expression that can be read. */
function isPattern(source: string): boolean {
  try {
    return new RegExp(source, 'u').source !== '';
  } catch {
    return false;
  }
}

const ENVELOPES = /^(data|items|results?|records|rows|content|entries|list|elements|values|hits)$/i;

function nameOfReference(value: unknown): string | null {
  if (!isRecord(value) || typeof value.$ref !== 'string') return null;
  const name = value.$ref.split('/').at(-1) ?? '';
  const plain = name.replace(
    /(Dto|DTO|Response|Request|Input|Output|Model|List|Page|Create|Update|New)$/,
    '',
  );
  return plain ? uncapital(plain) : null;
}

/** `/tools/{id}` → `tools`: the last part of a path that says something. */
const recordInPath = (path: string): string | null =>
  path
    .split('/')
    .filter((part) => part && !part.startsWith('{') && !/^(api|v\d+)$/i.test(part))
    .at(-1) ?? null;
