import { isWhole, ROLES, type Actor, type PageArea, type Role } from '$core';
import { refuse } from '../errors';
import type { Person } from '../store/people/people';
import type { Store } from '../store/store';
import { actor } from './acting';
import { note } from './note';
import { hashPassword, isPassword, refuseWeak } from './passwords';
import { Tries } from './tries';
import { hashed, IDLE, newSecret, WHOLE } from './who';

/** An invitation can be taken so long (milliseconds). */
const INVITED = 7 * 24 * 3_600_000;

/** Where a request came from, as far as it is kept. */
export interface From {
	readonly address: string;
	readonly agent: string;
}

/** Signs in by name and password; gives the secret of the session. The same answer and time for names that are not there. */
export async function signIn(store: Store, name: string, password: string, { address, agent }: From): Promise<string> {
	const tries = new Tries(store);
	await tries.refuseEarly(name, address);
	const person = store.people.named(name.normalize('NFC').trim());
	const is = await isPassword(password.slice(0, 1000), person?.password);
	if (!person || !is || person.isLocked) {
		await tries.failed(name, address);
		// Names that are not there are not kept: one may be a password, typed into the wrong field.
		note(store, 'sign-in-failed', { address, ...(person && { name: person.name }) }, undefined, 'nobody');
		throw refuse('sign-in-wrong');
	}
	await tries.succeeded(name, address);
	return beginSession(store, person, agent, 'signed-in', { address });
}

/** A session of a person, with a line in the trail; gives its secret. */
export function beginSession(
	store: Store,
	person: Person,
	agent: string,
	what: string,
	data: Readonly<Record<string, unknown>>,
	isSignedOn = false
): string {
	const secret = newSecret();
	store.transaction(() => {
		const now = Date.now();
		store.people.endOld(now - IDLE, now - WHOLE);
		store.people.begin(hashed(secret), person.id, now, agent.slice(0, 200), isSignedOn);
		note(store, what, data, undefined, person.name);
	});
	return secret;
}

export function signOut(store: Store, session: string) {
	const found = store.people.session(hashed(session));
	if (!found) return;
	store.transaction(() => {
		store.people.end(hashed(session));
		note(store, 'signed-out', {}, undefined, found.person.name);
	});
}

/** Where and since when a person is signed in; `isThis` the session that asks. */
export function sessionsOf(store: Store, who: Actor, session: string | undefined) {
	if (who.kind !== 'person') return [];
	const own = session === undefined ? undefined : hashed(session);
	return store.people.sessionsOf(who.id).map(({ hash, made, used, agent }) => ({
		...{ made: new Date(made).toISOString(), used: new Date(used).toISOString(), agent },
		isThis: own !== undefined && hash.equals(own)
	}));
}
/** Ends all other sessions of a person. */
export function endOthers(store: Store, who: Actor, session: string | undefined) {
	if (who.kind !== 'person') return;
	store.transaction(() => {
		store.people.endAll(who.id, session === undefined ? null : hashed(session));
		note(store, 'sessions-ended');
	});
}

/** Changes one's own password, with the old one; all other sessions end. */
export async function changePassword(
	store: Store,
	session: string | undefined,
	old: string,
	password: string,
	address: string
) {
	const who = actor();
	if (who.kind !== 'person') throw refuse('not-signed-in');
	const tries = new Tries(store);
	await tries.refuseEarly(who.name, address);
	const person = store.people.named(who.name);
	if (!(await isPassword(old.slice(0, 1000), person?.password))) {
		await tries.failed(who.name, address);
		throw refuse('password-old-wrong');
	}
	refuseWeak(password, who.name);
	const hash = await hashPassword(password);
	store.transaction(() => {
		store.people.setPassword(who.id, hash);
		store.people.endAll(who.id, session === undefined ? null : hashed(session));
		note(store, 'password-changed');
	});
}

/** Takes an invitation with a password of one's own: it can be taken once. Gives the secret of a session. */
export async function takeInvitation(
	store: Store,
	secret: string,
	password: string,
	{ agent, address }: From
): Promise<string> {
	const invited = () => {
		const found = store.people.invitation(hashed(secret));
		if (!found || found.ends <= Date.now() || found.person.isLocked) throw refuse('invitation-over');
		return found.person;
	};
	const { name } = invited();
	refuseWeak(password, name);
	const hash = await hashPassword(password);
	const person = store.transaction(() => {
		// Taken by another meanwhile, it is over.
		const one = invited();
		store.people.dropInvitations(one.id, Date.now());
		store.people.setPassword(one.id, hash);
		store.people.endAll(one.id);
		return one;
	});
	return beginSession(store, person, agent, 'invitation-taken', { address });
}

