import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Provider } from 'oidc-provider';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { answer } from '../http/answer';
import { visitorOf } from '../http/visitor';
import { stopJobs } from '../jobs/run';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { addPerson, lockPerson, takeInvitation } from '../people/accounts';
import { readSignOn, refusedIn, signOnSettings } from '../people/signOnSettings';

/** Single sign-on against a real issuer on this machine: who comes back, as whom, with what, and who does not. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-sign-on-'));
const file = join(folder, 'sign-on.json');
const HERE = 'http://heads.example';
let store: Store;
let issuer: Server;
let issuerAt = '';
/** What the issuer says of its people, by the name they log in with there. */
const PEOPLE: Record<string, Record<string, unknown>> = {
	edda: { name: 'Edda Quill', groups: ['web', 'walks'] },
	wim: { name: 'Wim Roper', groups: ['web'] },
	olla: { name: 'Olla Finch', groups: ['heads'] },
	stranger: { name: 'Sten Ranger', groups: ['elsewhere'] },
	namesake: { name: 'Ada Marrow', groups: ['web'] }
};
const RULES = [
	{ claim: 'groups', is: 'heads', owner: true },
	{ claim: 'groups', is: 'walks', site: 'S', role: 'editor', area: { paths: ['/walks/*'] } },
	{ claim: 'groups', is: 'web', site: 'S', role: 'reader' }
];
const set = (more: Record<string, unknown> = {}) =>
	writeFileSync(
		file,
		JSON.stringify({
			...{ issuer: issuerAt, clientId: 'kephalon', clientSecret: 'a secret of the client', name: 'Hollin account' },
			...{ rules: RULES, ...more }
		})
	);

beforeAll(async () => {
	process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('../../../build/cli/thread.js', import.meta.url));
	// As they do in the world: who takes a while to log in finds no connection kept.
	issuer = createServer({ keepAliveTimeout: 1 }).listen(0, '127.0.0.1');
	await new Promise((done) => issuer.once('listening', done));
	issuerAt = `http://127.0.0.1:${(issuer.address() as AddressInfo).port}`;
	const provider = new Provider(issuerAt, {
		clients: [
			{
				...{ client_id: 'kephalon', client_secret: 'a secret of the client' },
				redirect_uris: [`${HERE}/api/session/sign-on/back`],
				post_logout_redirect_uris: [`${HERE}/sign-in`]
			}
		],
		claims: { openid: ['sub'], profile: ['name', 'groups'] },
		findAccount: (_, id) => ({ accountId: id, claims: () => ({ sub: id, ...PEOPLE[id] }) }),
		pkce: { required: () => true },
		cookies: { keys: ['for tests'] }
	});
	const callback = provider.callback();
	issuer.on('request', (request, response) => void callback(request, response));
	set();
	vi.stubEnv('KEPHALON_SIGN_ON', file);
	store = new Store(join(folder, 'people.db'));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {}, pages: [], types: [] },
		site: { name: 'S', base: 'https://s.invalid/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	} as never);
	await takeInvitation(store, addPerson(store, 'Ada Marrow').secret, 'seven slow gannets', { address: '', agent: '' });
}, 60_000);
afterAll(async () => {
	vi.unstubAllEnvs();
	store.close();
	issuer.close();
	await stopJobs();
	rmSync(folder, { recursive: true, force: true });
});

/** A browser: its cookies by host, and where it is led. */
class Browser {
	readonly cookies = new Map<string, Map<string, string>>();

