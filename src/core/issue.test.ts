import { describe, expect, test } from 'vitest';
import { formatIssue, formatIssueWithCaret, nearestName, positionAt, type Issue, type IssueCode } from './index';

const CODES: readonly IssueCode[] = [
	'template/too-long',
	'template/too-deep',
	'template/unclosed-placeholder',
	'template/unclosed-optional',
	'template/unclosed-string',
	'template/empty-placeholder',
	'template/unexpected',
	'template/trailing-escape',
	'template/stray-close',
	'template/unknown-root',
	'template/unknown-variable',
	'template/unknown-filter',
	'template/wrong-arguments',
	'template/wrong-kind',
	'template/few-forms',
	'template/unreachable',
	'template/constant-optional',
	'template/double-brand',
	'rule/unknown-tag',
	'rule/loop',
	'rule/facts-only',
	'rule/unknown-field',
	'rule/not-a-picture-tag',
	'rule/bad-language',
	'rule/bad-value',
	'rule/no-prefix',
	'rule/reserved-name',
	'rule/double',
	'rule/extra-markup'
];
const issue = (more: Partial<Issue>): Issue => ({
	...{ code: 'template/unexpected', severity: 'error', start: 0, end: 1 },
	...more
});

test('what each issue says', () => {
	const said = CODES.map((code) => formatIssue(issue({ code, seen: 'SEEN', expected: 'WANTED' }), 'x'));
	expect(said).toMatchInlineSnapshot(`
		[
		  "The template has SEEN characters. At most WANTED fit; shorten it.",
		  "Optional stretches nest too deep at 1:1. At most WANTED levels fit; take one out.",
		  "The "{" at 1:1 is never closed. Add "}", or write "\\{" for a plain brace.",
		  "The "[[" at 1:1 is never closed. Add "]]", or write "\\[" for a plain bracket.",
		  "The text that begins at 1:1 is never closed. Add a second quotation mark.",
		  "Nothing stands between the braces at 1:1. Write a variable such as {page.title}.",
		  "Unexpected "SEEN" at 1:1. Expected WANTED.",
		  "The "\\" at 1:1 has nothing after it. Write "\\\\" for a plain backslash.",
		  ""SEEN" at 1:1 closes nothing and prints as it stands. Write "\\SEEN" to say so.",
		  "Unknown name "SEEN" at 1:1. Expected WANTED.",
		  "Unknown variable "SEEN" at 1:1. Known: WANTED.",
		  "Unknown filter "SEEN" at 1:1. Known: WANTED.",
		  "The filter "SEEN" at 1:1 takes WANTED.",
		  "The filter "SEEN" at 1:1 takes WANTED. Put a filter before it that gives one, or take it away.",
		  "The plural at 1:1 has fewer forms than "SEEN" needs. Expected WANTED; the last one stands for those that are missing.",
		  ""SEEN" at 1:1 is never reached: what stands before it is never empty. Take one of them away.",
		  "The optional stretch at 1:1 holds no variable, so it always prints. Take the brackets away.",
		  "The site's name at 1:1 would print twice: WANTED. Take one of them away.",
		  "Unknown tag "SEEN". Use a name from the catalogue, or declare its prefix.",
		  "These tags borrow in a circle: SEEN. Give one of them a template of its own.",
		  ""SEEN" travels with its picture and takes no rule. Set WANTED instead.",
		  "Unknown field "SEEN" in a picture source.",
		  ""SEEN" holds no picture, so it takes no list of picture sources. Write a template instead.",
		  ""SEEN" is no language tag. Write one such as "en", "en-GB" or "pt-BR".",
		  ""SEEN" is not WANTED.",
		  "The prefix of "SEEN" is not declared. Declare "WANTED" with its namespace at the site.",
		  ""SEEN" would put a second tag beside the real one. Set WANTED instead.",
		  "There are two rules for "SEEN" in WANTED; only the first is used. Take one of them away.",
		  "The extra markup holds SEEN at 1:1, which a head may not hold. WANTED",
		]
	`);
});
test('a near name is asked for instead of all known ones', () => {
	const said = (code: IssueCode, more: Partial<Issue>) => formatIssue(issue({ code, seen: 'titel', ...more }), 'x');
	expect(said('template/unknown-variable', { nearest: 'title', expected: 'a, b' })).toBe(
		'Unknown variable "titel" at 1:1. Did you mean "title"?'
	);
	expect(said('template/unknown-filter', {})).toBe('Unknown filter "titel" at 1:1.');
	expect(said('rule/unknown-tag', { nearest: 'title' })).toBe('Unknown tag "titel". Did you mean "title"?');
	expect(said('rule/double', {})).toBe(
		'There are two rules for "titel"; only the first is used. Take one of them away.'
	);
	expect(formatIssue(issue({ expected: 'a name' }), 'x')).toBe('Unexpected end at 1:1. Expected a name.');
});

describe('a place', () => {
	test.each([
		['', 0, 1, 1],
		['abc', 2, 1, 3],
		['a\nb', 1, 1, 2],
		['a\nb', 2, 2, 1],
		['a\n\nbc', 4, 3, 2]
	])('in %j at %i is line %i, column %i', (source, offset, line, column) => {
		expect(positionAt(source, offset)).toEqual({ line, column });
	});
	test.each([
		['a {b', 2, 3, '    a {b\n      ^'],
		['a\n{bc}\nd', 2, 6, '    {bc}\n    ^^^^'],
		// The caret never leaves its line, and there is always one.
		['ab\ncd', 1, 5, '    ab\n     ^'],
		['ab', 2, 2, '    ab\n      ^']
	])('in %j has carets under it', (source, start, end, shown) => {
		expect(
			formatIssueWithCaret(issue({ start, end, expected: 'x' }), source)
				.split('\n')
				.slice(1)
				.join('\n')
		).toBe(shown);
	});
});

describe('the nearest name', () => {
	const names = ['title', 'description', 'og:title', 'og:image', 'og:image:alt', 'robots', 'ab'];
	test.each([
		['titel', 'title'],
		['tilte', 'title'],
		['itle', 'title'],
		['titlee', 'title'],
		['Title', 'title'],
		['tixle', 'title'],
		['desc', 'description'],
		['de', undefined],
		['og:', undefined],
		['og:imag', 'og:image'],
		['og:imagee', 'og:image'],
		['robtos', 'robots'],
		['ba', 'ab'],
		['a', 'ab'],
		['abc', 'ab'],
		['abcd', undefined],
		['xyz', undefined],
		['', undefined],
		['t'.repeat(81), undefined],
		['rbtos', undefined],
		['rbots', 'robots'],
		['srobots', 'robots'],
		['stobor', undefined]
	])('of %s is %s', (seen, nearest) => {
		expect(nearestName(seen, names)).toBe(nearest);
	});
	test('a swap of neighbours is one step, also at the beginning and at the end; two letters further apart are two', () => {
		expect(nearestName('bacd', ['abcd'])).toBe('abcd');
		expect(nearestName('abdc', ['abcd'])).toBe('abcd');
		expect(nearestName('acbd', ['abcd'])).toBe('abcd');
		expect(nearestName('cbad', ['abcd'])).toBeUndefined();
		expect(nearestName('aabb', ['bbaa'])).toBeUndefined();
		expect(nearestName('xay', ['yax', 'xya'])).toBe('xya');
	});
	test('of two as near, the first is taken', () => {
		expect(nearestName('cat', ['bat', 'hat'])).toBe('bat');
	});
});
