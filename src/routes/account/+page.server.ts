import { sessionsOf } from '$server/people/accounts';
import { actingAs } from '$server/people/acting';
import { passkeysOf } from '$server/people/passkeys';
import type { PageServerLoad } from './$types';

/** Oneself: what one may do where, and where one is signed in. */
export const load: PageServerLoad = ({ locals: { store, who, session } }) => ({
	roles: who.kind === 'person' ? who.roles : {},
	isOwner: who.kind !== 'person' || who.isOwner,
	sessions: sessionsOf(store, who, session),
	passkeys: actingAs(who, () => passkeysOf(store))
});
