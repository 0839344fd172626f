import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { log } from '../log';
import type { Delivery } from './delivery';
import { deny } from './refuse';

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

export interface FrontOptions {
	readonly delivery: Delivery;
	/** What all other requests go to; without it there is nothing else. */
	readonly desk?: RequestListener;
}

/**
 * The first to see a request: refuses what must not come through, answers what is released by itself, and hands all else
 * to the desk. Until there are accounts, a server with a desk answers this machine only, under its own names: a page of
 * the open web that gives itself our address (DNS rebinding) is refused.
 */
export function frontOf({ delivery, desk }: FrontOptions): RequestListener {
	return (request, response) => {
		if (log.isLevelEnabled('debug')) logWhenDone(request, response);
		const hosts = countOf(request.rawHeaders, 'host');
		if (hosts !== 1) return deny(response, 'hosts-many');
		if (desk && !LOCAL.test(request.headers.host ?? ''))
			return deny(response, 'host-foreign', { host: request.headers.host ?? '' });
		if (request.url === '/health') return say(response, 200, 'ok');
		if (request.url === '/ready')
			return delivery.isReady() ? say(response, 200, 'ready') : say(response, 503, 'not ready');
		if (answered(delivery, request, response)) return;
		if (desk) {
			response.setHeader('x-content-type-options', 'nosniff');
			return desk(request, response);
		}
		return deny(response, 'address-missing');
	};
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
