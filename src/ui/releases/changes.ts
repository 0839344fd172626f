import { wording } from '$ui/words/en/releases';
import { diffWordsWithSpace } from 'diff';
import { cardOf, headOfJson, type Card, type HeadJson, type ReaderProfile } from '$core';

/** A stretch of a text: in both, only before, or only after. */
export interface Stretch {
	readonly text: string;
	readonly is: 'same' | 'gone' | 'come';
}

/** What became of one tag of a page. */
export interface TagChange {
	readonly tag: string;
	readonly kind: 'changed' | 'new' | 'gone' | 'moved';
	readonly stretches: readonly Stretch[];
}

/** Longer texts are told as a whole: where nearly all words are others, looking for those that stayed takes long. */
const LONGEST = 4000;
/** Steps that two texts may lie apart before they are told as others. */
const FURTHEST = 400;

/** So much of the shorter text stays where it is told word by word. */
const LEAST_KEPT = 0.4;
const lettersIn = (text: string) => text.replaceAll(/[\s\p{P}]+/gu, '').length;

/** What differs inside a text, in whole words. */
export function stretchesOf(was: string, is: string): Stretch[] {
	const parts = was.length + is.length > LONGEST ? undefined : diffWordsWithSpace(was, is, { maxEditLength: FURTHEST });
	const kept = (parts ?? [])
		.filter(({ added, removed }) => !added && !removed)
		.reduce((sum, { value }) => sum + lettersIn(value), 0);
	// Where little stayed, two texts side by side say more than one that is made of both.
	if (!parts || kept < LEAST_KEPT * Math.min(lettersIn(was), lettersIn(is)))
		return [
			...(was === '' ? [] : [{ text: was, is: 'gone' } as const]),
			...(is === '' ? [] : [{ text: is, is: 'come' } as const])
		];
	return parts.map(({ value, added, removed }) => ({ text: value, is: added ? 'come' : removed ? 'gone' : 'same' }));
}

type Tag = HeadJson['tags'][number];

/** What a tag says beside its value: the language or the size that sets it apart from its like. */
function besides({ tag, attributes, value }: Tag): string {
	const said = Object.entries(attributes).filter(
		([name, text]) => !['name', 'property', 'rel'].includes(name) && text !== value && text !== tag
	);
	return said.map(([name, text]) => ` ${name} ${text}`).join('');
}
const nameOf = (tag: Tag) => tag.tag + besides(tag);
/** What a tag says, of those that may stand several times in their order. */
function saidBy(head: HeadJson | null): Map<string, string> {
	const said = new Map<string, string>();
	const counted = new Map<string, number>();
	for (const tag of head?.tags ?? []) {
		const name = nameOf(tag);
		const times = (counted.get(name) ?? 0) + 1;
		counted.set(name, times);
		said.set(times === 1 ? name : `${name} (${times})`, tag.value);
	}
	for (const where of ['before', 'after'] as const)
		if (head?.[where]?.length)
			said.set(wording.extraMarkup(where === 'before' ? wording.before : wording.after), head[where].join('\n'));
	return said;
}

/** What differs between two heads of a page, tag by tag, in the order of the second. */
export function changesOf(before: HeadJson | null, after: HeadJson | null): TagChange[] {
	const [was, is] = [saidBy(before), saidBy(after)];
	const changed = [...is].flatMap(([tag, text]): TagChange[] => {
		const old = was.get(tag);
		if (old === undefined) return [{ tag, kind: 'new', stretches: [{ text, is: 'come' }] }];
		return old === text ? [] : [{ tag, kind: 'changed', stretches: stretchesOf(old, text) }];
	});
	const gone = [...was].flatMap(([tag, text]): TagChange[] =>
		is.has(tag) ? [] : [{ tag, kind: 'gone', stretches: [{ text, is: 'gone' }] }]
	);
	return [...changed, ...gone, ...movedIn(was, is)];
}

/** Tags that say the same at another place, where both heads have the same tags: the fewest that had to move are not worked out. */
function movedIn(was: ReadonlyMap<string, string>, is: ReadonlyMap<string, string>): TagChange[] {
	const both = (of: ReadonlyMap<string, string>, other: ReadonlyMap<string, string>) =>
		[...of.keys()].filter((tag) => other.has(tag));
	const [old, now] = [both(was, is), both(is, was)];
	const first = now.findIndex((tag, at) => tag !== old[at]);
	return first < 0 ? [] : [{ tag: now[first] ?? '', kind: 'moved', stretches: [] }];
}

/** The card of a head as one reader draws it; nothing of a page that is not there. */
export const cardBy = (reader: ReaderProfile, head: HeadJson | null): Card | undefined =>
	head ? cardOf(reader, headOfJson(head)) : undefined;

/** Whether two cards look alike. */
export function looksAlike(one: Card | undefined, other: Card | undefined): boolean {
	const drawn = (card: Card | undefined) =>
		card &&
		JSON.stringify([
			card.title.shown,
			card.description.shown,
			card.pictures,
			card.host,
			card.crumbs,
			card.siteName,
			card.icon,
			card.pairs
		]);
	return drawn(one) === drawn(other);
}
