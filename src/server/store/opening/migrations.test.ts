import Database from 'better-sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { JOBS } from '../../jobs/jobs';
import { MIGRATIONS } from './migrations';
import { Store } from '../store';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-migrations-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What stands in each release, by path: the head of a page is its hash. A page goes, comes back, changes, moves. */
const RELEASES: Readonly<Record<string, string>>[] = [
	{ '/': 'a1', '/gone': 'g1', '/same': 's1', '/back': 'b1' },
	{ '/': 'a2', '/same': 's1' },
	{ '/': 'a1', '/same': 's1', '/back': 'b1', '/new': 'n1' }
];

/** The schemas of all released versions had these tables when releases were kept whole. */
function fill(db: Database.Database) {
	db.exec(`
		INSERT INTO site (id, name, base, settings, revision) VALUES (1, 'S', 'https://s.example/', '{"languages":["en"],"separator":"·","fields":{}}', 7);
		INSERT INTO content_type (id, site_id, name, settings) VALUES (1, 1, 'note', '{"fields":[]}');
		INSERT INTO rule (site_id, type_id, tag, body) VALUES (1, 1, 'title', '{"kind":"template","template":"{page.title} now"}');
		INSERT INTO picture (site_id, src, facts) VALUES (1, '/p.jpg', '{"width":9,"height":9}');
	`);
	for (const path of ['/', '/same', '/back', '/new'])
		db.prepare(
			`INSERT INTO page (site_id, path, type, state, fields, settings) VALUES (1, ?, 'note', 'live', json_object('title', ?), '{}')`
		).run(path, path);
	for (const hash of new Set(RELEASES.flatMap((pages) => Object.values(pages))))
		db.prepare(`INSERT INTO head VALUES (?, ?, '{}')`).run(hash, `<title>${hash}</title>`);
	RELEASES.forEach((pages, at) => {
		db.prepare(
			`INSERT INTO release (id, site_id, number, created, pages, revision) VALUES (?, 1, ?, '2026-01-01T00:00:00Z', ?, ?)`
		).run(...[at + 1, at + 1, Object.keys(pages).length, at + 1]);
		for (const [path, hash] of Object.entries(pages))
			db.prepare(`INSERT INTO released_page VALUES (?, ?, ?, ?)`).run(at + 1, path, `https://s.example${path}`, hash);
	});
}

/** The last schema before releases became intervals. */
const WHOLE = 4;

