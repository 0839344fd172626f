import { expect, test } from 'vitest';
import {
	ALL_READERS,
	cardOf,
	CATALOGUE,
	compileTemplate,
	FIELD_KINDS,
	headOfJson,
	type HeadJson,
	type TagDefinition
} from '$core';
import { settingNames } from '$ui/settings/names';
import { FINDINGS } from './findings';
import { helpOf, type Help, type Topic } from './help';
import { SETTINGS } from './settings';
import { SIGNS } from './signs';

/** What is said of everything that somebody can ask about; the document of it is made of the same words. */

const topics: readonly (readonly [heading: string, topics: readonly Topic[]])[] = [
	['Signs', (Object.keys(SIGNS) as (keyof typeof SIGNS)[]).map((name) => ({ of: 'sign', name }))],
	['Settings', Object.keys(SETTINGS).map((name) => ({ of: 'setting', name }))],
	['Fields, by kind', FIELD_KINDS.map((kind) => ({ of: 'field', kind, name: kind }))],
	['Tags', CATALOGUE.map(({ name }) => ({ of: 'tag', name }))]
];

test('each setting that can be looked for by its name has words, and no words are of none', () => {
	expect(Object.keys(SETTINGS).sort()).toEqual((['site', 'type', 'page'] as const).flatMap(settingNames).sort());
});

test.each(topics)('%s: three sentences and an example each', (_heading, all) => {
	for (const topic of all) {
		const help = helpOf(topic) as Help;
		// What is shown as a template is one.
		if (topic.of === 'field') expect(compileTemplate(help.example), help.name).not.toHaveProperty('issue');
		expect(help.says, help.name).toHaveLength(3);
		for (const sentence of help.says) expect(sentence, help.name).toMatch(/^[^a-z].*[.…]$/s);
		expect(help.example.length, help.name).toBeGreaterThan(1);
	}
});

test('a finding says itself, why it matters, and its mend', () => {
	expect(helpOf({ of: 'finding', code: 'no-title', says: 'It has no title', mend: 'Write one.' })).toEqual({
		name: 'Why it matters',
		says: ['It has no title.', FINDINGS['no-title'][0], 'Write one.'],
		example: FINDINGS['no-title'][1],
		isCode: true
	});
	for (const [code, [why, example]] of Object.entries(FINDINGS)) {
		expect(why, code).toMatch(/^[^a-z].*\.$/s);
		expect(example, code).not.toBe('');
	}
});

test('who reads a tag is what the profiles of the readers say', () => {
	const says = (name: string) => helpOf({ of: 'tag', name })!.says[1]!;
	const first = ALL_READERS.filter(({ title }) => title[0] === 'og:title').length;
	expect([first, says('og:title')]).toMatchInlineSnapshot(`
		[
		  7,
		  "Of 13 readers here, seven take it for the title, six take it for the title where nothing better is said.",
		]
	`);
	expect(says('article:section')).toMatch(/^No reader/);
	expect(helpOf({ of: 'tag', name: 'shop:price' })).toBeUndefined();
	expect(helpOf({ of: 'tag', name: 'shop:price', prefixes: { shop: 'https://s.example/' } })?.example).toBe(
		'<meta property="shop:price" content="The walk to the old light">'
	);
	expect(helpOf({ of: 'setting', name: 'constructor' })).toBeUndefined();
});

test('of a tag that is said to make no card, none changes; of all others some does', () => {
	const told = (tag: TagDefinition) => ({
		...{ tag: tag.name, element: tag.place === 'title' ? 'title' : tag.place === 'rel' ? 'link' : 'meta' },
		attributes: tag.place === 'title' ? {} : tag.place === 'rel' ? { rel: tag.key } : { [tag.place]: tag.key },
		value:
			tag.kind === 'picture' || tag.kind === 'address'
				? `https://s.example/${tag.name}`
				: (tag.choices?.at(-1) ?? '1500')
	});
	const cards = (tags: readonly TagDefinition[]) => {
		const head = headOfJson({ html: { prefix: '' }, tags: tags.map(told) } as unknown as HeadJson);
		return JSON.stringify(ALL_READERS.map((reader) => cardOf(reader, head)));
	};
	// A picture goes with all of them: what chooses the size of a card shows on one that has one.
	const picture = CATALOGUE.filter(({ name }) => name === 'og:image');
	const none = cards(picture);
	const whole = cards(CATALOGUE);
	for (const tag of CATALOGUE) {
		const changes =
			cards([...picture, tag]) !== none ||
			cards(CATALOGUE.filter((one) => one !== tag)) !== whole ||
			tag.name === 'og:image';
		const says = helpOf({ of: 'tag', name: tag.name })!.says[1]!;
		if (!tag.fact && !tag.name.startsWith('robots'))
			expect([tag.name, says.startsWith('No reader')]).toEqual([tag.name, !changes]);
	}
});

test('the document is made of the same words', async () => {
	const entry = (help: Help) =>
		`- **${help.name.replaceAll('_', '\\_')}** ${help.says.join(' ')} Such as \`${help.example}\``;
	const lines = topics.flatMap(([heading, all]) => [
		`\n## ${heading}\n`,
		...all.map((topic) => entry(helpOf(topic) as Help))
	]);
	const findings = Object.entries(FINDINGS).map(
		([code, [why, example]]) => `- \`${code}\` ${why} Such as \`${example}\``
	);
	const head = [
		'# What is what',
		'',
		'What `?` says in the rooms, beside a tag, a sign, a setting, a field or a finding. A finding says itself and its mend there; here stands',
		'why it matters.'
	];
	await expect(`${[...head, ...lines, '\n## Findings\n', ...findings].join('\n')}\n`).toMatchFileSnapshot(
		'../../../docs/what-is-what.md'
	);
});
