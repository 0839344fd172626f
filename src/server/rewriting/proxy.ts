import {
	Agent,
	request as ask,
	type ClientRequest,
	type IncomingHttpHeaders,
	type IncomingMessage,
	type RequestListener,
	type Server,
	type ServerResponse
} from 'node:http';
import { Agent as SecureAgent, request as askSecurely } from 'node:https';
import type { Duplex, Transform } from 'node:stream';
import { pipeline } from 'node:stream';
import { constants, createBrotliCompress, createBrotliDecompress, createGunzip, createGzip } from 'node:zlib';
import { log } from '../log';
import { isSince, joinedTag, laterOf, partedTags } from './conditions';
import { isPageAnswer, OF_BYTES, pathAsked, streamFor } from './pageAnswer';
import type { WrittenHead } from './writtenHead';

/** A server in front of another, that writes heads into the pages that go past; all else goes through as it is. */
export interface ProxyOptions {
	/** The server behind. */
	readonly upstream: URL;
	/** The head of a page by the path of a request, at once or soon; undefined for none. */
	readonly headOf: (path: string) => WrittenHead | undefined | Promise<WrittenHead | undefined>;
	/** How long (milliseconds) the server behind may say nothing. */
	readonly patience?: number;
}

const PATIENCE = 120_000;

/** Fields that are between two servers alone (RFC 9110, 7.6.1); what `Connection` names goes with them. */
const HOP_BY_HOP = new Set(['connection', 'keep-alive', 'proxy-connection', 'transfer-encoding', 'upgrade', 'te']);

/** How many are asked at once: as many as come. */
const agents = { 'http:': new Agent({ keepAlive: true }), 'https:': new SecureAgent({ keepAlive: true }) };

export class Proxy {
	private readonly isSecure: boolean;

	constructor(private readonly options: ProxyOptions) {
		this.isSecure = options.upstream.protocol === 'https:';
	}

	/** Answers requests. */
	readonly listener: RequestListener = (request, response) => this.pass(request, response);

	/** Takes over a server: requests, those that ask before they send, and connections that become something else. */
	serve(server: Server) {
		server.on('upgrade', (request, socket: Duplex, head: Buffer) => this.tunnel(request, socket, head));
		server.on('checkContinue', this.listener);
	}

	private pass(request: IncomingMessage, response: ServerResponse) {
		const head = this.headFor(request);
		const send = (known: WrittenHead | undefined) => this.send(request, response, known, onlyReads(request));
		if (head instanceof Promise) void head.then((known) => response.destroyed || send(known));
		else send(head);
	}

	/** `mayAgain`: what only reads is asked once more where the server behind had closed the connection that was at hand. */
	private send(request: IncomingMessage, response: ServerResponse, head: WrittenHead | undefined, mayAgain: boolean) {
		const asked = this.asking(request, head ? askedFor(request, head) : request.rawHeaders);
		asked.on('response', (answer) => {
			if (head && isPage(answer)) this.rewrite(request, response, answer, head);
			else passOn(response, answer, head && isNotModified(answer) ? renamed(answer, head) : answer.rawHeaders);
		});
		asked.on('information', ({ statusCode, headers }) => {
			if (statusCode === 103 && headers.link)
				response.writeEarlyHints({ ...(headers as Record<string, string>), link: headers.link });
		});
		asked.on('continue', () => response.writeContinue());
		asked.on('error', (error: NodeJS.ErrnoException) => {
			const isStale = asked.reusedSocket && error.code === 'ECONNRESET' && !response.headersSent;
			if (isStale && mayAgain && !response.destroyed) this.send(request, response, head, false);
			else fail(response, error);
		});
		// Whoever goes away is asked for no more.
		response.on('close', () => void (response.writableFinished || asked.destroy()));
		if (onlyReads(request)) asked.end();
		else {
			// Who asks before sending sends nothing until the server behind has heard of it.
			asked.flushHeaders();
			pipeline(request, asked, () => undefined);
		}
	}

	private headFor(request: IncomingMessage) {
		const path = pathAsked(request);
		return path === undefined ? undefined : this.options.headOf(path);
	}

