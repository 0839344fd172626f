import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeEach, expect, test, vi } from 'vitest';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';

/** Pages that say something of the day: kept as long as it is so, looked at again when it changes, told until it is released. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-moments-'));
let store: Store;
let made = 0;
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => vi.useRealTimers());

const say = (tag: string, template: string) => ({ tag, kind: 'template' as const, template });
const at = (moment: string) => vi.useFakeTimers({ now: new Date(moment), toFake: ['Date'] });
const page = (path: string, type: string, starts?: string) => ({
	...{ path, type, state: 'live', rules: [] },
	fields: { title: path.slice(1), ...(starts && { starts }) }
});
beforeEach(() => {
	at('2026-05-01T10:00:00Z');
	store?.close();
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: {
			...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
			timeZone: 'Europe/Paris'
		},
		types: [
			{
				name: 'walk',
				fields: [{ name: 'starts', kind: 'date' }],
				rules: [say('title', '[[{page.starts | coming?}Soon: ]]{page.title}')]
			},
			{ name: 'clock', fields: [], rules: [say('title', 'At {now | date "HH:mm"}')] },
			{ name: 'echo', fields: [{ name: 'of', kind: 'page' }], rules: [say('title', '{page.of.head.title}!')] }
		],
		pages: [
			page('/', 'walk'),
			page('/one', 'walk', '2026-05-03'),
			page('/two', 'walk', '2026-05-02T18:00'),
			page('/clock', 'clock'),
			{ ...page('/echo', 'echo'), fields: { title: 'E', of: '/one' } }
		]
	} as never);
	refresh();
});
const id = () => store.working.sites.named('S').id;
const refresh = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
const title = (path: string) =>
	(store.db.prepare('SELECT title FROM page_state WHERE path = ?').get(path) as { title: string }).title;

test('as long as nothing changes nothing is looked at again, and when it does exactly what says so', () => {
	release();
	refresh();
	expect(title('/one')).toBe('Soon: one');
	at('2026-05-02T15:59:00Z');
	expect(store.state.countStale(id())).toBe(0);
	at('2026-05-02T16:00:00Z');
	expect(store.state.countStale(id())).toBe(1);
	expect(refresh()).toBe(1);
	expect(title('/two')).toBe('two');
	expect(store.state.differing(id(), 9)).toMatchObject({ changed: 1, paths: ['/two'] });
	// What reads that head is looked at with it.
	at('2026-05-02T22:00:00Z');
	expect(refresh()).toBe(2);
	expect([title('/one'), title('/echo')]).toEqual(['one', 'one!']);
	expect(refresh()).toBe(0);
	release();
	refresh();
	expect(store.state.differing(id(), 9)).toMatchObject({ changed: 0 });
	expect(store.state.nextChange(id())).toBeUndefined();
});

test('what names the moment itself is looked at with every release, and does not differ by the clock alone', () => {
	release();
	refresh();
	expect(title('/clock')).toBe('At 12:00');
	at('2026-07-01T10:30:00Z');
	refresh();
	expect(title('/clock')).toBe('At 12:00');
	expect(store.state.differing(id(), 9).paths).not.toContain('/clock');
	release();
	refresh();
	expect(title('/clock')).toBe('At 12:30');
});

test('it is known how many pages say something of the day, and when the first says another thing', () => {
	const next = Date.parse('2026-05-02T16:00:00Z');
	expect(store.state.nextChange(id())).toEqual({ at: next, pages: 3 });
	at('2026-05-02T17:00:00Z');
	refresh();
	expect(store.state.nextChange(id())).toEqual({ at: Date.parse('2026-05-02T22:00:00Z'), pages: 2 });
});

test('a release that is made when the time has come says what is so then', () => {
	release();
	at('2026-05-04T00:00:00Z');
	release();
	expect(store.releases.head(id(), { path: '/one' })!.html).toContain('<title>one</title>');
});
