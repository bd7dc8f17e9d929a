/**
 * The delivered app in each target that is built: installed once, checked, built and tested, how much JavaScript it loads at first
 * and beyond an empty app, and how many pixels of each screen differ from its picture. `npm run bench -- targets [PACKAGE...]`
 * measures others; plain pages are measured by `pages`.
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { deliveredCode, EmissionPlan, emitScreenOf, type InputFile, printHtml } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { launchChromium } from '@tovel/renderer/chromium';
import { bareName, installed } from './installed.ts';
import { partedPile, pileFiles } from './parted_pile.ts';
import { differing, serving } from './serving.ts';

const TARGETS = ['react', 'vue'] as const;
const PILES = ['demo', 'startbootstrap-sb-admin-2@4.1.4', 'black-dashboard@1.0.0', 'soft-ui-dashboard@1.0.1'];

const wanted = process.argv.slice(2);
const packages = wanted.length ? wanted : PILES;
const packaged = await installed(packages.filter((name) => name !== 'demo'));
const work = await mkdtemp(path.join(os.tmpdir(), 'tovel-targets-'));
const host = new HeadlessHost();
const browser = await launchChromium('Measuring');
try {
  for (const name of packages) {
    const files = await pileFiles(name, packaged.rootOf);
    for (const target of TARGETS) await measure(bareName(name), files, target);
  }
} finally {
  await browser.close();
  await host.close();
  await packaged.remove();
  rmSync(work, { recursive: true, force: true });
}

function run(folder: string, ...args: string[]): string {
  return execFileSync('npm', args, {
    cwd: folder,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, CI: 'true', NO_COLOR: '1' },
  });
}

async function measure(
  name: string,
  source: readonly InputFile[],
  target: (typeof TARGETS)[number],
): Promise<void> {
  const { project, bytes: kept } = await partedPile(source, host);
  const { design } = project;
  const { files } = await deliveredCode(project, name, target);
  const folder = path.join(work, `${name}-${target}`);
  for (const file of files) {
    const at = path.join(folder, file.path);
    mkdirSync(path.dirname(at), { recursive: true });
    writeFileSync(at, 'text' in file ? file.text : (kept.get(file.asset) ?? ''));
  }
  // Packages of a target are installed once.
  const packagesOf = path.join(work, target);
  try {
    mkdirSync(packagesOf);
    writeFileSync(path.join(packagesOf, 'package.json'), readFileSync(path.join(folder, 'package.json')));
    run(packagesOf, 'install', '--no-audit', '--no-fund', '--silent');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
  }
  symlinkSync(path.join(packagesOf, 'node_modules'), path.join(folder, 'node_modules'));
  const said = (...args: string[]): string => {
    try {
      return run(folder, ...args);
    } catch (error) {
      return `failed: ${String((error as { stdout?: string }).stdout).slice(-400)}`;
    }
  };
  const built = said('run', 'build');
  const tests = /Tests\s+(.*)/.exec(said('test'))?.[1] ?? 'do not run';
  const dist = path.join(folder, 'dist');
  const content = new Map<string, string | Uint8Array>();
  for (const entry of readdirSync(dist, { recursive: true, withFileTypes: true }))
    if (entry.isFile()) {
      const at = path.join(entry.parentPath, entry.name);
      content.set(path.relative(dist, at), readFileSync(at));
    }
  const scripts = [...content].filter(([file]) => file.endsWith('.js'));
  const first = scripts.filter(([file]) => /assets\/index-/.test(file));
  const kB = (some: readonly (readonly [string, string | Uint8Array])[]): string =>
    (some.reduce((sum, [, bytes]) => sum + gzipSync(bytes).length, 0) / 1000).toFixed(1);
  const plan = new EmissionPlan(project);
  for (const key of plan.screens)
    content.set(
      `pictures/${key}.html`,
      printHtml(emitScreenOf(plan, key), (hash) => `../kept/${hash}`, design.fonts, project.app.tokens),
    );
  const types = new Map(design.assets.map(({ hash, type }) => [`kept/${hash}`, type]));
  for (const { hash } of design.assets) content.set(`kept/${hash}`, kept.get(hash) ?? '');
  const site = await serving(content, types, 'index.html');
  const still = await browser.newContext({ reducedMotion: 'reduce' });
  try {
    let most = 0;
    for (const key of plan.screens) {
      const screen = design.screens.find((one) => one.key === key)!;
      const isPage = /\.x?html?$/i.test(screen.source.file);
      const size = { width: isPage ? 1280 : screen.width, height: Math.min(screen.height, 1500) };
      const address = site.at(project.app.screens[key].route.slice(1));
      most = Math.max(
        most,
        await differing(still, size, address, site.at(`pictures/${encodeURIComponent(key)}.html`)),
      );
    }
    console.log(
      `  ${name} as ${target}: ${built.includes('built in') ? 'builds' : built}; tests ${tests}; pixels at most ${most.toFixed(2)} %; scripts at first ${kB(first)} kB, all ${kB(scripts)} kB (gzip), largest of a screen ${(Math.max(0, ...scripts.filter((one) => !first.includes(one)).map(([, bytes]) => gzipSync(bytes).length)) / 1000).toFixed(1)} kB`,
    );
  } finally {
    await still.close();
    site.server.close();
  }
}
