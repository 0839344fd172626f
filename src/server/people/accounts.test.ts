import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { actingAs, actor } from './acting';
import {
	addPerson,
	changePassword,
	dropPerson,
	endOthers,
	invitedBy,
	lockPerson,
	resetPerson,
	sessionsOf,
	setOwner,
	setRole,
	signIn,
	signOut,
	takeInvitation
} from './accounts';
import { addKey, dropKey } from './keys';
import { refuseWeak } from './passwords';
import { makeCodes, takeCode } from './recovery';
import { hashed, renewed, whoIs } from './who';

/** Who may come in, with what, for how long. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-people-'));
let store: Store;
let made = 0;
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => vi.useRealTimers());
beforeEach(() => {
	store?.close();
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [],
		pages: []
	} as never);
});
const FROM = { address: '127.0.0.1', agent: 'A browser' };
const GOOD = 'seven slow gannets';
const at = (moment: string) => vi.useFakeTimers({ now: new Date(moment), toFake: ['Date'] });
/** A person who took her invitation; gives her session. */
const made_ = async (name: string, isOwner = false) =>
	takeInvitation(store, addPerson(store, name, isOwner).secret, GOOD, FROM);
const who = (session: string | undefined) => {
	const one = whoIs(store, { session });
	return one.kind === 'person' ? one.name : one.kind;
};

test('alone until there is somebody; then nobody without a session', async () => {
	expect(whoIs(store, {})).toEqual({ kind: 'alone' });
	expect(whoIs(store, { session: 'x' })).toEqual({ kind: 'alone' });
	// Who comes with a key is held to it.
	expect(whoIs(store, { session: 'x', key: 'kephalon_y' })).toEqual({ kind: 'nobody' });
	const { secret, isOwner } = addPerson(store, 'Ada Marrow');
	expect(isOwner).toBe(true);
	expect(whoIs(store, {})).toEqual({ kind: 'nobody' });
	const session = await takeInvitation(store, secret, GOOD, FROM);
	expect(whoIs(store, { session })).toMatchObject({ kind: 'person', name: 'Ada Marrow', isOwner: true });
	expect(who('x')).toBe('nobody');
	expect(addPerson(store, 'Ben').isOwner).toBe(false);
});

test('where others can come in, nobody is alone', () => {
	vi.stubEnv('KEPHALON_TOGETHER', '1');
	expect(whoIs(store, {})).toEqual({ kind: 'nobody' });
	vi.unstubAllEnvs();
});

