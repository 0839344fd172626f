import { expect, test } from 'vitest';
import {
	describeOutcome,
	describePassedOver,
	describeRule,
	describeSkipped,
	describeWithheld,
	nameOfLayer,
	valueAsText,
	type Outcome,
	type SkippedSource,
	type TraceStep
} from '../index';
import { BUILT_INS } from './builtIns';

/** A trace in words. */

const issue = { code: 'template/unclosed-placeholder', severity: 'error', start: 0, end: 1 } as const;
const picture = { src: '/p.jpg', width: 100, height: 80 };

test('what became of a candidate', () => {
	const outcomes: readonly Outcome[] = [
		{ kind: 'won' },
		{ kind: 'empty', variables: [] },
		{ kind: 'empty', variables: ['page.a'] },
		{ kind: 'empty', variables: ['page.a', 'page.b'] },
		{ kind: 'borrowed-nothing', from: 'og:title' },
		{ kind: 'left-out' },
		{ kind: 'loop', tags: ['a', 'b', 'a'] },
		{ kind: 'illegal', value: 'x', expected: 'a number' },
		{ kind: 'too-long', length: 70_000 },
		{ kind: 'broken', issue, source: '{' },
		{ kind: 'cannot-run', filter: 'money', issue, source: '{' },
		{ kind: 'failed' },
		{ kind: 'frame', pages: 40 },
		{ kind: 'repeats-title' },
		{ kind: 'set-aside', layer: 'page' },
		{ kind: 'set-aside', layer: 'type' },
		{ kind: 'no-picture', skipped: [] },
		{ kind: 'no-picture', skipped: [{ source: 'lead', why: 'missing' }] },
		{ kind: 'not-reached' }
	];
	expect(outcomes.map(describeOutcome)).toMatchInlineSnapshot(`
		[
		  "used",
		  "came to nothing",
		  "came to nothing: page.a is empty",
		  "came to nothing: page.a, page.b are empty",
		  "og:title came to nothing",
		  "left out here: the search ends",
		  "skipped: borrows in a circle, a → b → a",
		  "skipped: “x” is not a number",
		  "skipped: 70000 characters are too many for a tag",
		  "skipped: The "{" at 1:1 is never closed. Add "}", or write "\\{" for a plain brace.",
		  "skipped: The "{" at 1:1 is never closed. Add "}", or write "\\{" for a plain brace.",
		  "skipped: it is not a rule that can be read",
		  "passed over: it stands on 40 pages, so it belongs to the frame",
		  "passed over: it only says the title again",
		  "set aside: the page says that found values are not taken",
		  "set aside: its type says that found values are not taken",
		  "no picture",
		  "no picture fits: lead: none",
		  "not needed",
		]
	`);
});

test('why a picture was passed over', () => {
	const skipped = [
		{ source: 'lead', why: 'missing' },
		{ source: 'composed', why: 'no-layout' },
		...(['not-http', 'drawing', 'repeated', 'mark', 'too-narrow', 'too-low', 'wrong-shape'] as const).map((why) => ({
			...{ source: 'body', why, picture, limit: 300 }
		}))
	] as SkippedSource[];
	expect(skipped.map(describeSkipped)).toMatchInlineSnapshot(`
		[
		  "lead: none",
		  "composed: its type has no layout for share pictures",
		  "body: /p.jpg (its address is not http or https)",
		  "body: /p.jpg (a vector drawing, which readers of links do not show)",
		  "body: /p.jpg (stands on 300 pages, so it belongs to the frame)",
		  "body: /p.jpg (a logo or an icon)",
		  "body: /p.jpg (100 × 80 pixels, narrower than 300)",
		  "body: /p.jpg (100 × 80 pixels, lower than 300)",
		  "body: /p.jpg (100 × 80 pixels, not of the shape asked for)",
		]
	`);
});

