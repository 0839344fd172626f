import {
	describeFinding,
	describeMend,
	findOnPage,
	headToJson,
	renderHead,
	Resolver,
	type ContentType,
	type Fields,
	type HeadJson,
	type Page,
	type Site
} from '$core';
import { refuse, UserError } from '../errors';
import type { Store } from '../store/store';
import { pagesOf } from './heads';
import { fieldsOfRecord, type RecordMapping } from './records';
import { saidOf } from '../speaking';

/** A page that stands nowhere: what is known of it, for a head by the rules of its type. */
export interface LivePage {
	/** @maxLength 2000 */
	readonly path: string;
	/** Its content type; without it, `page`. @maxLength 200 */
	readonly type?: string;
	/** @maxLength 40 */
	readonly language?: string;
	/** When its content last changed (RFC 3339). @maxLength 40 */
	readonly modified?: string;
	readonly fields?: Fields;
	/** A record as it comes from where it is kept, instead of fields: those are read out of it by the mapping. */
	readonly record?: unknown;
	/** Goes before the mapping of the type: each field by a JSON Pointer (RFC 6901) or a JSONPath (RFC 9535). */
	readonly mapping?: RecordMapping;
}

/** How heads come. */
export interface HeadForm {
	/** As which a head comes; without it, `html`. */
	readonly as?: 'html' | 'json';
	/** What is weak in each is told, too. */
	readonly findings?: boolean;
	/** By which rules: those of the latest release, or of the working copy. Without it, those released. */
	readonly rules?: 'released' | 'working';
}

/** The head of one. */
interface LiveHead {
	readonly path: string;
	readonly html?: string;
	readonly json?: HeadJson;
	readonly findings?: readonly LiveFinding[];
	/** Why there is none. */
	readonly refused?: string;
	readonly code?: string;
}
interface LiveFinding {
	readonly code: string;
	readonly tag?: string;
	readonly weight: number;
	readonly says: string;
	readonly mend: string;
}

/** Heads, and the rules that they were made by. */
export interface LiveHeads {
	/** The release whose rules they are; missing for those of the working copy. */
	readonly release?: number;
	readonly heads: readonly LiveHead[];
}

interface Ruled {
	readonly key: string;
	state: number | undefined;
	/** Templates may say what holds of the day: by then the clock is read anew (milliseconds since 1970). */
	readonly until: number;
	readonly release?: number;
	readonly resolver: Resolver;
	readonly types: ReadonlyMap<string, ContentType>;
	readonly base: string;
}

/** Makes heads of pages that are not kept. Of a site's rules the latest are made ready once. */
export class LiveHeadMaker {
	private readonly known = new Map<string, Ruled>();

	constructor(private readonly store: Store) {}

	/**
	 * What makes the head of a page, by the rules as they are at the moment. Throws a `UserError` where a site has no rules released;
	 * what is wrong with one page is told at that page.
	 */
	ready(
		name: string,
		{ as = 'html', findings = false, rules = 'released' }: HeadForm,
		/** As long as it is the same, nothing was written: then nothing is looked up. */
		state?: number
	): {
		readonly release?: number;
		/** The same object as long as the same rules are in force. */
		readonly types: ReadonlyMap<string, ContentType>;
		/** The site's public address. */
		readonly base: string;
		readonly headOf: (page: LivePage) => LiveHead;
	} {
		const ruled = this.rulesOf(name, rules, state);
		const { release, types, base } = ruled;
		return {
			...(release !== undefined && { release }),
			types,
			base,
			headOf: (page) => headOf(ruled, page, as, findings)
		};
	}

	/** The heads of several. */
	make(name: string, pages: readonly LivePage[], form: HeadForm): LiveHeads {
		const { headOf: make, release } = this.ready(name, form);
		return { ...(release !== undefined && { release }), heads: pages.map(make) };
	}

	private rulesOf(name: string, wanted: 'released' | 'working', state: number | undefined): Ruled {
		const now = Date.now();
		const kept = this.known.get(`${name} ${wanted}`);
		const last = kept && now < kept.until ? kept : undefined;
		if (last && state !== undefined && last.state === state) return last;
		const { id, revision } = this.store.working.sites.summary(name);
		const latest = this.store.releases.rulesInForce(id);
		if (wanted === 'released' && !latest) throw refuse('rules-not-released', { site: name });
		const key = wanted === 'released' ? `${latest!.number} ${latest!.hash} ${revision}` : `working ${revision}`;
		if (last?.key === key) {
			last.state = state;
			return last;
		}
		const model: { readonly site: Site; readonly types: readonly ContentType[] } =
			wanted === 'released' ? this.store.releases.ruleSet(latest!.hash) : this.store.working.sites.named(name);
		const moment = new Date(now).toISOString();
		const { site, types } = model;
		const pictures = new Map<string, ReturnType<Store['pictures']['one']>>();
		const one = (src: string) => {
			if (!pictures.has(src)) {
				if (pictures.size >= MOST_PICTURES) pictures.clear();
				pictures.set(src, this.store.pictures.one(id, src));
			}
			return pictures.get(src);
		};
		const resolver = new Resolver(
			{ site, types, pictures: one, others: pagesOf(this.store, id) },
			latest?.created ?? moment,
			moment
		);
		const made = {
			...{
				key,
				state,
				until: now + CLOCK,
				resolver,
				base: site.base,
				types: new Map(types.map((type) => [type.name, type]))
			},
			...(wanted === 'released' && { release: latest!.number })
		};
		this.known.set(`${name} ${wanted}`, made);
		return made;
	}
}
/** The clock is read anew after so long (milliseconds). */
const CLOCK = 60_000;
/** What is known of so many pictures is kept beside rules. */
const MOST_PICTURES = 10_000;

function headOf({ resolver, types }: Ruled, live: LivePage, as: 'html' | 'json', withFindings: boolean): LiveHead {
	const { path } = live;
	try {
		const page = pageOf(live, types);
		const evaluation = resolver.evaluate(page);
		const head = resolver.headOf(evaluation);
		return {
			path,
			...(as === 'html' ? { html: renderHead(head) } : { json: headToJson(head, { leftOut: evaluation.leftOut() }) }),
			...(withFindings && {
				findings: findOnPage(page, head, evaluation).map((one) => ({
					...{ code: one.code, weight: one.weight, says: describeFinding(one), mend: describeMend(one) },
					...(one.tag !== undefined && { tag: one.tag })
				}))
			})
		};
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
		return { path, refused: saidOf(error), code: error.code };
	}
}

function pageOf(live: LivePage, types: ReadonlyMap<string, ContentType>): Page {
	const { path, type = 'page', language, modified, fields, record, mapping } = live;
	if (!/^\/[^\s?#]*$/.test(path)) throw refuse('path-broken', { path });
	const known = types.get(type);
	if (!known) throw refuse('type-missing', { contentType: type });
	const by = mapping ?? known.mapping;
	if (record !== undefined && !by) throw refuse('mapping-missing', { contentType: type });
	const read = record === undefined ? {} : fieldsOfRecord(by!, record);
	return {
		...{ path, type, state: 'live', rules: [], fields: { ...read, ...fields } },
		...(language !== undefined && { language }),
		...(modified !== undefined && { modified })
	};
}
