import { json } from '@sveltejs/kit';
import { keepSettings, readSettingsEdit } from '$server/edits/settings';
import { patiently } from '$server/store/opening/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Changes what a site, a type or a page is, beside its rules. 409 when someone else has changed the same meanwhile. */
export const PATCH: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const change = readSettingsEdit(await readRecord(request));
		const { edit, revision } = await patiently(() => keepSettings(locals.store, params.site, change, 'bench'));
		return json({ revision, edit });
	});
