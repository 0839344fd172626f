import {
	findHard,
	findWorst,
	measureReach,
	type AnyEdit,
	type Finding,
	type HardPage,
	type Reach,
	type Recipe,
	type WorstPages
} from '$core';
import { Library } from '../pictures/library';
import { compose, type Composed, type ComposeTask } from './compose';
import { faultyRules } from './faultyRules';
import { countUses, type PictureUses } from './uses';
import { explain } from '../store/database';
import type { Release } from '../store/releases';
import { Store, type StoredSite } from '../store/store';
import { releasedHead, resolverOf } from './heads';

/** Work that goes over many pages. Each runs in a thread of its own, on connections of its own. */
export interface Jobs {
	release: { input: { db: string; site: string }; output: Released };
	pending: { input: { db: string; site: string }; output: Pending };
	reach: { input: { db: string; site: string; edit: AnyEdit }; output: Reach };
	worst: { input: { db: string; site: string }; output: WorstPages };
	hard: { input: { db: string; site: string; type?: string }; output: HardPage[] };
	uses: { input: { db: string; site: string }; output: PictureUses };
	compose: { input: ComposeTask; output: Composed };
	/** One share picture as it would be; nothing is kept of it but its file. */
	draw: { input: { db: string; recipe: Recipe }; output: string };
}
/** A release, and the rules of its site that do not work. */
export type Released = Release & { readonly faulty: readonly Finding[] };

export type JobName = keyof Jobs;
export type Progress = (done: number) => void;

/** What of the working copy visitors do not see yet. */
export interface Pending {
	/** Of the newest release, or null before the first. */
	readonly release: Pick<Release, 'number' | 'created' | 'pages'> | null;
	/** How many pages come out different from the release, are new in it, or leave it. */
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
	/** The first of them. */
	readonly paths: readonly string[];
}

const LISTED = 200;

const reading = <T>(db: string, work: (store: Store) => T): T => {
	const store = new Store(db, { readonly: true });
	try {
		// One transaction for all that is read: what is edited meanwhile does not mix in.
		return store.db.transaction(() => work(store)).deferred();
	} finally {
		store.close();
	}
};

/** The work itself, by name. Called in the thread; never in the one that answers requests. */
export const JOBS = {
	release({ db, site: name }, progress) {
		const writer = new Store(db);
		try {
			return reading(db, (store) => {
				const site = store.site(name);
				const created = new Date().toISOString();
				const heads = renderAll(store, site, created, progress);
				return { ...writer.releases.make(site.id, site.revision, created, heads), faulty: faultyRules(store, site) };
			});
		} catch (error) {
			throw explain(error, db);
		} finally {
			writer.close();
		}
	},
	pending: ({ db, site: name }, progress) =>
		reading(db, (store) => {
			const site = store.site(name);
			const release = store.releases.latest(site.id);
			const released = release ? store.releases.hashes(release.id) : new Map<string, string>();
			const paths: string[] = [];
			const count = { changed: 0, added: 0, removed: 0 };
			const note = (kind: keyof typeof count, path: string) => {
				count[kind]++;
				if (paths.length < LISTED) paths.push(path);
			};
			// `{now}` is taken as at the release, or every page that names it would count as changed.
			for (const head of renderAll(store, site, release?.created ?? new Date().toISOString(), progress)) {
				const hash = released.get(head.path);
				if (hash === undefined) note('added', head.path);
				else if (hash !== head.hash) note('changed', head.path);
				released.delete(head.path);
			}
			for (const path of released.keys()) note('removed', path);
			return {
				release: release ? { number: release.number, created: release.created, pages: release.pages } : null,
				...count,
				paths
			};
		}),
	reach: ({ db, site: name, edit }, progress) =>
		reading(db, (store) => {
			const { id, site, types } = store.site(name);
			return measureReach(
				{ site, types, pictures: store.pictures(id) },
				store.pages(id),
				edit,
				new Date().toISOString(),
				progress
			);
		}),
	worst: ({ db, site: name }, progress) =>
		reading(db, (store) => {
			const { id, site, types } = store.site(name);
			const model = { site, types, pictures: store.pictures(id) };
			return findWorst(model, store.pages(id, 'live'), new Date().toISOString(), 10, progress);
		}),
	hard: ({ db, site: name, type }) =>
		reading(db, (store) => {
			const { id, site, types } = store.site(name);
			const model = { site, types, pictures: store.pictures(id) };
			return findHard(model, store.pages(id), new Date().toISOString(), type);
		}),
	uses: ({ db, site: name }) =>
		reading(db, (store) => {
			const site = store.site(name);
			return countUses(
				resolverOf(store, site, new Date().toISOString()),
				store.pages(site.id),
				store.pictures(site.id)
			);
		}),
	compose,
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
		progress: Progress
	) => Jobs[N]['output'] | Promise<Jobs[N]['output']>;
};

function* renderAll(store: Store, site: StoredSite, now: string, progress: Progress) {
	const resolver = resolverOf(store, site, now);
	let done = 0;
	for (const page of store.pages(site.id, 'live')) {
		yield releasedHead(resolver, page);
		if (++done % 500 === 0) progress(done);
	}
}
