import { createHash } from 'node:crypto';
import { findTag, settleText, type FoundTag, type Head } from '$core';
import type { Store } from '../store/store';
import type { FoundPage } from '../store/working/readIn';

/**
 * What Kephalon itself wrote into a folder's files, so that it is not taken for the author's when the folder is read
 * again. It is known by name and value: each injection adds what it wrote to what is remembered of the page.
 */

const keyOf = (name: string, value: string) =>
	createHash('sha256')
		.update(`${name.toLowerCase()}\n${settleText(value)}`)
		.digest('base64url')
		.slice(0, 12);

/** The keys of all that a head writes. */
const keysOfHead = (head: Head): string[] =>
	head.tags.map(({ tag, value }) => keyOf(tag.place === 'title' ? 'title' : tag.key, value));

/** Whether a tag found in a page's file is one that was written into it. */
export function wasWritten(store: Store, site: number, path: string): (tag: FoundTag) => boolean {
	const written = store.working.readIn.writtenInto(site, path);
	return ({ name, value }) => written.has(keyOf(findTag(name.toLowerCase())?.key ?? name, value));
}

/** Notes what is written into files, some hundred pages at a time. */
export class WrittenNotes {
	private readonly waiting: [path: string, keys: readonly string[]][] = [];

	constructor(
		private readonly store: Store,
		private readonly site: number
	) {}

	add(path: string, head: Head) {
		if (this.waiting.push([path, keysOfHead(head)]) >= AT_ONCE) this.flush();
	}

	flush() {
		this.store.transaction(() => {
			for (const [path, keys] of this.waiting) this.store.working.readIn.noteWritten(this.site, path, keys);
		});
		this.waiting.length = 0;
	}
}

const AT_ONCE = 500;

/**
 * A page as its author left it. Where the file holds tags that were written into it, what had been found before stands
 * for them: injecting took it out of the file. The title is the page's own again, not what a template made of it.
 */
export function asAuthored(store: Store, site: number, page: FoundPage): FoundPage {
	const isOurs = wasWritten(store, site, page.path);
	const found = page.found ?? [];
	if (!found.some(isOurs)) return page;
	const own = found.filter((tag) => !isOurs(tag));
	const before = store.working.pages.at(site, page.path);
	const named = (tags: readonly FoundTag[]) => new Set(tags.map(({ name }) => name.toLowerCase()));
	const [ownNames, ourNames] = [named(own), named(found.filter(isOurs))];
	// What stands below the head has the name of what was taken out of it, and may stand there beside it.
	const gone = (before?.found ?? []).filter(
		({ name, value }) =>
			!ownNames.has(name.toLowerCase()) ||
			(ourNames.has(name.toLowerCase()) && !own.some((tag) => tag.name === name && tag.value === value))
	);
	const isTitleOurs = found.some((tag) => tag.name === 'title' && isOurs(tag));
	const title = isTitleOurs ? before?.fields.title : undefined;
	return {
		...page,
		fields: { ...page.fields, ...(title !== undefined && { title }) },
		found: [...gone, ...own]
	};
}
