import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { patiently } from '$server/store/opening/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Filters of the table of pages that have a name. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(() => {
		const store = locals.store;
		return json(store.table.filters.all(store.working.sites.named(params.site).id));
	});

/** So many filters have names, each so long (UTF-16 code units) at the most. */
const MOST = 100;
const LONGEST = 2000;

/** Keeps one under a name; one without a query is taken away. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { name, query } = await readRecord(request);
		if (typeof name !== 'string' || name.trim() === '' || name.length > 80) throw refuse('filter-needs-name');
		if (typeof query === 'string' && query.length > LONGEST)
			throw refuse('filter-too-long', { length: query.length, most: LONGEST });
		const store = locals.store;
		const { id } = store.working.sites.named(params.site);
		await patiently(() =>
			store.transaction(() => {
				if (typeof query !== 'string' || query === '') return store.table.filters.drop(id, name);
				const others = store.table.filters.all(id).filter((one) => one.name !== name.trim());
				if (others.length >= MOST) throw refuse('filters-full', { most: MOST });
				store.table.filters.save(id, name.trim(), query);
			})
		);
		return json(store.table.filters.all(id));
	});
