import type { IncomingHttpHeaders } from 'undici/types/header';
import type { lookup } from 'node:dns';
import { CookieJar } from 'tough-cookie';
import { ownOf, parseUrl } from '$core';
import { leadsTo } from './location';
import { Client, isMalformed, type Answered } from './client';
import { guardedLookup, refuseAddress, RefusedName } from './guard';
import { unpack } from './unpack';

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
	/** A redirect that the reader does not follow, to another host, or to what it may not read. */
	| 'other-host'
	| 'shut'
	| 'loop'
	/** Not fetched: the guard refuses the address. */
	| 'refused'
	| 'unknown-name'
	/** Nothing listens there. */
	| 'no-connection'
	/** Its certificate is out of date, of another name, or trusted by nobody. */
	| 'certificate'
	| 'timeout'
	| 'reset'
	/** What came is no HTTP. */
	| 'malformed'
	/** The body was shorter than its server said, or ended in the middle. */
	| 'short'
	/** It says that it is packed and is not. */
	| 'bad-compression'
	/** It is packed in a way that was not asked for. */
	| 'unknown-packing';

/** One fetch, told completely. */
export interface TracedFetch {
	readonly hops: readonly Hop[];
	/** The body as its reader takes it, unpacked; empty where there is none. */
	readonly body: Buffer;
	/** Bytes that came over the wire for the body. */
	readonly received: number;
	/** The body as it came, where it was packed. */
	readonly packed?: Buffer;
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
	/** The kinds of redirects that are followed, by their status; all without it. */
	readonly follows?: readonly number[];
	/** Redirects to other hosts are followed; else the fetch ends there. */
	readonly otherHosts?: boolean;
	/** Cookies are kept from hop to hop. */
	readonly cookies?: boolean;
	/** Asked before a redirect is followed. */
	readonly mayFollow?: (address: string) => Promise<boolean>;
	readonly headers: Readonly<Record<string, string>>;
	/** Without it, GET. */
	readonly method?: 'HEAD';
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

/** Statuses that lead on (RFC 9110, 15.4). */
const REDIRECTS: readonly number[] = [301, 302, 303, 307, 308];

/**
 * Fetches for the server, and nothing but public addresses, hop by hop: redirects, names that resolve to private networks
 * and all the rest are judged by the guard. Never throws for what a server does: every way to fail is an ending.
 */
export class TracingFetcher {
	private readonly client: Client;
	/** For the machine that stands in: whoever named it may reach it. */
	private readonly plain?: Client;

	private readonly via: readonly Via[];

	/** `allowed` are hosts with their port that are fetched all the same; each of `via` stands in for a public address. */
	constructor(
		private readonly allowed: ReadonlySet<string> = new Set(),
		via: Via | readonly Via[] = [],
		resolve?: typeof lookup
	) {
		this.via = [via].flat();
		this.client = new Client({
			connect: { lookup: guardedLookup(resolve), timeout: 10_000 },
			headersTimeout: 30_000,
			bodyTimeout: 30_000,
			maxHeaderSize: 64_000
		});
		if (this.via.length > 0)
			this.plain = new Client({ headersTimeout: 30_000, bodyTimeout: 30_000, maxHeaderSize: 64_000 });
	}

	async close(): Promise<void> {
		await Promise.all([this.client.destroy(), this.plain?.destroy()]);
	}

