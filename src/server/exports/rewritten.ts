import iconv from 'iconv-lite';
import { settleText } from '$core';

/** How a spreadsheet has changed a text that nobody meant to change. */
export type Rewriting = 'number' | 'date' | 'time' | 'truth' | 'letters' | 'marks' | 'spaces' | 'formula' | 'cut';

/** What is said of each, behind the two texts. */
export const REWRITINGS: Readonly<Record<Rewriting, string>> = {
	number: 'is the same read as a number',
	date: 'is the same read as a date',
	time: 'is the same read as a time of day',
	truth: 'is the same read as true or false',
	letters: 'is the same with letters that an encoding does not have, or read in another one',
	marks: 'is the same with other quotation marks, dashes or dots',
	spaces: 'is the same with other spaces',
	formula: 'is what a program shows for a formula that comes to nothing',
	cut: 'is the same up to where cells of spreadsheets end'
};

/** No cell of a spreadsheet holds more (UTF-16 code units). */
const LONGEST_CELL = 32_767;

/** Whether `after` is what spreadsheets make of `before` by themselves, and how; undefined where somebody must have written it. */
export function rewritingOf(before: string, after: string): Rewriting | undefined {
	if (before === '' || after === '' || before === after) return undefined;
	if (plainSpaces(before) === plainSpaces(after)) return 'spaces';
	if (/^#(NAME\?|REF!|VALUE!|DIV\/0!|N\/A|NUM!|NULL!|SPILL!|ERROR!)$|^Err:\d{3}$/.test(after)) return 'formula';
	if (/^(true|false)$/i.test(before) && before.toUpperCase() === after) return 'truth';
	if (isSameNumber(before, after)) return 'number';
	if (isSameDay(before, after)) return 'date';
	const time = secondsOf(before);
	if (time !== undefined && time === secondsOf(after)) return 'time';
	if (after.length >= LONGEST_CELL && before.startsWith(after)) return 'cut';
	if (plainMarks(before) === plainMarks(after)) return 'marks';
	return isSameLetters(before, after) ? 'letters' : undefined;
}

const plainSpaces = (text: string) => settleText(text.replace(/[\s\u00A0\u2000-\u200B\u202F\u2060\uFEFF]+/g, ' '));

/** Marks as a typewriter has them. */
const plainMarks = (text: string) =>
	plainSpaces(text)
		.replace(/[\u2018\u2019\u201A\u201B\u2032`]/g, "'")
		.replace(/[\u201C-\u201F\u2033\u00AB\u00BB]/g, '"')
		.replace(/[\u2010-\u2015\u2212]|--+/g, '-')
		.replace(/\u2026/g, '...')
		.replace(/\(c\)|\u00A9/gi, '(c)')
		.replace(/\(r\)|\u00AE/gi, '(r)')
		.replace(/\(tm\)|\u2122/gi, '(tm)')
		.replace(/ (?=["-])|(?<=["-]) /g, '');

/** A number as people and programs write it, with or without marks between thousands: its digits decide. */
const NUMBER = /^[+-]?(?:\d{1,3}(?:[ ',.\u00A0\u202F]\d{3})+|\d+)(?:[.,]\d+)?(?:[eE][+-]?\d+)?%?$/;

function isSameNumber(before: string, after: string): boolean {
	const [was, is] = [before, after].map(withoutCurrency) as [string, string];
	if (!NUMBER.test(was) || !NUMBER.test(is)) return false;
	return readingsOf(was).some((one) => readingsOf(is).some((other) => isNear(one, other)));
}

/** Digits of any script as those of ASCII. */
const withPlainDigits = (text: string) =>
	text.replace(/(?![0-9])\p{Nd}/gu, (sign) => {
		let [value, code] = [0, sign.codePointAt(0)!];
		while (value < 9 && /\p{Nd}/u.test(String.fromCodePoint(--code))) value++;
		return String(value);
	});

/** Of a sum of money, the number. */
const withoutCurrency = (text: string) =>
	withPlainDigits(text.trim())
		.replace(/^([+-]?)[\p{Sc}]\s?|\s?[\p{Sc}]$/gu, '$1')
		.replace(/\s%$/, '%');

/** What a written number may be: a comma or a point parts thousands or decimals. */
function readingsOf(text: string): number[] {
	const bare = text.replace(/[ '\u00A0\u202F%]/g, '');
	const forms = [
		...(POINTS.test(bare) ? [bare.replaceAll(',', '')] : []),
		...(COMMAS.test(bare) ? [bare.replaceAll('.', '').replace(',', '.')] : [])
	];
	return forms.map(Number).filter((number) => !Number.isNaN(number));
}
/** Decimals behind a point, behind a comma; the other mark parts three digits. */
const POINTS = /^[+-]?(\d+|\d{1,3}(,\d{3})+)(\.\d+)?(e[+-]?\d+)?$/i;
const COMMAS = /^[+-]?(\d+|\d{1,3}(\.\d{3})+)(,\d+)?(e[+-]?\d+)?$/i;

/** Spreadsheets keep fifteen digits, and show fewer of a long one. */
const isNear = (a: number, b: number) =>
	a === b || Math.abs(a - b) <= Math.abs(a) * (Math.abs(a) >= 1e11 ? 1e-5 : 1e-14);

/** A time of day, also as the part of a day that spreadsheets keep it as, in seconds. */
function secondsOf(text: string): number | undefined {
	const whole = text.trim().replace(/^1899-12-3[01]T/, '');
	const [, hours, minutes, seconds = '0', half] = /^(\d{1,3}):(\d{2})(?::(\d{2}))?(?: ?([AP])M)?$/i.exec(whole) ?? [];
	if (hours === undefined)
		return /^0[.,]\d+$/.test(whole) ? Math.round(Number(whole.replace(',', '.')) * 86_400) : undefined;
	const hour = half === undefined ? Number(hours) : (Number(hours) % 12) + (half.toUpperCase() === 'P' ? 12 : 0);
	return hour * 3600 + Number(minutes) * 60 + Number(seconds);
}

/** A text that a spreadsheet takes for a day: two or three numbers, or a number and a month, with a mark between. */
const DAY_LIKE =
	/^(?:(\d{1,4})[-/. ](\d{1,2})(?:[-/. ](\d{1,4}))?|(\d{1,4})?[-/.]?[- ]?(\p{L}{3,9})\.?[-/. ]?(\d{1,4})?)$/u;

function isSameDay(before: string, after: string): boolean {
	const [was, is] = [numbersOf(before.trim()), numbersOf(after.trim())];
	if (!was || !is || !DAY_LIKE.test(before.trim())) return false;
	// What was there is there again, in any order; a year or a first day of the month may have come.
	const left = [...is.numbers];
	for (const one of was.numbers) {
		const at = left.findIndex(
			(other) => other === one || (one > 99 && other === one % 100) || (other > 99 && other % 100 === one)
		);
		if (at < 0) return false;
		left.splice(at, 1);
	}
	return left.length <= 1 && is.isDay && (was.hasMark || is.numbers.length > was.numbers.length);
}

/** The numbers of a day as it is written, a month's name as its number; undefined for what is none. */
function numbersOf(written: string): { numbers: number[]; isDay: boolean; hasMark: boolean } | undefined {
	// As East Asian languages write a day.
	const text = written.replace(/[年月년월.] ?(?=\d)/g, '-').replace(/[年月日년월일]$/, '');
	const parts = text.replace(/[T ]00:00(:00)?(\.0+)?Z?$/, '').match(/\d+|\p{L}+/gu);
	if (!parts || parts.length > 3) return undefined;
	const numbers = parts.map((part) => (/^\d/.test(part) ? Number(part) : monthOf(part)));
	if (numbers.some((one) => one === undefined)) return undefined;
	const hasMark = /[-/.]/.test(text) || parts.some((part) => /^\p{L}/u.test(part));
	return { numbers: numbers as number[], isDay: parts.length >= 2 && hasMark, hasMark };
}

let months: ReadonlyMap<string, number> | undefined;
/** The number of a month by its name, or three letters of it, in the languages that spreadsheets are mostly set to. */
function monthOf(name: string): number | undefined {
	months ??= new Map(
		['en', 'fr', 'de', 'es', 'it', 'pt', 'nl'].flatMap((language) =>
			Array.from({ length: 12 }, (_, at) => {
				const long = new Intl.DateTimeFormat(language, { month: 'long', timeZone: 'UTC' }).format(
					Date.UTC(2021, at, 1)
				);
				return [[long.toLowerCase(), at + 1] as const, [long.toLowerCase().slice(0, 3), at + 1] as const];
			}).flat()
		)
	);
	const lower = name.toLowerCase();
	return months.get(lower) ?? months.get(lower.slice(0, 3));
}

/** The same where each sign beyond ASCII may have become a question mark, or its bytes were read one by one. */
function isSameLetters(before: string, after: string): boolean {
	if (!/[^\x20-\x7e]/.test(before)) return false;
	const read = withoutNone(after);
	if (misread(before, 'latin1') === read || misread(before, 'windows-1252') === read) return true;
	const [was, is] = [[...before.normalize('NFC')], [...after.normalize('NFC')]];
	if (was.length !== is.length && before.length !== after.length)
		return before.normalize('NFKC') === after.normalize('NFKC');
	const signs = was.length === is.length ? is : [...after];
	const own = was.length === is.length ? was : before.split('');
	return own.every(
		(sign, at) => signs[at] === sign || (/[^\x20-\x7e]/.test(sign) && /[?\uFFFD_]/.test(signs[at] ?? ''))
	);
}

/** What UTF-8 looks like where its bytes are taken for letters; bytes that are none come out in many ways. */
const misread = (text: string, as: 'latin1' | 'windows-1252') => withoutNone(iconv.decode(Buffer.from(text), as));
const withoutNone = (text: string) => text.replace(/[\u0080-\u009F\uFFFD]/g, '');
