import Database from 'better-sqlite3';
import {
	contentsInWords,
	findFormulas,
	findTag,
	FRAME_LEAST,
	FRAME_SHARE,
	isMadeBy,
	LEAST_NAMES,
	settleText,
	type Contents,
	type PictureMention,
	type ProseCandidate
} from '$core';
import type { FoundPage } from '../store/working/readIn';
import { hashOf } from './repeats';
import { isGeneratedTitle, isTelling, TitleBook, trimTitle, type TitleTrims } from './titles';

/** A page as its file was read, before what only all pages together tell. */
export interface ReadPage extends FoundPage {
	readonly file: string;
	/** Texts to choose the summary among, the best first. */
	readonly paragraphs: readonly ProseCandidate[];
	/** What it stands in, by its own words. */
	readonly section?: string | undefined;
	/** What it leads to, where it is there to lead and says nothing else. */
	readonly contents?: Contents;
	/** What it says, where none of it is prose: its language is told by it. */
	readonly words?: string;
}

/** A page as it goes in, as its file was read, and whether that was now. */
export interface StagedPage {
	readonly page: FoundPage;
	readonly read: ReadPage;
	readonly fresh: boolean;
}

/** Memory (KB) that pages on their way in may take; beyond it they lie on the disk. */
const CACHE = 8_000;

/** What stands on this share of a group of pages, and on two, is shared by them: a page's own goes before it. */
const SHARED_SHARE = 0.02;
/** So much (see `ProseCandidate`) stands a shared text, and one that begins as many do, behind a page's own. */
const SHARED_COST = 1.2;
const SAME_BEGINNING_COST = 0.8;
/** A beginning is so many words; so many letters in scripts without spaces. */
const BEGINNING = /^(?:\S+\s+){3}\S+|^.{8}/u;
/** Pages are compared with those of the nearest folder above that holds so many, in the same language. */
const LEAST_GROUP = 20;

const KIND = { paragraph: 0, beginning: 1, title: 2, picture: 3, heading: 4, name: 5 } as const;

/**
 * Pages that were read and are not yet put in, outside memory: any number of them takes no more than a few. What only
 * all of them tell, how often a paragraph, a title or a picture stands, is counted in shares of a group: the pages in
 * one language of the nearest folder that holds enough of them. So a folder gives the same alone and in a larger site.
 */
export class Staging {
	private readonly db = new Database('');
	private readonly addPage;
	/** What is long of a page lies apart: it is read once, and the rest several times. */
	private readonly addLong;
	private readonly addMark;
	/** How many pages show each picture. */
	readonly pictures = new Map<string, number>();
	readonly paths: string[] = [];
	readonly languages = new Map<string, number>();
	/** On how many pages their own files say each tag of the catalogue, but for the title. */
	readonly found = new Map<string, number>();
	readonly titles = new TitleBook();
	/** How many pages each folder holds in a language, with those of its own folders. */
	private readonly folders = new Map<string, number>();

	constructor() {
		this.db.pragma(`cache_size = -${CACHE}`);
		this.db
			.exec(`CREATE TABLE page (id INTEGER PRIMARY KEY, path TEXT NOT NULL, language TEXT NOT NULL, title TEXT NOT NULL,
				heading TEXT NOT NULL, file TEXT NOT NULL, page TEXT NOT NULL, fresh INTEGER NOT NULL) STRICT;
			CREATE TABLE long (id INTEGER PRIMARY KEY, body TEXT, links TEXT) STRICT;
			CREATE TABLE mark (page INTEGER NOT NULL, kind INTEGER NOT NULL, hash INTEGER NOT NULL) STRICT;
			BEGIN`);
		this.addPage = this.db.prepare(
			'INSERT INTO page (path, language, title, heading, file, page, fresh) VALUES (?, ?, ?, ?, ?, ?, ?)'
		);
		this.addLong = this.db.prepare('INSERT INTO long (id, body, links) VALUES (?, ?, ?)');
		this.addMark = this.db.prepare('INSERT INTO mark (page, kind, hash) VALUES (?, ?, ?)');
	}

