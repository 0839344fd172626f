import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';
import { CATALOGUE, findTag, Resolver, ROBOTS_DIRECTIVES, type Page, type TagDefinition, type TagKind } from '../index';

/** What docs/catalogue.json says of a tag. */
function documented(tag: TagDefinition) {
	const {
		name,
		place,
		key,
		kind,
		family,
		repeated,
		parent,
		twin,
		fact,
		attributes,
		purpose,
		aim,
		legacy,
		choices,
		open
	} = tag;
	return {
		name,
		element: place === 'title' ? 'title' : place === 'rel' ? 'link' : 'meta',
		...(place !== 'title' && { attribute: place, key }),
		...(attributes && { attributes }),
		kind,
		...(choices && { values: choices, otherValues: open === true }),
		...(kind === 'directives' && { values: ROBOTS_DIRECTIVES, otherValues: false }),
		family,
		repeated,
		...(parent && { parent }),
		...(twin && { twin }),
		...(fact && { fact }),
		purpose,
		...(aim && { goodLength: { least: aim[0], most: aim[1] } }),
		...(legacy && { legacy })
	};
}

test('docs/catalogue.json is what the code says (npm run catalogue writes it anew)', () => {
	const file = fileURLToPath(new URL('../../../docs/catalogue.json', import.meta.url));
	const text = `${JSON.stringify({ about: 'Every tag that Kephalon knows, in the order of output. Generated from src/core/catalogue; docs/resolution.md tells what the names mean.', tags: CATALOGUE.map(documented) }, null, 2)}\n`;
	if (process.env.KEPHALON_WRITE) writeFileSync(file, text);
	expect(readFileSync(file, 'utf8')).toBe(text);
});

/** For each kind of value one that is legal, what it comes to, and one that is not. */
const SAMPLES: Readonly<Record<TagKind, readonly [legal: string, comesTo: string, illegal: string | undefined]>> = {
	text: ['Some  words', 'Some words', undefined],
	address: ['/x y', 'https://site.example/x%20y', 'ftp://x.example/'],
	picture: ['/x.jpg', 'https://site.example/x.jpg', 'javascript:x'],
	date: ['2026-05-03', '2026-05-03T00:00:00+00:00', 'May 2026'],
	number: ['007', '7', '-1'],
	choice: ['', '', '"no such value"'],
	language: ['en-gb', 'en-GB', 'not a tag'],
	locale: ['en-GB', 'en_GB', 'english language'],
	handle: ['merrow', '@merrow', 'two words'],
	colour: ['#102030', '#102030', 'a colour'],
	directives: ['NOINDEX, max-snippet: 5', 'noindex, max-snippet:5', 'noindx'],
	mediaType: ['Video/MP4', 'video/mp4', 'video']
};

describe('each tag of the catalogue takes a legal value and refuses one that is not', () => {
	const settable = CATALOGUE.filter((tag) => !tag.fact || tag.fact === 'alt');
	test.each(settable.map((tag) => [tag.name, tag] as const))('%s', (name, tag) => {
		const [sample, expected, illegal] = SAMPLES[tag.kind];
		const [value, comesTo] = tag.kind === 'choice' ? [tag.choices![0]!, tag.choices![0]!] : [sample, expected];
		const pictured = name.includes('image') ? { picture: '/p.jpg' } : {};
		const valueOf = (template: string) => {
			const parent =
				tag.parent && !tag.fact ? [{ tag: tag.parent, kind: 'template' as const, template: '/parent' }] : [];
			const page: Page = {
				...{ path: '/p', type: 't', state: 'live', fields: { title: 'P', ...pictured } },
				rules: [...parent, { tag: name, kind: 'template', template }]
			};
			const site = {
				name: 'S',
				base: 'https://site.example/',
				languages: ['en'],
				separator: '',
				fields: {},
				rules: []
			};
			const { head, traces } = new Resolver({ site, types: [], pictures: [] }, '').resolveWithTrace(page);
			const first = traces.find((trace) => trace.tag === name)!.steps[0]!;
			return {
				first: first.outcome.kind,
				values: head.tags.filter((one) => one.tag.name === name).map((one) => one.value)
			};
		};
		expect(valueOf(value)).toEqual({ first: 'won', values: [comesTo] });
		if (illegal === undefined) return;
		const refused = valueOf(illegal);
		expect(refused.first).toBe('illegal');
		expect(refused.values).not.toContain(illegal);
	});
});

test('a property of a vocabulary that the site declares is a row like any other', () => {
	expect(findTag('tide:level', { tide: 'https://tide.example/ns#' })).toMatchObject({
		...{ name: 'tide:level', place: 'property', key: 'tide:level', kind: 'text', family: 'plain', repeated: true },
		purpose: 'A property of the vocabulary https://tide.example/ns#.'
	});
});
