import { gzipSync } from 'node:zlib';
import {
	countGivenWay,
	findHard,
	measureReach,
	proposeTemplate,
	tryEdits,
	type AnyEdit,
	type Page,
	hiddenIn
} from '$core';
import { changeMany, sampleOfBatch } from '../edits/batch';
import { writeCells } from '../edits/cells';
import { authorName } from '../edits/edit';
import { removeUnused } from '../edits/removePicture';
import { takeBackLarge } from '../edits/takeBack';
import { refuseHalfMade } from '../edits/longEdit';
import { compareCsv, readCsvBack } from '../exports/csv';
import { sitemapsOf } from '../exports/sitemap';
import { count, saveCounted } from '../findings/counted';
import { faultyRules } from './faultyRules';
import { countUses } from '../heads/uses';
import { isMuch, refuse } from '../errors';
import { announce, announceFindings } from '../hooks/announce';
import { differencesBetween, goBack, type PageDifference } from '../releases/releases';
import { explain } from '../store/opening/database';
import type { Staged } from '../store/releases/releases';
import { WHOLE, type Part } from '../store/opening/part';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store, type StoredSite } from '../store/store';
import { pagesLinking } from '../findings/links';
import { note as noteTrail } from '../people/note';
import { pagesOf, releasedHead, resolverOf } from '../heads/heads';
import { atMostEvery, type Progress, type PushTold } from '../progress';
import { refresh } from './refresh';
import type { JobName, Jobs, Released } from './kinds';
import { runJob } from './run';

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

// What reads files, pictures and other servers is loaded by the jobs that need it: a thread that only counts pages begins sooner.
const libraryOf = async (store: Store) => new (await import('../pictures/library')).Library(store);
const tableIn = async (file: Uint8Array, sheet?: string) =>
	(await import('../imports/table/workbook')).openTable(asBuffer(file), sheet);

/** How far a reading of content is is told so often at the most (milliseconds). */
const TOLD_EVERY = 100;
/** So many lines of what was put in are told at a time. */
const TOLD_AT_ONCE = 500;