	/** `fresh` says whether the file was read now; its body is part of the page only then. */
	put(page: ReadPage, fresh: boolean) {
		const { links, ...short } = page;
		const { body, ...fields } = page.fields;
		const row = JSON.stringify({ ...short, fields });
		const [title, heading] = [textOfField(page.fields.title), textOfField(page.fields.heading)];
		const told = [page.path, page.language ?? '', title, heading, page.file, row, fresh ? 1 : 0];
		const id = Number(this.addPage.run(told).lastInsertRowid);
		this.addLong.run(id, typeof body === 'string' ? body : null, links ? JSON.stringify(links) : null);
		this.paths.push(page.path);
		if (title) this.titles.add(title);
		this.mark(id, KIND.title, title ? [title] : []);
		this.mark(id, KIND.heading, heading ? [heading] : []);
		this.mark(
			id,
			KIND.paragraph,
			page.paragraphs.map(({ text }) => text)
		);
		this.mark(
			id,
			KIND.beginning,
			page.paragraphs.map(({ text }) => beginningOf(text))
		);
		this.mark(id, KIND.name, page.contents?.names ?? []);
		const sources = new Set(mentionsIn(page).map((mention) => mention.src));
		for (const src of sources) count(this.pictures, src);
		this.mark(id, KIND.picture, sources);
		if (page.language) count(this.languages, page.language);
		for (const folder of foldersOf(page.path)) count(this.folders, `${page.language ?? ''} ${folder}`);
		const tags = (page.found ?? []).flatMap(({ name, value }) =>
			value === '' ? [] : (findTag(name.toLowerCase())?.name ?? [])
		);
		// A title is not remarkable: every page has one.
		for (const tag of new Set(tags)) if (tag !== 'title') count(this.found, tag);
	}

	private mark(page: number, kind: number, texts: Iterable<string>) {
		for (const text of new Set(texts)) this.addMark.run(page, kind, hashOf(text));
	}

	/** The languages of the pages, that of most first; `und` alone where none is known: what is not known is not stated. */
	spoken(): string[] {
		const tags = [...this.languages].sort((a, b) => b[1] - a[1]).map(([tag]) => tag);
		return tags.length > 0 ? tags : ['und'];
	}

	/**
	 * The pages with what all of them together tell: which text sums each up, which title is its own, what it stands in.
	 * What all of them tell is worked out before the first is asked for.
	 */
	pages(trims: TitleTrims): Generator<StagedPage> {
		const groups = this.group();
		const shares = this.shares(groups);
		this.db.exec('CREATE TABLE titled (path TEXT PRIMARY KEY, title TEXT NOT NULL) STRICT, WITHOUT ROWID');
		const addTitle = this.db.prepare('INSERT INTO titled VALUES (?, ?)');
		for (const one of this.told()) {
			const own = ownTitle(one, (kind, text) => shares(one.id, kind, text));
			addTitle.run(one.path, trimTitle(own, trims));
		}
		this.db.exec('CREATE INDEX by_title ON titled (title)');
		return this.wholePages(trims, shares, this.formulas(shares));
	}

	/** The formulas by which programs made what would sum pages up: nobody wrote it of a page. */
	private formulas(shares: Shares): readonly string[] {
		const texts: string[] = [];
		let [step, seen] = [1, 0];
		for (const { id, page } of this.rows()) {
			const best = bestOf(page.paragraphs, (kind, text) => shares(id, kind, text));
			if (best === undefined || seen++ % step !== 0) continue;
			texts.push(best.text);
			if (texts.length > MOST_TEXTS) [texts.length, step] = [halve(texts), step * 2];
		}
		return findFormulas(texts, LEAST_MADE).map(({ formula }) => formula);
	}

	private *wholePages(trims: TitleTrims, shares: Shares, formulas: readonly string[]): Generator<StagedPage> {
		const titleOf = this.db.prepare('SELECT title FROM titled WHERE path = ?').pluck();
		const sharers = this.db.prepare('SELECT count(*) FROM titled WHERE title = ?').pluck();
		const longOf = this.db.prepare('SELECT body, links FROM long WHERE id = ?');
		for (const { id, page: short, fresh } of this.rows()) {
			const read = withLong(short, longOf.get(id) as Long);
			const { paragraphs, section, contents, file: _file, words: _words, ...page } = read;
			const title = titleOf.get(page.path) as string;
			const isShared = title !== '' && (sharers.get(title) as number) > 1;
			const above = section ?? (isShared ? this.folderTitle(page.path, titleOf, title) : undefined);
			const summary = summaryOf(paragraphs, formulas, (kind, text) => shares(id, kind, text));
			const listed = contents && ownContents(contents, (name) => shares(id, KIND.name, name));
			const said = summary ?? (listed && contentsInWords(listed, page.language ?? ''));
			const pictures = ownFirst(mentionsIn(page), (src) => shares(id, KIND.picture, src));
			// A text that holds no prose of its own is no body: its beginning would stand as the description.
			const { body, ...others } = page.fields;
			const fields = {
				...others,
				...(body !== undefined && summary && { body }),
				...(title !== '' && { title }),
				...(said && { summary: said }),
				...(above && { section: trimTitle(above, trims) }),
				...(pictures.length && { pictures })
			};
			// In a site of several languages one that is not known is said to be so, and not taken for the first.
			const language = page.language ?? (this.languages.size > 1 ? 'und' : undefined);
			yield { page: { ...page, ...(language && { language }), fields }, read, fresh };
		}
	}

