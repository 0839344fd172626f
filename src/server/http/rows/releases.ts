import { ALONE } from '$core';
import { actingAs } from '../../people/acting';
import { refuseReleaseBeyond } from '../../people/beyond';
import { gunzipSync } from 'node:zlib';
import { refuse } from '../../errors';
import { robotsOf } from '../../exports/robots';
import { freshenAwhile } from '../../jobs/freshen';
import { runJob } from '../../jobs/run';
import { readDrift, setSchedule } from '../../probes/drift';
import { lookAtCards, tellReaders } from '../../readers/cards';
import { lookInWords } from '../../probes/told';
import { readersClient } from '../../readers/service';
import { refuseReleases } from '../../releases/releases';
import { patiently } from '../../store/opening/patiently';
import { lookOnce } from '../../web/looking';
import { readPending } from '../../web/pending';
import { readSheet } from '../../web/sheet';
import { readSitemap } from '../../web/sitemaps';
import { viaFor } from '../../web/working';
import { watched, watchedOrDone, type Rows } from '../route';

/** So many releases, and pages that differ, are told at a time. */
const MOST_TOLD = 100;
/** So many ticks are kept. */
const MOST_TICKS = 200;
/** So many pages of what would go out are told at a time. */
const SHEET_PAGES = 30;

const noteOf = (note: string | undefined) => (note && note.trim() !== '' ? { note: note.trim() } : {});
const sureOf = (removes: number | undefined) => (removes !== undefined ? { removes } : {});

/** What goes out, what went out, and what readers make of it. */
export const RELEASES = {
	'GET /sites/{site}/pending': ({ store, site }) => readPending(store, site),

	'GET /sites/{site}/sheet': async ({ store, site, query: { after, q } }) => {
		await freshenAwhile(store, site);
		return readSheet(store, site, { after, limit: SHEET_PAGES, q });
	},

	'POST /sites/{site}/release': async ({ store, site, stored, body: { note, only, removes }, say, signal }) => {
		refuseReleaseBeyond(store, stored, only);
		const input = { db: store.file, site, ...noteOf(note), ...(only && { only }), ...sureOf(removes) };
		// Copies of pictures that rules need are the site's own affair, whoever releases it.
		await actingAs(ALONE, () => runJob('gather', { db: store.file, site }));
		return runJob('release', input, watchedOrDone({ say, signal }));
	},

	'GET /sites/{site}/releases': ({ store, stored }) => store.releases.history(stored.id, MOST_TOLD),

	'POST /sites/{site}/releases': ({ store, site, stored, body: { backTo: to, note, removes }, say, signal }) => {
		refuseReleases(store, stored.id, [to]);
		refuseReleaseBeyond(store, stored, undefined);
		const input = { db: store.file, site, to, ...noteOf(note), ...sureOf(removes) };
		return patiently(() => runJob('goBack', input, watchedOrDone({ say, signal })));
	},

	'GET /sites/{site}/releases/between': ({ store, site, stored, query: { from, to, path }, signal }) => {
		const between = [from, to] as const;
		refuseReleases(store, stored.id, between);
		const input = { db: store.file, site, between, most: MOST_TOLD, ...(path && { path }) };
		return runJob('compareReleases', input, { signal });
	},

	'GET /sites/{site}/releases/page': ({ store, stored, query }) => store.releases.ofPage(stored.id, query.path),

	'GET /sites/{site}/sitemap': async ({ store, site, query: { name = 'sitemap.xml' }, headers }) => {
		const found = await readSitemap(store, site, name);
		if (!found) throw refuse('sitemap-missing', { name });
		const { gzip, etag } = found;
		const told = { etag, 'cache-control': 'no-cache', vary: 'accept-encoding', 'x-content-type-options': 'nosniff' };
		if (headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers: told });
		const isTaken = /\bgzip\b/.test(headers.get('accept-encoding') ?? '');
		return new Response((isTaken ? gzip : gunzipSync(gzip)) as Uint8Array<ArrayBuffer>, {
			headers: {
				...{ ...told, 'content-type': 'application/xml; charset=utf-8' },
				...(isTaken && { 'content-encoding': 'gzip' })
			}
		});
	},

	'GET /sites/{site}/robots': ({ stored }) =>
		new Response(robotsOf(stored.site), {
			headers: { 'content-type': 'text/plain; charset=utf-8', 'x-content-type-options': 'nosniff' }
		}),

	'GET /sites/{site}/cards': ({ store, site }) =>
		runJob('cards', { db: store.file, site, hasReaders: readersClient() !== undefined }),

	'POST /sites/{site}/cards': async ({ store, site, body, say, signal }) => {
		const client = readersClient();
		if (!client) throw refuse('no-readers');
		const work = body.do === 'look' ? lookAtCards : tellReaders;
		return { asked: await work(store, client, site, { say: say ?? (() => undefined), signal }) };
	},

	'POST /sites/{site}/probe': async ({ store, site, stored, body: { address, via }, signal }) =>
		lookInWords(await lookOnce({ db: store.file, site, address, via: viaFor(stored.site.base, via) }, signal)),

	'GET /sites/{site}/drift': ({ store, site }) => readDrift(store, site),

	'POST /sites/{site}/drift': async ({ store, site, stored, say, signal }) => {
		const input = { db: store.file, site, via: viaFor(stored.site.base) };
		await runJob('drift', input, watched({ say, signal }));
		// Read here: it is told in the language of whoever asks.
		return { drift: readDrift(store, site) };
	},

	'PUT /sites/{site}/drift': ({ store, site, body: { every } }) => setSchedule(store, site, every),

	'POST /sites/{site}/launch': ({ store, stored: { id }, body: { id: item, on } }) => {
		// Read where it is written: another tab may tick at the same time.
		const tick = () => {
			const ticked = new Set(store.working.sources.settings<string[]>(id, 'launch') ?? []);
			if (on) ticked.add(item);
			else ticked.delete(item);
			if (ticked.size > MOST_TICKS) throw refuse('launch-full', { most: MOST_TICKS });
			store.working.sources.saveSettings(id, 'launch', [...ticked]);
			return [...ticked];
		};
		return patiently(() => store.transaction(tick));
	}
} satisfies Rows;
