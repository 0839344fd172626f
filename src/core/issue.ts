/** Errors are data: a code and a span. Their wording is made here, and in `words/` for other languages. */

import { otherWords } from './words/speaking';

export type IssueCode =
	| 'template/too-long'
	| 'template/too-deep'
	| 'template/unclosed-placeholder'
	| 'template/unclosed-optional'
	| 'template/unclosed-string'
	| 'template/empty-placeholder'
	| 'template/unexpected'
	| 'template/trailing-escape'
	| 'template/stray-close'
	| 'template/unknown-root'
	| 'template/unknown-variable'
	| 'template/unknown-filter'
	| 'template/wrong-arguments'
	| 'template/wrong-kind'
	| 'template/few-forms'
	| 'template/unreachable'
	| 'template/constant-optional'
	| 'template/double-brand'
	| 'template/idle-word'
	| 'template/or-alone'
	| 'template/prints-flag'
	| 'template/piece-circle'
	| 'template/too-many-pieces'
	| 'rule/unknown-tag'
	| 'rule/loop'
	| 'rule/facts-only'
	| 'rule/unknown-field'
	| 'rule/not-a-picture-tag'
	| 'rule/bad-language'
	| 'rule/bad-value'
	| 'rule/no-prefix'
	| 'rule/reserved-name'
	| 'rule/double'
	| 'rule/extra-markup';

export interface Issue {
	readonly code: IssueCode;
	readonly severity: 'error' | 'warning';
	/** Offsets into the source, in UTF-16 code units; `end` is exclusive. */
	readonly start: number;
	readonly end: number;
	/** What stood there. */
	readonly seen?: string;
	/** What could have stood there. */
	readonly expected?: string;
	/** The known name closest to the one seen. */
	readonly nearest?: string;
}

type Wording = (issue: Issue, at: string) => string;

const WORDING: Readonly<Record<IssueCode, Wording>> = {
	'template/too-long': (i) => `The template has ${i.seen} characters. At most ${i.expected} fit; shorten it.`,
	'template/too-deep': (i, at) =>
		`Optional stretches nest too deep ${at}. At most ${i.expected} levels fit; take one out.`,
	'template/unclosed-placeholder': (_, at) =>
		`The "{" ${at} is never closed. Add "}", or write "\\{" for a plain brace.`,
	'template/unclosed-optional': (_, at) =>
		`The "[[" ${at} is never closed. Add "]]", or write "\\[" for a plain bracket.`,
	'template/unclosed-string': (_, at) => `The text that begins ${at} is never closed. Add a second quotation mark.`,
	'template/empty-placeholder': (_, at) =>
		`Nothing stands between the braces ${at}. Write a variable such as {page.title}.`,
	'template/unexpected': (i, at) => `Unexpected ${i.seen ? `"${i.seen}"` : 'end'} ${at}. Expected ${i.expected}.`,
	'template/trailing-escape': (_, at) => `The "\\" ${at} has nothing after it. Write "\\\\" for a plain backslash.`,
	'template/stray-close': (i, at) =>
		`"${i.seen}" ${at} closes nothing and prints as it stands. Write "\\${i.seen}" to say so.`,
	'template/unknown-root': (i, at) => `Unknown name "${i.seen}" ${at}. Expected ${i.expected}.${didYouMean(i)}`,
	'template/unknown-variable': (i, at) => `Unknown variable "${i.seen}" ${at}.${didYouMean(i) || known(i)}`,
	'template/unknown-filter': (i, at) => `Unknown filter "${i.seen}" ${at}.${didYouMean(i) || known(i)}`,
	'template/wrong-arguments': (i, at) => `The filter "${i.seen}" ${at} takes ${i.expected}.`,
	'template/wrong-kind': (i, at) =>
		`The filter "${i.seen}" ${at} takes ${i.expected}. Put a filter before it that gives one, or take it away.`,
	'template/few-forms': (i, at) =>
		`The plural ${at} has fewer forms than "${i.seen}" needs. Expected ${i.expected}; the last one stands for those that are missing.`,
	'template/unreachable': (i, at) =>
		`"${i.seen}" ${at} is never reached: what stands before it is never empty. Take one of them away.`,
	'template/constant-optional': (_, at) =>
		`The optional stretch ${at} holds no variable, so it always prints. Take the brackets away.`,
	'template/double-brand': (i, at) => `The site's name ${at} would print twice: ${i.expected}. Take one of them away.`,
	'template/idle-word': (i, at) =>
		i.seen === 'goes'
			? `"{goes …}" ${at} does nothing: it belongs into an optional stretch of a template that begins with "{fit …}".`
			: `"{fit …}" ${at} does nothing: it belongs at the top of a template, once. Move it there.`,
	'template/or-alone': (_, at) =>
		`"{or}" ${at} stands between nothing: write it between two optional stretches, as in "[[ … ]] {or} [[ … ]]".`,
	'template/prints-flag': (_, at) =>
		`A yes or no ${at} would print "true". Ask it with "?", as in "[[{page.free?}Free]]", or give its field words.`,
	'template/piece-circle': (i, at) =>
		`"${i.seen}" ${at} leads back to itself, so that it comes to nothing. Take it out.`,
	'template/too-many-pieces': (i, at) =>
		`With "${i.seen}" ${at}, more than ${i.expected} pieces stand in the template, each counted as often as it is used. Use fewer.`,
	'rule/unknown-tag': (i) =>
		`Unknown tag "${i.seen}".${didYouMean(i) || ' Use a name from the catalogue, or declare its prefix.'}`,
	'rule/loop': (i) => `These tags borrow in a circle: ${i.seen}. Give one of them a template of its own.`,
	'rule/facts-only': (i) => `"${i.seen}" travels with its picture and takes no rule. Set ${i.expected} instead.`,
	'rule/unknown-field': (i) => `Unknown field "${i.seen}" in a picture source.${didYouMean(i)}`,
	'rule/not-a-picture-tag': (i) =>
		`"${i.seen}" holds no picture, so it takes no list of picture sources. Write a template instead.`,
	'rule/bad-language': (i) => `"${i.seen}" is no language tag. Write one such as "en", "en-GB" or "pt-BR".`,
	'rule/bad-value': (i) => `"${i.seen}" is not ${i.expected}.${didYouMean(i)}`,
	'rule/no-prefix': (i) =>
		`The prefix of "${i.seen}" is not declared. Declare "${i.expected}" with its namespace at the site.`,
	'rule/reserved-name': (i) => `"${i.seen}" would put a second tag beside the real one. Set ${i.expected} instead.`,
	'rule/double': (i) =>
		`There are two rules for "${i.seen}"${i.expected ? ` in ${i.expected}` : ''}; only the first is used. Take one of them away.`,
	'rule/extra-markup': (i, at) => `The extra markup holds ${i.seen} ${at}, which a head may not hold. ${i.expected}`
};