	private jar(url: URL) {
		const jar = this.cookies.get(url.host) ?? new Map<string, string>();
		this.cookies.set(url.host, jar);
		return jar;
	}
	/** Asks our own routes or the issuer; follows nothing. */
	async ask(
		address: string,
		{ method = 'GET', body = undefined as string | undefined, type = 'application/json' } = {}
	) {
		const url = new URL(address);
		const jar = this.jar(url);
		const headers = new Headers({
			cookie: [...jar].map(([name, value]) => `${name}=${value}`).join('; '),
			host: url.host
		});
		if (body !== undefined) headers.set('content-type', type);
		if (method !== 'GET') headers.set('origin', url.origin);
		const init = { method, headers, redirect: 'manual', ...(body !== undefined && { body }) } as const;
		const request = new Request(url, init);
		const got =
			url.origin === HERE
				? await answer({
						request,
						url,
						locals: visitorOf(
							request,
							() => store,
							() => '10.0.0.9'
						)
					})
				: await fetch(url, { ...init, headers: Object.fromEntries(headers) });
		for (const cookie of got.headers.getSetCookie()) {
			const [pair = '', ...more] = cookie.split(';');
			const [name = '', value = ''] = [pair.slice(0, pair.indexOf('=')), pair.slice(pair.indexOf('=') + 1)];
			if (more.some((one) => /max-age=0|expires=Thu, 01 Jan 1970/i.test(one))) jar.delete(name);
			else jar.set(name, value);
		}
		return got;
	}
	/** Logs in and consents at the issuer; gives the address that it is led back to. */
	async atIssuer(address: string, login: string): Promise<string> {
		let at = address;
		for (let steps = 0; steps < 12; steps++) {
			if (at.startsWith(HERE)) return at;
			const got = await this.ask(at);
			const to = got.headers.get('location');
			if (to !== null) {
				at = new URL(to, at).href;
				continue;
			}
			const page = await got.text();
			const action = /<form[^>]*action="([^"]+)"/.exec(page)?.[1];
			const prompt = /name="prompt" value="(\w+)"/.exec(page)?.[1];
			if (action === undefined || prompt === undefined) throw new Error(`The issuer says: ${page.slice(0, 300)}`);
			const body = new URLSearchParams({ prompt, ...(prompt === 'login' && { login, password: 'x' }) }).toString();
			const sent = await this.ask(new URL(action, at).href, {
				method: 'POST',
				body,
				type: 'application/x-www-form-urlencoded'
			});
			at = new URL(sent.headers.get('location')!, at).href;
		}
		throw new Error('The issuer leads nowhere.');
	}
	async begin(to = '/overview/S'): Promise<string> {
		const begun = await this.ask(`${HERE}/api/session/sign-on`, { method: 'POST', body: JSON.stringify({ to }) });
		const { address } = (await begun.json()) as { address: string };
		return address;
	}
	/** Where one is led after signing on. */
	async signOn(login: string, to?: string): Promise<string> {
		const back = await this.ask(await this.atIssuer(await this.begin(to), login));
		return back.headers.get('location') ?? `${back.status}`;
	}
	async me(): Promise<Record<string, unknown>> {
		return (await (await this.ask(`${HERE}/api/me`)).json()) as Record<string, unknown>;
	}
}

