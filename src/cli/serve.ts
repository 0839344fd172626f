import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as createSecure, type ServerOptions } from 'node:https';
import type { AddressInfo } from 'node:net';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Delivery } from '$server/delivery/delivery';
import { CLIENT_HEADER, frontOf, plainAddress } from '$server/delivery/front';
import { isHere } from '$server/delivery/meter';
import { refuse } from '$server/errors';
import { stopJobs } from '$server/jobs/run';

export interface Running {
	readonly address: string;
	readonly port: number;
	/** Answers what is on its way, then ends. */
	close(): Promise<void>;
}

export const LOCAL_HOST = '127.0.0.1';
/** How many ports are tried, one after the other. */
const TRIES = 20;
/** Requests on their way are given so long (milliseconds) to end. */
const DRAIN = 10_000;

export interface ListenOptions {
	readonly port: number;
	/** What listens, for people. */
	readonly what: string;
	readonly say: (text: string) => void;
	readonly host?: string;
	/** Addresses of proxies, through which the connections of many come. */
	readonly proxies?: readonly string[];
	/** Ends encrypted connections by itself. */
	readonly tls?: Pick<ServerOptions, 'cert' | 'key'> | undefined;
	/** Told of the server, for what is more than a request. */
	readonly with?: (server: Server) => void;
}

/** Listens, on this machine only unless another host is named; when the port is taken, says so and takes the next free one. */
export async function listen(
	handler: RequestListener,
	{ port: wanted, what, say, host = LOCAL_HOST, proxies = [], tls, with: take }: ListenOptions
): Promise<Running> {
	const server = tls ? createSecure({ ...LIMITS, ...tls }, handler) : createServer(LIMITS, handler);
	limitSockets(server, proxies);
	take?.(server);
	for (let port = wanted; port < wanted + TRIES; port++) {
		if (await tryPort(server, port, host)) {
			if (port !== wanted) say(`Port ${wanted} is taken; ${what} uses ${port}.`);
			const { port: actual } = server.address() as AddressInfo;
			return {
				address: `${tls ? 'https' : 'http'}://${host}:${actual}`,
				port: actual,
				close: () => closeServer(server)
			};
		}
	}
	throw refuse('ports-taken', { first: wanted, last: wanted + TRIES - 1 });
}

/** The head of a request comes within so long, all of it within so long (milliseconds), and is so large (bytes) at the most. */
const LIMITS = {
	headersTimeout: 15_000,
	requestTimeout: 300_000,
	maxHeaderSize: 16_384,
	connectionsCheckingInterval: 5000
};
/** So many connections are open to one address, but to proxies and to this machine. */
const MOST_SOCKETS = 256;

function limitSockets(server: Server, proxies: readonly string[]) {
	const open = new Map<string, number>();
	server.on('connection', (socket) => {
		const address = plainAddress(socket.remoteAddress ?? '');
		if (isHere(address) || proxies.includes(address)) return;
		const count = (open.get(address) ?? 0) + 1;
		if (count > MOST_SOCKETS) return void socket.destroy();
		open.set(address, count);
		socket.once('close', () => {
			const left = open.get(address)! - 1;
			if (left === 0) open.delete(address);
			else open.set(address, left);
		});
	});
}

/** Throws a `UserError` when a port of an address is taken: several processes share one, and none takes the next. */
export async function refuseTaken(port: number, host: string) {
	const server = createServer();
	const isFree = await tryPort(server, port, host);
	if (!isFree) throw refuse('port-taken', { port });
	await new Promise((resolve) => server.close(resolve));
}

function tryPort(server: Server, port: number, host: string): Promise<boolean> {
	return new Promise((resolve, reject) => {
		const failed = (error: NodeJS.ErrnoException) => {
			if (error.code === 'EADDRINUSE') resolve(false);
			else if (error.code === 'EADDRNOTAVAIL') reject(refuse('host-missing', { host }));
			else reject(error.code === 'EACCES' ? refuse('port-forbidden', { port }) : error);
		};
		server.once('error', failed);
		server.listen(port, host, () => {
			server.off('error', failed);
			resolve(true);
		});
	});
}

