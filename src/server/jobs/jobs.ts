import { gzipSync } from 'node:zlib';
import {
	findHard,
	measureReach,
	type AnyEdit,
	type Finding,
	type HardPage,
	type Page,
	type Picture,
	type Reach,
	type Recipe,
	hiddenIn
} from '$core';
import { changeMany, sampleOfBatch, type BatchAction, type BatchPages, type BatchSample } from '../edits/batch';
import { writeCells, type CellWrite } from '../edits/cells';
import { authorName, type Made } from '../edits/edit';
import { removeUnused } from '../edits/removePicture';
import { takeBackLarge } from '../edits/takeBack';
import { refuseHalfMade } from '../edits/longEdit';
import { compareCsv, readCsvBack, type CsvTakes, type CsvTold } from '../exports/csv';
import { sitemapsOf } from '../exports/sitemap';
import { count, saveCounted, type SpreadWanted } from '../findings/counted';
import { takeContent, type ContentSource, type Taken } from '../imports/content';
import type { Via } from '../fetching/trace';
import { lookAtTable, type TableLook, type TableSource } from '../imports/table/table';
import { openTable } from '../imports/table/workbook';
import { gatherPictures } from '../pictures/gather';
import { Library } from '../pictures/library';
import { lookForDrift, type DriftOfSite } from '../probes/drift';
import { lookAt, type ProbeLook } from '../probes/look';
import { readCards, type CardsTold } from '../readers/cards';
import { compose, type Composed, type ComposeTask } from './compose';
import { faultyRules } from './faultyRules';
import { countUses, type PictureUses } from '../heads/uses';
import { isMuch, refuse } from '../errors';
import { differencesBetween, goBack, type PageDifference } from '../releases/releases';
import { explain } from '../store/opening/database';
import type { Release, Staged } from '../store/releases/releases';
import type { Part } from '../store/opening/part';
import { saveSiteFile } from '../siteFile/siteFile';
import { readSiteFolder } from '../siteFile/siteFolder';
import { Store, type StoredSite } from '../store/store';
import { pagesLinking, type PagesLinking } from '../findings/links';
import { releasedHead, resolverOf } from '../heads/heads';
import type { Progress } from '../progress';
import { refresh } from './refresh';

