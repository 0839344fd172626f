import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { patiently } from '$server/store/opening/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

const MOST = 200;

/** Ticks an item of the list for a launch, or takes the tick away. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { id: item, on } = await readRecord(request);
		if (typeof item !== 'string' || item.length > 200) throw refuse('launch-what');
		const store = locals.store;
		const { id } = store.working.sites.named(params.site);
		// Read where it is written: another tab may tick at the same time.
		const tick = () => {
			const ticked = new Set(store.working.sources.settings<string[]>(id, 'launch') ?? []);
			if (on === true) ticked.add(item);
			else ticked.delete(item);
			if (ticked.size > MOST) throw refuse('launch-full', { most: MOST });
			store.working.sources.saveSettings(id, 'launch', [...ticked]);
			return [...ticked];
		};
		return json(await patiently(() => store.transaction(tick)));
	});
