import { readFile } from 'node:fs/promises';
import { unpackProject, viewsOf } from '@tovel/core';
import { pairRenderings, pairsWithin } from '../packages/core/src/compare/pairs.ts';
import { appOf, drawRunning, drawReference, Renderer } from '@tovel/renderer';
const project = unpackProject(new Uint8Array(await readFile('/tmp/black-dashboard.tovel')), 'x');
const files = async (hash: string) => { const bytes = project.bytes.get(hash); const a = project.design.assets.find((o) => o.hash === hash); return bytes && a ? { type: a.type, bytes } : null; };
const r = new Renderer();
const app = await appOf(project, 'x', files);
const view = viewsOf(project).find((v) => v.screen === 'notifications' && v.width === 1280)!;
const b = await drawRunning(r, app, project, view);
const a = await drawReference(r, project, view, files);
await r.close();
const root = pairRenderings(a.rendering.root, b.rendering.root);
for (const p of pairsWithin(root)) { if (p.gone.length || p.added.length) console.log(p.was.tag, p.was.path, p.was.classes, '->', p.is.tag, p.is.classes, '\n   gone', p.gone.map((g) => `${g.tag}.${g.classes}${g.isIcon} ${JSON.stringify(g.box)} ${g.text}`).join('; '), '\n   added', p.added.map((g) => `${g.tag}.${g.classes}${g.isIcon} ${JSON.stringify(g.box)} ${g.text}`).join('; ')); }
const find = (e: any, p: (x: any) => boolean): any => (p(e) ? e : e.children.map((c: any) => find(c, p)).find(Boolean));
console.log(JSON.stringify(find(b.rendering.root, (x) => /navIcon/.test(x.classes)), (k, v) => (k === 'styles' ? undefined : v)));
