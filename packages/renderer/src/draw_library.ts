import { createRequire } from 'node:module';
import path from 'node:path';
import { build, type Plugin } from 'esbuild';
import type { Library, LibraryComponent, LibraryLook, LibraryProp } from '@tovel/core';
import type { Renderer } from './renderer.ts';
import { VENDOR } from './vendor.ts';

/** Looks of one component at most, and choices of one prop that are tried. */
const MOST_LOOKS = 40;
const MOST_CHOICES = 16;
/** Components of a library that are drawn at most. */
const MOST_DRAWN = 400;
const ADDRESS = 'http://library.tovel.invalid/';
/** What a component is given where a text is wanted. */
const SAMPLE = 'Sample';

export interface DrawnLibrary {
  /** The library with how its components look, those that could be drawn. */
  readonly library: Library;
  /** Why others could not be, in words. */
  readonly problems: readonly string[];
}

interface Trial {
  readonly given: Readonly<Record<string, string>>;
  /** What it is drawn with, as an expression. */
  readonly props: string;
}

/** What the page says of one trial: its look, or why there is none. */
type Measured = Omit<LibraryLook, 'given'> | { readonly failed: string };

/**
 * Draws the components of a library, each with every choice that its props have, and reads how they look. They are bundled where
 * they stand, with what is installed there, and drawn without a network; what cannot be is left without a look.
 * @param folder of the library
 * @param sources the file of each component, from the folder, by the component's name
 * @param mayLeave whether imports may lead out of the folder, as they do to packages that are installed further up
 */
export async function drawLibrary(
  renderer: Renderer,
  folder: string,
  library: Library,
  sources: ReadonlyMap<string, string>,
  mayLeave: boolean,
): Promise<DrawnLibrary> {
  const drawn = library.components.filter(({ name }) => sources.has(name)).slice(0, MOST_DRAWN);
  if (!drawn.length) return { library, problems: [] };
  const trials = new Map(drawn.map((component) => [component.name, trialsOf(component)]));
  const absent = new Set<string>();
  let files: Awaited<ReturnType<typeof bundle>>;
  try {
    files = await bundle(folder, pageCode(drawn, trials, sources), outsideOf(folder, mayLeave, absent));
  } catch (error) {
    return {
      library,
      problems: [`It cannot be built, so how it looks is not known: ${firstLine((error as Error).message)}`],
    };
  }
  let looks: Record<string, Measured[]> | null = null;
  let said: readonly string[];
  try {
    const { rendering } = await renderer.draw({
      address: ADDRESS,
      width: 1280,
      height: 800,
      withScripts: true,
      isMeasured: true,
      site: ({ href }) =>
        Promise.resolve(
          href === ADDRESS
            ? {
                type: 'text/html',
                body: `<!doctype html><style>${files.css.replaceAll('</style', '<\\/style')}</style><body><main>…</main><script src="/library.js"></script>`,
              }
            : href === `${ADDRESS}library.js`
              ? { type: 'text/javascript', body: files.js }
              : null,
        ),
      before: async (page) => {
        looks = JSON.parse(
          await page.evaluate('globalThis.tovelLooks ? tovelLooks() : "null"'),
        ) as typeof looks;
      },
    });
    said = rendering.problems;
  } catch (error) {
    return { library, problems: [`How it looks is not known: ${(error as Error).message}`] };
  }
  const problems = [...absent]
    .sort()
    .map((name) => `“${name}” is not installed there; what needs it cannot be drawn.`);
  if (!looks)
    problems.push(`Its code could not be run, so how it looks is not known. ${said[0] ?? ''}`.trim());
  const components = library.components.map((component) => {
    const [made = [], tried = []] = [looks?.[component.name], trials.get(component.name)];
    const shown = made.flatMap((one, i) => ('failed' in one ? [] : [{ given: tried[i].given, ...one }]));
    const [first] = made;
    if (!shown.length && first && 'failed' in first)
      problems.push(`${component.name} could not be drawn: ${firstLine(first.failed)}`);
    return shown.length ? { ...component, looks: shown } : component;
  });
  return { library: { ...library, components }, problems };
}

