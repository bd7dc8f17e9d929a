// npm run runtime: takes the files that delivered apps can come with into the code of the core, as text.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import ts from 'typescript';

/** Each target's folder of such files, and those in it that stand for what is written for each app. */
const TARGETS = {
  bundled: [],
  html: ['variables.js'],
  react: ['overlays/overlays.ts', 'state/variables.ts', 'styles.d.ts'],
  vue: ['overlays/overlays.ts', 'routes.ts', 'styles.d.ts'],
};

for (const [target, standIns] of Object.entries(TARGETS)) {
  const folder = path.resolve('packages/core/src/emit', target, 'runtime');
  const made = path.resolve('packages/core/src/emit', target, 'runtime_texts.ts');
  const entries = readdirSync(folder, { recursive: true })
    .map((name) => name.replaceAll(path.sep, '/'))
    .filter((name) => /\.(js|tsx?|vue)$/.test(name) && !standIns.includes(name))
    .sort()
    .map((name) => `  '${name}': ${JSON.stringify(readFileSync(path.join(folder, name), 'utf8'))},`);
  if (target === 'bundled')
    entries.push(
      `  'records/functions.ts': ${JSON.stringify(readFileSync('packages/core/src/expression/functions.ts', 'utf8'))},`,
    );
  // Plain pages take the same functions, without their types.
  if (target === 'html')
    entries.push(
      `  'calc.js': ${JSON.stringify(
        ts.transpileModule(readFileSync('packages/core/src/expression/functions.ts', 'utf8'), {
          compilerOptions: { target: ts.ScriptTarget.ES2023, module: ts.ModuleKind.ESNext },
        }).outputText,
      )},`,
    );
  /** What answers for a described API, beside the source of an app. */
  const beside =
    target === 'bundled'
      ? [
          ['answer.ts', 'packages/core/src/standin/answer.ts'],
          ...['plugin.ts', 'vite.config.ts'].map((name) => [
            name,
            `packages/core/src/emit/bundled/stand_in/${name}`,
          ]),
        ].map(([name, file]) => `  '${name}': ${JSON.stringify(readFileSync(file, 'utf8'))},`)
      : [];
  const code = `/** The files in \`runtime\`, as text. Made by \`npm run runtime\`. */
export const runtime = {
${entries.join('\n')}
} as const;
${
  beside.length
    ? `
/** What answers for described APIs, as text. */
export const standIn = {
${beside.join('\n')}
} as const;
`
    : ''
}`;
  writeFileSync(made, await format(code, { ...(await resolveConfig(made)), parser: 'typescript' }));
}
