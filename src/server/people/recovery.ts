import { randomBytes } from 'node:crypto';
import { refuse } from '../errors';
import type { Store } from '../store/store';
import { invite } from './accounts';
import { actor } from './acting';
import { note } from './note';
import { isPassword } from './passwords';
import { Tries } from './tries';
import { hashed } from './who';

/** So many codes one has, each of 80 bits of chance. */
const MANY = 10;
const SIGNS = 'abcdefghjkmnpqrstvwxyz23456789'; // Without those that are taken for one another.
const LENGTH = 16;
/** Who has taken one chooses a new password within so long (milliseconds). */
const PATIENCE = 900_000;

function newCode(): string {
	let code = '';
	// Bytes that would favour some signs are left out.
	const most = 256 - (256 % SIGNS.length);
	while (code.length < LENGTH)
		for (const byte of randomBytes(LENGTH)) if (byte < most && code.length < LENGTH) code += SIGNS[byte % SIGNS.length];
	return code.match(/.{4}/g)!.join('-');
}

/** A code as it is kept, however it was typed. */
const plain = (code: string) => hashed(code.toLowerCase().replace(/[^a-z0-9]/g, ''));

/**
 * New recovery codes for whoever is signed in, told this once; those before are none any more. Who has a password says it: a
 * session that was left open makes no way in that lasts.
 */
export async function makeCodes(store: Store, password: string | undefined, address: string): Promise<string[]> {
	const who = actor();
	if (who.kind !== 'person') throw refuse('not-signed-in');
	const person = store.people.byId(who.id);
	if (person?.password !== undefined) {
		const tries = new Tries(store);
		await tries.refuseEarly(who.name, address);
		if (!(await isPassword((password ?? '').slice(0, 1000), person.password))) {
			await tries.failed(who.name, address);
			throw refuse('password-old-wrong');
		}
	}
	const codes = Array.from({ length: MANY }, newCode);
	store.transaction(() => {
		store.people.setCodes(who.id, codes.map(plain));
		note(store, 'codes-made');
	});
	return codes;
}

/** Takes a recovery code, which is none any more, for an invitation to a new password; gives the secret of that. */
export async function takeCode(store: Store, name: string, code: string, address: string): Promise<string> {
	const tries = new Tries(store);
	await tries.refuseEarly(name, address);
	const person = store.people.named(name.normalize('NFC').trim());
	const secret = store.transaction(() => {
		if (!person || person.isLocked || !store.people.takeCode(person.id, plain(code.slice(0, 100)))) return undefined;
		note(store, 'code-taken', { address, left: store.people.countCodes(person.id) }, undefined, person.name);
		return invite(store, person.id, PATIENCE);
	});
	if (secret === undefined) {
		await tries.failed(name, address);
		note(store, 'sign-in-failed', { address, ...(person && { name: person.name }) }, undefined, 'nobody');
		throw refuse('recovery-wrong');
	}
	await tries.succeeded(name, address);
	return secret;
}
