import type { ServerResponse } from 'node:http';
import { hash as digest } from 'node:crypto';
import type { ContentType, Fields } from '$core';
import type { LiveHeadMaker } from '../heads/liveHeads';
import { log } from '../log';
import type { LiveRecords } from '../sources/liveRecords';
import { nameOfSource, sourceOf } from '../sources/sources';
import { answerKept, headersOf, packed, type Format, type Kept, type KnownSite, type Wanted } from './keptAnswer';
import { deny, empty } from './refuse';

type Ready = ReturnType<LiveHeadMaker['ready']>;

/** A page whose record a source has, by the rules as they are. */
interface Place {
	readonly ready: Ready;
	readonly type: ContentType;
	readonly path: string;
	readonly address: string;
}

/** A record is asked for anew in so many seconds, where its source is away. */
const AGAIN = 5;

/** Heads of pages that stand nowhere, whose records a source of live data has: at the same address as all others. */
export class SourceLane {
	/** Types with a source, of the rules in force. */
	private readonly withSource = new WeakMap<Ready['types'], readonly ContentType[]>();
	/** Answers made of a record, by how they are wanted, as long as the record and the rules are the same. */
	private readonly made = new WeakMap<Fields, { readonly types: Ready['types']; readonly by: Map<string, Kept> }>();

	constructor(
		private readonly ready: (site: string, as: Format) => Ready | undefined,
		private readonly records: LiveRecords
	) {}

	/** The page at a path, or at an address, where a source has it. */
	placeOf(site: string, path: string | null, address: string | null, as: Format): Place | undefined {
		const ready = this.ready(site, as);
		if (!ready) return undefined;
		let types = this.withSource.get(ready.types);
		if (!types) {
			types = [...ready.types.values()].filter(({ source }) => source !== undefined);
			this.withSource.set(ready.types, types);
		}
		if (types.length === 0) return undefined;
		const at = path ?? pathIn(address ?? '', ready.base);
		const found = at === undefined ? undefined : sourceOf(types, at);
		return found && { ready, path: found.path, type: found.type, address: found.address };
	}

	/** Answers with the head of the page, once its record is known. */
	answer(
		place: Place,
		asking: {
			readonly site: KnownSite;
			readonly format: Format;
			readonly asked: Wanted;
			readonly isEmptyElse: boolean;
		},
		response: ServerResponse
	) {
		this.send(place, asking, response).catch((error: unknown) => {
			log.error(error);
			if (!response.headersSent) deny(response, 'failed');
		});
	}

	private async send(
		{ ready, type, path, address }: Place,
		{ site, format, asked, isEmptyElse }: Parameters<SourceLane['answer']>[1],
		response: ServerResponse
	) {
		const known = await this.records.get({
			...{ source: nameOfSource(site.id, type.name), address, mapping: type.mapping }
		});
		if (known.is === 'away') {
			if (isEmptyElse) return empty(response, 'source-away');
			response.setHeader('retry-after', String(AGAIN));
			return deny(response, 'source-away', { page: path, why: known.why });
		}
		if (known.is === 'gone') {
			if (isEmptyElse) return empty(response, 'page-not-released');
			return deny(response, 'page-not-released', { release: site.number ?? '', page: path });
		}
		const { fields, isLate } = known;
		let made = this.made.get(fields);
		if (made?.types !== ready.types) this.made.set(fields, (made = { types: ready.types, by: new Map() }));
		const how = `${format} ${asked.coding} ${isLate} ${path}`;
		let kept = made.by.get(how);
		if (!kept) {
			const { html, json, refused } = ready.headOf({ path, type: type.name, fields });
			// What is no path of a page has no head.
			if (refused !== undefined) return deny(response, 'page-not-released', { release: site.number ?? '', page: path });
			const text = html ?? JSON.stringify(json);
			const headers = headersOf(digest('sha256', text, 'base64url').slice(0, 27), format, asked.coding, site);
			kept = packed(text, asked.coding, { ...headers, ...(isLate && { 'kephalon-record': 'late' }) });
			made.by.set(how, kept);
		}
		answerKept(kept, asked.known, response);
	}
}

/** The path of an address of the site, as it stands in it. */
function pathIn(address: string, base: string): string | undefined {
	const root = base.replace(/\/$/, '');
	if (!address.startsWith(`${root}/`)) return undefined;
	return address.slice(root.length).split(/[?#]/, 1)[0];
}
