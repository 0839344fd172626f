import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from 'vitest';
import { askOnce } from './askOnce';

test('every answer comes over a connection of its own, with what was asked', async () => {
	const ports = new Set<number | undefined>();
	const server = createServer((request, response) => {
		ports.add(request.socket.remotePort);
		response.end(JSON.stringify([request.method, request.headers.accept, request.headers.connection]));
	}).listen(0, '127.0.0.1');
	await new Promise((done) => server.once('listening', done));
	const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
	for (let times = 0; times < 3; times++) {
		const answer = await askOnce(at, { method: 'POST', headers: { accept: 'text/x' }, body: 'x' });
		expect(await answer.json()).toEqual(['POST', 'text/x', 'close']);
	}
	expect(ports.size).toBe(3);
	server.close();
});
