import type { FoundTag, FrameValue, Page } from '../model';
import { settleText } from '../text/text';
import { findFormulas, isMadeBy } from './formulas';
import { tagOfFound } from './found';

/** Which found values are a frame's, and no page's own (R13). */

/**
 * A value on this share of a site's pages in one language is a frame's: a fifth is more than any section of a real
 * site says on purpose, and less than what a theme writes everywhere. It takes a few pages to tell: of three, two may
 * well say the same.
 */
export const FRAME_SHARE = 0.2;
export const FRAME_LEAST = 4;
/** Of the pages of one folder, of one type, or whose heads are built alike, half is a frame's; it takes a few more. */
const GROUP_SHARE = 0.5;
const GROUP_LEAST = 8;

/** What a page says by itself, and not as a part of a site: a value that a part of it shares is that part's frame's. */
const OWN = new Set([
	...['description', 'abstract', 'keywords', 'canonical', 'og:title', 'og:description', 'og:url', 'og:image'],
	...['twitter:title', 'twitter:description', 'twitter:image']
]);
/** Texts that programs make by formulas. */
const MADE = new Set(['description', 'abstract', 'og:description', 'twitter:description']);
/** Of so many texts of a tag in a language formulas are looked for; of more, among every second, fourth … */
const MOST_TEXTS = 20_000;

const keyOf = (tag: string, language: string, value: string) => `${tag}\n${language.toLowerCase()}\n${value}`;

/** Looks up on how many pages a found value stands, when that makes it a frame's. */
export class FrameBook {
	private readonly counts: ReadonlyMap<string, number>;
	private readonly formulas = new Map<string, FrameValue[]>();

	constructor(frames: readonly FrameValue[] = []) {
		const whole = frames.filter(({ formula }) => formula !== true);
		this.counts = new Map(
			whole.map(({ tag, language, value, pages }) => [keyOf(tag, language, settleText(value)), pages])
		);
		for (const one of frames) {
			if (one.formula !== true) continue;
			const key = keyOf(one.tag, one.language, '');
			this.formulas.set(key, [...(this.formulas.get(key) ?? []), { ...one, value: settleText(one.value) }]);
		}
	}

	countOf(tag: string, language: string, value: string): number | undefined {
		if (this.counts.size === 0 && this.formulas.size === 0) return undefined;
		const text = settleText(value);
		const formulas = this.formulas.size === 0 ? undefined : this.formulas.get(keyOf(tag, language, ''));
		return this.counts.get(keyOf(tag, language, text)) ?? formulas?.find((one) => isMadeBy(text, one.value))?.pages;
	}
}

/** What is asked of a page to tell frames. */
export type FramedPage = Pick<Page, 'language' | 'found' | 'path' | 'type'>;

/** Values counted in a group of pages. */
interface Group {
	readonly language: string;
	pages: number;
}

/**
 * The found values of a site that are a frame's: those that stand on at least `FRAME_LEAST` pages and on `FRAME_SHARE` of
 * the pages of one language; of what a page says by itself, also those that stand on half of the pages of one folder, one
 * type, or with heads that say the same tags; and the formulas by which descriptions are made. What robots are told is
 * meant wherever it stands. A page without a language counts under `usual`. The pages are gone over twice. The order is
 * that of the tag, the language and the value; formulas come last.
 */
export function countFrames(pages: () => Iterable<FramedPage>, usual: string): FrameValue[] {
	const groups = new Map<string, Group>();
	// By key alone: of many pages nearly every value is another.
	const counts = new Map<string, number>();
	for (const page of pages()) {
		const { language = usual } = page;
		for (const name of groupsOf(page, language)) {
			const known = groups.get(name);
			if (known) known.pages++;
			else groups.set(name, { language, pages: 1 });
		}
		for (const key of keysOf(page, language)) counts.set(key, (counts.get(key) ?? 0) + 1);
	}
	const often = new Map([...counts].filter(([, count]) => count >= FRAME_LEAST));
	const inGroups = countInGroups(pages(), usual, often, groups);
	const isFrame = (key: string, count: number) => {
		const [, lower = ''] = key.split('\n');
		return count >= groups.get(lower)!.pages * FRAME_SHARE || inGroups.has(key);
	};
	const whole = [...often]
		.filter(([key, count]) => isFrame(key, count))
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([key, count]): FrameValue => {
			const [tag = '', lower = '', ...value] = key.split('\n');
			return { tag, language: groups.get(lower)!.language, value: value.join('\n'), pages: count };
		});
	return [
		...whole,
		...formulasIn(counts, new Set(whole.map(({ tag, language, value }) => keyOf(tag, language, value))), groups)
	];
}

