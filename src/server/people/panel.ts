import { mayDo, parseUrl, type Actor } from '$core';
import { refuse } from '../errors';
import type { Store, StoredSite } from '../store/store';
import type { PanelToken } from '../store/people/panel';
import { note } from './note';
import { hashed, newSecret, PANEL_BEGINS } from './who';

const MINUTE = 60_000;
/** What lets a panel in lasts so long, and can be had anew with itself for so long after it was first (milliseconds). */
const LASTS = 15 * MINUTE;
const WHOLE = 8 * 60 * MINUTE;
/** So many origins may show the panel of a site. */
const MOST_ORIGINS = 50;

/** An origin as browsers write it; undefined for what is none, or no web page's. */
function originIn(text: string): string | undefined {
	const url = parseUrl(text.trim());
	// A * would stand for many where browsers are told.
	const isOne = url && /^https?:$/.test(url.protocol) && `${url.origin}/` === url.href && !url.host.includes('*');
	return isOne ? url.origin : undefined;
}

/** Says whose pages may show the panel of a site, in the place of those before. */
export function setOrigins(store: Store, site: string, said: readonly string[]): string[] {
	const { id } = store.working.sites.named(site);
	const origins = said.map((one) => {
		const origin = originIn(one);
		if (origin === undefined) throw refuse('panel-origin-broken', { origin: one });
		return origin;
	});
	if (origins.length > MOST_ORIGINS) throw refuse('panel-origins-many', { most: MOST_ORIGINS });
	store.transaction(() => {
		store.people.panel.setOrigins(id, origins);
		note(store, 'panel-origins', { origins }, site);
	});
	return store.people.panel.originsAt(id);
}

/** The origin that may show the panel of a site, of one that is said to; undefined for all others, and of no site. */
export function hostOf(store: Store, site: string, said: string | null): string | undefined {
	const stored = store.working.sites.find(site);
	const origin = said === null ? undefined : originIn(said);
	return stored && origin !== undefined && store.people.panel.originsAt(stored.id).includes(origin)
		? origin
		: undefined;
}

/** What lets a panel in, told this once. */
export interface OpenedPanel {
	readonly token: string;
	/** ISO 8601. */
	readonly ends: string;
	/** As whom. */
	readonly person: string;
}

/**
 * Lets a panel in: as oneself, at all that one may edit or at one page; where it is in already, as before, at the same (`old` is what
 * let it in); or, asked with a key that may, at one page as a person whom the key's holder knows to be there.
 */
export function openPanel(
	store: Store,
	{ id, site }: StoredSite,
	{
		who,
		old,
		page,
		person
	}: { who: Actor; old: string | undefined; page?: string | undefined; person?: string | undefined }
): OpenedPanel {
	const now = Date.now();
	const token = PANEL_BEGINS + newSecret();
	const one = whose(store, { who, old, page, person }, now);
	const known = store.people.byId(one.person);
	if (!known || known.isLocked || !seesSite(store, known, site.name))
		throw refuse('panel-person', { name: person ?? known?.name ?? '' });
	const ends = Math.min(now + LASTS, one.begun + WHOLE);
	store.transaction(() => {
		store.people.panel.add(hashed(token), { ...one, site: id, ends });
		// One that goes on is the same panel.
		if (!(who.kind === 'person' && who.panel))
			note(store, 'panel-opened', { name: known.name, page: one.path }, site.name);
	});
	return { token, ends: new Date(ends).toISOString(), person: known.name };
}

function whose(
	store: Store,
	{
		who,
		old,
		page,
		person
	}: { who: Actor; old: string | undefined; page?: string | undefined; person?: string | undefined },
	now: number
): Omit<PanelToken, 'site' | 'ends'> {
	if (who.kind === 'key') {
		const named = person === undefined ? undefined : store.people.named(person.normalize('NFC').trim());
		if (!named) throw refuse('panel-person', { name: person ?? '' });
		if (!page?.startsWith('/')) throw refuse('panel-page');
		const key = store.people.key(hashed(old ?? ''))!.id;
		return { person: named.id, key, path: page, begun: now };
	}
	if (who.kind !== 'person') throw refuse('panel-alone');
	if (!who.panel) return { person: who.id, path: page ?? '', begun: now };
	const before = store.people.panel.token(hashed(old ?? ''), now);
	if (!before || now >= before.begun + WHOLE) throw refuse('not-signed-in');
	const { site: _site, ends: _ends, ...same } = before;
	return same;
}

function seesSite(store: Store, { id, name, isOwner }: { id: number; name: string; isOwner: boolean }, site: string) {
	return mayDo({ kind: 'person', id, name, isOwner, roles: store.people.rolesOf(id) }, 'read', site);
}
