import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { UtilityPlan } from '@tovel/core';
import postcss from 'postcss';
import { compile } from 'tailwindcss';

const require = createRequire(import.meta.url);

const MAX_CLASSES = 20_000;
const MAX_SOURCE = 500_000;
/** Programs that a page may ask for by name, since they come with Tovel. */
const PLUGINS: Readonly<Record<string, string>> = {
  forms: '@tailwindcss/forms',
  typography: '@tailwindcss/typography',
};
const BY_PACKAGE = new Set(Object.values(PLUGINS));

/** Where to look for classes is said by the page itself, and programs come by their names alone. */
function themeOf(plan: UtilityPlan): Record<string, unknown> {
  const { content: _content, plugins: _plugins, presets: _presets, ...config } = plan.config ?? {};
  return config;
}

const pluginsOf = ({ plugins = [] }: UtilityPlan): string[] =>
  plugins.flatMap((name) => (Object.hasOwn(PLUGINS, name) ? [PLUGINS[name]] : []));

/**
 * Compiles the utility classes of a page. Nothing of the page is run: its configuration is data, no programs are loaded but
 * those that come with Tovel, and only the library's own style sheets are read.
 * @throws Error that names what the compiler did not understand.
 */
export async function compileUtilities(plan: UtilityPlan): Promise<string> {
  if (plan.classes.length > MAX_CLASSES || plan.css.length > MAX_SOURCE)
    throw new Error('it has more classes than are compiled for one page');
  return plan.isLegacy ? compileLegacy(plan) : compileCurrent(plan);
}

async function compileCurrent(plan: UtilityPlan): Promise<string> {
  const source = [
    '@import "tailwindcss";',
    plan.config ? '@config "page-configuration";' : '',
    ...pluginsOf(plan).map((name) => `@plugin "${name}";`),
    plan.css,
  ].join('\n');
  const base = path.dirname(require.resolve('tailwindcss/package.json'));
  const compiler = await compile(source, {
    base,
    loadStylesheet: async (id) => {
      const name = /^tailwindcss(?:\/(theme|preflight|utilities|index)(?:\.css)?)?$/.exec(id);
      if (!name) throw new Error(`its style sheet imports “${id}”, which did not come along`);
      const file = path.join(base, `${name[1] ?? 'index'}.css`);
      return { path: file, base, content: await readFile(file, 'utf8') };
    },
    loadModule: async (id) => {
      if (BY_PACKAGE.has(id)) return { path: id, base, module: require(id) as never };
      if (id !== 'page-configuration')
        throw new Error(`its style sheet asks for the program “${id}”, which is not run`);
      return { path: id, base, module: themeOf(plan) as never };
    },
  });
  return compiler.build([...plan.classes]);
}

/** What the older generation would read from disk or run. */
const LOADS = /@(config|plugin|import)\s+(?:url\(\s*)?["']?([^"');\s]*)/i;

/** The older generation had other colours and steps, so it is itself that pages are drawn by that load it. */
async function compileLegacy(plan: UtilityPlan): Promise<string> {
  const loads = LOADS.exec(plan.css);
  if (loads)
    throw new Error(
      loads[1].toLowerCase() === 'import'
        ? `its style sheet imports “${loads[2]}”, which did not come along`
        : `its style sheet asks for the program “${loads[2]}”, which is not run`,
    );
  const plugin = require('tailwindcss-3') as (config: object) => postcss.AcceptedPlugin;
  const source = ['@tailwind base;', '@tailwind components;', '@tailwind utilities;', plan.css].join('\n');
  const compiler = postcss([
    plugin({
      ...themeOf(plan),
      content: [{ raw: plan.classes.join(' '), extension: 'html' }],
      plugins: pluginsOf(plan).map((name) => require(name) as object),
    }),
  ]);
  return (await compiler.process(source, { from: undefined })).css;
}
