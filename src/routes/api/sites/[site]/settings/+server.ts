import { json } from '@sveltejs/kit';
import { answering, problem, readRecord } from '$server/web/problem';
import { conflictOf, readSettingsEdit, saveSettings, settingsAt } from '$server/web/settings';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Changes what a site, a type or a page is, beside its rules. 409 when someone else has changed the same meanwhile. */
export const PATCH: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const edit = readSettingsEdit(await readRecord(request));
		const store = openStore();
		const site = store.site(params.site);
		const current = conflictOf(settingsAt(store, site, edit), edit);
		if (current) return problem(409, 'Conflict', 'This was changed elsewhere meanwhile.', { current });
		saveSettings(store, site, edit);
		return json({ revision: site.revision + 1 });
	});
