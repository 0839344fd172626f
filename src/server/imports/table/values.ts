import { canonicalLanguage, PAGE_STATES, parseUrl, type FieldValue, type Page } from '$core';

/** What a column's cells are. */
export const CELL_KINDS = [
	'text',
	'rich',
	'number',
	'date',
	'flag',
	'list',
	'picture',
	'person',
	'link',
	'state',
	'language'
] as const;
export type CellKind = (typeof CELL_KINDS)[number];

/** How the cells of a column are read. */
export interface Reading {
	readonly kind: CellKind;
	/** Of a date such as 3/4/2026: which of the first two is the day. */
	readonly dayFirst?: boolean;
	/** The sign before the decimals of a number. */
	readonly decimal?: ',' | '.';
	/** What parts a list. */
	readonly between?: string;
	/** It could as well be read the other way: someone should be asked. */
	readonly ambiguous?: string;
}

const YES = new Set([
	'yes',
	'y',
	'true',
	'on',
	'1',
	'x',
	'✓',
	'✔',
	'oui',
	'vrai',
	'ja',
	'wahr',
	'sí',
	'si',
	'verdadero',
	'sì',
	'vero',
	'sim',
	'verdadeiro',
	'waar',
	'tak',
	'ano',
	'да',
	'はい'
]);
const NO = new Set([
	'no',
	'n',
	'false',
	'off',
	'0',
	'✗',
	'non',
	'faux',
	'nein',
	'falsch',
	'falso',
	'não',
	'nee',
	'onwaar',
	'nie',
	'ne',
	'нет',
	'いいえ'
]);

const STATES: Readonly<Record<Page['state'], readonly string[]>> = {
	live: [
		'live',
		'published',
		'public',
		'publish',
		'online',
		'active',
		'publié',
		'en ligne',
		'veröffentlicht',
		'publicado',
		'pubblicato',
		'gepubliceerd',
		'公開'
	],
	draft: [
		'draft',
		'unpublished',
		'pending',
		'inactive',
		'offline',
		'brouillon',
		'entwurf',
		'borrador',
		'bozza',
		'rascunho',
		'concept',
		'下書き'
	],
	private: ['private', 'hidden', 'internal', 'privé', 'privat', 'intern', 'privado', 'privato', '非公開']
};

/** Months by their names, long and short, in the languages that people's tables are in; made for the first such date. */
let months: ReadonlyMap<string, number> | undefined;
const makeMonths = () =>
	new Map(
		['en', 'fr', 'de', 'es', 'it', 'nl', 'pt'].flatMap((language) =>
			Array.from({ length: 12 }, (_, month) => {
				const name = (width: 'long' | 'short') =>
					plain(new Intl.DateTimeFormat(language, { month: width, timeZone: 'UTC' }).format(Date.UTC(2026, month, 15)));
				return [[name('long'), month + 1] as const, [name('short'), month + 1] as const];
			}).flat()
		)
	);

/** In lower case, without accents and dots. */
export function plain(text: string): string {
	return text
		.toLowerCase()
		.normalize('NFD')
		.replace(/\p{M}+/gu, '')
		.replace(/\.$/, '')
		.trim();
}

const NUMERIC_DATE = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})(?:[ ,T]+(\d{1,2}:\d{2}(?::\d{2})?))?$/;
const ISO_DATE =
	/^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ](\d{2}:\d{2}(?::\d{2})?(?:\.\d+)?)\s*(Z|[+-]\d{2}:?\d{2})?)?$/;
const NAMED_DATE =
	/^(?:\p{L}+\.?,? +)?(?:(\d{1,2})(?:st|nd|rd|th|er|º|°|\.)? *(?:de +|of +)?(\p{L}+)\.?,? *(?:de +)?(\d{4})|(\p{L}+)\.? +(\d{1,2})(?:st|nd|rd|th)?,? +(\d{4}))$/iu;