	/** The pages without what is long of them. */
	private *rows(): Generator<{ id: number; page: ReadPage; fresh: boolean }> {
		for (const { id, page, fresh } of this.inParts<{ id: number; page: string; fresh: 0 | 1 }>('id, page, fresh'))
			yield { id, page: JSON.parse(page) as ReadPage, fresh: fresh === 1 };
	}

	/** What is asked of every page before the rest. */
	private told(): Generator<Told> {
		return this.inParts<Told>('id, path, language, title, heading, file');
	}

	private *inParts<T extends { readonly id: number }>(columns: string): Generator<T> {
		const rows = this.db.prepare(`SELECT ${columns} FROM page WHERE id > ? ORDER BY id LIMIT 200`);
		for (let last = 0; ;) {
			const some = rows.all(last) as T[];
			yield* some;
			if (some.length === 0) return;
			last = (some.at(-1) as T).id;
		}
	}

	/** The group of each page, and how many are in it. */
	private group(): Map<string, number> {
		const sizes = new Map<string, number>();
		this.db.exec('CREATE TABLE grouped (page INTEGER PRIMARY KEY, name TEXT NOT NULL) STRICT');
		const add = this.db.prepare('INSERT INTO grouped VALUES (?, ?)');
		for (const { id, path, language } of this.told()) {
			const large = (folder: string) => (this.folders.get(`${language} ${folder}`) ?? 0) >= LEAST_GROUP;
			const name = `${language} ${foldersOf(path).find(large) ?? '/'}`;
			count(sizes, name);
			add.run(id, name);
		}
		return sizes;
	}

	/** Gives how much is shared of what a page has: on how many pages of its group it stands, and whether as a frame's. */
	private shares(sizes: ReadonlyMap<string, number>): Shares {
		this.db
			.exec(`CREATE TABLE often (name TEXT, kind INTEGER, hash INTEGER, pages INTEGER, PRIMARY KEY (name, kind, hash)) STRICT, WITHOUT ROWID;
			INSERT INTO often SELECT name, kind, hash, count(*) AS pages FROM mark JOIN grouped USING (page)
				GROUP BY name, kind, hash HAVING pages > 1`);
		const find = this.db
			.prepare(
				'SELECT pages FROM often WHERE name = (SELECT name FROM grouped WHERE page = ?) AND kind = ? AND hash = ?'
			)
			.pluck();
		const sizeOf = this.db.prepare('SELECT name FROM grouped WHERE page = ?').pluck();
		return (page, kind, text) => {
			const pages = (find.get(page, kind, hashOf(text)) as number | undefined) ?? 1;
			if (pages === 1) return 'own';
			const size = sizes.get(sizeOf.get(page) as string) ?? 1;
			if (pages >= FRAME_LEAST && pages >= size * FRAME_SHARE) return 'frame';
			return pages >= Math.max(2, size * SHARED_SHARE) ? 'shared' : 'own';
		};
	}

	/** What the page that opens a page's folder is called, or one further up. */
	private folderTitle(path: string, titleOf: Database.Statement, own: string): string | undefined {
		for (const folder of foldersOf(path)) {
			if (folder === path) continue;
			const title = titleOf.get(folder) as string | undefined;
			if (title !== undefined && title !== '' && title !== own) return title;
			const name = folder.split('/').at(-2);
			if (name) return decode(name).replace(/[-_]+/g, ' ');
		}
		return undefined;
	}

	close() {
		this.db.close();
	}
}

/** So much (see `ProseCandidate`) stands what a formula made behind what is written of a page alone. */
const FORMULA_COST = 1.1;
/** Formulas are looked for among so many texts; of more, among every second, fourth … */
const MOST_TEXTS = 5000;
/** So many texts at the least are made by one. */
const LEAST_MADE = 10;

/** Every second one is left, in place; gives how many. */
function halve(texts: string[]): number {
	const left = texts.filter((_, at) => at % 2 === 0);
	texts.splice(0, left.length, ...left);
	return left.length;
}

