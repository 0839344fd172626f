import { mayDo, ownsAll, type Actor, type Right } from '$core';
import { refuse } from '../errors';
import { refuseWithout } from '../people/beyond';
import type { Store, StoredSite } from '../store/store';
import type { RouteName } from './contract';

/**
 * What a route asks of whoever comes: a right at the site of its path; `everyone`, also those who are not signed in; `someone`, who
 * is; `owner`, one who owns every site; `panel`, one who looks at the site, or a key that lets people into its panel.
 */
export type Asks = Right | 'everyone' | 'someone' | 'owner' | 'panel';

/** By route. One that is not written down here is an error of types. */
export const RIGHT_OF: { readonly [K in RouteName]: Asks } = {
	'GET /me': 'everyone',
	'POST /session': 'everyone',
	'DELETE /session': 'everyone',
	'GET /me/sessions': 'someone',
	'DELETE /me/sessions': 'someone',
	'GET /me/passkeys': 'someone',
	'POST /me/passkeys/begun': 'someone',
	'POST /me/passkeys': 'someone',
	'PATCH /me/passkeys': 'someone',
	'POST /session/passkey/begun': 'everyone',
	'POST /session/passkey': 'everyone',
	'POST /session/sign-on': 'everyone',
	'GET /session/sign-on/back': 'everyone',
	'POST /session/recovery': 'everyone',
	'GET /me/recovery': 'someone',
	'POST /me/recovery': 'someone',
	'PUT /me/password': 'someone',
	'POST /invitations': 'everyone',
	'GET /people': 'owner',
	'POST /people': 'owner',
	'PATCH /people': 'owner',
	'GET /trail': 'owner',
	'GET /sites/{site}/people': 'read',
	'PUT /sites/{site}/people': 'own',
	'GET /sites/{site}/keys': 'own',
	'POST /sites/{site}/keys': 'own',
	'DELETE /sites/{site}/keys': 'own',
	'GET /sites/{site}/webhooks': 'own',
	'POST /sites/{site}/webhooks': 'own',
	'PATCH /sites/{site}/webhooks': 'own',
	'DELETE /sites/{site}/webhooks': 'own',
	'GET /sites/{site}/webhooks/messages': 'own',
	'POST /sites/{site}/webhooks/messages': 'own',
	'GET /sites/{site}/panel': 'own',
	'PUT /sites/{site}/panel': 'own',
	'POST /sites/{site}/panel/tokens': 'panel',
	'GET /sites/{site}/trail': 'own',

	'GET /openapi.json': 'everyone',
	// Of each site it is asked by itself.
	'GET /sites': 'someone',
	'GET /sites/{site}': 'read',
	'GET /sites/{site}/trace': 'read',
	'POST /sites/{site}/heads': 'read',
	// One's own alone.
	'GET /sites/{site}/works': 'read',
	'GET /sites/{site}/works/one': 'read',
	'DELETE /sites/{site}/works/one': 'read',
	'GET /sites/{site}/sources': 'read',
	'POST /sites/{site}/records': 'probe',
	'GET /sites/{site}/pages/{path}': 'read',
	'PUT /sites/{site}/pages/{path}': 'edit',
	'PATCH /sites/{site}/pages/{path}': 'edit',
	'DELETE /sites/{site}/pages/{path}': 'edit',
	'POST /sites/{site}/pushes': 'edit',

	// Which site it is stands in the body: the route asks by itself.
	'POST /sites': 'someone',
	'POST /table': 'someone',

	'GET /sites/{site}/grid': 'read',
	'POST /sites/{site}/cells': 'edit',
	'POST /sites/{site}/batch': 'edit',
	'POST /sites/{site}/batch/sample': 'read',
	'GET /sites/{site}/csv': 'read',
	'GET /sites/{site}/workbook': 'read',
	'POST /sites/{site}/csv': 'edit',
	'POST /sites/{site}/csv/comparison': 'read',
	'GET /sites/{site}/filters': 'read',
	'POST /sites/{site}/filters': 'edit',
	'GET /sites/{site}/pages': 'read',
	'POST /sites/{site}/pages': 'edit',
	'GET /sites/{site}/page': 'read',
	'GET /sites/{site}/bench': 'read',
	'GET /sites/{site}/page/leading': 'read',
	'GET /sites/{site}/page/linking': 'read',
	'GET /sites/{site}/hard': 'read',
	'GET /sites/{site}/worst': 'read',

	// What may be changed is asked of every edit: the site and its types are for builders, pages for those in whose area they lie.
	'PUT /sites/{site}/rules': 'edit',
	'PATCH /sites/{site}/settings': 'edit',
	'POST /sites/{site}/types': 'build',
	'GET /sites/{site}/types/uses': 'read',
	'POST /sites/{site}/reach': 'read',
	'POST /sites/{site}/tries': 'read',
	'POST /sites/{site}/given-way': 'read',
	'GET /sites/{site}/proposal': 'read',
	'GET /sites/{site}/edits': 'read',
	'POST /sites/{site}/edits': 'edit',
	'GET /sites/{site}/findings': 'read',
	'POST /sites/{site}/findings': 'edit',

	'GET /sites/{site}/pending': 'read',
	'GET /sites/{site}/sheet': 'read',
	'POST /sites/{site}/release': 'release',
	'GET /sites/{site}/releases': 'read',
	'POST /sites/{site}/releases': 'release',
	'GET /sites/{site}/releases/between': 'read',
	'GET /sites/{site}/releases/page': 'read',
	'GET /sites/{site}/sitemap': 'read',
	'GET /sites/{site}/robots': 'read',

	'GET /sites/{site}/cards': 'read',
	'POST /sites/{site}/cards': 'probe',
	'POST /sites/{site}/probe': 'probe',
	'GET /sites/{site}/drift': 'read',
	'POST /sites/{site}/drift': 'probe',
	'PUT /sites/{site}/drift': 'build',
	'POST /sites/{site}/launch': 'edit',

	'GET /sites/{site}/pictures': 'read',
	'POST /sites/{site}/pictures': 'edit',
	'POST /sites/{site}/pictures/fetched': 'edit',
	'DELETE /sites/{site}/pictures': 'edit',
	'GET /sites/{site}/pictures/uses': 'read',
	'POST /sites/{site}/share': 'read',
	'POST /sites/{site}/compose': 'edit'
};