	async fetch(address: string, limits: TraceLimits): Promise<TracedFetch> {
		const start = performance.now();
		const { signal, method = 'GET' } = limits;
		const until = start + limits.timeout;
		const follows = limits.follows ?? REDIRECTS;
		const hops: Hop[] = [];
		const jar = limits.cookies ? new CookieJar() : undefined;
		const been = new Set<string>();
		const ended = (end: Ending, rest: Partial<TracedFetch> = {}): TracedFetch => ({
			...{ hops, body: Buffer.alloc(0), received: 0, end, took: performance.now() - start },
			...rest
		});
		let next = address;
		for (;;) {
			const refused = this.refuse(next);
			if (refused) return ended('refused', { why: `${next} ${refused}` });
			const began = performance.now() - start;
			const asked = next;
			let answer: Answered;
			const leads: { to?: string | undefined } = {};
			try {
				const { client, at, headers: sent } = this.askedAt(next, limits.headers);
				const cookie = jar ? await jar.getCookieString(next) : '';
				been.add(`${next} ${cookie}`);
				const headers = cookie === '' ? sent : { ...sent, cookie };
				const wants = (status: number, { location }: IncomingHttpHeaders) => {
					leads.to = follows.includes(status) ? this.publicly(said(location), asked) : undefined;
					// What leads on has a body that no reader takes.
					return leads.to === undefined ? limits.maxBytes : 0;
				};
				answer = await client.get(at, { until, signal, headers, method, wants });
			} catch (error) {
				hops.push({ address: next, status: 0, headers: {}, began, took: performance.now() - start - began });
				return ended(...failure(error, limits));
			}
			const headers = flat(answer.headers);
			hops.push({ address: next, status: answer.statusCode, headers, began, took: answer.headAt - start - began });
			if (jar)
				for (const cookie of [answer.headers['set-cookie'] ?? []].flat())
					await jar.setCookie(cookie, next, { ignoreError: true });
			const target = leads.to;
			if (target === undefined) {
				const read = readBody(answer, headers, limits);
				const { end, ...rest } = read instanceof Promise ? await read : read;
				return ended(end, rest);
			}
			if (been.has(`${target} ${(await jar?.getCookieString(target)) ?? ''}`)) return ended('loop', { why: target });
			if (hops.length > limits.redirects) return ended('too-many-redirects', { why: target });
			if (limits.otherHosts === false && parseUrl(target)?.host !== parseUrl(next)?.host)
				return ended('other-host', { why: target });
			if (limits.mayFollow && !(await limits.mayFollow(target))) return ended('shut', { why: target });
			next = target;
		}
	}

	private refuse(address: string): string | undefined {
		return this.standInFor(address) ? undefined : refuseAddress(address, this.allowed);
	}
	private standInFor(address: string): Via | undefined {
		// Most addresses are written as they are meant: those need not be read.
		const own = this.via.find(({ origin }) => address.startsWith(`${origin}/`));
		if (own || this.via.length === 0) return own;
		const origin = parseUrl(address)?.origin;
		return this.via.find((one) => one.origin === origin);
	}

	/** Where an address is asked for, and under which name: at the machine that stands in for it, if there is one. */
	private askedAt(address: string, headers: TraceLimits['headers']) {
		const via = this.standInFor(address);
		if (!via) return { client: this.client, at: address, headers };
		const { origin, at } = via;
		const rest = address.startsWith(`${origin}/`) ? address.slice(origin.length) : restOf(address);
		const [protocol = '', host = ''] = origin.split('://');
		return {
			client: this.plain ?? this.client,
			at: at + rest,
			headers: { ...headers, host, 'x-forwarded-host': host, 'x-forwarded-proto': protocol }
		};
	}

