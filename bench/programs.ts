import autocannon from 'autocannon';
import { fork, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Resolver, renderHead, type Page } from '$core';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';
import { peakOf } from './memory';

/**
 * What programs ask for, each against the bare thing in the same run: heads of pages that stand nowhere against a server that
 * reads the same JSON and answers the same bytes; the front of a web server against a proxy that passes all on; pages pushed
 * as lines against the same as a table. In turns, the best of several rounds each.
 */
const ROUNDS = 3;
const SECONDS = Number(process.env.PROGRAMS_SECONDS ?? 3);
const PUSHED = Number(process.env.PROGRAMS_PAGES ?? 100_000);
const PORT = 48_950;
const folder = mkdtempSync(join(tmpdir(), 'kephalon-programs-'));
const here = (file: string) => fileURLToPath(new URL(file, import.meta.url));
process.env.KEPHALON_THREAD ??= here('./thread.js');

const [mode, file = '', at = ''] = process.argv.slice(2);
if (mode === 'put') {
	// In a process of its own, whose memory is its own.
	if (file.endsWith('.csv')) {
		const input = {
			db: at,
			name: 'S',
			base: 'https://s.example/',
			source: { kind: 'table', file: readFileSync(file) }
		} as never;
		await JOBS.content(input, () => undefined);
	} else await JOBS.push({ db: at, site: 'S', source: 'bench', file, tells: true }, () => undefined);
	process.stdout.write(`${peakOf(process.pid)}`);
	process.exit(0);
}

const children: ChildProcess[] = [];
const ready = async (child: ChildProcess, port: number, method = 'GET') => {
	children.push(child);
	for (let tries = 0; tries < 200; tries++) {
		const isThere = await fetch(`http://127.0.0.1:${port}/`, { method }).then(
			() => true,
			() => false
		);
		if (isThere) return;
		await new Promise((done) => setTimeout(done, 50));
	}
	throw new Error(`Nothing answers at ${port}.`);
};
const bare = (kind: string, port: number, env: Record<string, string> = {}) =>
	ready(
		fork(here('./bareKinds.js'), [], {
			env: { ...process.env, BARE_KIND: kind, BARE_PORT: String(port), ...env },
			silent: true
		}),
		port
	);
const kephalon = (args: readonly string[], port: number) =>
	ready(fork(here('../../bin/kephalon.js'), args, { env: { ...process.env, KEPHALON_DB: db }, silent: true }), port);

const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
const types = [
	{
		...{ name: 'boat', fields: [{ name: 'harbour', kind: 'text' }] },
		rules: [{ tag: 'title', kind: 'template', template: '{page.title}[[ at {page.harbour}]] {separator} {site.name}' }]
	}
];
const fieldsOf = (n: number) => ({
	...{ title: `Boat ${n} of the shore`, harbour: `Harbour ${n % 40}` },
	summary: `What boat ${n} is, where she lies, and when she goes out. `.repeat(3).trim()
});
const boat = (n: number) => ({ path: `/boats/${n}`, type: 'boat', fields: fieldsOf(n) });
const PAGES = 500;
const db = join(folder, 'p.db');
const store = new Store(db);
const pages = Array.from({ length: PAGES }, (_, n): Page => ({ ...boat(n), state: 'live', rules: [] }));
const siteFile = { format: 'kephalon-site', version: 2, site, types, pages, pictures: [], redirects: {} };
saveSiteFile(store, siteFile as never);
JOBS.release({ db, site: 'S' }, () => undefined);
store.close();

interface Load {
	readonly path: string;
	readonly body?: string;
}
async function load(port: number, requests: readonly Load[]): Promise<{ perSecond: number; p50: number }> {
	const result = await autocannon({
		...{ url: `http://127.0.0.1:${port}`, connections: 20, duration: SECONDS },
		requests: requests.map(({ path, body }) => ({
			path,
			...(body !== undefined && { method: 'POST' as const, body, headers: { 'content-type': 'application/json' } })
		}))
	});
	if (result.errors > 0 || result['4xx'] > 0 || result['5xx'] > 0)
		throw new Error(`Some requests failed: ${JSON.stringify([result.errors, result['4xx'], result['5xx']])}`);
	return { perSecond: result.requests.average, p50: result.latency.p50 };
}
async function best(contenders: Readonly<Record<string, () => Promise<{ perSecond: number }>>>) {
	const found: Record<string, number> = {};
	for (let round = 0; round < ROUNDS; round++)
		for (const [name, run] of Object.entries(contenders))
			found[name] = Math.max(found[name] ?? 0, (await run()).perSecond);
	return found;
}
const say = (what: string, value: number, target: string, isMet: boolean) =>
	console.log(`${what.padEnd(62)}${value.toFixed(2).padStart(8)}  (${target})${isMet ? '' : '  missed'}`);
