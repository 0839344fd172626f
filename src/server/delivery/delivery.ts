import { createReadStream, statSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { mayDo, parseUrl } from '$core';
import { log } from '../log';
import { credentialsIn, whoCame, whoIs } from '../people/who';
import { Library } from '../pictures/library';
import { manifestOf } from '../pictures/manifest';
import { writeCounter } from '../store/opening/counter';
import { prepared, row, type Prepared } from '../store/opening/database';
import { Store } from '../store/store';
import { namesTag } from '../http/etags';
import { runJob } from '../jobs/run';
import { formsOf, spellingsOf } from '../files/pagePaths';
import {
	answerKept,
	headersOf,
	notModified,
	packed,
	wantedBy,
	type Came,
	type Coding,
	type Format,
	type Kept,
	type KnownSite,
	type Wanted
} from './keptAnswer';
import { LiveLane } from './liveLane';
import { liveRecords } from '../sources/sources';
import { SourceLane } from './sourceLane';
import { deny, empty, SAFE } from './refuse';

const SQL = {
	isReady: `PRAGMA data_version`,
	site: row<KnownSite>(
		`SELECT s.id, (SELECT max(number) FROM release WHERE site_id = s.id) AS number,
			coalesce(json_extract(s.settings, '$.private'), 0) AS isPrivate FROM site s WHERE s.name = ?`
	),
	anyPrivate: `SELECT EXISTS (SELECT 1 FROM site WHERE json_extract(settings, '$.private'))`,
	byPath: `SELECT head AS hash FROM released WHERE site_id = ? AND path = ? AND until IS NULL`,
	byAddress: `SELECT head AS hash FROM released WHERE site_id = ? AND address = ? AND until IS NULL`,
	html: `SELECT html AS body FROM head WHERE hash = ?`,
	json: `SELECT json AS body FROM head WHERE hash = ?`
} as const;

const MEDIA_TYPES: ReadonlyMap<string, string> = new Map([
	['jpg', 'image/jpeg'],
	['png', 'image/png'],
	['webp', 'image/webp']
]);

/** Answers kept made, by what was asked; dropped all together at this many bytes. */
const MOST_KEPT = 64_000_000;
/** An address longer than this is not remembered. */
const LONGEST_KEY = 1000;

/** Where what is released may be asked for. */
const RELEASED = /^\/api(?:\/v1)?\/sites\//;

/**
 * Serves what is released, and pictures, straight from the database, which it never writes to: heads by path and by
 * address, conditional requests, redirects, media, web manifests.
 */
export class Delivery {
	private readonly store: Store;
	private readonly library: Library;
	/** Heads of pages that stand nowhere. */
	private readonly live: LiveLane;
	/** Those whose records a source has. */
	private readonly sources: SourceLane;
	private readonly run: Prepared<typeof SQL>;
	private readonly sites = new Map<string, KnownSite>();
	/** Answers by format and coding, then by the request's address; all of the newest releases. */
	private readonly kept = { html: keptByCoding(), json: keptByCoding() };
	private readonly written: () => number;
	private version: number | undefined;
	/** Whether any site is private: without one, nothing is asked of anybody. */
	private hasPrivate = false;
	/** Where the use of keys is noted, opened when one is used. */
	private notes: Store | undefined;
	private bytes = 0;

	constructor(
		file: string,
		/** Whether it stands beside the desk: those who work there are known, and shown what nothing released names. */
		private readonly isDesk = false
	) {
		this.store = new Store(file, { readonly: true });
		this.library = new Library(this.store);
		this.live = new LiveLane(this.store, {
			mayMake: (site, came) => this.mayRead(site, came) || (!isDesk && !this.store.people.exist()),
			isDesk
		});
		this.sources = new SourceLane(
			(site, as) => this.live.ready(site, as),
			liveRecords(
				(task) => runJob('record', task),
				() => this.noting()
			)
		);
		this.run = prepared(this.store.db, SQL);
		this.run('isReady').pluck();
		this.written = writeCounter(this.store.db);
		this.run('anyPrivate').pluck();
	}

	close() {
		this.notes?.close();
		this.store.close();
	}

	/** Whether the database answers. */
	isReady(): boolean {
		try {
			return this.run('isReady').get() !== undefined;
		} catch {
			return false;
		}
	}

	/** Answers the request if it is one of those; says whether it was. */
	answer(request: IncomingMessage, response: ServerResponse): boolean {
		const url = request.url ?? '';
		if (request.method === 'POST') return this.live.answer(request, response);
		if (request.method !== 'GET' && request.method !== 'HEAD') return false;
		const isMedia = url.startsWith('/media/');
		if (!isMedia && !RELEASED.test(url)) return false;
		this.noticeReleases();
		if (isMedia) return this.media(url.slice(7), request, response);
		const wanted = wantedBy(request);
		const kept = keptOf(this.kept, wanted).get(url);
		if (kept) {
			answerKept(kept, wanted.known, response);
			return true;
		}
		return this.find(url, wanted, response);
	}

	private find(url: string, wanted: Wanted, response: ServerResponse): boolean {
		const match = /^\/api(?:\/v1)?\/sites\/([^/?]+)\/(?:head(\/[^?]*)?|(manifest))(?:\?|$)/.exec(url);
		if (!match) return false;
		try {
			const name = decodeURIComponent(match[1] as string);
			if (match[3]) this.manifest(name, wanted.came, response);
			else this.head(name, { url, within: match[2] }, wanted, response);
		} catch (error) {
			if (error instanceof URIError) deny(response, 'address-broken');
			else {
				log.error(error);
				deny(response, 'failed');
			}
		}
		return true;
	}

	/**
	 * Forgets what a release has replaced. Another connection's commit is noticed by the database's own counter, which is
	 * asked once for all requests that came in together.
	 */
	private noticeReleases() {
		const version = this.written();
		if (version === this.version) return;
		this.version = version;
		this.hasPrivate = this.run('anyPrivate').get() === 1;
		for (const [name, site] of this.sites) {
			const now = this.readSite(name);
			if (now?.id === site.id && now.number === site.number && now.isPrivate === site.isPrivate) continue;
			this.sites.delete(name);
			this.forget();
		}
	}

	private forget() {
		for (const kept of [this.kept.html, this.kept.json]) for (const answers of Object.values(kept)) answers.clear();
		this.bytes = 0;
	}

	private readSite(name: string): KnownSite | undefined {
		return this.run('site').get(name);
	}

	private site(name: string): KnownSite | undefined {
		const known = this.sites.get(name);
		if (known) return known;
		const site = this.readSite(name);
		if (site) this.sites.set(name, site);
		return site;
	}

	/** `within`: the path of a page as it stands in the address of its head, written as in the request for the page. */
	private head(
		name: string,
		{ url, within }: { readonly url: string; readonly within: string | undefined },
		asked: Wanted,
		response: ServerResponse
	) {
		const { coding, isJson, known } = asked;
		const query = new URLSearchParams(url.includes('?') ? url.slice(url.indexOf('?') + 1) : '');
		const [path, address] = [within ?? query.get('path'), query.get('address')];
		if ((path === null) === (address === null) || (within !== undefined && query.has('path')))
			return deny(response, 'head-of-what');
		const isEmptyElse = query.get('or') === 'empty';
		const site = this.site(name);
		if (!site)
			return isEmptyElse ? empty(response, 'site-not-there') : deny(response, 'site-not-there', { site: name });
		if (site.isPrivate && !this.mayRead(name, asked.came))
			return isEmptyElse ? empty(response, 'site-private') : denyPrivate(response, name);
		if (site.number === null)
			return isEmptyElse ? empty(response, 'site-not-released') : deny(response, 'site-not-released', { site: name });
		const wanted = query.get('format');
		const format: Format = wanted === 'json' || (wanted === null && isJson) ? 'json' : 'html';
		const row = this.rowOf(site.id, path, address);
		if (!row) {
			const moved = this.movedTo(site, path);
			const of = moved === undefined ? this.sources.placeOf(name, path, address, format) : undefined;
			if (of) return this.sources.answer(of, { site, format, asked, isEmptyElse }, response);
			if (isEmptyElse) return empty(response, 'page-not-released');
			return this.elsewhere(site, { url, query, path, address, moved }, response);
		}
		const headers = headersOf(row.hash, format, coding, site);
		// What is not changed is told before its body is read.
		if (known !== undefined && namesTag(known, headers.etag)) return notModified(response, headers);
		const kept = this.make(row.hash, format, coding, headers);
		if (!site.isPrivate) this.keep(url, asked, kept);
		answerKept(kept, known, response);
	}

	/** The head of a page, by its path or its address: a folder and the page that opens it are one. */
	private rowOf(site: number, path: string | null, address: string | null): { hash: string } | undefined {
		const by = this.run(path !== null ? 'byPath' : 'byAddress');
		const spellings = path === null ? [withoutFragment(address as string)] : spellingsOf(path);
		for (const spelling of spellings)
			for (const form of formsOf(spelling)) {
				const row = by.get(site, form) as { hash: string } | undefined;
				if (row) return row;
			}
		return undefined;
	}

	/** Where a page has moved to. */
	private movedTo({ id }: KnownSite, path: string | null): string | undefined {
		let moved: string | undefined;
		for (const spelling of path === null ? [] : spellingsOf(path))
			moved ??= this.store.working.redirects.of(id, spelling);
		return moved;
	}

	/** A page that has moved leads on; any other is not there. */
	private elsewhere(
		site: KnownSite,
		{
			url,
			query,
			path,
			address,
			moved
		}: {
			url: string;
			query: URLSearchParams;
			path: string | null;
			address: string | null;
			moved: string | undefined;
		},
		response: ServerResponse
	) {
		if (moved === undefined)
			return deny(response, 'page-not-released', {
				release: site.number ?? '',
				page: path ?? address ?? ''
			});
		query.set('path', moved);
		const location = `${/^\/api(?:\/v1)?\/sites\/[^/]+\/head/.exec(url)![0]}?${query}`;
		response.writeHead(308, { ...SAFE, location, 'kephalon-moved-to': encodeURI(moved), 'content-length': 0 }).end();
	}

	private make(hash: string, format: Format, coding: Coding, headers: ReturnType<typeof headersOf>): Kept {
		const { body: text } = this.run(format).get(hash) as { body: string };
		return packed(text, coding, headers);
	}

	private keep(url: string, asked: Wanted, kept: Kept) {
		if (url.length > LONGEST_KEY) return;
		this.bytes += kept.body.length + url.length * 2 + 1000;
		if (this.bytes > MOST_KEPT) this.forget();
		keptOf(this.kept, asked).set(url, kept);
	}

	/** A picture's name says all that goes into it: it never changes, and may be kept for ever. */
	private media(name: string, request: IncomingMessage, response: ServerResponse): boolean {
		const owners = this.hasPrivate ? this.store.pictures.ownersOf(name) : undefined;
		const isPublic = !owners || owners.some(({ isPrivate }) => !isPrivate);
		if (!isPublic && !owners.some(({ site }) => this.mayRead(site, request.headers))) {
			// Of what is no picture at all no more is told than of one of theirs.
			deny(response, 'media-missing', { name });
			return true;
		}
		const file = this.library.fileOf(name);
		if (file && sendFile(file, { name, isPublic }, request, response)) return true;
		void this.makeMedia({ name, isPublic }, request, response);
		return true;
	}

	/** Whether whoever sent a request may read a site. */
	private mayRead(site: string, { cookie, authorization }: Came): boolean {
		const credentials = credentialsIn(cookie, authorization);
		// Who works here alone has no key.
		if (this.isDesk && credentials.key === undefined) return mayDo(whoIs(this.store, credentials), 'read', site);
		if (credentials.key === undefined && credentials.session === undefined) return false;
		return mayDo(whoCame(this.store, credentials, this.noting()), 'read', site);
	}

	/** Where it is noted that a key was used; nothing where delivery only reads. Never waits for another writer. */
	private noting(): Store | undefined {
		if (!this.isDesk) return undefined;
		try {
			return (this.notes ??= new Store(this.store.file, { create: false, patience: 0 }));
		} catch {
			// Another is writing: it is noted the next time.
			return undefined;
		}
	}

	/** A cut, an icon or a share picture that is asked for the first time is drawn in a thread. */
	private async makeMedia({ name, isPublic }: Sent, request: IncomingMessage, response: ServerResponse) {
		try {
			const file = await runJob('media', { db: this.store.file, name, mayDraft: this.isDesk });
			if (file === undefined) deny(response, 'media-missing', { name });
			else if (!sendFile(file, { name, isPublic }, request, response)) deny(response, 'media-missing', { name });
		} catch (error) {
			log.error(error);
			if (!response.headersSent) deny(response, 'media-not-now');
		}
	}

	private manifest(name: string, came: Came, response: ServerResponse) {
		if (this.site(name)?.isPrivate && !this.mayRead(name, came)) return denyPrivate(response, name);
		const site = this.store.working.sites.find(name);
		const manifest = site && manifestOf(this.store, site);
		if (!manifest) return deny(response, 'manifest-missing');
		const body = Buffer.from(`${JSON.stringify(manifest.content, null, 2)}\n`);
		const headers = { 'content-type': 'application/manifest+json', 'cache-control': 'no-cache' };
		response.writeHead(200, { ...SAFE, ...headers, 'content-length': body.length }).end(body);
	}
}

type ByCoding = Readonly<Record<'plain' | 'br' | 'gzip', Map<string, Kept>>>;
const keptByCoding = (): ByCoding => ({ plain: new Map(), br: new Map(), gzip: new Map() });
const keptOf = (kept: Readonly<Record<Format, ByCoding>>, { coding, isJson }: Wanted) =>
	(isJson ? kept.json : kept.html)[coding === '' ? 'plain' : coding];

/** A picture by its name; one that not everyone may see is nothing for caches that many share. */
interface Sent {
	readonly name: string;
	readonly isPublic: boolean;
}

/** Says whether the file was there: it may have been swept since its name was looked up. */
function sendFile(file: string, { name, isPublic }: Sent, request: IncomingMessage, response: ServerResponse): boolean {
	const size = statSync(file, { throwIfNoEntry: false })?.size;
	if (size === undefined) return false;
	const etag = `"${name}"`;
	const headers = { ...SAFE, etag, 'cache-control': `${isPublic ? 'public' : 'private'}, max-age=31536000, immutable` };
	const known = request.headers['if-none-match'];
	if (known !== undefined && namesTag(known, etag)) notModified(response, headers);
	else {
		const type = MEDIA_TYPES.get(file.slice(file.lastIndexOf('.') + 1));
		response.writeHead(200, { ...headers, ...(type && { 'content-type': type }), 'content-length': size });
		if (request.method === 'HEAD') response.end();
		else {
			const stream = createReadStream(file);
			stream.on('error', () => response.destroy());
			response.on('close', () => stream.destroy());
			stream.pipe(response);
		}
	}
	return true;
}

const withoutFragment = (address: string) => {
	const url = parseUrl(address);
	if (!url) return address;
	url.hash = '';
	return url.href;
};

/** Asks for a key, as RFC 6750 has it. */
function denyPrivate(response: ServerResponse, site: string) {
	response.setHeader('www-authenticate', 'Bearer realm="Kephalon"');
	deny(response, 'site-private', { site });
}
