import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { ALL_READERS } from '$core';
import { stopJobs } from '../jobs/run';
import { Store } from '../store/store';
import { lookOnce } from './looking';

/** Several who look at one address at one time. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-looking-'));
const asked: string[] = [];
let store: Store;
let server: Server;
/** Answers wait until it is called. */
let answer = () => undefined as void;
let waits = new Promise<void>((done) => (answer = done));
beforeAll(async () => {
	process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('../../../build/cli/thread.js', import.meta.url));
	store = new Store(join(folder, 'k.db'));
	store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	server = createServer((request, response) => {
		if (request.url === '/robots.txt') return void response.writeHead(404).end();
		asked.push(request.url ?? '');
		void waits.then(() => response.writeHead(200, { 'content-type': 'text/html' }).end('<title>Eider</title>'));
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
});
afterAll(async () => {
	store.close();
	await stopJobs();
	server.closeAllConnections();
	server.close();
	rmSync(folder, { recursive: true, force: true });
});
const look = (path: string, signal = new AbortController().signal) =>
	lookOnce(
		{
			...{ db: store.file, site: 'S', address: `https://s.example${path}` },
			via: { origin: 'https://s.example', at: `http://127.0.0.1:${(server.address() as AddressInfo).port}` }
		},
		signal
	);
const agents = new Set(ALL_READERS.map(({ habits }) => habits.agent)).size;
const until = async (isSo: () => boolean) => {
	while (!isSo()) await new Promise((done) => setTimeout(done, 5));
};

test('two looks at one address at one time are one; one later is another', async () => {
	const both = [look('/a'), look('/a'), look('/b')];
	answer();
	const [first, second] = await Promise.all(both);
	expect(second).toBe(first);
	// By each that sends something of its own; and the icon that one looks for.
	expect(asked.filter((path) => path === '/a')).toHaveLength(agents);
	expect((await look('/a')).probe.made).not.toBe(first!.probe.made);
});

test('one that goes away leaves the others theirs; when all have gone, it ends', async () => {
	waits = new Promise<void>((done) => (answer = done));
	asked.length = 0;
	const [one, other] = [new AbortController(), new AbortController()];
	const looks = [look('/c', one.signal), look('/c', other.signal)];
	const gone = expect(looks[0]).rejects.toThrow();
	await until(() => asked.length > 0);
	one.abort();
	await gone;
	answer();
	expect((await looks[1]!).probe.tags[0]).toMatchObject({ value: 'Eider' });
	waits = new Promise<void>((done) => (answer = done));
	const last = new AbortController();
	const ended = look('/d', last.signal);
	const refused = expect(ended).rejects.toThrow();
	await until(() => asked.includes('/d'));
	last.abort();
	await refused;
	answer();
	// Who asks now does not get the one that was ended.
	expect((await look('/d')).probe.tags[0]).toMatchObject({ value: 'Eider' });
});
