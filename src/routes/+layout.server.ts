import { nameOf } from '$server/people/note';
import type { LayoutServerLoad } from './$types';

/** The language to speak, and who is here; `''` for the one who is alone, and where a database cannot be opened: its page tells that. */
export const load: LayoutServerLoad = ({ locals }) => {
	const { language } = locals;
	try {
		return { me: { kind: locals.who.kind, name: nameOf(locals.who, '') }, language };
	} catch {
		return { me: { kind: 'alone' as const, name: '' }, language };
	}
};
