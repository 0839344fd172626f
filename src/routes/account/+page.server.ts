import { sessionsOf } from '$server/people/accounts';
import { actingAs } from '$server/people/acting';
import { refusedIn, signOnSettings } from '$server/people/signOnSettings';
import { passkeysOf } from '$server/people/passkeys';
import type { PageServerLoad } from './$types';

/** Oneself: what one may do where, and where one is signed in. */
export const load: PageServerLoad = ({ locals: { store, who, session }, url }) => ({
	roles: who.kind === 'person' ? who.roles : {},
	isOwner: who.kind !== 'person' || who.isOwner,
	signOn: signOnSettings()?.name,
	refused: refusedIn(url.searchParams),
	codes: who.kind === 'person' ? store.people.countCodes(who.id) : 0,
	hasPassword: who.kind === 'person' && store.people.byId(who.id)?.password !== undefined,
	sessions: sessionsOf(store, who, session),
	passkeys: actingAs(who, () => passkeysOf(store))
});
