import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';

/** What happens is told to other addresses by the server, whichever process did it, and through its own death. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-hooks-'));
const env = { ...process.env, KEPHALON_DB: join(top, 'k.db'), TMPDIR: top };
let child: ChildProcess | undefined;
let hears: Server | undefined;
let at = '';
let secret = '';
const came: { headers: IncomingHttpHeaders; body: string }[] = [];

const run = (...args: string[]) => spawnSync(process.execPath, [program, ...args], { encoding: 'utf8', cwd: top, env });
const api = (...args: string[]) => JSON.parse(run('api', ...args, '--server', at).stdout) as Record<string, unknown>;
const start = () =>
	new Promise<string>((resolve, reject) => {
		child = spawn(process.execPath, [program, 'serve', '--port', '0'], { cwd: top, env });
		let said = '';
		child.stderr?.on('data', (data: Buffer) => {
			said += data.toString();
			const found = /is at (\S+)/.exec(said)?.[1];
			if (found) resolve(found);
		});
		child.once('exit', () => reject(new Error(said)));
	});
const ended = (one: ChildProcess) => new Promise((done) => one.once('exit', done));
function listen(port = 0) {
	hears = createServer((request, response) => {
		let body = '';
		request.on('data', (part: Buffer) => (body += part.toString()));
		request.on('end', () => {
			came.push({ headers: request.headers, body });
			response.writeHead(204).end();
		});
	});
	return new Promise<number>((done) =>
		hears?.listen(port, '127.0.0.1', () => done((hears!.address() as AddressInfo).port))
	);
}
/** What was told, its signature checked. */
const told = () =>
	came.map(({ headers, body }) => {
		const { type, data } = new Webhook(secret).verify(body, headers as Record<string, string>) as {
			type: string;
			data: object;
		};
		return { type, ...data };
	});
const comes = (what: object) => vi.waitFor(() => expect(told()).toContainEqual(expect.objectContaining(what)), 30_000);

beforeAll(async () => {
	writeFileSync(
		join(top, 's.json'),
		JSON.stringify({
			...{ format: 'kephalon-site', version: 2 },
			site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
			types: [{ name: 'note', fields: [], rules: [] }],
			pages: [{ path: '/', type: 'note', state: 'live', fields: { title: 'Home' }, rules: [] }]
		})
	);
	expect(run('import', 's.json').status).toBe(0);
	at = await start();
}, 60_000);
afterAll(() => {
	child?.kill();
	hears?.close();
	rmSync(top, { recursive: true, force: true, maxRetries: 5 });
});

test('a release by the command, a push by a program and findings that grow are told; what is inside only by word', async () => {
	const port = await listen();
	const address = `http://127.0.0.1:${port}/hook`;
	const events = ['release.made', 'job.ended', 'findings.grown'];
	expect(api('POST', '/sites/S/webhooks', '--data', JSON.stringify({ address, events }))).toMatchObject({
		code: 'hook-address'
	});
	secret = api('POST', '/sites/S/webhooks', '--data', JSON.stringify({ address, events, inside: true }))
		.secret as string;
	expect(secret).toMatch(/^whsec_/);
	expect(run('release', '--site', 'S').status).toBe(0);
	await comes({ type: 'release.made', site: 'S', number: 1, pages: 1 });
	writeFileSync(join(top, 'p.ndjson'), '{"path":"/a","type":"note","fields":{"title":"A"}}\n');
	api('POST', '/sites/S/pushes?source=boats', '--data', `@${join(top, 'p.ndjson')}`);
	await comes({ type: 'job.ended', site: 'S', job: 'push', ended: 'done' });
	await comes({ type: 'findings.grown', site: 'S' });
	expect(JSON.stringify(api('GET', '/sites/S/webhooks'))).not.toContain(secret);
}, 90_000);

test('what could not be sent when the server was killed is sent by the next one, once', async () => {
	const { port } = hears!.address() as AddressInfo;
	await new Promise((done) => hears?.close(done) && hears.closeAllConnections());
	const before = came.length;
	expect(run('release', '--site', 'S').status).toBe(0);
	const waits = () => (api('GET', '/sites/S/webhooks') as unknown as { waiting: number }[])[0]!.waiting;
	await vi.waitFor(() => expect(waits()).toBeGreaterThan(0), 20_000);
	const died = ended(child!);
	child!.kill('SIGKILL');
	await died;
	await listen(port);
	at = await start();
	await comes({ type: 'release.made', number: 2 });
	expect(
		told()
			.slice(before)
			.filter(({ type }) => type === 'release.made')
	).toHaveLength(1);
	const all = api('GET', '/sites/S/webhooks/messages?webhook=1') as unknown as {
		event: string;
		tries: { status?: number }[];
	}[];
	expect(all.find(({ event }) => event === 'release.made')!.tries.at(-1)).toMatchObject({ status: 204 });
}, 120_000);
