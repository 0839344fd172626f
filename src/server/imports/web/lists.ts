import { gunzipSync } from 'node:zlib';
import { SaxesParser } from 'saxes';
import { canonicalLanguage, settleText } from '$core';
import { refuse } from '../../errors';
import { decodeFile } from '../../files/encoding';

/** A page that a sitemap or feed names, with what it says of it. */
export interface ListedPage {
	readonly address: string;
	/** ISO 8601. */
	readonly modified?: string;
	readonly title?: string;
	readonly summary?: string;
	readonly body?: string;
	readonly author?: string;
	readonly published?: string;
	readonly tags?: readonly string[];
	readonly pictures?: readonly string[];
	/** The same page in other languages: addresses by language tag. */
	readonly versions?: Readonly<Record<string, string>>;
	readonly language?: string;
}

/** What an XML document lists. */
export type PageList =
	| { readonly kind: 'sitemap' | 'feed'; readonly title?: string; readonly pages: readonly ListedPage[] }
	/** An index: where the sitemaps are. */
	| { readonly kind: 'index'; readonly sitemaps: readonly string[] };

/** One sitemap lists at most so many (sitemaps 0.9), and is so large unpacked (bytes). */
const MOST_LISTED = 50_000;
const MOST_BYTES = 52_428_800;

/**
 * Reads a sitemap or an index of sitemaps (sitemaps 0.9, with images and language versions), or a feed (Atom, RFC 4287;
 * RSS 2.0 and 1.0), packed with gzip or not. Throws a `UserError` that says what is wrong and where.
 */
export function readPageList(bytes: Buffer, from: string): PageList {
	const isPacked = bytes[0] === 0x1f && bytes[1] === 0x8b;
	let unpacked = bytes;
	try {
		if (isPacked) unpacked = gunzipSync(bytes, { maxOutputLength: MOST_BYTES });
	} catch {
		throw refuse('list-packed', { from, most: MOST_BYTES / 1_048_576 });
	}
	const reader = new ListReader();
	const parser = new SaxesParser({ xmlns: true, position: true });
	let failed: string | undefined;
	parser.on('error', (error) => {
		failed ??= error.message.replace(/\.$/, '');
	});
	parser.on('opentag', (tag) => {
		const attributes = Object.fromEntries(Object.values(tag.attributes).map(({ local, value }) => [local, value]));
		reader.open(tag.prefix === '' ? tag.local : (prefixOf(tag.uri) ?? tag.prefix) + ':' + tag.local, attributes);
	});
	parser.on('closetag', () => reader.close());
	parser.on('text', (text) => reader.text(text));
	parser.on('cdata', (text) => reader.text(text));
	try {
		parser.write(decodeFile(unpacked).text).close();
	} catch (error) {
		if (!(error instanceof TooDeep)) throw error;
		failed ??= `its elements stand more than ${MOST_DEPTH} deep in each other`;
	}
	// One that is broken off still lists what comes before.
	const list = reader.list();
	if (!list || (failed !== undefined && (list.kind === 'index' ? list.sitemaps : list.pages).length === 0))
		throw refuse('list-broken', {
			from,
			why: failed ?? 'its first element is none of urlset, sitemapindex, feed, rss, RDF'
		});
	return list;
}

/** Namespaces by how they end, with the prefixes that they usually have, whatever a document calls them. */
const PREFIXES: readonly (readonly [end: string, prefix: string])[] = [
	['/sitemap-image/1.1', 'image'],
	['/1999/xhtml', 'xhtml'],
	['/dc/elements/1.1/', 'dc'],
	['/rss/1.0/modules/content/', 'content'],
	['/mrss/', 'media'],
	['/22-rdf-syntax-ns#', 'rdf']
];
const prefixOf = (uri: string) => PREFIXES.find(([end]) => uri.endsWith(end))?.[1];

type Draft = { -readonly [K in keyof ListedPage]?: ListedPage[K] } & {
	versions?: Record<string, string>;
	pictures?: string[];
	tags?: string[];
};

/** Elements stand so deep in each other at the most: lists need five. */
const MOST_DEPTH = 100;
class TooDeep extends Error {}

/** Goes through the elements; keeps the one page that is open. */
class ListReader {
	private kind: PageList['kind'] | undefined;
	private readonly pages: ListedPage[] = [];
	private readonly sitemaps: string[] = [];
	private readonly path: {
		readonly name: string;
		readonly attributes: Readonly<Record<string, string>>;
		text: string;
	}[] = [];
	private page: Draft | undefined;
	private title: string | undefined;