/** Work that goes over many pages. Each runs in a thread of its own, on connections of its own. */
export interface Jobs {
	/** Of all that differs, or of the pages at some paths alone: the others stay as they are released. */
	release: {
		input: { db: string; site: string; note?: string; only?: readonly string[]; removes?: number };
		output: Released;
	};
	/** Of all pages, or of one part of them: see `runParts`. */
	refresh: { input: { db: string; site: string } & Partial<Part>; output: number };
	/** Of one part of the pages: see `runParts`. */
	reach: { input: { db: string; site: string; edit: AnyEdit } & Part; output: Reach };
	hard: { input: { db: string; site: string; type?: string }; output: HardPage[] };
	uses: { input: { db: string; site: string }; output: PictureUses };
	/** Takes a picture out of the library that nothing uses. */
	removePicture: { input: { db: string; site: string; src: string }; output: void };
	/** The pages whose texts link to a path. */
	linking: { input: { db: string; site: string; path: string }; output: PagesLinking };
	/** Makes a site of where its content is, or reads the content of one again. */
	content: { input: { db: string; name: string; base: string; source: ContentSource; via?: Via }; output: Taken };
	/** What a table would become; nothing is kept. */
	lookAtTable: { input: { file: Uint8Array; said: Partial<TableSource>; base: string }; output: TableLook };
	/** Reads a site file that is a folder of small files; gives the site's name and how many pages it has. */
	siteFolder: { input: { db: string; folder: string }; output: { readonly site: string; readonly pages: number } };
	/** Takes pictures of the site's folder into the library that its rules make others out of; gives how many. */
	gather: { input: { db: string; site: string }; output: number };
	/** Changes many pages as one edit; gives its number and how many came out different. */
	batch: {
		input: { db: string; site: string; pages: BatchPages; action: BatchAction };
		output: { edit: number | undefined; revision: number; changed: number };
	};
	/** Writes cells of the table of pages as one edit; gives its number and how many. */
	cells: {
		input: { db: string; site: string; cells: readonly CellWrite[] };
		output: { edit: number | undefined; changed: number };
	};
	/** What a batch would do, tried on some of its pages. */
	sample: { input: { db: string; site: string; pages: BatchPages; action: BatchAction }; output: BatchSample };
	/** What a table that was put out and changed would do. */
	compareCsv: { input: { db: string; site: string; file: Uint8Array; takes: CsvTakes }; output: CsvTold };
	/** The same kept, as one edit. */
	csvBack: {
		input: { db: string; site: string; file: Uint8Array; takes: CsvTakes };
		output: { edit: number | undefined; told: CsvTold };
	};
	/** Takes back a large edit. */
	takeBack: {
		input: { db: string; site: string; edit: number; removes?: number };
		output: Made<{ readonly taken: number }>;
	};
	/** The sitemaps of what is released, by their names, compressed (gzip). */
	sitemaps: { input: { db: string; site: string }; output: ReadonlyMap<string, Uint8Array> };
	/** Counts what is wrong or weak on a site, by kind, and which pages have which tags; keeps it. */
	count: { input: { db: string; site: string } & SpreadWanted; output: void };
	/** Looks at an address, or at a page by its path, as all readers would. */
	look: { input: { db: string; site: string; address: string; via?: Via | undefined }; output: ProbeLook };
	/** Compares what is served of a site with what was released; stopped, it notes how far it came. */
	drift: { input: { db: string; site: string; via?: Via | undefined; rate?: number }; output: DriftOfSite };
	/** Takes a picture into the library of a site. */
	takePicture: { input: { db: string; site: string; bytes: Uint8Array; name?: string | undefined }; output: Picture };
	/** What differs between two releases: how many pages, and the first so many of them; or of one page. */
	compareReleases: {
		input: { db: string; site: string; between: readonly [number, number]; most: number; path?: string };
		output: { readonly count: number; readonly pages: readonly PageDifference[] };
	};
	/** Makes a release of an old one's heads. */
	goBack: { input: { db: string; site: string; to: number; note?: string; removes?: number }; output: Release };
	/** What readers last showed, held against what is released. */
	cards: { input: { db: string; site: string; hasReaders: boolean }; output: CardsTold };
	compose: { input: ComposeTask; output: Composed };
	/** One share picture as it would be; nothing is kept of it but its file. */
	draw: { input: { db: string; recipe: Recipe }; output: string };
	/** Takes back what was broken off of long edits. */
	mend: { input: { db: string }; output: void };
	/** Takes out of the library what nothing names any more; gives how many files. */
	sweep: { input: { db: string }; output: number };
	/**
	 * The file of a name in the library, made now if it can be: where something released names it, or, to be looked at, as
	 * a draft. Undefined when there is no such picture.
	 */
	media: { input: { db: string; name: string; mayDraft: boolean }; output: string | undefined };
}
/** A release, and what does not work of the rules of its site, its types and the pages that it changed. */
export type Released = Release & { readonly faulty: readonly Finding[] };

export type JobName = keyof Jobs;

const reading = <T>(db: string, work: (store: Store) => T): T => {
	const store = new Store(db, { readonly: true });
	try {
		// One transaction for all that is read: what is edited meanwhile does not mix in.
		return store.db.transaction(() => work(store)).deferred();
	} finally {
		store.close();
	}
};

const writing = <T>(db: string, work: (store: Store) => T): T => {
	const store = new Store(db);
	try {
		return work(store);
	} finally {
		store.close();
	}
};

/** The same for work that waits for others between. */
const writingLong = async <T>(db: string, work: (store: Store) => Promise<T>): Promise<T> => {
	const store = new Store(db);
	try {
		return await work(store);
	} finally {
		store.close();
	}
};

/** The bytes that came into the thread, as they are. */
const asBuffer = ({ buffer, byteOffset, length }: Uint8Array) => Buffer.from(buffer, byteOffset, length);

const WHOLE: Part = { part: 0, parts: 1 };