/** The name of the one whom an invitation is for; undefined for one that is over. */
export function invitedBy(store: Store, secret: string): string | undefined {
	const found = store.people.invitation(hashed(secret));
	return found && found.ends > Date.now() && !found.person.isLocked ? found.person.name : undefined;
}

/** A name of a person, as it is kept. Throws where it is none. */
export function readName(said: string): string {
	const name = said.normalize('NFC').trim();
	if (!/^[\p{L}\p{M}\p{N}][\p{L}\p{M}\p{N} .,'’@_-]{0,79}$/u.test(name)) throw refuse('person-name-broken');
	return name;
}

function personNamed(store: Store, name: string): Person {
	const person = store.people.named(name.normalize('NFC').trim());
	if (!person) throw refuse('person-missing', { name });
	return person;
}

/** Adds a person; gives the secret of the invitation. The first one owns every site: somebody has to. */
export function addPerson(
	store: Store,
	said: string,
	isOwner = false
): { readonly secret: string; readonly isOwner: boolean } {
	const name = readName(said);
	return store.transaction(() => {
		if (store.people.named(name)) throw refuse('person-there', { name });
		const owns = isOwner || !store.people.exist();
		const id = store.people.add(name, owns, new Date().toISOString());
		note(store, 'person-added', { name, isOwner: owns });
		return { secret: invite(store, id), isOwner: owns };
	});
}

/** An invitation of a person for so long (milliseconds), in the place of those before; gives its secret. */
export function invite(store: Store, id: number, patience = INVITED): string {
	const secret = newSecret();
	store.people.invite(hashed(secret), id, Date.now() + patience);
	return secret;
}

/** Where an invitation is taken; what stands behind the # never leaves the browser. */
export const linkOf = (secret: string, origin: string) => `${origin.replace(/\/$/, '')}/invited#${secret}`;

/** A new invitation for one who cannot come in any more: what let them in before does not. */
export function resetPerson(store: Store, name: string): string {
	const { id } = personNamed(store, name);
	return store.transaction(() => {
		store.people.endAll(id);
		store.people.setCodes(id, []);
		note(store, 'person-reset', { name });
		return invite(store, id);
	});
}

/** Locks a person out, or lets one in again. The last owner stays. */
export function lockPerson(store: Store, name: string, isLocked: boolean) {
	const person = personNamed(store, name);
	store.transaction(() => {
		if (isLocked) refuseLastOwner(store, person);
		store.people.setLocked(person.id, isLocked);
		if (isLocked) store.people.endAll(person.id);
		note(store, isLocked ? 'person-locked' : 'person-unlocked', { name: person.name });
	});
}

/** Takes a person away. The last owner stays, but where nobody else is left: then whoever is at the machine is alone again. */
export function dropPerson(store: Store, name: string) {
	const person = personNamed(store, name);
	store.transaction(() => {
		if (store.people.all().length > 1) refuseLastOwner(store, person);
		store.people.drop(person.id);
		note(store, 'person-dropped', { name: person.name });
	});
}

function refuseLastOwner(store: Store, { id, isOwner, name }: Person) {
	if (isOwner && store.people.countOwnersBut(id) === 0) throw refuse('owner-last', { name });
}

/** An area as it is said, checked. */
function readArea(area: PageArea): PageArea {
	const of = (list: readonly string[] | undefined) => (list && list.length > 0 ? list : undefined);
	const [paths, types, languages] = [of(area.paths), of(area.types), of(area.languages)];
	for (const path of paths ?? [])
		if (!/^[/*]/.test(path) || path.length > 500) throw refuse('area-path-broken', { path });
	return { ...(paths && { paths }), ...(types && { types }), ...(languages && { languages }) };
}

/** Gives a person a role at a site, for all of it or for an area; undefined takes it away. */
export function setRole(store: Store, siteName: string, name: string, role: Role | undefined, area: PageArea = {}) {
	const person = personNamed(store, name);
	const { id } = store.working.sites.named(siteName);
	if (role !== undefined && !ROLES.includes(role)) throw refuse('role-unknown', { role, roles: ROLES });
	const meant = readArea(area);
	if (role !== 'editor' && role !== 'builder' && !isWhole(meant))
		throw refuse('area-for-role', { role: role ?? 'nobody' });
	store.transaction(() => {
		store.people.setRole(person.id, id, role && { role, area: meant });
		store.people.age(person.id);
		note(store, 'role-set', { name: person.name, role: role ?? null, area: meant }, siteName);
	});
}

/** Makes a person an owner of every site, or not any more. */
export function setOwner(store: Store, name: string, isOwner: boolean) {
	const person = personNamed(store, name);
	store.transaction(() => {
		if (!isOwner) refuseLastOwner(store, person);
		store.people.setOwner(person.id, isOwner);
		store.people.age(person.id);
		note(store, 'owner-set', { name: person.name, isOwner });
	});
}
