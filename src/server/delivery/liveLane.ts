import type { IncomingMessage, ServerResponse } from 'node:http';
import { parseUrl } from '$core';
import { decoded } from '../files/folder';
import { refuse, UserError } from '../errors';
import { LiveHeadMaker, type HeadForm, type LivePage } from '../heads/liveHeads';
import { readPart } from '../http/forms';
import { log } from '../log';
import { writeCounter } from '../store/opening/counter';
import type { Store } from '../store/store';
import { deny, denyAs, SAFE } from './refuse';

const HEADS = /^\/api(?:\/v1)?\/sites\/([^/?]+)\/heads(?:\?|$)/;
/** What is known of so many names is kept. */
const MOST_SITES = 1000;
/** A request is no longer than this (bytes). */
const LONGEST = 8 * 1024 * 1024;

/**
 * Heads of pages that stand nowhere, asked for while somebody waits for the page: answered before the web framework sees the
 * request, by rules that are made ready once.
 */
export class LiveLane {
	private readonly maker: LiveHeadMaker;
	private readonly written: () => number;
	/** Sites that whoever comes with nothing may have heads made for, for as long as the counter stands. */
	private open = new Map<string, boolean>();

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
		const parts: Buffer[] = [];
		let size = 0;
		request.on('data', (part: Buffer) => {
			if ((size += part.length) <= LONGEST) parts.push(part);
		});
		request.on('error', () => response.destroy());
		request.on('end', () => {
			try {
				refuseElsewhere(request);
				if (size > LONGEST) throw refuse('body-too-large');
				this.send(site, parts, response);
			} catch (error) {
				tell(error, response);
			}
		});
		return true;
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
	private last: number | undefined;

	private send(site: string, parts: readonly Buffer[], response: ServerResponse) {
		const text = (parts.length === 1 ? parts[0]! : Buffer.concat(parts)).toString();
		if (text.trim() === '') throw refuse('body-missing');
		const data: unknown = JSON.parse(text);
		if (typeof data !== 'object' || data === null || Array.isArray(data))
			throw refuse('body-no-record', {
				what: Array.isArray(data) ? 'a list' : data === null ? 'null' : `a ${typeof data}`
			});
		const { pages, ...form } = readPart('POST /sites/{site}/heads', 'body', data) as HeadForm & {
			readonly pages: readonly LivePage[];
		};
		const body = Buffer.from(JSON.stringify(this.maker.make(site, pages, form, this.counter())));
		response
			.writeHead(200, {
				...SAFE,
				'content-type': 'application/json',
				'cache-control': 'no-store',
				'content-length': body.length
			})
			.end(body);
	}
}

/** A page of the open web asks nothing here with somebody's session, as everywhere at the desk. */
function refuseElsewhere({ headers }: IncomingMessage) {
	const { origin, host, 'sec-fetch-site': from = 'none' } = headers;
	if (!['same-origin', 'none'].includes(String(from))) throw refuse('other-origin');
	if (origin !== undefined && parseUrl(origin)?.host !== host) throw refuse('other-origin');
	if (!/^application\/json\b/.test(headers['content-type'] ?? '')) throw refuse('body-of-other-kind');
}

function tell(error: unknown, response: ServerResponse) {
	if (error instanceof SyntaxError) return deny(response, 'body-not-json', { why: error.message });
	if (error instanceof UserError) return denyAs(response, error);
	log.error(error);
	deny(response, 'failed');
}
