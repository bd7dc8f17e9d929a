/**
 * What large and hostile files cost intake: seconds and the most memory at once, each in a process of its own, beside a
 * process that only holds the file. `npm run bench -- intake_memory`
 */
import { spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { readBatch } from '@tovel/core';

const drawing = (inside: string): Uint8Array =>
  strToU8(`<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300">${inside}</svg>`);
const spaces = (size: number): Uint8Array => new Uint8Array(size).fill(32);

/** Files by the name of the case; a good drawing goes with each. */
const cases: Readonly<Record<string, () => { readonly path: string; readonly bytes: Uint8Array }>> = {
  'a path of 20 MB': () => ({
    path: 'long.svg',
    bytes: drawing(`<path d="M0 0${'L1 1'.repeat(5_000_000)}"/>`),
  }),
  'a path of 5 MB': () => ({
    path: 'long.svg',
    bytes: drawing(`<path d="M0 0${'L1 1'.repeat(1_250_000)}"/>`),
  }),
  'a style sheet of 10 MB': () => ({
    path: 'sheet.svg',
    bytes: drawing(`<style>${'.a{fill:red}'.repeat(850_000)}</style><rect width="9" height="9"/>`),
  }),
  'forty files of 24 MB that pack well': () => ({
    path: 'forty.zip',
    bytes: zipSync(
      Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`${i}.svg`, spaces(24 * 2 ** 20)])),
    ),
  }),
  'forty pictures of 2 MB that do not pack': () => ({
    path: 'forty.zip',
    bytes: zipSync(
      Object.fromEntries(
        Array.from({ length: 40 }, (_, i) => [`${i}.png`, new Uint8Array(randomBytes(2 * 2 ** 20))]),
      ),
    ),
  }),
  'twenty thousand rectangles': () => ({
    path: 'many.svg',
    bytes: drawing(
      Array.from(
        { length: 19_000 },
        (_, i) => `<rect x="${i % 390}" y="${i % 290}" width="9" height="9" fill="#${(i % 900) + 100}"/>`,
      ).join(''),
    ),
  }),
};

const [work, name, file] = process.argv.slice(2);
if (work === 'make') {
  const made = cases[name]();
  writeFileSync(path.join(file, made.path), made.bytes);
} else if (work) {
  const [only] = readdirSync(file);
  const bytes = new Uint8Array(readFileSync(path.join(file, only)));
  const begun = performance.now();
  if (work === 'read') {
    const good = { path: 'good.svg', bytes: drawing('<rect width="50" height="50" fill="red"/>') };
    const { screens } = await readBatch([good, { path: only, bytes }], {
      readPage: () => Promise.reject(new Error('no pages here')),
      addressOf: ({ hash }) => hash,
    });
    if (!screens.some((screen) => screen.source.file === 'good.svg'))
      throw new Error('The good file is lost');
  }
  const seconds = (performance.now() - begun) / 1000;
  console.log(JSON.stringify({ seconds, mb: process.resourceUsage().maxRSS / 1024, size: bytes.length }));
} else {
  const child = (...args: readonly string[]): string => {
    const { stdout, stderr, status } = spawnSync(
      process.execPath,
      ['--import', 'tsx', import.meta.filename, ...args],
      { encoding: 'utf8' },
    );
    if (status) throw new Error(stderr);
    return stdout;
  };
  for (const of of Object.keys(cases)) {
    const folder = mkdtempSync(path.join(tmpdir(), 'tovel-bench-'));
    child('make', of, folder);
    const [held, read] = ['hold', 'read'].map(
      (how) => JSON.parse(child(how, of, folder)) as { seconds: number; mb: number; size: number },
    );
    rmSync(folder, { recursive: true });
    console.log(
      `${of} (${(read.size / 2 ** 20).toFixed(1)} MB): ${read.seconds.toFixed(1)} s, ${read.mb.toFixed(0)} MB at most; ${held.mb.toFixed(0)} MB to hold it`,
    );
  }
}
