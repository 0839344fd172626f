import { json } from '@sveltejs/kit';
import { readEdit, refuseEdit } from '$server/web/edits';
import { answering, problem } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Sets one rule in the working copy, or takes it away when its body is null. */
export const PUT: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const edit = readEdit(await request.json());
		const store = openStore();
		const site = store.site(params.site);
		const issues = refuseEdit(store, site, edit);
		if (issues.length > 0) return problem(422, 'Refused', issues[0]!.message, { issues });
		store.setRule(site.id, edit.place, edit.tag, edit.language, edit.body);
		return json({ revision: site.revision + 1 });
	});
