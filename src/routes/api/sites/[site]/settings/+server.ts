import { json } from '@sveltejs/kit';
import { answering, problem } from '$server/web/problem';
import { conflictOf, readSettingsEdit, saveSettings, settingsAt } from '$server/web/settings';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Changes what a site, a type or a page is, beside its rules. 409 when someone else has changed the same meanwhile. */
export const PATCH: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const edit = readSettingsEdit(await request.json());
		const store = openStore();
		const site = store.site(params.site);
		const current = conflictOf(settingsAt(store, site, edit), edit);
		if (current) return problem(409, 'Conflict', 'This was changed elsewhere meanwhile.', { current });
		saveSettings(store, site, edit);
		return json({ revision: site.revision + 1 });
	});
