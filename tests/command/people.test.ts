import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { request as secureRequest } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { generate } from 'selfsigned';
import { afterAll, afterEach, beforeEach, expect, test } from 'vitest';
import { Store } from '$server/store/store';

/** People by the command, and a server that others come in to. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-people-'));
let work = '';
let db = '';
let served: ChildProcess | undefined;
afterAll(() => rmSync(top, { recursive: true, force: true }));
beforeEach(() => {
	work = mkdtempSync(join(top, 'w-'));
	db = join(work, 'k.db');
});
afterEach(() => void served?.kill());

function run(...args: string[]) {
	const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], {
		encoding: 'utf8',
		cwd: work,
		env: { ...process.env, KEPHALON_DB: db }
	});
	return { status, stdout, stderr };
}
function withSite() {
	writeFileSync(
		join(work, 's.json'),
		JSON.stringify({
			...{ format: 'kephalon-site', version: 2, types: [{ name: 'note', fields: [], rules: [] }] },
			site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
			pages: [{ path: '/', type: 'note', state: 'live', fields: { title: 'Home' }, rules: [] }]
		})
	);
	expect(run('import', 's.json').stderr).toContain('S');
}
/** A server of the command; gives where it is. */
const serve = (...args: string[]) => start('serve', ...args);
function start(verb: 'serve' | 'deliver', ...args: string[]): Promise<string> {
	const child = spawn(process.execPath, [program, verb, '--port', '0', ...args], {
		cwd: work,
		env: { ...process.env, KEPHALON_DB: db }
	});
	served = child;
	return new Promise((resolve, reject) => {
		let said = '';
		child.stderr.on('data', (data: Buffer) => {
			said += data.toString();
			const at = /(?:Kephalon|Delivery) is at (\S+)/.exec(said)?.[1];
			if (at) resolve(at);
		});
		child.once('exit', () => reject(new Error(said)));
	});
}
interface Answered {
	readonly status: number;
	readonly headers: Record<string, string | string[] | undefined>;
	readonly text: string;
}
function ask(
	at: string,
	path: string,
	{ headers = {}, method = 'GET', body = '' }: { headers?: Record<string, string>; method?: string; body?: string } = {}
): Promise<Answered> {
	const url = new URL(path, at);
	return new Promise((resolve, reject) => {
		const send = url.protocol === 'https:' ? secureRequest : request;
		const asking = send(
			url,
			// No connection is taken up again: the server may have closed it while a command ran.
			{ method, agent: false, rejectUnauthorized: false, headers: { 'content-type': 'application/json', ...headers } },
			(answer) => {
				let text = '';
				answer.on('data', (data: Buffer) => (text += data.toString()));
				answer.on('end', () => resolve({ status: answer.statusCode!, headers: answer.headers, text }));
			}
		);
		asking.on('error', reject);
		asking.end(body);
	});
}

