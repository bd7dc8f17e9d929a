import ts from 'typescript';
import { runtime } from '../emit/bundled/runtime_texts.ts';

/** A file of what apps run on, as it is delivered and as it runs; what it imports is not there. */
export function loadedRuntime<T>(path: keyof typeof runtime): T {
  const { outputText } = ts.transpileModule(runtime[path].replaceAll('import.meta.env.BASE_URL', "'/'"), {
    compilerOptions: { module: ts.ModuleKind.CommonJS, target: ts.ScriptTarget.ES2022 },
  });
  const made = {};
  // oxlint-disable-next-line no-implied-eval, no-new-func
  (new Function('exports', outputText) as (exports: object) => void)(made);
  return made as T;
}