describe('who signs on', () => {
	test('becomes somebody where a rule is for them, and is led to where they wanted to go', async () => {
		const browser = new Browser();
		const address = new URL(await browser.begin());
		expect(Object.fromEntries(address.searchParams)).toMatchObject({
			...{ response_type: 'code', code_challenge_method: 'S256', scope: 'openid profile email', client_id: 'kephalon' },
			redirect_uri: `${HERE}/api/session/sign-on/back`
		});
		expect(address.searchParams.get('nonce')).toMatch(/^[\w-]{43}$/);
		expect(await browser.signOn('edda')).toBe('/overview/S');
		expect(await browser.me()).toMatchObject({
			...{ kind: 'person', name: 'Edda Quill', isOwner: false },
			roles: { S: { role: 'editor', area: { paths: ['/walks/*'] } } }
		});
		expect(store.people.named('Edda Quill')).toMatchObject({ isInvited: false, password: undefined });
	});

	test('is the same the next time, with what the rules say then; other roles stay', async () => {
		const before = store.people.named('Edda Quill')!.id;
		PEOPLE.edda = { name: 'Edda Quill-Moss', groups: ['web', 'heads'] };
		const browser = new Browser();
		await browser.signOn('edda');
		expect(await browser.me()).toMatchObject({
			name: 'Edda Quill',
			isOwner: true,
			roles: { S: { role: 'reader', area: {} } }
		});
		PEOPLE.edda = { name: 'Edda Quill', groups: [] };
		await browser.signOn('edda');
		expect(await browser.me()).toMatchObject({ isOwner: false, roles: {} });
		expect(store.people.named('Edda Quill')!.id).toBe(before);
		expect(
			store.trail.newest(undefined, 50).filter(({ what }) => what === 'role-set' || what === 'owner-set')
		).toHaveLength(5);
		// Nothing is written where nothing is another.
		await browser.signOn('edda');
		expect(
			store.trail.newest(undefined, 50).filter(({ what }) => what === 'role-set' || what === 'owner-set')
		).toHaveLength(5);
	});

	test('without a rule, locked out, or with the name of another, is told and not let in', async () => {
		const browser = new Browser();
		expect(await browser.signOn('stranger')).toBe('/sign-in?refused=sign-on-nobody');
		expect(await browser.signOn('nobody-at-all')).toBe('/sign-in?refused=sign-on-nobody');
		expect(await new Browser().signOn('namesake')).toBe('/sign-in?refused=sign-on-name&name=Ada+Marrow');
		expect(await new Browser().signOn('wim')).toBe('/overview/S');
		lockPerson(store, 'Wim Roper', true);
		expect(await new Browser().signOn('wim')).toBe('/sign-in?refused=sign-on-nobody');
		expect(store.people.all().map(({ name }) => name)).toEqual(['Ada Marrow', 'Edda Quill', 'Wim Roper']);
		expect(await browser.me()).toMatchObject({ kind: 'nobody' });
	});

	test('binds the account to themselves where they are signed in, and nobody else’s', async () => {
		const browser = new Browser();
		const body = JSON.stringify({ name: 'Ada Marrow', password: 'seven slow gannets' });
		expect((await browser.ask(`${HERE}/api/session`, { method: 'POST', body })).status).toBe(200);
		expect(await browser.signOn('edda', '/account')).toBe('/account?refused=sign-on-other&name=Edda+Quill');
		browser.cookies.delete(new URL(issuerAt).host);
		expect(await browser.signOn('namesake', '/account')).toBe('/account');
		expect(await browser.me()).toMatchObject({ name: 'Ada Marrow', isOwner: true });
		// From then on it lets her in. The last owner stays one, though no rule makes her one.
		const other = new Browser();
		expect(await other.signOn('namesake')).toBe('/overview/S');
		expect(await other.me()).toMatchObject({ name: 'Ada Marrow', isOwner: true });
	});

	test('signs out of the issuer, too', async () => {
		const browser = new Browser();
		await browser.signOn('namesake');
		const out = await browser.ask(`${HERE}/api/session`, { method: 'DELETE', body: '{}' });
		const { leave } = (await out.json()) as { leave: string };
		expect(leave).toContain(`${issuerAt}/session/end?`);
		expect(new URL(leave).searchParams.get('post_logout_redirect_uri')).toBe(`${HERE}/sign-in`);
		expect((await browser.ask(leave)).status).toBe(200);
		expect(await browser.me()).toMatchObject({ kind: 'nobody' });
	});
});

