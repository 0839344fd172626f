import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';
import {
	addSection,
	asksForField,
	checkTemplate,
	clipFirst,
	clipText,
	countGraphemes,
	cropBox,
	dropSiteName,
	findInShare,
	fitText,
	formatIssue,
	formatIssueWithCaret,
	htmlToText,
	injectHead,
	isBlank,
	isXhtml,
	lettersNotDrawn,
	limitExtraMarkup,
	managedBy,
	measureText,
	nameOfRecipe,
	PAGE_FIELDS,
	parseTemplate,
	templateParts,
	readPage,
	readServedHead,
	recipeOf,
	renameFieldInRule,
	renderLines,
	Resolver,
	settleText,
	TAG_NAMES,
	toIsoDate,
	toTemplate,
	variablesOf,
	withSite,
	withTitle,
	wrapGaps
} from './index';
import { firstSentences, openingOf, readingMinutes } from './markup/reading';
import { firstWords } from './text/text';
import { documentOf, extraOf, textOf } from '../../conformance/parts';
import { Chance, visible } from '../../conformance/chance';
import { templateOf } from '../../conformance/values';
import { layoutOf, lightOf, makeWorld } from '../../conformance/worlds';

/** What parts made by chance come to without a site around them, written down beside the sites in conformance/worlds. */
const NOW = '2026-05-03T10:00:00Z';
const file = (name: string) => fileURLToPath(new URL(`../../conformance/worlds/${name}.txt`, import.meta.url));
const many = (count: number, seed: number, make: (chance: Chance, at: number) => readonly unknown[]) => {
	const chance = new Chance(seed);
	const all = Array.from({ length: count }, (_, at) => make(chance, at));
	const words = (one: unknown) => (typeof one === 'string' ? one : JSON.stringify(one));
	return visible(all.map((parts) => parts.map(words).join('\n')).join('\n\n') + '\n');
};
const holds = (name: string, text: string) => expect(text).toMatchFileSnapshot(file(name));

test('templates: what they ask for, what is wrong with them, their pieces, their mends', async () => {
	const { site, types, pages, pictures } = makeWorld(3);
	const resolver = new Resolver({ site, types, pictures }, NOW);
	const contexts = [
		{ fields: types[0]!.fields, siteFields: ['tagline'], tagNames: TAG_NAMES, languages: ['en', 'ar'] },
		{ fields: PAGE_FIELDS, tagNames: TAG_NAMES }
	];
	const text = many(200, 11, (chance, at) => {
		const source = templateOf(chance);
		const page = pages[at % pages.length]!;
		return [
			source,
			...parseTemplate(source).issues.map((issue) => formatIssueWithCaret(issue, source)),
			...checkTemplate(source, contexts[at % 2]!).map((issue) => `${issue.severity}: ${formatIssue(issue, source)}`),
			variablesOf(source),
			[asksForField(source, 'title'), asksForField(source, 'region')],
			templateParts(source, resolver.evaluate(page)),
			[
				wrapGaps(
					source,
					variablesOf(source)
						.slice(0, 1)
						.map(({ name }) => name)
				),
				dropSiteName(source),
				clipFirst(source, 30),
				addSection(source)
			],
			[withSite(source, at % 2 === 0), withTitle(source), toTemplate(source)],
			renameFieldInRule({ tag: 'title', kind: 'template', template: source }, 'title', 'name', at % 3 === 0)
		];
	});
	await holds('templates', text);
});

test('documents: what is read in them, what is served, what injection makes of them', async () => {
	const { site, types, pages, pictures } = makeWorld(5);
	const head = new Resolver({ site, types, pictures }, NOW).resolveHead(pages[0]!);
	const text = many(70, 23, (chance, at) => {
		const source = documentOf(chance);
		const gone: string[] = [];
		const isManaged = managedBy(head, at % 4 === 0 ? ['robots', 'keywords'] : []);
		const xhtml = isXhtml(source, 'x.html');
		const injected = injectHead(source, renderLines(head, { xhtml }), isManaged, xhtml, ({ name, value }) =>
			gone.push(`${name}=${value}`)
		);
		expect(injectHead(injected, renderLines(head, { xhtml }), isManaged, xhtml)).toBe(injected);
		const { tags, ...served } = readServedHead(source);
		return [
			source,
			'--- read',
			readPage(source, at % 5 === 0 ? 'x.xhtml' : 'x.html'),
			'--- served',
			served,
			...tags.map(({ tag, ...one }) => ({ ...one, tag: tag?.name })),
			'--- injected',
			injected,
			gone,
			'--- text',
			htmlToText(source)
		];
	});
	await holds('documents', text);
});

