/** What of React is needed here; the app has it among its packages. */
interface React {
  readonly createElement: (type: Component, props: object) => unknown;
  readonly useSyncExternalStore: <T>(subscribe: (hear: () => void) => () => void, get: () => T) => T;
}

type Component = (props: object) => unknown;
type Exports = Record<string, unknown>;
type Run = (exports: Exports, require: (asked: string) => unknown, module: { exports: Exports }) => void;
/** Paths of the files that a module asks for, by how it says it. */
type Ways = Readonly<Record<string, string>>;

interface Known {
  ways: Ways;
  run: Run;
  /** Null before it is first asked for. */
  module: { exports: Exports } | null;
  isRunning: boolean;
  /** Somebody asked for it while it ran, and holds what it was then. */
  isHeld: boolean;
  /** Where all that it exports are components: what others see of it, which stays when it is run anew. */
  shown: { readonly exports: Exports; readonly components: ReadonlyMap<string, Shown> } | null;
}

/** What became of an app. */
export interface Changes {
  readonly version: string;
  readonly packages: Readonly<Record<string, unknown>>;
  readonly modules: readonly (readonly [path: string, ways: Ways, run: Run])[];
}

/** Functions that are called as components are; classes are made otherwise. */
const isComponent = (name: string, value: unknown): value is Component =>
  typeof value === 'function' && /^[A-Z]/.test(name) && !/^class\b/.test(String(value));

/** Hooks that a component calls, in their order: what is drawn stays as it is only where these are the same. */
const hooksOf = (run: Component): string =>
  [...String(run).matchAll(/\buse[A-Z]\w*(?=\)?\()/g)].map(([name]) => name).join(' ');

/** A component whose code may become another one while it is drawn; it keeps its state where its hooks are the same. */
class Shown {
  readonly component: Component;
  readonly #hearing = new Set<() => void>();
  /** What runs in the component that stands there now; one that goes keeps what it ran. */
  #held: { run: Component };
  #inner: Component;
  #version = 0;

