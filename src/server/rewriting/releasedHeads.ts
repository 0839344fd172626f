import type { HeadJson } from '$core';
import { log } from '../log';
import { formsOf, spellingsOf } from '../files/pagePaths';
import { writeCounter } from '../store/opening/counter';
import type { Store } from '../store/store';
import { WrittenHead } from './writtenHead';

/** Heads and pages without one that are kept ready: each with what it was written into last. */
const MOST_KEPT = 2000;

/** The released heads of a site for whoever writes them into pages, read from its database: never waits, never throws. */
export class ReleasedHeads {
	private readonly ready = new Map<string, WrittenHead | undefined>();
	private readonly written: () => number;
	private version: number | undefined;

	constructor(
		private readonly store: Store,
		private readonly site: string
	) {
		this.written = writeCounter(store.db);
	}

	/** The head of a page by its path as a request has it; undefined for none, or while it cannot be read. */
	of(path: string): WrittenHead | undefined {
		try {
			this.noticeReleases();
			if (this.ready.has(path)) return this.ready.get(path);
			if (this.ready.size >= MOST_KEPT) this.ready.clear();
			const head = this.read(path);
			this.ready.set(path, head);
			return head;
		} catch (error) {
			log.error(error);
			return this.ready.get(path);
		}
	}

	private read(path: string): WrittenHead | undefined {
		const site = this.store.working.sites.brief(this.site);
		if (!site) return undefined;
		for (const spelling of spellingsOf(path))
			for (const form of formsOf(spelling)) {
				const kept = this.store.releases.head(site.id, { path: form });
				if (!kept) continue;
				const since = Date.parse(this.store.releases.standsSince(site.id, form) ?? '') || 0;
				return new WrittenHead(JSON.parse(kept.json) as HeadJson, kept.hash.slice(0, 12), since);
			}
		return undefined;
	}

	/** What another process has released is seen with the next page. */
	private noticeReleases() {
		const version = this.written();
		if (version === this.version) return;
		this.version = version;
		this.ready.clear();
	}
}
