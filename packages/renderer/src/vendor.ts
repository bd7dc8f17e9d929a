import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

/** The packages that generated apps import; bundled once, shared by all of them. */
export const VENDOR: Readonly<Record<string, string>> = {
  react: 'react',
  'react/jsx-runtime': 'react-jsx-runtime',
  'react-dom': 'react-dom',
  'react-dom/client': 'react-dom-client',
  'react-router': 'react-router',
  'react-router/dom': 'react-router-dom',
  '@tanstack/react-query': 'react-query',
  'chart.js/auto': 'chart',
  vue: 'vue',
  'vue-router': 'vue-router',
  '@tanstack/vue-query': 'vue-query',
};

/** Those that are CommonJS have no names to hand on, so they are asked for them. */
const COMMON_JS = /^react(?:\/|-dom|$)/;

let vendor: Promise<ReadonlyMap<string, Uint8Array>> | null = null;

/** The vendor files by name, bundled once. One React for all of them, since they are split where they share. */
export const buildVendor = (): Promise<ReadonlyMap<string, Uint8Array>> => (vendor ??= bundled());

async function bundled(): Promise<Map<string, Uint8Array>> {
  const require = createRequire(import.meta.url);
  const sources = new Map<string, string>();
  for (const [specifier, name] of Object.entries(VENDOR)) {
    const names = COMMON_JS.test(specifier) ? namesOf(require(specifier) as object) : null;
    sources.set(
      name,
      names
        ? `import * as all from '${specifier}';\nexport const { ${names.join(', ')} } = all;\nexport default all.default ?? all;\n`
        : `import * as all from '${specifier}';\nexport * from '${specifier}';\nexport default all.default;\n`,
    );
  }
  const result = await build({
    entryPoints: [...sources.keys()].map((name) => `vendor:${name}`),
    bundle: true,
    write: false,
    splitting: true,
    format: 'esm',
    target: 'es2022',
    minify: true,
    outdir: '/vendor',
    entryNames: '[name]',
    define: {
      'process.env.NODE_ENV': '"production"',
      __VUE_OPTIONS_API__: 'false',
      __VUE_PROD_DEVTOOLS__: 'false',
      __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: 'false',
    },
    logLevel: 'silent',
    plugins: [
      {
        name: 'vendor',
        setup(context) {
          context.onResolve({ filter: /^vendor:/ }, ({ path: name }) => ({
            path: name.slice(7),
            namespace: 'vendor',
          }));
          context.onLoad({ filter: /.*/, namespace: 'vendor' }, ({ path: name }) => ({
            contents: sources.get(name)!,
            resolveDir: path.dirname(fileURLToPath(import.meta.url)),
          }));
        },
      },
    ],
  });
  return new Map(
    result.outputFiles.map((file) => [path.posix.basename(file.path).replace('vendor_', ''), file.contents]),
  );
}

const namesOf = (all: object): string[] =>
  Object.keys(all).filter((key) => key !== 'default' && /^[A-Za-z_$][\w$]*$/.test(key));
