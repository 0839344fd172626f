import { json } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { patiently } from '$server/store/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Filters of the table of pages that have a name. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(() => {
		const store = locals.store;
		return json(store.filters.all(store.site(params.site).id));
	});

/** Keeps one under a name; one without a query is taken away. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { name, query } = await readRecord(request);
		if (typeof name !== 'string' || name.trim() === '' || name.length > 80)
			throw new UserError('A filter needs a name of at most 80 characters.');
		const store = locals.store;
		const { id } = store.site(params.site);
		await patiently(() =>
			store.transaction(() =>
				typeof query === 'string' && query !== ''
					? store.filters.save(id, name.trim(), query)
					: store.filters.drop(id, name)
			)
		);
		return json(store.filters.all(id));
	});
