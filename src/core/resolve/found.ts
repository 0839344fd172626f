import { tagOfName } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import {
	FOUND_POLICIES,
	type ContentType,
	type FoundPolicies,
	type FoundPolicy,
	type FoundTag,
	type Layer,
	type Page,
	type Site
} from '../model';
import { ownOf } from '../own';
import { toText } from '../template/values';
import { settleText } from '../text/text';

/** What a page's own file said before Kephalon (R13): which values count, and where they stand. */

/** Names that were looked up: files use a few dozen, but data from outside may hold any number. */
const MOST_NAMES = 1000;
const tagsByName = new Map<string, TagDefinition | undefined>();

/**
 * The tag that a found name stands for, or undefined when found values are not taken for it: `title`, whose words are
 * the page's title already, the facts of pictures, which travel with their picture, and names that are no known tag.
 */
export function tagOfFound({ name }: FoundTag): TagDefinition | undefined {
	if (typeof name !== 'string') return undefined;
	if (!tagsByName.has(name)) {
		if (tagsByName.size >= MOST_NAMES) tagsByName.clear();
		tagsByName.set(name, lookUp(name));
	}
	return tagsByName.get(name);
}

function lookUp(name: string): TagDefinition | undefined {
	const tag = tagOfName(name);
	return !tag || tag.name === 'title' || tag.fact !== undefined ? undefined : tag;
}

/** A file says so much at most: what stands behind that is passed over. */
export const MOST_FOUND = 1000;

/** What a page's own file said, put in order once: by tag, and what it gives of each picture. */
export class FoundBook {
	/** The tags that it speaks of, each once, in the order of the file. */
	readonly tags: readonly TagDefinition[];
	/** How it calls the page. */
	readonly titles: readonly string[];
	private readonly byTag = new Map<string, FoundTag[]>();
	private readonly facts = new Map<string, Map<string, string>>();

	constructor(all: readonly FoundTag[]) {
		const found = all.slice(0, MOST_FOUND).flatMap(asText);
		const tags = new Set<TagDefinition>();
		/** The picture that each share tag named last: what it says of one stands behind it. */
		const named = new Map<string, Map<string, string>>();
		for (const one of found) {
			const tag = tagOfFound(one);
			if (tag) {
				tags.add(tag);
				const same = this.byTag.get(tag.name);
				if (same) same.push(one);
				else this.byTag.set(tag.name, [one]);
			}
			if (tag && PICTURE_ROOTS.includes(tag.name)) named.set(tag.name, this.factsAt(tag.name, one.value));
			else noteFact(one, named);
		}
		this.tags = [...tags];
		this.titles = found.filter(({ name }) => name === 'title').map(({ value }) => value);
	}

	of(tag: string): readonly FoundTag[] {
		return this.byTag.get(tag) ?? NO_FOUND;
	}

	/**
	 * What the file says of a picture that a tag names: behind that tag, up to the next of its name, whatever stands
	 * between; then behind the other share tag, where that names the same picture.
	 */
	factsOf(tag: string, source: string): Readonly<Partial<Record<string, string>>> {
		const roots = [tag, ...PICTURE_ROOTS.filter((root) => root !== tag)];
		const facts = roots.map((root) => this.facts.get(keyOfPicture(root, source)) ?? new Map<string, string>());
		return Object.fromEntries(facts.reverse().flatMap((one) => [...one]));
	}

	private factsAt(root: string, source: string): Map<string, string> {
		const key = keyOfPicture(root, source);
		const facts = this.facts.get(key) ?? new Map<string, string>();
		this.facts.set(key, facts);
		return facts;
	}
}

/** A found tag in data that no check has seen: its value is a text, and what is no record is none. */
function asText(found: FoundTag): FoundTag[] {
	if (typeof found !== 'object' || found === null) return [];
	return [typeof found.value === 'string' ? found : { ...found, value: toText(found.value) }];
}

/** The share tags that have facts of their picture behind them. */
const PICTURE_ROOTS: readonly string[] = ['og:image', 'twitter:image'];
const keyOfPicture = (root: string, source: string) => `${root}\n${settleText(source)}`;
const NO_FOUND: readonly FoundTag[] = [];

/** A fact goes to the picture that its tag's parent named last; the first of a name counts. */
function noteFact({ name, value }: FoundTag, named: ReadonlyMap<string, Map<string, string>>) {
	const lower = typeof name === 'string' ? name.toLowerCase() : '';
	const root = PICTURE_ROOTS.find((one) => lower.startsWith(`${one}:`));
	const facts = root && named.get(root);
	if (!facts) return;
	const [fact, text] = [lower.slice(root.length + 1), settleText(value)];
	if (text !== '' && !facts.has(fact)) facts.set(fact, text);
}

const books = new WeakMap<readonly FoundTag[], FoundBook>();

/** The book of a list of found tags; kept with the list, which is never changed in place. */
export function foundBook(found: readonly FoundTag[] = NO_FOUND): FoundBook {
	let book = books.get(found);
	if (!book) books.set(found, (book = new FoundBook(found)));
	return book;
}

/** What the layers say of found values of a tag, and which layer says so. The nearest that says anything decides. */
export function foundPolicyFor(
	tag: string,
	page: Page,
	type: ContentType | undefined,
	site: Site
): { readonly policy: FoundPolicy; readonly layer: Layer } {
	const layers = [
		['page', page.foundPolicy],
		['type', type?.foundPolicy],
		['site', site.foundPolicy]
	] as const;
	for (const [layer, policies] of layers) {
		const policy = policyIn(policies, tag);
		if (policy !== undefined) return { policy, layer };
	}
	return { policy: 'keep', layer: 'built-in' };
}

function policyIn(policies: FoundPolicies | undefined, tag: string): FoundPolicy | undefined {
	const tags = policies?.tags ?? {};
	const policy = Object.hasOwn(tags, tag) ? ownOf(tags, tag) : policies?.all;
	return FOUND_POLICIES.find((one) => one === policy);
}