describe('an invitation', () => {
	test('is taken once, in time, and one made later takes its place', async () => {
		at('2026-05-01T10:00:00Z');
		const { secret } = addPerson(store, 'Ada');
		expect(invitedBy(store, secret)).toBe('Ada');
		await expect(takeInvitation(store, 'other', GOOD, FROM)).rejects.toMatchObject({ code: 'invitation-over' });
		await expect(takeInvitation(store, secret, 'short', FROM)).rejects.toMatchObject({ code: 'password-length' });
		await takeInvitation(store, secret, GOOD, FROM);
		expect(invitedBy(store, secret)).toBeUndefined();
		await expect(takeInvitation(store, secret, 'another one entirely', FROM)).rejects.toMatchObject({
			code: 'invitation-over'
		});
		const [first, second] = [resetPerson(store, 'Ada'), resetPerson(store, 'ada')];
		expect([first, second].map((one) => invitedBy(store, one))).toEqual([undefined, 'Ada']);
		at('2026-05-08T10:00:01Z');
		expect(invitedBy(store, second)).toBeUndefined();
		await expect(takeInvitation(store, second, GOOD, FROM)).rejects.toMatchObject({ code: 'invitation-over' });
	});

	test('two who take it at once: one has it', async () => {
		const { secret } = addPerson(store, 'Ada');
		const taken = await Promise.allSettled([
			takeInvitation(store, secret, GOOD, FROM),
			takeInvitation(store, secret, 'ten slow herons', FROM)
		]);
		expect(taken.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
	});
});

describe('signing in', () => {
	test('by name and password, whatever the case of the name, and out again', async () => {
		await made_('Ada Marrow');
		const session = await signIn(store, ' ada MARROW ', GOOD, FROM);
		expect(who(session)).toBe('Ada Marrow');
		signOut(store, session);
		expect(who(session)).toBe('nobody');
	});

	test('a wrong password, a name that is not there and one who is locked are refused alike', async () => {
		await made_('Ada');
		await made_('Ben');
		lockPerson(store, 'Ben', true);
		const told = await Promise.all(
			[
				['Ada', 'wrong'],
				['Nobody', GOOD],
				['Ben', GOOD]
			].map(([name, password]) =>
				signIn(store, name!, password!, FROM).catch(
					({ code, message, status }: Error & { code: string; status: number }) => [code, message, status]
				)
			)
		);
		expect(new Set(told.map((one) => JSON.stringify(one))).size).toBe(1);
		expect(told[0]).toMatchObject(['sign-in-wrong', expect.any(String), 401]);
	});

	test('a session ends after twelve idle hours and fourteen days, when its person is locked, and at a reset', async () => {
		at('2026-05-01T10:00:00Z');
		let session = await made_('Ada');
		await made_('Ben', true);
		at('2026-05-01T21:59:00Z');
		expect(who(session)).toBe('Ada');
		at('2026-05-02T09:58:00Z');
		expect(who(session)).toBe('Ada');
		at('2026-05-02T22:00:00Z');
		expect(who(session)).toBe('nobody');
		session = await signIn(store, 'Ada', GOOD, FROM);
		for (let hour = 0; hour < 14 * 24; hour += 11) {
			at(new Date(Date.parse('2026-05-02T22:00:00Z') + hour * 3_600_000).toISOString());
			expect(who(session)).toBe('Ada');
		}
		at('2026-05-16T22:00:01Z');
		expect(who(session)).toBe('nobody');
		session = await signIn(store, 'Ada', GOOD, FROM);
		lockPerson(store, 'Ada', true);
		expect(who(session)).toBe('nobody');
		lockPerson(store, 'Ada', false);
		expect(who(session)).toBe('nobody');
		session = await signIn(store, 'Ada', GOOD, FROM);
		resetPerson(store, 'Ada');
		expect(who(session)).toBe('nobody');
	});

	test('own sessions are listed and ended, by whom they belong to', async () => {
		const first = await made_('Ada');
		const second = await signIn(store, 'Ada', GOOD, { ...FROM, agent: 'Another' });
		const other = await made_('Ben');
		const ada = whoIs(store, { session: second });
		expect(
			sessionsOf(store, ada, second)
				.map(({ agent, isThis }) => [agent, isThis])
				.sort()
		).toEqual([
			['A browser', false],
			['Another', true]
		]);
		actingAs(ada, () => endOthers(store, ada, second));
		expect([first, second, other].map(who)).toEqual(['nobody', 'Ada', 'Ben']);
	});

	test('who fails waits longer each time, and keeps nobody else out', async () => {
		await made_('Ada');
		const fail = () =>
			signIn(store, 'Ada', 'wrong', { ...FROM, address: '10.0.0.1' }).catch((error: { code: string }) => error.code);
		for (let turn = 0; turn < 5; turn++) expect(await fail()).toBe('sign-in-wrong');
		expect(await fail()).toBe('sign-in-wait');
		await expect(signIn(store, 'Ada', GOOD, { ...FROM, address: '10.0.0.1' })).rejects.toMatchObject({
			code: 'sign-in-wait',
			status: 429
		});
		// She herself, from elsewhere, comes in; and over a restart it is not forgotten.
		expect(who(await signIn(store, 'Ada', GOOD, { ...FROM, address: '10.0.0.2' }))).toBe('Ada');
		const again = new Store(store.file);
		await expect(signIn(again, 'Ada', GOOD, { ...FROM, address: '10.0.0.1' })).rejects.toMatchObject({
			code: 'sign-in-wait'
		});
		again.close();
	});
});

describe('passwords', () => {
	test.each([
		['short', 'password-length'],
		['elevensigns', 'password-length'],
		['x'.repeat(201), 'password-length'],
		['passwordpassword', 'password-common'],
		['aaaaaaaaaaaaaaa', 'password-common'],
		['abcabcabcabcabc', 'password-common'],
		['PASSWORDPASSWORD', 'password-common'],
		['123456789123456789', 'password-common'],
		['ada marrow rules', 'password-name'],
		['11 marrow 22 33', 'password-name']
	])('%s', (password, code) => {
		expect(() => refuseWeak(password, 'Ada Marrow')).toThrow(expect.objectContaining({ code }));
	});
	test('any signs, without rules of what must be among them', () => {
		for (const password of [GOOD, 'zwölf boxkämpfer', '一二三四五六七八九十十一十二', 'correct horse battery staple'])
			expect(() => refuseWeak(password, 'Ada Marrow')).not.toThrow();
	});
	test('are changed only with the old one, and end all other sessions', async () => {
		const first = await made_('Ada');
		const second = await signIn(store, 'Ada', GOOD, FROM);
		const as = <T>(work: () => T) => actingAs(whoIs(store, { session: second }), work);
		await expect(as(() => changePassword(store, second, 'wrong', 'nine quick herons', '1'))).rejects.toMatchObject({
			code: 'password-old-wrong'
		});
		await expect(as(() => changePassword(store, second, GOOD, 'short', '1'))).rejects.toMatchObject({
			code: 'password-length'
		});
		await as(() => changePassword(store, second, GOOD, 'nine quick herons', '1'));
		expect([first, second].map(who)).toEqual(['nobody', 'Ada']);
		await expect(signIn(store, 'Ada', GOOD, FROM)).rejects.toMatchObject({ code: 'sign-in-wrong' });
		await expect(changePassword(store, undefined, GOOD, GOOD, '1')).rejects.toMatchObject({ code: 'not-signed-in' });
	});
	test('are nowhere kept as they are, nor are sessions, keys and invitations', async () => {
		const session = await made_('Ada');
		const { secret } = addPerson(store, 'Ben');
		const key = addKey(store, 'S', { name: 'build', scopes: ['read'] });
		await signIn(store, 'Ada', 'planted wrong password', FROM).catch(() => undefined);
		await signIn(store, 'planted in the name', 'x', FROM).catch(() => undefined);
		store.db.pragma('wal_checkpoint(TRUNCATE)');
		const bytes = readFileSync(store.file).toString('latin1');
		for (const planted of [GOOD, session, secret, key, 'planted wrong password'])
			expect(bytes.includes(planted), planted).toBe(false);
		const trail = JSON.stringify([...store.trail.all()]);
		for (const planted of [GOOD, session, secret, key, 'planted']) expect(trail).not.toContain(planted);
	});
});

describe('people', () => {
	test('have names that are names, once', async () => {
		for (const name of ['', ' ', '<b>', '.x', 'x'.repeat(81), 'a\nb'])
			expect(() => addPerson(store, name)).toThrow(/A name of a person/);
		addPerson(store, 'Zoë O’Brien');
		expect(() => addPerson(store, 'zoë o’brien ')).toThrow(/called/);
		expect(() => lockPerson(store, 'Nobody', true)).toThrow(/nobody called/);
	});

	test('the last owner stays', async () => {
		await made_('Ada');
		await made_('Ben');
		for (const work of [
			lockPerson.bind(null, store, 'Ada', true),
			() => dropPerson(store, 'Ada'),
			() => setOwner(store, 'Ada', false)
		])
			expect(work).toThrow(/the last who owns/);
		setOwner(store, 'Ben', true);
		lockPerson(store, 'Ben', true);
		// One who cannot come in is no owner who is left.
		expect(() => setOwner(store, 'Ada', false)).toThrow(/the last who owns/);
		lockPerson(store, 'Ben', false);
		setOwner(store, 'Ada', false);
		dropPerson(store, 'Ada');
		dropPerson(store, 'Ben');
		expect(whoIs(store, {})).toEqual({ kind: 'alone' });
	});

	test('have roles at sites, with areas for editors and builders', async () => {
		await made_('Ada');
		const session = await made_('Ben');
		setRole(store, 'S', 'Ben', 'editor', { paths: ['/walks/*'], types: [] });
		expect(whoIs(store, { session })).toMatchObject({
			roles: { S: { role: 'editor', area: { paths: ['/walks/*'] } } }
		});
		expect(() => setRole(store, 'S', 'Ben', 'reader', { types: ['walk'] })).toThrow(/Only editors and builders/);
		expect(() => setRole(store, 'S', 'Ben', 'editor', { paths: ['walks'] })).toThrow(/no pattern of paths/);
		expect(() => setRole(store, 'S', 'Ben', 'king' as never)).toThrow(/no role/);
		expect(() => setRole(store, 'T', 'Ben', 'editor')).toThrow();
		setRole(store, 'S', 'Ben', undefined);
		expect(whoIs(store, { session })).toMatchObject({ roles: {} });
	});
});

describe('keys', () => {
	test('are told once, known by how they begin, for one site, until they end or are taken away', async () => {
		at('2026-05-01T10:00:00Z');
		await made_('Ada');
		const secret = addKey(store, 'S', { name: 'build', scopes: ['read', 'release'], ends: '2026-06-01' });
		expect(secret).toMatch(/^kephalon_[\w-]{43}$/);
		expect(whoIs(store, { key: secret })).toEqual({
			kind: 'key',
			name: 'build',
			site: 'S',
			scopes: ['read', 'release']
		});
		expect(whoIs(store, { key: `${secret}x` })).toEqual({ kind: 'nobody' });
		const { id } = store.working.sites.named('S');
		expect(store.people.keysAt(id)).toMatchObject([{ name: 'build', maker: 'this machine', used: Date.now() }]);
		at('2026-06-01T00:00:00Z');
		expect(whoIs(store, { key: secret })).toEqual({ kind: 'nobody' });
		const other = addKey(store, 'S', { name: 'next', scopes: ['read'] });
		dropKey(store, 'S', store.people.keysAt(id)[0]!.id);
		expect(whoIs(store, { key: other })).toEqual({ kind: 'nobody' });
		expect(() => dropKey(store, 'S', 99)).toThrow(/no such key/);
		for (const [wrong, says] of [
			[{ name: ' ', scopes: ['read'] }, /needs a name/],
			[{ name: 'k', scopes: [] }, /says what it is for/],
			[{ name: 'k', scopes: ['own'] }, /says what it is for/],
			[{ name: 'k', scopes: ['read'], ends: '2020-01-01' }, /yet to come/],
			[{ name: 'k', scopes: ['read'], ends: 'soon' }, /yet to come/]
		] as const)
			expect(() => addKey(store, 'S', wrong as never)).toThrow(says);
	});
});

test('a key is changed while both are valid, for a week', async () => {
	const first = addKey(store, 'S', { name: 'build', scopes: ['read'] });
	const site = store.working.sites.named('S').id;
	const id = store.people.keysAt(site)[0]!.id;
	const second = addKey(store, 'S', { name: 'build', scopes: ['read'], instead: id });
	const holder = { kind: 'key', name: 'build', site: 'S', scopes: ['read'] };
	for (const key of [first, second]) expect(whoIs(store, { key })).toEqual(holder);
	vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 7.01 * 86_400_000 });
	expect(whoIs(store, { key: first })).toEqual({ kind: 'nobody' });
	expect(whoIs(store, { key: second })).toEqual(holder);
	// One that ends sooner is not kept longer by it.
	const soon = new Date(Date.now() + 3_600_000).toISOString();
	addKey(store, 'S', { name: 'short', scopes: ['read'], ends: soon });
	addKey(store, 'S', { name: 'short', scopes: ['read'], instead: store.people.keysAt(site)[0]!.id });
	expect(store.people.keysAt(site)[1]!.ends).toBe(Date.parse(soon));
	const all = store.people.keysAt(site).length;
	expect(() => addKey(store, 'S', { name: 'no', scopes: ['read'], instead: 999 })).toThrow(/no such key/);
	expect(store.people.keysAt(site)).toHaveLength(all);
});

