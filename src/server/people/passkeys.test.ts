import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { Store } from '../store/store';
import { addPerson, lockPerson, takeInvitation } from './accounts';
import { whoIs } from './who';
import { actingAs } from './acting';
import { askForAny, askForPasskey, changePasskey, keepPasskey, passkeysOf, signInByPasskey } from './passkeys';

/** What is refused of passkeys. That a device's own answers are taken is seen in a browser: see `tests/browser/people.test.ts`. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-passkeys-'));
let store: Store;
let made = 0;
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const HERE = { origin: 'https://heads.example' };
const FROM = { address: '127.0.0.1', agent: 'A browser' };
let session = '';
beforeEach(async () => {
	store?.close();
	store = new Store(join(folder, `${++made}.db`));
	session = await takeInvitation(store, addPerson(store, 'Ada').secret, 'seven slow gannets', FROM);
});
const asAda = <T>(work: () => T) => actingAs(whoIs(store, { session }), work);
/** A passkey that is kept, as far as it can be without a device. */
const keep = (id = 'AQID', person = store.people.named('Ada')!.id) =>
	store.people.passkeys.add({ id, person, name: 'Desk', publicKey: Buffer.from([1]), counter: 0, made: Date.now() });

test('what is asked is of this host, of chance, and not for what one has', async () => {
	keep();
	const [one, other] = await asAda(async () => [await askForPasskey(store, HERE), await askForPasskey(store, HERE)]);
	expect(one!.options).toMatchObject({
		rp: { id: 'heads.example' },
		user: { name: 'Ada' },
		excludeCredentials: [{ id: 'AQID' }]
	});
	expect([one!.token, one!.options.challenge]).not.toEqual([other!.token, other!.options.challenge]);
	expect((await askForAny(store, HERE)).options).toMatchObject({ rpId: 'heads.example' });
	for (const origin of ['http://127.0.0.1:4870', 'http://[::1]:4870'])
		await expect(askForAny(store, { origin })).rejects.toMatchObject({ code: 'passkey-needs-name' });
	await expect(askForPasskey(store, HERE)).rejects.toMatchObject({ code: 'not-signed-in' });
});

describe('an answer', () => {
	test.each([
		['nothing', undefined],
		['null', null],
		['a text', 'x'],
		['an empty record', {}],
		['one that names what is not there', { id: 'nope', response: {} }],
		[
			'one that only names what is there',
			{ id: 'AQID', rawId: 'AQID', type: 'public-key', response: {}, clientExtensionResults: {} }
		],
		[
			'one of chance',
			{
				...{ id: 'AQID', rawId: 'AQID', type: 'public-key', clientExtensionResults: {} },
				response: { clientDataJSON: 'e30', authenticatorData: 'AAAA', signature: 'AAAA' }
			}
		]
	])('%s opens nothing', async (_, answer) => {
		keep();
		const { token } = await askForAny(store, HERE);
		await expect(signInByPasskey(store, HERE, { token, answer }, FROM)).rejects.toMatchObject({
			code: 'passkey-wrong',
			status: 401
		});
		// And what was asked is asked no more.
		await expect(signInByPasskey(store, HERE, { token, answer }, FROM)).rejects.toMatchObject({ code: 'passkey-late' });
		const asked = await asAda(() => askForPasskey(store, HERE));
		await expect(
			asAda(() => keepPasskey(store, HERE, { token: asked.token, name: 'x', answer }))
		).rejects.toMatchObject({ code: 'passkey-wrong' });
	});

	test('to what was asked for something else, of another, or too long ago, is none', async () => {
		const answer = { id: 'AQID' };
		const toSignIn = await askForAny(store, HERE);
		const toKeep = await asAda(() => askForPasskey(store, HERE));
		await expect(signInByPasskey(store, HERE, { token: toKeep.token, answer }, FROM)).rejects.toMatchObject({
			code: 'passkey-late'
		});
		await expect(
			asAda(() => keepPasskey(store, HERE, { token: toSignIn.token, name: '', answer }))
		).rejects.toMatchObject({ code: 'passkey-late' });
		const other = await takeInvitation(store, addPerson(store, 'Ben').secret, 'seven slow gannets', FROM);
		const mine = await asAda(() => askForPasskey(store, HERE));
		const asBen = actingAs(whoIs(store, { session: other }), () =>
			keepPasskey(store, HERE, { token: mine.token, name: '', answer })
		);
		await expect(asBen).rejects.toMatchObject({ code: 'passkey-late' });
		const { token } = await askForAny(store, HERE);
		vi.useFakeTimers({ now: Date.now() + 301_000, toFake: ['Date'] });
		await expect(signInByPasskey(store, HERE, { token, answer }, FROM)).rejects.toMatchObject({ code: 'passkey-late' });
		vi.useRealTimers();
	});

	test('of one who is locked out opens nothing', async () => {
		addPerson(store, 'Ben', true);
		keep('AQIE', store.people.named('Ben')!.id);
		lockPerson(store, 'Ben', true);
		const { token } = await askForAny(store, HERE);
		await expect(signInByPasskey(store, HERE, { token, answer: { id: 'AQIE' } }, FROM)).rejects.toMatchObject({
			code: 'passkey-wrong'
		});
	});
});

test('one’s own are named and taken away, and nobody else’s', () => {
	addPerson(store, 'Ben');
	keep();
	keep('AQIE', store.people.named('Ben')!.id);
	asAda(() => {
		changePasskey(store, 'AQID', ' My desk ');
		expect(passkeysOf(store)).toMatchObject([{ id: 'AQID', name: 'My desk' }]);
		for (const name of ['x', undefined])
			expect(() => changePasskey(store, 'AQIE', name)).toThrow(/no such passkey of yours/);
		changePasskey(store, 'AQID', undefined);
		expect(passkeysOf(store)).toEqual([]);
	});
	expect(passkeysOf(store)).toEqual([]);
	expect(() => changePasskey(store, 'AQIE', 'x')).toThrow(/Sign in first/);
	for (let at = 0; at < 20; at++) keep(`k${at}`);
	return expect(asAda(() => askForPasskey(store, HERE))).rejects.toMatchObject({ code: 'passkeys-many' });
});
