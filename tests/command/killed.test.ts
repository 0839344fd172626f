import Database from 'better-sqlite3';
import { spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { STARTING_LAYOUTS } from '$core';
import { changeMany } from '$server/edits/batch';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile, writeSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';

/**
 * Every long work is killed while it goes on, at places all over it, through the server as through the command: what it
 * had begun is there wholly or not at all, and is taken up. How often each is killed; 100 by KEPHALON_KILLS=100.
 */
const KILLS = Number(process.env.KEPHALON_KILLS ?? 3);
const ROUNDS = Number(process.env.KEPHALON_ROUNDS ?? 2);
const PAGES = 6000;
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const work = mkdtempSync(join(tmpdir(), 'kephalon-killed-'));
const start = join(work, 'start.db');
let served: Server;
let via = '';
let askedFor: string[] = [];

beforeAll(async () => {
	const store = new Store(start);
	const pages = Array.from({ length: PAGES }, (_, at) => ({
		...{ path: at === 0 ? '/' : `/${at}`, type: at % 40 === 1 ? 'card' : 'note', state: 'live', rules: [] },
		fields: { title: `Page ${at}`, body: `<p>Words of page ${at}. `.repeat(10) }
	}));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pages, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [
			{ name: 'note', fields: [], rules: [] },
			{ name: 'card', fields: [], rules: [], layout: STARTING_LAYOUTS[0]!.layout }
		]
	} as never);
	JOBS.release({ db: start, site: 'S' }, () => undefined);
	// A second release, to go back from, that is another on a few pages.
	changeMany(store, 'S', { paths: ['/1', '/2', '/3'] }, { do: 'text', tag: 'title', text: 'Another' }, 'pages');
	JOBS.release({ db: start, site: 'S' }, () => undefined);
	store.db.pragma('wal_checkpoint(TRUNCATE)');
	store.close();
	served = createServer((request, response) => {
		askedFor.push(request.url ?? '');
		if (request.url === '/robots.txt') return void response.writeHead(404).end();
		response.setHeader('content-type', 'text/html; charset=utf-8').end('<!doctype html><title>x</title>');
	});
	await new Promise<void>((done) => served.listen(0, '127.0.0.1', done));
	via = `http://127.0.0.1:${(served.address() as AddressInfo).port}`;
});
afterAll(async () => {
	rmSync(work, { recursive: true, force: true });
	served.closeAllConnections();
	await new Promise((done) => served.close(done));
});

/** A copy of the database as it was at first, with what another work has made of it. */
function fresh(name: string, prepare?: (store: Store) => void): string {
	const db = join(work, `${name}.db`);
	for (const end of ['', '-wal', '-shm']) rmSync(db + end, { force: true });
	for (const of of readdirSync(work)) if (of.startsWith(`${name}.db`)) rmSync(join(work, of), { recursive: true });
	copyFileSync(start, db);
	if (prepare) {
		const store = new Store(db);
		prepare(store);
		store.db.pragma('wal_checkpoint(TRUNCATE)');
		store.close();
	}
	return db;
}
const dump = (store: Store) => [...writeSiteFile(store, 'S')].join('');

function command(db: string, ...args: string[]): ChildProcess {
	return spawn(process.execPath, [program, ...args, '--db', db], { stdio: ['ignore', 'ignore', 'pipe'] });
}
interface Server_ {
	readonly child: ChildProcess;
	readonly at: string;
}
function serve(db: string): Promise<Server_> {
	const child = spawn(process.execPath, [program, 'serve', '--port', '0', '--db', db], { stdio: 'pipe' });
	return new Promise((resolve, reject) => {
		const hear = (text: Buffer) => {
			const at = /at (http:\/\/[\d.:]+)/.exec(text.toString())?.[1];
			if (at) resolve({ child, at });
		};
		child.stderr.on('data', hear);
		child.stdout.on('data', hear);
		child.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
	});
}
const post = (at: string, path: string, body: object | Uint8Array) =>
	fetch(`${at}/api/sites/S/${path}`, {
		method: 'POST',
		headers: {
			origin: at,
			'content-type': body instanceof Uint8Array ? 'application/octet-stream' : 'application/json'
		},
		body: body instanceof Uint8Array ? (body as never) : JSON.stringify(body)
	}).then(async (response) => ({ status: response.status, text: await response.text() }));

const ended = (child: ChildProcess) =>
	new Promise<void>((resolve) => {
		if (child.exitCode !== null || child.signalCode !== null) resolve();
		else child.once('exit', () => resolve());
	});
/** Places all over a work, no two the same. */
const placeOf = (kill: number) => ((kill + 1) * 0.618_033_988_7) % 1;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

