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

test('stands where it is said, the website and the readers beside it', async () => {
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
	const ports = [...said.matchAll(/127\.0\.0\.1:(\d+)/g)].map(([, one]) => Number(one)).slice(-3);
	// A port that somebody has taken meanwhile leads to the next free one.
	for (const [at, wanted] of [port, port + 10, port + 20].entries()) {
		expect(ports[at]).toBeGreaterThanOrEqual(wanted);
		expect(ports[at]).toBeLessThan(wanted + 10);
	}
});
