import { countGraphemes, withData } from '../../text/text';
import { parseDate } from '../dates';
import { keep, listFormat, safeLanguage } from '../formatters';
import { partOf, toText, type Value } from '../values';
import { asNumber, limit, listOf, number, text, type FilterSpec } from './spec';

const words = (items: readonly Value[]) => items.map(toText);

/** Filters for lists. */
export const LIST_FILTERS = {
	count: {
		takes: ['list', 'text'],
		gives: 'number',
		isRaw: true,
		takesNothing: true,
		parameters: [],
		purpose: 'How many there are.',
		example: [['sea', 'sand'], 'count', '2'],
		run: (given) => listOf(given).length
	},
	each: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [text('part')],
		purpose: 'Of each item one part, such as the name of each person or the title of each page.',
		example: [[{ name: 'Ada Marrow' }, { name: 'Ben Holt' }], 'each "name" | join', 'Ada Marrow and Ben Holt'],
		run: (given, [part], context) =>
			listOf(given).map(
				(item) =>
					(typeof item === 'string' ? context.partOfPage(undefined, item, toText(part)) : partOf(item, toText(part))) ??
					''
			) as Value
	},
	first: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [{ ...limit, optional: true }],
		purpose: 'The first of a list, or the first so many.',
		example: [['sea', 'sand', 'salt'], 'first 2 | join', 'sea and sand'],
		run: (given, [count = 1]) => listOf(given).slice(0, count as number) as Value
	},
	last: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [{ ...limit, optional: true }],
		purpose: 'The last of a list, or the last so many.',
		example: [['sea', 'sand', 'salt'], 'last', 'salt'],
		run: (given, [count = 1]) => listOf(given).slice(-(count as number)) as Value
	},
	sorted: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [],
		purpose: 'In order: numbers by size, texts as the language sorts them.',
		example: [['sea', 'bay', 'cape'], 'sorted | join', 'bay, cape, and sea'],
		run: (given, _, { language }) => sorted(listOf(given), safeLanguage(language)) as Value
	},
	unique: {
		takes: ['list', 'text'],
		gives: 'list',
		parameters: [],
		purpose: 'Each item once, whatever its capitals.',
		example: [['Sea', 'sea', 'sand'], 'unique | join', 'Sea and sand'],
		run: (given) => {
			const seen = new Set<string>();
			return listOf(given).filter((item) => {
				const key = toText(item).toLowerCase();
				return !seen.has(key) && seen.add(key);
			}) as Value;
		}
	},
	least: {
		takes: ['list', 'number', 'date', 'text'],
		gives: 'any',
		isRaw: true,
		parameters: [],
		purpose: 'The least number, or the earliest date.',
		example: [[12, 7, '30'], 'least', '7'],
		run: (given) => inOrder(listOf(given))[0]
	},
	greatest: {
		takes: ['list', 'number', 'date', 'text'],
		gives: 'any',
		isRaw: true,
		parameters: [],
		purpose: 'The greatest number, or the latest date.',
		example: [[12, 7, '30'], 'greatest', '30'],
		run: (given) => inOrder(listOf(given)).at(-1)
	},
	sum: {
		takes: ['list', 'number', 'text'],
		gives: 'number',
		isRaw: true,
		parameters: [],
		purpose: 'All numbers together.',
		example: [[12, 7, '30'], 'sum', '49'],
		run: (given) => sum(numbersOf(given))
	},
	average: {
		takes: ['list', 'number', 'text'],
		gives: 'number',
		isRaw: true,
		parameters: [],
		purpose: 'The average of the numbers.',
		example: [[4, '5'], 'average | number 1', '4.5'],
		run: (given) => {
			const all = numbersOf(given);
			const whole = sum(all);
			return whole === undefined ? undefined : whole / all.length;
		}
	},
	join: {
		takes: ['list', 'text'],
		gives: 'text',
		parameters: [text('between', { optional: true }), text('last', { optional: true })],
		purpose: 'A list as one text; without words of your own, as the language lists things.',
		example: [['sea', 'sand', 'salt'], 'join', 'sea, sand, and salt'],
		run: (given, [between, last], { language }) =>
			joinList(words(listOf(given)), between as string, last as string, safeLanguage(language))
	},
	some: {
		takes: ['list', 'text'],
		gives: 'text',
		parameters: [limit, text('more', { optional: true })],
		purpose: 'The first so many, and how many more: {n} in the words stands for the number.',
		example: [['sea', 'sand', 'salt', 'wind'], 'some 2 "and {n} more"', 'sea, sand and 2 more'],
		run: (given, [count, more], { language }) =>
			someOf(words(listOf(given)), count as number, more as string | undefined, safeLanguage(language))
	},
	within: {
		takes: ['list', 'text'],
		gives: 'text',
		parameters: [number('characters', limit), text('more', { optional: true })],
		purpose: 'As many items as fit in so many characters, joined as the language joins.',
		offered: '60',
		example: [['sea', 'sand', 'salt', 'wind'], 'within 16 "and {n} more"', 'sea and 3 more'],
		run: (given, [room, more], { language }) =>
			within(words(listOf(given)), room as number, more as string | undefined, safeLanguage(language))
	},
	hashtags: {
		takes: ['list', 'text'],
		gives: 'text',
		parameters: [],
		purpose: 'A list as words that begin with the number sign.',
		example: [['low tide', 'sea'], 'hashtags', '#lowtide #sea'],
		run: (given) =>
			words(listOf(given))
				.map((item) => item.replace(/[^\p{L}\p{M}\p{N}_]+/gu, ''))
				.filter(Boolean)
				.map((word) => `#${word}`)
				.join(' ')
	}
} satisfies Record<string, FilterSpec>;