interface Work {
	readonly prepare?: (store: Store) => void;
	/** What a server is asked to do; or a command. */
	readonly ask?: (at: string) => Promise<{ status: number; text: string }>;
	readonly run?: readonly string[];
	/** What must hold of the database after a kill, with what it was before and is when all went well. */
	readonly holds?: (store: Store, whole: Store) => void;
}
const action = { do: 'text', tag: 'title', text: 'Changed at once' } as const;
/** The table of pages, as it comes back from a program in which every page was given words of its own. */
const csvOf = () => {
	const store = new Store(start, { readonly: true });
	const { revision } = store.working.sites.named('S');
	store.close();
	const rows = Array.from({ length: PAGES }, (_, at) => `/${at === 0 ? '' : at},Row ${at},${revision}`);
	return new TextEncoder().encode(`path,page says: title,revision\n${rows.join('\n')}\n`);
};
const WORKS: Readonly<Record<string, Work>> = {
	batch: { ask: (at) => post(at, 'batch', { pages: { filter: {} }, action }) },
	'take-back': {
		prepare: (store) => void changeMany(store, 'S', { filter: {} } as never, action, 'pages'),
		ask: (at) => post(at, 'edits', { takeBack: 'last' })
	},
	'CSV back': { ask: (at) => post(at, 'csv', csvOf()) },
	state: {
		prepare: (store) => void store.db.exec('UPDATE page_state SET seen = -1, head = NULL'),
		run: ['release', '--site', 'S', '--dry-run']
	},
	release: {
		prepare: (store) => void changeMany(store, 'S', { filter: {} } as never, action, 'pages'),
		run: ['release', '--site', 'S']
	},
	'going back': { run: ['rollback', '1', '--site', 'S'] },
	compose: { run: ['compose', '--site', 'S'] }
};

/** What holds of any database, whatever was killed. */
function soundness(db: string) {
	const looking = new Database(db);
	expect(looking.pragma('integrity_check', { simple: true })).toBe('ok');
	expect(looking.pragma('foreign_key_check')).toEqual([]);
	expect(looking.prepare('SELECT count(*) AS n FROM editing').get()).toEqual({ n: 0 });
	looking.close();
}
/** Every release is whole: as many pages as it says. */
function releasesOf(store: Store): readonly number[] {
	const { id } = store.working.sites.named('S');
	return store.releases.history(id, 99).map(({ number, pages }) => {
		expect(store.releases.hashes(id, number).size).toBe(pages);
		return number;
	});
}

describe.each(Object.entries(WORKS))('%s', (name, { prepare, ask, run }) => {
	/** Does it in a process of its own that is killed after so many milliseconds of the work itself. */
	async function doing(db: string, after: number): Promise<number> {
		let child: ChildProcess;
		let began = performance.now();
		if (ask) {
			const server = await serve(db);
			({ child } = server);
			began = performance.now();
			const answered = ask(server.at).catch(() => undefined);
			const first = await Promise.race([answered, pause(after)]);
			if (first && (first as { status: number }).status >= 400) throw new Error((first as { text: string }).text);
		} else {
			child = command(db, ...(run as string[]));
			await Promise.race([ended(child), pause(after)]);
		}
		const took = performance.now() - began;
		child.kill('SIGKILL');
		await ended(child);
		return took;
	}

	test(`killed ${KILLS} times, it is there wholly or not at all, and is done when it is asked for again`, async () => {
		const before = fresh('before', prepare);
		const whole = fresh('whole', prepare);
		const length = await doing(whole, 120_000);
		const [old, done] = [new Store(before), new Store(whole)];
		const [oldText, doneText] = [dump(old), dump(done)];
		const [oldReleases, doneReleases] = [releasesOf(old), releasesOf(done)];
		old.close();
		done.close();
		// Work that left nothing would prove nothing.
		if (name === 'batch' || name === 'take-back' || name === 'CSV back') expect(doneText).not.toBe(oldText);
		if (name === 'release' || name === 'going back') expect(doneReleases).not.toEqual(oldReleases);
		for (let kill = 0; kill < KILLS; kill++) {
			const db = fresh('killed', prepare);
			await doing(db, length * (ask ? placeOf(kill) : 0.25 + 0.75 * placeOf(kill)));
			soundness(db);
			const store = new Store(db);
			const text = dump(store);
			expect([oldText, doneText]).toContain(text);
			expect([oldReleases, doneReleases]).toContainEqual(releasesOf(store));
			expect(store.record.unfinished()).toEqual([]);
			store.close();
			if (kill > 2) continue;
			// Done again, it comes to the same.
			await doing(db, 120_000);
			const again = new Store(db);
			if (name === 'batch' || name === 'CSV back') expect(dump(again)).toBe(doneText);
			if (name === 'compose') await everyPictureIsWhole();
			if (name === 'state') {
				expect(again.state.countStale(again.working.sites.named('S').id)).toBe(0);
				expect(again.state.differing(again.working.sites.named('S').id, 9)).toMatchObject({
					changed: 0,
					added: 0,
					removed: 0
				});
			}
			releasesOf(again);
			again.close();
		}
	}, 3_000_000);
});

