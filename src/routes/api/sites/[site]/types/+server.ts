import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { actOnType, fieldUses, readTypeAction } from '$server/edits/types';
import { patiently } from '$server/store/opening/patiently';
import { answering, problem, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Adds, renames or takes away a content type, or renames a field of one. Gives the name to look at then. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const action = readTypeAction(await readRecord(request));
		const { result } = await patiently(() => actOnType(locals.store, params.site, action, 'bench'));
		return json({ name: result });
	});

/** What asks for the field `?field=` of the type `?type=`: rules of every layer, and texts of its layout. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(() => {
		const [type, field] = [url.searchParams.get('type'), url.searchParams.get('field')];
		if (type === null || field === null) return problem(refuse('field-of-what'));
		return json({ uses: fieldUses(locals.store, params.site, type, field) });
	});
