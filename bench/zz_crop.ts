import { decode, encode } from 'fast-png';
import { readFileSync, writeFileSync } from 'node:fs';
const [x, y, w, h, z] = process.argv.slice(2).map(Number);
const p = decode(readFileSync('/tmp/look.png'));
const out = new Uint8Array(w * z * h * z * 4);
for (let j = 0; j < h * z; j++) for (let i = 0; i < w * z; i++) for (let k = 0; k < 4; k++) out[(j * w * z + i) * 4 + k] = p.data[((y + Math.floor(j / z)) * p.width + x + Math.floor(i / z)) * 4 + k];
writeFileSync('/tmp/crop.png', encode({ width: w * z, height: h * z, data: out, channels: 4 }));