async function everyPictureIsWhole() {
	const folder = readdirSync(work).find((one) => one === 'killed.db.media');
	expect(folder).toBeDefined();
	const files = (readdirSync(join(work, folder!), { recursive: true }) as string[]).filter((file) =>
		/\.(jpg|png|webp)$/.test(file)
	);
	expect(files.length).toBeGreaterThan(100);
	for (const file of files) expect((await sharp(join(work, folder!, file)).stats()).channels.length).toBeGreaterThan(2);
}

test(`verify, killed ${KILLS} times, counts each page once and goes on near where it was`, async () => {
	const args = ['verify', '--site', 'S', '--via', via, '--rate', '100000', '--format', 'json'];
	const db = fresh('verify');
	const looks = async (after: number) => {
		const child = command(db, ...args);
		await Promise.race([ended(child), pause(after)]);
		child.kill('SIGKILL');
		await ended(child);
	};
	for (let kill = 0; kill < KILLS; kill++) {
		await looks(700 + 900 * placeOf(kill));
		soundness(db);
	}
	const kept = new Database(db, { readonly: true });
	const [row] = kept.prepare(`SELECT settings FROM import_source WHERE kind = 'verify'`).all() as {
		settings: string;
	}[];
	kept.close();
	askedFor = [];
	const child = spawn(process.execPath, [program, ...args, '--db', db]);
	let out = '';
	child.stdout.on('data', (text) => (out += String(text)));
	await ended(child);
	const told = JSON.parse(out) as { pages: number; waiting: number; counts: Record<string, number> };
	expect(told).toMatchObject({ pages: PAGES, waiting: 0 });
	if (row) {
		const before = Object.values((JSON.parse(row.settings) as { counts: Record<string, number> }).counts);
		const known = before.reduce((sum, count) => sum + count, 0);
		const pages = new Set(askedFor.filter((path) => path !== '/robots.txt'));
		expect(pages.size).toBe(PAGES - known);
	}
}, 3_000_000);

test(`two processes at once, ${ROUNDS} rounds of each two: both are done, or one is told to wait; nothing is torn`, async () => {
	const csv = join(work, 'rows.csv');
	writeFileSync(csv, csvOf());
	const table = join(work, 'more.csv');
	writeFileSync(table, `path,title\n${Array.from({ length: 3000 }, (_, at) => `/new/${at},New ${at}`).join('\n')}\n`);
	const COMMANDS: Readonly<Record<string, readonly string[]>> = {
		release: ['release', '--site', 'S'],
		'CSV back': ['pages', '--site', 'S', '--read', csv],
		import: ['import', table, '--site', 'S', '--base', 'https://s.example/', '--type', 'note'],
		backup: ['backup', ''],
		compose: ['compose', '--site', 'S', '--page', '/41']
	};
	const names = Object.keys(COMMANDS);
	let turn = 0;
	for (let round = 0; round < ROUNDS; round++)
		for (const [at, one] of names.entries())
			for (const other of names.slice(at)) {
				const db = fresh('both');
				const argsOf = (name: string) =>
					name === 'backup' ? ['backup', join(work, `copy-${turn++}`)] : [...(COMMANDS[name] as string[])];
				const children = [command(db, ...argsOf(one))];
				await pause(placeOf(turn) * 300);
				children.push(command(db, ...argsOf(other)));
				const said = await Promise.all(
					children.map(async (child) => {
						let text = '';
						child.stderr?.on('data', (part) => (text += String(part)));
						await ended(child);
						return { code: child.exitCode, text };
					})
				);
				for (const { code, text } of said) {
					expect([0, 1], `${one} beside ${other}: ${text}`).toContain(code);
					if (code === 1) expect(text).toMatch(/is at work|is busy|being written|again|locked/i);
				}
				soundness(db);
				const store = new Store(db);
				releasesOf(store);
				expect(store.record.unfinished()).toEqual([]);
				if (one === 'import' || other === 'import')
					if (said[one === 'import' ? 0 : 1]!.code === 0)
						expect(store.working.pages.count(store.working.sites.named('S').id).all).toBe(PAGES + 3000);
				store.close();
				for (const copy of readdirSync(work).filter((name) => name.startsWith('copy-'))) {
					const file = readdirSync(join(work, copy)).find((name) => name.endsWith('.db'));
					if (file) soundness(join(work, copy, file));
					rmSync(join(work, copy), { recursive: true });
				}
			}
}, 3_000_000);