describe('what does not let in', () => {
	const refused = async (browser: Browser, address: string) => (await browser.ask(address)).headers.get('location');
	const LATE = '/sign-in?refused=sign-on-late';
	const FAILED = '/sign-in?refused=sign-on-failed';

	test('what another browser began, what came back before, or too late', async () => {
		const [hers, his] = [new Browser(), new Browser()];
		const back = await hers.atIssuer(await hers.begin(), 'namesake');
		expect(await refused(his, back)).toBe(LATE);
		await his.begin();
		expect(await refused(his, back)).toBe(LATE);
		vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 11 * 60_000 });
		expect(await refused(hers, back)).toBe(LATE);
		vi.useRealTimers();
		const again = await hers.atIssuer(await hers.begin(), 'namesake');
		expect(await refused(hers, again)).toBe('/overview/S');
		expect(await refused(hers, again)).toBe('/account?refused=sign-on-late');
		expect(await his.me()).toMatchObject({ kind: 'nobody' });
		// What nobody began here fills no trail.
		expect(store.trail.newest(undefined, 100).filter(({ data }) => data.why === 'sign-on-late')).toEqual([]);
	});

	test.each([
		['another code', (back: URL) => back.searchParams.set('code', 'A'.repeat(43))],
		['no code', (back: URL) => back.searchParams.delete('code')],
		['another issuer', (back: URL) => back.searchParams.set('iss', 'https://other.example')],
		[
			'a refusal of the issuer',
			(back: URL) => {
				back.searchParams.delete('code');
				back.searchParams.set('error', 'access_denied');
			}
		]
	])('%s', async (_, change) => {
		const browser = new Browser();
		const back = new URL(await browser.atIssuer(await browser.begin(), 'namesake'));
		change(back);
		expect(await refused(browser, back.href)).toBe(FAILED);
		expect(await browser.me()).toMatchObject({ kind: 'nobody' });
	});

	test('a client that the issuer does not know by its secret; an issuer that is not there; none at all', async () => {
		set({ clientSecret: 'another' });
		const browser = new Browser();
		expect(await refused(browser, await browser.atIssuer(await browser.begin(), 'namesake'))).toBe(FAILED);
		set({ issuer: 'http://127.0.0.1:9' });
		const gone = await browser.ask(`${HERE}/api/session/sign-on`, { method: 'POST', body: '{}' });
		expect([gone.status, ((await gone.json()) as { code: string }).code]).toEqual([502, 'sign-on-failed']);
		vi.stubEnv('KEPHALON_SIGN_ON', '');
		expect((await browser.ask(`${HERE}/api/session/sign-on`, { method: 'POST', body: '{}' })).status).toBe(404);
		vi.stubEnv('KEPHALON_SIGN_ON', file);
		set();
	});

	test('leads nowhere but into the application', async () => {
		for (const to of ['https://evil.example', '//evil.example', '/\\evil.example', 'x'])
			expect(await new Browser().signOn('namesake', to)).toBe('/');
	});

	test('no token, code or word of it stands in the database or the trail', async () => {
		const browser = new Browser();
		const back = new URL(await browser.atIssuer(await browser.begin(), 'namesake'));
		await browser.ask(back.href);
		const all =
			JSON.stringify([...store.trail.all()]) + JSON.stringify(store.db.prepare('SELECT * FROM challenge').all());
		for (const secret of [back.searchParams.get('code')!, back.searchParams.get('state')!, 'a secret of the client'])
			expect(all).not.toContain(secret);
	});
});

describe('the file of settings', () => {
	const RULE = { claim: 'groups', is: 'web', site: 'S', role: 'reader' };
	const good = { issuer: 'https://id.example', clientId: 'k', name: 'A', rules: [RULE] };
	const at = (data: unknown) => {
		const to = join(folder, 'tried.json');
		writeFileSync(to, typeof data === 'string' ? data : JSON.stringify(data));
		return () => readSignOn(to);
	};
	test('is taken, and read again when it is another', () => {
		expect(at(good)()).toEqual(good);
		expect(signOnSettings()?.name).toBe('Hollin account');
		set({ name: 'Another' });
		expect(signOnSettings()?.name).toBe('Another');
		// Spoiled while it is in use, it stays as it was: who signs in otherwise is not kept from it.
		writeFileSync(file, '{');
		expect(signOnSettings()?.name).toBe('Another');
		rmSync(file);
		expect(signOnSettings()?.name).toBe('Another');
		set();
		expect(signOnSettings()?.name).toBe('Hollin account');
	});
	test.each([
		['no JSON', '{'],
		['an issuer in the clear, elsewhere', { ...good, issuer: 'http://id.example' }],
		['an issuer with a query', { ...good, issuer: 'https://id.example?a' }],
		['without rules', { ...good, rules: undefined }],
		['an owner of one site by two words', { ...good, rules: [{ ...RULE, owner: true }] }],
		['a role without a site', { ...good, rules: [{ claim: 'a', role: 'reader' }] }],
		['a role that is none', { ...good, rules: [{ ...RULE, role: 'admin' }] }],
		['a scope without openid', { ...good, scope: 'profile' }],
		['more than that', { ...good, secret: 'x' }]
	])('is refused: %s', (_, data) => {
		expect(at(data)).toThrow(/does not say how to sign on: .+\. It is JSON/);
	});
});

test('what the address of a page says of a refusal is told in our words alone', () => {
	const told = (query: string) => refusedIn(new URLSearchParams(query));
	expect(told('')).toBe('');
	expect(told('refused=sign-on-late')).toMatch(/too long/);
	expect(told('refused=sign-on-name&name=Ada')).toMatch(/called “Ada” already/);
	expect(told('refused=failed')).toBe(told('refused=Call+this+number'));
	expect(told('refused=Call+this+number')).not.toMatch(/Call/);
});
