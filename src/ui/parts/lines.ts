import { wording } from '$ui/words/en/parts';
import equal from 'fast-deep-equal';
import {
	findTag,
	headToJson,
	pictureOfValue,
	type Card,
	type Head,
	type HeadJson,
	type Layer,
	type Trace
} from '$core';

/** The signs that tell where a value came from. */
export type LayerSign = Layer | 'found';

/** One line of the head as the bench shows it. */
export interface HeadLine {
	readonly tag: string;
	readonly value: string;
	readonly trace: Trace;
	/** The layer that won, or what was found in the page's own file. */
	readonly sign: LayerSign | undefined;
	/** What visitors see now; undefined when the tag is not in the release. */
	readonly released: string | undefined;
	readonly isChanged: boolean;
	/** For a picture: what is known of it and written with it. */
	readonly facts: string | undefined;
	/** The tag that it only repeats. */
	readonly echoes: string | undefined;
}

/** The groups of tags on the bench, in their order. */
export const GROUPS = [
	{
		get name() {
			return wording.searchAndBrowser;
		},
		holds: 'search'
	},
	{
		get name() {
			return wording.sharingOpenGraph;
		},
		holds: 'og'
	},
	{
		get name() {
			return wording.sharingTwitterCard;
		},
		holds: 'twitter'
	},
	{
		get name() {
			return wording.more;
		},
		holds: 'more'
	}
] as const;

const SEARCH = new Set(['title', 'description', 'canonical', 'robots', 'alternate', 'author']);

export function groupOf(tag: string): (typeof GROUPS)[number]['holds'] {
	const family = findTag(tag)?.family ?? 'plain';
	if (family !== 'plain') return family;
	return SEARCH.has(tag) ? 'search' : 'more';
}

/** The lines of a head: what it has, what the release has, and the tags of `always` even when they come to nothing. */
export function linesOf(
	head: Head,
	traces: readonly Trace[],
	release: HeadJson | null,
	always: readonly string[]
): HeadLine[] {
	const working = valuesByTag(headToJson(head));
	const released = release ? valuesByTag(release) : undefined;
	return traces.flatMap((trace) => {
		const [value, before] = [working.get(trace.tag), released?.get(trace.tag)];
		if (value === undefined && before === undefined && !always.includes(trace.tag)) return [];
		return [
			{
				tag: trace.tag,
				value: value ?? '',
				trace,
				sign: signOf(trace),
				released: before,
				isChanged: released !== undefined && value !== before,
				facts: factsOf(trace),
				echoes: echoOf(trace)
			}
		];
	});
}

function signOf({ steps, winner }: Trace): LayerSign | undefined {
	const step = steps[winner];
	return step?.rule.kind === 'found' ? 'found' : step?.layer;
}

function echoOf(trace: Trace): string | undefined {
	const rule = trace.steps[trace.winner]?.rule;
	if (rule?.kind !== 'built-in' || !trace.tag.startsWith('twitter:')) return undefined;
	return rule.from?.startsWith('og:') ? rule.from : undefined;
}

function factsOf(trace: Trace): string | undefined {
	const picture = pictureOfValue(trace.value);
	if (!picture) return undefined;
	const { width, height, type, alt } = picture;
	const size = width && height ? `${width} × ${height}` : undefined;
	// Nobody reads the words of an icon.
	if (!trace.tag.endsWith(':image')) return size;
	return [size ?? wording.sizeUnknown, type?.replace('image/', ''), alt ?? wording.noAltText]
		.filter(Boolean)
		.join(', ');
}

function valuesByTag(head: HeadJson): Map<string, string> {
	const values = new Map<string, Set<string>>();
	// What is said of two pictures alike stands once.
	for (const { tag, value } of head.tags) values.set(tag, (values.get(tag) ?? new Set()).add(value));
	return new Map([...values].map(([tag, all]) => [tag, [...all].join(', ')]));
}

/** The tags in which one head differs from another, with what the other says. */
export function differencesOf(mine: HeadJson, other: HeadJson): ReadonlyMap<string, string> {
	const [here, there] = [valuesByTag(mine), valuesByTag(other)];
	const names = [...new Set([...here.keys(), ...there.keys()])];
	return new Map(
		names.filter((name) => here.get(name) !== there.get(name)).map((name) => [name, there.get(name) ?? ''])
	);
}

/** A list made anew again and again, in which what is the same as before is the same object. */
export class Stable<T extends object> {
	private before = new Map<string, T>();
	constructor(
		private readonly keyOf: (item: T) => string,
		private readonly isSame: (a: T, b: T) => boolean
	) {}

	of(items: readonly T[]): T[] {
		const kept = items.map((item) => {
			const old = this.before.get(this.keyOf(item));
			return old && this.isSame(old, item) ? old : item;
		});
		this.before = new Map(kept.map((item) => [this.keyOf(item), item]));
		return kept;
	}
}

/** Whether two lines are drawn alike; their traces are asked for by themselves. */
export const sameLine = (a: HeadLine, b: HeadLine): boolean =>
	a.value === b.value &&
	a.sign === b.sign &&
	a.released === b.released &&
	a.isChanged === b.isChanged &&
	a.facts === b.facts &&
	a.echoes === b.echoes;

/** Whether two cards of the same reader are drawn alike. */
export const sameCard = (a: Card, b: Card): boolean => equal(a, b);
