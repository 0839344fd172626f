import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { log } from '../log';
import type { Delivery } from './delivery';
import { isHere, Meter } from './meter';
import { deny } from './refuse';

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

export interface FrontOptions {
	readonly delivery: Delivery;
	/** How many requests a second an address may send, for what is delivered; 0 for any. */
	readonly perSecond?: number;
	/** What all other requests go to; without it there is nothing else. */
	readonly desk?: RequestListener;
	/** Under which names the desk is reached beside this machine's own: hosts with their ports. */
	readonly hosts?: readonly string[];
	/** Addresses of proxies that say truly whom they speak for. */
	readonly proxies?: readonly string[];
}

/**
 * The first to see a request: refuses what must not come through, answers what is released by itself, and hands all else
 * to the desk. A server with a desk answers under its own names only: a page of the open web that gives itself our address
 * (DNS rebinding) is refused.
 */
export function frontOf({
	delivery,
	desk,
	hosts: names = [],
	proxies = [],
	perSecond = 0
}: FrontOptions): RequestListener {
	const meter = new Meter(perSecond);
	return (request, response) => {
		if (log.isLevelEnabled('debug')) logWhenDone(request, response);
		const hosts = countOf(request.rawHeaders, 'host');
		if (hosts !== 1) return deny(response, 'hosts-many');
		if (desk && !isOurs(request.headers.host ?? '', names))
			return deny(response, 'host-foreign', { host: request.headers.host ?? '' });
		if (request.url === '/health') return say(response, 200, 'ok');
		if (request.url === '/ready')
			return delivery.isReady() ? say(response, 200, 'ready') : say(response, 503, 'not ready');
		if (perSecond > 0) {
			const client = clientOf(request, proxies);
			const isTaken = meter.takes(client);
			if (!isHere(client)) tellLimit(response, perSecond, meter.left(client));
			if (!isTaken) {
				response.setHeader('retry-after', '1');
				return deny(response, 'too-many-requests');
			}
		}
		if (answered(delivery, request, response)) return;
		if (desk) {
			for (const [name, value] of HARDENED) response.setHeader(name, value);
			if (isOfPanelsWindow(request.url ?? '')) response.setHeader('cross-origin-opener-policy', 'unsafe-none');
			if (process.env.KEPHALON_SECURE) response.setHeader('strict-transport-security', 'max-age=31536000');
			request.headers[CLIENT_HEADER] = clientOf(request, proxies);
			return desk(request, response);
		}
		return deny(response, 'address-missing');
	};
}

/** How many requests are left of how many (RateLimit fields of the HTTPAPI working group). */
function tellLimit(response: ServerResponse, perSecond: number, { requests, seconds }: ReturnType<Meter['left']>) {
	response.setHeader('ratelimit-policy', `"address";q=${perSecond};w=1`);
	response.setHeader('ratelimit', `"address";r=${requests};t=${seconds}`);
}

const isOurs = (host: string, names: readonly string[]) =>
	names.length > 0 ? names.includes(host.toLowerCase()) || LOCAL.test(host) : LOCAL.test(host);

/** What every answer of the desk says to browsers; what it may load is said by the application. */
const HARDENED = [
	['x-content-type-options', 'nosniff'],
	['cross-origin-opener-policy', 'same-origin'],
	['referrer-policy', 'same-origin'],
	['permissions-policy', 'camera=(), geolocation=(), microphone=(), payment=(), usb=()']
] as const;

/** A window that a panel opened hands what lets it in to whoever opened it, which a policy of its own would cut off, also on its way through signing in. */
const isOfPanelsWindow = (address: string) =>
	address.startsWith('/panel/') || /^\/sign-in\?to=(?:\/|%2F)panel(?:\/|%2F)/i.test(address);

/** Tells the desk where a request came from; whatever stood there before is not believed. */
export const CLIENT_HEADER = 'x-kephalon-client';

/** The address that a request came from: of one that a known proxy passed on, the last that no known proxy had. */
function clientOf({ socket, headers }: IncomingMessage, proxies: readonly string[]): string {
	const direct = plainAddress(socket.remoteAddress ?? '');
	if (!proxies.includes(direct)) return direct;
	const forwarded = [headers['x-forwarded-for'] ?? []].flat().join(',');
	const said = forwardedIn(headers.forwarded) ?? forwarded.split(',').map((one) => one.trim());
	return (
		said
			.reverse()
			.map(plainAddress)
			.find((one) => one !== '' && !proxies.includes(one)) ?? direct
	);
}

/** The addresses of a `Forwarded` field (RFC 7239), in its order; undefined without one. */
function forwardedIn(field: string | undefined): string[] | undefined {
	if (field === undefined) return undefined;
	return field.split(',').map((hop) => {
		const said = hop.split(';').find((pair) => pair.trim().toLowerCase().startsWith('for=')) ?? '';
		return said
			.slice(said.indexOf('=') + 1)
			.trim()
			.replace(/^"|"$/g, '');
	});
}

/** An address without port and brackets; one of version 4 in version 6 as what it is. */
export function plainAddress(text: string): string {
	const inner = text.startsWith('[')
		? text.slice(1).split(']', 1)[0]!
		: text.split(':').length === 2
			? text.split(':', 1)[0]!
			: text;
	return inner.replace(/^::ffff:(?=\d+\.)/i, '').slice(0, 64);
}

/** What cannot be read at the moment, of the database or a file, is told: a request never hangs. */
function answered(delivery: Delivery, request: IncomingMessage, response: ServerResponse): boolean {
	try {
		return delivery.answer(request, response);
	} catch (error) {
		log.error(error);
		if (response.headersSent) response.destroy();
		else deny(response, 'released-unreadable');
		return true;
	}
}

/** How often a header stands in a request. */
function countOf(rawHeaders: readonly string[], name: string): number {
	let count = 0;
	for (let at = 0; at < rawHeaders.length; at += 2)
		if (rawHeaders[at]!.length === name.length && rawHeaders[at]!.toLowerCase() === name) count++;
	return count;
}

function say(response: ServerResponse, status: number, text: string) {
	response.writeHead(status, { 'content-type': 'text/plain', 'cache-control': 'no-store' }).end(`${text}\n`);
}

/** One line for each request: what was asked, without its query, and how long it took. */
function logWhenDone(request: IncomingMessage, response: ServerResponse) {
	const began = performance.now();
	response.on('finish', () =>
		log.debug({
			method: request.method,
			path: (request.url ?? '').split('?', 1)[0],
			status: response.statusCode,
			ms: Math.round((performance.now() - began) * 10) / 10
		})
	);
}