/** What later schemas came to keep, each put in as that schema had it. */
const LATER: Readonly<Record<number, string>> = {
	5: `UPDATE site SET revision = 9 WHERE id = 1;
		INSERT INTO edit (id, site_id, revision, made, author, origin, kind, what) VALUES (1, 1, 9, '2026-02-01T00:00:00Z', 'ada', 'bench', 'rule', '{"tag":"title"}');
		INSERT INTO editing VALUES (1);
		UPDATE rule SET body = '{"kind":"template","template":"{page.title} now"}' WHERE tag = 'title';
		UPDATE page SET fields = json_object('title', path, 'summary', 'S') WHERE path = '/same';
		DELETE FROM editing;
		UPDATE page SET fields = json_object('title', path) WHERE path = '/same';
		INSERT INTO page_body (page_id, body) SELECT id, '<p>Long.' FROM page WHERE path = '/back';`,
	6: `INSERT INTO import_source VALUES (1, 'folder', '{"folder":"/srv/site"}');
		INSERT INTO crawl VALUES (1, 'https://s.example/a', 1, 0, NULL);`,
	7: `INSERT INTO aside VALUES (1, 'no-picture', '', '/same', 'meant so', 'ada', '2026-02-02T00:00:00Z');
		INSERT INTO saved_filter VALUES (1, 'drafts', 'state=draft');
		INSERT INTO look VALUES (1, 'https://s.example/', '2026-02-03T00:00:00Z', '{}');`,
	8: `INSERT INTO reader_card VALUES (1, '/same', 'gangway', '{}', 0, '2026-02-04T00:00:00Z', NULL, NULL);
		UPDATE release SET author = 'ada' WHERE number = 3;`,
	9: `INSERT INTO verified VALUES (1, '/same', 'gangway', 's1', '{}', '"tag"', NULL);`,
	// It had other indexes, and nothing else.
	10: `REINDEX page_state;`,
	11: `UPDATE page_state SET tags = ' title og:title ';`,
	// It kept each set of tags once.
	12: `REINDEX page_state;`,
	13: `INSERT INTO paused_index VALUES ('page_state_away', 'CREATE INDEX page_state_away ON page_state (card)');`,
	14: `INSERT INTO page_link SELECT id, char(10) || '/same' || char(10) FROM page WHERE path = '/back';`,
	// It had fewer indexes, and nothing else.
	15: `REINDEX page_state;`,
	16: `REINDEX page_state;`,
	17: `UPDATE site_made SET made = '2026-01-31T00:00:00Z';`,
	18: `INSERT INTO media_name VALUES ('0123456789abcdef01234567-wide.jpg');`,
	19: `UPDATE page SET settings = '{"alternates":{"fr":"/new"}}' WHERE path = '/same';`,
	20: `INSERT OR IGNORE INTO page_version SELECT 1, '/back', id FROM page WHERE path = '/same';`,
	21: `INSERT INTO page_reads SELECT 1, '/back', id FROM page WHERE path = '/same';`,
	22: `UPDATE page_state SET changes_at = 1;`,
	23: `INSERT INTO access_key (hash, name, site_id, scopes, maker, made) VALUES (x'07', 'build', 1, '["read"]', 'ada', 7);`,
	24: `INSERT INTO pushed VALUES (1, '/same', 'boats', '{"title":"T"}');`,
	25: `INSERT INTO webhook (site_id, address, secret, events, maker, made, is_inside)
		VALUES (1, 'https://hooks.example/', 's', '["release.made"]', 'ada', 7, 0);
		INSERT INTO finding_told VALUES (1, 'no-title', 3);`
};

/** All schemas that there were: this one stands at the end, and is not among them. */
const EARLIER = MIGRATIONS.slice(0, -1).map((_, at) => at + 1);

test('every later schema has something of its own to lose', () => {
	expect(Object.keys(LATER).map(Number)).toEqual(EARLIER.filter((version) => version > WHOLE));
});

