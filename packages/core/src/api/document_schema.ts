import { appSchema } from '../model/app.ts';
import { designSchema } from '../model/design.ts';
import { jsonSchemaOf, type JsonSchema } from '../schema/json_schema.ts';

/** The documents whose schema is published, by the name of the file. */
const documents = { 'design.json': designSchema, 'app.json': appSchema };

export type DocumentName = keyof typeof documents;
export const documentSchemas = Object.keys(documents) as readonly DocumentName[];

/** The published JSON Schema (2020-12) of a document. */
export function documentSchema(name: DocumentName): JsonSchema {
  const $defs: Record<string, JsonSchema> = {};
  const schema = jsonSchemaOf(documents[name], $defs);
  return { $schema: 'https://json-schema.org/draft/2020-12/schema', ...schema, $defs };
}
