import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { afterAll, expect, test } from 'vitest';

/** The program behind `npm run demo`, as it is built. */
const root = fileURLToPath(new URL('../..', import.meta.url));
const work = mkdtempSync(join(tmpdir(), 'kephalon-demo-'));
afterAll(() => rmSync(work, { recursive: true, force: true }));
const program = `
	process.env.KEPHALON_THREAD = ${JSON.stringify(join(root, 'build/cli/thread.js'))};
	const { main } = await import(${JSON.stringify(pathToFileURL(join(root, 'build/cli/demo.js')).href)});
	await main(process.argv.slice(1));`;
const start = (...args: string[]) =>
	spawn(process.execPath, ['--input-type=module', '-e', program, '--', ...args], { cwd: work });

test.each([
	[['--port'], '“” is no port'],
	[['--port', 'all'], '“all” is no port'],
	[['--port=70000'], '“70000” is no port'],
	[['--fresh', '--prot', '1'], 'Unknown option --prot']
])('%j is told', async (args, why) => {
	const child = start(...args);
	let said = '';
	child.stderr.on('data', (data: Buffer) => (said += data.toString()));
	expect(await new Promise((resolve) => child.once('close', resolve))).toBe(2);
	expect(said).toContain(why);
});

test('stands where it is said, the website, the readers and the editor beside it', async () => {
	const server = createServer().listen(0, '127.0.0.1');
	await new Promise((resolve) => server.once('listening', resolve));
	const { port } = server.address() as AddressInfo;
	await new Promise((resolve) => server.close(resolve));
	const child = start('--port', String(port));
	const said = await new Promise<string>((resolve, reject) => {
		child.once('close', () => reject(new Error('it ended')));
		let text = '';
		child.stdout.on('data', (data: Buffer) => {
			text += data.toString();
			if (text.includes('Ctrl-C')) resolve(text);
		});
	});
	const ended = new Promise((resolve) => child.once('close', resolve));
	child.kill('SIGTERM');
	await ended;
	const ports = [...said.matchAll(/127\.0\.0\.1:(\d+)/g)].map(([, one]) => Number(one)).slice(-4);
	// A port that somebody has taken meanwhile leads to the next free one.
	for (const [at, wanted] of [port, port + 10, port + 20, port + 30].entries()) {
		expect(ports[at]).toBeGreaterThanOrEqual(wanted);
		expect(ports[at]).toBeLessThan(wanted + 10);
	}
});

test('with people everybody signs in, as one of four who are told', { timeout: 60_000 }, async () => {
	const child = start('--people', '--port', '5310');
	const said = await new Promise<string>((resolve, reject) => {
		child.once('close', () => reject(new Error('it ended')));
		let text = '';
		child.stdout.on('data', (data: Buffer) => {
			text += data.toString();
			if (text.includes('Ctrl-C')) resolve(text);
		});
	});
	try {
		const password = /password “([^”]+)”/.exec(said)![1]!;
		const at = /Kephalon\s+(http:\S+)/.exec(said)![1]!;
		const site = encodeURIComponent('Merrow Coast Reserves');
		expect((await fetch(`${at}/api/sites/${site}/pending`)).status).toBe(401);
		for (const name of ['Ada Marrow', 'Ben Holt', 'Cleo Sands', 'Dov Reed']) {
			expect(said).toContain(name);
			const entered = await fetch(`${at}/api/session`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ name, password })
			});
			const cookie = entered.headers.get('set-cookie')!.split(';', 1)[0]!;
			expect((await fetch(`${at}/api/sites/${site}/pending`, { headers: { cookie } })).status).toBe(200);
		}
	} finally {
		const ended = new Promise((resolve) => child.once('close', resolve));
		child.kill('SIGTERM');
		await ended;
	}
});