const numbersOf = (given: Value) => listOf(given).map(asNumber).filter(Number.isFinite);

/** Undefined without any, and where they come to more than a number can be. */
function sum(numbers: readonly number[]): number | undefined {
	if (numbers.length === 0) return undefined;
	// To twelve digits behind the point: halves of a cent that binary numbers make are none.
	const whole = Number(numbers.reduce((all, one) => all + one, 0).toFixed(12));
	return Number.isFinite(whole) ? whole : undefined;
}

/** Numbers and dates from the least to the greatest; what is neither is left out. Numbers, where there are both. */
function inOrder(items: readonly Value[]): Value[] {
	const numbers = items.filter((item) => Number.isFinite(asNumber(item)));
	if (numbers.length > 0) return numbers.sort((a, b) => asNumber(a) - asNumber(b));
	return items
		.flatMap((item) => {
			const date = parseDate(toText(item));
			return date ? [{ item, at: date.wall.getTime() }] : [];
		})
		.sort((a, b) => a.at - b.at)
		.map(({ item }) => item);
}

function sorted(items: readonly Value[], language: string): Value[] {
	if (items.every((item) => Number.isFinite(asNumber(item)))) return inOrder(items);
	const collator = keep(
		`collator ${language}`,
		() => new Intl.Collator(withData(Intl.Collator, language), { numeric: true })
	);
	return [...items].sort((a, b) => collator.compare(toText(a), toText(b)));
}

function joinList(items: readonly string[], between: string | undefined, last: string | undefined, language: string) {
	if (between === undefined) return listFormat(language).format(items);
	if (last === undefined || items.length < 2) return items.join(between);
	return items.slice(0, -1).join(between) + last + items.at(-1);
}

/** The items that are shown, and the words for those that are not; without words, an ellipsis. */
function someOf(items: readonly string[], count: number, more: string | undefined, language: string): string {
	const left = items.length - count;
	if (left <= 0) return listFormat(language).format(items);
	const shown = items.slice(0, count).join(', ');
	return more === undefined ? `${shown}…` : `${shown} ${more.replaceAll('{n}', String(left))}`;
}

/** As many items from the first on as there is room for (graphemes); nothing where the first has none. */
function within(
	items: readonly string[],
	room: number,
	more: string | undefined,
	language: string
): string | undefined {
	const fits = (text: string) =>
		text.length <= room || (text.length <= room * LONGEST_SIGN && countGraphemes(text) <= room);
	const whole = someOf(items, items.length, more, language);
	if (fits(whole)) return whole;
	// One more item makes it longer: the most that fit are found by halves.
	let [least, most] = [0, items.length - 1];
	while (least < most) {
		const middle = Math.ceil((least + most) / 2);
		if (fits(someOf(items, middle, more, language))) least = middle;
		else most = middle - 1;
	}
	return least === 0 ? undefined : someOf(items, least, more, language);
}

/** Of one sign, no more code units are looked at. */
const LONGEST_SIGN = 64;
