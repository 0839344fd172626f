import type { IncomingMessage, OutgoingHttpHeaders, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { charsetIn } from '$core';
import { joinedTag, partedTags } from '$server/rewriting/conditions';
import { HeadStream } from '$server/rewriting/headStream';
import type { WrittenHead } from '$server/rewriting/writtenHead';
import { RemoteHeads, type HeadsFrom } from './remoteHeads';

/**
 * Released heads in the pages of a Node server: asked for as a request comes, written into the HTML that streams past. While
 * Kephalon is slow or away, pages go out with the last good head, or as they are.
 */

export type { HeadsFrom } from './remoteHeads';
export type Middleware = (request: IncomingMessage, response: ServerResponse, next: (error?: unknown) => void) => void;

const isHtml = (type: unknown): type is string =>
	typeof type === 'string' && /^\s*(?:text\/html|application\/xhtml\+xml)\b/i.test(type);
const encodingIn = (type: string): string | undefined => {
	const said = charsetIn(type);
	try {
		return said === undefined ? undefined : new TextDecoder(said).encoding;
	} catch {
		return undefined;
	}
};

/** For servers of the form `(request, response, next)`. */
export function heads(from: HeadsFrom): Middleware {
	const remote = new RemoteHeads(from);
	return (request, response, next) => {
		const path = (request.url ?? '').split(/[?#]/, 1)[0]!;
		if (!/^(?:GET|HEAD)$/.test(request.method ?? '') || !path.startsWith('/')) return next();
		const asked = remote.of(path);
		const known = remote.known(path);
		if (known) askByItsOwnNames(request, known);
		write(request, response, asked);
		next();
	};
}

/** The server is asked by its own names of the page, which have no head in them; a part of a page is the whole of it. */
function askByItsOwnNames({ headers }: IncomingMessage, head: WrittenHead) {
	delete headers.range;
	delete headers['if-range'];
	const condition = headers['if-none-match'];
	if (condition === undefined) return;
	const own = partedTags(condition, head);
	if (own !== undefined) headers['if-none-match'] = own;
	else {
		delete headers['if-none-match'];
		delete headers['if-modified-since'];
	}
}

/** Takes what is written to a response, and writes it on with the head in it once it is known whether there is one. */
function write(request: IncomingMessage, response: ServerResponse, asked: Promise<WrittenHead | undefined>) {
	const own = response.writeHead as (this: ServerResponse, status: number) => unknown;
	const plain = {
		writeHead: (status: number) => own.call(response, status) as ServerResponse,
		write: response.write.bind(response) as (part: Buffer) => boolean,
		end: response.end.bind(response) as () => ServerResponse
	};
	/** What was written until it is known. */
	let waiting: Buffer[] | undefined;
	let stream: HeadStream | undefined;
	let isDecided = false;
	let hasEnded = false;
	let headers: OutgoingHttpHeaders = {};

	const isPage = () =>
		response.statusCode === 200 &&
		isHtml(response.getHeader('content-type')) &&
		!response.hasHeader('content-encoding');
	/** Before the first byte: a page waits for its head, all else goes on as it is. */
	const decide = () => {
		if (isDecided) return;
		isDecided = true;
		for (const [name, value] of Object.entries(headers)) if (value !== undefined) response.setHeader(name, value);
		headers = {};
		if (!isPage()) return;
		waiting = [];
		void asked.then(begin);
	};
	const begin = (head: WrittenHead | undefined) => {
		const parts = waiting!;
		waiting = undefined;
		if (head) {
			for (const name of ['content-length', 'content-md5', 'digest', 'accept-ranges']) response.removeHeader(name);
			const etag = response.getHeader('etag');
			if (typeof etag === 'string') response.setHeader('etag', joinedTag(etag, head, false));
			if (request.method !== 'HEAD') {
				stream = new HeadStream(head, encodingIn(String(response.getHeader('content-type'))), request.url ?? '');
				stream.on('data', (part: Buffer) => {
					if (!plain.write(part)) stream!.pause();
				});
				response.on('drain', () => stream!.resume());
				stream.on('end', () => plain.end());
			}
		}
		plain.writeHead(response.statusCode);
		for (const part of parts) {
			if (stream) stream.write(part);
			else plain.write(part);
		}
		if (!hasEnded) response.emit('drain');
		else if (stream) stream.end();
		else plain.end();
	};
	const bytesOf = (part: unknown, coding: unknown): Buffer | undefined =>
		part === undefined || part === null || typeof part === 'function'
			? undefined
			: typeof part === 'string'
				? Buffer.from(part, typeof coding === 'string' ? (coding as BufferEncoding) : 'utf8')
				: Buffer.from(part as Uint8Array);
	const called = (...all: unknown[]) => all.find((one) => typeof one === 'function') as (() => void) | undefined;

	response.writeHead = (status: number, ...rest: unknown[]) => {
		response.statusCode = status;
		if (typeof rest[0] === 'string') response.statusMessage = rest.shift() as string;
		const given = rest[0];
		if (Array.isArray(given)) {
			const flat = given.flat() as string[];
			for (let at = 0; at < flat.length; at += 2) headers[flat[at]!] = flat[at + 1]!;
		} else if (given) headers = { ...headers, ...(given as OutgoingHttpHeaders) };
		decide();
		if (!waiting && !stream) plain.writeHead(status);
		return response;
	};
	response.write = ((part: unknown, coding?: unknown, done?: unknown) => {
		decide();
		const bytes = bytesOf(part, coding);
		called(coding, done)?.();
		if (waiting) return bytes ? (waiting.push(bytes), waiting.length < 16) : true;
		return bytes ? (stream ? stream.write(bytes) : plain.write(bytes)) : true;
	}) as typeof response.write;
	response.end = ((part?: unknown, coding?: unknown, done?: unknown) => {
		decide();
		const bytes = bytesOf(part, coding);
		const finished = called(part, coding, done);
		if (finished) response.once('finish', finished);
		hasEnded = true;
		if (waiting) {
			if (bytes) waiting.push(bytes);
		} else if (stream) stream.end(bytes);
		else {
			if (
				bytes &&
				!response.headersSent &&
				!response.hasHeader('content-length') &&
				!response.hasHeader('transfer-encoding')
			)
				response.setHeader('content-length', bytes.length);
			if (bytes) plain.write(bytes);
			plain.end();
		}
		return response;
	}) as typeof response.end;
}

/** For servers of web standards: the answer to a request, with its head in it. */
export function headsOf(from: HeadsFrom): (request: Request, response: Response) => Promise<Response> {
	const remote = new RemoteHeads(from);
	return async (request, response) => {
		const type = response.headers.get('content-type');
		if (!/^(?:GET|HEAD)$/.test(request.method) || response.status !== 200 || !isHtml(type)) return response;
		if (response.headers.has('content-encoding')) return response;
		const { pathname } = new URL(request.url);
		const head = await remote.of(pathname);
		if (!head) return response;
		const headers = new Headers(response.headers);
		for (const name of ['content-length', 'content-md5', 'digest', 'accept-ranges']) headers.delete(name);
		const etag = headers.get('etag');
		if (etag !== null) headers.set('etag', joinedTag(etag, head, false));
		const { status, statusText, body } = response;
		if (!body) return new Response(null, { status, statusText, headers });
		const written = Readable.fromWeb(body as NodeStream).pipe(new HeadStream(head, encodingIn(type), pathname));
		return new Response(Readable.toWeb(written) as ReadableStream, { status, statusText, headers });
	};
}
