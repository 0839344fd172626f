import { redirect } from '@sveltejs/kit';
import { refusedIn, signOnSettings } from '$server/people/signOnSettings';
import type { PageServerLoad } from './$types';

/** Signing in leads on to where one wanted to go, within this application. */
export const load: PageServerLoad = ({ locals, url }) => {
	const wanted = url.searchParams.get('to') ?? '/';
	const to = /^\/(?![/\\])/.test(wanted) ? wanted : '/';
	if (locals.who.kind === 'alone' || locals.who.kind === 'person') redirect(303, to);
	return { to, signOn: signOnSettings()?.name, refused: refusedIn(url.searchParams) };
};
