import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkTemplate, formatIssue, TAG_NAMES, type Field } from '../index';
import { formatIssueWithCaret, nearestName } from '../issue';
import { compileTemplate, type Scope } from './compile';
import { formatDate, parseDate, toIsoDate } from './dates';
import { FILTERS } from './filters';
import { knownVariables } from './check';
import { parseTemplate } from './parse';
import { toTemplate, toWholeTemplate } from './quote';

const fields: Field[] = [
	{ name: 'region', kind: 'text' },
	{ name: 'starts', kind: 'date' },
	{ name: 'species', kind: 'list' },
	{ name: 'hectares', kind: 'number' }
];
const check = (template: string) =>
	checkTemplate(template, { fields, siteFields: ['motto'], tagNames: TAG_NAMES }).map((issue) =>
		formatIssue(issue, template)
	);

describe('what is wrong with a template is told with its place, what was expected and the nearest name', () => {
	test.each([
		['{page.titel}', 'Unknown variable "page.titel" at 1:2. Did you mean "page.title"?'],
		['{page.regoin}', 'Unknown variable "page.regoin" at 1:2. Did you mean "page.region"?'],
		[
			'ab\n{title}',
			'Unknown name "title" at 2:2. Expected page, site, type, listing, head, words, piece or now. Did you mean "page.title"?'
		],
		[
			'{pages.title}',
			'Unknown name "pages" at 1:2. Expected page, site, type, listing, head, words, piece or now. Did you mean "page"?'
		],
		['{head.og:titel}', 'Unknown variable "head.og:titel" at 1:2. Did you mean "head.og:title"?'],
		['{page.title | clop 3}', 'Unknown filter "clop" at 1:15. Did you mean "clip"?'],
		[
			'{page.title | clip}',
			'The filter "clip" at 1:15 takes a number (limit), then a text in quotation marks (mark, may be left out).'
		],
		[
			'{page.title | clip "x"}',
			'The filter "clip" at 1:20 takes a number (limit), then a text in quotation marks (mark, may be left out).'
		],
		['{page.title | clip 0}', 'The filter "clip" at 1:20 takes a number of 1 or more.'],
		['{page.title | plain 3}', 'The filter "plain" at 1:21 takes nothing after its name.'],
		['{page.title | case "uper"}', 'The filter "case" at 1:20 takes "upper", "lower", "sentence", "title".'],
		[
			'{page.starts | date "d QQ"}',
			'The filter "date" at 1:21 takes "short", "medium", "long", "full", or a pattern such as "d MMMM y" ("QQ" means nothing in it).'
		],
		[
			'{page.hectares | money "pounds"}',
			'The filter "money" at 1:24 takes a currency code of three capitals (ISO 4217), such as "EUR".'
		],
		[
			'{page.species | number}',
			'The filter "number" at 1:17 takes a number or text, not a list. Put a filter before it that gives one, or take it away.'
		],
		[
			'{page.body | join}',
			'The filter "join" at 1:14 takes a list or text, not rich text. Put a filter before it that gives one, or take it away.'
		],
		['{page.title', 'The "{" at 1:1 is never closed. Add "}", or write "\\{" for a plain brace.'],
		['a [[b', 'The "[[" at 1:3 is never closed. Add "]]", or write "\\[" for a plain bracket.'],
		['{}', 'Nothing stands between the braces at 1:1. Write a variable such as {page.title}.'],
		['{page.title page.region}', 'Unexpected "page.region" at 1:13. Expected "??", "|", "?" or "}".'],
		['{page.title $two}', 'Unexpected "$" at 1:13. Expected "??", "|", "?" or "}".'],
		['{page.title og:title}', 'Unexpected "og:title" at 1:13. Expected "??", "|", "?" or "}".'],
		['{page.title & x}', 'Unexpected "&" at 1:13. Expected "??", "|", "?" or "}".'],
		['{page.title ?? }', 'Unexpected "}" at 1:16. Expected a variable or a text in quotation marks.'],
		['{page.title | }', 'Unexpected "}" at 1:15. Expected the name of a filter.'],
		['{page.title ?? "x}', 'The text that begins at 1:16 is never closed. Add a second quotation mark.'],
		['a } b', '"}" at 1:3 closes nothing and prints as it stands. Write "\\}" to say so.'],
		[
			'{site.name ?? page.title}',
			'"page.title" at 1:15 is never reached: what stands before it is never empty. Take one of them away.'
		],
		['[[always]]', 'The optional stretch at 1:1 holds no variable, so it always prints. Take the brackets away.'],
		[
			'{site.name} {separator} {site.name}',
			"The site's name at 1:26 would print twice: {site.name} and {site.name} both bring it. Take one of them away."
		],
		['x'.repeat(2001), 'The template has 2001 characters. At most 2000 fit; shorten it.'],
		[
			'[['.repeat(9) + '{page.title}' + ']]'.repeat(9),
			'Optional stretches nest too deep at 1:17. At most 8 levels fit; take one out.'
		]
	])('%s', (template, told) => {
		expect(check(template)).toContain(told);
	});

	test.each([
		'{page.title}',
		'{page.region | case "upper" | clip 20 "!"}',
		'{page.species | first 2 | join ", " " and "}',
		'{site.motto}',
		'{now | date "y"}',
		'{head.og:title}',
		'[[{page.region}]] {separator} {type.label}',
		'{page.author.handle}',
		'{listing.count | plural "one" "more"}',
		'\\{page.titel}'
	])('nothing is wrong with %s', (template) => {
		expect(check(template)).toEqual([]);
	});

	test('the caret stands under the place', () => {
		const template = 'In {page.regio}';
		expect(formatIssueWithCaret(checkTemplate(template, { fields, tagNames: [] })[0]!, template)).toBe(
			'Unknown variable "page.regio" at 1:5. Did you mean "page.region"?\n    In {page.regio}\n        ^^^^^^^^^^'
		);
	});

	test('any words can be made a template of just them', () => {
		fc.assert(
			fc.property(fc.string({ unit: fc.constantFrom(...'ab{}[]\\|? ') }), (words) => {
				for (const template of [toTemplate(words), toWholeTemplate(words)]) {
					expect(check(template)).toEqual([]);
					expect(compileTemplate(template).run({ separator: ' · ' } as Scope)).toBe(words);
				}
			})
		);
		expect(toWholeTemplate('[a] [[[b]] {c}')).toBe('[a] \\[\\[[b\\]] \\{c\\}');
		expect(toTemplate('{[a]}\\')).toBe('\\{\\[a\\]\\}\\\\');
	});

	test('an unknown variable says what is known beside it: of its own root, no deeper', () => {
		const [issue] = checkTemplate('{page.nothing_like_it}', { fields, siteFields: ['motto'], tagNames: TAG_NAMES });
		const names = (issue?.expected ?? '').split(', ');
		expect(names).toHaveLength(12);
		expect(names).toContain('page.title');
		for (const name of names) expect(name).toMatch(/^page\.[a-z]+$/);
	});

	test('reading goes on behind a mistake', () => {
		expect(parseTemplate('{a b} {page.title} {c d}').issues.length).toBe(2);
		expect(parseTemplate('{a b} {page.title} {c d}').nodes.filter((node) => node.kind === 'placeholder').length).toBe(
			1
		);
	});
});

