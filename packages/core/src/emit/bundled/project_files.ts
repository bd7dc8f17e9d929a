import { PRINT_WIDTH } from '../line_width.ts';
import { escapeText } from '../quoting.ts';

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
  return `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>${escapeText(title)}</title>
  </head>
  <body>
    <div id="${root}"></div>
    <script type="module" src="/src/${main}"></script>
  </body>
</html>
`;
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
