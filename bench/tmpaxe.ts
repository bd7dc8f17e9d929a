import { readFileSync } from 'node:fs';
import path from 'node:path';
import { createServer } from 'node:http';
import { applyChange, emptyApp, takeIn, deliveredCode, partedAtFirst } from '@tovel/core';
import { chromium } from '/work/main/node_modules/playwright-core/index.mjs';
const axe=readFileSync('/tmp/bl/node_modules/axe-core/axe.min.js','utf8');
const b=await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox']});
for (const name of process.argv.slice(2)) {
const {design,bytes}=JSON.parse(readFileSync(`/tmp/designs/${name}.json`,'utf8'));
const by=new Map<string,Buffer>(bytes.map(([k,v]:any)=>[k,Buffer.from(v,'base64')]));
let app=applyChange(emptyApp, takeIn({design,app:emptyApp},design.screens));
app = applyChange(app, partedAtFirst({design,app}));
const {files}=await deliveredCode({design,app},name,'html');
const map=new Map(files.map((f:any)=>[f.path,'text' in f?f.text:by.get(f.asset)]));
const types:any={'.js':'text/javascript','.css':'text/css','.html':'text/html','.svg':'image/svg+xml'};
const srv=createServer((q,r)=>{let u=decodeURIComponent(q.url!.split('?')[0]).slice(1); if(u===''||u.endsWith('/'))u+='index.html'; const f=map.get(u); r.writeHead(f!==undefined?200:404,{'content-type':types[path.extname(u)]??'image/png'}).end(f??'');}).listen(0);
const base=`http://127.0.0.1:${(srv.address() as any).port}/`;
const pg=await b.newPage({viewport:{width:1280,height:800}});
const total=new Map<string,[number,string]>();
for (const f of files) if(f.path.endsWith('index.html') && !(f as any).text.includes('http-equiv')) {
 await pg.goto(base+f.path.replace(/index.html$/,'')); await pg.evaluate(axe);
 const v=await pg.evaluate(async()=>{const r=await (window as any).axe.run(document,{resultTypes:['violations']}); return r.violations.filter((x:any)=>/serious|critical/.test(x.impact)).map((x:any)=>[x.id,x.nodes.length,x.nodes[0].html.slice(0,110)]);});
 for(const [id,n,h] of v as any){const t=total.get(id)??[0,h]; total.set(id,[t[0]+n,t[1]]);}
}
console.log(name); for (const [id,[n,h]] of total) console.log('   ',id,n,h);
await pg.close(); srv.close();
}
await b.close();
