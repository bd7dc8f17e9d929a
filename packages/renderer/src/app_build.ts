import path from 'node:path';
import { type BuildContext, context, type Plugin } from 'esbuild';
import { asInCode, type EmittedProject } from '@tovel/core';
import { VENDOR } from './vendor.ts';
import { vueModule } from './vue_modules.ts';

/** The files of a built app by name (`app.js`, `app.css`), or why it could not be built. */
export interface Built {
  readonly files: ReadonlyMap<string, Uint8Array>;
  readonly error: string | null;
}

/** Where apps begin, whatever they are written with. */
const MAINS = ['/src/main.tsx', '/src/main.ts'];

/** What an import may leave out of a file's name. */
const ENDINGS = ['', '.tsx', '.ts', '/index.ts'];

/** The file that another asks for, of whose name the end may be left out; null where it is not there. */
export function fileAskedFor(from: string, asked: string, isThere: (path: string) => boolean): string | null {
  const full = path.posix.resolve(path.posix.dirname(from), asked);
  return ENDINGS.map((ending) => full + ending).find(isThere) ?? null;
}

/** The address of a picture in an app that is served under a path. */
export const assetAddress = (base: string, file: string): string =>
  `${base}_assets/${path.posix.basename(file)}`;

/** What stands for the environment in an app that is served under a path. */
export const environmentAt = (base: string): Record<string, string> => ({
  'process.env.NODE_ENV': '"production"',
  // Nothing of an environment is known here: stand-ins answer for described APIs.
  'import.meta.env': JSON.stringify({ BASE_URL: base }),
  'import.meta.env.BASE_URL': JSON.stringify(base),
});

/**
 * The page of an emitted project with what its bundle is called, in the place of its module.
 * @param base path under which the app is served, with slashes at both ends
 * @param before markup of what runs before it
 */
export const bundledPage = (page: string, base: string, before = ''): string =>
  page.replace(
    /<script type="module"[^>]*><\/script>/,
    `${before}<link rel="stylesheet" href="${base}_app/app.css" /><script type="module" src="${base}_app/app.js"></script>`,
  );

/** Bundles an emitted project from memory, and again, incrementally, when it has changed. */
export class AppBuild {
  #files: ReadonlyMap<string, string | null> = new Map();
  #context: Promise<BuildContext> | null = null;
  readonly #base: string;

  /** @param base path under which the app is served, with slashes at both ends. */
  constructor(base: string) {
    this.#base = base;
  }

  async build(project: EmittedProject): Promise<Built> {
    this.#files = new Map(project.files.map((file) => [`/${file.path}`, 'text' in file ? file.text : null]));
    this.#context ??= this.#start();
    try {
      const result = await (await this.#context).rebuild();
      const files = new Map(
        result.outputFiles!.map((file) => [path.posix.basename(file.path), file.contents]),
      );
      return { files, error: null };
    } catch (error) {
      return { files: new Map(), error: (error as Error).message };
    }
  }

  async dispose(): Promise<void> {
    await (await this.#context)?.dispose();
  }

  #start(): Promise<BuildContext> {
    return context({
      entryPoints: { app: MAINS.find((file) => this.#files.has(file)) ?? MAINS[0] },
      bundle: true,
      write: false,
      format: 'esm',
      jsx: 'automatic',
      target: 'es2022',
      outdir: '/out',
      loader: { '.module.css': 'local-css' },
      define: environmentAt(this.#base),
      logLevel: 'silent',
      plugins: [this.#fromMemory()],
    });
  }

  #fromMemory(): Plugin {
    return {
      name: 'emitted',
      setup: (build) => {
        build.onResolve({ filter: /.*/ }, ({ path: wanted, importer, kind }) => {
          if (kind === 'entry-point') return { path: wanted, namespace: 'emitted' };
          const vendor = VENDOR[wanted];
          if (vendor) return { path: `/_vendor/${vendor}.js`, external: true };
          const file = fileAskedFor(importer, wanted, (one) => this.#files.has(one));
          if (file !== null && this.#files.get(file) === null)
            return {
              path: assetAddress(this.#base, file),
              ...(kind === 'url-token' ? { external: true } : { namespace: 'asset' }),
            };
          if (file !== null) return { path: file, namespace: 'emitted' };
          return { errors: [{ text: `${importer} imports ${wanted}, which is not there` }] };
        });
        build.onLoad({ filter: /.*/, namespace: 'asset' }, ({ path: address }) => ({
          contents: `export default ${JSON.stringify(address)}`,
          loader: 'js',
        }));
        build.onLoad({ filter: /\.vue$/, namespace: 'emitted' }, async ({ path: file }) => ({
          contents: await vueModule(file.slice(1), this.#files.get(file) ?? ''),
          loader: 'ts',
        }));
        build.onLoad({ filter: /.*/, namespace: 'emitted' }, ({ path: file }) => ({
          contents: file.endsWith('.module.css')
            ? asInCode(this.#files.get(file) ?? '')
            : (this.#files.get(file) ?? ''),
          loader: file.endsWith('.module.css')
            ? 'local-css'
            : file.endsWith('.css')
              ? 'css'
              : file.endsWith('.json')
                ? 'json'
                : file.endsWith('.tsx')
                  ? 'tsx'
                  : 'ts',
        }));
      },
    };
  }
}
