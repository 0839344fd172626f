import { keep, numberFormat, pluralRules, safeLanguage } from '../formatters';
import { withData } from '../../text/text';
import { isList, Range, toText, type Value } from '../values';
import { asNumber, limit, listOf, number, text, value, type ArgumentValue, type FilterSpec } from './spec';

const CURRENCY = /^[A-Z]{3}$/;
const decimals = number('decimals', {
	optional: true,
	refuse: (n) => (Number(n) > 20 ? 'a number up to 20' : undefined)
});

/** Units of ECMA-402 (section 6.6.2) that single ones are made of; two of them join by `-per-`. */
const UNITS = Intl.supportedValuesOf('unit');
const isUnit = (name: string) => {
	const parts = name.split('-per-');
	return parts.length <= 2 && parts.every((part) => UNITS.includes(part));
};
const WIDTHS = ['short', 'long', 'narrow'];

const digitsOf = (count: ArgumentValue): Intl.NumberFormatOptions =>
	count === undefined ? {} : { minimumFractionDigits: count as number, maximumFractionDigits: count as number };

/** A number, or from one to another, in a format; undefined for what is no number. */
function written(given: Value, language: string, options: Intl.NumberFormatOptions): string | undefined {
	const format = numberFormat(safeLanguage(language), options);
	if (!(given instanceof Range)) {
		const one = asNumber(given);
		return Number.isFinite(one) ? format.format(one) : undefined;
	}
	const [from, to] = [asNumber(given.from), asNumber(given.to)];
	if (!Number.isFinite(from) || !Number.isFinite(to)) return undefined;
	return from === to ? format.format(from) : format.formatRange(from, to);
}

/** Filters that write numbers, and those that count. */
export const NUMBER_FILTERS = {
	number: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [decimals],
		purpose: 'A number as the language writes it.',
		example: [1234.5, 'number', '1,234.5'],
		run: (given, [count], { language }) => written(given, language, digitsOf(count))
	},
	money: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [
			text('currency', {
				refuse: (code) =>
					CURRENCY.test(String(code)) ? undefined : 'a currency code of three capitals (ISO 4217), such as "EUR"'
			}),
			text('form', {
				optional: true,
				refuse: (form) => (form === 'short' ? undefined : '"short", without empty decimals')
			})
		],
		purpose: 'An amount in a currency; "short" leaves empty decimals out.',
		offered: '"EUR"',
		example: [20, 'money "EUR" "short"', '€20'],
		run: (given, [currency, form], { language }) =>
			written(given, language, {
				...{ style: 'currency', currency: toText(currency) },
				...(form === 'short' && { trailingZeroDisplay: 'stripIfInteger' })
			})
	},
	unit: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [
			text('unit', {
				refuse: (name) =>
					isUnit(String(name)) ? undefined : 'a unit such as "kilometer", "minute" or "kilometer-per-hour"'
			}),
			text('width', {
				optional: true,
				refuse: (width) => (WIDTHS.includes(String(width)) ? undefined : '"short", "long" or "narrow"')
			})
		],
		purpose: 'A number with its unit.',
		example: [12, 'unit "kilometer" "long"', '12 kilometers'],
		run: (given, [unit, width = 'short'], { language }) =>
			written(given, language, { style: 'unit', unit: toText(unit), unitDisplay: width as 'short' })
	},
	percent: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [decimals],
		purpose: 'A part of one in hundredths.',
		example: [0.25, 'percent', '25%'],
		run: (given, [count], { language }) => written(given, language, { style: 'percent', ...digitsOf(count) })
	},
	compact: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [],
		purpose: 'A large number in short.',
		example: [12400, 'compact', '12K'],
		run: (given, _, { language }) => written(given, language, { notation: 'compact' })
	},
	ordinal: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [],
		purpose: 'A number as one counts places: 1st, 2nd.',
		example: [2, 'ordinal', '2nd'],
		run: (given, _, { language }) => ordinal(asNumber(given), safeLanguage(language))
	},
	rating: {
		takes: ['number', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [limit],
		purpose: 'So much out of the best: 4.5 of 5.',
		example: [4.5, 'rating 5', '4.5 of 5'],
		run: (given, [best], { language }) => {
			const said = written(given, language, { maximumFractionDigits: 1 });
			return said && `${said}${OF.get(primaryOf(safeLanguage(language))) ?? '/'}${written(best, language, {})}`;
		}
	},
	to: {
		takes: ['number', 'date', 'text'],
		gives: 'any',
		isRaw: true,
		parameters: [value('end')],
		purpose: 'From this number or date to another, for a filter that writes them.',
		offered: 'page.end',
		example: [10, 'to 25 | money "EUR" "short"', '€10 – €25'],
		run: (given, [end]) => {
			const last = end;
			if (given instanceof Range || last instanceof Range || last === undefined || last === null || last === '')
				return given;
			return new Range(given ?? null, last);
		}
	},
	plural: {
		takes: ['number', 'text', 'list'],
		gives: 'text',
		isRaw: true,
		parameters: [text('forms', { many: true })],
		purpose:
			'The word that fits the number: one form for each plural category of the language, in the standard’s order.',
		offered: '"thing" "things"',
		example: [3, 'plural "walk" "walks"', 'walks'],
		run: (given, forms, { language }) => {
			const count = isList(given) ? listOf(given).length : asNumber(given);
			return Number.isFinite(count) ? pluralForm(count, forms.map(String), safeLanguage(language)) : undefined;
		}
	},
	named: {
		takes: ['text'],
		gives: 'text',
		isRaw: true,
		parameters: [
			text('kind', {
				refuse: (kind) => (KINDS.has(toText(kind)) ? undefined : '"language", "country", "currency" or "script"')
			})
		],
		purpose: 'The name of a language, a country, a currency or a script by its code.',
		example: ['FR', 'named "country"', 'France'],
		run: (given, [kind], { language }) => nameOf(toText(given).trim(), KINDS.get(toText(kind))!, safeLanguage(language))
	}
} satisfies Record<string, FilterSpec>;

