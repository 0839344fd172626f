import type { PageServerLoad } from './$types';

/** So many lines of the trail are shown. */
const SHOWN = 40;

/** Who may come in, what each is where, and what was done beside edits. */
export const load: PageServerLoad = ({ locals: { store } }) => ({
	people: store.people.all().map(({ id, name, isOwner, isLocked, password }) => ({
		...{ name, isOwner, isLocked, isInvited: password === undefined },
		roles: store.people.rolesOf(id)
	})),
	sites: store.working.sites.names().map(({ name }) => name),
	trail: store.trail.newest(undefined, SHOWN)
});