/** Refuses whoever may not do what a route does. Throws a `UserError`: 401 for who is not signed in, 403 for who may not. */
export function refuseStrangers(store: Store, who: Actor, asks: Asks, site: StoredSite | undefined) {
	if (asks === 'everyone') return;
	if (who.kind === 'nobody') throw refuse('not-signed-in');
	// What lets a panel in opens nothing of whoever it stands for but the site.
	if (!site && who.kind === 'person' && who.panel) throw refuse('not-in-panel');
	if (asks === 'someone') return;
	if (asks === 'owner') {
		if (!ownsAll(who)) throw refuse('not-allowed-anywhere', { who: owners(store) });
		return;
	}
	if (!site) return;
	if (asks !== 'panel') refuseWithout(store, who, asks, site);
	else if (who.kind !== 'key') refuseWithout(store, who, 'read', site);
	else if (!who.scopes.includes('panel')) throw refuse('key-without-panel');
}

/** Those who own every site, in a sentence. */
function owners(store: Store): string {
	const names = store.people.all().flatMap(({ name, isOwner, isLocked }) => (isOwner && !isLocked ? [name] : []));
	return `${names.slice(0, 5).join(', ')} may.`;
}

/** Refuses who may neither make a site of this name nor read content into the one that there is. */
export function refuseContent(store: Store, who: Actor, name: string) {
	const stored = store.working.sites.find(name);
	// Of a site that one may not look at no more is told than of one that is not there.
	if (stored && mayDo(who, 'read', name)) return refuseWithout(store, who, 'build', stored);
	refuseStrangers(store, who, 'owner', undefined);
}