describe('names', () => {
	test('every known variable passes the check', () => {
		for (const { name } of knownVariables({ fields, tagNames: TAG_NAMES }))
			expect(check(`{${name}}`), name).toEqual([]);
	});
	test('a name far from all is not guessed at', () => {
		expect(nearestName('zebra', ['page', 'site'])).toBeUndefined();
		expect(nearestName('x'.repeat(1000), ['page'])).toBeUndefined();
		expect(nearestName('tpye', ['type', 'page'])).toBe('type');
	});
	test('every filter says what it is for', () => {
		for (const [name, filter] of Object.entries(FILTERS)) expect(filter.purpose, name).toMatch(/\.$/);
	});
});

describe('dates', () => {
	test.each([
		['2026-05-03', '2026-05-03T00:00:00+00:00'],
		['2026-05-03T18:30', '2026-05-03T18:30:00+00:00'],
		['2026-05-03T18:30:15.250Z', '2026-05-03T18:30:15+00:00'],
		['2026-05-03 18:30 +0200', '2026-05-03T18:30:00+02:00'],
		['2026-13-01', undefined],
		['2026-02-29', undefined],
		['2028-02-29', '2028-02-29T00:00:00+00:00'],
		['2026-05-03T25:00', undefined],
		['May 3', undefined]
	])('%s is %s', (text, iso) => {
		expect(toIsoDate(text)).toBe(iso);
	});
	test('a pattern with every letter', () => {
		expect(
			formatDate(parseDate('2026-05-03T07:08:09Z')!, "y yy yyyy M MM MMM MMMM d dd EEE EEEE H HH h mm ss a ''", 'en-GB')
		).toBe("2026 26 2026 5 05 May May 3 03 Sun Sunday 7 07 7 08 09 am '");
	});
});

test('a filter chain stays bounded', () => {
	const grow = compileTemplate(`{page.x${' | replace "a" "aaaaaaaaaaaaaaaaaaaa"'.repeat(40)} | clip 5}`);
	const scope = {
		language: 'en',
		separator: '',
		now: '',
		fields: { x: 'a' },
		pageValue: () => undefined,
		siteValue: () => undefined,
		typeValue: () => undefined,
		listingValue: () => undefined,
		headValue: () => '',
		wordValue: () => undefined,
		said: undefined,
		timeZone: undefined,
		partOfPage: () => undefined,
		moment: '',
		changesAt: () => undefined
	};
	expect(grow.run(scope)).toBe('aaaa…');
});

test('words in quotation marks are text, whatever stands beside them', () => {
	for (const template of [
		'{page.species ?? "none" | first 1}',
		'{page.starts ?? "soon" | date "d MMMM"}',
		'{page.hectares ?? "12" | number}'
	])
		expect(check(template), template).toEqual([]);
});
