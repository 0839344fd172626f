import { describe, expect, test } from 'vitest';
import { Chance } from '../../../conformance/chance';
import { templateBy } from '../../../conformance/templates';
import { TAG_NAMES, type Field } from '../index';
import { checkTemplate } from './check';
import { mendTemplate } from './mend';

const fields: Field[] = [
	{ name: 'region', kind: 'text' },
	{ name: 'starts', kind: 'date' },
	{ name: 'species', kind: 'list' },
	{ name: 'free', kind: 'flag' }
];
const pieces = new Map([
	['round', 'x {piece.round}'],
	['price', '{page.title}']
]);
const context = { fields, tagNames: TAG_NAMES, pieces, languages: ['en'] };

/** What is offered for each issue of a template. */
const offered = (template: string) =>
	checkTemplate(template, context).map((issue) => {
		const mend = mendTemplate(template, issue, context);
		return mend ? `${mend.says} → ${mend.text}` : `${issue.code}: none`;
	});

describe('what is wrong is mended in one gesture', () => {
	test.each([
		['{page.titel}', 'Write “page.title” → {page.title}'],
		['a {title} b', 'Write “page.title” → a {page.title} b'],
		['{head.og:titel}', 'Write “head.og:title” → {head.og:title}'],
		['{page.title | clop 30 "…"}', 'Write “clip” → {page.title | clip 30 "…"}'],
		['{page.title | zzzzzz 1 | clip 30}', 'Take “| zzzzzz 1” away → {page.title | clip 30}'],
		['{page.title | clip}', 'Write “clip 155” → {page.title | clip 155}'],
		['{page.title | clip "x" 3 | case "upper"}', 'Write “clip 155” → {page.title | clip 155 | case "upper"}'],
		['{page.species | number}', 'Take “| number” away → {page.species}'],
		['{page.title', 'Close it: “{page.title}” → {page.title}'],
		['{page.title and more', 'Close the brace before it → {page.title} and more'],
		['{page.title | clip 30 {page.region}', 'Close it with “}” → {page.title | clip 30 }{page.region}'],
		['[[ in {page.region}', 'Close it with “]]” → [[ in {page.region}]]'],
		['{page.region ?? "none}', 'Close the text → {page.region ?? "none"}'],
		['{page.region ?? "none', 'Close the text → {page.region ?? "none"}'],
		['{page.title}{}', 'Take “{}” away → {page.title}'],
		['{page.title, }', 'Take “,” away → {page.title }'],
		['{page.title}\\', 'Write “\\\\” → {page.title}\\\\'],
		['{page.title}}', 'Write “\\}” → {page.title}\\}'],
		['{page.title} ]]', 'Write “\\]]” → {page.title} \\]]'],
		['{site.name ?? page.title}', 'Take “?? page.title” away → {site.name}'],
		['[[always]]', 'Take the brackets away → always'],
		['{page.title}[[ in {page.region}{fit 60}]]', 'Move it to the top → {fit 60}{page.title}[[ in {page.region}]]'],
		['{fit 60}{page.title}{fit 50}', 'Take “{fit 50}” away → {fit 60}{page.title}'],
		['{goes 1}{page.title}', 'Take “{goes 1}” away → {page.title}'],
		['{page.title}{or}', 'Take “{or}” away → {page.title}'],
		['{page.title} {page.free}', 'Ask it: “[[{page.free?}free]]” → {page.title} [[{page.free?}free]]'],
		['{site.name} – {site.name}', 'Take “{site.name}” away → {site.name} – '],
		['{page.title}{piece.round}', 'Take “{piece.round}” away → {page.title}'],
		['{page.parent.head.titel}', 'Write “page.parent.head.title” → {page.parent.head.title}']
	])('%s', (template, mend) => {
		expect(offered(template)[0]).toBe(mend);
	});

	test('where nothing is known that helps, nothing is offered', () => {
		expect(offered('x'.repeat(2001))).toEqual(['template/too-long: none']);
		expect(offered(`{page.title}${'x'.repeat(2001)}`)).toEqual(['template/too-long: none']);
	});
});

test('no mend, of templates broken by chance, brings an error that was not there', () => {
	const chance = new Chance(7);
	let mended = 0;
	for (let at = 0; at < 150; at++) {
		const whole = templateBy(chance);
		const cut = chance.below(whole.length + 1);
		const broken = whole.slice(0, cut) + whole.slice(Math.min(whole.length, cut + 1 + chance.below(3)));
		const before = checkTemplate(broken, context);
		for (const issue of before) {
			const mend = mendTemplate(broken, issue, context);
			if (!mend) continue;
			mended++;
			const errors = (list: typeof before) => list.filter(({ severity }) => severity === 'error').length;
			expect(errors(checkTemplate(mend.text, context)), `${broken} → ${mend.text}`).toBeLessThanOrEqual(errors(before));
			expect(mend.text).not.toBe(broken);
		}
	}
	expect(mended).toBeGreaterThan(60);
});
