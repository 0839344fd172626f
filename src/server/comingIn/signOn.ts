import type { PageArea, Role } from '$core';
import { refuse, UserError } from '../errors';
import { runJob } from '../jobs/run';
import { log } from '../log';
import type { Person } from '../store/people/people';
import type { Store } from '../store/store';
import { actingAs, actor } from '../people/acting';
import { beginSession, readName, setOwner, setRole, type From } from '../people/accounts';
import { note } from '../people/note';
import { signOnSettings, type SignOnRule, type SignOnSettings } from '../people/signOnSettings';
import { hashed, newSecret } from '../people/who';

/** One is given so long (milliseconds) to sign on at the issuer. */
const PATIENCE = 600_000;
/** Where the issuer sends the browser back to. */
const BACK = '/api/session/sign-on/back';

/** What is kept while one is at the issuer. */
interface Waiting {
	readonly signOn: true;
	readonly nonce: string;
	readonly verifier: string;
	/** Where one wanted to go. */
	readonly to: string;
}

function settings(): SignOnSettings {
	const found = signOnSettings();
	if (!found) throw refuse('sign-on-none');
	return found;
}

/**
 * Begins a sign-on: gives where the browser goes, and the word by which it is known when it comes back. Who is signed in
 * binds the issuer's account to themselves by it.
 */
export async function beginSignOn(
	store: Store,
	origin: string,
	to: string
): Promise<{ address: string; state: string }> {
	const who = actor();
	const chance = { state: newSecret(), nonce: newSecret(), verifier: newSecret() };
	const task = { do: 'begin', settings: settings(), back: origin + BACK, ...chance } as const;
	const { address = '' } = await runJob('signOn', task);
	const waiting: Waiting = { signOn: true, nonce: chance.nonce, verifier: chance.verifier, to };
	const person = who.kind === 'person' ? who.id : null;
	store.transaction(() =>
		store.people.passkeys.ask(hashed(chance.state), JSON.stringify(waiting), person, Date.now() + PATIENCE)
	);
	return { address, state: chance.state };
}

/** What the browser came back with. */
export interface CameBack {
	/** The word it was given, of its cookie. */
	readonly held: string | undefined;
	/** Of the address. */
	readonly query: Readonly<Record<string, string>>;
	readonly origin: string;
	readonly from: From;
}

/** Ends a sign-on: gives the secret of a session, and where one wanted to go. */
export async function endSignOn(store: Store, { held, query, origin, from }: CameBack) {
	const found = settings();
	// Of another browser, of one that took too long, or come back twice.
	if (held === undefined || held !== query.state) throw refuse('sign-on-late');
	const asked = store.transaction(() => store.people.passkeys.asked(hashed(held)));
	const waiting = asked && waitingIn(asked.challenge);
	if (!waiting) throw refuse('sign-on-late');
	const at = `${origin}${BACK}?${new URLSearchParams(query)}`;
	const { nonce, verifier, to } = waiting;
	const says = await runJob('signOn', { do: 'end', settings: found, at, state: held, nonce, verifier });
	const { subject = '', claims = {} } = says;
	const person = store.transaction(() => personOf(store, found, { subject, claims, binds: asked.person }));
	const session = beginSession(store, person, from.agent, 'signed-on', { address: from.address }, true);
	return { session, to };
}

function waitingIn(text: string): Waiting | undefined {
	try {
		const data = JSON.parse(text) as Partial<Waiting>;
		return data.signOn ? (data as Waiting) : undefined;
	} catch {
		// What a passkey is asked to sign.
		return undefined;
	}
}

interface Signed {
	readonly subject: string;
	readonly claims: Readonly<Record<string, unknown>>;
	/** The person who binds the issuer's account to themselves. */
	readonly binds: number | null;
}

