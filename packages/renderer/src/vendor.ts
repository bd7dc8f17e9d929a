import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

type Packages = Readonly<Record<string, string>>;

const USUAL: Packages = {
  react: 'react',
  'react/jsx-runtime': 'react-jsx-runtime',
  'react-dom': 'react-dom',
  'react-dom/client': 'react-dom-client',
  'react-router': 'react-router',
  'react-router/dom': 'react-router-dom',
  '@tanstack/react-query': 'react-query',
  'chart.js/auto': 'chart',
};
const OF_VUE: Packages = { vue: 'vue', 'vue-router': 'vue-router', '@tanstack/vue-query': 'vue-query' };

/** The packages that generated apps import; bundled once, shared by all of them. */
export const VENDOR: Packages = { ...USUAL, ...OF_VUE };

/** Those that are CommonJS have no names to hand on, so they are asked for them. */
const COMMON_JS = /^react(?:\/|-dom|$)/;

type Files = ReadonlyMap<string, Uint8Array>;
let usual: Promise<Files> | null = null;
let ofVue: Promise<Files> | null = null;

/** The vendor files of apps that run, by name. One React for all of them, since they are split where they share. */
export const buildVendor = (): Promise<Files> => (usual ??= bundled(USUAL));

/** A vendor file by its name; those of Vue are bundled when one is first asked for, which few do. */
export const vendorFile = async (name: string): Promise<Uint8Array | undefined> =>
  (await buildVendor()).get(name) ?? (await (ofVue ??= bundled(OF_VUE))).get(name);

async function bundled(packages: Packages): Promise<Files> {
  const require = createRequire(import.meta.url);
  const sources = new Map<string, string>();
  for (const [specifier, name] of Object.entries(packages)) {
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