describe.each(EARLIER)('a database of schema %i', (version) => {
	const file = join(folder, `${version}.db`);
	const old = new Database(file);
	old.function('rename_separator', (text) => text);
	old.function('media_names', (text) => (text === null ? '' : '[]'));
	MIGRATIONS.slice(0, version).forEach((sql, at) => {
		if (at === Math.min(version, WHOLE)) fill(old);
		old.exec(sql);
		old.exec(LATER[at + 1] ?? '');
	});
	if (version <= WHOLE) fill(old);
	old.pragma(`user_version = ${version}`);
	old.close();
	const store = new Store(file);

	test('serves the same, now and in every release', () => {
		RELEASES.forEach((pages, at) => {
			expect(Object.fromEntries(store.releases.hashes(1, at + 1))).toEqual(pages);
			for (const path of ['/', '/gone', '/same', '/back', '/new'])
				expect(store.releases.headIn(1, at + 1, path)?.hash).toBe(pages[path]);
		});
		expect(store.releases.head(1, { path: '/new' })?.html).toBe('<title>n1</title>');
		expect(store.releases.head(1, { address: 'https://s.example/back' })?.hash).toBe('b1');
		expect(store.releases.head(1, { path: '/gone' })).toBeUndefined();
		expect(store.releases.history(1, 9).map(({ number, pages }) => [number, pages])).toEqual([
			[3, 4],
			[2, 2],
			[1, 4]
		]);
	});
	test('keeps its pages, rules and pictures, and every page is yet to be looked at', () => {
		expect(store.working.sites.named('S').types[0]?.rules).toHaveLength(1);
		expect(store.working.pages.count(1)).toEqual({ all: 4, live: 4, byType: { note: 4 } });
		expect(store.pictures.all(1)).toHaveLength(1);
		expect(store.state.countStale(1)).toBe(4);
		expect(store.db.pragma('integrity_check', { simple: true })).toBe('ok');
		expect(store.db.pragma('foreign_key_check')).toEqual([]);
	});
	test('loses nothing of what it came to keep', () => {
		const has = (since: number, rows: readonly object[]) => (version >= since ? rows : []);
		const all = (sql: string) => store.db.prepare(sql).all();
		expect(store.record.list(1, undefined, 9)).toMatchObject(has(5, [{ id: 1, author: 'ada' }]));
		expect(all('SELECT body FROM page_body')).toEqual(has(5, [{ body: '<p>Long.' }]));
		expect(all('SELECT settings FROM import_source')).toEqual(has(6, [{ settings: '{"folder":"/srv/site"}' }]));
		expect(all('SELECT address FROM crawl')).toEqual(has(6, [{ address: 'https://s.example/a' }]));
		expect(all('SELECT reason FROM aside')).toEqual(has(7, [{ reason: 'meant so' }]));
		expect(all('SELECT query FROM saved_filter')).toEqual(has(7, [{ query: 'state=draft' }]));
		expect(all('SELECT made FROM look')).toEqual(has(7, [{ made: '2026-02-03T00:00:00Z' }]));
		expect(all('SELECT reader FROM reader_card')).toEqual(has(8, [{ reader: 'gangway' }]));
		expect(all('SELECT etag FROM verified')).toEqual(has(9, [{ etag: '"tag"' }]));
		expect(all('SELECT DISTINCT tags FROM page_state JOIN tag_set t ON t.id = tag_set')).toEqual(
			has(11, [{ tags: ' title og:title ' }])
		);
		expect(all('SELECT name FROM access_key')).toEqual(has(23, [{ name: 'build' }]));
		expect(all(`SELECT name FROM sqlite_schema WHERE name = 'page_state_away'`)).toEqual(
			has(13, [{ name: 'page_state_away' }])
		);
		expect(store.working.pages.naming(1, '/new').map(({ path }) => path)).toEqual(version >= 19 ? ['/same'] : []);
		expect(store.working.bodies.linkingTo(1, ['/same'])).toEqual(version >= 14 ? ['/back'] : []);
		expect(store.releases.history(1, 1)).toMatchObject([{ number: 3, author: version >= 8 ? 'ada' : '' }]);
	});
	test('compares and releases on from there', () => {
		expect(store.releases.between(1, 1, 2)).toEqual([
			{ path: '/', before: 'a1', after: 'a2' },
			{ path: '/back', before: 'b1', after: null },
			{ path: '/gone', before: 'g1', after: null }
		]);
		expect(store.releases.between(1, 1, 3)).toEqual([
			{ path: '/gone', before: 'g1', after: null },
			{ path: '/new', before: null, after: 'n1' }
		]);
		const made = JOBS.release({ db: file, site: 'S' }, () => undefined);
		expect(made).toMatchObject({ number: 4, pages: 4, changed: 4, added: 0, removed: 0 });
		expect(store.releases.head(1, { path: '/same' })?.html).toContain('<title>/same now</title>');
		expect(Object.fromEntries(store.releases.hashes(1, 2))).toEqual(RELEASES[1]);
	});
	test('old releases are pruned, and what stands in the kept ones stays', () => {
		const kept = [...store.releases.hashes(1, 3)];
		expect(store.releases.prune(1, 2)).toBe(2);
		expect([...store.releases.hashes(1, 3)]).toEqual(kept);
		expect(store.releases.history(1, 9).map(({ number }) => number)).toEqual([4, 3]);
		expect(store.releases.byHash('a2')).toBeUndefined();
		expect(store.releases.byHash('n1')).toBeDefined();
		expect(store.releases.prune(1, 2)).toBe(0);
	});
});