/** The work itself, by name. Called in the thread; never in the one that answers requests. */
export const JOBS = {
	/** Brings the kept state of a site up to date; gives how many pages were looked at. */
	refresh({ db, site: name, part = 0, parts = 1 }, progress) {
		const writer = new Store(db);
		const reader = new Store(db, { readonly: true });
		try {
			return refresh(reader, writer, name, { part, parts }, progress);
		} catch (error) {
			throw explain(error, db);
		} finally {
			reader.close();
			writer.close();
		}
	},
	release({ db, site: name, ...wanted }, progress) {
		const writer = new Store(db);
		const reader = new Store(db, { readonly: true });
		try {
			for (;;) {
				const { id } = reader.working.sites.named(name);
				const unseen = reader.state.countStale(id);
				refresh(reader, writer, name, WHOLE, (done) => progress(done, unseen));
				const made = reader.db.transaction(() => makeRelease(reader, writer, name, wanted, progress)).deferred();
				if (made) return made;
			}
		} catch (error) {
			throw explain(error, db);
		} finally {
			reader.close();
			writer.close();
		}
	},
	reach: ({ db, site: name, edit, ...part }, progress) =>
		reading(db, (store) => {
			progress(0);
			const { id, site, types } = store.working.sites.named(name);
			return measureReach(
				{ site, types, pictures: store.pictures.all(id) },
				pagesUnder(store, id, edit, part),
				edit,
				new Date().toISOString(),
				progress
			);
		}),
	hard: ({ db, site: name, type }) =>
		reading(db, (store) => {
			const { id, site, types } = store.working.sites.named(name);
			const model = { site, types, pictures: store.pictures.all(id) };
			const pages = store.state.hard(id, type).flatMap((path) => store.working.pages.at(id, path) ?? []);
			return findHard(model, pages, new Date().toISOString());
		}),
	uses: ({ db, site: name }) =>
		reading(db, (store) => {
			const { id } = store.working.sites.named(name);
			return countUses(store, id);
		}),
	removePicture: ({ db, site, src }) =>
		writing(db, (store) => removeUnused(store, site, src, (id) => countUses(store, id))),
	linking: ({ db, site, path }) => reading(db, (store) => pagesLinking(store, site, path)),
	content: ({ db, name, base, source, via }) => writingLong(db, (store) => takeContent(store, name, base, source, via)),
	lookAtTable: async ({ file, said, base }) => lookAtTable(await openTable(asBuffer(file), said.sheet), said, base),
	siteFolder({ db, folder }) {
		const data = readSiteFolder(folder);
		writing(db, (store) => saveSiteFile(store, data));
		return { site: data.site.name, pages: data.pages.length };
	},
	gather: ({ db, site }) => writingLong(db, (store) => gatherPictures(store, site)),
	batch: ({ db, site, pages, action }, progress) =>
		writing(db, (store) => {
			const { edit, revision, result: changed } = changeMany(store, site, pages, action, 'pages', progress);
			return { edit, revision, changed };
		}),
	cells: ({ db, site, cells }) =>
		writing(db, (store) => {
			const { edit, result: changed } = writeCells(store, site, cells);
			return { edit, changed };
		}),
	sample: ({ db, site, pages, action }) => reading(db, (store) => sampleOfBatch(store, site, pages, action)),
	compareCsv: async ({ db, site, file, takes }, progress) => {
		const table = await openTable(asBuffer(file));
		return reading(db, (store) => compareCsv(store, site, table, takes, progress));
	},
	csvBack: async ({ db, site, file, takes }, progress) => {
		const table = await openTable(asBuffer(file));
		return writing(db, (store) => {
			const { edit, result: told } = readCsvBack(store, site, table, 'pages', takes, progress);
			return { edit, told };
		});
	},
	takeBack: ({ db, site, edit, removes }, progress) =>
		writing(db, (store) => takeBackLarge(store, site, edit, 'bench', removes, progress)),
	sitemaps: ({ db, site }) =>
		reading(db, (store) => new Map([...sitemapsOf(store, site)].map(({ name, text }) => [name, gzipSync(text)]))),
	count({ db, site, ...wanted }) {
		const counted = reading(db, (store) => count(store, site, wanted));
		writing(db, (store) => store.transaction(() => saveCounted(store, store.working.sites.named(site).id, counted)));
	},
	look: ({ db, site, address, via }) => writingLong(db, (store) => lookAt(store, site, address, via)),
	drift: ({ db, site, via, rate }, progress, signal) =>
		writingLong(db, (store) =>
			lookForDrift(store, site, via, { signal, progress, ...(rate !== undefined && { rate }) })
		),
	takePicture: ({ db, site, bytes, name }) =>
		writingLong(db, (store) => new Library(store).take(site, asBuffer(bytes), name)),
	compareReleases: ({ db, site, between, most, path }) =>
		reading(db, (store) => {
			const { count, pages } = differencesBetween(store, store.working.sites.named(site).id, between, path);
			const first: PageDifference[] = [];
			for (const one of pages) if (first.push(one) >= most) break;
			return { count, pages: first };
		}),
	goBack: ({ db, site, to, note, removes }, progress) =>
		writing(db, (store) => goBack(store, site, to, { note, removes, progress })),
	cards: ({ db, site, hasReaders }) => reading(db, (store) => readCards(store, site, hasReaders)),
	compose,
	mend({ db }) {
		new Store(db).close();
	},
	sweep({ db }) {
		const store = new Store(db);
		try {
			return new Library(store).sweep();
		} finally {
			store.close();
		}
	},
	async media({ db, name, mayDraft }) {
		const store = new Store(db, { readonly: true });
		try {
			const library = new Library(store);
			if (library.isNamed(name)) return await library.find(name);
			return mayDraft ? await library.draft(name) : undefined;
		} finally {
			store.close();
		}
	},
	async draw({ db, recipe }) {
		const store = new Store(db, { readonly: true });
		try {
			return (await new Library(store).compose(recipe)).file;
		} finally {
			store.close();
		}
	}
} satisfies {
	readonly [N in JobName]: (
		input: Jobs[N]['input'],
		progress: Progress,
		/** Told to those that stop by themselves. */
		signal: AbortSignal
	) => Jobs[N]['output'] | Promise<Jobs[N]['output']>;
};

