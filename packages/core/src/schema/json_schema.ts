import type { Shape } from './schema.ts';

export type JsonSchema = { readonly [name: string]: unknown };

/**
 * A shape as JSON Schema (2020-12). Conditions that only a program can check are said in `description`.
 * @param definitions takes what is referred to, by name.
 * @param root where definitions are found from: `#/$defs` or, in an OpenAPI document, `#/components/schemas`.
 */
export function jsonSchemaOf(
  shape: Shape,
  definitions: Record<string, JsonSchema>,
  root = '#/$defs',
): JsonSchema {
  const of = (inner: Shape): JsonSchema => jsonSchemaOf(inner, definitions, root);
  switch (shape.shape) {
    case 'text':
      return {
        type: 'string',
        ...(shape.min || shape.isTitle ? { minLength: Math.max(shape.min, 1) } : {}),
        maxLength: shape.max,
        ...(shape.pattern ? { pattern: portable(shape.pattern) } : shape.isTitle ? { pattern: '\\S' } : {}),
        ...(shape.says ? { description: shape.says } : {}),
        ...(shape.examples ? { examples: shape.examples } : {}),
      };
    case 'key':
      return {
        type: 'string',
        minLength: 1,
        maxLength: 500,
        description:
          shape.of === 'own'
            ? 'A key of the project’s own.'
            : `Key of a${shape.of === 'element' ? 'n element' : ' screen'}${shape.suffix ? `, and ${shape.suffix.source} after it` : ''}.`,
      };
    case 'number':
      return { type: shape.isWhole ? 'integer' : 'number', minimum: shape.min, maximum: shape.max };
    case 'flag':
      return shape.only === undefined ? { type: 'boolean' } : { const: shape.only };
    case 'choice':
      return { enum: [...shape.values] };
    case 'list':
      return {
        type: 'array',
        items: of(shape.of),
        ...(shape.min ? { minItems: shape.min } : {}),
        maxItems: shape.max,
      };
    case 'table':
      return {
        type: 'object',
        propertyNames: of(shape.key),
        additionalProperties: of(shape.value),
        maxProperties: shape.max,
      };
    case 'fields':
      return fieldsSchema(shape.required, shape.optional, of);
    case 'kinds':
      return {
        oneOf: Object.entries(shape.kinds).map(([kind, own]) =>
          fieldsSchema({ kind: { shape: 'choice', values: [kind] }, ...own.required }, own.optional, of),
        ),
      };
    case 'either':
      return { anyOf: shape.of.map(of), description: shape.says };
    case 'nothing':
      return { type: 'null' };
    case 'lazy':
      if (!definitions[shape.name]) {
        // Set before it is filled, since it refers to itself.
        definitions[shape.name] = {};
        definitions[shape.name] = of(shape.of());
      }
      return { $ref: `${root}/${shape.name}` };
  }
}

function fieldsSchema(
  required: Readonly<Record<string, Shape>>,
  optional: Readonly<Record<string, Shape>>,
  of: (shape: Shape) => JsonSchema,
): JsonSchema {
  const properties = Object.entries({ ...required, ...optional }).map(([name, shape]) => [name, of(shape)]);
  return {
    type: 'object',
    properties: Object.fromEntries(properties),
    ...(Object.keys(required).length ? { required: Object.keys(required) } : {}),
    additionalProperties: false,
  };
}

/** JSON Schema has no flags; the patterns here that ignore case hold ASCII letters only. */
function portable({ source, flags }: RegExp): string {
  return flags.includes('i') ? source.replace(/a-z/g, 'A-Za-z') : source;
}
