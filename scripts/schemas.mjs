// npm run schemas: writes the JSON Schemas of both documents into docs/schemas; a test holds them to the server's.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './lib/setup.mjs';

const { documentSchema, documentSchemas } = await import('../packages/core/src/index.ts');
const folder = path.join(root, 'docs/schemas');
mkdirSync(folder, { recursive: true });
for (const name of documentSchemas)
  writeFileSync(path.join(folder, name), `${JSON.stringify(documentSchema(name), null, 1)}\n`);
