import { fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';
import { generateSite } from '../demo/generate';

/**
 * A day's work through the server at 100,000 pages: what opens a room, against the same at 1,000; everything that takes
 * long, at rest and beside two busy loops; and how long `/health` takes meanwhile.
 */
const LARGE = Number(process.env.SPINE_PAGES ?? 100_000);
const PORT = 48_970;
const ROUNDS = 3;
const folder = mkdtempSync(join(tmpdir(), 'kephalon-crowd-'));

interface Running {
	readonly at: string;
	readonly site: string;
	readonly paths: readonly string[];
	readonly child: ChildProcess;
}

async function start(count: number, port: number): Promise<Running> {
	const db = join(folder, `${count}.db`);
	const store = new Store(db);
	const { site, types, pictures, pages } = generateSite(count);
	const all = [...pages];
	saveSiteFile(store, { site, types, pictures: [...pictures], pages: all, redirects: {} } as never);
	JOBS.refresh({ db, site: site.name }, () => undefined);
	JOBS.release({ db, site: site.name }, () => undefined);
	store.close();
	const command = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
	const child = fork(command, ['serve', '--db', db, '--port', String(port)], { silent: true });
	child.stderr?.on('data', (text) => process.stderr.write(String(text)));
	const at = `http://127.0.0.1:${port}`;
	const isReady = () =>
		fetch(`${at}/ready`).then(
			({ ok }) => ok,
			() => false
		);
	for (let tries = 0; tries < 200 && !(await isReady()); tries++) await pause(100);
	return { at, site: encodeURIComponent(site.name), paths: all.map(({ path }) => path), child };
}
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The milliseconds until the whole answer is there. */
async function timed(work: () => Promise<unknown>): Promise<number> {
	const began = performance.now();
	await work();
	return performance.now() - began;
}
async function fastest(work: () => Promise<unknown>, rounds = ROUNDS): Promise<number> {
	let least = Infinity;
	for (let round = 0; round < rounds; round++) least = Math.min(least, await timed(work));
	return least;
}

function asking({ at, site }: Running) {
	const read = async (path: string, init?: RequestInit) => {
		const response = await fetch(`${at}${path}`, init);
		const text = await response.text();
		if (!response.ok) throw new Error(`${path}: ${response.status} ${text.slice(0, 300)}`);
		return text;
	};
	const api = (path: string) => `/api/sites/${site}/${path}`;
	const send = (path: string, data: object, method = 'POST') =>
		read(api(path), {
			method,
			headers: { 'content-type': 'application/json', origin: at },
			body: JSON.stringify(data)
		});
	return { read, api, send };
}

/** Until every page was looked at and all is counted, as it is after a while when nobody writes. */
async function settle(running: Running) {
	const { read, api } = asking(running);
	for (let tries = 0; tries < 600; tries++) {
		const told = JSON.parse(await read(api('findings?wait=1'))) as { isNow: boolean };
		if (told.isNow) return;
		await pause(200);
	}
	throw new Error('It does not come to rest.');
}

/** What opens a room: the page as it comes, and what it asks for first. */
const ROOMS: Readonly<Record<string, (running: Running) => Promise<unknown>>> = {
	'the findings opened': async (running) => {
		const { read, api } = asking(running);
		await read(`/findings/${running.site}`);
		await read(api('findings'));
	},
	'the overview opened': async (running) => {
		const { read } = asking(running);
		await read(`/overview/${running.site}`);
	}
};

const edit = { place: { layer: 'type', name: 'reserve' }, tag: 'description' } as const;
let turn = 0;

/** What takes its time. Each leaves the site as it was, or as good as. */
const WORKS: Readonly<Record<string, (running: Running) => Promise<unknown>>> = {
	'first rows of the table': (running) => {
		const { read, api } = asking(running);
		return read(api('grid?limit=100&sort=findings&down=1&count=1'));
	},
	'rows far down': (running) => {
		const { read, api } = asking(running);
		return read(api(`grid?limit=100&sort=title&row=${LARGE - 200}`));
	},
	'all findings counted': async (running) => {
		const { send } = asking(running);
		const [path] = running.paths;
		const body = { kind: 'template', template: `Turn ${++turn}` };
		await send('rules', { place: { layer: 'page', path }, tag: 'title', body }, 'PUT');
		await settle(running);
	},
	'reach of a type’s template': (running) =>
		asking(running).send('reach', { ...edit, body: { kind: 'template', template: `{page.summary} ${++turn}` } }),
	'10,000 pages changed': async (running) => {
		const pages = { paths: running.paths.slice(0, 10_000) };
		await asking(running).send('batch', { pages, action: { do: 'text', tag: 'title', text: `Turn ${++turn}` } });
	},
	'the same taken back': (running) => asking(running).send('edits', { takeBack: 'last' }),
	'a release of what changed': (running) => asking(running).send('release', {}),
	'two releases compared': (running) => {
		const { read, api } = asking(running);
		return read(api('releases/between?from=1&to=2'));
	},
	'CSV out': (running) => {
		const { read, api } = asking(running);
		return read(api('csv?columns=path,title,description,type'));
	}
};
/** These are done once each, since what was done is done. */
const ONCE = new Set([
	'10,000 pages changed',
	'the same taken back',
	'a release of what changed',
	'all findings counted'
]);

/** Asks for `/health` until it is told to end; gives the 99th of a hundred, and the longest. */
function watchHealth({ at }: Running) {
	let isOver = false;
	const times: number[] = [];
	const watching = (async () => {
		while (!isOver) {
			times.push(await timed(() => fetch(`${at}/health`).then((response) => response.text())));
			await pause(5);
		}
	})();
	return async () => {
		isOver = true;
		await watching;
		times.sort((a, b) => a - b);
		return { p99: times[Math.floor(times.length * 0.99)] ?? 0, most: times.at(-1) ?? 0, count: times.length };
	};
}

async function workOn(running: Running) {
	const took: Record<string, { ms: number; health: number; most: number }> = {};
	for (const [name, work] of Object.entries(WORKS)) {
		const end = watchHealth(running);
		const ms = await fastest(() => work(running), ONCE.has(name) ? 1 : ROUNDS);
		const { p99, most } = await end();
		took[name] = { ms, health: p99, most };
		await settle(running);
	}
	return took;
}

const report = (what: string, value: number, most: number, more: string) =>
	console.log(
		`${what.padEnd(44)}${value.toFixed(2).padStart(8)}  (at most ${most})${value > most ? '  missed' : ''}  ${more}`
	);

const running: Running[] = [];
const loops: Worker[] = [];
try {
	console.log(`\nA day’s work through the server, at ${LARGE.toLocaleString('en')} pages\n`);
	const small = await start(1000, PORT);
	const large = await start(LARGE, PORT + 1);
	running.push(small, large);
	for (const one of running) await settle(one);
	for (const [name, open] of Object.entries(ROOMS)) {
		const [few, many] = [await fastest(() => open(small), 10), await fastest(() => open(large), 10)];
		report(`${name}, against 1,000`, many / few, 2, `${many.toFixed(0)} ms`);
	}
	// Once for all that is made at the first time.
	await workOn(large);
	const rest = await workOn(large);
	for (let count = 0; count < 2; count++) loops.push(new Worker('for (;;);', { eval: true }));
	const crowded = await workOn(large);
	for (const name of Object.keys(WORKS)) {
		const [calm, busy] = [rest[name]!, crowded[name]!];
		report(
			`${name}, beside two busy loops`,
			busy.ms / calm.ms,
			3,
			`${calm.ms.toFixed(0)} ms at rest, ${busy.ms.toFixed(0)} ms`
		);
		report(
			'  /health meanwhile, ms at the 99th',
			calm.health,
			50,
			`${calm.most.toFixed(0)} ms at most; beside the loops ${busy.health.toFixed(0)} ms`
		);
	}
} finally {
	for (const loop of loops) await loop.terminate();
	for (const { child } of running) {
		child.kill('SIGTERM');
		await new Promise((resolve) => child.once('exit', resolve));
	}
	rmSync(folder, { recursive: true, force: true });
}
