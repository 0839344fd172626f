import { createHash, randomBytes } from 'node:crypto';
import { ALONE, inArea, mayDo, NOBODY, roleAt, type Actor, type SiteRole } from '$core';
import type { PanelToken } from '../store/people/panel';
import type { Store } from '../store/store';
import { note } from './note';

const HOUR = 3_600_000;
/** A session ends after so long without use, and so long after it began (milliseconds). */
export const IDLE = 12 * HOUR;
export const WHOLE = 14 * 24 * HOUR;
/** When a session was used is noted again after so long. */
const NOTED = 60_000;
/** What keys begin with, so that scanners for secrets know them. */
export const KEY_BEGINS = 'kephalon_';
/** What lets a panel in begins so, and is sent as a key is. */
export const PANEL_BEGINS = `${KEY_BEGINS}panel_`;

/** 256 bits of chance, as letters that stand in addresses. */
export const newSecret = () => randomBytes(32).toString('base64url');
/** What is kept of a secret. */
export const hashed = (secret: string) => createHash('sha256').update(secret).digest();

/** What someone comes in by: the secret of a session, or a key. */
export interface Credentials {
	readonly session: string | undefined;
	readonly key: string | undefined;
}

/** Behind TLS the cookie is bound to this host, and to encrypted connections. */
export const cookieName = () => (process.env.KEPHALON_SECURE ? '__Host-kephalon' : 'kephalon');

/** What the two fields of a request hold that let someone in. */
export function credentialsIn(
	cookie: string | null | undefined,
	authorization: string | null | undefined
): Credentials {
	const key = /^Bearer (\S+)$/i.exec(authorization ?? '')?.[1];
	return { session: cookieIn(cookie ?? '', cookieName()), key: key?.startsWith(KEY_BEGINS) ? key : undefined };
}

/** The value of a cookie by its name. */
export function cookieIn(header: string, name: string): string | undefined {
	for (const part of header.split(';')) {
		const [own, ...value] = part.trim().split('=');
		if (own === name) return value.join('=');
	}
	return undefined;
}

/** Who a session or a key stands for; a person who was locked, a session or a key that is over, is nobody. */
export function whoIs(store: Store, credentials: Partial<Credentials>): Actor {
	if (credentials.key === undefined && !store.people.exist())
		// Where others can come in, nobody is alone.
		return process.env.KEPHALON_TOGETHER ? NOBODY : ALONE;
	return whoCame(store, credentials);
}

/**
 * Who came with what lets them in; nobody is alone here. When it was used is noted in `notes`, where that is not the store that
 * is read.
 */
export function whoCame(store: Store, { session, key }: Partial<Credentials>, notes: Store | undefined = store): Actor {
	const now = Date.now();
	if (key?.startsWith(PANEL_BEGINS)) return panelHolder(store, key, now);
	if (key !== undefined) return keyHolder(store, key, now, notes);
	if (session === undefined) return NOBODY;
	const hash = hashed(session);
	const found = store.people.session(hash);
	if (!found || found.person.isLocked || found.used < now - IDLE || found.made < now - WHOLE) return NOBODY;
	if (found.used < now - NOTED) written(notes, ({ people }) => people.use(hash, now));
	const { id, name, isOwner } = found.person;
	return { kind: 'person', id, name, isOwner, roles: store.people.rolesOf(id) };
}

/** What was sent with the old secret of a session that is renewed is still answered for so long (milliseconds). */
const BESIDE = 60_000;

/** Another secret for a session whose person's rights have changed; undefined where none have, or another is writing. */
export function renewed(store: Store, session: string): string | undefined {
	const old = hashed(session);
	if (store.people.session(old)?.isStale !== true) return undefined;
	const secret = newSecret();
	let is = false;
	written(store, ({ people }) => (is = people.renew(old, hashed(secret), Date.now() - WHOLE + BESIDE)));
	return is ? secret : undefined;
}

/** A person as they are in a panel: an editor at the most, of its page or of what they may edit; one who looks at all else; and nobody elsewhere. */
function panelHolder(store: Store, secret: string, now: number): Actor {
	const token = store.people.panel.token(hashed(secret), now);
	const person = token && store.people.byId(token.person);
	if (!token || !person || person.isLocked) return NOBODY;
	const { id, name, isOwner } = person;
	const whole: Actor = { kind: 'person', id, name, isOwner, roles: store.people.rolesOf(id) };
	if (!mayDo(whole, 'read', token.site)) return NOBODY;
	const role = roleInPanel(store, whole, token);
	return { ...whole, isOwner: false, roles: { [token.site]: role }, panel: true };
}

function roleInPanel(store: Store, who: Actor, { site: name, path }: PanelToken): SiteRole {
	const reader: SiteRole = { role: 'reader', area: {} };
	if (!mayDo(who, 'edit', name)) return reader;
	if (path === '') return { role: 'editor', area: roleAt(who, name)!.area };
	const { id, site } = store.working.sites.named(name);
	const page = store.working.pages.placesOf(id, [path])[0];
	const area = roleAt(who, name)?.area ?? {};
	// A path with a * in it would stand for others, too.
	const mayEdit = page && inArea(area, page, site.languages[0] ?? 'und') && !path.includes('*');
	return mayEdit ? { role: 'editor', area: { paths: [path] } } : reader;
}

function keyHolder(store: Store, secret: string, now: number, notes: Store | undefined): Actor {
	const key = store.people.key(hashed(secret));
	if (!key || (key.ends !== undefined && key.ends <= now)) return NOBODY;
	if (key.used === undefined || key.used < now - HOUR)
		written(notes, (into) => {
			into.people.useKey(key.id, now);
			note(into, 'key-used', { name: key.name }, key.site, `key ${key.name}`);
		});
	return { kind: 'key', name: key.name, site: key.site, scopes: key.scopes };
}

/** What need not be written is not, where another is writing: whoever asks is not kept waiting for it. */
function written(store: Store | undefined, work: (store: Store) => void) {
	try {
		store?.transaction(() => work(store));
	} catch {
		// It is noted the next time.
	}
}