  constructor(react: React, run: Component) {
    this.#held = { run };
    this.#inner = inner(this.#held);
    const subscribe = (hear: () => void) => {
      this.#hearing.add(hear);
      return () => void this.#hearing.delete(hear);
    };
    this.component = (props) => {
      react.useSyncExternalStore(subscribe, () => this.#version);
      return react.createElement(this.#inner, props);
    };
  }

  take(run: Component, isOther: boolean): void {
    if (!isOther && hooksOf(run) === hooksOf(this.#held.run)) this.#held.run = run;
    else {
      // Another component in the same place begins anew.
      this.#held = { run };
      this.#inner = inner(this.#held);
    }
    this.#version++;
    for (const hear of this.#hearing) hear();
  }
}

const inner =
  (held: { readonly run: Component }): Component =>
  (props) =>
    held.run(props);

/** Knows the modules of an app by their paths, runs each when it is first asked for, and changes them while the app runs. */
export class AppModules {
  readonly #known = new Map<string, Known>();
  readonly #packages: Record<string, unknown>;
  /** The module that everything begins with. */
  #main = '';
  #version: string;
  readonly #first: string;
  /** Which version it became from which. */
  readonly #became = new Map<string, string>();

  constructor(packages: Readonly<Record<string, unknown>>, version: string) {
    this.#packages = { ...packages };
    this.#first = this.#version = version;
  }

  get version(): string {
    return this.#version;
  }

  /**
   * What the script is called that something came with: that of the whole app, or that of what became of it.
   * @param since the version that it had before; null for the whole
   */
  scriptOf(since: string | null): string {
    return since === null ? this.#first : `${since}-${this.#became.get(since) ?? since}`;
  }

  define(path: string, ways: Ways, run: Run): void {
    const known = this.#known.get(path);
    if (known) Object.assign(known, { ways, run });
    else this.#known.set(path, { ways, run, module: null, isRunning: false, isHeld: false, shown: null });
  }

  load(path: string): unknown {
    if (!this.#main) this.#main = path;
    return this.#exports(path);
  }

  /**
   * Takes over what became of the app: components are drawn anew where they are, and whatever else changed runs anew with those
   * who ask for it, up to the next components.
   * @returns whether it could be done; else the page has to be loaded anew
   */
  take({ version, packages, modules }: Changes): boolean {
    const ways = new Map(modules.map(([path, to]) => [path, to]));
    const asking = this.#asking(ways);
    const [anew, drawn] = [new Set<string>(), new Map<string, boolean>()];
    for (let open = modules.map(([path]) => ({ path, isOther: false })); open.length;) {
      const next: typeof open = [];
      for (const { path, isOther } of open) {
        const known = this.#known.get(path);
        if (!known?.module || anew.has(path)) continue;
        if (path === this.#main) return false;
        if (known.shown) {
          drawn.set(path, isOther || (drawn.get(path) ?? false));
          continue;
        }
        anew.add(path);
        // What a hook does may need hooks itself.
        const hasHooks = isOther || Object.keys(known.module.exports).some((name) => /^use[A-Z]/.test(name));
        next.push(...(asking.get(path) ?? []).map((from) => ({ path: from, isOther: hasHooks })));
      }
      open = next;
    }
    Object.assign(this.#packages, packages);
    for (const [path, to, run] of modules) this.define(path, to, run);
    for (const path of [...anew, ...drawn.keys()]) this.#known.get(path)!.module = null;
    for (const [path, isOther] of drawn) if (!this.#drawnAnew(path, isOther)) return false;
    this.#became.set(this.#version, version);
    this.#version = version;
    return true;
  }

  /** Who asks for each module. */
  #asking(changed: ReadonlyMap<string, Ways>): Map<string, string[]> {
    const asking = new Map<string, string[]>();
    for (const [path, { ways }] of this.#known)
      for (const to of new Set(Object.values(changed.get(path) ?? ways))) {
        const known = asking.get(to);
        if (known) known.push(path);
        else asking.set(to, [path]);
      }
    return asking;
  }

  #drawnAnew(path: string, isOther: boolean): boolean {
    const { components } = this.#known.get(path)!.shown!;
    const { exports } = this.#ran(path).module!;
    const names = Object.keys(exports);
    if (!names.every((name) => components.has(name) && isComponent(name, exports[name]))) return false;
    for (const name of names) components.get(name)!.take(exports[name] as Component, isOther);
    return true;
  }

  #exports(path: string): unknown {
    const known = this.#ran(path);
    if (known.shown) return known.shown.exports;
    const { exports } = known.module!;
    if (known.isRunning) known.isHeld = true;
    const names = Object.keys(exports);
    if (known.isHeld || !names.length || !names.every((name) => isComponent(name, exports[name])))
      return exports;
    const react = this.#packages.react as React;
    const components = new Map(names.map((name) => [name, new Shown(react, exports[name] as Component)]));
    const shown: Exports = Object.fromEntries(names.map((name) => [name, components.get(name)!.component]));
    Object.defineProperty(shown, '__esModule', { value: true });
    known.shown = { exports: shown, components };
    return shown;
  }

  #ran(path: string): Known {
    const known = this.#known.get(path)!;
    if (known.module) return known;
    known.module = { exports: {} };
    known.isRunning = true;
    const asks = (asked: string): unknown =>
      this.#packages[asked] ?? this.#exports(this.#wayOf(path, known, asked));
    try {
      known.run(known.module.exports, asks, known.module);
    } finally {
      known.isRunning = false;
    }
    return known;
  }

  #wayOf(path: string, { ways }: Known, asked: string): string {
    const to = ways[asked];
    if (!to || !this.#known.has(to)) throw new Error(`${path} imports ${asked}, which is not there`);
    return to;
  }
}

/** Where the bridge finds the modules of the app beside it. */
const KNOWN_AS = Symbol.for('tovel modules');

/** The modules of the app in this page; what runs beside it finds them with `modulesHere`. */
export function startModules(packages: Readonly<Record<string, unknown>>, version: string): AppModules {
  const modules = new AppModules(packages, version);
  Object.assign(globalThis, { [KNOWN_AS]: modules });
  return modules;
}

/** The modules of the app in this page; null before it has begun. */
export const modulesHere = (): AppModules | null =>
  (globalThis as { [KNOWN_AS]?: AppModules })[KNOWN_AS] ?? null;
