import { readFileSync } from 'node:fs';
import path from 'node:path';
import { createServer } from 'node:http';
import { applyChange, emptyApp, takeIn, deliveredCode, partedAtFirst } from '@tovel/core';
import { chromium } from '/work/main/node_modules/playwright-core/index.mjs';
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
const pg=await b.newPage();
for (const f of files) if(f.path.endsWith('index.html') && !(f as any).text.includes('http-equiv="refresh"')) { const res:string[]=[]; 
 for (const w of [320,360,390,480,600,768,900,1024,1280,1440,1600]) { await pg.setViewportSize({width:w,height:800}); if(res.length===0) await pg.goto(base+f.path.replace(/index.html$/,'')); await pg.waitForTimeout(30);
  const o=await pg.evaluate(()=>{const d=document.documentElement; const over=d.scrollWidth-d.clientWidth; if(over<=0) return null; let worst:any=null; for(const e of document.body.querySelectorAll('*')){const r=e.getBoundingClientRect(); if(r.right>d.clientWidth+0.5 && r.width>0 && (!worst|| r.right>=worst.r)) worst={r:r.right,c:e.tagName+'.'+String((e as any).className?.baseVal??e.className).slice(0,40),w:Math.round(r.width)};} return [over,worst?.c,worst?.w];});
  res.push(o?`${w}:+${o[0]}(${o[1]} ${o[2]})`:''); }
 const bad=res.filter(Boolean); if(bad.length) console.log(name,f.path,bad.slice(0,3).join(' '), bad.length>3?`… ${bad.length}`:''); }
await pg.close(); srv.close(); console.log(name,'done',files.filter(f=>f.path.endsWith('index.html')).length);
}
await b.close();
