import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Servers for tests: each on a free port, all ended together. */
export function testServers() {
	const open: Server[] = [];
	return {
		/** Gives the port. */
		async listening(server: RequestListener | Server): Promise<number> {
			const made = typeof server === 'function' ? createServer(server) : server;
			open.push(made);
			await new Promise<void>((done) => made.listen(0, '127.0.0.1', done));
			return (made.address() as AddressInfo).port;
		},
		async end() {
			for (const server of open.splice(0)) {
				server.closeAllConnections();
				await new Promise((done) => server.close(done));
			}
		}
	};
}