test('what a candidate would use', () => {
	const rules = [
		{ kind: 'template', template: '{page.title}' },
		{ kind: 'borrow', from: 'og:title' },
		{ kind: 'borrow', from: 'og:image', shapes: ['square', 'wide'] },
		{ kind: 'borrow', from: 'og:image', shapes: [] },
		{ kind: 'leaveOut' },
		{
			kind: 'pictures',
			sources: [{ from: 'file', src: '/a.jpg' }, { from: 'field', name: 'portrait' }, { from: 'lead' }],
			shapes: ['tall']
		},
		{ kind: 'found', value: 'As it was' },
		{ kind: 'built-in', name: 'borrow', from: 'title' }
	] as TraceStep['rule'][];
	expect(rules.map((rule) => describeRule({ layer: 'page', rule, outcome: { kind: 'won' } }))).toMatchInlineSnapshot(`
		[
		  "{page.title}",
		  "what og:title came to",
		  "what og:image came to, cut to 1 : 1 and 1.91 : 1",
		  "what og:image came to",
		  "leave it out",
		  "the first picture that fits of: /a.jpg, portrait, lead, cut to 2 : 3",
		  "as found in the page: As it was",
		  "what title came to",
		]
	`);
});

test('every built-in has words of its own', () => {
	const names = [...new Set(BUILT_INS.map(({ name }) => name))].filter((name) => name !== 'borrow');
	const words = names.map((name) =>
		describeRule({ layer: 'built-in', rule: { kind: 'built-in', name } as never, outcome: { kind: 'won' } })
	);
	expect(words.every((one) => typeof one === 'string' && one.length > 3)).toBe(true);
	expect(new Set(words).size).toBe(names.length);
	expect(Object.fromEntries(names.map((name, at) => [name, words[at]]))).toMatchInlineSnapshot(`
		{
		  "author-address": "the address of the page’s author",
		  "author-handle": "the account of the page’s author",
		  "body-opening": "the first sentences of the body",
		  "hidden": "hidden from search",
		  "icon-manifest": "made of the site’s icon, if it is square",
		  "other-languages": "its other languages",
		  "other-versions": "the page in its other languages",
		  "page-address": "the page’s address",
		  "page-author": "the page’s author",
		  "page-language": "the page’s language",
		  "page-modified": "when the page last changed",
		  "page-pictures": "the lead picture, the first in the body, the type’s, the site’s",
		  "page-published": "when the page was published",
		  "page-section": "the page’s section",
		  "page-summary": "the page’s summary",
		  "page-tags": "the page’s tags",
		  "page-title": "the page’s title",
		  "path": "the path",
		  "picture-alt": "the alt text of the picture that won",
		  "picture-size": "large when the picture is wide and big enough",
		  "site-handle": "the site’s account",
		  "site-icon": "the site’s icon",
		  "site-name": "the site’s name",
		  "square-icon": "the site’s icon, if it is square",
		  "type-kind": "the kind its type declares",
		}
	`);
});

test('layers, values, what is withheld and passed over', () => {
	expect((['page', 'type', 'site', 'built-in'] as const).map(nameOfLayer)).toEqual([
		'the page',
		'its type',
		'the site',
		'the built-in'
	]);
	expect(valueAsText('a')).toBe('a');
	expect(valueAsText(['a', { kind: 'link', address: 'https://s.example/', attributes: {} }])).toBe(
		'a, https://s.example/'
	);
	expect([
		describeWithheld({ kind: 'family-off', layer: 'site' }),
		describeWithheld({ kind: 'no-parent', parent: 'og:image' }),
		describeWithheld({ kind: 'same-as-twin', twin: 'og:title' })
	]).toEqual([
		'not written: its family is off at the site',
		'not written: there is no og:image for it to belong to',
		'not written: it says the same as og:title'
	]);
	const trace = { tag: 'twitter:title', value: 'x', steps: [], winner: 0 };
	expect(describePassedOver(trace)).toBeUndefined();
	expect(describePassedOver({ ...trace, passedOver: { tag: 'og:title', layer: 'page' } })).toBe(
		'og:title is set at the page, which is more specific, and was passed over'
	);
});