test('the secret of a session is renewed when its person’s rights change, once', async () => {
	const session = await made_('Ada', true);
	const other = await signIn(store, 'Ada', GOOD, FROM);
	expect(renewed(store, session)).toBeUndefined();
	setRole(store, 'S', 'Ada', 'editor');
	const next = renewed(store, session)!;
	expect(next).toMatch(/^[\w-]{43}$/);
	expect(renewed(store, session)).toBeUndefined();
	// What is on its way with the old one is answered.
	for (const one of [session, next, other]) expect(whoIs(store, { session: one })).toMatchObject({ name: 'Ada' });
	vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 61_000 });
	expect(whoIs(store, { session })).toEqual({ kind: 'nobody' });
	expect(whoIs(store, { session: next })).toMatchObject({ name: 'Ada' });
	// Renewing makes it no longer than fourteen days.
	vi.setSystemTime(Date.now() + 14 * 86_400_000);
	store.people.use(hashed(next), Date.now());
	expect(whoIs(store, { session: next })).toEqual({ kind: 'nobody' });
	expect(renewed(store, 'made up')).toBeUndefined();
});

describe('recovery codes', () => {
	const as = (session: string) => whoIs(store, { session });
	test('ten, told once; each is taken once, for a new password, however it is typed', async () => {
		const session = await made_('Ada');
		const codes = await actingAs(as(session), () => makeCodes(store, GOOD, '::1'));
		expect(new Set(codes).size).toBe(10);
		for (const code of codes) expect(code).toMatch(/^([a-hjkmnp-tv-z2-9]{4}-){3}[a-hjkmnp-tv-z2-9]{4}$/);
		expect(JSON.stringify(store.db.prepare('SELECT hex(hash) FROM recovery_code').all())).not.toContain(codes[0]);
		const typed = ` ${codes[0]!.toUpperCase().replaceAll('-', ' ')} `;
		const invitation = await takeCode(store, 'ada', typed, '::1');
		expect(invitedBy(store, invitation)).toBe('Ada');
		await expect(takeCode(store, 'Ada', codes[0]!, '::1')).rejects.toThrow('Each code works once');
		await takeInvitation(store, invitation, 'another slow heron', FROM);
		// Whoever else was in is not any more.
		expect(as(session)).toEqual({ kind: 'nobody' });
		await signIn(store, 'Ada', 'another slow heron', FROM);
		expect([...store.trail.all()].map(({ what }) => what)).toContain('code-taken');
	});
	test('the invitation of a code is over soon', async () => {
		const session = await made_('Ada');
		const [code] = await actingAs(as(session), () => makeCodes(store, GOOD, '::1'));
		const invitation = await takeCode(store, 'Ada', code!, '::1');
		vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 16 * 60_000 });
		expect(invitedBy(store, invitation)).toBeUndefined();
	});
	test('not of another, of one locked out, after a reset, or once there are new ones', async () => {
		const session = await made_('Ada');
		await made_('Ben');
		const codes = await actingAs(as(session), () => makeCodes(store, GOOD, '::1'));
		const no = (name: string, code: string) =>
			expect(takeCode(store, name, code, `a${Math.random()}`)).rejects.toThrow(/not right/);
		await no('Ben', codes[0]!);
		await no('Nobody', codes[0]!);
		const newer = await actingAs(as(session), () => makeCodes(store, GOOD, '::1'));
		await no('Ada', codes[1]!);
		resetPerson(store, 'Ada');
		await no('Ada', newer[0]!);
		const again = await takeInvitation(store, resetPerson(store, 'Ada'), GOOD, FROM);
		addPerson(store, 'Other', true);
		const last = await actingAs(as(again), () => makeCodes(store, GOOD, '::1'));
		lockPerson(store, 'Ada', true);
		await no('Ada', last[0]!);
	});
	test('are made only by who says the password, and wrong tries are slowed', async () => {
		const session = await made_('Ada');
		const make = (password?: string) => actingAs(as(session), () => makeCodes(store, password, '::7'));
		await expect(make()).rejects.toThrow('old password');
		for (let tries = 0; tries < 5; tries++) await make('wrong').catch(() => undefined);
		await expect(make(GOOD)).rejects.toThrow(/Try again in/);
		await expect(takeCode(store, 'Ada', 'aaaa', '::7')).rejects.toThrow(/Try again in/);
		expect(store.people.countCodes(1)).toBe(0);
	});
});

