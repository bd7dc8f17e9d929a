import { readProject } from '../packages/cli/src/files.ts';
import { findDisclosures } from '../packages/core/src/disclosures/find.ts';
const { design, app } = await readProject('/tmp/q/tk.tovel') as any;
const by = new Map<string, Set<string>>();
for (const s of design.screens) for (const p of findDisclosures(s)) { const k = p.confidence + ' ' + p.parts.map(([, d]: any) => d.kind + ' ' + d.name).join() + ' | ' + p.controls.length + ' ' + p.reason; (by.get(k) ?? by.set(k, new Set()).get(k)!).add(s.key); }
for (const [k, v] of [...by].sort((a, b) => b[1].size - a[1].size)) console.log(v.size, k);
