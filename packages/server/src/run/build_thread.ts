import { setImmediate } from 'node:timers/promises';
import { parentPort } from 'node:worker_threads';
import {
  type App,
  applyChange,
  type Change,
  type Design,
  type EmissionProgress,
  type EmittedProject,
  emitReactInSteps,
  type Project,
  seldom,
  targets,
} from '@tovel/core';
import { AppBuild, LinkedBuild } from '@tovel/renderer';

/** What the thread is told: what a project has become since it last heard of it. */
export type Order =
  | {
      readonly kind: 'build';
      readonly call: number;
      readonly project: string;
      readonly name: string;
      readonly target: Target;
      /** The design and the app where the thread does not have them, else the changes of the app since. */
      readonly design: Design | null;
      readonly app: App | null;
      readonly changes: readonly Change[];
      /** Not 0 once nobody waits for it any more. */
      readonly ended: Int32Array;
    }
  | {
      readonly kind: 'where';
      readonly call: number;
      readonly project: string;
      readonly script: string;
      readonly line: number;
      readonly column: number;
    }
  | { readonly kind: 'forget'; readonly project: string };

/** Where something of a bundle was written. */
export interface CodePlace {
  readonly path: string;
  /** From 1. */
  readonly line: number;
  /** Key of the element that is written there. */
  readonly element: string | null;
}

/** A built app, or why it could not be built. */
export interface BuiltApp {
  /** `app.js` and `app.css`. */
  readonly files: ReadonlyMap<string, Uint8Array>;
  readonly error: string | null;
  readonly page: string;
  /** Hash of each picture, by its name among the assets. */
  readonly assets: ReadonlyMap<string, string>;
  /** What answers for each described API, as JSON, by the name under which it is asked. */
  readonly standIns: ReadonlyMap<string, string>;
}

export type Report = { readonly call: number } & (
  | { readonly kind: 'progress'; readonly done: number; readonly total: number }
  | { readonly kind: 'built'; readonly built: BuiltApp }
  | { readonly kind: 'where'; readonly place: CodePlace | null }
  | { readonly kind: 'ended' }
  | { readonly kind: 'failed'; readonly message: string }
);

/** What apps are written in that run. */
type Target = 'react' | 'vue';

/** An app whose own tests nobody runs here: they are not worked out anew at each change. */
const untested = (app: App): App => ({ ...app, delivery: { ...app.delivery, tests: 'without' } });

interface Held {
  /** Where modules are compiled one by one, all of them are bundled anew. */
  readonly build: LinkedBuild | AppBuild;
  design: Design;
  app: App;
  /** What was built last. */
  emitted?: EmittedProject;
}

class Ended extends Error {}

/** Documents stay here from one build to the next, so that what has not changed is not written anew. */
const held = new Map<string, Held>();
/** @param given what goes over with it, and is no longer here */
const say = (report: Report, given: readonly ArrayBuffer[] = []): void =>
  parentPort!.postMessage(report, given);

/** Memory of files that are nothing but that: it is handed over, and not copied. */
const wholeBuffers = (files: Iterable<Uint8Array>): ArrayBuffer[] => [
  ...new Set(
    [...files].flatMap(({ buffer, byteLength }) =>
      buffer instanceof ArrayBuffer && buffer.byteLength === byteLength ? [buffer] : [],
    ),
  ),
];

/** Writes an app, of whatever it is delivered with only what Tovel writes itself; files are compiled beside it as they are written. */
async function written(
  project: Project,
  name: string,
  bundle: Held['build'],
  tell: EmissionProgress,
): Promise<EmittedProject> {
  if (bundle instanceof AppBuild) return targets.vue.emit(project, name, tell);
  const steps = emitReactInSteps(project, name, tell);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    // What compiles hears of it only while nothing else is done here.
    if (bundle.begin(value)) await setImmediate();
  }
}

async function build(order: Extract<Order, { kind: 'build' }>): Promise<void> {
  const { call, project, name, target, ended } = order;
  const report = seldom((done, total) => say({ call, kind: 'progress', done, total }));
  const tell = (done: number, total: number): void => {
    if (Atomics.load(ended, 0)) throw new Ended();
    report(done, total);
  };
  try {
    const before = held.get(project);
    const design = order.design ?? before!.design;
    const app = order.changes.reduce(applyChange, order.app ?? before!.app);
    const bundle = before?.build ?? new (target === 'vue' ? AppBuild : LinkedBuild)(`/${project}/`);
    const here: Held = { build: bundle, design, app };
    held.set(project, here);
    const emitted = await written({ design, app: untested(app) }, name, bundle, tell);
    const { files, error } = await bundle.build(emitted);
    here.emitted = emitted;
    const page = emitted.files.find((file) => file.path === 'index.html');
    const assets = emitted.files.flatMap((file) =>
      'asset' in file ? [[file.path.replace(/^src\/assets\//, ''), file.asset] as const] : [],
    );
    const standIns = emitted.files.flatMap((file) => {
      const name = /^api\/([\w-]+)\.json$/.exec(file.path)?.[1];
      return name !== undefined && 'text' in file ? [[name, file.text] as const] : [];
    });
    const built: Report = {
      call,
      kind: 'built',
      built: {
        files,
        error,
        page: page && 'text' in page ? page.text : '',
        assets: new Map(assets),
        standIns: new Map(standIns),
      },
    };
    say(built, wholeBuffers(files.values()));
  } catch (error) {
    if (error instanceof Ended) say({ call, kind: 'ended' });
    else say({ call, kind: 'failed', message: (error as Error).message });
  }
}

function whereIs({ call, project, script, line, column }: Extract<Order, { kind: 'where' }>): void {
  const { emitted, build } = held.get(project) ?? {};
  const found = build instanceof LinkedBuild ? build.where(script, line, column) : null;
  const file = found && emitted?.files.find((one) => one.path === found.path);
  // What has become another text since has its elements elsewhere.
  const lines = file && 'text' in file && file.text === found.text ? file.lines : undefined;
  const place = found && { path: found.path, line: found.line, element: lines?.[found.line - 1] ?? null };
  say({ call, kind: 'where', place });
}

// One build after the other: they share the thread in any case.
let last = Promise.resolve();
parentPort!.on('message', (order: Order) => {
  last = last.then(() => {
    if (order.kind === 'build') return build(order);
    if (order.kind === 'where') return whereIs(order);
    const gone = held.get(order.project)?.build;
    held.delete(order.project);
    return gone instanceof AppBuild ? gone.dispose() : undefined;
  });
});
