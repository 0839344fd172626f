import type { Page } from '../model';
import type { Head } from '../resolve/head';
import { finding, type Finding } from './finding';

/** The tags that are pinned where a page is pinned as a whole: what its cards are made of. */
const PINNED_TAGS = ['title', 'description', 'og:title', 'og:description', 'og:image'] as const;

/** What a tag comes to, as it is pinned: the first of several; '' for nothing, which can be pinned as well. */
export const pinnedValue = (head: Head, name: string): string =>
	head.tags.find(({ tag }) => tag.name === name)?.value ?? '';

/** The pins of a page as a whole. */
export const pinsOf = (head: Head): Record<string, string> =>
	Object.fromEntries(PINNED_TAGS.map((name) => [name, pinnedValue(head, name)]));

/** The pins that no longer hold. */
export function brokenPins(page: Page, head: Head): Finding[] {
	return Object.entries(page.pinned ?? {}).flatMap(([tag, pinned]) => {
		const value = pinnedValue(head, tag);
		if (value === pinned) return [];
		return [finding('pin-broken', { of: 'page', path: page.path }, tag, { tag, pinned, value })];
	});
}
