import { readFileSync } from 'node:fs';
import { findComponents, unpackProject } from '@tovel/core';
for (const f of process.argv.slice(2)) {
  const { design } = unpackProject(new Uint8Array(readFileSync(f)));
  const t=performance.now();
  const found = findComponents(design.screens);
  console.log('\n##', f, found.length, Math.round(performance.now()-t)+' ms');
  for (const p of found.slice(0, 26)) console.log(p.kind==='list'?'L':'C', p.name.padEnd(28), String(p.places.length).padStart(4), String(p.saves).padStart(5), p.confidence.toFixed(2), p.places.slice(0,3).join(' '), '|', p.reason);
}
