import { readFileSync, writeFileSync, mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { applyChange, emptyApp, takeIn, deliveredCode, partedAtFirst } from '@tovel/core';
const name=process.argv[2];
const {design}=JSON.parse(readFileSync(`/tmp/designs/${name}.json`,'utf8'));
let app=applyChange(emptyApp, takeIn({design,app:emptyApp},design.screens));
app = applyChange(app, partedAtFirst({design,app}));
const {files}=await deliveredCode({design,app},name,'html');
rmSync('/tmp/dh',{recursive:true,force:true});
for (const f of files) if ('text' in f) { const p=path.join('/tmp/dh',f.path); mkdirSync(path.dirname(p),{recursive:true}); writeFileSync(p,f.text); }
