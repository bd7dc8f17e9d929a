import type { Schema as YupSchema } from 'yup';
import { changeSchema } from '../change/change.ts';
import { jsonSchemaOf, type JsonSchema } from '../schema/json_schema.ts';
import { errors, type ErrorCode } from './errors.ts';
import { type Operation, operations } from './operations.ts';
import { apiError, conflict, eventKinds, namedDocuments } from './schemas.ts';

/** What Yup says of a schema, as far as it is used here. */
interface Described {
  readonly type: string;
  readonly meta?: { readonly ref?: string; readonly format?: string };
  readonly nullable?: boolean;
  readonly optional?: boolean;
  readonly oneOf?: readonly unknown[];
  readonly tests?: readonly { readonly name?: string; readonly params?: Record<string, unknown> }[];
  readonly fields?: Readonly<Record<string, Described>>;
  readonly innerType?: Described;
}

/** A Yup schema as JSON Schema. */
export function yupToJson(schema: YupSchema): JsonSchema {
  return convert(schema.describe() as unknown as Described);
}

function convert(of: Described): JsonSchema {
  if (of.meta?.ref) return { $ref: `#/components/schemas/${of.meta.ref}` };
  const limit = (name: string): unknown => of.tests?.find((test) => test.name === name)?.params?.[name];
  const pattern = of.tests?.find((test) => test.name === 'matches')?.params?.regex;
  const choices = (of.oneOf ?? []).filter((one) => one !== null && one !== undefined);
  const made = ((): JsonSchema => {
    switch (of.type) {
      case 'object': {
        const fields = Object.entries(of.fields ?? {});
        const required = fields.filter(([, field]) => !field.optional).map(([name]) => name);
        return {
          type: 'object',
          properties: Object.fromEntries(fields.map(([name, field]) => [name, convert(field)])),
          ...(required.length ? { required } : {}),
          additionalProperties: false,
        };
      }
      case 'array':
        return {
          type: 'array',
          ...(of.innerType ? { items: convert(of.innerType) } : {}),
          ...(limit('max') === undefined ? {} : { maxItems: limit('max') }),
        };
      case 'string':
        return {
          type: 'string',
          ...(choices.length ? { enum: choices } : {}),
          ...(limit('min') === undefined ? {} : { minLength: limit('min') }),
          ...(limit('max') === undefined ? {} : { maxLength: limit('max') }),
          ...(pattern instanceof RegExp ? { pattern: pattern.source } : {}),
          ...(of.meta?.format ? { format: of.meta.format } : {}),
        };
      case 'number':
        return {
          type: of.tests?.some((test) => test.name === 'integer') ? 'integer' : 'number',
          ...(limit('min') === undefined ? {} : { minimum: limit('min') }),
          ...(limit('max') === undefined ? {} : { maximum: limit('max') }),
        };
      case 'boolean':
        return { type: 'boolean' };
      default:
        return {};
    }
  })();
  return of.nullable && 'type' in made ? { ...made, type: [made.type, 'null'] } : made;
}

const inJson = (schema: JsonSchema): JsonSchema => ({ 'application/json': { schema } });

function operationJson(name: string, operation: Operation): JsonSchema {
  const { summary, params = {}, query = {}, body, answer, status } = operation;
  const parameter =
    (place: string) =>
    ([key, schema]: [string, YupSchema]) => ({
      name: key,
      in: place,
      required: place === 'path' || !(schema.describe() as unknown as Described).optional,
      schema: yupToJson(schema),
    });
  const codes: readonly ErrorCode[] = [
    ...new Set<ErrorCode>([
      ...operation.errors,
      ...(operation.method === 'GET' ? [] : (['origin-refused'] as const)),
      'host-refused',
      'busy',
      'failed',
      'unavailable',
    ]),
  ];
  const byStatus = new Map<number, ErrorCode[]>();
  for (const code of codes) {
    const own = errors[code].status;
    byStatus.set(own, [...(byStatus.get(own) ?? []), code]);
  }
  const content =
    answer === null
      ? {}
      : 'type' in answer && !('describe' in answer)
        ? {
            content: {
              [answer.type]:
                answer.type === 'text/event-stream'
                  ? { schema: { $ref: '#/components/schemas/ProjectEvent' } }
                  : {},
            },
          }
        : { content: inJson(yupToJson(answer as YupSchema)) };
  return {
    operationId: name,
    summary,
    ...(Object.keys(params).length || Object.keys(query).length
      ? {
          parameters: [
            ...Object.entries(params).map(parameter('path')),
            ...Object.entries(query).map(parameter('query')),
          ],
        }
      : {}),
    ...(body
      ? {
          requestBody: {
            required: true,
            content: body === 'bytes' ? { 'application/octet-stream': {} } : inJson(yupToJson(body)),
          },
        }
      : {}),
    responses: {
      [status]: { description: summary, ...content },
      ...Object.fromEntries(
        [...byStatus].map(([own, list]) => [
          own,
          {
            description: list.map((code) => `\`${code}\`: ${errors[code].todo}`).join('\n'),
            content: inJson({
              $ref: `#/components/schemas/${list.includes('behind') ? 'Conflict' : 'Error'}`,
            }),
          },
        ]),
      ),
    },
  };
}

/** The description of the server as an OpenAPI 3.1 document. */
export function openApi(): JsonSchema {
  const root = '#/components/schemas';
  const definitions: Record<string, JsonSchema> = {};
  const paths: Record<string, Record<string, JsonSchema>> = {};
  for (const [name, operation] of Object.entries(operations) as [string, Operation][])
    (paths[operation.path] ??= {})[operation.method.toLowerCase()] = operationJson(name, operation);
  const documents = Object.fromEntries(
    Object.entries(namedDocuments).map(([name, schema]) => [name, jsonSchemaOf(schema, definitions, root)]),
  );
  return {
    openapi: '3.1.0',
    info: {
      title: 'Tovel',
      version: '1',
      description: 'Projects, their history, what comes in and what is delivered. JSON over HTTP.',
    },
    paths,
    components: {
      schemas: {
        ...documents,
        Change: jsonSchemaOf(changeSchema, definitions, root),
        ProjectEvent: {
          oneOf: Object.values(eventKinds).map((kind) => yupToJson(kind as unknown as YupSchema)),
        },
        Error: yupToJson(apiError as unknown as YupSchema),
        Conflict: yupToJson(conflict as unknown as YupSchema),
        ...definitions,
      },
    },
  };
}
