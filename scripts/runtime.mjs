// npm run runtime: takes the files that every plain page can come with into the code of the core, as text.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';

const folder = path.resolve('packages/core/src/emit/html/runtime');
const made = path.resolve('packages/core/src/emit/html/runtime_texts.ts');
const texts = Object.fromEntries(
  readdirSync(folder)
    .filter((name) => name.endsWith('.js') && name !== 'conditions.js')
    .sort()
    .map((name) => [name, readFileSync(path.join(folder, name), 'utf8')]),
);
const entries = Object.entries(texts).map(([name, text]) => `  '${name}': ${JSON.stringify(text)},`);
const code = `/** The files in \`runtime\`, as text. Made by \`npm run runtime\`. */
export const runtime = {
${entries.join('\n')}
} as const;
`;
writeFileSync(made, await format(code, { ...(await resolveConfig(made)), parser: 'typescript' }));
