import autocannon from 'autocannon';
import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '$core';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';

/**
 * Delivery of released heads by one process, against a bare Node server that answers every request with the same body:
 * one head, 2,000 heads in turn, and requests that are answered with 304. In turns, the best of several rounds each.
 */
const PAGES = 2000;
const ROUNDS = 3;
const SECONDS = Number(process.env.DELIVERY_SECONDS ?? 4);
const CONNECTIONS = 20;
/** So many requests are made to see whether memory grows. */
const MANY = Number(process.env.DELIVERY_REQUESTS ?? 200_000);
const PORT = 48_917;

const folder = mkdtempSync(join(tmpdir(), 'kephalon-delivery-'));
const db = join(folder, 'd.db');
const children: ChildProcess[] = [];

function fill() {
	const store = new Store(db);
	const pages = Array.from({ length: PAGES }, (_, at): Page => ({
		...{ path: `/p/${at}`, type: 'page', state: 'live', rules: [] },
		fields: { title: `Page ${at} of the shore`, summary: `What page ${at} says of the shore and its tides. `.repeat(3) }
	}));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, types: [{ name: 'page', fields: [], rules: [] }], pages, pictures: [] },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	} as never);
	JOBS.release({ db, site: 'S' }, () => undefined);
	store.close();
}

const here = (file: string) => fileURLToPath(new URL(file, import.meta.url));

async function start(file: string, args: string[], env: Record<string, string>, isReady: () => Promise<boolean>) {
	const child = fork(here(file), args, { env: { ...process.env, ...env }, silent: true });
	children.push(child);
	for (let tries = 0; tries < 100; tries++) {
		if (await isReady()) return child;
		await new Promise((resolve) => setTimeout(resolve, 100));
	}
	throw new Error(`${file} does not answer.`);
}
const answers = (port: number, path: string) => () =>
	fetch(`http://127.0.0.1:${port}${path}`).then(
		(response) => response.ok,
		() => false
	);

const pathOf = (at: number) => `/api/sites/S/head?path=/p/${at % PAGES}`;
interface Load {
	readonly paths: readonly string[];
	readonly headers: Readonly<Record<string, string>>;
}

async function requestsPerSecond(port: number, { paths, headers }: Load): Promise<number> {
	const result = await autocannon({
		url: `http://127.0.0.1:${port}`,
		connections: CONNECTIONS,
		duration: SECONDS,
		requests: paths.map((path) => ({ path })),
		headers
	});
	if (result.errors > 0 || result['4xx'] > 0 || result['5xx'] > 0) throw new Error('Some requests failed.');
	return result.requests.average;
}

const memoryOf = (child: ChildProcess) =>
	Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1000;

try {
	fill();
	const serving = await start(
		'kephalon.js',
		['deliver', '--db', db, '--port', String(PORT)],
		{},
		answers(PORT, '/ready')
	);
	const head = await (await fetch(`http://127.0.0.1:${PORT}${pathOf(7)}`)).text();
	const etag = (
		await fetch(`http://127.0.0.1:${PORT}${pathOf(7)}`, { headers: { 'accept-encoding': 'identity' } })
	).headers.get('etag') as string;
	await start(
		'bare.js',
		[],
		{ BARE_PORT: String(PORT + 1), BARE_BODY: Buffer.from(head).toString('base64') },
		answers(PORT + 1, '/')
	);
	const loads: Record<string, [mine: Load, bare: Load, wanted: number]> = {
		'one head': [{ paths: [pathOf(7)], headers: {} }, { paths: ['/'], headers: {} }, 0.7],
		[`${PAGES.toLocaleString('en')} heads in turn`]: [
			{ paths: Array.from({ length: PAGES }, (_, at) => pathOf(at)), headers: {} },
			{ paths: Array.from({ length: PAGES }, (_, at) => pathOf(at)), headers: {} },
			0.7
		],
		'not modified': [
			{ paths: [pathOf(7)], headers: { 'if-none-match': etag } },
			{ paths: ['/'], headers: { 'if-none-match': '"bare"' } },
			0.8
		]
	};
	console.log(
		`Delivery by one process against a bare server, ${CONNECTIONS} connections, the best of ${ROUNDS} rounds\n`
	);
	for (const [name, [mine, bare, wanted]] of Object.entries(loads)) {
		let [ours, theirs] = [0, 0];
		// Both are warm before anything counts.
		await requestsPerSecond(PORT, mine);
		await requestsPerSecond(PORT + 1, bare);
		for (let round = 0; round < ROUNDS; round++) {
			theirs = Math.max(theirs, await requestsPerSecond(PORT + 1, bare));
			ours = Math.max(ours, await requestsPerSecond(PORT, mine));
		}
		const ratio = ours / theirs;
		console.log(
			`${name.padEnd(22)}${Math.round(ours).toLocaleString('en').padStart(8)} a second, bare ${Math.round(theirs).toLocaleString('en')}: ${ratio.toFixed(2)}  (to reach: ${wanted})${ratio < wanted ? '  missed' : ''}`
		);
	}
	const before = memoryOf(serving);
	const paths = Array.from({ length: PAGES }, (_, at) => ({ path: pathOf(at) }));
	await autocannon({ url: `http://127.0.0.1:${PORT}`, connections: CONNECTIONS, amount: MANY, requests: paths });
	console.log(
		`memory                ${before.toFixed(0)} MB before and ${memoryOf(serving).toFixed(0)} MB after ${MANY.toLocaleString('en')} requests more`
	);
} finally {
	for (const child of children) child.kill();
	rmSync(folder, { recursive: true, force: true });
}
