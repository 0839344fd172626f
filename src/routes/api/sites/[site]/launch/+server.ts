import { json } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { patiently } from '$server/store/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Ticks an item of the list for a launch, or takes the tick away. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { id: item, on } = await readRecord(request);
		if (typeof item !== 'string' || item.length > 200) throw new UserError('Say which item is meant.');
		const store = locals.store;
		const { id } = store.site(params.site);
		const before = new Set(store.sources.settings<string[]>(id, 'launch') ?? []);
		if (on === true) before.add(item);
		else before.delete(item);
		await patiently(() => store.transaction(() => store.sources.saveSettings(id, 'launch', [...before])));
		return json([...before]);
	});
