import Database from 'better-sqlite3';
import { spawn } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from 'vitest';
import { saveSiteFile, writeSiteFile } from '$server/siteFile/siteFile';
import { JOBS } from '$server/jobs/jobs';
import { resumeOrders } from '../../src/server/store/opening/orders';
import { Store } from '$server/store/store';

/** How often a program is killed; more by KEPHALON_KILLS. */
const KILLS = Number(process.env.KEPHALON_KILLS ?? 24);
const PAGES = 1500;
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const work = mkdtempSync(join(tmpdir(), 'kephalon-kills-'));
afterAll(() => rmSync(work, { recursive: true, force: true }));
const db = join(work, 'k.db');

/** Two states of the site that differ on every page and in its rules. */
const stateOf = (word: string, count: number) => ({
	format: 'kephalon-site',
	version: 2,
	site: {
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
		rules: [{ tag: 'title', kind: 'template', template: `{page.title} ${word}` }]
	},
	types: [{ name: 'note', fields: [], rules: [] }],
	pages: Array.from({ length: count }, (_, at) => ({
		...{ path: at === 0 ? '/' : `/${at}`, type: 'note', state: 'live', rules: [] },
		fields: { title: `${word} ${at}`, body: `<p>${word} `.repeat(40) }
	})),
	pictures: [],
	redirects: {}
});
const FILES = ['one', 'two'].map((word, at) => {
	const file = join(work, `${word}.json`);
	writeFileSync(file, JSON.stringify(stateOf(word, PAGES + at * 40)));
	return file;
});
const dump = (store: Store) => [...writeSiteFile(store, 'S')].join('');

/** Starts the command and kills it after so many milliseconds, unless it ends before. Gives how long it ran. */
function killed(args: readonly string[], after: number): Promise<number> {
	return new Promise((resolve) => {
		const began = performance.now();
		const child = spawn(process.execPath, [program, ...args, '--db', db], { stdio: 'ignore' });
		const timer = setTimeout(() => child.kill('SIGKILL'), after);
		child.once('exit', () => {
			clearTimeout(timer);
			resolve(performance.now() - began);
		});
	});
}

test(`${KILLS} kills during releases, imports and updates of the state leave nothing torn and lose nothing`, async () => {
	const states = FILES.map((_, at) => {
		const store = new Store(join(work, `${at}.db`));
		saveSiteFile(store, stateOf(['one', 'two'][at] as string, PAGES + at * 40) as never);
		const text = dump(store);
		store.close();
		return text;
	});
	const first = new Store(db);
	saveSiteFile(first, stateOf('one', PAGES) as never);
	first.close();
	JOBS.release({ db, site: 'S' }, () => undefined);
	const ACTIONS = [
		['release', '--site', 'S'],
		['import', FILES[1] as string],
		['release', '--site', 'S', '--dry-run'],
		['import', FILES[0] as string]
	];
	// How long each takes when nobody kills it, so that kills fall on all of it.
	const lengths: number[] = [];
	for (const action of ACTIONS) lengths.push(await killed(action, 60_000));
	let releases = 0;
	for (let kill = 0; kill < KILLS; kill++) {
		const at = kill % ACTIONS.length;
		// Spread by the golden ratio: no two kills at the same place.
		const part = ((kill + 1) * 0.618_033_988_7) % 1;
		await killed(ACTIONS[at] as string[], (lengths[at] as number) * (0.3 + 0.75 * part));
		const looking = new Database(db);
		expect(looking.pragma('integrity_check', { simple: true })).toBe('ok');
		expect(looking.pragma('foreign_key_check')).toEqual([]);
		expect(looking.prepare('SELECT count(*) AS n FROM editing').get()).toEqual({ n: 0 });
		looking.close();
		const store = new Store(db);
		expect(states.includes(dump(store))).toBe(true);
		const { id } = store.working.sites.named('S');
		const latest = store.releases.latest(id)!;
		expect(latest.number).toBeGreaterThanOrEqual(releases);
		releases = latest.number;
		expect(store.releases.hashes(id, latest.number).size).toBe(latest.pages);
		expect(store.releases.head(id, { path: '/' })?.html).toMatch(/<title>(one|two) 0 (one|two)<\/title>/);
		store.close();
	}
	// What was interrupted is taken up, and comes to what a full look gives.
	JOBS.release({ db, site: 'S' }, () => undefined);
	const store = new Store(db);
	const { id } = store.working.sites.named('S');
	const kept = () => store.db.prepare('SELECT page_id, head, title, weight, differs FROM page_state ORDER BY 1').all();
	const before = kept();
	store.db.exec('UPDATE page_state SET seen = -1');
	JOBS.refresh({ db, site: 'S' }, () => undefined);
	expect(kept()).toEqual(before);
	expect(store.state.differing(id, 1)).toMatchObject({ changed: 0, added: 0, removed: 0 });
	store.close();
});

test('a long import that is killed between its goes is taken back, or whole', async () => {
	const [start, file, table] = ['start.db', 'long.db', 'long.csv'].map((name) => join(work, name)) as [
		string,
		string,
		string
	];
	const rows = Array.from({ length: 30_000 }, (_, at) => `/p/${at},"New title ${at}","Words about number ${at}."`);
	writeFileSync(table, `path,title,summary\n${rows.join('\n')}\n`);
	const begin = new Store(start);
	saveSiteFile(begin, stateOf('one', 200) as never);
	const before = dump(begin);
	const indexes = (store: Store) =>
		store.db.prepare(`SELECT name, sql FROM sqlite_schema WHERE type = 'index' ORDER BY name`).all();
	const wanted = indexes(begin);
	begin.close();
	/** Imports into the database as it was at first; gives how long (milliseconds) it went on. */
	const importing = (after: number) =>
		new Promise<number>((resolve) => {
			for (const more of ['-wal', '-shm']) rmSync(file + more, { force: true });
			copyFileSync(start, file);
			const began = performance.now();
			const args = ['import', table, '--site', 'S', '--base', 'https://s.example/', '--type', 'note', '--db', file];
			const child = spawn(process.execPath, [program, ...args], { stdio: 'ignore' });
			const timer = setTimeout(() => child.kill('SIGKILL'), after);
			child.once('exit', () => {
				clearTimeout(timer);
				resolve(performance.now() - began);
			});
		});
	const whole = await importing(600_000);
	let halves = 0;
	for (let kill = 0; kill < Math.max(8, KILLS / 3); kill++) {
		// At places all over the work; its beginning is the start of the program.
		await importing(whole * (0.3 + ((kill * 0.618_033_988_7) % 1) * 0.7));
		const looking = new Database(file, { readonly: true });
		halves += (looking.prepare('SELECT count(*) AS n FROM unfinished').get() as { n: number }).n;
		looking.close();
		const store = new Store(file);
		const { id } = store.working.sites.named('S');
		const isWhole = store.working.pages.count(id).all === 30_200;
		if (!isWhole) expect(dump(store)).toBe(before);
		expect(store.record.unfinished()).toEqual([]);
		// What looking at pages writes is made when they were looked at.
		if (isWhole) resumeOrders(store.db, 'all');
		expect(indexes(store)).toEqual(wanted);
		expect(store.db.pragma('foreign_key_check')).toEqual([]);
		const imports = store.record
			.list(id, undefined, 9)
			.filter(({ what }) => (what as { from?: string }).from === 'table');
		expect(imports).toHaveLength(isWhole ? 1 : 0);
		store.close();
	}
	// Kills that fall between no goes would prove nothing.
	expect(halves).toBeGreaterThan(0);
});