const primaryOf = (language: string) => language.split('-', 1)[0] as string;

/** What stands between what was reached and the best; a stroke where no word is known. */
const OF: ReadonlyMap<string, string> = new Map([
	['en', ' of '],
	['fr', ' sur '],
	['de', ' von '],
	['es', ' de '],
	['pt', ' de '],
	['it', ' su '],
	['nl', ' van '],
	['da', ' af '],
	['nb', ' av '],
	['sv', ' av '],
	['pl', ' na ']
]);

/** What an ordinal ends with, by the category of the number (CLDR, ordinal plurals); a language not named has none here. */
const ENDINGS: ReadonlyMap<string, Readonly<Partial<Record<Intl.LDMLPluralRule, string>>>> = new Map([
	['en', { one: 'st', two: 'nd', few: 'rd', other: 'th' }],
	['fr', { one: 'er', other: 'e' }],
	['es', { other: '.º' }],
	['pt', { other: '.º' }],
	['it', { many: 'º', other: 'º' }],
	['nl', { other: 'e' }],
	['ca', { one: 'r', two: 'n', few: 't', other: 'è' }],
	['sv', { one: ':a', other: ':e' }],
	...['de', 'da', 'nb', 'nn', 'fi', 'pl', 'cs', 'sk', 'sl', 'hr', 'sr', 'hu', 'et', 'lv', 'tr', 'is'].map(
		(language): [string, Record<string, string>] => [language, { one: '.', two: '.', few: '.', many: '.', other: '.' }]
	)
]);

function ordinal(count: number, language: string): string | undefined {
	if (!Number.isInteger(count) || count < 0) return undefined;
	const said = numberFormat(language, {}).format(count);
	const endings = ENDINGS.get(primaryOf(language));
	if (!endings) return said;
	const rules = keep(
		`ordinal ${language}`,
		() => new Intl.PluralRules(withData(Intl.PluralRules, language), { type: 'ordinal' })
	);
	return said + (endings[rules.select(count)] ?? endings.other ?? '');
}

const KINDS: ReadonlyMap<string, Intl.DisplayNamesType> = new Map([
	['language', 'language'],
	['country', 'region'],
	['currency', 'currency'],
	['script', 'script']
]);

/** A name by its code; undefined for what is none. */
function nameOf(code: string, type: Intl.DisplayNamesType, language: string): string | undefined {
	const names = keep(
		`names ${type} ${language}`,
		() => new Intl.DisplayNames(withData(Intl.DisplayNames, language), { type, fallback: 'none' })
	);
	try {
		return names.of(
			type === 'language' ? code.replaceAll('_', '-') : code.toUpperCase().length === 4 ? code : code.toUpperCase()
		);
	} catch {
		return undefined;
	}
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
function pluralForm(count: number, forms: readonly string[], language: string): string {
	const all = categoriesOf(language);
	const used = forms.length < all.length ? all.filter((category) => category !== 'zero') : all;
	const at = used.indexOf(pluralRules(language).select(count));
	return forms[at < 0 ? forms.length - 1 : Math.min(at, forms.length - 1)] ?? '';
}

/** Whole numbers up to this are what pages count; what a language does beyond (French has a form for millions) is not asked for. */
const COUNTED = 120;

/** The categories that whole numbers take in a language: a plural needs a form for each to be right. */
export function formsNeeded(language: string): readonly string[] {
	const rules = pluralRules(safeLanguage(language));
	const taken = new Set(Array.from({ length: COUNTED + 1 }, (_, count) => rules.select(count)));
	return CATEGORIES.filter((category) => taken.has(category as Intl.LDMLPluralRule));
}
