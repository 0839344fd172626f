import { readFileSync } from 'node:fs';
import { readPage } from '$core';
const r = readPage(readFileSync(process.argv[2]!, 'utf8'), 'x.html');
console.log(r.title, '|', r.heading, '|', JSON.stringify(r.contents)?.slice(0, 200)); for (const p of r.paragraphs) console.log(p.cost.toFixed(2), p.text.slice(0, 160));