/** What is asked of every page before the rest; '' where it says nothing. */
interface Told {
	readonly id: number;
	readonly path: string;
	readonly language: string;
	readonly title: string;
	readonly heading: string;
	readonly file: string;
}

/** What lies apart of a page: its body, and where its links lead (JSON). */
interface Long {
	readonly body: string | null;
	readonly links: string | null;
}

function withLong(page: ReadPage, { body, links }: Long): ReadPage {
	const fields = body === null ? page.fields : { ...page.fields, body };
	return { ...page, fields, ...(links !== null && { links: JSON.parse(links) as string[] }) };
}

type Share = (kind: number, text: string) => 'own' | 'shared' | 'frame';
type Shares = (page: number, kind: number, text: string) => 'own' | 'shared' | 'frame';

function bestOf(candidates: readonly ProseCandidate[], shares: Share): ProseCandidate | undefined {
	let best: ProseCandidate | undefined;
	for (const { text, cost } of candidates) {
		const share = shares(KIND.paragraph, text);
		if (share === 'frame') continue;
		const begins = shares(KIND.beginning, beginningOf(text));
		const whole = cost + (share === 'shared' ? SHARED_COST : 0) + (begins === 'own' ? 0 : SAME_BEGINNING_COST);
		if (!best || whole < best.cost) best = { text, cost: whole };
	}
	return best;
}

/**
 * The text that sums a page up; what a formula made of it stands behind what is written of it alone, where that is nearly as
 * good.
 */
function summaryOf(
	candidates: readonly ProseCandidate[],
	formulas: readonly string[],
	shares: Share
): string | undefined {
	const best = bestOf(candidates, shares);
	const isMade = ({ text }: ProseCandidate) => formulas.some((formula) => isMadeBy(text, formula));
	if (!best || !isMade(best)) return best?.text;
	const isOwn = ({ text }: ProseCandidate) =>
		shares(KIND.paragraph, text) === 'own' && shares(KIND.beginning, beginningOf(text)) === 'own';
	const written = bestOf(
		candidates.filter((one) => isOwn(one) && !isMade(one)),
		shares
	);
	return written && written.cost <= best.cost + FORMULA_COST ? written.text : best.text;
}

/** How far a text is spread over other pages. */
const SPREAD = { own: 0, shared: 1, frame: 2 } as const;

/** The title, unless a program gave it or many pages have it; then the first heading, where fewer pages have the same. */
function ownTitle({ title, heading, file }: Told, share: Share): string {
	if (heading === '' || heading === title || (title !== '' && !isTelling(heading))) return title;
	if (title === '') return heading;
	const [ofHeading, ofTitle] = [SPREAD[share(KIND.heading, heading)], SPREAD[share(KIND.title, title)]];
	const isBetter = ofHeading < ofTitle || (ofHeading === 0 && isGeneratedTitle(title, file));
	return isBetter ? heading : title;
}

/** What a page leads to, without what others lead to as well: a menu is no page's contents. */
function ownContents({ names, count }: Contents, share: (name: string) => ReturnType<Shares>): Contents | undefined {
	const own = names.filter((name) => share(name) === 'own');
	return own.length < LEAST_NAMES ? undefined : { names: own, count: count - (names.length - own.length) };
}

/** A page's own pictures before those that it shares with others. */
function ownFirst(mentions: readonly PictureMention[], share: (src: string) => 'own' | 'shared' | 'frame') {
	const own = mentions.filter(({ src }) => share(src) === 'own');
	return own.length === 0 ? mentions : [...own, ...mentions.filter((one) => !own.includes(one))];
}

export const mentionsIn = (page: FoundPage) => (page.fields.pictures ?? []) as readonly PictureMention[];

const textOfField = (value: unknown) => (typeof value === 'string' ? settleText(value) : '');
const beginningOf = (text: string) => BEGINNING.exec(text)?.[0] ?? text;

/** The folders that a page stands in, the nearest first: `/a/b/c` stands in `/a/b/`, `/a/` and `/`; `/a/b/` in `/a/`. */
function foldersOf(path: string): string[] {
	const parts = path.replace(/\/$/, '').split('/').slice(0, -1);
	return parts.map((_, at) => `${parts.slice(0, parts.length - at).join('/')}/`);
}

function decode(name: string): string {
	try {
		return decodeURIComponent(name);
	} catch {
		return name;
	}
}

function count<K>(counts: Map<K, number>, key: K) {
	counts.set(key, (counts.get(key) ?? 0) + 1);
}
