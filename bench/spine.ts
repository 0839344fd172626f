import { spawn, fork } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { parse } from 'csv-parse/sync';
import { MATRIX_TAGS, measureReach, toText, WIDTH_STEP, type Edit, type FieldValue } from '$core';
import { keepRule } from '$server/edits/rules';
import { takeContent } from '$server/imports/content';
import { JOBS } from '$server/jobs/jobs';
import { reachOf } from '$server/jobs/reach';
import { refreshAll } from '$server/jobs/parts';
import { runJob, stopJobs } from '$server/jobs/run';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';
import { readBenchData } from '$server/web/benchData';
import { readPending } from '$server/web/pending';
import { generateSite } from '../demo/generate';
import { takeBack } from '$server/edits/takeBack';
import { compareCsv, writeCsv } from '$server/exports/csv';
import { countGrid, SORTS, type PageFilter } from '$server/store/table/grid';
import { peakOf } from './memory';

/**
 * What surrounds the core at 100,000 pages, each as a ratio to the same at few pages, or to the bare thing, in one run:
 * the bench's data, edits, the kept state, reach, releases, imports, memory, and how long the request thread is held.
 */
const LARGE = Number(process.env.SPINE_PAGES ?? 100_000);
const here = (file: string) => fileURLToPath(new URL(file, import.meta.url));
process.env.KEPHALON_THREAD ??= here('./thread.js');
const command = here('../../bin/kephalon.js');
const folder = mkdtempSync(join(tmpdir(), 'kephalon-spine-'));
const file = (name: string) => join(folder, name);
const quiet = () => undefined;

function report(what: string, value: number, most: number, more = '', isFloor = false) {
	const isMissed = isFloor ? value < most : value > most;
	console.log(
		`${what.padEnd(58)}${value.toFixed(2).padStart(9)}  (${isFloor ? 'at least' : 'at most'} ${most})${isMissed ? '  missed' : ''}${more && `  ${more}`}`
	);
}

function seconds(work: () => unknown): number {
	const began = performance.now();
	work();
	return (performance.now() - began) / 1000;
}
async function secondsOf(work: () => Promise<unknown>): Promise<number> {
	const began = performance.now();
	await work();
	return (performance.now() - began) / 1000;
}
/** The fastest of several: the machine is shared. */
const best = (times: number, work: () => unknown) => Math.min(...Array.from({ length: times }, () => seconds(work)));

function make(count: number): { store: Store; name: string; db: string; paths: string[] } {
	const db = file(`${count}.db`);
	const store = new Store(db);
	const { site, types, pictures, pages } = generateSite(count);
	const all = [...pages];
	const saving = seconds(() =>
		saveSiteFile(store, { site, types, pictures: [...pictures], pages: all, redirects: {} } as never)
	);
	const looking = seconds(() => JOBS.refresh({ db, site: site.name }, quiet));
	const releasing = seconds(() => JOBS.release({ db, site: site.name }, quiet));
	// What was written so far is put into the file now, not by the first step that writes.
	store.db.pragma('wal_checkpoint(TRUNCATE)');
	if (process.env.SPINE_TIMES)
		console.log(
			`${count} pages kept in ${saving.toFixed(1)} s, looked at in ${looking.toFixed(1)} s, released in ${releasing.toFixed(1)} s`
		);
	return { store, name: site.name, db, paths: all.map(({ path }) => path) };
}
type Made = ReturnType<typeof make>;

const atPage = (path: string, template: string): Edit => ({
	place: { layer: 'page', path },
	tag: 'title',
	body: { kind: 'template', template }
});
const atType = (template: string): Edit => ({
	place: { layer: 'type', name: 'reserve' },
	tag: 'description',
	body: { kind: 'template', template }
});

