import type { EmittedProject } from '@tovel/core';
import { LinkedBuild } from '../linked_build.ts';
import { AppModules, type Changes } from './app_modules.ts';

type Files = Readonly<Record<string, string>>;
type Component = (props: object) => unknown;

/** As much of React as draws one component: what each use of a hook began with stays with the component. */
class Drawing {
  readonly #states = new Map<unknown, unknown[]>();
  #hooks: unknown[] = [];
  #at = 0;
  readonly packages = {
    react: {
      __esModule: true,
      createElement: (type: Component, props: object) => this.draw(type, props),
      useSyncExternalStore: (_: unknown, get: () => unknown) => get(),
      useState: (first: unknown) => [(this.#hooks[this.#at++] ??= first)],
    },
    'react/jsx-runtime': {
      __esModule: true,
      jsx: (type: Component | string, props: { readonly children?: unknown }) =>
        typeof type === 'string' ? props.children : this.draw(type, props),
    },
  };

  draw(type: Component, props: object = {}): unknown {
    const [hooks, at] = [this.#hooks, this.#at];
    this.#hooks = this.#states.get(type) ?? [];
    this.#at = 0;
    this.#states.set(type, this.#hooks);
    const drawn = type(props);
    [this.#hooks, this.#at] = [hooks, at];
    return drawn;
  }
}

/** An app that runs, to be changed. */
class Running {
  readonly #build = new LinkedBuild('/app/');
  readonly drawing = new Drawing();
  modules!: AppModules;
  shown!: Component;
  ran: string[] = [];

  async start(files: Files): Promise<this> {
    const { script } = await this.#built(files);
    const code = script.replace(/^import .*$/gm, '').replace('const packages = {', 'const unused = {');
    const begin = (packages: object, version: string): AppModules =>
      (this.modules = new AppModules(packages as Changes['packages'], version));
    const rest = code.slice(code.indexOf('const app = tovelModules'));
    this.#run(rest, { tovelModules: begin, packages: this.drawing.packages });
    return this;
  }

  /** Whether a change could be taken over. */
  async change(files: Files): Promise<boolean> {
    const { version } = this.modules;
    const { changes } = await this.#built(files, version);
    const out: Record<string, unknown> = {};
    this.#run(
      changes
        .replace(/^import .*$/gm, '')
        .replace(/^const packages = {[^]*?^};$/m, '')
        .replace(/^export const (\w+) =/gm, 'out.$1 =')
        .replace('export { packages };', ''),
      { out },
    );
    return this.modules.take({ packages: {}, ...out } as unknown as Changes);
  }

  get drawn(): unknown {
    return this.drawing.draw(this.shown);
  }

  #run(code: string, given: Readonly<Record<string, unknown>>): void {
    const all = {
      ...given,
      show: (one: Component) => (this.shown = one),
      ran: (one: string) => this.ran.push(one),
    };
    new Function(...Object.keys(all), code)(...Object.values(all));
  }

  async #built(files: Files, since?: string): Promise<{ script: string; changes: string }> {
    const project: EmittedProject = {
      files: Object.entries(files).map(([path, text]) => ({ path, text })),
      fileOfScreen: new Map(),
    };
    const built = await this.#build.build(project);
    expect(built.error).toBeNull();
    const read = (name: string): string => new TextDecoder().decode(built.files.get(name));
    return { script: read('app.js'), changes: read(`changes.${since}.js`) };
  }
}

const FILES: Files = {
  'src/main.tsx': "import { Home } from './Home'; ran('main'); show(Home);",
  'src/Home.tsx':
    "import { useState } from 'react'; import { Name } from './Name'; import { greeting } from './words'; ran('Home');\nexport function Home() { const [first] = useState(greeting); return <p>{[first, greeting, <Name />]}</p>; }",
  'src/Name.tsx': "ran('Name'); export function Name() { return <b>Ada</b>; }",
  'src/words.ts': "import { mark } from './mark'; ran('words'); export const greeting = 'Hello' + mark;",
  'src/mark.ts': "ran('mark'); export const mark = '!';",
};

const started = (): Promise<Running> => new Running().start(FILES);

test.each<[what: string, file: string, text: string, drawn: unknown, ran: string[]]>([
  [
    'a component, where it is drawn',
    'src/Name.tsx',
    "ran('Name'); export function Name() { return <b>Bea</b>; }",
    ['Hello!', 'Hello!', 'Bea'],
    ['Name'],
  ],
  [
    'with its state, where its hooks are the same',
    'src/Home.tsx',
    FILES['src/Home.tsx'].replace('[first, greeting, ', "['now', first, "),
    ['now', 'Hello!', 'Ada'],
    ['Home'],
  ],
  [
    'anew, where it has others',
    'src/Home.tsx',
    FILES['src/Home.tsx'].replace(
      '[first] = useState(greeting)',
      "[first] = useState('anew'), [no] = useState(0)",
    ),
    ['anew', 'Hello!', 'Ada'],
    ['Home'],
  ],
  [
    'what else changed, with those who ask for it up to the next component',
    'src/mark.ts',
    "ran('mark'); export const mark = '?';",
    ['Hello!', 'Hello?', 'Ada'],
    ['mark', 'words', 'Home'],
  ],
])('taken over is %s', async (_, file, text, drawn, ran) => {
  const running = await started();
  expect(running.drawn).toEqual(['Hello!', 'Hello!', 'Ada']);
  running.ran = [];
  expect(await running.change({ ...FILES, [file]: text })).toBe(true);
  expect(running.drawn).toEqual(drawn);
  expect(running.ran.toSorted()).toEqual(ran.toSorted());
});

test.each<[what: string, files: Files]>([
  ['what everything begins with', { 'src/main.tsx': `${FILES['src/main.tsx']}\nran('more');` }],
  ['something that is no component any more', { 'src/Name.tsx': 'export const Name = 1;' }],
  [
    'a component under another name',
    {
      'src/Name.tsx':
        'export function Other() { return <b>Bea</b>; } export { Other as Name, Other as Else };',
    },
  ],
])('%s is not taken over', async (_, files) => {
  const running = await started();
  expect(await running.change({ ...FILES, ...files })).toBe(false);
});

test('nothing is asked of what nobody has asked for; who has missed a change takes both', async () => {
  const running = await started();
  expect(await running.change(FILES)).toBe(true);
  const { version } = running.modules;
  running.ran = [];
  const name = "ran('Name'); export function Name() { return <b>Bea</b>; }";
  expect(
    await running.change({
      ...FILES,
      'src/Name.tsx':
        "import { by } from './by'; ran('Name'); export function Name() { return <b>{by}</b>; }",
      'src/by.ts': "ran('by'); export const by = 'by Cy';",
    }),
  ).toBe(true);
  expect(running.drawn).toEqual(['Hello!', 'Hello!', 'by Cy']);
  expect(running.ran).toEqual(['by', 'Name']);
  expect(running.modules.version).not.toBe(version);
  expect(running.modules.scriptOf(version)).toBe(`${version}-${running.modules.version}`);
  expect(await running.change({ ...FILES, 'src/Name.tsx': name })).toBe(true);
  expect(running.drawn).toEqual(['Hello!', 'Hello!', 'Bea']);
});
