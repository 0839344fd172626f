import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '$core';
import { keepSettings, readSettingsEdit } from '$server/edits/settings';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';

/**
 * Pages that read others, at 100,000 pages with 300,000 references: an edit of a page that 20,000 read, held against bringing
 * 20,000 pages up to date that read none, and of one that nobody reads, with references in the site and without.
 * `node build/cli/readers.js`
 */
const PAGES = Number(process.env.READERS_PAGES ?? 100_000);
const FIFTH = PAGES / 5;
const folder = mkdtempSync(join(tmpdir(), 'kephalon-readers-'));
const quiet = () => undefined;
const say = (tag: string, template: string) => ({ tag, kind: 'template' as const, template });

function make(name: string, reads: boolean): { store: Store; db: string } {
	const db = join(folder, `${name}.db`);
	const store = new Store(db);
	const page = (path: string, type: string, fields: Page['fields']): Page => ({
		...{ path, type, state: 'live', rules: [], fields }
	});
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: {
			...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
			rules: [say('title', '{page.title}'), say('description', '{page.summary}')]
		},
		types: [
			{
				name: 'walk',
				fields: [
					{ name: 'guide', kind: 'page' },
					{ name: 'near', kind: 'pages' }
				],
				rules: reads
					? [
							say(
								'og:description',
								'{page.guide.title}[[ – {page.guide.head.description}]] {page.near | each "title" | join}'
							)
						]
					: []
			},
			{ name: 'guide', fields: [], rules: [] }
		],
		pages: [
			page('/', 'guide', { title: 'Home' }),
			...Array.from({ length: 5 }, (_, at) =>
				page(`/guides/${at}`, 'guide', { title: `Guide ${at}`, summary: 'Of the shore.' })
			),
			page('/alone', 'guide', { title: 'Read by nobody' }),
			...Array.from({ length: PAGES }, (_, at) =>
				page(`/walks/${at}`, 'walk', {
					...{
						title: `Walk ${at}`,
						summary: `The walk of number ${at} along the shore.`,
						guide: `/guides/${Math.floor(at / FIFTH)}`
					},
					near: [`/walks/${(at + 1) % PAGES}`, `/walks/${(at + 7) % PAGES}`]
				})
			)
		]
	} as never);
	return { store, db };
}
const seconds = (work: () => unknown) => {
	const began = performance.now();
	work();
	return (performance.now() - began) / 1000;
};
const refresh = (db: string) => JOBS.refresh({ db, site: 'S' }, quiet);
let times = 0;
const edit = (store: Store, path: string) =>
	keepSettings(
		store,
		'S',
		readSettingsEdit({ place: { layer: 'page', path }, changes: { fields: { title: `New ${++times}` } } }),
		'bench'
	);

const [bare, full] = [make('bare', false), make('full', true)];
const [first, whole] = [seconds(() => refresh(bare.db)), seconds(() => refresh(full.db))];
const id = full.store.working.sites.named('S').id;
const references = full.store.db.prepare<[], { n: number }>('SELECT count(*) AS n FROM page_reads').get()!.n;
console.log(
	`${PAGES.toLocaleString('en')} pages, ${references.toLocaleString('en')} references; all brought up to date: ${whole.toFixed(1)} s, ${first.toFixed(1)} s without`
);

const edited = seconds(() => edit(full.store, '/guides/1'));
const stale = full.store.state.countStale(id);
const brought = seconds(() => refresh(full.db));
bare.store.db
	.prepare('UPDATE page_state SET seen = -1 WHERE page_id IN (SELECT id FROM page WHERE type = ? LIMIT ?)')
	.run('walk', stale);
const plain = seconds(() => refresh(bare.db));
const report = (what: string, value: number, most: number, more: string) =>
	console.log(
		`${what.padEnd(66)}${value.toFixed(2).padStart(7)}  (at most ${most})${value > most ? '  missed' : ''}  ${more}`
	);
report(
	'an edit of a page that a fifth read, to as many pages that read none',
	(edited + brought) / plain,
	1.7,
	`${stale.toLocaleString('en')} pages: kept in ${(edited * 1000).toFixed(0)} ms, brought up to date in ${brought.toFixed(1)} s; ${plain.toFixed(1)} s`
);
const best = (store: Store) => Math.min(...Array.from({ length: 30 }, () => seconds(() => edit(store, '/alone'))));
const [with_, without] = [best(full.store), best(bare.store)];
report(
	'an edit of a page that nobody reads, to the same without references',
	with_ / without,
	1.3,
	`${(with_ * 1000).toFixed(2)} ms, ${(without * 1000).toFixed(2)} ms`
);
for (const { store } of [bare, full]) store.close();
rmSync(folder, { recursive: true, force: true });