/** The pages that stand under the layer of an edit: the others need not be read. */
function pagesUnder(store: Store, site: number, { place }: AnyEdit, part: Part): Iterable<Page> {
	if (place.layer !== 'page')
		return store.working.pages.part(site, place.layer === 'type' ? place.name : undefined, part);
	const page = store.working.pages.at(site, place.path);
	return page ? [page] : [];
}

/** Makes a release of what is read in one moment; undefined when an edit came between and pages are stale again. */
function makeRelease(
	reader: Store,
	writer: Store,
	name: string,
	{ note, only, removes }: Omit<Jobs['release']['input'], 'db' | 'site'>,
	progress: Progress
): Released | undefined {
	const site = reader.working.sites.named(name);
	if (reader.state.countStale(site.id) > 0) return undefined;
	const isWanted = only === undefined ? () => true : (path: string) => only.includes(path);
	refuseHalfMade(reader, site.id);
	if (isWanted('/')) refuseWithoutHome(reader, site);
	refuseManyGone(reader, site.id, isWanted, removes);
	const created = new Date().toISOString();
	const withRules: Page[] = [];
	const staged = counting(
		stage(reader, site, created, withRules, isWanted),
		reader.state.countToRelease(site.id),
		progress
	);
	const release = writer.releases.make(
		{
			site: site.id,
			revision: site.revision,
			created,
			author: authorName(),
			isPart: only !== undefined,
			...(note && { note })
		},
		staged
	);
	if (site.site.keepReleases !== undefined) writer.releases.prune(site.id, site.site.keepReleases);
	return { ...release, faulty: faultyRules(reader, site, withRules) };
}

/** Goes on with what comes, and says every so often how many have. */
function* counting<T>(all: Iterable<T>, count: number, progress: Progress): Generator<T> {
	let done = 0;
	for (const one of all) {
		yield one;
		if (++done % 500 === 0) progress(done, count);
	}
}

/** A release that takes away much of the site is stopped until it is said how many pages go. */
function refuseManyGone(store: Store, site: number, isWanted: (path: string) => boolean, said: number | undefined) {
	const released = store.releases.latest(site)?.pages ?? 0;
	const gone = store.state.goingPaths(site).filter(isWanted).length;
	if (isMuch(gone, released) && said !== gone) throw refuse('release-removes', { removes: gone, released });
}

/** A release in which the home page goes is stopped: nobody means that. */
function refuseWithoutHome(store: Store, { id, types }: StoredSite) {
	if (!store.releases.head(id, { path: '/' })) return;
	const home = store.working.pages.at(id, '/');
	if (home && !hiddenIn(types)(home)) return;
	throw refuse('release-without-home', { hidden: home && hiddenIn(types)(home), contentType: home?.type });
}

/** The pages that may differ from what is released, with their heads as they will be served; notes those with rules. */
function* stage(
	reader: Store,
	site: StoredSite,
	created: string,
	withRules: Page[],
	isWanted: (path: string) => boolean
): Generator<Staged> {
	const resolver = resolverOf(reader, site, created);
	for (const path of reader.state.leaving(site.id)) if (isWanted(path)) yield { path, hash: null };
	for (const { id, seen, isPublic } of reader.state.toRelease(site.id)) {
		const page = reader.working.pages.byId(id) as Page;
		if (!isWanted(page.path)) continue;
		if (page.rules.length > 0 || page.extra) withRules.push(page);
		if (isPublic) yield { ...releasedHead(resolver, page), page: id, seen };
		else yield { path: page.path, hash: null, page: id, seen };
	}
}
