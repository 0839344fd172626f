import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { lookOnce } from '$server/web/looking';
import { answering, readRecord } from '$server/web/problem';
import { viaFor } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Looks at an address, or at a page by its path, as all readers would. Going away stops it. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { address } = await readRecord(request);
		if (typeof address !== 'string' || address.trim() === '') throw refuse('probe-what');
		const { store } = locals;
		const { site } = store.working.sites.named(params.site);
		const input = { db: store.file, site: params.site, address, via: viaFor(site.base) };
		return json(await lookOnce(input, request.signal));
	});
