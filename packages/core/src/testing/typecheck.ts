import { type EmittedProject } from '../emit/emitted.ts';
import ts from 'typescript';

const options: ts.CompilerOptions = {
  strict: true,
  noEmit: true,
  noUnusedLocals: true,
  noUnusedParameters: true,
  isolatedModules: true,
  resolveJsonModule: true,
  skipLibCheck: true,
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  lib: ['lib.es2023.d.ts', 'lib.dom.d.ts'],
  jsx: ts.JsxEmit.ReactJSX,
  types: ['vite/client'],
};

/** What runs the tests of an app is not installed here: what they take of it. */
const VITEST = `declare module 'vitest' {
  export const afterEach: any, beforeEach: any, expect: any, onTestFinished: any, vi: any;
  export const test: {
    (name: string, run: () => unknown): void;
    each<T>(rows: readonly T[]): (name: string, run: (row: T) => unknown) => void;
  };
}`;

const libraries = new Map<string, ts.SourceFile | undefined>();
let before: ts.Program | undefined;

/**
 * What the compiler says of emitted projects, with the settings that they are delivered with, a line each, beginning with
 * the place of the project in the list. All are compiled as one program, so that many cost little more than one.
 */
export function typeErrors(projects: readonly EmittedProject[]): string[] {
  const host = ts.createCompilerHost(options);
  const root = `${host.getCurrentDirectory()}/emitted`;
  const texts = new Map<string, string>(
    projects.flatMap(({ files }, i) =>
      files.flatMap((file) => ('text' in file ? [[`${root}/${i}/${file.path}`, file.text] as const] : [])),
    ),
  );
  const { fileExists, readFile, getSourceFile } = host;
  host.fileExists = (name) => texts.has(name) || fileExists(name);
  host.readFile = (name) => texts.get(name) ?? readFile(name);
  host.directoryExists = undefined;
  host.getSourceFile = (name, version, ...rest) => {
    const text = texts.get(name);
    if (text !== undefined) return ts.createSourceFile(name, text, version, true);
    if (!libraries.has(name)) libraries.set(name, getSourceFile(name, version, ...rest));
    return libraries.get(name);
  };
  texts.set(`${root}/vitest.d.ts`, VITEST);
  const names = [...texts.keys()].filter((name) => /\/src\/.*\.tsx?$|\/vitest\.d\.ts$/.test(name));
  const program = ts.createProgram(names, options, host, before);
  before = program;
  return ts.getPreEmitDiagnostics(program).map(({ file, start, messageText }) => {
    const line = file && start !== undefined ? file.getLineAndCharacterOfPosition(start).line : 0;
    const text = file?.text.split('\n')[line]?.trim() ?? '';
    return `${file?.fileName.slice(root.length + 1) ?? ''}:${line + 1}: ${ts.flattenDiagnosticMessageText(messageText, ' ')}: ${text.slice(0, 120)}`;
  });
}