/** A date (ISO 8601) of one that people write; undefined where it is none. Years of two digits are of this century to 68. */
export function toDate(text: string, dayFirst: boolean): string | undefined {
	const iso = ISO_DATE.exec(text);
	if (iso) return made(Number(iso[1]), Number(iso[2]), Number(iso[3]), iso[4], iso[5]);
	const numeric = NUMERIC_DATE.exec(text);
	if (numeric) {
		const [first, second, year] = [Number(numeric[1]), Number(numeric[2]), Number(numeric[3])];
		const whole = (numeric[3] as string).length === 2 ? year + (year > 68 ? 1900 : 2000) : year;
		const [day, month] = dayFirst ? [first, second] : [second, first];
		return made(whole, month, day, numeric[4]);
	}
	const named = NAMED_DATE.exec(text);
	if (!named) return undefined;
	const [day, name, year] = named[1] ? [named[1], named[2], named[3]] : [named[5], named[4], named[6]];
	const key = plain(name as string);
	months ??= makeMonths();
	const month = months.get(key) ?? [...months].find(([known]) => key.length >= 3 && known.startsWith(key))?.[1];
	return month === undefined ? undefined : made(Number(year), month, Number(day));
}

function made(year: number, month: number, day: number, time?: string, zone = ''): string | undefined {
	const date = new Date(0);
	// Not by `Date.UTC`, which takes the year 50 for 1950.
	date.setUTCFullYear(year, month - 1, day);
	if (date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return undefined;
	const whole = date.toISOString().slice(0, 10);
	return time === undefined ? whole : `${whole}T${time.padStart(5, '0')}${zone}`;
}

const NUMBER = /^[-+−]?\d[\d\s.,'’\u00a0\u202f]*$/;
/** A number with a sign or code of a currency on either side. White space at its end is the number's until it is taken off. */
const WITH_UNIT = /^(?:[$€£¥₣]|[A-Z]{3})?\s*([-+−]?\d[\d\s.,'’]*)(?:[$€£¥₣%]|[A-Z]{3})?$/;

/** A number with either decimal mark, also with a sign of a currency beside it; undefined where it is none. */
export function toNumber(text: string, decimal: ',' | '.'): number | undefined {
	const bare = WITH_UNIT.exec(text)?.[1]?.trimEnd();
	if (bare === undefined || !NUMBER.test(bare)) return undefined;
	const digits = bare.replace(/[\s'’\u00a0\u202f]/g, '').replace('−', '-');
	const plainNumber = decimal === ',' ? digits.replaceAll('.', '').replace(',', '.') : digits.replaceAll(',', '');
	const value = Number(plainNumber);
	return Number.isFinite(value) ? value : undefined;
}

const PICTURE = /\.(jpe?g|png|gif|webp|avif|svg|tiff?|bmp)(\?.*)?$/i;

/** What stands in a cell as a value of its kind; `why` where it is none, and the text stays. */
export function toCell(value: FieldValue, reading: Reading): { readonly value: FieldValue; readonly why?: string } {
	if (typeof value !== 'string') return { value };
	const text = value.trim();
	switch (reading.kind) {
		case 'date': {
			const date = toDate(text, reading.dayFirst ?? true);
			return date === undefined ? { value, why: 'is no date' } : { value: date };
		}
		case 'number': {
			const number = toNumber(text, reading.decimal ?? '.');
			return number === undefined ? { value, why: 'is no number' } : { value: number };
		}
		case 'flag': {
			const word = text.toLowerCase();
			if (YES.has(word)) return { value: true };
			return NO.has(word) ? { value: false } : { value, why: 'is neither yes nor no' };
		}
		case 'list':
			return {
				value: text
					.split(reading.between ?? /[,;|]/)
					.map((item) => item.trim())
					.filter(Boolean)
			};
		case 'picture':
			return isPicture(text)
				? { value: { src: text } }
				: { value: { src: text }, why: 'does not look like the address of a picture' };
		case 'person':
			return { value: { name: text } };
		case 'link':
			return parseUrl(text, 'https://site.invalid/') ? { value: text } : { value, why: 'is no address' };
		default:
			return { value: text };
	}
}

const isPicture = (text: string) => PICTURE.test(text) || (/^https?:\/\//i.test(text) && parseUrl(text) !== undefined);

/** The state that a word means. */
export function toState(text: string): Page['state'] | undefined {
	const word = text.trim().toLowerCase();
	return PAGE_STATES.find((state) => STATES[state].includes(word));
}

/** Names of languages in English and in themselves, with their tags; made for the first that is asked. */
let languageNames: ReadonlyMap<string, string> | undefined;
const makeLanguageNames = () =>
	new Map(
		'ar bg ca cs cy da de el en es et eu fa fi fr ga gl he hi hr hu id is it ja ko lt lv ms nb nl nn pl pt ro ru sk sl sq sr sv th tr uk ur vi zh'
			.split(' ')
			.flatMap((tag) =>
				['en', tag].map(
					(language) => [plain(new Intl.DisplayNames([language], { type: 'language' }).of(tag) ?? tag), tag] as const
				)
			)
	);

/** The language tag that a text is, also written with an underscore, or that it names. */
export function toLanguage(text: string): string | undefined {
	const named = (languageNames ??= makeLanguageNames()).get(plain(text));
	if (named) return named;
	const tag = canonicalLanguage(text.trim().replaceAll('_', '-'));
	// Longer ones are kept for registration: nobody has any.
	return tag && /^[a-z]{2,3}(-|$)/.test(tag) ? tag : undefined;
}

/** So many filled cells tell what a column holds, and this share of them must agree. */
const TELLING = 400;
const AGREE = 0.9;

/** How the cells of a column are best read, told from what they hold. */
export function guessReading(cells: readonly FieldValue[]): Reading {
	const texts = cells
		.filter((cell): cell is string => typeof cell === 'string' && cell.trim() !== '')
		.slice(0, TELLING)
		.map((text) => text.trim());
	if (texts.length === 0) return { kind: 'text' };
	const most = (fits: (text: string) => boolean) => texts.filter(fits).length >= texts.length * AGREE;
	if (most((text) => toDate(text, true) !== undefined || toDate(text, false) !== undefined))
		return { kind: 'date', ...dateOrder(texts) };
	if (
		most((text) => YES.has(text.toLowerCase()) || NO.has(text.toLowerCase())) &&
		texts.some((text) => !/^\d$/.test(text))
	)
		return { kind: 'flag' };
	if (most((text) => toNumber(text, '.') !== undefined || toNumber(text, ',') !== undefined))
		return { kind: 'number', ...decimalOf(texts) };
	if (most((text) => PICTURE.test(text))) return { kind: 'picture' };
	if (most((text) => /<(p|br|div|ul|ol|h[1-6]|a|em|strong|img)\b/i.test(text))) return { kind: 'rich' };
	if (most((text) => /^https?:\/\/\S+$/i.test(text))) return { kind: 'link' };
	for (const between of ['|', ';'])
		if (
			texts.filter((text) => text.includes(between)).length >= texts.length / 2 &&
			texts.every((text) => text.length < 300)
		)
			return { kind: 'list', between };
	return { kind: 'text' };
}

/** Which way round days and months stand: as all can be read; asked where both ways do. */
function dateOrder(texts: readonly string[]): Pick<Reading, 'dayFirst' | 'ambiguous'> {
	const numeric = texts.filter((text) => NUMERIC_DATE.test(text));
	if (numeric.length === 0) return {};
	// Nobody who parts them by points writes the month first.
	if (numeric.every((text) => /^\d+\.\d+\./.test(text))) return { dayFirst: true };
	const reads = (dayFirst: boolean) => numeric.filter((text) => toDate(text, dayFirst) !== undefined).length;
	const [day, month] = [reads(true), reads(false)];
	if (day !== month) return { dayFirst: day > month };
	return { dayFirst: true, ambiguous: `“${numeric[0]}” may be the day or the month first` };
}

/** The decimal mark of numbers: a comma or a point before other than three digits; asked where nothing tells. */
function decimalOf(texts: readonly string[]): Pick<Reading, 'decimal' | 'ambiguous'> {
	const bare = texts.map((text) => WITH_UNIT.exec(text)?.[1]?.trimEnd() ?? text);
	const tells = (mark: string, other: string) =>
		bare.some(
			(text) =>
				new RegExp(`\\${mark}(\\d{1,2}|\\d{4,})$`).test(text) ||
				new RegExp(`\\${other}\\d{3}\\${mark}`).test(text) ||
				(text.match(new RegExp(`\\${other}`, 'g')) ?? []).length > 1
		);
	const [comma, point] = [tells(',', '.'), tells('.', ',')];
	if (comma !== point) return { decimal: comma ? ',' : '.' };
	const odd = bare.find((text) => /[.,]/.test(text));
	return odd === undefined ? { decimal: '.' } : { decimal: '.', ambiguous: `“${odd}” may hold decimals or thousands` };
}
