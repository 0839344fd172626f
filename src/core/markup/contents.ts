import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { countGraphemes, settleText } from '../text/text';
import { textOf } from './plainText';

/** Names of what a page leads to, where a page is there to lead: those it lists, in their order, each once. */
export interface Contents {
	readonly names: readonly string[];
	/** How many there are in all. */
	readonly count: number;
}

/** Fewer are no contents; of more, so many names are kept. */
export const LEAST_NAMES = 3;
const MOST_NAMES = 60;
/** A name is so many letters long at most (graphemes): more is a sentence. */
const LONGEST_NAME = 60;
/** Names of programs' parts are for those who know them: with this share of them a list is an index, no contents. */
const MOST_CODE = 0.3;
const CODE = /[_$()<>{}\\]|::|\.\w+$|^\W|[a-z][A-Z]/;
const NUMBERED = /^(?:(?:chapter|section|appendix|part)\s+)?(?:\d+|[A-Z]|[IVXLC]+)(?:\.\d+)*[.:)]?\s+(?=\S)/i;

/** What the lists of a page's content lead to; undefined for a page that is no table of contents. */
export function contentsIn(elements: Iterable<Tree.Element>): Contents | undefined {
	const names = new Set<string>();
	let code = 0;
	for (const element of elements) {
		if (element.tagName !== 'li' && element.tagName !== 'dt') continue;
		const link = linkIn(element);
		const name = link === undefined ? '' : settleText(textOf(link)).replace(NUMBERED, '');
		if (name === '' || names.has(name) || countGraphemes(name) > LONGEST_NAME) continue;
		names.add(name);
		if (CODE.test(name)) code++;
	}
	if (names.size < LEAST_NAMES || code > names.size * MOST_CODE) return undefined;
	return { names: [...names].filter((name) => !CODE.test(name)).slice(0, MOST_NAMES), count: names.size };
}

/** The link that an item of a list begins with, to another page. */
function linkIn(item: Tree.Element): Tree.Element | undefined {
	const waiting: Tree.ChildNode[] = [...item.childNodes].reverse();
	for (let node = waiting.pop(); node; node = waiting.pop()) {
		if ('value' in node && settleText(node.value).length > 3) return undefined;
		if (!('tagName' in node) || /^(ul|ol|dl)$/.test(node.tagName)) continue;
		const href = node.tagName === 'a' ? node.attrs.find(({ name }) => name === 'href')?.value.trim() : undefined;
		if (href !== undefined) return href === '' || href.startsWith('#') ? undefined : node;
		for (let at = node.childNodes.length - 1; at >= 0; at--) waiting.push(node.childNodes[at] as Tree.ChildNode);
	}
	return undefined;
}

/** How a page says what it contains, by language: before the names, and behind them for those that are not named. */
const WORDS: ReadonlyMap<string, readonly [before: string, more: (count: number) => string]> = new Map([
	['en', ['Contains', (count: number) => `and ${count} more`]],
	['fr', ['Contient', (count: number) => (count === 1 ? 'et 1 autre' : `et ${count} autres`)]],
	['de', ['Enthält', (count: number) => (count === 1 ? 'und 1 weiteres' : `und ${count} weitere`)]],
	['es', ['Contiene', (count: number) => `y ${count} más`]],
	['it', ['Contiene', (count: number) => (count === 1 ? 'e 1 altro' : `e altri ${count}`)]],
	['pt', ['Contém', (count: number) => `e mais ${count}`]],
	['nl', ['Bevat', (count: number) => `en nog ${count}`]]
]);
/** The sentence is so long at most (graphemes). */
const LONGEST = 150;

/** What a page contains, in a sentence of its language; undefined in one that is not known. */
export function contentsInWords({ names, count }: Contents, language: string): string | undefined {
	const words = WORDS.get(language.toLowerCase().split('-', 1)[0] as string);
	if (!words || names.length === 0) return undefined;
	const [before, more] = words;
	const sentence = (some: readonly string[]) =>
		some.length === count
			? `${before} ${new Intl.ListFormat(language, { type: 'conjunction' }).format(some)}.`
			: `${before} ${some.join(', ')} ${more(count - some.length)}.`;
	for (let most = names.length; most > 0; most--) {
		const whole = sentence(names.slice(0, most));
		if (countGraphemes(whole) <= LONGEST) return whole;
	}
	return undefined;
}
