import type { IncomingHttpHeaders } from 'undici/types/header';
import type { Dispatcher } from 'undici';
import type { lookup } from 'node:dns';
import { brotliDecompressSync, constants, gunzipSync, inflateSync } from 'node:zlib';
import { parseUrl } from '$core';
import { Client } from './client';
import { guardedLookup, refuseAddress, RefusedName } from './guard';

/** One answer on the way to a page. */
export interface Hop {
	readonly address: string;
	/** 0 where there was no answer. */
	readonly status: number;
	readonly headers: Readonly<Record<string, string>>;
	/** Milliseconds from the beginning of the fetch until it was asked, and from there until its headers came. */
	readonly began: number;
	readonly took: number;
}

/** How a fetch ended. */
type Ending =
	/** All of the body was read. */
	| 'whole'
	/** The reader had read as much as it reads. */
	| 'cut'
	| 'too-many-redirects'
	/** A redirect that the reader does not follow, to another host. */
	| 'other-host'
	| 'loop'
	| 'refused'
	| 'unknown-name'
	| 'timeout'
	| 'reset'
	/** The body was shorter than its server said, or ended in the middle. */
	| 'short'
	/** It says that it is compressed and is not, or grows beyond all measure. */
	| 'bad-compression';

/** One fetch, told completely. */
export interface TracedFetch {
	readonly hops: readonly Hop[];
	/** The body as its reader takes it, unpacked; empty where there is none. */
	readonly body: Buffer;
	/** Bytes that came over the wire for the body. */
	readonly received: number;
	readonly end: Ending;
	/** More on it, in words. */
	readonly why?: string;
	/** Milliseconds for all of it. */
	readonly took: number;
}

export interface TraceLimits {
	/** Bytes of the unpacked body that are read. */
	readonly maxBytes: number;
	/** Milliseconds for the whole fetch. */
	readonly timeout: number;
	readonly redirects: number;
	/** Redirects to other hosts are followed; else the fetch ends there. */
	readonly otherHosts?: boolean;
	readonly headers: Readonly<Record<string, string>>;
	/** Ends the fetch from outside. */
	readonly signal?: AbortSignal;
}

/** A machine at hand that a site is fetched from, as if it stood at its public address. */
export interface Via {
	/** The public origin, such as `https://site.example`. */
	readonly origin: string;
	/** Where it is asked for instead. */
	readonly at: string;
}

/** Unpacked, a body may be so many times what the reader reads, before it is taken for an attack. */
const UNPACKED = 4;

/**
 * Fetches for the server, and nothing but public addresses, hop by hop: redirects, names that resolve to private networks
 * and all the rest are judged by the guard. Never throws for what a server does: every way to fail is an ending.
 */
export class TracingFetcher {
	private readonly client: Client;
	/** For the machine that stands in: whoever named it may reach it. */
	private readonly plain: Client | undefined;

	/** `allowed` are hosts with their port that are fetched all the same; `via` stands in for a public address. */
	constructor(
		private readonly allowed: ReadonlySet<string> = new Set(),
		private readonly via?: Via,
		resolve?: typeof lookup
	) {
		this.client = new Client({
			connect: { lookup: guardedLookup(resolve), timeout: 10_000 },
			headersTimeout: 30_000,
			bodyTimeout: 30_000,
			maxHeaderSize: 64_000
		});
		this.plain = via && new Client({ headersTimeout: 30_000, bodyTimeout: 30_000, maxHeaderSize: 64_000 });
	}

	async close(): Promise<void> {
		await Promise.all([this.client.destroy(), this.plain?.destroy()]);
	}

	async fetch(address: string, limits: TraceLimits): Promise<TracedFetch> {
		const start = performance.now();
		const timeout = AbortSignal.timeout(limits.timeout);
		const signal = limits.signal ? AbortSignal.any([timeout, limits.signal]) : timeout;
		const hops: Hop[] = [];
		const ended = (end: Ending, rest: Partial<TracedFetch> = {}): TracedFetch => ({
			...{ hops, body: Buffer.alloc(0), received: 0, end, took: performance.now() - start },
			...rest
		});
		let next = address;
		for (;;) {
			const refused = this.refuse(next);
			if (refused) return ended('refused', { why: `${next} ${refused}` });
			const began = performance.now() - start;
			let answer: Dispatcher.ResponseData;
			try {
				const client = (this.isStoodInFor(next) && this.plain) || this.client;
				answer = await client.get(this.askedAt(next), { signal, headers: this.headersFor(next, limits) });
			} catch (error) {
				hops.push({ address: next, status: 0, headers: {}, began, took: performance.now() - start - began });
				return ended(...failure(error, limits));
			}
			const headers = flat(answer.headers);
			hops.push({ address: next, status: answer.statusCode, headers, began, took: performance.now() - start - began });
			const target =
				answer.statusCode >= 300 && answer.statusCode < 400 ? this.publicly(headers.location, next) : undefined;
			if (!target) {
				const read = await readBody(answer.body, headers, limits);
				return ended(read.end, read);
			}
			// A body here is nothing that a reader would take.
			answer.body.on('error', () => undefined).destroy();
			if (hops.some((hop) => hop.address === target)) return ended('loop', { why: target });
			if (hops.length > limits.redirects) return ended('too-many-redirects', { why: target });
			if (limits.otherHosts === false && parseUrl(target)?.host !== parseUrl(next)?.host)
				return ended('other-host', { why: target });
			next = target;
		}
	}

