import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { answer } from '../http/answer';
import { visitorOf } from '../http/visitor';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { panelHostOf } from '../web/panelHost';
import { addPerson, lockPerson, resetPerson, setRole, takeInvitation } from './accounts';
import { addKey, dropKey } from './keys';
import { setOrigins } from './panel';
import { whoIs } from './who';

let folder: string;
let store: Store;
let sessions: Record<string, string>;
beforeEach(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-panel-'));
	store = new Store(join(folder, 'panel.db'));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.invalid/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: ['/', '/a', '/b', '/a*'].map((path) => ({
			...{ path, type: 'note', state: 'live', rules: [], fields: { title: path } }
		}))
	} as never);
	sessions = {};
	for (const [name, role] of [
		['Owner', undefined],
		['Ed', 'editor'],
		['Read', 'reader'],
		['Other', undefined]
	] as const) {
		const { secret } = addPerson(store, name);
		sessions[name] = await takeInvitation(store, secret, 'seven slow gannets', { address: '', agent: '' });
		if (role) setRole(store, 'S', name, role, name === 'Ed' ? { paths: ['/a*'] } : {});
	}
});
afterEach(() => {
	vi.useRealTimers();
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

/** Asks as whoever has a session by their name, or with what stands in `Authorization`. */
function ask(method: string, path: string, by: string, body?: unknown) {
	const url = new URL(`http://k/api/v1${path}`);
	const headers = {
		'content-type': 'application/json',
		...(sessions[by] === undefined ? { authorization: `Bearer ${by}` } : { cookie: `kephalon=${sessions[by]}` })
	};
	const request = new Request(url, { method, headers, ...(body !== undefined && { body: JSON.stringify(body) }) });
	return answer({
		request,
		url,
		locals: visitorOf(
			request,
			() => store,
			() => '127.0.0.1'
		)
	});
}
const told = async (answering: Promise<Response>) => {
	const response = await answering;
	const { code, ...rest } = (await response.json()) as Record<string, unknown>;
	return { status: response.status, code: code as string | undefined, ...rest } as Record<string, unknown> & {
		status: number;
		code: string | undefined;
	};
};
const open = (by: string, body: object = {}) => told(ask('POST', '/sites/S/panel/tokens', by, body));
const tokenOf = async (by: string, body: object = {}) => (await open(by, body)).token as string;
const write = (by: string, path: string, layer = 'page') =>
	told(
		ask('PUT', '/sites/S/rules', by, {
			place: layer === 'page' ? { layer, path } : layer === 'type' ? { layer, name: 'note' } : { layer },
			tag: 'title',
			body: { kind: 'template', template: `By ${Math.random()}` }
		})
	);
const key = (scopes: readonly ('panel' | 'read' | 'edit')[] = ['panel']) =>
	addKey(store, 'S', { name: 'host', scopes });

describe('what lets a panel in', () => {
	test('stands for oneself, writes what one may, and nothing of the type or the site', async () => {
		const token = await tokenOf('Ed');
		expect(token).toMatch(/^kephalon_panel_/);
		expect(await told(ask('GET', '/me', token))).toMatchObject({ name: 'Ed', isOwner: false });
		expect((await write(token, '/a')).status).toBe(200);
		expect((await write(token, '/b')).code).toBe('beyond-area');
		expect((await write(token, '', 'type')).code).toBe('beyond-role');
		expect((await write(token, '', 'site')).code).toBe('beyond-role');
		const [edit] = store.record.list(store.working.sites.named('S').id, undefined, 1);
		expect(edit!.author).toBe('Ed');
	});
	test('an owner of all is an editor in it, of that site', async () => {
		const token = await tokenOf('Owner');
		expect(whoIs(store, { key: token })).toMatchObject({
			isOwner: false,
			roles: { S: { role: 'editor' } },
			panel: true
		});
		expect((await write(token, '', 'site')).code).toBe('beyond-role');
		for (const [method, path, body] of [
			['GET', '/people', undefined],
			['GET', '/me/sessions', undefined],
			['DELETE', '/me/sessions', {}],
			['POST', '/me/passkeys/begun', {}],
			['PUT', '/me/password', { old: 'seven slow gannets', password: 'nine fast gannets' }],
			['POST', '/me/recovery', { password: 'seven slow gannets' }],
			['POST', '/sites', { name: 'New', base: 'https://new.invalid/', source: { kind: 'hand' } }],
			['GET', '/trail', undefined]
		] as const)
			expect((await told(ask(method, path, token, body))).code, path).toBe('not-in-panel');
		for (const path of ['/sites/S/keys', '/sites/S/webhooks', '/sites/S/panel', '/sites/S/trail'])
			expect((await told(ask('GET', path, token))).code, path).toBe('not-allowed');
		expect((await told(ask('POST', '/sites/S/release', token, {}))).code).toBe('not-allowed');
	});
	test('at one page it writes that page alone', async () => {
		const token = await tokenOf('Owner', { page: '/b' });
		expect((await write(token, '/b')).status).toBe(200);
		expect((await write(token, '/a')).code).toBe('beyond-area');
		// A * in a path stands for itself, not for all.
		const odd = await tokenOf('Owner', { page: '/a*' });
		expect((await write(odd, '/a')).code).toBe('not-allowed');
	});
	test('who only reads, reads in it', async () => {
		const token = await tokenOf('Read');
		expect((await told(ask('GET', '/sites/S/bench?path=/a', token))).mayEdit).toBe(false);
		expect((await write(token, '/a')).code).toBe('not-allowed');
		expect((await open('Other')).code).toBe('site-missing');
	});
});

describe('asked for with a key', () => {
	test('it stands for the person who is named, at the page that is named', async () => {
		const token = await tokenOf(key(), { person: 'Ed', page: '/a' });
		expect(await told(ask('GET', '/sites/S/bench?path=/a', token))).toMatchObject({ isThere: true, mayEdit: true });
		expect(await told(ask('GET', '/sites/S/bench?path=/b', token))).toMatchObject({ isThere: true, mayEdit: false });
		expect((await write(token, '/a')).status).toBe(200);
		// Their area is not widened by it.
		const beyond = await tokenOf(key(), { person: 'Ed', page: '/b' });
		expect((await write(beyond, '/b')).code).toBe('not-allowed');
	});
	test.each([
		[['panel'], { page: '/a' }, 'panel-person'],
		[['panel'], { person: 'Ed' }, 'panel-page'],
		[['panel'], { person: 'Nobody', page: '/a' }, 'panel-person'],
		[['panel'], { person: 'Other', page: '/a' }, 'panel-person'],
		[['read', 'edit'], { person: 'Ed', page: '/a' }, 'key-without-panel']
	] as const)('with the scopes %j and %j: %s', async (scopes, body, code) => {
		expect((await open(key(scopes), body)).code).toBe(code);
	});
	test('a key for panels does nothing else', async () => {
		const hosts = key();
		for (const path of ['/sites/S/bench?path=/a', '/sites/S/pages', '/sites/S/keys'])
			expect((await told(ask('GET', path, hosts))).code, path).toBe('not-allowed');
	});
	test('it is over with its key, with a lock, and with what lets somebody in anew', async () => {
		const { id } = store.working.sites.named('S');
		const alive = async (token: string) => (await told(ask('GET', '/sites/S/bench?path=/a', token))).status;
		const first = await tokenOf(key(), { person: 'Ed', page: '/a' });
		expect(await alive(first)).toBe(200);
		dropKey(store, 'S', store.people.keysAt(id)[0]!.id);
		expect(await alive(first)).toBe(401);
		const second = await tokenOf('Ed');
		lockPerson(store, 'Ed', true);
		expect(await alive(second)).toBe(401);
		lockPerson(store, 'Ed', false);
		expect(await alive(second)).toBe(401);
		const third = await tokenOf('Ed');
		resetPerson(store, 'Ed');
		expect(await alive(third)).toBe(401);
		const fourth = await tokenOf('Read');
		setRole(store, 'S', 'Read', undefined);
		expect(await alive(fourth)).toBe(401);
	});
});

test('it lasts a quarter of an hour, and is had anew at the same page for eight hours', async () => {
	vi.useFakeTimers({ toFake: ['Date'] });
	const began = Date.now();
	let token = await tokenOf(key(), { person: 'Ed', page: '/a' });
	vi.setSystemTime(began + 15 * 60_000);
	expect((await open(token)).status).toBe(401);
	vi.setSystemTime(began);
	for (let at = 0; at < 8 * 60; at += 10) {
		vi.setSystemTime(began + at * 60_000);
		const next = await open(token, { page: '/b', person: 'Read' });
		expect([next.status, next.person], `${at}`).toEqual([200, 'Ed']);
		token = next.token as string;
	}
	expect((await told(ask('GET', '/sites/S/bench?path=/b', token))).mayEdit).toBe(false);
	vi.setSystemTime(began + 8 * 60 * 60_000 - 1);
	expect((await open(token)).ends).toBe(new Date(began + 8 * 60 * 60_000).toISOString());
	vi.setSystemTime(began + 8 * 60 * 60_000);
	expect((await open(token)).status).toBe(401);
	// It is told once in the trail, however often it goes on.
	expect(store.trail.newest('S', 500).filter(({ what }) => what === 'panel-opened')).toHaveLength(1);
});

describe('whose pages may show it', () => {
	const host = (site: string, said: string | null, id = '/panel/[site]') =>
		panelHostOf({
			...{ route: { id }, params: { site }, locals: { store } },
			url: new URL(`http://k/panel/S${said === null ? '' : `?host=${encodeURIComponent(said)}`}`)
		});
	test('those that an owner named, as they are, on this page alone', () => {
		setOrigins(store, 'S', ['https://editor.example', 'http://127.0.0.1:4900']);
		expect(host('S', 'https://editor.example')).toBe('https://editor.example');
		expect(host('S', 'http://127.0.0.1:4900')).toBe('http://127.0.0.1:4900');
		for (const other of [
			'http://editor.example',
			'https://editor.example:444',
			'https://editor.example.evil.example',
			'https://editor.example; frame-ancestors *',
			'https://editor.example/x',
			'null',
			'*',
			''
		])
			expect(host('S', other), other).toBeUndefined();
		expect(host('S', null)).toBeUndefined();
		expect(host('None', 'https://editor.example')).toBeUndefined();
		expect(host('S', 'https://editor.example', '/bench/[site]')).toBeUndefined();
	});
	test.each(['https://editor.example/', 'HTTPS://Editor.Example:443'])('%s is said as browsers say it', (said) => {
		expect(setOrigins(store, 'S', [said, said])).toEqual(['https://editor.example']);
	});
	test.each([
		'editor.example',
		'https://editor.example/x',
		'https://*.example',
		'ftp://editor.example',
		'null',
		'data:,x',
		''
	])('“%s” is none, and nothing is changed', (said) => {
		setOrigins(store, 'S', ['https://a.example']);
		expect(() => setOrigins(store, 'S', ['https://b.example', said])).toThrow(/is no origin/);
		expect(store.people.panel.originsAt(store.working.sites.named('S').id)).toEqual(['https://a.example']);
	});
	test('not more than fifty', () => {
		const many = Array.from({ length: 51 }, (_, at) => `https://e${at}.example`);
		expect(() => setOrigins(store, 'S', many)).toThrow(/50/);
		expect(setOrigins(store, 'S', many.slice(1))).toHaveLength(50);
	});
});

describe('what it is given of a page', () => {
	test('one that is not there is as its type begins, and is not written', async () => {
		const token = await tokenOf('Ed');
		expect(await told(ask('GET', '/sites/S/bench?path=/a/new&type=note&language=fr', token))).toMatchObject({
			...{ isThere: false, mayEdit: false },
			page: { path: '/a/new', type: 'note', language: 'fr', state: 'draft', fields: {}, rules: [] }
		});
		for (const asked of ['path=/a/new', 'path=/a/new&type=none', 'path=a&type=note'])
			expect((await told(ask('GET', `/sites/S/bench?${asked}`, token))).code, asked).toBe('page-missing');
	});
	test('what is set aside, for the page or for all', async () => {
		const { id } = store.working.sites.named('S');
		const aside = { code: 'short', tag: 'description', reason: '', author: '', made: '2026-01-01T00:00:00Z' };
		store.state.suppressions.add(id, { ...aside, path: '/b' });
		store.state.suppressions.add(id, { ...aside, code: 'no-picture', tag: 'og:image', path: '' });
		const suppressed = async (path: string) =>
			(await told(ask('GET', `/sites/S/bench?path=${path}`, 'Read'))).suppressed;
		expect(await suppressed('/a')).toEqual(['no-picture og:image']);
		expect((await suppressed('/b')) as string[]).toHaveLength(2);
	});
});