function nextPage({ store, name, paths }: Made): { time: number; bytes: number } {
	let at = 0;
	let bytes = 0;
	const open = () => {
		const path = paths[(at += 7) % paths.length] as string;
		bytes = Math.max(bytes, JSON.stringify(readBenchData(store, name, path)).length);
	};
	for (let i = 0; i < 20; i++) open();
	return { time: best(60, open), bytes };
}

/** From the edit until what differs is known again. */
async function editUntilKnown({ store, name, paths }: Made): Promise<number> {
	const times: number[] = [];
	for (let i = 0; i < 12; i++)
		times.push(
			await secondsOf(async () => {
				keepRule(store, name, atPage(paths[i * 3] as string, `Edited ${i} {page.title}`), { origin: 'bench' });
				for (let unseen = 1; unseen > 0;) ({ unseen } = await readPending(store, name));
			})
		);
	return Math.min(...times);
}

async function releaseOfTen({ store, name, db, paths }: Made): Promise<number> {
	const times: number[] = [];
	for (let round = 0; round < 4; round++) {
		for (let i = 0; i < 10; i++)
			keepRule(store, name, atPage(paths[i * 5] as string, `Round ${round} {page.title}`), { origin: 'bench' });
		times.push(await secondsOf(() => runJob('release', { db, site: name })));
	}
	return Math.min(...times);
}

function runCommand(args: string[]): Promise<{ seconds: number; megabytes: number }> {
	return new Promise((resolve, reject) => {
		const began = performance.now();
		const child = spawn(process.execPath, [command, ...args], { stdio: ['ignore', 'ignore', 'inherit'] });
		let megabytes = 0;
		const watch = setInterval(() => (megabytes = Math.max(megabytes, peakOf(child.pid as number))), 20);
		child.once('close', (code) => {
			clearInterval(watch);
			if (code === 0) resolve({ seconds: (performance.now() - began) / 1000, megabytes });
			else reject(new Error(`kephalon ${args.join(' ')} ended with code ${code}.`));
		});
	});
}

const steps: Record<string, () => Promise<void>> = {};
let few: Made, thousand: Made, large: Made;

