import { json } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { lookAt } from '$server/probes/look';
import { answering, readRecord } from '$server/web/problem';
import { standIn } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Looks at an address, or at a page by its path, as all readers would. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { address } = await readRecord(request);
		if (typeof address !== 'string' || address.trim() === '')
			throw new UserError('Say which address is to be looked at.');
		const own = standIn();
		return json(
			await lookAt(locals.store, params.site, address, own && { origin: own.base.replace(/\/$/, ''), at: own.origin })
		);
	});