	/** Where a redirect leads, as the public sees it. */
	private publicly(location: string | undefined, from: string): string | undefined {
		const target = leadsTo(location, from);
		if (!target) return undefined;
		target.hash = '';
		const via = this.via.find(({ at }) => at === target.origin);
		if (via) return via.origin + target.href.slice(via.at.length);
		// It is asked under the public name over http, and may well name itself so.
		const named = this.via.find(({ origin }) => origin === `https://${target.host}` && target.protocol === 'http:');
		return named ? named.origin + target.href.slice(target.origin.length) : target.href;
	}
}

/** An address without its origin. */
function restOf(address: string): string {
	const { href, origin } = new URL(address);
	return href.slice(origin.length);
}

/** What a field says, also where it is said more than once. */
const said = (value: string | string[] | undefined) => (Array.isArray(value) ? value.join(', ') : value);

const flat = (headers: IncomingHttpHeaders): Record<string, string> =>
	Object.fromEntries(Object.entries(headers).map(([name, value]) => [name, said(value) ?? '']));

function failure(error: unknown, { timeout }: Pick<TraceLimits, 'timeout'>): [Ending, { why?: string }] {
	if (error instanceof RefusedName) return ['refused', { why: error.message }];
	const { name, code, message } = error as NodeJS.ErrnoException;
	if (name === 'TimeoutError' || name === 'AbortError' || /TIMEOUT/.test(code ?? ''))
		return ['timeout', { why: `nothing for ${timeout / 1000} seconds` }];
	if (code === 'ENOTFOUND' || code === 'ENODATA' || code === 'EAI_AGAIN') return ['unknown-name', {}];
	if (code === 'UND_ERR_RES_CONTENT_LENGTH_MISMATCH') return ['short', {}];
	if (code === 'ECONNREFUSED' || code === 'EHOSTUNREACH' || code === 'ENETUNREACH')
		return ['no-connection', { why: code }];
	const certificate = ownOf(CERTIFICATES, code ?? '') ?? (code?.startsWith('ERR_SSL_') ? NO_TLS : undefined);
	if (certificate !== undefined) return ['certificate', { why: certificate }];
	if (error instanceof Error && isMalformed(error)) return ['malformed', { why: reasonOf(error) }];
	return ['reset', { why: code ?? message }];
}

/** What the runtime's parser says of an answer: “Duplicate Content-Length”. */
const reasonOf = (error: Error) => ('reason' in error ? String(error.reason) : error.message);

const NO_TLS = 'its server speaks no TLS that is understood';
const UNTRUSTED = 'nobody who is trusted vouches for it';
/** What is wrong with a certificate, by what the runtime calls it. */
const CERTIFICATES: Readonly<Record<string, string>> = {
	CERT_HAS_EXPIRED: 'it is out of date',
	CERT_NOT_YET_VALID: 'it does not hold yet',
	ERR_TLS_CERT_ALTNAME_INVALID: 'it is of another host',
	CERT_REVOKED: 'it was taken back',
	...{ DEPTH_ZERO_SELF_SIGNED_CERT: UNTRUSTED, SELF_SIGNED_CERT_IN_CHAIN: UNTRUSTED },
	...{ UNABLE_TO_VERIFY_LEAF_SIGNATURE: UNTRUSTED, UNABLE_TO_GET_ISSUER_CERT: UNTRUSTED },
	UNABLE_TO_GET_ISSUER_CERT_LOCALLY: UNTRUSTED,
	EPROTO: NO_TLS
};

type ReadBody = Pick<TracedFetch, 'body' | 'received' | 'packed' | 'end' | 'why'>;

/** A body as its reader takes it; at once where it is not packed. */
function readBody(
	{ body: raw, isCut, failed }: Answered,
	headers: Readonly<Record<string, string>>,
	{ maxBytes, timeout }: TraceLimits
): ReadBody | Promise<ReadBody> {
	const received = raw.length;
	const [end, why] = failed ? endOfBody(failed, { timeout }) : [isCut ? ('cut' as const) : ('whole' as const)];
	const encoding = headers['content-encoding'] ?? '';
	const came = { received, end, ...(why !== undefined && { why }) };
	return encoding === ''
		? { ...came, body: raw.length > maxBytes ? raw.subarray(0, maxBytes) : raw }
		: readPacked(raw, encoding, maxBytes, came);
}

function endOfBody(failed: Error, limits: Pick<TraceLimits, 'timeout'>): [Ending, string?] {
	const [kind, { why }] = failure(failed, limits);
	const end = kind === 'reset' || kind === 'malformed' ? 'short' : kind;
	return why === undefined ? [end] : [end, why];
}

async function readPacked(
	raw: Buffer,
	encoding: string,
	maxBytes: number,
	came: Omit<ReadBody, 'body' | 'packed'>
): Promise<ReadBody> {
	const unpacked = await unpack(raw, encoding, maxBytes, came.end !== 'whole');
	const { received } = came;
	if ('fails' in unpacked) {
		const { fails: end, why } = unpacked;
		return { body: Buffer.alloc(0), received, packed: raw, end, ...(why && { why }) };
	}
	const end = unpacked.hasMore && came.end === 'whole' ? 'cut' : came.end;
	return { ...came, body: unpacked.body, packed: raw, end };
}
