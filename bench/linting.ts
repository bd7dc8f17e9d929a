import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { EmittedProject } from '@tovel/core';

/** What a strict reviewer's tools are, with the rules that each recommends. */
export const LINTERS = [
  'eslint@9',
  '@eslint/js@9',
  'typescript@5',
  'typescript-eslint@8',
  'eslint-plugin-react@7',
  'eslint-plugin-react-hooks@7',
  'eslint-plugin-jsx-a11y@6',
  'stylelint@17',
  'stylelint-config-standard@40',
] as const;

const ESLINT = `import js from '@eslint/js';
import ts from 'typescript-eslint';
import react from 'eslint-plugin-react';
import hooks from 'eslint-plugin-react-hooks';
import a11y from 'eslint-plugin-jsx-a11y';
export default [
  js.configs.recommended,
  ...ts.configs.recommended,
  react.configs.flat.recommended,
  react.configs.flat['jsx-runtime'],
  hooks.configs.flat.recommended,
  a11y.flatConfigs.recommended,
  { settings: { react: { version: '19' } }, rules: { 'no-undef': 'off' } },
];
`;

/**
 * What ESLint and Stylelint say of a code base, by rule, the most frequent first.
 * @param tools folder in which `LINTERS` are installed
 */
export function linted(tools: string, { files }: EmittedProject): Map<string, number> {
  const folder = path.join(tools, 'linted');
  rmSync(folder, { recursive: true, force: true });
  for (const file of files) {
    if (!('text' in file) || !/^src\/.*\.(tsx?|css)$/.test(file.path)) continue;
    mkdirSync(path.dirname(path.join(folder, file.path)), { recursive: true });
    writeFileSync(path.join(folder, file.path), file.text);
  }
  writeFileSync(path.join(tools, 'eslint.config.js'), ESLINT);
  writeFileSync(path.join(tools, '.stylelintrc.json'), '{"extends":["stylelint-config-standard"]}');
  const run = (tool: string, ...args: string[]): void =>
    void spawnSync(process.execPath, [path.join(tools, 'node_modules', tool), ...args], { cwd: tools });
  run('eslint/bin/eslint.js', '--no-ignore', '-f', 'json', '-o', 'eslint.json', 'linted/src/**/*.{ts,tsx}');
  run('stylelint/bin/stylelint.mjs', '-f', 'json', '-o', 'stylelint.json', 'linted/src/**/*.css');
  const read = <T>(name: string): T[] => JSON.parse(readFileSync(path.join(tools, name), 'utf8')) as T[];
  const rules = [
    ...read<{ messages: { ruleId: string }[] }>('eslint.json').flatMap(({ messages }) =>
      messages.map(({ ruleId }) => ruleId),
    ),
    ...read<{ warnings: { rule: string }[] }>('stylelint.json').flatMap(({ warnings }) =>
      warnings.map(({ rule }) => rule),
    ),
  ];
  const counts = new Map<string, number>();
  for (const rule of rules) counts.set(rule, (counts.get(rule) ?? 0) + 1);
  return new Map([...counts].sort(([, a], [, b]) => b - a));
}
