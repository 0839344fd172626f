import type { FieldKind } from '../model';
import { firstWords, settleAndClip, settleText, trimSpace } from '../text/text';
import { htmlToText } from '../markup/plainText';
import { formatDate, parseDate, unknownDateLetters } from './dates';
import { listFormat, numberFormat, pluralRules, safeLanguage } from './formatters';
import { isEmpty, isList, MAX_TEXT, toText, type Value } from './values';

/** What a filter takes and gives, for the static check. */
export type ValueKind = 'any' | 'text' | 'rich' | 'number' | 'date' | 'list';

interface ParameterSpec {
	readonly name: string;
	readonly kind: 'number' | 'text';
	readonly optional?: boolean;
	/** May be given any number of times; only the last parameter. */
	readonly many?: boolean;
	/** Says what is wrong with a value, or nothing. */
	readonly refuse?: (value: string | number) => string | undefined;
}

export interface FilterSpec {
	readonly takes: readonly ValueKind[];
	readonly gives: ValueKind;
	readonly parameters: readonly ParameterSpec[];
	readonly purpose: string;
	readonly run: (value: Value, args: readonly (string | number)[], language: string) => Value;
}

const limit: ParameterSpec = {
	name: 'limit',
	kind: 'number',
	refuse: (n) => (n === 0 ? 'a number of 1 or more' : undefined)
};
const CASES = ['upper', 'lower', 'sentence', 'title'];
const listOf = (value: Value): readonly Value[] =>
	isList(value) ? value.filter((v) => !isEmpty(v)) : isEmpty(value) ? [] : [value];
const NUMBER = /^[+-]?(\d+(?:\.\d*)?|\.\d+)(e[+-]?\d+)?$/i;
/** A number, or a text that is one with a decimal point; else NaN. */
function asNumber(value: Value): number {
	if (typeof value === 'number') return value;
	const text = trimSpace(toText(value));
	return NUMBER.test(text) ? Number(text) : NaN;
}

/** The filters by name. The order is the order in which they are offered. */
export const FILTERS: Readonly<Record<string, FilterSpec>> = {
	clip: {
		takes: ['any'],
		gives: 'text',
		parameters: [limit, { name: 'mark', kind: 'text', optional: true }],
		purpose: 'At most so many characters, cut at a word’s end.',
		run(value, [count, mark]) {
			const text = toText(value);
			// What fits as it is, fits when it is settled.
			if (text.length <= (count as number)) return text;
			return settleAndClip(text, count as number, mark as string | undefined);
		}
	},
	words: {
		takes: ['any'],
		gives: 'text',
		parameters: [limit],
		purpose: 'The first words.',
		run: (value, [count], language) => firstWords(settleText(toText(value)), count as number, language)
	},
	case: {
		takes: ['any'],
		gives: 'text',
		parameters: [
			{
				name: 'style',
				kind: 'text',
				refuse: (style) => (CASES.includes(String(style)) ? undefined : CASES.map((c) => `"${c}"`).join(', '))
			}
		],
		purpose: 'Upper, lower, sentence or title case, as the language writes it.',
		run: (value, [style], language) => changeCase(toText(value), String(style), safeLanguage(language))
	},
	date: {
		takes: ['date', 'text'],
		gives: 'text',
		parameters: [
			{
				name: 'pattern',
				kind: 'text',
				refuse: (pattern) => {
					const letters = unknownDateLetters(String(pattern));
					return letters && `a pattern such as "d MMMM y" ("${letters}" means nothing in it)`;
				}
			}
		],
		purpose: 'A date by a pattern such as "d MMMM y", in the page’s language.',
		run: (value, [pattern], language) => {
			const date = parseDate(toText(value));
			return date && formatDate(date, String(pattern), safeLanguage(language));
		}
	},
	number: {
		takes: ['number', 'text'],
		gives: 'text',
		parameters: [
			{
				name: 'decimals',
				kind: 'number',
				optional: true,
				refuse: (n) => (Number(n) > 20 ? 'a number up to 20' : undefined)
			}
		],
		purpose: 'A number as the language writes it.',
		run: (value, [decimals], language) => {
			const digits =
				decimals === undefined
					? {}
					: { minimumFractionDigits: decimals as number, maximumFractionDigits: decimals as number };
			const number = asNumber(value);
			return Number.isFinite(number) ? numberFormat(safeLanguage(language), digits).format(number) : undefined;
		}
	},
	money: {
		takes: ['number', 'text'],
		gives: 'text',
		parameters: [
			{
				name: 'currency',
				kind: 'text',
				refuse: (code) =>
					/^[A-Z]{3}$/.test(String(code)) ? undefined : 'a currency code of three capitals (ISO 4217), such as "EUR"'
			}
		],
		purpose: 'An amount in a currency.',
		run: (value, [currency], language) => {
			const number = asNumber(value);
			const format = numberFormat(safeLanguage(language), { style: 'currency', currency: String(currency) });
			return Number.isFinite(number) ? format.format(number) : undefined;
		}
	},
	plural: {
		takes: ['number', 'text', 'list'],
		gives: 'text',
		parameters: [{ name: 'forms', kind: 'text', many: true }],
		purpose:
			'The word that fits the number: one form for each plural category of the language, in the standard’s order.',
		run: (value, forms, language) => {
			const number = Array.isArray(value) ? listOf(value).length : asNumber(value);
			return Number.isFinite(number) ? String(pluralForm(number, forms, safeLanguage(language))) : undefined;
		}
	},
	join: {
		takes: ['list', 'text'],
		gives: 'text',
		parameters: [
			{ name: 'between', kind: 'text', optional: true },
			{ name: 'last', kind: 'text', optional: true }
		],
		purpose: 'A list as one text; without words of your own, as the language lists things.',
		run: (value, [between, last], language) =>
			joinList(listOf(value).map(toText), between, last, safeLanguage(language))
	},
	first: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [{ ...limit, optional: true }],
		purpose: 'The first of a list, or the first so many.',
		run: (value, [count]) => listOf(value).slice(0, (count as number) ?? 1) as Value
	},
	last: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [{ ...limit, optional: true }],
		purpose: 'The last of a list, or the last so many.',
		run: (value, [count]) => listOf(value).slice(-((count as number) ?? 1)) as Value
	},
	plain: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'Rich text without its markup.',
		run: (value) => htmlToText(toText(value))
	},
	hashtags: {
		takes: ['list', 'text'],
		gives: 'text',
		parameters: [],
		purpose: 'A list as words that begin with the number sign.',
		run: (value) =>
			listOf(value)
				.map((item) => toText(item).replace(/[^\p{L}\p{M}\p{N}_]+/gu, ''))
				.filter(Boolean)
				.map((word) => `#${word}`)
				.join(' ')
	},
	replace: {
		takes: ['any'],
		gives: 'text',
		parameters: [
			{ name: 'this', kind: 'text', refuse: (text) => (text === '' ? 'a text to look for' : undefined) },
			{ name: 'by', kind: 'text' }
		],
		purpose: 'Every place of one text by another.',
		run: (value, [old, by]) => replaceWithin(toText(value), String(old), String(by))
	}
};

