import { stringifySorted } from '../../json/json.ts';
import { kebabCase } from '../../model/names.ts';
import type { EmittedFile } from '../emitted.ts';
import { PRINT_WIDTH } from '../line_width.ts';
import { hypertext } from '../hypertext.ts';
import { named, script } from '../script.ts';
import type { WrittenApp } from './dialect.ts';

/** What apps of one framework need to be built and checked. */
export interface Packages {
  /** The command that checks types. */
  readonly check: string;
  readonly dependencies: Readonly<Record<string, string>>;
  readonly devDependencies: Readonly<Record<string, string>>;
  /** The bundler's plugin, by its name in code. */
  readonly plugin: { readonly name: string; readonly from: string };
  readonly jsx?: string;
}

/** The files around the source of an app: what it is built, checked and tested with. */
export function aroundFiles(
  app: Pick<WrittenApp, 'name' | 'hasTests' | 'hasJourneys'>,
  packages: Packages,
): EmittedFile[] {
  return [
    { path: 'package.json', text: packageJson(app, packages) },
    { path: 'tsconfig.json', text: tsconfigJson(app, packages) },
    { path: 'vite.config.ts', text: viteConfig(app, packages) },
  ];
}

type App = Parameters<typeof aroundFiles>[0];

function packageJson({ name, hasJourneys, hasTests }: App, packages: Packages): string {
  const devDependencies = {
    ...(hasJourneys ? { '@playwright/test': '^1.56.0' } : {}),
    ...packages.devDependencies,
    ...(hasTests ? { jsdom: '^26.1.0', vitest: '^4.0.0' } : {}),
    prettier: '^3.6.0',
    typescript: '~6.0.0',
    vite: '^8.0.0',
  };
  const content = {
    name: kebabCase(name) || 'app',
    private: true,
    version: '0.1.0',
    type: 'module',
    scripts: {
      dev: 'vite',
      build: `${packages.check} && vite build`,
      ...(hasTests ? { test: 'vitest run' } : {}),
      ...(hasJourneys ? { 'test:journeys': 'playwright test' } : {}),
      format: 'prettier --write .',
    },
    dependencies: packages.dependencies,
    devDependencies: Object.fromEntries(Object.entries(devDependencies).sort(([a], [b]) => (a < b ? -1 : 1))),
  };
  return `${JSON.stringify(content, null, 2)}\n`;
}

const tsconfigJson = ({ hasJourneys }: App, { jsx }: Packages): string =>
  `${stringifySorted(
    {
      compilerOptions: {
        target: 'ES2022',
        module: 'ESNext',
        moduleResolution: 'bundler',
        lib: ['ES2023', 'DOM', 'DOM.Iterable'],
        ...(jsx === undefined ? {} : { jsx }),
        strict: true,
        noEmit: true,
        noUnusedLocals: true,
        noUnusedParameters: true,
        isolatedModules: true,
        resolveJsonModule: true,
        skipLibCheck: true,
        types: ['vite/client'],
      },
      include: ['src', ...(hasJourneys ? ['e2e', 'playwright.config.ts'] : []), 'vite.config.ts'],
    },
    2,
  )}\n`;

const viteConfig = ({ hasTests }: App, { plugin }: Packages): string =>
  script`import ${named(plugin.name)} from ${plugin.from};
import { defineConfig } from ${hasTests ? 'vitest/config' : 'vite'};

export default defineConfig({
  plugins: [${named(plugin.name)}()],
  // Classes with dashes in sheets are called without them in code.
  css: { modules: { localsConvention: 'dashesOnly' } },
${hasTests ? script`  test: { environment: 'jsdom', include: ['src/**/*.test.{ts,tsx}'], testTimeout: 20_000 },\n` : script``}});
`.text;

/** Runs the journeys in a browser, against the app as it is developed. */
export const playwrightConfig = `import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  use: { baseURL: 'http://localhost:5173' },
  webServer: { command: 'npm run dev', url: 'http://localhost:5173', reuseExistingServer: true },
});
`;

export const prettierrc = `{ "singleQuote": true, "printWidth": ${PRINT_WIDTH} }\n`;
export const gitignore = 'node_modules/\ndist/\n';
export const prettierignore = 'dist/\npackage-lock.json\n';

/** @param root id of the element that the app is shown in */
export function indexHtml(title: string, root: string, main: string): string {
  return hypertext`<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>${title}</title>
  </head>
  <body>
    <div id="${root}"></div>
    <script type="module" src="${`/src/${main}`}"></script>
  </body>
</html>
`.text;
}

export function readme(
  title: string,
  rows: readonly { key: string; name: string; path: string; folder: string }[],
  layouts: readonly { readonly name: string; readonly screens: readonly string[] }[],
  {
    hasTests,
    inFiles,
    made,
    routes,
  }: {
    readonly hasTests: boolean;
    readonly inFiles: (path: string) => string;
    /** What it is written in, in words. */
    readonly made: string;
    /** Name of the file with the table of routes. */
    readonly routes: string;
  },
): string {
  const around = layouts
    .map(({ name, screens }) => {
      const inIt = rows.filter(({ key }) => screens.includes(key)).map((row) => row.name);
      return `- \`${inFiles(`src/layouts/${name}/`)}\`: around ${inIt.join(', ')}`;
    })
    .join('\n');
  const table = rows
    .map((row) => `- \`${row.path}\`: ${row.name}, in \`${inFiles(`src/screens/${row.folder}/`)}\``)
    .join('\n');
  return `# ${title}

Written by Tovel from its screens. Everything under \`src/\` is ${made}.

- \`npm install\`, then \`npm run dev\` to work on it
- \`npm run build\` checks the types and builds into \`dist/\`
${hasTests ? '- `npm test` presses every link and sees where it leads\n' : ''}
## Screens

${table}
${around ? `\n## Layouts\n\nWhat screens share around them is written once.\n\n${around}\n` : ''}
## Where things are

- \`src/${routes}\`: which screen lives at which path
- \`src/screens/\`: a folder a screen, with its component and its styles
- \`src/components/\`: what repeats, with typed props
- \`src/navigation/\`: links, going back, and how screens arrive
${hasTests ? '- `src/links.json`: every link of the app, for its test\n' : ''}`;
}
