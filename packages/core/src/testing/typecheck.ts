import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { COMPILER_OPTIONS } from '../emit/bundled/project_files.ts';
import type { EmittedProject } from '../emit/emitted.ts';

const CONFIG = {
  compilerOptions: { ...COMPILER_OPTIONS, jsx: 'react-jsx', types: ['vite/client'] },
  include: ['*/src/**/*.ts', '*/src/**/*.tsx', 'vitest.d.ts'],
};

/** What runs the tests of an app is not installed here: what they take of it. */
const VITEST = `declare module 'vitest' {
  export const afterEach: any, beforeEach: any, expect: any, onTestFinished: any, vi: any;
  export const test: {
    (name: string, run: () => unknown): void;
    each<T>(rows: readonly T[]): (name: string, run: (row: T) => unknown) => void;
  };
}`;

const MESSAGE = /^(?<file>\S.*?)\((?<line>\d+),\d+\): error TS\d+: (?<text>.*)$/;

/**
 * What the compiler says of emitted projects, with the settings that they are delivered with, a line each, beginning with
 * the place of the project in the list. All are compiled as one program, so that many cost little more than one. Throws
 * what the compiler wrote when that is of no file.
 */
export function typeErrors(projects: readonly EmittedProject[]): string[] {
  const modules = path.resolve('node_modules');
  const root = mkdtempSync(path.join(os.tmpdir(), 'tovel-types-'));
  try {
    const texts = new Map<string, string>([
      ['tsconfig.json', JSON.stringify(CONFIG)],
      ['vitest.d.ts', VITEST],
      ...projects.flatMap(({ files }, i) =>
        files.flatMap((file) => ('text' in file ? [[`${i}/${file.path}`, file.text] as const] : [])),
      ),
    ]);
    for (const [name, text] of texts) {
      const file = path.join(root, name);
      mkdirSync(path.dirname(file), { recursive: true });
      writeFileSync(file, text);
    }
    symlinkSync(modules, path.join(root, 'node_modules'));
    const compiler = path.join(modules, 'typescript-7/bin/tsc');
    const { status, stdout, stderr } = spawnSync(
      process.execPath,
      [compiler, '-p', '.', '--pretty', 'false'],
      {
        cwd: root,
        encoding: 'utf8',
        maxBuffer: 1 << 28,
      },
    );
    const errors = stdout.split('\n').flatMap((said) => {
      const { file, line, text } = MESSAGE.exec(said)?.groups ?? {};
      if (!file || !line || !text) return [];
      const source = texts.get(file)?.split('\n')[Number(line) - 1]?.trim() ?? '';
      return [`${file}:${line}: ${text}: ${source.slice(0, 120)}`];
    });
    if (status !== 0 && !errors.length) throw new Error(`The compiler did not run:\n${stdout}${stderr}`);
    return errors;
  } finally {
    rmSync(root, { recursive: true, force: true });
  }
}
