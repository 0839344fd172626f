import { setImmediate } from 'node:timers/promises';
import { refuse } from '../../errors';
import { readBatch } from '../../edits/batch';
import { readCells } from '../../edits/cells';
import { actOnPage, actOnPages, readPageAction } from '../../edits/pages';
import { writeCsv, writeTableWorkbook } from '../../exports/csv';
import { freshenSoon } from '../../jobs/freshen';
import { runJob } from '../../jobs/run';
import { note } from '../../people/note';
import { patiently } from '../../store/opening/patiently';
import { readBenchData, readPageBench, readWhatLeads } from '../../web/benchData';
import { filterOf, readGrid } from '../../web/grid';
import { readWorst } from '../../web/worst';
import { watched, type Rows } from '../route';

/** At most so many pages are found at a time. */
const MOST_FOUND = 40;
/** So many filters have names at the most. */
const MOST_FILTERS = 100;

/** The pages of a site: their table, and what is asked and done of each. */
export const PAGES = {
	'GET /sites/{site}/grid': ({ store, site, stored, query }) => {
		const answer = readGrid(store, stored.id, query);
		if (answer.unseen > 0) freshenSoon(store, site);
		return answer;
	},

	'POST /sites/{site}/cells': async ({ store, site, body }) => {
		const input = { db: store.file, site, cells: readCells(body) };
		// Who leaves right after writing has written.
		const done = await patiently(() => runJob('cells', input));
		freshenSoon(store, site);
		return done;
	},

	'POST /sites/{site}/batch': async ({ store, site, body, say, signal }) => {
		const input = { db: store.file, site, ...readBatch({ ...body }) };
		const done = await patiently(() => runJob('batch', input, watched({ say, signal })));
		freshenSoon(store, site);
		return done;
	},

	'POST /sites/{site}/batch/sample': ({ store, site, body, signal }) =>
		runJob('sample', { db: store.file, site, ...readBatch({ ...body }) }, { signal }),

	'GET /sites/{site}/csv': async ({ store, site, query }) => {
		await patiently(() => note(store, 'exported', { as: 'csv' }, site));
		return download(writeCsv(store, site, filterOf(query), { ...outOf(query), mark: query.mark === '1' }), {
			type: 'text/csv; charset=utf-8; header=present',
			name: `${site.replace(/[^\p{L}\p{N}]+/gu, '-')}-pages.csv`
		});
	},

	'GET /sites/{site}/workbook': async ({ store, site, query }) => {
		await patiently(() => note(store, 'exported', { as: 'xlsx' }, site));
		return download(writeTableWorkbook(store, site, filterOf(query), outOf(query)), {
			type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
			name: `${site.replace(/[^\p{L}\p{N}]+/gu, '-')}-pages.xlsx`
		});
	},

	'POST /sites/{site}/csv': async ({ store, site, query, bytes, say, signal }) => {
		const file = bytes!;
		const done = await runJob(
			'csvBack',
			{ db: store.file, site, file, takes: { rewritten: query.rewritten === '1' } },
			{ gives: [file.buffer], ...watched({ say, signal }) }
		);
		freshenSoon(store, site);
		return done;
	},

	'POST /sites/{site}/csv/comparison': ({ store, site, query, bytes, say, signal }) =>
		runJob(
			'compareCsv',
			{ db: store.file, site, file: bytes!, takes: { rewritten: query.rewritten === '1' } },
			{ gives: [bytes!.buffer], ...watched({ say, signal }) }
		),

	'GET /sites/{site}/filters': ({ store, stored }) => store.table.filters.all(stored.id),

	'POST /sites/{site}/filters': async ({ store, stored: { id }, body: { name, query } }) => {
		await patiently(() =>
			store.transaction(() => {
				if (query === undefined || query === '') return store.table.filters.drop(id, name);
				const others = store.table.filters.all(id).filter((one) => one.name !== name.trim());
				if (others.length >= MOST_FILTERS) throw refuse('filters-full', { most: MOST_FILTERS });
				store.table.filters.save(id, name.trim(), query);
			})
		);
		return store.table.filters.all(id);
	},

	'GET /sites/{site}/pages': ({ store, stored, query: { find = '', after, limit = MOST_FOUND } }) => {
		if (find.trim() !== '') return { pages: store.table.listing.find(stored.id, find, limit) };
		const pages = store.table.listing.after(stored.id, after ?? '', limit);
		const last = pages.at(-1);
		return { pages, ...(pages.length === limit && last && { next: last.path }) };
	},

	'POST /sites/{site}/pages': async ({ store, site, body }) => {
		// Several done as one edit come from the room of findings.
		const { result, revision, edit } = await patiently(() =>
			'actions' in body
				? actOnPages(store, site, body.actions.map(readPageAction), 'findings')
				: actOnPage(store, site, readPageAction(body), 'bench')
		);
		return { path: result, revision, edit };
	},

	'GET /sites/{site}/page': ({ store, site, query }) => {
		const data = readBenchData(store, site, query.path);
		if (!data.page) throw refuse('page-not-there');
		return { page: data.page, pictures: data.pictures };
	},

	'GET /sites/{site}/bench': ({ store, site, query }) => readPageBench(store, site, query),

	'GET /sites/{site}/page/leading': ({ store, site, query }) => readWhatLeads(store, site, query.path),

	'GET /sites/{site}/page/linking': ({ store, site, query, signal }) =>
		runJob('linking', { db: store.file, site, path: query.path }, { signal }),

	'GET /sites/{site}/hard': ({ store, site, query: { type }, signal }) =>
		runJob('hard', { db: store.file, site, ...(type !== undefined && { type }) }, { signal }),

	'GET /sites/{site}/worst': ({ store, site }) => readWorst(store, site)
} satisfies Rows;

/** What of the table is put out, as it is asked for. */
const outOf = (query: {
	readonly columns?: string;
	readonly sort?: Parameters<typeof writeTableWorkbook>[3]['sort'];
	readonly down?: string;
}) => ({
	columns: (query.columns ?? 'path,title,description').split(','),
	sort: query.sort ?? 'path',
	down: query.down === '1'
});

const download = (
	pieces: Iterator<string | Uint8Array>,
	{ type, name }: { readonly type: string; readonly name: string }
) =>
	new Response(streamOf(pieces), {
		headers: {
			'content-type': type,
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`
		}
	});

/** A piece each time the reader asks: nothing piles up, and others are answered between. */
function streamOf(pieces: Iterator<string | Uint8Array>): ReadableStream<Uint8Array> {
	const encoder = new TextEncoder();
	return new ReadableStream<Uint8Array>({
		async pull(controller) {
			await setImmediate();
			const next = pieces.next();
			if (next.done) controller.close();
			else controller.enqueue(typeof next.value === 'string' ? encoder.encode(next.value) : next.value);
		}
	});
}
