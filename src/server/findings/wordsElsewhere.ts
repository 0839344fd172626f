import { finding, languageChain, ownWords, type Rule, type Trace } from '$core';
import { workingResolver } from '../heads/heads';
import { publicCounts, publicPaths } from '../store/table/languages';
import type { Store, StoredSite } from '../store/store';
import type { WholeFinding } from './wholeFinding';

/** Pages of one type and language that are looked at: whether a rule is in force there, only its trace tells. */
const LOOKED_AT = 50;

/** Tags that say in words what they are for; names, handles and the like are the same in every language. */
const IN_WORDS =
	/^(?:title|description|keywords|og:title|og:description|twitter:title|twitter:description|(?:og|twitter):image:alt|twitter:(?:label|data)[12])$/;

const mainOf = (language: string) => language.toLowerCase().split('-')[0]!;

/** A template with words of its own, at a type or at the site, for pages of any language. */
interface Worded {
	readonly rule: Rule & { readonly kind: 'template' };
	readonly layer: 'type' | 'site';
	/** The type that it stands at. */
	readonly type?: string;
	readonly of: string;
	readonly words: readonly string[];
	/** All that its layer says of the tag. */
	readonly beside: readonly Rule[];
}

/**
 * Templates whose own words are in the site's language, that pages in another go out with. Whether they do is looked at: of
 * each type and language so many pages. A type whose pages are all in one other language is written in that.
 */
export function findWordsElsewhere(store: Store, stored: StoredSite): WholeFinding[] {
	const { id, site, types } = stored;
	const main = mainOf(site.languages[0] ?? '');
	const counts = publicCounts(store.db, id, site.languages[0] ?? '');
	const foreign = counts.filter(({ language }) => mainOf(language) !== main);
	if (main === '' || foreign.length === 0) return [];
	const worded = [
		...types.flatMap((type) =>
			counts.some((one) => one.type === type.name && mainOf(one.language) === main)
				? wordedIn(type.rules, { layer: 'type', type: type.name, of: `every ${type.label ?? type.name}`.toLowerCase() })
				: []
		),
		...wordedIn(site.rules, { layer: 'site', of: 'the whole site' })
	];
	if (worded.length === 0) return [];
	const tracesAt = traced(store, stored);
	return worded.flatMap((one) => {
		const byLanguage = new Map<string, { paths: string[]; isMore: boolean; isBegun: boolean }>();
		for (const { type, language, pages } of foreign) {
			if (one.type !== undefined && one.type !== type) continue;
			const own = ruleFor(one.beside, language);
			const isBegun = own !== undefined && own !== one.rule;
			// A rule of its own that says other words is what is wanted.
			if (isBegun && !saysTheSame(own, one)) continue;
			const paths = publicPaths(store.db, id, type, language, LOOKED_AT).filter((path) =>
				goesOutWith(tracesAt(path), one, isBegun ? own : one.rule)
			);
			if (paths.length === 0) continue;
			const before = byLanguage.get(language) ?? { paths: [], isMore: false, isBegun };
			before.paths.push(...paths);
			byLanguage.set(language, { ...before, isMore: before.isMore || pages > LOOKED_AT });
		}
		const { rule, of, words } = one;
		return [...byLanguage].map(([language, { paths, isMore, isBegun }]): WholeFinding => {
			const data = { tag: rule.tag, of, words: words.join(' … '), language, pages: paths.length, isMore, isBegun };
			return { finding: finding('words-elsewhere', { of: 'site' }, rule.tag, data), pages: paths.length, paths };
		});
	});
}

function wordedIn(rules: readonly Rule[], at: Pick<Worded, 'layer' | 'type' | 'of'>): Worded[] {
	return rules.flatMap((rule) => {
		if (rule.kind !== 'template' || rule.language !== undefined || !IN_WORDS.test(rule.tag)) return [];
		const words = ownWords(rule.template);
		return words.length > 0 ? [{ ...at, rule, words, beside: rules.filter(({ tag }) => tag === rule.tag) }] : [];
	});
}

/** Of several rules for a tag, the one for a language (R1). */
const ruleFor = (rules: readonly Rule[], language: string): Rule | undefined =>
	languageChain(language)
		.map((step) => rules.find((rule) => (rule.language ?? '').toLowerCase() === step))
		.find((rule) => rule !== undefined);

const saysTheSame = (own: Rule, { words }: Worded) =>
	own.kind === 'template' && ownWords(own.template).join('\n') === words.join('\n');

/** What the tags of a page in words came to, by its path; each page is looked at once, however many rules are asked for there. */
function traced(store: Store, stored: StoredSite): (path: string) => readonly Trace[] {
	const resolver = workingResolver(store, stored);
	const known = new Map<string, readonly Trace[]>();
	return (path) => {
		const page = known.has(path) ? undefined : store.working.pages.at(stored.id, path);
		if (page)
			known.set(
				path,
				resolver.resolveWithTrace(page).traces.filter(({ tag }) => IN_WORDS.test(tag))
			);
		return known.get(path) ?? [];
	};
}

/** Whether a rule is what a page says a tag by, and its words are in what goes out. */
function goesOutWith(traces: readonly Trace[], { layer, words }: Worded, rule: Rule): boolean {
	const trace = traces.find(({ tag }) => tag === rule.tag);
	const step = trace?.steps[trace.winner];
	if (!trace || step?.layer !== layer || (step.language ?? '') !== (rule.language ?? '')) return false;
	const value = typeof trace.value === 'string' ? trace.value : '';
	return words.some((text) => value.includes(text));
}
