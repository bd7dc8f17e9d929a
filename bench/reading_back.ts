/**
 * Whether what people change in delivered code, and what means something in the design, is recognised: texts and link targets of
 * projects (`.tovel` files) are changed in the code, a file at a time as a person would, all are read back at once, and what is
 * offered is held against the very element that was meant. `npm run bench -- reading_back FILE.tovel...`
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { plannerInto, type Project, settle, unpackProject, walkElements } from '@tovel/core';
import { chance } from '../packages/core/src/testing/chance.ts';

/** Texts that are changed in each project. */
const EDITS = 80;

const decoder = new TextDecoder();
const encoder = new TextEncoder();

for (const file of process.argv.slice(2)) {
  const project = unpackProject(new Uint8Array(readFileSync(file)));
  const folder = new Map<string, Uint8Array>();
  const plan = async () =>
    (
      await plannerInto({
        project,
        name: project.name,
        target: 'react',
        pictureOf: (hash) => project.bytes.get(hash),
        folder: {
          read: (at) => Promise.resolve(folder.get(at) ?? null),
          list: () => Promise.resolve([...folder.keys()]),
        },
      })
    )(new Map());
  for (const [at, bytes] of (await plan()).writes) if (bytes) folder.set(at, bytes);
  const meant = edit(project, folder, chance(7));
  const began = performance.now();
  const { offers } = await plan();
  const ms = performance.now() - began;
  const offered = new Map(
    offers.map(({ change }) => [
      change.kind === 'put' ? change.key : '',
      change.kind === 'put' ? change.value : null,
    ]),
  );
  const right = meant.filter(({ key, value }) => String(offered.get(key)).trim() === value).length;
  const wrong = offers.length - right;
  console.log(
    `${path.basename(file).padEnd(40)} ${meant.length} texts changed, ${right} offered right, ${wrong} otherwise, ${meant.length - right} left to merging; ${ms.toFixed(0)} ms with planning`,
  );
}

/** Changes texts that stand once in a file of a screen. */
function edit(
  project: Project,
  folder: Map<string, Uint8Array>,
  random: () => number,
): { readonly key: string; readonly value: string }[] {
  const { design } = settle(project);
  const texts: { readonly key: string; readonly text: string }[] = [];
  for (const { root } of design.screens)
    walkElements(root, (element) => {
      const text = element.text?.replace(/\s+/g, ' ').trim() ?? '';
      if (/^[A-Za-z][A-Za-z ,.]{4,}$/.test(text)) texts.push({ key: element.key, text });
    });
  // What is said within something else could be meant there.
  const unique = texts.filter(({ text }) => texts.filter((other) => other.text.includes(text)).length === 1);
  const taken = new Set<string>();
  const made: { readonly key: string; readonly value: string }[] = [];
  while (made.length < EDITS && unique.length) {
    const [{ key, text }] = unique.splice(Math.floor(random() * unique.length), 1);
    for (const [at, bytes] of folder) {
      if (!at.endsWith('.tsx')) continue;
      const code = decoder.decode(bytes);
      const line = code.split('\n').find((one) => one.includes(text));
      if (code.split(text).length !== 2 || line === undefined || taken.has(line)) continue;
      const value = `${text.replace(/[.,]+$/, '')} anew`;
      taken.add(line.replace(text, value));
      folder.set(at, encoder.encode(code.replace(text, value)));
      made.push({ key: `${key}||text`, value });
      break;
    }
  }
  return made;
}
