import { htmlToText } from '../../markup/plainText';
import { measureText, offsetOfWidth } from '../../text/measure';
import { cutBefore, firstWords, segmenter, settleAndClip, settleText, trimSpace } from '../../text/text';
import { parseUrl } from '../../text/url';
import { safeLanguage } from '../formatters';
import { MAX_TEXT, toText } from '../values';
import { unmark } from './markdown';
import { limit, number, text, value, type FilterSpec } from './spec';
import { typeset } from './typeset';

/** The size (pixels) at which readers set a title: widths are told at it. */
export const WIDTH_SIZE = 20;

const CASES = ['upper', 'lower', 'sentence', 'title'];
const notEmpty = (what: string) => (given: string | number) => (given === '' ? what : undefined);

/** Filters that make a text of a text. */
export const TEXT_FILTERS = {
	clip: {
		takes: ['any'],
		gives: 'text',
		parameters: [limit, text('mark', { optional: true })],
		purpose: 'At most so many characters, cut at a word’s end.',
		offered: '155',
		example: ['A walk along the cliffs at low tide', 'clip 20', 'A walk along the…'],
		run(given, [count, mark]) {
			const whole = toText(given);
			// What fits as it is, fits when it is settled.
			if (whole.length <= (count as number)) return whole;
			return settleAndClip(whole, count as number, mark as string | undefined);
		}
	},
	wide: {
		takes: ['any'],
		gives: 'text',
		parameters: [number('pixels', limit), text('mark', { optional: true })],
		purpose: 'At most so many pixels wide, as readers set a title, cut at a word’s end.',
		offered: '580',
		example: ['A walk along the cliffs at low tide', 'wide 200', 'A walk along the…'],
		run(given, [pixels, mark = '…']) {
			const whole = settleText(toText(given));
			const at = offsetOfWidth(whole, pixels as number, WIDTH_SIZE, toText(mark));
			if (at < 0) return whole;
			return measureText(toText(mark), WIDTH_SIZE) > (pixels as number)
				? whole.slice(0, at)
				: cutBefore(whole, at, toText(mark));
		}
	},
	words: {
		takes: ['any'],
		gives: 'text',
		parameters: [limit],
		purpose: 'The first words.',
		offered: '12',
		example: ['A walk along the cliffs', 'words 2', 'A walk…'],
		run: (given, [count], { language }) => firstWords(settleText(toText(given)), count as number, language)
	},
	sentence: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'The first sentence.',
		example: ['Seals rest here. Keep away.', 'sentence', 'Seals rest here.'],
		run: (given, _, { language }) => firstSentence(settleText(toText(given)), language)
	},
	before: {
		takes: ['any'],
		gives: 'text',
		parameters: [text('mark', { refuse: notEmpty('a text to look for') })],
		purpose: 'What stands before a text; all of it where that does not stand there.',
		example: ['Gannet Head – by sea', 'before " – "', 'Gannet Head'],
		run: (given, [mark]) => {
			const whole = toText(given);
			const at = whole.indexOf(toText(mark));
			return at < 0 ? whole : whole.slice(0, at);
		}
	},
	after: {
		takes: ['any'],
		gives: 'text',
		parameters: [text('mark', { refuse: notEmpty('a text to look for') })],
		purpose: 'What stands behind a text; all of it where that does not stand there.',
		example: ['Gannet Head – by sea', 'after " – "', 'by sea'],
		run: (given, [mark]) => {
			const whole = toText(given);
			const at = whole.indexOf(toText(mark));
			return at < 0 ? whole : whole.slice(at + toText(mark).length);
		}
	},
	without: {
		takes: ['any'],
		gives: 'text',
		parameters: [text('edge', { many: true, refuse: notEmpty('a text to take off') })],
		purpose: 'Taken off where it begins or ends with it.',
		offered: '"this"',
		example: ['The Old Mill', 'without "The "', 'Old Mill'],
		run: (given, edges) => edges.reduce<string>((whole, edge) => withoutEdge(whole, toText(edge)), toText(given))
	},
	unless: {
		takes: ['any'],
		gives: 'text',
		parameters: [value('other', { many: true })],
		purpose: 'Nothing, where another says it already.',
		offered: 'page.title',
		example: ['Merrow Coast', 'unless "Walks on the Merrow Coast"', ''],
		run: (given, others) => (others.some((other) => says(toText(other), toText(given))) ? undefined : given)
	},
	case: {
		takes: ['any'],
		gives: 'text',
		parameters: [
			text('style', {
				refuse: (style) => (CASES.includes(toText(style)) ? undefined : CASES.map((c) => `"${c}"`).join(', '))
			})
		],
		purpose: 'Upper, lower, sentence or title case, as the language writes it.',
		offered: '"sentence"',
		example: ['gannet head', 'case "title"', 'Gannet Head'],
		run: (given, [style], { language }) => changeCase(toText(given), toText(style), safeLanguage(language))
	},
	stop: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'With a full stop where it ends without one.',
		example: ['Seals rest here', 'stop', 'Seals rest here.'],
		run: (given, _, { language }) => withStop(trimSpace(toText(given)), language)
	},
	typeset: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'Quotation marks, apostrophes, dashes and spaces as the language sets them.',
		example: ['"Low tide" - the seals\' hour', 'typeset', '“Low tide” – the seals’ hour'],
		run: (given, _, { language }) => typeset(toText(given), safeLanguage(language))
	},
	initials: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'The first letters of the words.',
		example: ['Ada Marrow', 'initials', 'A. M.'],
		run: (given) =>
			[...toText(given).matchAll(WORD)]
				.map(([word]) => `${firstSign(word)}.`)
				.slice(0, 12)
				.join(' ')
	},
	host: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'The host that a link leads to, without www.',
		example: ['https://www.merrow.example/walks', 'host', 'merrow.example'],
		run: (given) => parseUrl(trimSpace(toText(given)))?.hostname.replace(/^www\./, '') || undefined
	},
	plain: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'Rich text without its markup.',
		example: ['<p>Seals <b>rest</b> here.</p>', 'plain', 'Seals rest here.'],
		run: (given) => htmlToText(toText(given))
	},
	unmark: {
		takes: ['any'],
		gives: 'text',
		parameters: [],
		purpose: 'Markdown without its signs.',
		example: ['## Seals\n*Rest* [here](/seals).', 'unmark', 'Seals Rest here.'],
		run: (given) => unmark(toText(given))
	},
	replace: {
		takes: ['any'],
		gives: 'text',
		parameters: [text('this', { refuse: notEmpty('a text to look for') }), text('by')],
		purpose: 'Every place of one text by another.',
		offered: '"this" "that"',
		example: ['North & South', 'replace "&" "and"', 'North and South'],
		run: (given, [old, by]) => replaceWithin(toText(given), toText(old), toText(by))
	}
} satisfies Record<string, FilterSpec>;

