import { expect, test } from 'vitest';
import { ownWords } from './ownWords';

/** What a template says in words of its own: not what pages say, not names, not signs. */
test.each<[string, string[]]>([
	['{page.title} {separator} {site.name}', []],
	['{page.title} | Acme Handbook', []],
	['{page.title} — {page.region}', []],
	['{page.title}[[ at {page.place}]]', ['at']],
	[
		'[[{listing.count | number} {listing.count | plural "place" "places"} to visit: ]]{page.summary}',
		['place', 'places', 'to visit:']
	],
	['{page.summary ?? "nothing said yet"}', ['nothing said yet']],
	['[[{page.a}]] {or} [[no price for {page.b}]]', ['no price for']],
	['{page.starts | date "d MMMM y"}', []],
	['@handle and more', ['@handle and more']],
	['{page.a} info@acme.example', []],
	['山道 {page.title}', ['山道']],
	['{page.title', []],
	['', []]
])('%s', (template, words) => {
	expect(ownWords(template)).toEqual(words);
});