const firstLine = (text: string): string => text.split('\n')[0].slice(0, 200);

/** What a component is tried with: nothing chosen, and each choice of each prop by itself. */
function trialsOf({ props }: LibraryComponent): Trial[] {
  const needed = props.flatMap((prop) => {
    const value = prop.isRequired || prop.name === 'children' ? sampleOf(prop) : null;
    return value === null ? [] : [[prop.name, value] as const];
  });
  const withChoice = (given: Readonly<Record<string, string>>): Trial => {
    const said = new Map<string, string>(needed);
    for (const [name, value] of Object.entries(given)) said.set(name, JSON.stringify(value));
    return {
      given,
      props: `{ ${[...said].map(([name, value]) => `${JSON.stringify(name)}: ${value}`).join(', ')} }`,
    };
  };
  const choices = props.flatMap(({ name, type, choices = [] }) =>
    type === 'one-of' && name !== 'type'
      ? choices.slice(0, MOST_CHOICES).map((choice) => withChoice({ [name]: choice }))
      : [],
  );
  return [withChoice({}), ...choices].slice(0, MOST_LOOKS);
}

function sampleOf({ name, type, choices }: LibraryProp): string | null {
  switch (type) {
    case 'yes-no':
      return 'false';
    case 'number':
      return '1';
    case 'one-of':
      return JSON.stringify(choices?.[0] ?? '');
    case 'press':
      return '() => {}';
    case 'other':
      return 'undefined';
    default:
      return /src|href|url/i.test(name) ? "'#'" : JSON.stringify(SAMPLE);
  }
}

/** The script that draws one component after the other, and says what each looks like. */
function pageCode(
  components: readonly LibraryComponent[],
  trials: ReadonlyMap<string, readonly Trial[]>,
  sources: ReadonlyMap<string, string>,
): string {
  const imports = components.map(({ name, isDefault }, i) => {
    const from = JSON.stringify(moduleFor(sources.get(name)!));
    return isDefault ? `import C${i} from ${from};` : `import { ${name} as C${i} } from ${from};`;
  });
  const entries = components.map(
    ({ name }, i) =>
      `  [${JSON.stringify(name)}, C${i}, [${trials
        .get(name)!
        .map(({ props }) => props)
        .join(', ')}]],`,
  );
  return `import { Component, createElement } from 'react';
import { flushSync } from 'react-dom';
import { createRoot } from 'react-dom/client';
${imports.join('\n')}
const all = [
${entries.join('\n')}
];
class Guard extends Component {
  state = { failed: null };
  static getDerivedStateFromError(error) {
    return { failed: String(error?.message ?? error) };
  }
  render() {
    if (this.state.failed === null) return this.props.children;
    this.props.tell(this.state.failed);
    return null;
  }
}
const textIn = (node) => {
  if ([...node.childNodes].some((child) => child.nodeType === 3 && child.data.trim())) return node;
  for (const child of node.children) {
    const found = textIn(child);
    if (found) return found;
  }
  return null;
};
function measured(component, props) {
  const around = document.body.appendChild(document.createElement('div'));
  around.style.cssText = 'display: inline-block; vertical-align: top';
  let failed = null;
  const root = createRoot(around, { onCaughtError() {}, onUncaughtError() {} });
  try {
    flushSync(() =>
      root.render(createElement(Guard, { tell: (why) => (failed = why) }, createElement(component, props))),
    );
    const node = around.firstElementChild;
    if (failed !== null || !node) return { failed: failed ?? 'it shows nothing by itself' };
    const style = getComputedStyle(node);
    const text = getComputedStyle(textIn(node) ?? node);
    const { height } = node.getBoundingClientRect();
    return {
      tag: node.localName.slice(0, 40),
      background: style.backgroundColor.slice(0, 100),
      color: text.color.slice(0, 100),
      radius: Math.min(10_000, parseFloat(style.borderTopLeftRadius) || 0),
      height: Math.min(100_000, Math.round(height * 100) / 100),
      fontSize: Math.min(1000, parseFloat(text.fontSize) || 0),
      fontWeight: Math.min(1000, Number(text.fontWeight) || 400),
    };
  } catch (error) {
    return { failed: String(error?.message ?? error) };
  } finally {
    try {
      root.unmount();
    } catch {
      // It is gone all the same.
    }
    around.remove();
  }
}
globalThis.tovelLooks = () =>
  JSON.stringify(
    Object.fromEntries(all.map(([name, component, props]) => [name, props.map((one) => measured(component, one))])),
  );
`;
}

