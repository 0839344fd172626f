import { headOfJson, type HeadJson } from '$core';
import type { HeadsFrom } from '../../bin/middleware.js';
import { kephalon } from './client';
import { WrittenHead } from '$server/rewriting/writtenHead';

/** How many heads are kept. */
const MOST_KEPT = 2000;
/** A server that takes longer than this (milliseconds) is given up. */
const GIVEN_UP = 10_000;

interface Kept {
	readonly head: WrittenHead | undefined;
	readonly etag: string | undefined;
	/** When it was asked for last. */
	at: number;
}

/** Released heads over HTTP: kept by their tags, asked for again when they are old, the last good one while nobody answers. */
export class RemoteHeads {
	private readonly kept = new Map<string, Kept>();
	private readonly asking = new Map<string, Promise<void>>();
	private readonly client: ReturnType<typeof kephalon>;
	private readonly patience: number;
	private readonly fresh: number;

	constructor(private readonly from: HeadsFrom) {
		const { server, key } = from;
		this.client = kephalon({ server, ...(key !== undefined && { key }), fetch: (request) => fetch(request) });
		this.patience = from.patience ?? 50;
		this.fresh = from.fresh ?? 1000;
	}

	/** The head of a page, as soon as it is there; undefined for none. Never throws, and takes no longer than the patience. */
	async of(path: string): Promise<WrittenHead | undefined> {
		const known = this.kept.get(path);
		if (known && Date.now() - known.at < this.fresh) return known.head;
		const asked = this.ask(path, known);
		// One that is old is better than waiting, where there is one.
		if (!known) await Promise.race([asked, waiting(this.patience)]);
		return this.kept.get(path)?.head;
	}

	/** What is known of a page now, without waiting: its head, or that it has none; undefined where neither is. */
	known(path: string): { readonly head: WrittenHead | undefined } | undefined {
		return this.kept.get(path);
	}

	private ask(path: string, known: Kept | undefined): Promise<void> {
		const under = this.asking.get(path);
		if (under) return under;
		const asked = this.fetch(path, known).catch(() => {
			// It is away: what is known stays, and is not asked for at once again.
			if (known) known.at = Date.now();
		});
		const done = asked.finally(() => this.asking.delete(path));
		this.asking.set(path, done);
		return done;
	}

	private async fetch(path: string, known: Kept | undefined) {
		const { data, response: answer } = await this.client.GET('/sites/{site}/head', {
			params: { path: { site: this.from.site }, query: { path, format: 'json' } },
			...(known?.etag !== undefined && { headers: { 'if-none-match': known.etag } }),
			redirect: 'manual',
			signal: AbortSignal.timeout(GIVEN_UP)
		});
		if (answer.status === 304 && known) return void (known.at = Date.now());
		if (answer.status === 200) {
			const json = data as unknown as HeadJson;
			headOfJson(json);
			const etag = answer.headers.get('etag') ?? undefined;
			return this.keep(path, new WrittenHead(json, tagOf(etag), 0), etag);
		}
		// That it has none is an answer; all else is none.
		if (answer.status === 404 || answer.status === 308) this.keep(path, undefined, undefined);
		else throw new Error(`Heads are answered with ${answer.status}.`);
	}

	private keep(path: string, head: WrittenHead | undefined, etag: string | undefined) {
		if (this.kept.size >= MOST_KEPT) this.kept.clear();
		this.kept.set(path, { head, etag, at: Date.now() });
	}
}

const tagOf = (etag: string | undefined) => (etag ?? '').replace(/[^\w-]/g, '').slice(0, 12);
const waiting = (ms: number) => new Promise<void>((done) => setTimeout(done, ms).unref());