/** The bytes that came into the thread, as they are. */
const asBuffer = ({ buffer, byteOffset, length }: Uint8Array) => Buffer.from(buffer, byteOffset, length);

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
				{ site, types, pictures: store.pictures.all(id), others: pagesOf(store, id) },
				pagesUnder(store, id, edit, part),
				edit,
				new Date().toISOString(),
				progress,
				readersUnder(store, id, edit, part)
			);
		}),
	hard: ({ db, site: name, type }) =>
		reading(db, (store) => {
			const { id, site, types } = store.working.sites.named(name);
			const model = { site, types, pictures: store.pictures.all(id), others: pagesOf(store, id) };
			const pages = store.state.hard(id, type).flatMap((path) => store.working.pages.at(id, path) ?? []);
			return findHard(model, pages, new Date().toISOString());
		}),
	tries: ({ db, site: name, edits, type, live = [] }) =>
		reading(db, (store) => {
			const { id, site, types } = store.working.sites.named(name);
			const model = { site, types, pictures: store.pictures.all(id), others: pagesOf(store, id) };
			const pages = store.state.hard(id, type).flatMap((path) => store.working.pages.at(id, path) ?? []);
			return tryEdits(model, pages, edits, new Date().toISOString(), live);
		}),
	givenWay: ({ db, site: name, edit, ...part }, progress) =>
		reading(db, (store) => {
			progress(0);
			const { id, site, types } = store.working.sites.named(name);
			const model = { site, types, pictures: store.pictures.all(id), others: pagesOf(store, id) };
			return countGivenWay(model, pagesUnder(store, id, edit, part), edit, new Date().toISOString(), progress);
		}),
	proposal: ({ db, site: name, type, tag }) =>
		reading(db, (store) => {
			const { id, types } = store.working.sites.named(name);
			const own = types.find((one) => one.name === type);
			if (!own) throw refuse('type-missing', { contentType: type });
			return proposeTemplate(tag, own, [...firstOf(store.working.pages.part(id, type, WHOLE), MOST_RECORDS)]);
		}),
	uses: ({ db, site: name }) =>
		reading(db, (store) => {
			const { id } = store.working.sites.named(name);
			return countUses(store, id);
		}),
	removePicture: ({ db, site, src }) =>
		writing(db, (store) => removeUnused(store, site, src, (id) => countUses(store, id))),
	linking: ({ db, site, path }) => reading(db, (store) => pagesLinking(store, site, path)),
	push: ({ db, site, source, file, tells }, progress) =>
		writingLong(db, async (store) => {
			const { comingIn, linesOfFile, pushPages } = await import('../imports/push');
			const waiting: PushTold[] = [];
			const tell = () => waiting.length > 0 && progress(waiting.at(-1)!.line, undefined, waiting.splice(0));
			const take = (told: PushTold) => void (tells && waiting.push(told) >= TOLD_AT_ONCE && tell());
			const coming = comingIn(store, site, file);
			const done = pushPages(store, site, source, linesOfFile(file), take, { coming });
			tell();
			return done;
		}),
	content: ({ db, name, base, source, via }, progress) =>
		writingLong(db, async (store) =>
			(await import('../imports/content')).takeContent(store, name, base, source, {
				via,
				progress: atMostEvery(TOLD_EVERY, progress),
				readFiles: (files, bare) => runJob('readFiles', { files, bare })
			})
		),
	readFiles: async ({ files, bare }) => (await import('../imports/readFiles')).readFiles(files, bare),
	async lookAtTable({ file, said, base }) {
		const table = await tableIn(file, said.sheet);
		return (await import('../imports/table/table')).lookAtTable(table, said, base);
	},
	async siteFolder({ db, folder }) {
		const data = (await import('../siteFile/siteFolder')).readSiteFolder(folder);
		writing(db, (store) => saveSiteFile(store, data));
		return { site: data.site.name, pages: data.pages.length };
	},
	gather: ({ db, site }) =>
		writingLong(db, async (store) => (await import('../pictures/gather')).gatherPictures(store, site)),
	grown: ({ db, site }) =>
		writing(db, (store) => announceFindings(store, { id: store.working.sites.named(site).id, name: site })),
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
		const table = await tableIn(file);
		return reading(db, (store) => compareCsv(store, site, table, takes, progress));
	},
	csvBack: async ({ db, site, file, takes }, progress) => {
		const table = await tableIn(file);
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
	look: ({ db, site, address, via }) =>
		writingLong(db, async (store) => (await import('../probes/look')).lookAt(store, site, address, via)),
	drift: ({ db, site, via, rate }, progress, signal) =>
		writingLong(db, async (store) =>
			(await import('../probes/drift')).lookForDrift(store, site, via, {
				signal,
				progress,
				...(rate !== undefined && { rate })
			})
		),
	takePicture: ({ db, site, bytes, name }) =>
		writingLong(db, async (store) => (await libraryOf(store)).take(site, asBuffer(bytes), name)),
	compareReleases: ({ db, site, between, most, path }) =>
		reading(db, (store) => {
			const { count, pages } = differencesBetween(store, store.working.sites.named(site).id, between, path);
			const first: PageDifference[] = [];
			for (const one of pages) if (first.push(one) >= most) break;
			return { count, pages: first };
		}),
	goBack: ({ db, site, to, note, removes }, progress) =>
		writing(db, (store) => goBack(store, site, to, { note, removes, progress })),
	async cards({ db, site, hasReaders }) {
		const { readCards } = await import('../readers/cards');
		return reading(db, (store) => readCards(store, site, hasReaders));
	},
	compose: async (task, progress) => (await import('./compose')).compose(task, progress),
	mend({ db }) {
		new Store(db).close();
	},
	mail: async (task) => (await import('../people/mailer')).mail(task),
	record: async (task) => (await import('../sources/readRecord')).readRecord(task),
	hook: async (task) => (await import('../hooks/send')).sendHook(task),
	signOn: async (task) => (await import('../people/issuer')).askIssuer(task),
	async sweep({ db }) {
		const store = new Store(db);
		try {
			return (await libraryOf(store)).sweep();
		} finally {
			store.close();
		}
	},
	async media({ db, name, mayDraft }) {
		const store = new Store(db, { readonly: true });
		try {
			const library = await libraryOf(store);
			if (library.isNamed(name)) return await library.find(name);
			return mayDraft ? await library.draft(name) : undefined;
		} finally {
			store.close();
		}
	},
	async draw({ db, recipe }) {
		const store = new Store(db, { readonly: true });
		try {
			return (await (await libraryOf(store)).compose(recipe)).file;
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

/** So many records of a type are looked at for a first template. */
const MOST_RECORDS = 500;

function* firstOf<T>(all: Iterable<T>, most: number): Generator<T> {
	let count = 0;
	for (const one of all) {
		if (count++ >= most) return;
		yield one;
	}
}

/** The pages that stand under the layer of an edit: the others need not be read. */
function pagesUnder(store: Store, site: number, { place }: AnyEdit, part: Part): Iterable<Page> {
	if (place.layer !== 'page')
		return store.working.pages.part(site, place.layer === 'type' ? place.name : undefined, part);
	const page = part.part === 0 ? store.working.pages.at(site, place.path) : undefined;
	return page ? [page] : [];
}

/** The pages that an edit can change though they do not stand under its layer: they read some that do. */
function* readersUnder(store: Store, site: number, { place }: AnyEdit, part: Part): Generator<Page> {
	const ids =
		place.layer === 'page'
			? store.state.readersOf(site, place.path, part)
			: place.layer === 'type'
				? store.state.readersOfType(site, place.name, part)
				: [];
	for (const id of ids) {
		const page = store.working.pages.byId(id);
		if (page) yield page;
	}
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
			kept: ({ id, number, pages }) => {
				noteTrail(writer, 'released', { number, pages }, name);
				announce(writer, { id: site.id, name }, 'release.made', { number, pages, by: authorName() });
				// Of single pages: for all others the rules are those of before.
				if (only === undefined) writer.releases.keepRules(id, site);
				else writer.releases.ruledAs(id, site.id, number - 1);
			},
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