	open(name: string, attributes: Readonly<Record<string, string>>) {
		if (this.path.length === 0) {
			if (name === 'urlset') this.kind = 'sitemap';
			if (name === 'sitemapindex') this.kind = 'index';
			if (name === 'feed' || name === 'rss' || name === 'rdf:RDF') this.kind = 'feed';
		}
		if (this.path.length >= MOST_DEPTH) throw new TooDeep();
		this.path.push({ name, attributes, text: '' });
		if (name === 'url' || name === 'entry' || name === 'item') this.page = {};
	}

	text(text: string) {
		const open = this.path.at(-1);
		if (open) open.text += text;
	}

	close() {
		const closed = this.path.pop();
		if (!closed) return;
		const value = closed.text.trim();
		const { name, attributes } = closed;
		const parent = this.path.at(-1);
		if (this.page) {
			if (name === 'url' || name === 'entry' || name === 'item') this.keep();
			else this.take(name, value, attributes, parent?.name ?? '');
		} else if (this.kind === 'index' && name === 'loc') this.sitemaps.push(value);
		else if (name === 'title' && this.path.length <= 2) this.title ??= settleText(value);
	}

	private take(name: string, value: string, attributes: Readonly<Record<string, string>>, parent: string) {
		const page = this.page as Draft;
		switch (name) {
			case 'loc':
				if (parent === 'url') page.address = value;
				break;
			case 'link':
				if (!attributes.href) page.address ??= value;
				else if ((attributes.rel ?? 'alternate') === 'alternate') page.address ??= attributes.href;
				else if (attributes.rel === 'enclosure' && /^image\//.test(attributes.type ?? ''))
					add(page, 'pictures', attributes.href);
				break;
			case 'guid':
				if (attributes.isPermaLink !== 'false') page.address ??= value;
				break;
			case 'xhtml:link': {
				const tag = canonicalLanguage(attributes.hreflang ?? '');
				if (tag && attributes.href) page.versions = { ...page.versions, [tag]: attributes.href };
				break;
			}
			case 'lastmod':
			case 'updated':
				setDate(page, 'modified', value);
				break;
			case 'pubDate':
			case 'published':
			case 'dc:date':
				setDate(page, 'published', value);
				break;
			case 'title':
				page.title = settleText(value);
				break;
			case 'summary':
			case 'description':
				page.summary = value;
				break;
			case 'content':
			case 'content:encoded':
				page.body = value;
				break;
			case 'name':
				if (parent === 'author') page.author = settleText(value);
				break;
			case 'author':
			case 'dc:creator':
				if (value) page.author ??= settleText(/^[^\s@]+@\S+ \((.*)\)$/.exec(value)?.[1] ?? value);
				break;
			case 'category':
				add(page, 'tags', settleText(value || (attributes.term ?? '')));
				break;
			case 'image:loc':
				add(page, 'pictures', value);
				break;
			case 'enclosure':
			case 'media:content':
			case 'media:thumbnail':
				if (
					attributes.url &&
					(name === 'media:thumbnail' || /^image\//.test(attributes.type ?? '') || attributes.medium === 'image')
				)
					add(page, 'pictures', attributes.url);
				break;
			case 'language':
			case 'dc:language': {
				const tag = canonicalLanguage(value);
				if (tag) page.language = tag;
				break;
			}
		}
	}

	private keep() {
		const page = this.page as Draft;
		this.page = undefined;
		if (page.address && this.pages.length < MOST_LISTED) this.pages.push(page as ListedPage);
	}

	list(): PageList | undefined {
		if (this.kind === undefined) return undefined;
		if (this.kind === 'index') return { kind: 'index', sitemaps: this.sitemaps };
		return { kind: this.kind, pages: this.pages, ...(this.title && { title: this.title }) };
	}
}

function add(page: Draft, name: 'pictures' | 'tags', value: string) {
	if (value !== '') (page[name] ??= [] as string[]).push(value);
}

function setDate(page: Draft, name: 'modified' | 'published', value: string) {
	const date = toIso(value);
	if (date) page[name] = date;
}

const LONGEST_DATE = 100;

/** A date of XML or of mail (RFC 822) as ISO 8601; undefined where it is none. */
function toIso(said: string): string | undefined {
	const text = said.slice(0, LONGEST_DATE);
	if (/^\d{4}(-\d\d(-\d\d)?)?$/.test(text)) return text.padEnd(10, '-01').slice(0, 10);
	// A time without a zone is the site's, wherever this runs: it stays without one.
	const hasZone = HAS_ZONE.test(text);
	const time = Date.parse(hasZone ? text : text.includes('T') ? `${text}Z` : `${text} GMT`);
	if (Number.isNaN(time)) return undefined;
	const whole = new Date(time).toISOString();
	return hasZone ? whole : whole.slice(0, 19);
}

/** A time that says its zone at its end: `Z`, an offset, or letters such as `GMT`. */
const HAS_ZONE = /\d\d:\d\d.*(?:[+-]\d\d:?\d\d|[A-Z]{1,5})(?:\s*\([^)]*\))?\s*$/i;