/** The values of a page by their keys, each once. */
const keysOf = ({ found = [] }: FramedPage, language: string): ReadonlySet<string> =>
	new Set(found.map((one) => countedAs(one, language)).filter((key) => key !== undefined));

function countedAs(found: FoundTag, language: string): string | undefined {
	const tag = tagOfFound(found);
	const value = settleText(found.value);
	return !tag || tag.kind === 'directives' || value === '' ? undefined : keyOf(tag.name, language, value);
}

/** What a page stands among: all in its language, those of its folders and its type, and those whose heads say the same tags. */
function groupsOf({ path, type, found = [] }: FramedPage, language: string): string[] {
	const lower = language.toLowerCase();
	const parts = path.replace(/\/$/, '').split('/').slice(1, -1);
	const folders = parts.map((_, at) => `${lower} folder /${parts.slice(0, at + 1).join('/')}`);
	const built = [...new Set(found.map(({ name }) => String(name).toLowerCase()))].sort().join(' ');
	return [lower, ...folders, `${lower} type ${type}`, ...(built === '' ? [] : [`${lower} built ${built}`])];
}

/** The keys that stand on half of a group that they stand in. */
function countInGroups(
	pages: Iterable<FramedPage>,
	usual: string,
	often: ReadonlyMap<string, number>,
	groups: ReadonlyMap<string, Group>
): ReadonlySet<string> {
	const counts = new Map<string, number>();
	for (const page of pages) {
		const { language = usual } = page;
		const own = [...keysOf(page, language)].filter((key) => often.has(key) && OWN.has(key.slice(0, key.indexOf('\n'))));
		if (own.length === 0) continue;
		for (const name of groupsOf(page, language).slice(1))
			for (const key of own) {
				const both = `${name}\t${key}`;
				counts.set(both, (counts.get(both) ?? 0) + 1);
			}
	}
	const found = new Set<string>();
	for (const [both, count] of counts) {
		const at = both.indexOf('\t');
		const size = groups.get(both.slice(0, at))!.pages;
		if (count >= GROUP_LEAST && count >= size * GROUP_SHARE) found.add(both.slice(at + 1));
	}
	return found;
}

/** The formulas of each tag and language, by what stands on few pages. */
function formulasIn(
	counts: ReadonlyMap<string, number>,
	known: ReadonlySet<string>,
	groups: ReadonlyMap<string, Group>
): FrameValue[] {
	const texts = new Map<string, { texts: string[]; step: number; seen: number }>();
	for (const key of counts.keys()) {
		const [tag = '', lower = '', ...value] = key.split('\n');
		if (!MADE.has(tag) || known.has(key)) continue;
		const one = texts.get(`${tag}\n${lower}`) ?? { texts: [], step: 1, seen: 0 };
		texts.set(`${tag}\n${lower}`, one);
		if (one.seen++ % one.step === 0) one.texts.push(value.join('\n'));
		if (one.texts.length <= MOST_TEXTS) continue;
		one.texts = one.texts.filter((_, at) => at % 2 === 0);
		one.step *= 2;
	}
	return [...texts]
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.flatMap(([key, { texts: some, step }]) => {
			const [tag = '', lower = ''] = key.split('\n');
			const { language } = groups.get(lower)!;
			return findFormulas(some).map(({ formula, texts: made }): FrameValue => ({
				...{ tag, language, value: formula, pages: made * step, formula: true }
			}));
		});
}
