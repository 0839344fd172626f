import { json } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { differencesBetween, goBack, refuseReleases } from '$server/releases';
import { patiently } from '$server/store/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** So many releases, and pages that differ, are told at a time. */
const MOST = 100;

/** The history of releases; with `?from=` and `?to=` what differs between two; with `?path=` a page through all of them. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(() => {
		const store = locals.store;
		const { id } = store.site(params.site);
		const [from, to, path] = ['from', 'to', 'path'].map((name) => url.searchParams.get(name));
		if (from !== null && to !== null && from !== undefined && to !== undefined) {
			const [a, b] = [Number(from), Number(to)];
			refuseReleases(store, id, [a, b]);
			const pages = [];
			let count = 0;
			for (const one of differencesBetween(store, id, [a, b], path ?? undefined)) if (count++ < MOST) pages.push(one);
			return json({ count, pages });
		}
		if (path) return json(store.releases.ofPage(id, path));
		return json(store.releases.history(id, MOST));
	});

/** Goes back: a new release of an old one's heads. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { backTo, note } = await readRecord(request);
		if (!Number.isInteger(backTo)) throw new UserError('Say which release to go back to, by its number.');
		const store = locals.store;
		refuseReleases(store, store.site(params.site).id, [backTo as number]);
		const made = await patiently(() =>
			goBack(store, params.site, backTo as number, typeof note === 'string' && note !== '' ? note : undefined)
		);
		return json(made);
	});