	private asking(
		request: IncomingMessage,
		rawHeaders: readonly string[],
		more: readonly (readonly [name: string, value: string])[] = []
	): ClientRequest {
		const { upstream, patience = PATIENCE } = this.options;
		const client = request.socket.remoteAddress ?? '';
		const headers = between(rawHeaders, request.headers.connection, [
			['x-forwarded-for', [request.headers['x-forwarded-for'], client].filter(Boolean).join(', ')],
			...('x-forwarded-proto' in request.headers ? [] : [['x-forwarded-proto', 'http'] as const]),
			...('x-forwarded-host' in request.headers ? [] : [['x-forwarded-host', request.headers.host ?? ''] as const]),
			...(request.headers['transfer-encoding'] === undefined ? [] : [['transfer-encoding', 'chunked'] as const]),
			...more
		]);
		return (this.isSecure ? askSecurely : ask)({
			...{ protocol: upstream.protocol, hostname: upstream.hostname, port: upstream.port },
			...{ method: request.method, path: request.url, headers, agent: agents[upstream.protocol as 'http:'] },
			...{ timeout: patience, setDefaultHeaders: false }
		}).on('timeout', function (this: ClientRequest) {
			this.destroy(Object.assign(new Error('It says nothing.'), { code: 'ETIMEDOUT' }));
		});
	}

	/** A page, with its head written into it. */
	private rewrite(request: IncomingMessage, response: ServerResponse, answer: IncomingMessage, head: WrittenHead) {
		const packing = (answer.headers['content-encoding'] ?? '').trim().toLowerCase();
		const [undo, again] = packings(packing);
		const headers = between(renamed(answer, head, packing !== ''), answer.headers.connection).filter(
			(_, at, all) => !OF_BYTES.has(all[at - (at % 2)]!.toLowerCase())
		);
		headers.push('kephalon-head', 'front');
		response.writeHead(answer.statusCode!, answer.statusMessage, headers as never);
		if (request.method === 'HEAD') {
			answer.resume();
			return void response.end();
		}
		const stream = streamFor(head, answer.headers['content-type'], pathAsked(request) ?? '');
		const steps: (IncomingMessage | Transform | ServerResponse)[] = [answer, ...undo, stream, ...again, response];
		pipeline(steps as never, (error) => {
			if (error && !response.writableFinished) response.destroy();
		});
	}

	/** What becomes another protocol goes through as bytes. */
	private tunnel(request: IncomingMessage, socket: Duplex, head: Buffer) {
		const asked = this.asking(request, request.rawHeaders, [
			['connection', 'Upgrade'],
			['upgrade', request.headers.upgrade ?? '']
		]);
		const end = () => void socket.destroy();
		socket.on('error', () => asked.destroy());
		asked.on('error', end);
		asked.on('upgrade', (answer, other, rest) => {
			socket.write(startOf(answer));
			if (rest.length > 0) socket.write(rest);
			if (head.length > 0) other.write(head);
			pipeline(socket, other, () => undefined);
			pipeline(other, socket, () => undefined);
		});
		asked.on('response', (answer) => {
			socket.write(startOf(answer));
			pipeline(answer, socket, () => undefined);
		});
		asked.end();
	}
}

/** It reads, and sends nothing: asked twice it is the same. */
const onlyReads = ({ method, headers }: IncomingMessage) =>
	(method === 'GET' || method === 'HEAD') &&
	headers['transfer-encoding'] === undefined &&
	(headers['content-length'] ?? '0') === '0';

/** A page that a head goes into, in a packing that can be undone. */
const isPage = ({ statusCode = 0, headers }: IncomingMessage) =>
	isPageAnswer({ status: statusCode, type: headers['content-type'], disposition: headers['content-disposition'] }) &&
	/^(?:identity|gzip|x-gzip|br)?$/i.test((headers['content-encoding'] ?? '').trim());

const isNotModified = ({ statusCode }: IncomingMessage) => statusCode === 304;

/** Undoes a packing, and does it again: as fast as it goes, for one that waits. */
function packings(packing: string): readonly [readonly Transform[], readonly Transform[]] {
	if (packing === 'gzip' || packing === 'x-gzip')
		return [[createGunzip()], [createGzip({ level: 4, flush: constants.Z_SYNC_FLUSH })]];
	if (packing === 'br')
		return [
			[createBrotliDecompress()],
			[
				createBrotliCompress({
					flush: constants.BROTLI_OPERATION_FLUSH,
					params: { [constants.BROTLI_PARAM_QUALITY]: 4 }
				})
			]
		];
	return [[], []];
}