describe('the trail', () => {
	test('has a line for each, bound to the one before', async () => {
		const session = await made_('Ada');
		await signIn(store, 'Ada', 'wrong', FROM).catch(() => undefined);
		actingAs(whoIs(store, { session }), () => {
			addPerson(store, 'Ben');
			setRole(store, 'S', 'Ben', 'reader');
		});
		expect([...store.trail.all()].map(({ who, what, site }) => [who, what, site])).toEqual([
			['this machine', 'person-added', undefined],
			['Ada', 'invitation-taken', undefined],
			['nobody', 'sign-in-failed', undefined],
			['Ada', 'person-added', undefined],
			['Ada', 'role-set', 'S']
		]);
		expect(store.trail.verify()).toEqual({ lines: 5 });
		expect(store.trail.newest('S', 9)).toHaveLength(1);
		expect(store.trail.newest(undefined, 2).map(({ id }) => id)).toEqual([5, 4]);
	});

	test('lines cannot be changed or taken out; by other means it shows', async () => {
		for (const name of ['A', 'B', 'C']) addPerson(store, name);
		expect(() => store.db.prepare(`UPDATE trail SET who = 'x' WHERE id = 2`).run()).toThrow(/only added to/);
		expect(() => store.db.prepare('DELETE FROM trail WHERE id = 2').run()).toThrow(/only added to/);
		store.db.exec('DROP TRIGGER trail_stays; DROP TRIGGER trail_remains');
		store.db.prepare(`UPDATE trail SET who = 'x' WHERE id = 2`).run();
		expect(store.trail.verify()).toEqual({ lines: 1, broken: 2 });
		store.db.prepare('DELETE FROM trail WHERE id = 2').run();
		expect(store.trail.verify()).toEqual({ lines: 1, broken: 3 });
	});

	test('is cut off at neither end unseen', () => {
		for (const name of ['A', 'B', 'C']) addPerson(store, name);
		store.db.exec('DROP TRIGGER trail_remains');
		store.db.prepare('DELETE FROM trail WHERE id = 3').run();
		expect(store.trail.verify()).toEqual({ lines: 2, broken: 3 });
		store.db.prepare('DELETE FROM trail WHERE id = 1').run();
		expect(store.trail.verify()).toEqual({ lines: 0, broken: 2 });
		store.db.prepare('DELETE FROM trail').run();
		expect(store.trail.verify()).toEqual({ lines: 0, broken: 1 });
	});

	test('is kept as long as is said: what is older goes as lines come, and the rest holds', () => {
		const at = (day: number) => vi.useFakeTimers({ toFake: ['Date'], now: Date.UTC(2026, 0, day) });
		for (const day of [1, 2, 3, 10]) {
			at(day);
			addPerson(store, `P${day}`);
		}
		const names = () => [...store.trail.all()].map(({ data }) => data.name);
		store.trail.keepFor(8);
		expect(names()).toHaveLength(4);
		at(11);
		addPerson(store, 'P11');
		expect(names()).toEqual(['P3', 'P10', 'P11']);
		expect(store.trail.verify()).toEqual({ lines: 3 });
		at(400);
		addPerson(store, 'P400');
		expect(names()).toEqual(['P400']);
		expect(store.trail.verify()).toEqual({ lines: 1 });
		expect(() => store.db.prepare('DELETE FROM trail').run()).toThrow(/only added to/);
		store.trail.keepFor(undefined);
		at(9000);
		addPerson(store, 'P9000');
		expect(names()).toEqual(['P400', 'P9000']);
	});

	test('what is refused leaves none', () => {
		addPerson(store, 'A');
		expect(() => setOwner(store, 'A', false)).toThrow();
		expect(() => addPerson(store, 'A')).toThrow();
		expect([...store.trail.all()]).toHaveLength(1);
	});
});

test('who acts is known to the end of what they do, and to nobody else', async () => {
	const ada = { kind: 'person', id: 1, name: 'Ada', isOwner: true, roles: {} } as const;
	const seen = await Promise.all([
		actingAs(ada, async () => {
			await new Promise((resolve) => setTimeout(resolve, 5));
			return actor().kind;
		}),
		Promise.resolve(actor().kind)
	]);
	expect(seen).toEqual(['person', 'alone']);
});
