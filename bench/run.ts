/**
 * What Tovel costs, beside something that sets the scale, at two sizes. Prints a table; asserts nothing.
 *
 * - reading a page against Chromium's own loading and layout of the same page
 * - writing the code of 20 and 200 screens against serialising the same design as JSON
 * - an edit until Run has its new script, against esbuild alone; also in the built server, which has to be built
 * - the graph and the findings of 20 and 200 screens against a plain loop over their elements
 */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { performance } from 'node:perf_hooks';
import {
  applyChange,
  editKey,
  emitReact,
  findingsOf,
  graphOf,
  type InputFile,
  type Project,
  putDelivery,
  putEdit,
  putInteraction,
  readBatch,
  type Screen,
  pressablesOf,
  walkElements,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { launchChromium } from '@tovel/renderer/chromium';
import * as esbuild from 'esbuild';
import { AppBuild, LinkedBuild } from '@tovel/renderer';
import type { Order, Report } from '../packages/server/src/run/build_thread.ts';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';
import { DEMO, fresh, projectOf } from './many_screens.ts';

const files = await folderFiles(DEMO);
const ms = (n: number): string => `${n.toFixed(1)} ms`;
const row = (what: string, ...cells: string[]): void =>
  console.log(what.padEnd(46), cells.map((cell) => cell.padStart(14)).join(''));

/** The middle of several runs, in milliseconds; the first is left out, since it warms up. */
async function median(runs: number, work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i <= runs; i++) {
    const start = performance.now();
    await work();
    if (i) times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
}

async function readingAgainstChromium(): Promise<void> {
  const host = new HeadlessHost();
  const browser = await launchChromium('Measuring', ['--allow-file-access-from-files']);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  console.log('\nReading a screen');
  row('', 'Tovel', 'Chromium', 'times', 'elements');
  const shared = files.filter((file) => !/\.(html|svg)$/.test(file.path));
  for (const file of files.filter((candidate) => /\.(html|svg)$/.test(candidate.path))) {
    let screen: Screen | undefined;
    const batch: InputFile[] = [file, ...shared];
    const read = await median(7, async () => ([screen] = (await readBatch(batch, host)).screens));
    const load = await median(7, async () => {
      await page.goto(`file://${path.join(DEMO, file.path)}`, { waitUntil: 'load' });
      await page.evaluate(() => document.documentElement.getBoundingClientRect().height);
    });
    let elements = 0;
    walkElements(screen!.root, () => void elements++);
    row(`  ${file.path}`, ms(read), ms(load), (read / load).toFixed(2), String(elements));
  }
  await browser.close();
  await host.close();
}

async function writingCode(projects: readonly Project[]): Promise<void> {
  console.log('\nWriting the code of a project');
  row('', ...projects.map((project) => `${project.design.screens.length} screens`), 'growth');
  const compare = async (what: string, work: (project: Project) => unknown): Promise<void> => {
    const times: number[] = [];
    for (const project of projects) {
      const copies = Array.from({ length: 6 }, () => fresh(project));
      times.push(await median(5, () => work(copies.pop()!)));
    }
    row(`  ${what}`, ...times.map(ms), (times.at(-1)! / times[0]).toFixed(1));
  };
  await compare('all files, from nothing', (project) => emitReact(project, 'Bench'));
  await compare('scale: the design as JSON', (project) => JSON.stringify(project.design));
  await compare('graph and findings, from nothing', (project) => findingsOf(project));
  await compare('scale: a plain loop over the elements', (project) => {
    let wired = 0;
    for (const screen of project.design.screens)
      walkElements(screen.root, (element) => void (project.app.interactions[element.key] && wired++));
    return wired;
  });
}

async function editToRun(projects: readonly Project[]): Promise<void> {
  console.log('\nAn edit until Run has its script');
  row('', ...projects.map((project) => `${project.design.screens.length} screens`), 'growth');
  const [first, whole, bundled, alone, graph] = Array.from({ length: 5 }, (): number[] => []);
  for (const project of projects) {
    const build = new LinkedBuild('/bench/');
    // Nobody runs an app's own tests in Run, which writes it without them.
    const copy = fresh(project);
    let now: Project = { ...copy, app: applyChange(copy.app, putDelivery('tests', 'without')) };
    const start = performance.now();
    await build.build(emitReact(now, 'Bench'));
    first.push(performance.now() - start);
    const bundle = new AppBuild('/bench/');
    await bundle.build(emitReact(now, 'Bench'));
    const { element } = pressablesOf(now.design.screens[0])[0];
    let i = 0;
    const edit = (): Project => {
      const screen = now.design.screens[++i % now.design.screens.length].key;
      return {
        ...now,
        app: applyChange(
          now.app,
          putInteraction(element.key, {
            on: 'press',
            target: { kind: 'screen', screen },
            arrival: { kind: 'none' },
          }),
        ),
      };
    };
    whole.push(await median(9, async () => build.build(emitReact((now = edit()), 'Bench'))));
    let emitted = emitReact(now, 'Bench');
    bundled.push(await median(9, async () => bundle.build((emitted = emitReact((now = edit()), 'Bench')))));
    graph.push(await median(9, () => graphOf((now = edit()))));
    const sources = emitted.files.flatMap((file) =>
      'text' in file && file.path.endsWith('.tsx') ? [file.text] : [],
    );
    alone.push(
      await median(5, () =>
        Promise.all(sources.map((source) => esbuild.transform(source, { loader: 'tsx', jsx: 'automatic' }))),
      ),
    );
    await bundle.dispose();
  }
  row('  from nothing', ...first.map(ms), (first.at(-1)! / first[0]).toFixed(1));
  row('  emit and link what changed', ...whole.map(ms), (whole.at(-1)! / whole[0]).toFixed(1));
  row(
    '  scale: emit, and bundle with esbuild',
    ...bundled.map(ms),
    (bundled.at(-1)! / bundled[0]).toFixed(1),
  );
  row('  scale: esbuild alone, every file', ...alone.map(ms), (alone.at(-1)! / alone[0]).toFixed(1));
  row('  the graph after the edit', ...graph.map(ms), (graph.at(-1)! / graph[0]).toFixed(1));
}

/** The same in the thread of the built server, with what goes to it and comes back. */
async function editInBuiltServer(projects: readonly Project[]): Promise<void> {
  const kinds = { first: [] as number[], link: [] as number[], text: [] as number[] };
  for (const project of projects) {
    const worker = new Worker(path.resolve('packages/server/dist/build_thread.mjs'));
    const build = (given: Partial<Extract<Order, { kind: 'build' }>>): Promise<void> =>
      new Promise((resolve, reject) => {
        const hear = (report: Report): void => {
          if (report.kind === 'progress') return;
          worker.off('message', hear);
          if (report.kind === 'built' && !report.built.error) resolve();
          else reject(new Error(JSON.stringify(report)));
        };
        worker.on('message', hear);
        const ended = new Int32Array(new SharedArrayBuffer(4));
        const order = { call: 1, project: 'b', name: 'B', target: 'react', ended } as const;
        worker.postMessage({ kind: 'build', ...order, design: null, app: null, changes: [], ...given });
      });
    const { design, app } = fresh(project);
    const start = performance.now();
    await build({ design, app });
    kinds.first.push(performance.now() - start);
    const [first] = design.screens;
    const { element } = pressablesOf(first)[0];
    let i = 0;
    kinds.link.push(
      await median(25, () => {
        const { key: screen } = design.screens[++i % design.screens.length];
        const target = { kind: 'screen', screen } as const;
        const link = { on: 'press', target, arrival: { kind: 'none' } } as const;
        return build({ changes: [putInteraction(element.key, link)] });
      }),
    );
    let heading = first.root.key;
    walkElements(first.root, ({ key, tag }) => {
      if (tag === 'h1') heading = key;
    });
    kinds.text.push(
      await median(25, () => build({ changes: [putEdit(editKey(heading, 'text'), `Said ${++i} times`)] })),
    );
    await worker.terminate();
  }
  console.log('\nAn edit until the built server has the script of Run');
  row('', ...projects.map(({ design }) => `${design.screens.length} screens`), 'growth');
  for (const [what, times] of Object.entries({
    'from nothing': kinds.first,
    'a link is changed': kinds.link,
    'a text is changed': kinds.text,
  }))
    row(`  ${what}`, ...times.map(ms), (times.at(-1)! / times[0]).toFixed(1));
}

await readingAgainstChromium();
const projects = [await projectOf(20), await projectOf(200)];
await writingCode(projects);
await editToRun(projects);
await editInBuiltServer(projects);
await esbuild.stop();
