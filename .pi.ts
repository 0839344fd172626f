import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { readFiles } from '$server/imports/readFiles';
const top = process.argv[2]!;
const files: any[] = [];
const walk = (d: string) => { for (const e of readdirSync(d, { withFileTypes: true })) { const p = join(d, e.name); if (e.isDirectory()) walk(p); else if (e.name.endsWith('.html')) { const s = statSync(p); files.push({ file: p, path: p.slice(top.length + 1), stamp: { size: s.size, modified: s.mtimeMs } }); } } };
walk(top);
async function GO(n: number) { const b = performance.now(); await readFiles(files.slice(n * 48, n * 48 + 48), false); console.log(n, (performance.now() - b).toFixed(0)); }
for (let n = 0; n < 100; n++) await GO(n);