const least = (what: string, value: number, target: number) => say(what, value, `at least ${target}`, value >= target);
const most = (what: string, value: number, target: number) => say(what, value, `at most ${target}`, value <= target);

try {
	// Heads of pages that stand nowhere.
	await kephalon(['serve', '--port', String(PORT)], PORT);
	const heads = '/api/v1/sites/S/heads';
	const one = Array.from({ length: 50 }, (_, n) => ({ path: heads, body: JSON.stringify({ pages: [boat(n)] }) }));
	const hundred = Array.from({ length: 5 }, (_, n) => ({
		path: heads,
		body: JSON.stringify({ pages: Array.from({ length: 100 }, (__, k) => boat(n * 100 + k)) })
	}));
	const answered = async ({ path, body }: Load) => {
		const answer = await fetch(`http://127.0.0.1:${PORT}${path}`, {
			method: 'POST',
			body: body!,
			headers: { 'content-type': 'application/json' }
		});
		if (!answer.ok) throw new Error(await answer.text());
		return Buffer.from(await answer.arrayBuffer()).toString('base64');
	};
	await bare('json', PORT + 1, { BARE_BODY: await answered(one[0]!) });
	const single = await best({ heads: () => load(PORT, one), bare: () => load(PORT + 1, one) });
	least('heads, one page a request, of a bare server', single.heads! / single.bare!, 0.4);
	const resolver = new Resolver({ site, types, pictures: [] } as never, new Date().toISOString());
	const core = async () => {
		const [began, until] = [performance.now(), performance.now() + SECONDS * 1000];
		let done = 0;
		while (performance.now() < until) {
			for (let n = 0; n < 100; n++) renderHead(resolver.resolveHead({ ...boat(n), state: 'live', rules: [] }));
			done++;
		}
		return { perSecond: (done / (performance.now() - began)) * 1000 };
	};
	const many = await best({ heads: () => load(PORT, hundred), core });
	least('heads, a hundred a request, of the core alone', many.heads! / many.core!, 0.7);
	console.log(
		`  ${single.heads!.toFixed(0)} requests of one page a second, bare ${single.bare!.toFixed(0)}; ${(many.heads! * 100).toFixed(0)} heads a second a hundred at a time`
	);

	// In front of a web server.
	const html = `<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>Its own</title>\n<link rel="stylesheet" href="/site.css">\n</head>\n<body>${'<p>What stands here is as long as the text of a page.</p>\n'.repeat(520)}</body>\n</html>\n`;
	const behind = PORT + 2;
	if (existsSync('/usr/sbin/nginx')) {
		mkdirSync(join(folder, 'www/boats'), { recursive: true });
		for (let n = 0; n < PAGES; n++) writeFileSync(join(folder, `www/boats/${n}`), html);
		mkdirSync(join(folder, 'www/bare'));
		for (let n = 0; n < PAGES; n++) writeFileSync(join(folder, `www/bare/${n}`), html);
		const temp = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
			(kind) => `${kind}_temp_path ${join(folder, kind)};`
		);
		writeFileSync(
			join(folder, 'nginx.conf'),
			`daemon off; user root; pid ${join(folder, 'pid')}; error_log stderr; events {} http { default_type "text/html; charset=utf-8"; access_log off; keepalive_requests 1000000; ${temp.join(' ')} server { listen 127.0.0.1:${behind}; root ${join(folder, 'www')}; } }`
		);
		await ready(
			spawn('/usr/sbin/nginx', ['-e', 'stderr', '-c', join(folder, 'nginx.conf')], { stdio: 'ignore' }),
			behind
		);
	} else await bare('site', behind, { BARE_BODY: Buffer.from(html).toString('base64') });
	const upstream = `http://127.0.0.1:${behind}`;
	await bare('pipe', PORT + 3, { BARE_UPSTREAM: upstream });
	await kephalon(['front', '--site', 'S', '--upstream', upstream, '--port', String(PORT + 4)], PORT + 4);
	const under = (where: string) => Array.from({ length: PAGES }, (_, n) => ({ path: `/${where}/${n}` }));
	const fronted = await best({
		front: () => load(PORT + 4, under('boats')),
		pipe: () => load(PORT + 3, under('boats'))
	});
	least('front, pages with heads, of a proxy that passes all on', fronted.front! / fronted.pipe!, 0.5);
	const others = await best({ front: () => load(PORT + 4, under('bare')), pipe: () => load(PORT + 3, under('bare')) });
	least('front, pages without a head', others.front! / others.pipe!, 0.9);
	const firstByte = async (port: number) => {
		const all: number[] = [];
		for (let n = 0; n < 200; n++) {
			const began = performance.now();
			const answer = await fetch(`http://127.0.0.1:${port}/boats/${n}`);
			const reader = answer.body!.getReader();
			await reader.read();
			all.push(performance.now() - began);
			for (let next = await reader.read(); !next.done; next = await reader.read());
		}
		return all.sort((a, b) => a - b)[100]!;
	};
	most(
		'front, first byte later than by that proxy, ms (median)',
		(await firstByte(PORT + 4)) - (await firstByte(PORT + 3)),
		3
	);

	// The middleware, with its heads at hand.
	const page = Buffer.from(html).toString('base64');
	await bare('page', PORT + 5, { BARE_BODY: page });
	await bare('middleware', PORT + 6, { BARE_BODY: page, BARE_UPSTREAM: `http://127.0.0.1:${PORT}` });
	await load(PORT + 6, under('boats'));
	const middled = await best({
		middleware: () => load(PORT + 6, under('boats')),
		page: () => load(PORT + 5, under('boats'))
	});
	most('middleware, a page more than without it, ms', 1000 / middled.middleware! - 1000 / middled.page!, 0.3);
	console.log(
		`  ${middled.middleware!.toFixed(0)} pages of ${Math.round(html.length / 1000)} kB a second, ${middled.page!.toFixed(0)} without`
	);

	// Pages pushed.
	const csv = join(folder, 'pages.csv');
	const lines = join(folder, 'pages.ndjson');
	const quoted = (text: string) => `"${text}"`;
	const all = Array.from({ length: PUSHED }, (_, n) => boat(n));
	writeFileSync(
		csv,
		`path,type,title,harbour,summary\n${all.map(({ path, type, fields: { title, harbour, summary } }) => [path, type, title, harbour, summary].map(quoted).join(',')).join('\n')}\n`
	);
	writeFileSync(lines, `${all.map((one) => JSON.stringify(one)).join('\n')}\n`);
	const put = async (from: string) => {
		const into = join(folder, `${Math.random()}.db`);
		const fresh = new Store(into);
		saveSiteFile(fresh, { ...siteFile, pages: [] } as never);
		fresh.close();
		const began = performance.now();
		const child = fork(here('./programs.js'), ['put', from, into], { silent: true });
		let told = '';
		child.stdout!.on('data', (part: Buffer) => (told += part.toString()));
		let failed = '';
		child.stderr!.on('data', (part: Buffer) => (failed += part.toString()));
		const code = await new Promise((done) => child.once('exit', done));
		if (code !== 0) throw new Error(`Putting in ${from} ended with ${String(code)}: ${failed}`);
		return { seconds: (performance.now() - began) / 1000, peak: Number(told) };
	};
	let [push, table] = [await put(lines), await put(csv)];
	for (let round = 1; round < 2; round++) {
		const [p, t] = [await put(lines), await put(csv)];
		if (p.seconds < push.seconds) push = p;
		if (t.seconds < table.seconds) table = t;
	}
	most(`${PUSHED.toLocaleString('en')} pages pushed, time of the same as a table`, push.seconds / table.seconds, 1.3);
	console.log(
		`  pushed in ${push.seconds.toFixed(1)} s and ${push.peak.toFixed(0)} MB; as a table ${table.seconds.toFixed(1)} s and ${table.peak.toFixed(0)} MB`
	);
} finally {
	for (const child of children) child.kill();
	rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
}
