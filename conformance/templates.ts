import { FILTERS, type FieldValue } from '$core';
import type { Chance } from './chance';
import { ADDRESSES, DATES, TEXTS } from './values';

/** Templates made by chance, with every sign and filter of the language, and records for them. */

export const TEMPLATE_LANGUAGES = [
	...['en', 'en-GB', 'fr', 'fr-CH', 'de', 'de-AT', 'es', 'es-MX', 'it', 'pt', 'pt-PT', 'nl', 'da', 'nb', 'sv', 'fi'],
	...['pl', 'cs', 'sl', 'hu', 'ro', 'el', 'ru', 'uk', 'tr', 'ar', 'he', 'hi', 'th', 'ja', 'ko', 'zh-Hant-TW']
];

const FIELDS = [
	'text',
	'other',
	'number',
	'price',
	'date',
	'end',
	'flag',
	'stock',
	'list',
	'people',
	'code',
	'missing'
];
const ARGUMENTS: Readonly<Record<string, readonly string[]>> = {
	case: ['"upper"', '"lower"', '"sentence"', '"title"'],
	date: ['"short"', '"medium"', '"long"', '"full"', '"d MMMM y"', '"EEE d. MMM, HH:mm"'],
	zone: ['"Europe/Paris"', '"America/New_York"', '"Asia/Kathmandu"'],
	money: ['"EUR"', '"JPY" "short"', 'page.code'],
	unit: ['"kilometer"', '"minute" "long"', '"kilometer-per-hour" "narrow"'],
	named: ['"language"', '"country"', '"currency"', '"script"'],
	to: ['page.end', 'page.price', '25', '"2026-05-09"', 'page.missing'],
	each: ['"name"', '"handle"', '"none"'],
	some: ['1', '2 "and {n} more"'],
	within: ['5', '20 "+{n}"', '200'],
	plural: ['"one" "many"', '"a" "b" "c"', '"x"'],
	is: ['"in-stock"', '0 5', 'page.other'],
	unless: ['page.other', '"Heath"'],
	replace: ['"e" "E"', '"x" ""']
};
const PLAIN = ['', '', '1', '7', '40', '0', '"a"', '"Ember " " – "', 'page.number', 'page.text', 'now'];

const filterBy = (chance: Chance): string => {
	const name = chance.pick(Object.keys(FILTERS));
	if (chance.is(2)) return ` | ${name} ${chance.pick(PLAIN)}`.trimEnd();
	const [usual = ''] = FILTERS[name]!.example[1].slice(name.length + 1).split(' |');
	return ` | ${name} ${chance.pick([usual, ...(ARGUMENTS[name] ?? [])])}`.trimEnd();
};

const termBy = (chance: Chance): string =>
	chance.is(80)
		? `page.${chance.pick(FIELDS)}`
		: chance.pick(['site.name', 'type.one', 'type.many', 'words.book', 'piece.line', 'piece.circle', 'now', '"so"']);

function placeholderBy(chance: Chance): string {
	const terms = Array.from({ length: chance.is(80) ? 1 : 2 }, () => termBy(chance)).join(' ?? ');
	const filters = Array.from({ length: chance.below(4) }, () => filterBy(chance)).join('');
	return `{${terms}${filters}${chance.is(15) ? '?' : ''}}`;
}

function partBy(chance: Chance, depth: number): string {
	const at = chance.below(100);
	if (at < 45) return placeholderBy(chance);
	if (at < 60) return chance.pick([' in ', ', ', ' – ', 'Walks', ' \\{x\\} ', '海', ' ']);
	if (at < 68) return chance.pick(['{separator}', ' {separator} ']);
	if (at < 70) return chance.pick(['{or}', '{goes 1}', '{goes 2}', '{fit 30}', ']]']);
	if (at < 71) return chance.pick(['{', '{x', '{page.text |}']);
	if (depth > 3) return 'x';
	const stretch = () => `[[${chance.is(20) ? `{goes ${1 + chance.below(3)}}` : ''}${someBy(chance, depth + 1)}]]`;
	return at < 88
		? stretch()
		: Array.from({ length: 2 + chance.below(2) }, stretch).join(chance.pick(['{or}', ' {or} ']));
}

const someBy = (chance: Chance, depth: number): string =>
	Array.from({ length: 1 + chance.below(3) }, () => partBy(chance, depth)).join('');

/** A template; most say how long they may be, and few cannot be read. */
export const templateBy = (chance: Chance): string =>
	(chance.is(30) ? chance.pick(['{fit 12}', '{fit 40}', '{fit 90}', '{fit 300 px}', '{fit 1}']) : '') +
	someBy(chance, 0);

/** A record for such templates, legal or not. */
export function recordBy(chance: Chance): Record<string, FieldValue> {
	const text = () => chance.pick(TEXTS);
	const person = () => ({ name: text(), ...chance.maybe(50, () => ({ handle: '@ember' })) });
	const make: Record<string, () => FieldValue> = {
		text,
		other: text,
		number: () => chance.pick([0, 1, 2, 3, 5, 21, 100, 1234.567, -1.5, 1e21, '12', 'x']),
		price: () => chance.pick([0, 4.5, 20, 1999, '15.00', -3]),
		date: () => chance.pick(DATES),
		end: () => chance.pick([...DATES, '2026-05-05', '2026-06-01T08:00']),
		flag: () => chance.is(50),
		stock: () => chance.pick(['in-stock', 'sold-out', 'odd', '']),
		list: () => chance.some(TEXTS, 5),
		people: () => Array.from({ length: chance.below(4) }, person),
		code: () => chance.pick(['EUR', 'GBP', 'fr', 'DE', 'zh-Hant', 'nonsense', ...ADDRESSES.slice(0, 2)])
	};
	return Object.fromEntries(Object.entries(make).flatMap(([name, value]) => (chance.is(85) ? [[name, value()]] : [])));
}

/** The site and the type that they stand in. */
export const TEMPLATE_WORLD = {
	site: {
		...{ name: 'Ember Heath', base: 'https://heath.example/', languages: ['en', 'fr'], separator: '·' },
		...{ fields: { tagline: 'A heath by the sea' }, timeZone: 'Europe/Paris', rules: [] },
		words: { book: { en: 'Book now', fr: 'Réserver' } },
		pieces: { line: '{page.text}[[, {page.price | money "EUR" "short"}]]', circle: '{piece.circle}x' }
	},
	type: {
		...{ name: 't', label: 'Walk', rules: [] },
		names: { one: { en: 'Walk', fr: 'Promenade' }, many: { en: 'Walks', fr: 'Promenades' } },
		fields: [
			{
				...{ name: 'stock', kind: 'choice' as const },
				words: [
					{ is: 'in-stock', words: { en: 'In stock', fr: 'En stock' } },
					{ is: 'sold-out', words: { en: 'Sold out' } }
				]
			},
			{ name: 'flag', kind: 'flag' as const, words: [{ is: true, words: { en: 'Free', fr: 'Gratuit' } }] },
			{
				...{ name: 'number', kind: 'number' as const },
				words: [
					{ is: 0, words: { en: 'none left' } },
					{ from: 1, to: 5, words: { en: 'only {n} left', fr: 'plus que {n}' } }
				]
			}
		]
	},
	now: '2026-05-03T10:00:00Z'
} as const;
