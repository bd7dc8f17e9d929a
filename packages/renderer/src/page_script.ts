import { build } from 'esbuild';

/**
 * What runs in a page, as one script.
 * @param contents a module; what it imports is found from the folder
 */
export async function pageScript(contents: string, resolveDir: string): Promise<string> {
  const result = await build({
    stdin: { contents, resolveDir, loader: 'ts' },
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
  });
  return result.outputFiles[0].text;
}