/** What a component is imported from: declarations say nothing that runs, so that the package itself is asked then. */
const moduleFor = (source: string): string => (source.endsWith('.d.ts') ? './' : `./${source}`);

async function bundle(
  folder: string,
  contents: string,
  plugin: Plugin,
): Promise<{ readonly js: string; readonly css: string }> {
  const result = await build({
    stdin: { contents, resolveDir: folder, loader: 'js', sourcefile: 'library.js' },
    absWorkingDir: folder,
    bundle: true,
    write: false,
    format: 'iife',
    platform: 'browser',
    jsx: 'automatic',
    target: 'es2022',
    outdir: folder,
    logLevel: 'silent',
    loader: Object.fromEntries(
      ['.svg', '.png', '.jpg', '.jpeg', '.gif', '.webp', '.woff', '.woff2', '.ttf'].map((ending) => [
        ending,
        'dataurl',
      ]),
    ),
    define: { 'process.env.NODE_ENV': '"production"', 'import.meta.env': '{}' },
    plugins: [plugin],
  });
  const textOf = (ending: string): string =>
    result.outputFiles.find(({ path: file }) => file.endsWith(ending))?.text ?? '';
  return { js: textOf('.js'), css: textOf('.css') };
}

/**
 * What a library takes from elsewhere: what is installed there; React from here where it is not; nothing for what is absent, so that
 * only what needs it fails.
 */
const outsideOf = (folder: string, mayLeave: boolean, absent: Set<string>): Plugin => ({
  name: 'outside of the library',
  setup(context) {
    const require = createRequire(import.meta.url);
    context.onResolve({ filter: /.*/ }, async ({ path: wanted, pluginData, ...where }) => {
      if (pluginData === 'asked' || where.kind === 'entry-point') return undefined;
      const found = await context.resolve(wanted, { ...where, pluginData: 'asked' });
      const isInside = (file: string): boolean => {
        const way = path.relative(folder, file);
        return way !== '' && !way.startsWith('..') && !path.isAbsolute(way);
      };
      // Of one React there must be one alone: that which draws.
      if (Object.hasOwn(VENDOR, wanted)) return { path: require.resolve(wanted) };
      if (found.external) return found;
      if (!found.errors.length && (mayLeave || isInside(found.path) || isOwn(where.importer))) return found;
      if (isOwn(where.importer)) return undefined;
      absent.add(wanted);
      return { path: wanted, namespace: 'absent' };
    });
    context.onLoad({ filter: /.*/, namespace: 'absent' }, ({ path: name }) => ({
      contents: `module.exports = new Proxy(() => {}, {
  get: (_, key) => {
    if (key === '__esModule') return false;
    throw new Error(${JSON.stringify(`${name} is not installed there`)});
  },
  apply: () => {
    throw new Error(${JSON.stringify(`${name} is not installed there`)});
  },
});`,
      loader: 'js',
    }));
    /** Whether a file is of what is taken from here. */
    function isOwn(importer: string): boolean {
      return /\/node_modules\/(react|react-dom|react-router|scheduler|@tanstack)\//.test(importer);
    }
  },
});
