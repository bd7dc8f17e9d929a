import { readBatch } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
const host = new HeadlessHost();
const { screens } = await readBatch([{ path: 'a.html', bytes: new TextEncoder().encode('<style>.s .n[data-toggle=collapse]::after{content:"x";float:right} .s .n[data-toggle=collapse].c::after{content:"\\f105"}</style><body><div class="s"><a class="n c" href="#" data-toggle="collapse" id="a">Hi</a></div>') }], host);
console.log(JSON.stringify(screens[0].root, null, 1)); await host.close();