/** The kinds of field a filter can be fed with, as the check sees them. */
export function kindOfField(kind: FieldKind): ValueKind {
	if (kind === 'number' || kind === 'date' || kind === 'list' || kind === 'rich') return kind;
	return kind === 'pictures' ? 'list' : 'text';
}

/** Runs one filter on a value; texts are cut to `MAX_TEXT` on the way in, so that work stays bounded. */
export function runFilter(spec: FilterSpec, value: Value, args: readonly (string | number)[], language: string): Value {
	if (isEmpty(value)) return undefined;
	return spec.run(typeof value === 'string' ? value.slice(0, MAX_TEXT) : value, args, language);
}

/** A word that begins with a letter: in "3rd" nothing does. */
const WORD = /(?<![\p{L}\p{M}\p{N}'’])\p{L}[\p{L}\p{M}\p{N}'’]*/gu;
const FIRST_WORD = /^([^\p{L}\p{N}]*)(\p{L})/u;

function changeCase(text: string, style: string, language: string): string {
	if (style === 'upper') return text.toLocaleUpperCase(language);
	if (style === 'lower') return text.toLocaleLowerCase(language);
	const capital = (word: string) => {
		const [first = ''] = word;
		return first.toLocaleUpperCase(language) + word.slice(first.length);
	};
	if (style === 'sentence')
		return text.replace(FIRST_WORD, (_, before: string, word: string) => before + capital(word));
	return text.replace(WORD, capital);
}

/** Plural categories in the order of the locale data standard (UTS #35 part 3, Language Plural Rules). */
const CATEGORIES = ['zero', 'one', 'two', 'few', 'many', 'other'];

/** The categories that a language has, in the standard's order. */
const categoriesOf = (language: string) => {
	const has = pluralRules(language).resolvedOptions().pluralCategories;
	return CATEGORIES.filter((category) => has.includes(category as Intl.LDMLPluralRule));
};

/**
 * With a form for each category, each stands for its own. With fewer, the last stands for all that are left, and the
 * category `zero`, which few languages have, is the first to be left: "walk" "walks" serves any language.
 */
function pluralForm(number: number, forms: readonly (string | number)[], language: string): string | number {
	const all = categoriesOf(language);
	const used = forms.length < all.length ? all.filter((category) => category !== 'zero') : all;
	const at = used.indexOf(pluralRules(language).select(number));
	return forms[at < 0 ? forms.length - 1 : Math.min(at, forms.length - 1)] ?? '';
}

/** Whole numbers up to this are what pages count; what a language does beyond (French has a form for millions) is not asked for. */
const COUNTED = 120;

/** The categories that whole numbers take in a language: a plural needs a form for each to be right. */
export function formsNeeded(language: string): readonly string[] {
	const rules = pluralRules(safeLanguage(language));
	const taken = new Set(Array.from({ length: COUNTED + 1 }, (_, number) => rules.select(number)));
	return CATEGORIES.filter((category) => taken.has(category as Intl.LDMLPluralRule));
}

function joinList(
	items: readonly string[],
	between: string | number | undefined,
	last: string | number | undefined,
	language: string
): string {
	if (between === undefined) return listFormat(language).format(items);
	if (last === undefined || items.length < 2) return items.join(String(between));
	return items.slice(0, -1).join(String(between)) + String(last) + items.at(-1);
}

function replaceWithin(text: string, old: string, by: string): string {
	let out = '';
	let from = 0;
	for (let at = text.indexOf(old); at >= 0 && out.length < MAX_TEXT; at = text.indexOf(old, from)) {
		out += text.slice(from, at) + by;
		from = at + old.length;
	}
	return out + text.slice(from);
}
