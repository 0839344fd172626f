import {
	generateAuthenticationOptions,
	generateRegistrationOptions,
	verifyAuthenticationResponse,
	verifyRegistrationResponse,
	type AuthenticationResponseJSON,
	type RegistrationResponseJSON
} from '@simplewebauthn/server';
import { isIP } from 'node:net';
import { refuse } from '../errors';
import type { Store } from '../store/store';
import { beginSession, type From } from './accounts';
import { note } from './note';
import { hashed, newSecret } from './who';
import { actor } from './acting';

/** A device is given so long (milliseconds) to sign. */
const PATIENCE = 300_000;
/** So many passkeys one has at the most. */
const MOST = 20;

/** Where Kephalon is reached, as a browser says it: what a passkey is bound to. */
export interface Place {
	/** Such as https://heads.example. */
	readonly origin: string;
}

/** What passkeys are bound to: the name of the host. An address of a machine can have none. */
function hostOf({ origin }: Place): string {
	const { hostname } = new URL(origin);
	if (isIP(hostname.replace(/^\[|\]$/g, '')) !== 0) throw refuse('passkey-needs-name', { host: hostname });
	return hostname;
}

/** What a device is asked, with the word by which its answer is known. */
interface Asked {
	readonly token: string;
	readonly options: Readonly<Record<string, unknown>>;
}

function asking(store: Store, options: { readonly challenge: string }, person: number | null): Asked {
	const token = newSecret();
	store.transaction(() => store.people.passkeys.ask(hashed(token), options.challenge, person, Date.now() + PATIENCE));
	return { token, options: { ...options } };
}

/** Asks the device of whoever is signed in for a passkey. */
export async function askForPasskey(store: Store, place: Place): Promise<Asked> {
	const who = actor();
	if (who.kind !== 'person') throw refuse('not-signed-in');
	const own = store.people.passkeys.of(who.id);
	if (own.length >= MOST) throw refuse('passkeys-many', { most: MOST });
	const options = await generateRegistrationOptions({
		...{ rpName: 'Kephalon', rpID: hostOf(place), userName: who.name, attestationType: 'none' },
		userID: new TextEncoder().encode(`kephalon-person-${who.id}`),
		excludeCredentials: own.map(({ id }) => ({ id })),
		authenticatorSelection: { residentKey: 'required', userVerification: 'preferred' }
	});
	return asking(store, options, who.id);
}

/** Keeps the passkey that a device made, under a name by which one knows it again. */
export async function keepPasskey(
	store: Store,
	place: Place,
	{ token, name, answer }: { readonly token: string; readonly name: string; readonly answer: unknown }
) {
	const who = actor();
	if (who.kind !== 'person') throw refuse('not-signed-in');
	const asked = store.transaction(() => store.people.passkeys.asked(hashed(token)));
	if (asked?.person !== who.id) throw refuse('passkey-late');
	const { registrationInfo } = await verified(() =>
		verifyRegistrationResponse({
			response: answer as RegistrationResponseJSON,
			...{ expectedChallenge: asked.challenge, expectedOrigin: place.origin, expectedRPID: hostOf(place) },
			requireUserVerification: false
		})
	);
	if (!registrationInfo) throw refuse('passkey-wrong');
	const { id, publicKey, counter } = registrationInfo.credential;
	store.transaction(() => {
		if (store.people.passkeys.one(id)) throw refuse('passkey-wrong');
		const called = name.trim().slice(0, 80) || 'A passkey';
		store.people.passkeys.add({
			...{ id, person: who.id, name: called, publicKey: Buffer.from(publicKey), counter, made: Date.now() }
		});
		note(store, 'passkey-added', { name: called });
	});
}

/** Asks a device for any passkey that it has for here. */
export async function askForAny(store: Store, place: Place): Promise<Asked> {
	const options = await generateAuthenticationOptions({ rpID: hostOf(place), userVerification: 'preferred' });
	return asking(store, options, null);
}

/** Signs in with what a device signed; gives the secret of the session. */
export async function signInByPasskey(
	store: Store,
	place: Place,
	{ token, answer }: { readonly token: string; readonly answer: unknown },
	from: From
): Promise<string> {
	const asked = store.transaction(() => store.people.passkeys.asked(hashed(token)));
	if (!asked || asked.person !== null) throw refuse('passkey-late');
	const response = answer as AuthenticationResponseJSON;
	const passkey = store.people.passkeys.one(String(response?.id));
	const person = passkey && store.people.byId(passkey.person);
	if (!passkey || !person || person.isLocked) throw refuse('passkey-wrong');
	const { id, publicKey, counter } = passkey;
	const { verified: is, authenticationInfo } = await verified(() =>
		verifyAuthenticationResponse({
			response,
			...{ expectedChallenge: asked.challenge, expectedOrigin: place.origin, expectedRPID: hostOf(place) },
			credential: { id, publicKey: new Uint8Array(publicKey), counter },
			requireUserVerification: false
		})
	);
	if (!is) throw refuse('passkey-wrong');
	store.transaction(() => store.people.passkeys.use(id, authenticationInfo.newCounter, Date.now()));
	return beginSession(store, person, from.agent, 'signed-in', { address: from.address, passkey: passkey.name });
}

/** What a device answered is foreign: whatever is wrong with it, it is not right. */
async function verified<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch {
		throw refuse('passkey-wrong');
	}
}

/** The passkeys of whoever is signed in. */
export function passkeysOf(store: Store) {
	const who = actor();
	if (who.kind !== 'person') return [];
	return store.people.passkeys.of(who.id).map(({ id, name, made, used }) => ({
		...{ id, name, made: new Date(made).toISOString() },
		...(used !== null && { used: new Date(used).toISOString() })
	}));
}

/** Names a passkey of one's own, or takes it away. */
export function changePasskey(store: Store, id: string, name: string | undefined) {
	const who = actor();
	if (who.kind !== 'person') throw refuse('not-signed-in');
	store.transaction(() => {
		const is =
			name === undefined
				? store.people.passkeys.drop(id, who.id)
				: store.people.passkeys.rename(id, who.id, name.trim().slice(0, 80) || 'A passkey');
		if (!is) throw refuse('passkey-missing');
		if (name === undefined) note(store, 'passkey-dropped');
	});
}