function closeServer(server: Server): Promise<void> {
	return new Promise((resolve) => {
		const force = setTimeout(() => server.closeAllConnections(), DRAIN);
		server.close(() => {
			clearTimeout(force);
			resolve();
		});
		server.closeIdleConnections();
	});
}

/** The program of the threads. */
export const threadFile = () => built('./thread.js');

const built = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export interface ServeOptions {
	readonly db: string;
	/** 0 takes any free one. */
	readonly port: number;
	readonly say: (text: string) => void;
	/** A server on this machine that holds the files of a site whose base address is not on the net. */
	readonly standIn?: { readonly base: string; readonly origin: string };
	/** Where readers that keep cards can be spoken to. */
	readonly readers?: string | undefined;
	/** The file that says how people sign on by an issuer. */
	readonly signOn?: string | undefined;
	/** Folders that content may be read from over the web; none is, unless it is named. */
	readonly content?: readonly string[];
	/** Where it listens, for whom: on this machine alone without it. */
	readonly together?: Together | undefined;
}

/** A server that others can come in to. */
export interface Together {
	readonly host: string;
	/** The addresses under which it is reached, such as https://heads.example. */
	readonly origins: readonly string[];
	/** Addresses of proxies that say truly whom they speak for. */
	readonly proxies: readonly string[];
	readonly tls: ListenOptions['tls'];
}

/** Starts the web application in this process on a database. */
export async function serve({
	db,
	port,
	say,
	standIn,
	readers,
	signOn,
	content = [],
	together
}: ServeOptions): Promise<Running> {
	const handlerFile = built('../web/handler.js');
	if (!existsSync(handlerFile)) throw refuse('not-built');
	process.env.KEPHALON_DB = db;
	process.env.KEPHALON_THREAD = threadFile();
	process.env.KEPHALON_CONTENT = JSON.stringify(content);
	// Photographs and tables of content are sent whole. The name is the adapter's, behind the prefix of svelte.config.js.
	process.env.KEPHALON_WEB_BODY_SIZE_LIMIT ??= '4G';
	if (standIn) process.env.KEPHALON_STAND_IN = JSON.stringify(standIn);
	if (readers) process.env.KEPHALON_READERS = readers;
	if (signOn) process.env.KEPHALON_SIGN_ON = signOn;
	process.env.KEPHALON_WEB_ADDRESS_HEADER = CLIENT_HEADER;
	if (together) process.env.KEPHALON_TOGETHER = '1';
	if (together?.origins.every((origin) => origin.startsWith('https:'))) process.env.KEPHALON_SECURE = '1';
	const { handler } = (await import(/* @vite-ignore */ handlerFile)) as { handler: RequestListener };
	const delivery = new Delivery(db, true);
	const hosts = together?.origins.map((origin) => new URL(origin).host) ?? [];
	const proxies = together?.proxies ?? [];
	const front = frontOf({ delivery, desk: handler, hosts, proxies, perSecond: together ? USUAL_PER_SECOND : 0 });
	const where = together && { host: together.host, tls: together.tls, proxies };
	const running = await listen(front, { port, what: 'Kephalon', say, ...where });
	return {
		...running,
		async close() {
			await running.close();
			// The web application closes its database and stops its threads; it has parts of its own.
			const ends: Promise<unknown>[] = [];
			process.emit('kephalon:end' as 'exit', ends as never);
			await Promise.allSettled([...ends, stopJobs()]);
			delivery.close();
		}
	};
}

/** How many requests a second an address may send, for what is delivered, where nobody says otherwise. */
export const USUAL_PER_SECOND = 500;

export interface DeliverOptions extends Pick<ListenOptions, 'port' | 'say'> {
	readonly db: string;
	readonly host: string;
	/** Addresses of proxies that say truly whom they speak for. */
	readonly proxies: readonly string[];
	readonly perSecond: number;
}

/** Starts only what is released, reading the database without writing. */
export async function deliver({ db, port, host, proxies, perSecond, say }: DeliverOptions) {
	process.env.KEPHALON_THREAD = threadFile();
	const delivery = new Delivery(db);
	const running = await listen(frontOf({ delivery, proxies, perSecond }), {
		port,
		host,
		proxies,
		what: 'the delivery',
		say
	});
	return {
		...running,
		async close() {
			await running.close();
			await stopJobs();
			delivery.close();
		}
	};
}