test('injecting a second time changes nothing, whatever the document', () => {
	const chance = new Chance(29);
	const lines = [
		'<link rel="preload" href="/a.css" as="style">',
		'<title>T</title>',
		'<meta name="description" content="D">'
	];
	const isManaged = (name: string) => ['title', 'description', 'og:title'].includes(name);
	for (let at = 0; at < 1500; at++) {
		const source = documentOf(chance);
		const once = injectHead(source, lines, isManaged, isXhtml(source));
		expect(injectHead(once, lines, isManaged, isXhtml(source)), source).toBe(once);
		expect(once).toContain('<title>T</title>');
	}
});

test('extra markup: what is kept of it and what is wrong', async () => {
	const text = many(80, 37, (chance) => {
		const source = extraOf(chance);
		const { elements, issues } = limitExtraMarkup(source);
		return [source, elements, ...issues.map((issue) => `${issue.severity}: ${formatIssue(issue, source)}`)];
	});
	await holds('extra-markup', text);
});

test('texts: settled, clipped, measured, fitted into boxes, opened', async () => {
	/** As if each letter were half as wide as high, and others as wide. */
	const measure = (text: string, size: number) =>
		[...text].reduce((sum, sign) => sum + (sign < '\u0250' ? 0.5 : 1) * size, 0);
	const text = many(160, 53, (chance) => {
		const source = textOf(chance);
		const limit = chance.pick([1, 5, 12, 40, 100]);
		const language = chance.pick(['en', 'ja', 'ar', 'fr']);
		const room = {
			width: chance.pick([60, 300, 700]),
			height: chance.pick([20, 90, 300]),
			size: chance.pick([64, 30]),
			least: chance.pick([20, 28])
		};
		return [
			source,
			[
				settleText(source),
				clipText(source, limit),
				clipText(source, limit, ''),
				firstWords(source, 3, language),
				countGraphemes(source),
				isBlank(source)
			],
			[limit, language, Math.round(measureText(source, 1000)), lettersNotDrawn(source)],
			[room, fitText(source, room, language, measure)],
			[
				firstSentences(source, { graphemes: limit * 2, ems: 40 }, language),
				openingOf(`<p>${source}</p>`, { graphemes: 90, ems: 68.5 }, language),
				readingMinutes(source.repeat(chance.pick([1, 40])))
			]
		];
	});
	await holds('texts', text);
});

test('share pictures: recipes, and what is weak in them', async () => {
	const file = `${'b'.repeat(24)}.jpg`;
	const text = many(140, 83, (chance, at) => {
		const lead = { src: `/media/${file}`, width: 1200, height: 630, light: lightOf(chance) };
		const recipe = recipeOf(layoutOf(chance), at % 3 === 0 ? { ink: '#222222' } : undefined, {
			...{ title: textOf(chance), line: chance.is(50) ? textOf(chance) : '' },
			language: chance.pick(['en', 'ar', 'ja']),
			picture: chance.is(75) ? { file, focus: [chance.next(), chance.next()], zoom: chance.pick([1, 2]) } : undefined,
			logo: chance.is(50) ? file : undefined,
			play: chance.is(20)
		});
		return [recipe, nameOfRecipe(recipe), findInShare(recipe, chance.is(90) ? lead : undefined, '/p')];
	});
	await holds('share-pictures', text);
});

test('dates and cuts', async () => {
	const text = many(120, 71, (chance) => {
		const two = (most: number) => String(chance.below(most)).padStart(2, '0');
		const date = `${chance.pick(['2026', '1999', '0050', '9999'])}-${two(14)}-${two(33)}${chance.pick(['', `T${two(25)}:${two(61)}`, ` ${two(24)}:${two(60)}:${two(61)}Z`, `T10:00+${two(26)}:00`, `T10:00:00.5-0${chance.below(9)}30`])}`;
		const size = [chance.pick([100, 600, 1199]), chance.pick([100, 630, 4000])] as const;
		return [
			[date, toIsoDate(date), toIsoDate(date, 'Europe/Paris')],
			[size, cropBox(...size, chance.pick([1, 1.91, 0.5]), [chance.next(), chance.next()], chance.pick([1, 1.5, 4]))]
		];
	});
	await holds('dates-and-cuts', text);
});
