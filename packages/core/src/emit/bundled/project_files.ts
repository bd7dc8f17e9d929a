import { stringifySorted } from '../../json/json.ts';
import { kebabCase } from '../../model/names.ts';
import type { EmittedFile } from '../emitted.ts';
import { PRINT_WIDTH } from '../line_width.ts';
import { hypertext } from '../hypertext.ts';
import { named, script } from '../script.ts';
import { type ApiCode, type SentAlong, standInAddress } from '../form/live/apis.ts';
import type { WrittenApp } from './dialect.ts';

/** What apps of one framework need to be built and checked. */
export interface Packages {
  /** The command that checks types. */
  readonly check: string;
  readonly dependencies: Readonly<Record<string, string>>;
  /** What is needed for what comes over the network. */
  readonly network: Readonly<Record<string, string>>;
  readonly devDependencies: Readonly<Record<string, string>>;
  /** The bundler's plugin, by its name in code. */
  readonly plugin: { readonly name: string; readonly from: string };
  readonly jsx?: string;
}

/** The files around the source of an app: what it is built, checked and tested with. */
export function aroundFiles(
  app: Pick<WrittenApp, 'name' | 'hasTests' | 'hasJourneys' | 'hasCharts' | 'apis' | 'theirs'>,
  packages: Packages,
): EmittedFile[] {
  return [
    { path: 'package.json', text: packageJson(app, packages) },
    { path: 'tsconfig.json', text: tsconfigJson(app, packages) },
    { path: 'vite.config.ts', text: viteConfig(app, packages) },
  ];
}

type App = Parameters<typeof aroundFiles>[0];

function packageJson(
  { name, hasJourneys, hasTests, hasCharts, apis, theirs }: App,
  packages: Packages,
): string {
  const devDependencies = {
    ...(hasJourneys ? { '@playwright/test': '^1.56.0' } : {}),
    ...packages.devDependencies,
    ...(apis.length ? { '@types/node': '^22.0.0' } : {}),
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
      ...(apis.length ? { api: 'vite --config api/vite.config.ts' } : {}),
      build: `${packages.check} && vite build`,
      ...(hasTests ? { test: 'vitest run' } : {}),
      ...(hasJourneys ? { 'test:journeys': 'playwright test' } : {}),
      format: 'prettier --write .',
    },
    dependencies: byName({
      ...packages.dependencies,
      ...(apis.length ? packages.network : {}),
      ...(hasCharts ? { 'chart.js': '^4.5.0' } : {}),
      ...theirs,
    }),
    devDependencies: byName(devDependencies),
  };
  return `${JSON.stringify(content, null, 2)}\n`;
}

