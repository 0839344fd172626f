import { json } from '@sveltejs/kit';
import { keepRule, readEdit } from '$server/edits/rules';
import { patiently } from '$server/store/opening/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/**
 * Sets one rule in the working copy, or takes it away when its body is null. With `expected`, the rule as the sender
 * saw it: 409 with the rule as it is now when someone else has changed it meanwhile.
 */
export const PUT: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { expected, ...data } = await readRecord(request);
		const wanted = readEdit(data);
		const { edit, revision } = await patiently(() =>
			keepRule(locals.store, params.site, wanted, { expected, origin: 'bench' })
		);
		return json({ revision, edit });
	});
