import { readFile } from 'node:fs/promises';
import { unpackProject, viewsOf } from '@tovel/core';
import { appOf, drawReference, drawRunning, Renderer } from '@tovel/renderer';
const project = unpackProject(new Uint8Array(await readFile('/tmp/demo.tovel')), 'x');
const files = async (hash: string) => { const bytes = project.bytes.get(hash); const a = project.design.assets.find((o) => o.hash === hash); return bytes && a ? { type: a.type, bytes } : null; };
const r = new Renderer();
const t = performance.now();
const app = await appOf(project, 'x', files);
console.log('app', performance.now() - t);
for (const v of viewsOf(project).slice(3, 9)) {
  let b = performance.now();
  await drawReference(r, project, v, files); console.log('ref', performance.now() - b); b = performance.now();
  await drawRunning(r, app, project, v); console.log('run', performance.now() - b);
}
await r.close();
