import type { lookup } from 'node:dns';
import { UserError, refuse } from '../errors';
import { Client } from './client';
import { guardedLookup, refuseAddress, RefusedName } from './guard';
import { leadsTo } from './location';

export interface FetchLimits {
	/** The most bytes of a body that are read; a longer one is refused. */
	readonly maxBytes: number;
	/** For the whole fetch, redirects included, in milliseconds. */
	readonly timeout: number;
	readonly redirects: number;
}

export interface Fetched {
	/** Where the last redirect led. */
	readonly address: string;
	/** What the server says it is, in lower case and without parameters; '' when it says nothing. */
	readonly type: string;
	readonly body: Buffer;
}

export const PICTURE_LIMITS: FetchLimits = { maxBytes: 20_000_000, timeout: 15_000, redirects: 5 };

const AGENT_NAME = 'kephalon (reads pictures of a site it looks after)';

/**
 * Fetches addresses for the server, and nothing but public ones: http and https, never this machine or a private
 * network, also not by a redirect or by a name that resolves to one. Size, time and redirects are limited.
 */
export class GuardedFetcher {
	private readonly client: Client;

	/** `allowed` are IP addresses with their port that are fetched all the same: the demo's own website. */
	constructor(
		private readonly allowed: ReadonlySet<string> = new Set(),
		resolve?: typeof lookup
	) {
		this.client = new Client({
			connect: { lookup: guardedLookup(resolve), timeout: 10_000 },
			headersTimeout: 15_000,
			bodyTimeout: 15_000
		});
	}

	/** A `UserError` says what was refused or failed, and why. */
	async fetch(address: string, limits: FetchLimits): Promise<Fetched> {
		const until = performance.now() + limits.timeout;
		let next = address;
		for (let hop = 0; hop <= limits.redirects; hop++) {
			const why = refuseAddress(next, this.allowed);
			if (why) throw refuse('fetch-forbidden', { address: next, why, from: hop ? address : undefined });
			const answer = await this.get(next, limits, until);
			if ('body' in answer) return answer;
			next = answer.leadsTo;
		}
		throw refuse('fetch-redirects', { address, most: limits.redirects });
	}

	close(): Promise<void> {
		return this.client.close();
	}

	private async get(
		address: string,
		limits: FetchLimits,
		until: number
	): Promise<Fetched | { readonly leadsTo: string }> {
		try {
			const { statusCode, headers, body, failed } = await this.client.get(address, {
				until,
				headers: { 'user-agent': AGENT_NAME, accept: '*/*' },
				// One more than is taken tells that there is more.
				wants: (status) => (status === 200 ? limits.maxBytes + 1 : 0)
			});
			const target = leadsTo(one(headers.location), address);
			if (statusCode >= 300 && statusCode < 400 && target) return { leadsTo: target.href };
			if (statusCode !== 200) throw refuse('fetch-status', { address, answer: statusCode });
			if (failed) throw failed;
			if (body.length > limits.maxBytes) throw refuse('fetch-too-large', { address, most: megabytes(limits.maxBytes) });
			return { address, type: mediaType(one(headers['content-type'])), body };
		} catch (error) {
			throw explain(address, limits, error);
		}
	}
}

const one = (header: string | string[] | undefined) => (Array.isArray(header) ? header[0] : header);
const mediaType = (header = '') => (header.split(';')[0] as string).trim().toLowerCase();

const megabytes = (bytes: number) => `${Math.round(bytes / 100_000) / 10} MB`;

function explain(address: string, { timeout }: FetchLimits, error: unknown): UserError {
	if (error instanceof UserError) return error;
	if (error instanceof RefusedName) return refuse('fetch-name-forbidden', { address, why: error.message });
	const { name, code, message } = error as NodeJS.ErrnoException;
	if (name === 'TimeoutError' || /TIMEOUT/.test(code ?? ''))
		return refuse('fetch-slow', { address, seconds: timeout / 1000 });
	if (code === 'ENOTFOUND' || code === 'ENODATA' || code === 'EAI_AGAIN')
		return refuse('fetch-no-host', { host: new URL(address).hostname });
	return refuse('fetch-failed', { address, why: code ?? message });
}