/** What is asked of the server behind for a page that gets a head: whole, packed in ways that are known, by its own names. */
function askedFor({ rawHeaders, headers }: IncomingMessage, head: WrittenHead): string[] {
	const since = headers['if-modified-since'];
	const isAsked = (name: string) => {
		switch (name) {
			case 'range':
			case 'if-range':
			case 'accept-encoding':
			case 'if-none-match':
				return false;
			case 'if-modified-since':
				return since !== undefined && isSince(since, head);
			default:
				return true;
		}
	};
	const asked = rawHeaders.filter((_, at) => isAsked(rawHeaders[at - (at % 2)]!.toLowerCase()));
	const condition = headers['if-none-match'];
	const names = condition === undefined ? undefined : partedTags(condition, head);
	// One that has another head than the one that stands has not this page, whatever its moment says.
	if (condition !== undefined && names === undefined)
		return [...withoutField(asked, 'if-modified-since'), 'accept-encoding', known(headers)];
	return [...asked, ...(names === undefined ? [] : ['if-none-match', names]), 'accept-encoding', known(headers)];
}

const withoutField = (raw: readonly string[], name: string) =>
	raw.filter((_, at) => raw[at - (at % 2)]!.toLowerCase() !== name);

/** Of the packings that are taken, those that can be undone. */
function known({ 'accept-encoding': accepted = '' }: IncomingHttpHeaders): string {
	const all = accepted
		.toString()
		.split(',')
		.map((one) => one.trim())
		.filter((one) => /^(?:gzip|x-gzip|br|identity)\s*(?:;|$)/i.test(one));
	return all.length > 0 ? all.join(', ') : 'identity';
}

/** The fields of an answer, with the names of the page and when it changed as they are with the head in it. */
function renamed({ rawHeaders }: IncomingMessage, head: WrittenHead, isPackedAnew = false): string[] {
	return rawHeaders.map((value, at) => {
		if (at % 2 === 0) return value;
		const name = rawHeaders[at - 1]!.toLowerCase();
		if (name === 'etag') return joinedTag(value, head, isPackedAnew);
		return name === 'last-modified' ? laterOf(value, head) : value;
	});
}

/** Fields as they go on, without those that are between two servers alone. */
function between(
	raw: readonly string[],
	connection: string | undefined,
	more: readonly (readonly [name: string, value: string])[] = []
): string[] {
	const own = new Set((connection ?? '').split(',').map((one) => one.trim().toLowerCase()));
	const put = new Set(more.map(([name]) => name));
	const out: string[] = [];
	for (let at = 0; at < raw.length; at += 2) {
		const name = raw[at]!.toLowerCase();
		if (!HOP_BY_HOP.has(name) && !own.has(name) && !put.has(name)) out.push(raw[at]!, raw[at + 1]!);
	}
	for (const [name, value] of more) out.push(name, value);
	return out;
}

/** An answer as it is, with what comes behind its body. */
function passOn(response: ServerResponse, answer: IncomingMessage, raw: readonly string[]) {
	response.writeHead(answer.statusCode!, answer.statusMessage, between(raw, answer.headers.connection) as never);
	answer.on('end', () => {
		if (answer.rawTrailers.length > 0) response.addTrailers(pairsOf(answer.rawTrailers));
	});
	pipeline(answer, response, (error) => {
		if (error && !response.writableFinished) response.destroy();
	});
}

const pairsOf = (raw: readonly string[]): [string, string][] =>
	raw.flatMap((name, at) => (at % 2 === 0 ? [[name, raw[at + 1]!] as [string, string]] : []));

const startOf = ({ httpVersion, statusCode, statusMessage, rawHeaders }: IncomingMessage) =>
	`HTTP/${httpVersion} ${statusCode} ${statusMessage}\r\n${pairsOf(rawHeaders)
		.map(([name, value]) => `${name}: ${value}\r\n`)
		.join('')}\r\n`;

/** The server behind does not answer. */
function fail(response: ServerResponse, error: NodeJS.ErrnoException) {
	if (response.headersSent) return void response.destroy();
	if (response.destroyed) return;
	log.warn({ code: error.code }, 'The server behind does not answer');
	const isLate = error.code === 'ETIMEDOUT';
	const text = isLate ? 'The server behind did not answer in time.\n' : 'The server behind does not answer.\n';
	response
		.writeHead(isLate ? 504 : 502, {
			'content-type': 'text/plain; charset=utf-8',
			'content-length': Buffer.byteLength(text)
		})
		.end(text);
}
