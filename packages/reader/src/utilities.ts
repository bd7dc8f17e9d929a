import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { UtilityPlan } from '@tovel/core';
import { compile } from 'tailwindcss';

const require = createRequire(import.meta.url);

/**
 * The older generation of the library named some steps one size larger and had other defaults; pages that load it by
 * its older script were drawn with these.
 */
const LEGACY = `
@theme {
  --shadow-sm: 0 1px 2px 0 rgb(0 0 0 / 0.05);
  --shadow-inner: inset 0 2px 4px 0 rgb(0 0 0 / 0.05);
  --radius-sm: 0.125rem;
  --blur-sm: 4px;
  --blur: 8px;
  --drop-shadow-sm: 0 1px 1px rgb(0 0 0 / 0.05);
  --default-ring-width: 3px;
  --default-ring-color: #3b82f680;
}
@layer base {
  *, ::after, ::before, ::backdrop, ::file-selector-button { border-color: var(--color-gray-200, currentColor); }
  input::placeholder, textarea::placeholder { color: var(--color-gray-400); }
  button:not(:disabled), [role='button']:not(:disabled) { cursor: pointer; }
  dialog { margin: auto; }
}
`;

const MAX_CLASSES = 20_000;
const MAX_SOURCE = 500_000;

/**
 * Compiles the utility classes of a page. Nothing of the page is run: its configuration is data, plug-ins are not
 * loaded, and only the library's own style sheets are read.
 * @throws Error that names what the compiler did not understand.
 */
export async function compileUtilities(plan: UtilityPlan): Promise<string> {
  if (plan.classes.length > MAX_CLASSES || plan.css.length > MAX_SOURCE)
    throw new Error('it has more classes than are compiled for one page');
  const source = [
    '@import "tailwindcss";',
    plan.config ? '@config "page-configuration";' : '',
    plan.isLegacy ? LEGACY : '',
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
      if (id !== 'page-configuration')
        throw new Error(`its style sheet asks for the program “${id}”, which is not run`);
      // Where to look for classes is said by the page itself.
      const { content: _content, plugins: _plugins, presets: _presets, ...config } = plan.config ?? {};
      return { path: id, base, module: config as never };
    },
  });
  return compiler.build([...plan.classes]);
}
