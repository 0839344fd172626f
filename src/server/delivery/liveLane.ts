import type { IncomingMessage, ServerResponse } from 'node:http';
import { setImmediate } from 'node:timers/promises';
import { decoded } from '../files/folder';
import { refuse, UserError } from '../errors';
import { LiveHeadMaker, type HeadForm, type LiveHeads, type LivePage } from '../heads/liveHeads';
import { recordIn } from '../http/body';
import { readPart } from '../http/forms';
import { refusalOfOrigin } from '../http/origin';
import { log } from '../log';
import { writeCounter } from '../store/opening/counter';
import type { Store } from '../store/store';
import { deny, denyAs, SAFE } from './refuse';

const HEADS = /^\/api(?:\/v1)?\/sites\/([^/?]+)\/heads(?:\?|$)/;
/** What is known of so many names is kept. */
const MOST_SITES = 1000;
/** A request is no longer than this (bytes). */
const LONGEST = 2 * 1024 * 1024;
/** What every answer says, in turn. */
const FIELDS = Object.entries({ ...SAFE, 'content-type': 'application/json', 'cache-control': 'no-store' }).flat();
/** So long (milliseconds) heads are made before others are answered. */
const TURN = 8;

/**
 * Heads of pages that stand nowhere, asked for while somebody waits for the page: answered before the web framework sees the
 * request, by rules that are made ready once.
 */
export class LiveLane {
	private readonly maker: LiveHeadMaker;
	private readonly written: () => number;
	/** Sites that whoever comes with nothing may have heads made for, for as long as the counter stands. */
	private readonly open = new Map<string, boolean>();
	private last: number | undefined;

	constructor(
		store: Store,
		private readonly door: {
			/** Whether whoever sent a request may have heads made for a site. */
			readonly mayMake: (site: string, came: IncomingMessage['headers']) => boolean;
			/** It stands beside the desk, which tells those who may not why. */
			readonly isDesk: boolean;
		}
	) {
		this.maker = new LiveHeadMaker(store);
		this.written = writeCounter(store.db);
	}

	/** Answers a request if it is one of those; says whether it was. */
	answer(request: IncomingMessage, response: ServerResponse): boolean {
		const name = HEADS.exec(request.url ?? '')?.[1];
		if (name === undefined) return false;
		const site = decoded(name);
		if (!this.mayMake(site, request.headers)) {
			if (this.door.isDesk) return false;
			response.setHeader('www-authenticate', 'Bearer realm="Kephalon"');
			deny(response, 'site-private', { site });
			return true;
		}
		const refusal = refusalOfOrigin('POST', (name) => fieldOf(request.headers, name));
		const parts: Buffer[] = [];
		let size = 0;
		request.on('data', (part: Buffer) => {
			if ((size += part.length) <= LONGEST) parts.push(part);
		});
		request.on('error', () => response.destroy());
		request.on('end', () => {
			const isTooLong = size > LONGEST ? refuse('body-too-large') : undefined;
			const wrong = refusal ?? isTooLong;
			if (wrong) denyAs(response, wrong);
			else void this.send(site, parts, response).catch((error: unknown) => tell(error, response));
		});
		return true;
	}

	/** Makes heads by the rules of a site's release, as they are at the moment; undefined where it has none. */
	ready(site: string, as: 'html' | 'json') {
		try {
			return this.maker.ready(site, { as }, this.counter());
		} catch (error) {
			if (error instanceof UserError) return undefined;
			throw error;
		}
	}

	private mayMake(site: string, came: IncomingMessage['headers']): boolean {
		if (came.cookie !== undefined || came.authorization !== undefined) return this.door.mayMake(site, came);
		this.counter();
		const known = this.open.get(site) ?? this.door.mayMake(site, came);
		if (this.open.size < MOST_SITES) this.open.set(site, known);
		return known;
	}

	private counter(): number {
		const state = this.written();
		if (state !== this.last) this.open.clear();
		return (this.last = state);
	}

	private async send(site: string, parts: readonly Buffer[], response: ServerResponse) {
		const data = recordIn(Buffer.concat(parts).toString());
		const { pages, ...form } = readPart('POST /sites/{site}/heads', 'body', data) as HeadForm & {
			readonly pages: readonly LivePage[];
		};
		if (form.rules === 'working' && !this.door.isDesk) throw refuse('working-not-delivered');
		const { headOf, release } = this.maker.ready(site, form, this.counter());
		const heads: LiveHeads['heads'][number][] = [];
		let until = performance.now() + TURN;
		for (const page of pages) {
			// Others are answered between: some pages take as long as a hundred others.
			if (performance.now() > until) {
				await setImmediate();
				until = performance.now() + TURN;
			}
			heads.push(headOf(page));
		}
		const body = JSON.stringify({ ...(release !== undefined && { release }), heads } satisfies LiveHeads);
		// As a text it goes out with its header in one write.
		response.writeHead(200, [...FIELDS, 'content-length', String(Buffer.byteLength(body))]).end(body);
	}
}

/** What tells whose request it is; asked of each, and so without a search. */
function fieldOf(headers: IncomingMessage['headers'], name: string): string | undefined {
	if (name === 'origin') return headers.origin;
	if (name === 'host') return headers.host;
	return name === 'content-type' ? headers['content-type'] : headers['sec-fetch-site'];
}

function tell(error: unknown, response: ServerResponse) {
	if (error instanceof SyntaxError) return deny(response, 'body-not-json', { why: error.message });
	if (error instanceof UserError) return denyAs(response, error);
	log.error(error);
	deny(response, 'failed');
}