const byName = (packages: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(Object.entries(packages).sort(([a], [b]) => (a < b ? -1 : 1)));

/** What the compiler of a delivered app is told, whatever that is written with. */
export const COMPILER_OPTIONS = {
  target: 'ES2022',
  module: 'ESNext',
  moduleResolution: 'bundler',
  lib: ['ES2023', 'DOM', 'DOM.Iterable'],
  strict: true,
  noEmit: true,
  noUnusedLocals: true,
  noUnusedParameters: true,
  isolatedModules: true,
  resolveJsonModule: true,
  skipLibCheck: true,
};

const tsconfigJson = ({ hasJourneys, apis }: App, { jsx }: Packages): string =>
  `${stringifySorted(
    {
      compilerOptions: {
        ...COMPILER_OPTIONS,
        ...(jsx === undefined ? {} : { jsx }),
        types: ['vite/client', ...(apis.length ? ['node'] : [])],
      },
      include: [
        'src',
        ...(apis.length ? ['api'] : []),
        ...(hasJourneys ? ['e2e', 'playwright.config.ts'] : []),
        'vite.config.ts',
      ],
    },
    2,
  )}\n`;

const viteConfig = ({ hasTests, apis }: App, { plugin }: Packages): string =>
  script`import ${named(plugin.name)} from ${plugin.from};
import { defineConfig } from ${hasTests ? 'vitest/config' : 'vite'};
${apis.length ? script`import { standIns } from './api/plugin';\n` : script``}
export default defineConfig({
  plugins: [${named(plugin.name)}()${apis.length ? script`, standIns()` : script``}],
  // Classes with dashes in sheets are called without them in code.
  css: { modules: { localsConvention: 'dashesOnly' } },
${hasTests ? script`  test: { environment: 'jsdom', include: ['src/**/*.test.{ts,tsx}'], testTimeout: 40_000 },\n` : script``}});
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
/** @param hasKeys whether an environment is kept in files that nobody else may see */
export const gitignore = (hasKeys: boolean): string =>
  `node_modules/\ndist/\n${hasKeys ? '.env\n.env.local\n' : ''}`;
export const prettierignore = '.tovel/\ndist/\npackage-lock.json\n';

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
    hasLogic,
    inFiles,
    made,
    routes,
    apis,
  }: {
    readonly hasTests: boolean;
    /** Whether people can hook in. */
    readonly hasLogic: boolean;
    readonly inFiles: (path: string) => string;
    /** What it is written in, in words. */
    readonly made: string;
    /** Name of the file with the table of routes. */
    readonly routes: string;
    readonly apis: readonly ApiCode[];
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
${hasTests ? '- `npm test` presses every link and sees where it leads, asks lists, fills in forms, and looks at what comes of it\n' : ''}
## Screens

${table}
${around ? `\n## Layouts\n\nWhat screens share around them is written once.\n\n${around}\n` : ''}
${apis.length ? `${apisSection(apis)}\n` : ''}## Where things are

- \`src/${routes}\`: which screen lives at which path
- \`src/screens/\`: a folder a screen, with its component and its styles
${hasLogic ? '- `*.logic.ts` there: yours, written once and never again; `*.acts.ts`: what you can hook in around\n' : ''}- \`src/components/\`: what repeats, with typed props
${apis.length ? '- `src/api/`: requests to the APIs; `src/data/`: what the app makes of their records\n' : ''}- \`src/navigation/\`: links, going back, and how screens arrive
${hasTests ? '- `src/links.json`, `src/behaviour.json`: what its own tests press, ask and fill in\n' : ''}- \`flow-sheet.txt\`: all that the app does, a line a link; \`ci.sh\`: what continuous integration runs
`;
}

const apisSection = (apis: readonly ApiCode[]): string => `## Where records come from

${apis
  .map(
    (api) =>
      `- ${api.description.title || api.file}: \`${api.variable}\` says where it is; a stand-in answers at \`${standInAddress(api)}\``,
  )
  .join('\n')}

Copy \`.env.example\` to \`.env\` and say there where an API is${apis.some(({ sent }) => sent.some(({ variable }) => variable !== null)) ? ', and what it has to be sent along' : ''}. Without that \`npm run dev\` and \`npx vite preview\` answer for it
from the records that the screens were drawn with (\`api/\`), and remember what is changed while they run. \`npm run api\` runs the
stand-in alone, on port 4010. \`API_DELAY=2000\` makes it slow, \`API_FAILS=1\` lets all requests fail.
`;

/** What the environment can say, without saying it. */
export const envExample = (apis: readonly ApiCode[]): string =>
  apis
    .map(({ description: { title, servers }, variable, outer, sent }) =>
      [
        ...[`Where ${title || 'the API'} is; a stand-in answers where nothing is said.`, ...servers].map(
          remarkLine,
        ),
        `${variable}=\n`,
        ...[...outer].flatMap(([name, { variable: one }]) => [
          remarkLine(`What stands for “${name}” in its paths.`),
          `${one}=\n`,
        ]),
        ...sent.flatMap((one) =>
          one.variable === null ? [] : [remarkLine(saysOfSent(one)), `${one.variable}=\n`],
        ),
      ].join(''),
    )
    .join('\n');

const remarkLine = (line: string): string => `# ${line.replace(/\s+/g, ' ')}\n`;

/** What is sent along, for those who fill it in. Nothing of it is a secret in a browser. */
function saysOfSent({ credential: { kind, in: place, as, signIn } }: SentAlong): string {
  const isPublic = 'Whoever opens the app can read it.';
  if (kind === 'key')
    return `Sent as “${as}” in the ${place === 'query' ? 'address' : 'header'}. ${isPublic}`;
  if (kind === 'basic') return `NAME:PASSWORD, sent with each request. ${isPublic}`;
  return `A token, sent with each request${signIn ? `, as ${signIn} gives it to who signs in` : ''}. ${isPublic}`;
}