/** What issues say in a language, and where they are, in words that follow a name. */
export interface IssueWords {
	readonly says: Readonly<Record<IssueCode, Wording>>;
	readonly at: (line: number, column: number) => string;
}
export const ISSUE_WORDS = otherWords<IssueWords>();
const ENGLISH: IssueWords = { says: WORDING, at: (line, column) => `at ${line}:${column}` };

const didYouMean = (issue: Issue) => (issue.nearest ? ` Did you mean "${issue.nearest}"?` : '');
const known = (issue: Issue) => (issue.expected ? ` Known: ${issue.expected}.` : '');

/** Line and column of an offset, both from 1; columns count UTF-16 code units. */
export function positionAt(source: string, offset: number): { line: number; column: number } {
	const before = source.slice(0, offset);
	return { line: before.split('\n').length, column: offset - before.lastIndexOf('\n') };
}

/** The one sentence that the editor, the command and the API all show. */
export function formatIssue(issue: Issue, source: string): string {
	const { line, column } = positionAt(source, issue.start);
	const { at, says } = ISSUE_WORDS.now() ?? ENGLISH;
	return says[issue.code](issue, at(line, column));
}

/** The sentence, the line it is about, and a caret under the place. For terminals. */
export function formatIssueWithCaret(issue: Issue, source: string): string {
	const { line, column } = positionAt(source, issue.start);
	const text = source.split('\n')[line - 1] ?? '';
	const width = Math.max(1, Math.min(issue.end - issue.start, text.length - column + 1));
	return `${formatIssue(issue, source)}\n    ${text}\n    ${' '.repeat(column - 1)}${'^'.repeat(width)}`;
}

/** Edits to turn one word into the other: insertions, deletions, replacements, swaps of neighbours. */
function distance(a: string, b: string): number {
	let beforeLast: number[] = [];
	let last = Array.from({ length: b.length + 1 }, (_, j) => j);
	for (let i = 1; i <= a.length; i++) {
		const row = [i];
		for (let j = 1; j <= b.length; j++) {
			const same = a[i - 1] === b[j - 1] ? 0 : 1;
			let best = Math.min((row[j - 1] as number) + 1, (last[j] as number) + 1, (last[j - 1] as number) + same);
			if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
				best = Math.min(best, (beforeLast[j - 2] as number) + 1);
			row.push(best);
		}
		beforeLast = last;
		last = row;
	}
	return last[b.length] as number;
}

/** From this length on, the beginning of one name alone is taken for it. */
const LEAST_BEGINNING = 3;

/** The known name nearest to the one seen, or undefined when none is near enough to be meant. */
export function nearestName(seen: string, names: Iterable<string>): string | undefined {
	const all = [...names];
	const whole = seen.length < LEAST_BEGINNING ? [] : all.filter((name) => name.startsWith(seen));
	if (whole.length === 1) return whole[0];
	return nearestWithin(seen, all, Math.max(1, Math.floor(seen.length / 3)));
}

/** The name from which the one seen is the fewest edits away, if not more than `most`. */
export function nearestWithin(seen: string, names: Iterable<string>, most: number): string | undefined {
	if (seen.length > 80) return undefined;
	let best: string | undefined;
	let least = most + 1;
	for (const name of names) {
		if (Math.abs(name.length - seen.length) >= least) continue;
		const steps = distance(seen.toLowerCase(), name.toLowerCase());
		if (steps < least) [best, least] = [name, steps];
	}
	return best;
}