/** A word that begins with a letter: in "3rd" nothing does. */
const WORD = /(?<![\p{L}\p{M}\p{N}'’])\p{L}[\p{L}\p{M}\p{N}'’]*/gu;
const FIRST_WORD = /^([^\p{L}\p{N}]*)(\p{L})/u;

const firstSign = (word: string) => {
	const [first] = segmenter('en', 'grapheme').segment(word);
	return (first?.segment ?? '').toLocaleUpperCase('en');
};

function changeCase(whole: string, style: string, language: string): string {
	if (style === 'upper') return whole.toLocaleUpperCase(language);
	if (style === 'lower') return whole.toLocaleLowerCase(language);
	const capital = (word: string) => {
		const [first = ''] = word;
		return first.toLocaleUpperCase(language) + word.slice(first.length);
	};
	if (style === 'sentence')
		return whole.replace(FIRST_WORD, (_, before: string, word: string) => before + capital(word));
	return whole.replace(WORD, capital);
}

/** Signs behind which nothing ends a sentence any more. */
const ENDED = /[.!?…。！？।؟։።:;]["'”’»)\]]*$/u;
/** The full stop of scripts that have their own. */
const STOPS: ReadonlyMap<string, string> = new Map([
	['ja', '。'],
	['zh', '。'],
	['hi', '।'],
	['bn', '।'],
	['hy', '։'],
	['am', '።'],
	['th', ''],
	['lo', '']
]);

const withStop = (whole: string, language: string) =>
	whole === '' || ENDED.test(whole.slice(-20)) ? whole : whole + (STOPS.get(primaryOf(language)) ?? '.');

const primaryOf = (language: string) => language.toLowerCase().split('-', 1)[0] as string;

/** A sentence is looked for this far (UTF-16 code units). */
const LONGEST_SENTENCE = 2000;
/** Short words that end with a full stop and no sentence. */
const SHORTENED = /(^|[\s(])(\p{L}|Mr|Mrs|Ms|Dr|Prof|St|No|Nr|ca|vs|etc|e\.g|i\.e|z\.B|p\.ex|approx|Fig|Vol|Jr|Sr)\.$/u;

function firstSentence(whole: string, language: string): string {
	let out = '';
	for (const { segment } of segmenter(language, 'sentence').segment(whole.slice(0, LONGEST_SENTENCE))) {
		out += segment;
		if (!SHORTENED.test(trimSpace(out).slice(-20))) break;
	}
	return trimSpace(out);
}

function withoutEdge(whole: string, edge: string): string {
	const rest = whole.startsWith(edge) ? whole.slice(edge.length) : whole;
	return rest.endsWith(edge) ? rest.slice(0, -edge.length) : rest;
}

const lettersApart = (whole: string) =>
	` ${whole
		.toLowerCase()
		.replace(/[^\p{L}\p{M}\p{N}]+/gu, ' ')
		.trim()} `;
/** Scripts that set no space between words. */
const DENSE = /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}]/u;

/** Whether a text says another word for word, whatever stands between the words. */
function says(whole: string, part: string): boolean {
	const [inner, outer] = [lettersApart(part.slice(0, MAX_TEXT)), lettersApart(whole.slice(0, MAX_TEXT))];
	if (inner.trim() === '') return false;
	return outer.includes(DENSE.test(inner) ? inner.trim() : inner);
}

function replaceWithin(whole: string, old: string, by: string): string {
	let out = '';
	let from = 0;
	for (let at = whole.indexOf(old); at >= 0 && out.length < MAX_TEXT; at = whole.indexOf(old, from)) {
		out += whole.slice(from, at) + by;
		from = at + old.length;
	}
	return out + whole.slice(from);
}
