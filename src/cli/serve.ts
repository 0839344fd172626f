import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { UserError } from '$server/errors';

export interface Running {
	readonly address: string;
	readonly port: number;
	close(): Promise<void>;
}

const HOST = '127.0.0.1';
/** How many ports are tried, one after the other. */
const TRIES = 20;

/** Listens on this machine only; when the port is taken, says so and takes the next free one. */
export async function listen(
	handler: RequestListener,
	wanted: number,
	what: string,
	say: (text: string) => void
): Promise<Running> {
	const server = createServer(handler);
	for (let port = wanted; port < wanted + TRIES; port++) {
		if (await tryPort(server, port)) {
			if (port !== wanted) say(`Port ${wanted} is taken; ${what} uses ${port}.`);
			const { port: actual } = server.address() as AddressInfo;
			return { address: `http://${HOST}:${actual}`, port: actual, close: () => closeServer(server) };
		}
	}
	throw new UserError(`The ports ${wanted} to ${wanted + TRIES - 1} are all taken. Name another with --port.`);
}

function tryPort(server: Server, port: number): Promise<boolean> {
	return new Promise((resolve, reject) => {
		const failed = (error: NodeJS.ErrnoException) => {
			if (error.code === 'EADDRINUSE') resolve(false);
			else
				reject(
					error.code === 'EACCES'
						? new UserError(`Port ${port} may not be used by this user. Name one above 1023 with --port.`)
						: error
				);
		};
		server.once('error', failed);
		server.listen(port, HOST, () => {
			server.off('error', failed);
			resolve(true);
		});
	});
}

function closeServer(server: Server): Promise<void> {
	return new Promise((resolve) => {
		server.close(() => resolve());
		server.closeAllConnections();
	});
}

const built = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export interface ServeOptions {
	readonly db: string;
	/** 0 takes any free one. */
	readonly port: number;
	readonly say: (text: string) => void;
	/** A server on this machine that holds the files of a site whose base address is not on the net. */
	readonly standIn?: { readonly base: string; readonly origin: string };
}

/** Starts the web application in this process on a database. */
export async function serve({ db, port, say, standIn }: ServeOptions): Promise<Running> {
	const handlerFile = built('../web/handler.js');
	if (!existsSync(handlerFile)) throw new UserError('The web application is not built. Run npm run build first.');
	process.env.KEPHALON_DB = db;
	process.env.KEPHALON_THREAD = built('./thread.js');
	// Photographs and tables of content are sent whole. The name is the adapter's, behind the prefix of svelte.config.js.
	process.env.KEPHALON_WEB_BODY_SIZE_LIMIT ??= '64M';
	if (standIn) process.env.KEPHALON_STAND_IN = JSON.stringify(standIn);
	const { handler } = (await import(/* @vite-ignore */ handlerFile)) as { handler: RequestListener };
	return listen(handler, port, 'Kephalon', say);
}