steps.data = async () => {
	const [small, big] = [nextPage(few), nextPage(large)];
	report(
		'the bench’s data for the next page, against 20 pages',
		big.time / small.time,
		1.5,
		`${(big.time * 1000).toFixed(1)} ms`
	);
	report('  its size, kB', big.bytes / 1000, 30);
};
steps.edit = async () => {
	const [small, big] = [await editUntilKnown(thousand), await editUntilKnown(large)];
	report('one page edited until what differs is known, against 1,000', big / small, 2, `${(big * 1000).toFixed(0)} ms`);
};
steps.reach = async () => {
	const { store, name } = large;
	const { id, site, types } = store.working.sites.named(name);
	const model = { site, types, pictures: store.pictures.all(id) };
	const edit = atType('{page.summary ?? site.description | clip 120}');
	const pages = [...store.working.pages.all(id)];
	const core = Math.min(...[1, 2].map(() => seconds(() => measureReach(model, pages, edit, new Date().toISOString()))));
	pages.length = 0;
	let first = 0;
	let whole = Infinity;
	// The fastest of two, as of the core: the first finds no threads that have run before.
	for (let round = 0; round < 2; round++) {
		const began = performance.now();
		first = 0;
		const took = await secondsOf(() =>
			reachOf(store, name, edit, { progress: () => (first ||= performance.now() - began) })
		);
		whole = Math.min(whole, took);
	}
	report(
		'reach of a type’s template, against the core from memory',
		core / whole,
		0.8,
		`${whole.toFixed(2)} s, first answer after ${first.toFixed(0)} ms`,
		true
	);
	const stop = new AbortController();
	const stopped = reachOf(store, name, edit, { signal: stop.signal }).catch(() => undefined);
	await new Promise((resolve) => setTimeout(resolve, 300));
	const stopping = await secondsOf(async () => {
		stop.abort();
		await stopped;
	});
	report('  stopped within, ms', stopping * 1000, 100);
};
steps.state = async () => {
	const { store, name, db } = large;
	const { id } = store.working.sites.named(name);
	const rendered = await runCommand(['render', '--all', '--db', db, '--site', name]);
	report('memory of render --all, MB', rendered.megabytes, 300);
	keepRule(store, name, { ...atType('{page.summary | clip 140}'), place: { layer: 'site' } }, { origin: 'bench' });
	const unseen = store.state.countStale(id);
	const delay = monitorEventLoopDelay({ resolution: 5 });
	delay.enable();
	const taken = await secondsOf(() => refreshAll(db, name));
	delay.disable();
	const speed = unseen / taken / (LARGE / rendered.seconds);
	report(
		'state brought up to date, against render --all',
		speed,
		0.5,
		`${Math.round(unseen / taken).toLocaleString('en')} pages a second`,
		true
	);
	report('  the request thread held meanwhile, ms at the 99th percentile', delay.percentile(99) / 1e6, 50);
};
steps.release = async () => {
	const [small, big] = [await releaseOfTen(thousand), await releaseOfTen(large)];
	report('a release of 10 changed pages, against 1,000', big / small, 3, `${(big * 1000).toFixed(0)} ms`);
};
steps.growth = async () => {
	const { store, name, db, paths } = make(10_000);
	const size = () => {
		store.db.pragma('wal_checkpoint(TRUNCATE)');
		return statSync(db).size;
	};
	const before = size();
	for (let release = 0; release < 200; release++) {
		store.transaction(() => {
			for (let i = 0; i < 100; i++)
				keepRule(
					store,
					name,
					atPage(paths[(release * 100 + i) % paths.length] as string, `Release ${release} {page.title}`),
					{ origin: 'bench' }
				);
		});
		JOBS.release({ db, site: name }, quiet);
	}
	report(
		'the file after 200 releases of 1 % each, times',
		size() / before,
		3,
		`${(before / 1e6).toFixed(0)} MB before`
	);
	store.close();
};
/** So many pages as a table. */
function tableOf(count: number): string {
	const quoted = (value: FieldValue | undefined) => `"${toText(value).replaceAll('"', '""')}"`;
	const rows = [...generateSite(count).pages].map(({ path, fields }) =>
		[path, fields.title, fields.summary, fields.body].map(quoted).join(',')
	);
	return `path,title,summary,body\n${rows.join('\n')}\n`;
}
async function importOf(text: string, name: string): Promise<number> {
	const store = new Store(file(name));
	const mapping = { path: 'path', title: 'title', summary: 'summary', body: 'body' };
	const time = await secondsOf(() =>
		takeContent(store, 'Table', 'https://t.example/', { kind: 'table', file: text, mapping, type: 'page' })
	);
	store.close();
	return time;
}
steps.rooms = async () => {
	const small = thousand;
	const sorts = Object.keys(SORTS) as (keyof typeof SORTS)[];
	const filters: PageFilter[] = [
		{},
		{ type: 'walk' },
		{ state: 'live', language: 'fr' },
		{ q: 'heath' },
		{ q: 'walk' },
		{ q: 'the' },
		{ from: 'title:type' },
		{ without: 'og:image:alt' }
	];
	const firstRows = ({ store, name }: Made) => {
		const { id } = store.working.sites.named(name);
		return (filter: PageFilter, sort: keyof typeof SORTS, limit: number) => {
			const look = () => store.table.lists.rows(id, filter, { sort, down: false, offset: 0, limit });
			const first = seconds(look);
			const again = seconds(look);
			return { most: Math.max(first, again), then: best(5, look) };
		};
	};
	const [many, few] = [firstRows(large), firstRows(small)];
	for (const filter of filters) {
		// As many rows of each: of a few pages there may be less than a screen has.
		const limit = Math.max(
			1,
			Math.min(60, countGrid(small.store.db, small.store.working.sites.named(small.name).id, filter))
		);
		const all = sorts.map((sort) => {
			const [one, other] = [many(filter, sort, limit), few(filter, sort, limit)];
			return { sort, ratio: one.then / other.then, ...one };
		});
		const worst = all.reduce((most, one) => (one.ratio > most.ratio ? one : most));
		const slowest = all.reduce((most, one) => (one.most > most.most ? one : most));
		report(
			`first rows of the table, ${JSON.stringify(filter)}`,
			worst.ratio,
			3,
			`worst by ${worst.sort}, ${(worst.then * 1000).toFixed(1)} ms; asked for the first times, ${(slowest.most * 1000).toFixed(0)} ms by ${slowest.sort}`
		);
	}
	// Far down: how long it takes once what the filter means is in order, and how long that takes after each writing.
	const halfOf = ({ store, name }: Made, filter: PageFilter) =>
		Math.floor(countGrid(store.db, store.working.sites.named(name).id, filter) / 2);
	const halfWay = (made: Made, filter: PageFilter, sort: keyof typeof SORTS, limit: number) => {
		const { store, name } = made;
		const { id } = store.working.sites.named(name);
		const offset = halfOf(made, filter);
		const look = () => store.table.lists.rows(id, filter, { sort, down: false, offset, limit });
		return { first: Math.max(seconds(look), seconds(look)), then: best(5, look) };
	};
	for (const filter of filters.filter(({ without }) => !without)) {
		// As many rows of each: of a few pages there may be less than a hundred.
		const limit = Math.max(1, Math.min(100, halfOf(small, filter)));
		const [some, all] = [halfWay(small, filter, 'description', limit), halfWay(large, filter, 'description', limit)];
		report(
			`${limit} rows half way down, ${JSON.stringify(filter)}`,
			all.then / some.then,
			3,
			`${(all.then * 1000).toFixed(1)} ms; put in order in ${(all.first * 1000).toFixed(0)} ms`
		);
	}
	const { store, name, db } = large;
	const pages = { paths: store.working.pages.paths(store.working.sites.named(name).id).slice(0, 10_000) };
	const input = { db, site: name, pages, action: { do: 'text' as const, tag: 'title', text: 'Changed at once' } };
	const changing = await secondsOf(() => runJob('batch', input));
	const back = seconds(() => takeBack(store, name, 'last', 'pages'));
	const importing = await importOf(tableOf(10_000), 'ten.db');
	report(
		'10,000 pages changed at once, of the speed of importing them',
		importing / changing,
		0.3,
		`${changing.toFixed(1)} s`,
		true
	);
	report('the same taken back, times', back / changing, 1, `${back.toFixed(1)} s`);
	const findings = await secondsOf(() => runJob('count', { db, site: name, tags: MATRIX_TAGS, step: WIDTH_STEP }));
	const few2 = await secondsOf(() =>
		runJob('count', { db: small.db, site: small.name, tags: MATRIX_TAGS, step: WIDTH_STEP })
	);
	report('all findings, against 1,000 pages', findings / few2, 100, `${findings.toFixed(2)} s`);
	const lines: string[] = [];
	const out = seconds(() => {
		for (const chunk of writeCsv(
			store,
			name,
			{},
			{ columns: ['title', 'description', 'type'], sort: 'path', down: false, mark: false }
		))
			lines.push(chunk);
	});
	const text = lines.join('');
	const bare = seconds(() => parse(text, { columns: true }));
	const compared = seconds(() => compareCsv(store, name, text));
	report('CSV out, against a bare loop that parses it', out / bare, 3, `${out.toFixed(1)} s`);
	report('CSV compared on its way in, against the same', compared / bare, 3, `${compared.toFixed(1)} s`);
};
steps.csv = async () => {
	const text = tableOf(LARGE);
	const bare = seconds(() => {
		const db = new Database(file('bare.db'));
		db.exec('CREATE TABLE page (path TEXT PRIMARY KEY, title TEXT, summary TEXT, body TEXT)');
		const add = db.prepare('INSERT INTO page VALUES (?, ?, ?, ?)');
		const rows = parse<Record<string, string>>(text, { columns: true });
		db.transaction(() => {
			for (const { path, title, summary, body } of rows) add.run(path, title, summary, body);
		})();
		db.close();
	});
	const whole = await importOf(text, 'csv.db');
	report('pages from a CSV file, against a bare loop', whole / bare, 3, `${whole.toFixed(1)} s`);
};
steps.folders = async () => {
	const { pages } = generateSite(LARGE);
	const top = file('folder');
	for (const type of ['reserves', 'walks', 'sightings', 'wardens']) mkdirSync(join(top, type), { recursive: true });
	for (const { path, fields } of pages)
		writeFileSync(
			join(top, `${path}.html`),
			`<!doctype html><html lang="en"><title>${toText(fields.title)}</title><meta name="description" content="${toText(fields.summary)}"><body><h1>${toText(fields.title)}</h1>${toText(fields.body)}</body></html>`
		);
	const db = file('folder.db');
	const imported = await runCommand(['import', top, '--db', db, '--site', 'F', '--base', 'https://f.example/']);
	report('memory of a folder’s import, MB', imported.megabytes, 300, `${imported.seconds.toFixed(0)} s`);
	const injected = await runCommand(['inject', top, '--db', db, '--site', 'F', '--out', file('out')]);
	report('memory of injection, MB', injected.megabytes, 300, `${injected.seconds.toFixed(0)} s`);
	writeFileSync(file('table.csv'), tableOf(LARGE));
	const table = ['import', file('table.csv'), '--db', file('table.db'), '--site', 'T', '--base', 'https://t.example/'];
	const taken = await runCommand(table);
	report('memory of a table’s import, MB', taken.megabytes, 300, `${taken.seconds.toFixed(0)} s`);
};
steps.server = async () => {
	const { name, db } = large;
	const child = fork(command, ['serve', '--db', db, '--port', '48950'], { silent: true });
	const address = `http://127.0.0.1:48950`;
	for (
		let tries = 0;
		tries < 100 &&
		!(await fetch(`${address}/ready`).then(
			(r) => r.ok,
			() => false
		));
		tries++
	)
		await new Promise((resolve) => setTimeout(resolve, 100));
	const site = encodeURIComponent(name);
	await (await fetch(`${address}/bench/${site}`)).text();
	await (await fetch(`${address}/api/sites/${site}/pending`)).text();
	await (await fetch(`${address}/api/sites/${site}/worst`)).text();
	await (
		await fetch(`${address}/api/sites/${site}/reach`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(atType('{page.title}'))
		})
	).text();
	for (let i = 0; i < 40; i++)
		await (await fetch(`${address}/bench/${site}?page=${encodeURIComponent(large.paths[i * 11] as string)}`)).text();
	report('memory of the server with the bench open, MB', peakOf(child.pid as number), 350);
	child.kill('SIGTERM');
	await new Promise((resolve) => child.once('exit', resolve));
};

const wanted = process.argv.slice(2);
try {
	console.log(`\nAround the core, at ${LARGE.toLocaleString('en')} pages\n`);
	if (
		wanted.length === 0 ||
		wanted.some((name) => ['data', 'edit', 'release', 'reach', 'state', 'rooms', 'server'].includes(name))
	) {
		few = make(20);
		thousand = make(1000);
		const began = performance.now();
		large = make(LARGE);
		console.log(`(made in ${((performance.now() - began) / 1000).toFixed(0)} s)`);
	}
	for (const [name, step] of Object.entries(steps)) if (wanted.length === 0 || wanted.includes(name)) await step();
} finally {
	await stopJobs();
	rmSync(folder, { recursive: true, force: true });
}
