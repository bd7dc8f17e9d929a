import { existsSync, readFileSync, writeFileSync, mkdirSync } from 'node:fs';
import { addToDesign, emptyDesign, readBatch } from '/work/main/packages/core/src/index.ts';
import { HeadlessHost } from '/work/main/packages/reader/src/headless.ts';
import { folderFiles } from '/work/main/packages/reader/src/testing/folder_files.ts';
import { templateFiles } from '/work/main/bench/revisions/prepare.ts';
mkdirSync('/tmp/designs',{recursive:true});
for (const [name, dir] of [['demo','/work/main/demo/iteration-1'],['demo2','/work/main/demo/iteration-2']] as const) {
  const f=`/tmp/designs/${name}.json`;
  if (existsSync(f)) continue;
  const host=new HeadlessHost();
  const files = name.startsWith('demo')?await folderFiles(dir):await templateFiles(dir);
  const read = await readBatch(files, host, { widths: [1280, 390] });
  const design = addToDesign(emptyDesign, read);
  writeFileSync(f, JSON.stringify({design, bytes:[...read.bytes].map(([k,v])=>[k,Buffer.from(v).toString('base64')])}));
  await host.close(); console.log(name, design.screens.length, design.screens.reduce((s,x)=>s+JSON.stringify(x).length,0));
}
