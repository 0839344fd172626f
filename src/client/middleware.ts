import type { IncomingMessage, OutgoingHttpHeaders, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import type { HeadsFrom, Middleware } from '../../bin/middleware.js';
import { joinedTag, partedTags } from '$server/rewriting/conditions';
import type { HeadStream } from '$server/rewriting/headStream';
import { isPageAnswer, OF_BYTES, pathAsked, streamFor } from '$server/rewriting/pageAnswer';
import type { WrittenHead } from '$server/rewriting/writtenHead';
import { RemoteHeads } from './remoteHeads';

/**
 * Released heads in the pages of a Node server: asked for as a request comes, written into the HTML that streams past. While
 * Kephalon is slow or away, pages go out with the last good head, or as they are. What it offers is told in `bin/middleware.d.ts`.
 */

/** For servers of the form `(request, response, next)`. */
export function heads(from: HeadsFrom): Middleware {
	const remote = new RemoteHeads(from);
	return (request, response, next) => {
		const path = pathAsked(request);
		if (path === undefined) return next();
		const asked = remote.of(path);
		const known = remote.known(path);
		// Of a page that has none all holds as its server says it.
		if (!known || known.head) askByItsOwnNames(request, known?.head);
		write(request, response, { asked, known: known?.head, path });
		next();
	};
}

/**
 * The server is asked by its own names of the page, which have no head in them, and for the whole of it. When its head came to
 * stand is not known: that the page has not changed since a moment says nothing.
 */
function askByItsOwnNames({ headers }: IncomingMessage, head: WrittenHead | undefined) {
	const condition = headers['if-none-match'];
	for (const name of ['range', 'if-range', 'if-none-match', 'if-modified-since']) delete headers[name];
	const own = condition === undefined || !head ? undefined : partedTags(condition, head);
	if (own !== undefined) headers['if-none-match'] = own;
}

interface Coming {
	readonly asked: Promise<WrittenHead | undefined>;
	/** The head that is known already. */
	readonly known: WrittenHead | undefined;
	readonly path: string;
}

/** Takes what is written to a response, and writes it on with the head in it once it is known whether there is one. */
function write(request: IncomingMessage, response: ServerResponse, { asked, known, path }: Coming) {
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

	const said = (name: string) => {
		const value = response.getHeader(name);
		return typeof value === 'string' ? value : undefined;
	};
	const isPage = () => {
		const { statusCode: status } = response;
		const answer = { status, type: said('content-type'), disposition: said('content-disposition') };
		return isPageAnswer(answer) && !response.hasHeader('content-encoding');
	};
	const rename = (head: WrittenHead) => {
		const etag = said('etag');
		if (etag !== undefined) response.setHeader('etag', joinedTag(etag, head, false));
	};
	/** Before the first byte: a page waits for its head, all else goes on as it is. */
	const decide = () => {
		if (isDecided) return;
		isDecided = true;
		for (const [name, value] of Object.entries(headers)) if (value !== undefined) response.setHeader(name, value);
		headers = {};
		if (response.statusCode === 304 && known) rename(known);
		if (!isPage()) return;
		waiting = [];
		void asked.then(begin);
	};
	const begin = (head: WrittenHead | undefined) => {
		const parts = waiting!;
		waiting = undefined;
		if (head) {
			for (const name of OF_BYTES) response.removeHeader(name);
			// Its server's moment says nothing of its head.
			response.removeHeader('last-modified');
			rename(head);
			response.setHeader('kephalon-head', 'middleware');
			if (request.method !== 'HEAD') stream = writing(head);
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
	const writing = (head: WrittenHead) => {
		const made = streamFor(head, said('content-type'), path);
		made.on('data', (part: Buffer) => {
			if (!plain.write(part)) made.pause();
		});
		made.on('end', () => plain.end());
		response.on('drain', () => made.resume());
		// Whoever writes waits for the response: that its own buffer has room says nothing of this one.
		made.on('drain', () => response.emit('drain'));
		response.on('close', () => made.destroy());
		return made;
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
		if (hasEnded) return response;
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
		const path = pathAsked({ method: request.method, url: new URL(request.url).pathname });
		const { status, statusText, body } = response;
		const type = response.headers.get('content-type') ?? undefined;
		const disposition = response.headers.get('content-disposition') ?? undefined;
		if (path === undefined || !isPageAnswer({ status, type, disposition }) || response.headers.has('content-encoding'))
			return response;
		const head = await remote.of(path);
		if (!head) return response;
		const headers = new Headers(response.headers);
		for (const name of [...OF_BYTES, 'last-modified']) headers.delete(name);
		const etag = headers.get('etag');
		if (etag !== null) headers.set('etag', joinedTag(etag, head, false));
		headers.set('kephalon-head', 'middleware');
		if (!body) return new Response(null, { status, statusText, headers });
		const written = Readable.fromWeb(body as NodeStream).pipe(streamFor(head, type, path));
		return new Response(Readable.toWeb(written) as ReadableStream, { status, statusText, headers });
	};
}
