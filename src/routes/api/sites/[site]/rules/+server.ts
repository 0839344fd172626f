import { json } from '@sveltejs/kit';
import { sameJson } from '$core';
import { readEdit, refuseEdit, ruleBefore } from '$server/web/edits';
import { answering, problem, readRecord } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/**
 * Sets one rule in the working copy, or takes it away when its body is null. With `expected`, the rule as the sender
 * saw it: 409 with the rule as it is now when someone else has changed it meanwhile.
 */
export const PUT: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const { expected, ...data } = (await readRecord(request)) as Record<string, unknown>;
		const edit = readEdit(data);
		const store = openStore();
		const site = store.site(params.site);
		const current = ruleBefore(store, site, edit);
		if (expected !== undefined && !sameJson(expected, current))
			return problem(409, 'Conflict', 'This was changed elsewhere meanwhile.', { current });
		const issues = refuseEdit(store, site, edit);
		if (issues.length > 0) return problem(422, 'Refused', issues[0]!.message, { issues });
		store.setRule(site.id, edit.place, edit.tag, edit.language, edit.body);
		return json({ revision: site.revision + 1 });
	});
