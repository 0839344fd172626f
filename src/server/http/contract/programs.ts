import type { ContentType, DataSource, HeadJson, Page, Site, Trace } from '$core';
import type { HeadForm, LiveHeads, LivePage } from '../../heads/liveHeads';
import type { Pushed, PushedPage } from '../../imports/push';
import type { PushTold } from '../../progress';
import type { TriedRecord } from '../../web/records';
import type { Kept, WorkTold } from './shared';

/** Where a program's pages come from, by a name of its own: of two that send one page, each is told of the other. */
interface Sender {
	/** @minLength 1 @maxLength 80 @pattern \S */
	readonly source?: string;
}

/** What became of one page. */
interface Put extends Omit<PushTold, 'line' | 'path' | 'refused' | 'code'>, Kept {
	readonly path: string;
}

/** A source of live data that is away. */
interface AwaySince {
	/** The content type whose source it is. */
	readonly type: string;
	/** RFC 3339. */
	readonly since: string;
	readonly why: string;
}

/** A site in a list. */
interface SiteListed {
	readonly name: string;
	readonly base: string;
}

/** What programs ask for beside the rooms: descriptions, content that is pushed, heads of pages that stand nowhere. */
export interface ProgramRoutes {
	/** The description of all routes (OpenAPI 3.1). */
	'GET /openapi.json': { media: 'application/json' };
	/** The sites that one may look at. */
	'GET /sites': { answer: readonly SiteListed[] };
	/** A site with its settings, rules and types. */
	'GET /sites/{site}': {
		answer: { readonly site: Site; readonly types: readonly ContentType[]; readonly revision: number };
	};
	/** What each tag of a page came to, and every candidate that was looked at on the way. */
	'GET /sites/{site}/trace': {
		query: { readonly path: string };
		answer: { readonly head: HeadJson; readonly traces: readonly Trace[] };
	};
	/**
	 * Heads of pages that stand nowhere, such as those of a database that is asked when somebody comes: made by the rules as they
	 * are released. Nothing is kept.
	 */
	'POST /sites/{site}/heads': {
		body: HeadForm & {
			/** @minItems 1 @maxItems 100 */
			readonly pages: readonly LivePage[];
		};
		answer: LiveHeads;
	};
	/** One's own long works that go on by themselves, asked for with `Prefer: respond-async`, the newest first. */
	'GET /sites/{site}/works': { answer: readonly Omit<WorkTold, 'result'>[] };
	/** One, with what it came to once it has ended; on its way where that is accepted. */
	'GET /sites/{site}/works/one': { query: { readonly id: string }; lines: true; answer: WorkTold };
	/** Stops one: what it had begun is taken back. */
	'DELETE /sites/{site}/works/one': { query: { readonly id: string }; answer: WorkTold };
	/** Sources of live data that are away: since when, and why. What was known of their records goes out. */
	'GET /sites/{site}/sources': { answer: readonly AwaySince[] };
	/**
	 * The record of a page that a source of live data has, and what each field of the type comes to in it. Another source or mapping is
	 * tried by who may build. Nothing is kept.
	 */
	'POST /sites/{site}/records': {
		body: {
			readonly type: string;
			/** @maxLength 2000 */
			readonly path: string;
			readonly source?: DataSource;
			readonly mapping?: Readonly<Record<string, string>>;
		};
		answer: TriedRecord;
	};
	/** A page of the working copy, with a strong ETag; its path stands behind `pages` as its address has it. */
	'GET /sites/{site}/pages/{path}': { answer: Page };
	/**
	 * Makes a page, or brings it to what its source has: fields that it sent before and sends no more go, those that somebody wrote
	 * here stay. With `If-Match`, only as it was read; with `If-None-Match: *`, only where there is none.
	 */
	'PUT /sites/{site}/pages/{path}': { query: Sender; body: Omit<PushedPage, 'path' | 'gone'>; answer: Put };
	/** Changes what is named of a page and nothing else (RFC 7396); a field that is null goes. With `If-Match`, only as it was read. */
	'PATCH /sites/{site}/pages/{path}': { query: Sender; body: Omit<PushedPage, 'path' | 'gone'>; answer: Put };
	/** Takes a page away; what leads to it leads to `to` from then on. With `If-Match`, only as it was read. */
	'DELETE /sites/{site}/pages/{path}': { query: { readonly to?: string }; answer: Kept };
	/**
	 * Puts pages in, one a line of JSON (`path`, `type`, `fields`; `gone` takes one away), as one edit. In lines it tells what became
	 * of each. Sent again it changes nothing. Going away stops it, and nothing is changed.
	 */
	'POST /sites/{site}/pushes': { query: Sender; takes: 'lines'; lines: true; answer: Pushed };
}
