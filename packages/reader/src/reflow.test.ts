import path from 'node:path';
import { readFileSync } from 'node:fs';
import { inferRoles, readBatch, scoreRoles, sightOf } from '@tovel/core';
import { HeadlessHost } from './headless.ts';
import { folderFiles } from './testing/folder_files.ts';
import { hideTags } from './testing/hide_tags.ts';
import { measureReflow } from './testing/reflow.ts';

const root = path.resolve(__dirname, '../../..');
const demo = path.join(root, 'demo/iteration-1');

test('at three quarters and at one and a half of their width the demo’s drawings overlap nowhere and nothing is cut off', async () => {
  const files = await folderFiles(demo);
  const faults = await measureReflow(files.filter((file) => !file.path.endsWith('.html')));
  expect(faults).toEqual([]);
}, 120_000);

test('roles of the demo’s pages are found again after their tags were hidden: macro F1 of at least 0.9', async () => {
  const files = await folderFiles(demo);
  const text = (name: string): string => readFileSync(path.join(demo, name), 'utf8');
  const sheets = new Map([['desk.css', text('desk.css')]]);
  const [right, found] = [new Map<string, string>(), new Map<string, string>()];
  const host = new HeadlessHost();
  for (const file of files.filter((candidate) => candidate.path.endsWith('.html'))) {
    const hidden = hideTags(text(file.path), sheets);
    // Nothing that tells is left but how things are called.
    expect(hidden.html.replace(/<style>[^]*?<\/style>/, '')).not.toMatch(
      /<(a|button|nav|ul|table|h1|input)\b|role=|aria-/,
    );
    const page = { path: file.path, bytes: new TextEncoder().encode(hidden.html) };
    const others = files.filter((other) => !/\.(html|css|svg)$/.test(other.path));
    const { screens } = await readBatch([page, ...others], host);
    const screen = screens.find(({ source }) => source.file === file.path)!;
    const guesses = inferRoles(screen);
    for (const { element } of sightOf(screen).all) {
      const role = hidden.truth.get(element.source.path);
      const guess = guesses.get(element.key)?.role;
      if (role) right.set(`${file.path} ${element.source.path}`, role);
      if (guess && !['icon', 'label', 'chart'].includes(guess))
        found.set(`${file.path} ${element.source.path}`, guess === 'avatar' ? 'image' : guess);
    }
  }
  await host.close();
  const { macroF1, byRole } = scoreRoles(right, found);
  expect(right.size).toBeGreaterThan(150);
  if (macroF1 < 0.9) throw new Error(`macro F1 ${macroF1.toFixed(3)}: ${JSON.stringify([...byRole])}`);
}, 120_000);