	private refuse(address: string): string | undefined {
		return this.isStoodInFor(address) ? undefined : refuseAddress(address, this.allowed);
	}
	private isStoodInFor(address: string): boolean {
		return this.via !== undefined && parseUrl(address)?.origin === this.via.origin;
	}

	/** Where an address is asked for: at the machine that stands in for it, if there is one. */
	private askedAt(address: string): string {
		return this.via && this.isStoodInFor(address) ? this.via.at + address.slice(this.via.origin.length) : address;
	}
	private headersFor(address: string, { headers }: TraceLimits): Record<string, string> {
		const url = this.isStoodInFor(address) ? parseUrl(address) : undefined;
		return { ...headers, ...(url && { 'x-forwarded-host': url.host, 'x-forwarded-proto': url.protocol.slice(0, -1) }) };
	}

	/** Where a redirect leads, as the public sees it. */
	private publicly(location: string | undefined, from: string): string | undefined {
		const target = location === undefined ? undefined : parseUrl(location, from);
		if (!target) return undefined;
		target.hash = '';
		return this.via && target.origin === this.via.at
			? this.via.origin + target.href.slice(this.via.at.length)
			: target.href;
	}
}

const flat = (headers: IncomingHttpHeaders): Record<string, string> =>
	Object.fromEntries(
		Object.entries(headers).map(([name, value]) => [name, Array.isArray(value) ? value.join(', ') : (value ?? '')])
	);

function failure(error: unknown, { timeout }: TraceLimits): [Ending, { why?: string }] {
	if (error instanceof RefusedName) return ['refused', { why: error.message }];
	const { name, code, message } = error as NodeJS.ErrnoException;
	if (name === 'TimeoutError' || name === 'AbortError' || /TIMEOUT/.test(code ?? ''))
		return ['timeout', { why: `nothing for ${timeout / 1000} seconds` }];
	if (code === 'ENOTFOUND' || code === 'ENODATA' || code === 'EAI_AGAIN') return ['unknown-name', {}];
	if (code === 'UND_ERR_RES_CONTENT_LENGTH_MISMATCH') return ['short', {}];
	return ['reset', { why: code ?? message }];
}

interface ReadBody {
	readonly body: Buffer;
	readonly received: number;
	readonly end: Ending;
	readonly why?: string;
}

async function readBody(
	body: Dispatcher.ResponseData['body'],
	headers: Readonly<Record<string, string>>,
	limits: TraceLimits
): Promise<ReadBody> {
	const chunks: Buffer[] = [];
	let received = 0;
	let end: Ending = 'whole';
	let why: string | undefined;
	try {
		// Leaving the loop ends the connection: a body without end is not waited for.
		for await (const chunk of body as AsyncIterable<Buffer>) {
			chunks.push(chunk);
			received += chunk.length;
			if (received >= limits.maxBytes) {
				end = 'cut';
				break;
			}
		}
	} catch (error) {
		const [kind, more] = failure(error, limits);
		end = kind === 'reset' ? 'short' : kind;
		why = more.why;
	}
	const raw = Buffer.concat(chunks);
	const unpacked = unpack(raw, headers['content-encoding'] ?? '', limits.maxBytes, end !== 'whole');
	if (!unpacked) return { body: Buffer.alloc(0), received, end: 'bad-compression' };
	if (unpacked.length > limits.maxBytes && end === 'whole') end = 'cut';
	return { body: unpacked.subarray(0, limits.maxBytes), received, end, ...(why !== undefined && { why }) };
}

/** A body without its packing, at most a few times the limit; undefined when it cannot be unpacked. */
function unpack(raw: Buffer, encoding: string, maxBytes: number, isPart: boolean): Buffer | undefined {
	const options = {
		maxOutputLength: maxBytes * UNPACKED,
		...(isPart && { finishFlush: constants.Z_SYNC_FLUSH })
	};
	try {
		switch (encoding.trim().toLowerCase()) {
			case 'gzip':
			case 'x-gzip':
				return gunzipSync(raw, options);
			case 'deflate':
				return inflateSync(raw, options);
			case 'br':
				return brotliDecompressSync(raw, {
					maxOutputLength: maxBytes * UNPACKED,
					...(isPart && { finishFlush: constants.BROTLI_OPERATION_FLUSH })
				});
			default:
				return raw;
		}
	} catch {
		return undefined;
	}
}