test('people are added, given roles, locked, reset and taken away; what was done stands in the trail', () => {
	withSite();
	expect(run('people').stderr).toContain('There is nobody');
	const first = run('people', 'add', 'Ada Marrow', '--origin', 'https://heads.example/');
	expect(first.stdout).toMatch(/^https:\/\/heads\.example\/invited#[\w-]{43}\n$/);
	expect(first.stderr).toContain('as an owner of every site');
	expect(run('people', 'add', 'Ben').stdout).toMatch(/^http:\/\/127\.0\.0\.1:4870\/invited#/);
	expect(run('people', 'add', 'Cal', '--owner').stderr).toContain('as an owner');
	expect(run('people', 'add', 'ben')).toMatchObject({ status: 1 });
	expect(
		run(
			'people',
			'role',
			'Ben',
			'--site',
			'S',
			'--as',
			'editor',
			'--path',
			'/a*',
			'--path',
			'/b',
			'--type',
			'note',
			'--language',
			'en'
		).stderr
	).toContain('Ben is editor of S (only paths /a* /b, types note, languages en).');
	expect(run('people', 'role', 'Ben', '--as', 'king')).toMatchObject({ status: 2 });
	expect(run('people', 'role', 'Ben', '--as', 'editor')).toMatchObject({ status: 2 });
	expect(run('people', 'role', 'Cal', '--as', 'none').stderr).toContain('does not own every site any more');
	expect(run('people', 'role', 'Ada Marrow', '--as', 'none')).toMatchObject({ status: 1 });
	expect(run('people', 'lock', 'Ben').stderr).toContain('locked out');
	expect(run('people').stdout).toBe(
		'Ada Marrow, invited: owner of every site\nBen, locked out: editor of S (only paths /a* /b, types note, languages en)\nCal, invited: nothing yet\n'
	);
	expect(run('people', 'unlock', 'Ben').status).toBe(0);
	expect(run('people', 'reset', 'Ben', '--origin', 'https://heads.example').stdout).toMatch(
		/^https:\/\/heads\.example\/invited#/
	);
	expect(run('people', 'role', 'Ben', '--site', 'S', '--as', 'none').stderr).toContain('nothing at S');
	expect(run('people', 'remove', 'Cal').status).toBe(0);
	expect(JSON.parse(run('people', '--json').stdout)).toMatchObject([
		{ name: 'Ada Marrow' },
		{ name: 'Ben', roles: {} }
	]);
	const lines = run('audit').stdout.trim().split('\n');
	expect(lines).toHaveLength(10);
	expect(lines[0]).toContain('this machine: person-added');
	expect(JSON.parse(run('audit', '--format', 'ndjson').stdout.split('\n')[3]!)).toMatchObject({
		what: 'role-set',
		site: 'S'
	});
	expect(run('audit', 'verify').stderr).toContain('10 lines');
	const store = new Store(db);
	store.db.exec(`DROP TRIGGER trail_stays; UPDATE trail SET who = 'x' WHERE id = 4`);
	store.close();
	expect(run('audit', 'verify')).toMatchObject({ status: 1, stderr: expect.stringContaining('line 4') });
});

test('it is not open to others without people and a name', () => {
	withSite();
	expect(run('serve', '--host', '0.0.0.0', '--origin', 'https://heads.example')).toMatchObject({
		status: 1,
		stderr: expect.stringContaining('Add a person first')
	});
	run('people', 'add', 'Ada');
	expect(run('serve', '--host', '0.0.0.0')).toMatchObject({ status: 1, stderr: expect.stringContaining('--origin') });
	expect(run('serve', '--origin', 'heads.example')).toMatchObject({
		status: 1,
		stderr: expect.stringContaining('no address')
	});
	expect(run('serve', '--origin', 'https://heads.example', '--cert', 'c.pem')).toMatchObject({
		status: 1,
		stderr: expect.stringContaining('goes with its key')
	});
});

test(
	'behind a proxy: under its name alone, cookies bound to it, whom the proxy speaks for',
	{ timeout: 60_000 },
	async () => {
		withSite();
		const token = run('people', 'add', 'Ada').stdout.trim().split('#')[1]!;
		const at = await serve('--host', '127.0.0.1', '--origin', 'https://heads.example', '--trust-proxy', '127.0.0.1');
		const headers = { host: 'heads.example', 'x-forwarded-for': '203.0.113.9' };
		expect((await ask(at, '/sites', { headers: { host: 'evil.example' } })).status).toBe(403);
		const turned = await ask(at, '/bench/S', { headers });
		expect([turned.status, turned.headers.location]).toEqual([303, '/sign-in?to=%2Fbench%2FS']);
		expect(turned.headers['strict-transport-security']).toContain('max-age');
		expect((await ask(at, '/api/sites/S/pending', { headers })).status).toBe(401);
		// What is released goes to everyone, as before.
		expect((await ask(at, '/api/sites/S/head/', { headers })).status).toBe(404);
		const body = JSON.stringify({ token, password: 'seven slow gannets' });
		// Another site's page sends nothing.
		for (const other of [{ origin: 'https://evil.example' }, { 'sec-fetch-site': 'cross-site' }])
			expect(
				(await ask(at, '/api/invitations', { headers: { ...headers, ...other }, method: 'POST', body })).status
			).toBe(403);
		const taken = await ask(at, '/api/invitations', {
			headers: { ...headers, origin: 'https://heads.example' },
			method: 'POST',
			body
		});
		expect(taken.status).toBe(200);
		const cookie = [taken.headers['set-cookie'] ?? ''].flat()[0]!;
		expect(cookie).toMatch(/^__Host-kephalon=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; Secure$/);
		const session = cookie.split(';', 1)[0]!;
		const room = await ask(at, '/overview/S', { headers: { ...headers, cookie: session } });
		expect(room.status).toBe(200);
		expect(room.headers).toMatchObject({
			...{ 'cache-control': 'no-store', 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin' },
			'cross-origin-opener-policy': 'same-origin'
		});
		const policy = String(room.headers['content-security-policy']);
		for (const part of [
			"default-src 'self'",
			"frame-ancestors 'none'",
			"object-src 'none'",
			"form-action 'self'",
			"base-uri 'none'"
		])
			expect(policy).toContain(part);
		expect(policy).toMatch(/script-src 'self' '(nonce|sha256)-[^']+'/);
		expect(policy).not.toMatch(/script-src[^;]*unsafe/);
		expect(policy).toMatch(/style-src 'self' 'nonce-[^']+'; style-src-attr 'unsafe-hashes'( 'sha256-[^']+'){2};/);
		expect(policy).not.toContain('unsafe-inline');
		const nonce = /'(nonce-)([^']+)'/.exec(policy)![2]!;
		expect(room.text).toContain(`<body nonce="${nonce}"`);
		expect(room.text).not.toMatch(/<[a-z][^>]* style="/);
		expect(run('audit').stdout).toContain('"address":"203.0.113.9"');
		// Rights that change renew the secret of a session, once.
		run('people', 'role', 'Ada', '--site', 'S', '--as', 'editor');
		const again = await ask(at, '/overview/S', { headers: { ...headers, cookie: session } });
		const [next = ''] = [again.headers['set-cookie'] ?? ''].flat();
		expect(next).toMatch(/^__Host-kephalon=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; Secure$/);
		expect(next).not.toContain(session);
		const renewed = { ...headers, cookie: next.split(';', 1)[0]! };
		const stays = await ask(at, '/overview/S', { headers: renewed });
		expect([stays.status, stays.headers['set-cookie']]).toEqual([200, undefined]);
		// Locked by the command, in another process: refused at the next request.
		run('people', 'add', 'Ben', '--owner');
		run('people', 'lock', 'Ada');
		expect((await ask(at, '/api/sites/S/pending', { headers: { ...headers, cookie: session } })).status).toBe(401);
		// Without anyone left, nobody is alone at a server that others reach.
		run('people', 'unlock', 'Ada');
		run('people', 'remove', 'Ada');
		run('people', 'remove', 'Ben');
		expect((await ask(at, '/api/sites/S/pending', { headers })).status).toBe(401);
	}
);

test('single sign-on is offered as its file says; a file that is wrong is told before anything starts', async () => {
	withSite();
	run('people', 'add', 'Ada');
	const file = join(work, 'sign-on.json');
	const settings = { issuer: 'http://127.0.0.1:9', clientId: 'kephalon', name: 'Hollin account', rules: [] };
	writeFileSync(file, JSON.stringify({ ...settings, issuer: 'http://elsewhere.example' }));
	const refused = run('serve', '--port', '0', '--sign-on', file);
	expect([refused.status, refused.stderr]).toEqual([1, expect.stringContaining('/issuer')]);
	expect(run('serve', '--port', '0', '--sign-on', join(work, 'none.json'))).toMatchObject({ status: 1 });
	writeFileSync(file, JSON.stringify(settings));
	const at = await serve('--sign-on', file);
	expect((await ask(at, '/sign-in')).text).toContain('Hollin account');
	// Spoiled while it runs: as it was.
	writeFileSync(file, '{');
	expect((await ask(at, '/sign-in')).text).toContain('Hollin account');
});

test('delivery takes so many requests of an address, which a proxy names', async () => {
	withSite();
	expect(run('release', '--site', 'S').status).toBe(0);
	const at = await start('deliver', '--per-second', '1', '--trust-proxy', '127.0.0.1');
	const times = async (many: number, address: string) => {
		const all = [];
		for (let count = 0; count < many; count++)
			all.push((await ask(at, '/api/sites/S/head?path=/', { headers: { 'x-forwarded-for': address } })).status);
		return all;
	};
	// Twice as many at once; then those that wait a second.
	const statuses = await times(40, '203.0.113.9');
	expect(statuses.slice(0, 2)).toEqual([200, 200]);
	expect(statuses).toContain(429);
	expect(await times(1, '203.0.113.10')).toEqual([200]);
	expect(await times(4, '127.0.0.1')).toEqual([200, 200, 200, 200]);
});

test('encrypted by itself', { timeout: 60_000 }, async () => {
	withSite();
	run('people', 'add', 'Ada');
	const made = await generate([{ name: 'commonName', value: 'heads.example' }]);
	writeFileSync(join(work, 'k.pem'), made.private);
	writeFileSync(join(work, 'c.pem'), made.cert);
	const at = await serve('--origin', 'https://heads.example', '--cert', 'c.pem', '--key', 'k.pem');
	expect(at).toMatch(/^https:/);
	expect((await ask(at, '/', { headers: { host: 'heads.example' } })).status).toBe(303);
});

test(
	'no password, key, session, code or invitation stands in a log, a record, an error, a backup or its listing',
	{ timeout: 90_000 },
	async () => {
		withSite();
		const invitation = run('people', 'add', 'Ada').stdout.trim().split('#')[1]!;
		let said = '';
		const at = await serve('--log-level', 'debug');
		served!.stdout?.on('data', (data: Buffer) => (said += data.toString()));
		served!.stderr?.on('data', (data: Buffer) => (said += data.toString()));
		const here = { origin: at, host: new URL(at).host };
		const post = (path: string, body: object, more: Record<string, string> = {}, method = 'POST') =>
			ask(at, path, { headers: { ...here, ...more }, method, body: JSON.stringify(body) });
		const [good, wrong, other] = ['planted slow gannets', 'planted wrong heron', 'planted other wader'];
		const answers: Answered[] = [];
		const keep = (one: Answered) => (answers.push(one), one);
		const taken = await post('/api/invitations', { token: invitation, password: good });
		const cookie = String([taken.headers['set-cookie']].flat()[0]).split(';', 1)[0]!;
		expect(taken.status).toBe(200);
		const { secret: key } = JSON.parse(
			(await post('/api/sites/S/keys', { name: 'k', scopes: ['read'] }, { cookie })).text
		) as { secret: string };
		const { codes } = JSON.parse((await post('/api/me/recovery', { password: good }, { cookie })).text) as {
			codes: string[];
		};
		expect([key.length > 40, codes.length]).toEqual([true, 10]);
		keep(await post('/api/session', { name: 'Ada', password: wrong }));
		// Typed into the wrong field.
		keep(await post('/api/session', { name: wrong, password: 'x' }));
		keep(await post('/api/session', { name: 'Ada', password: good, pasword: wrong }));
		keep(await post('/api/me/password', { old: wrong, password: other }, { cookie }, 'PUT'));
		keep(await post('/api/session/recovery', { name: 'Ada', code: codes[0]! }));
		keep(await post('/api/session/recovery', { name: 'Ada', code: wrong }));
		keep(await ask(at, '/api/sites/S/pending', { headers: { ...here, authorization: `Bearer ${key}` } }));
		keep(
			await ask(at, `/api/sites/S/head?path=/&key=${wrong.replaceAll(' ', '-')}`, {
				headers: { ...here, authorization: `Bearer ${key}x` }
			})
		);
		keep(await ask(at, '/overview/S', { headers: { ...here, cookie } }));
		const backup = run('backup', join(work, 'backup'));
		expect(backup.status).toBe(0);
		const told = [run('people', '--json'), run('audit'), run('audit', '--format', 'ndjson'), backup, run('sites')];
		const store = new Store(db);
		store.db.pragma('wal_checkpoint(TRUNCATE)');
		store.close();
		const files = [db, ...readdirSync(work, { recursive: true, encoding: 'utf8' }).map((file) => join(work, file))];
		const bytes = files.filter((file) => statSync(file).isFile()).map((file) => readFileSync(file, 'latin1'));
		const planted = [
			good,
			wrong,
			other,
			key,
			invitation,
			cookie.split('=')[1]!,
			codes[0]!,
			codes[5]!,
			codes[5]!.replaceAll('-', '')
		];
		// The invitation that a code was taken for is told to its browser, once.
		const texts = {
			said,
			answers: answers.map(({ text }) => text).join(),
			told: JSON.stringify(told),
			files: bytes.join()
		};
		expect(said.length).toBeGreaterThan(200);
		expect(texts.told).toContain('sign-in-failed');
		for (const [where, text] of Object.entries(texts))
			for (const one of planted) expect(text.includes(one), `${one} in ${where}`).toBe(false);
	}
);
