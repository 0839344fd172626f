import Database from 'better-sqlite3';
import { findTag, type PictureMention } from '$core';
import type { FoundPage } from '../store/store';

/** A page before its summary is chosen among its paragraphs. */
export type ReadPage = FoundPage & { readonly paragraphs: readonly string[] };

/** Memory (KB) that pages on their way in may take; beyond it they lie on the disk. */
const CACHE = 8_000;

/**
 * Pages that were read and are not yet put in, outside memory: any number of them takes no more than a few. What only
 * all of them tell, how often a paragraph or a picture stands, is counted as they come.
 */
export class Staging {
	private readonly db = new Database('');
	private readonly add;
	private readonly paragraphs = new Map<number, number>();
	/** How many pages show each picture. */
	readonly pictures = new Map<string, number>();
	readonly paths: string[] = [];
	private readonly languages = new Map<string, number>();
	/** On how many pages their own files say each tag of the catalogue, but for the title. */
	readonly found = new Map<string, number>();

	constructor() {
		this.db.pragma(`cache_size = -${CACHE}`);
		this.db.exec('CREATE TABLE page (id INTEGER PRIMARY KEY, page TEXT NOT NULL) STRICT; BEGIN');
		this.add = this.db.prepare('INSERT INTO page (page) VALUES (?)');
	}

	put(page: ReadPage) {
		this.add.run(JSON.stringify(page));
		this.paths.push(page.path);
		for (const text of page.paragraphs) count(this.paragraphs, hashOf(text));
		for (const src of new Set(mentionsIn(page).map((mention) => mention.src))) count(this.pictures, src);
		if (page.language) count(this.languages, page.language);
		const tags = (page.found ?? []).flatMap(({ name, value }) =>
			value === '' ? [] : (findTag(name.toLowerCase())?.name ?? [])
		);
		// A title is not remarkable: every page has one.
		for (const tag of new Set(tags)) if (tag !== 'title') count(this.found, tag);
	}

	/** The language most pages are in. */
	usualLanguage(): string {
		return [...this.languages].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'en';
	}

	/**
	 * The pages, with the first paragraph of each that does not stand on several others too as its summary: those are part
	 * of the frame.
	 */
	*pages(frameLeast: number): Generator<FoundPage> {
		for (const { page } of this.db.prepare('SELECT page FROM page ORDER BY id').iterate() as IterableIterator<{
			page: string;
		}>) {
			const { paragraphs, ...found } = JSON.parse(page) as ReadPage;
			const summary = paragraphs.find((text) => (this.paragraphs.get(hashOf(text)) as number) < frameLeast);
			yield { ...found, fields: { ...found.fields, ...(summary && { summary }) } };
		}
	}

	close() {
		this.db.close();
	}
}

export const mentionsIn = (page: FoundPage) => (page.fields.pictures ?? []) as readonly PictureMention[];

function count<K>(counts: Map<K, number>, key: K) {
	counts.set(key, (counts.get(key) ?? 0) + 1);
}

/** A number of 53 bits for a text: texts themselves would fill the memory. Two that share one are taken for the same. */
function hashOf(text: string): number {
	let [a, b] = [0xdeadbeef, 0x41c6ce57];
	for (let at = 0; at < text.length; at++) {
		const unit = text.charCodeAt(at);
		a = Math.imul(a ^ unit, 2_654_435_761);
		b = Math.imul(b ^ unit, 1_597_334_677);
	}
	a = Math.imul(a ^ (a >>> 16), 2_246_822_507) ^ Math.imul(b ^ (b >>> 13), 3_266_489_909);
	b = Math.imul(b ^ (b >>> 16), 2_246_822_507) ^ Math.imul(a ^ (a >>> 13), 3_266_489_909);
	return 4_294_967_296 * (2_097_151 & b) + (a >>> 0);
}
