import { execFile } from 'node:child_process';
import { createRequire } from 'node:module';
import { promisify } from 'node:util';

const run = promisify(execFile);
/** Far more than any script of ours. */
const MOST_BYTES = 64 * 2 ** 20;

/**
 * What runs in a page, as one script. The bundler is a process that ends with it: one that stays holds some hundred MB.
 * @param contents a module; what it imports is found from the folder
 */
export async function pageScript(contents: string, resolveDir: string): Promise<string> {
  const bundler = createRequire(import.meta.url).resolve('esbuild/bin/esbuild');
  const bundling = run(
    bundler,
    ['--bundle', '--format=iife', '--target=es2022', '--loader=ts', '--log-level=error'],
    { cwd: resolveDir, maxBuffer: MOST_BYTES },
  );
  bundling.child.stdin!.end(contents);
  return (await bundling).stdout;
}