/** The person of an account at the issuer, made where a rule is for it; what the rules say of it is so from now on. */
function personOf(store: Store, { issuer, rules }: SignOnSettings, { subject, claims, binds }: Signed): Person {
	const known = store.people.bySubject(issuer, subject);
	const meant = rules.filter((rule) => isMeant(rule, claims));
	const person = known ?? (binds === null ? made(store, claims, meant) : store.people.byId(binds));
	if (!person || person.isLocked) throw refuse('sign-on-nobody');
	if (binds !== null && person.id !== binds) throw refuse('sign-on-other', { name: person.name });
	if (!known) {
		store.people.addSubject(issuer, subject, person.id);
		note(store, 'sign-on-bound', { name: person.name }, undefined, person.name);
	}
	applyRules(store, person, rules, meant);
	return person;
}

/** A person whom the issuer names, where a rule is for them. Somebody of that name is never taken for them. */
function made(store: Store, claims: Signed['claims'], meant: readonly SignOnRule[]): Person {
	if (meant.length === 0) throw refuse('sign-on-nobody');
	const said = [claims.name, claims.preferred_username, claims.email].find((one) => typeof one === 'string');
	const name = readName(String(said ?? ''));
	if (store.people.named(name)) throw refuse('sign-on-name', { name });
	const id = store.people.add(name, false, new Date().toISOString());
	note(store, 'person-added', { name, isOwner: false }, undefined, 'single sign-on');
	return store.people.byId(id)!;
}

function isMeant({ claim, is }: SignOnRule, claims: Signed['claims']): boolean {
	const said = Object.hasOwn(claims, claim) ? claims[claim] : undefined;
	if (is === undefined) return said !== undefined && said !== false && said !== null;
	return Array.isArray(said) ? said.includes(is) : String(said) === is;
}

/** Sites that rules speak of have what the first that is meant says; others are left as they are. */
function applyRules(
	store: Store,
	{ id, name, isOwner }: Person,
	rules: readonly SignOnRule[],
	meant: readonly SignOnRule[]
) {
	const names = new Set(store.working.sites.names().map((site) => site.name));
	const now = store.people.rolesOf(id);
	const as = <T>(work: () => T) => actingAs({ kind: 'key', name: 'single sign-on', site: '', scopes: [] }, work);
	for (const site of new Set(rules.flatMap((rule) => rule.site ?? []))) {
		if (!names.has(site)) continue;
		const rule = meant.find((one) => one.site === site);
		const had = Object.hasOwn(now, site) ? now[site] : undefined;
		if (isSame(had, rule)) continue;
		as(() => setRole(store, site, name, rule?.role, areaOf(rule)));
	}
	if (!rules.some(({ owner }) => owner)) return;
	const owns = meant.some(({ owner }) => owner === true);
	if (owns === isOwner) return;
	try {
		as(() => setOwner(store, name, owns));
	} catch (error) {
		// The last owner stays one, whatever the issuer says.
		if (!(error instanceof UserError && error.code === 'owner-last')) throw error;
	}
}

/** In the order in which areas are kept. */
function areaOf(rule: SignOnRule | undefined): PageArea {
	if (!rule?.area || (rule.role !== 'editor' && rule.role !== 'builder')) return {};
	const { paths, types, languages } = rule.area;
	return { ...(paths && { paths }), ...(types && { types }), ...(languages && { languages }) };
}
const isSame = (had: { readonly role: Role; readonly area: PageArea } | undefined, rule: SignOnRule | undefined) =>
	had?.role === rule?.role && JSON.stringify(had?.area ?? {}) === JSON.stringify(areaOf(rule));

/** Where one signs out of the issuer, for a session that was begun by it; undefined for others. */
export async function leaveAddress(store: Store, session: string, origin: string): Promise<string | undefined> {
	const found = signOnSettings();
	if (!found || store.people.session(hashed(session))?.isSignedOn !== true) return undefined;
	// One is signed out here, whatever the issuer says.
	try {
		return (await runJob('signOn', { do: 'leave', settings: found, to: `${origin}/sign-in` })).address;
	} catch (error) {
		log.warn(error);
		return undefined;
	}
}
