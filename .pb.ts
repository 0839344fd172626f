import { fork } from 'node:child_process';
import { request, Agent } from 'undici';
import { parse } from 'parse5';
import { createServer } from 'node:http';
import { readFileSync, writeFileSync } from 'node:fs';
import { ALL_READERS, READERS } from '$core';
import { TracingFetcher } from '$server/fetching/trace';
import { probe } from '$server/probes/probe';
const N = 300;
if (process.argv[2] === 'server') {
	const { heads, drawn } = JSON.parse(readFileSync('/tmp/pb-heads.json', 'utf8'));
	const pic = Buffer.from(drawn, 'base64');
	const filler = '<p>What stands here is as long as the text of a page. '.repeat(60);
	const server = createServer((asked, response) => {
		const path = new URL(asked.url ?? '/', 'http://x.invalid').pathname;
		if (/\.jpe?g$/.test(path)) return void response.writeHead(200, { 'content-type': 'image/jpeg' }).end(pic);
		const head = heads[path];
		if (head === undefined) return void response.writeHead(404).end();
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
		response.end(`<!doctype html><html lang="en"><head><meta charset="utf-8">${head}</head><body>${filler}</body></html>`);
	}).listen(0, '127.0.0.1', () => process.send!((server.address() as any).port));
} else {
	const { heads, base } = JSON.parse(readFileSync('/tmp/pb-heads.json', 'utf8'));
	const some = Object.keys(heads);
	const child = fork(process.argv[1]!, ['server'], { execArgv: [] });
	const port = await new Promise((d) => child.once('message', d));
	const at = `http://127.0.0.1:${port}`;
	const fetcher = new TracingFetcher(new Set(), { origin: new URL(base).origin, at });
	const agent = new Agent();
	const textOf = async (path: string) => (await request(at + path, { dispatcher: agent })).body.text();
	const bare = async (path: string) => {
		const [text = ''] = await Promise.all(Array.from({ length: 8 }, () => textOf(path)));
		parse(text);
		const picture = /property="og:image" content="[^"]*?(\/[^"/]+\.jpe?g)"/.exec(text)?.[1];
		if (picture !== undefined) await (await request(at + picture, { dispatcher: agent })).body.arrayBuffer();
	};
	const probed = (path: string) => probe(fetcher, base + path, READERS);
	async function loop(work: (p: string) => Promise<unknown>) {
		const c = process.cpuUsage(); const began = performance.now();
		for (const path of some) await work(path);
		const u = process.cpuUsage(c); (work as any).cpu = Math.min((work as any).cpu ?? 99, (u.user + u.system) / 1000 / some.length);
		return (performance.now() - began) / some.length;
	}
	async function PROBED() { return loop(probed); }
	async function BARE() { return loop(bare); }
	let [a, b] = [99, 99];
	for (let r = 0; r < Number(process.env.R ?? 4); r++) { if (process.env.ONLY !== 'probed') a = Math.min(a, await BARE()); if (process.env.ONLY !== 'bare') b = Math.min(b, await PROBED()); }
	console.log('bare', a.toFixed(2), 'probed', b.toFixed(2), 'ratio', (a / b).toFixed(3), 'cpu', (bare as any).cpu.toFixed(2), (probed as any).cpu.toFixed(2), ((bare as any).cpu / (probed as any).cpu).toFixed(3));
	const out = await probe(fetcher, base + some[7], ALL_READERS);
	writeFileSync('/tmp/pb-last.json', JSON.stringify(out, (k, v) => (k === 'took' || k === 'began' || k === 'made' ? 0 : v)));
	await fetcher.close(); await agent.close();
	child.kill();
}
