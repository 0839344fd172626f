import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';
import {
	cardOf,
	checkRule,
	describeFinding,
	describeMend,
	describeOutcome,
	describePassedOver,
	describeRule,
	describeSkipped,
	describeWithheld,
	fieldsOfAll,
	findHard,
	findInPicture,
	findInRules,
	findOnPage,
	formatIssue,
	headToJson,
	iconsOf,
	measureReach,
	nameOfLayer,
	READERS,
	renderHead,
	Resolver,
	webManifest,
	type AnyEdit,
	type Finding,
	type Page,
	type Trace,
	type TraceStep
} from './index';
import { visible } from '../../conformance/chance';
import { makeRule, makeWorld, type World } from '../../conformance/worlds';

/**
 * What sites made by chance come to, written down in conformance/worlds and read there: heads, traces, findings, cards,
 * reach. Where a change is meant, `npx vitest run src/core/worlds src/core/parts -u` writes them anew, and the difference is read.
 */
const COUNT = 30;
const NOW = '2026-05-03T10:00:00Z';
const file = (seed: number) =>
	fileURLToPath(new URL(`../../conformance/worlds/${String(seed).padStart(2, '0')}.txt`, import.meta.url));

function stepInWords(step: TraceStep): string {
	const { outcome } = step;
	const skipped =
		'skipped' in outcome ? (outcome.skipped ?? []).map((one) => `; ${describeSkipped(one)}`).join('') : '';
	return `${nameOfLayer(step.layer)}: ${describeRule(step)}: ${describeOutcome(outcome)}${skipped}`;
}
/** Tags of which there is more to tell than that the built-in has nothing. */
const isTold = ({ steps }: Trace) =>
	steps.length > 1 || steps.some(({ layer, outcome }) => layer !== 'built-in' || outcome.kind === 'won');
const traceInWords = (trace: Trace) => [
	trace.tag,
	...trace.steps.map((step) => `  ${stepInWords(step)}`),
	...(trace.withheld ? [`  withheld: ${describeWithheld(trace.withheld)}`] : []),
	...(trace.passedOver ? [`  passed over: ${describePassedOver(trace)}`] : [])
];
const findingInWords = (found: Finding) =>
	`${found.code} (${found.weight}) ${JSON.stringify(found.target)} ${found.tag ?? ''}: ${describeFinding(found)} → ${describeMend(found)}`;

function pageInWords(resolver: Resolver, page: Page, isWhole: boolean): string[] {
	const { head, traces, scope } = resolver.look(page);
	return [
		`## ${JSON.stringify(page)}`,
		renderHead(head),
		...(isWhole ? ['### XHTML', renderHead(head, { xhtml: true }), '### JSON', JSON.stringify(headToJson(head))] : []),
		...(isWhole ? ['### Trace', ...traces.filter(isTold).flatMap(traceInWords)] : []),
		'### Share picture',
		JSON.stringify(scope.sharePicture()?.recipe ?? null),
		'### Findings',
		...findOnPage(page, head, scope).map(findingInWords),
		...(isWhole ? ['### Cards', ...READERS.map((reader) => JSON.stringify(cardOf(reader, head)))] : [])
	];
}

function reachInWords(world: World, seed: number): string[] {
	const places = [{ layer: 'site' }, { layer: 'type', name: 'note' }, { layer: 'page', path: '/' }] as const;
	const rules = places.map((place, at) => {
		const { tag, language, ...body } = makeRule(seed * 31 + at);
		return { place, tag, body: at === 2 && seed % 4 === 0 ? null : body, ...(language && { language }) };
	});
	// A rule that stands there, taken away or in another language's letters.
	const own = world.site.rules[0];
	const gone = own && {
		place: places[0],
		tag: own.tag,
		body: null,
		...(own.language && { language: own.language.toUpperCase() })
	};
	const settings = [
		{ place: places[1], changes: { off: true } },
		{ place: places[0], changes: { separator: '/', lean: seed % 2 === 0 } },
		{ place: places[2], changes: { state: 'draft', hidden: true } }
	];
	return [...rules, ...(gone ? [gone] : []), ...settings].flatMap((edit) => [
		JSON.stringify(edit),
		JSON.stringify(measureReach(world, world.pages, edit as AnyEdit, NOW))
	]);
}

function worldInWords(seed: number): string {
	const world = makeWorld(seed);
	const { site, types, pictures, pages } = world;
	const resolver = new Resolver({ site, types, pictures }, NOW);
	const context = { site, fields: fieldsOfAll(types) };
	const rules = [...site.rules, ...types.flatMap((type) => type.rules), ...pages.flatMap((page) => page.rules)];
	return visible(
		[
			'# Site',
			JSON.stringify(site),
			'# Types',
			...types.map((type) => JSON.stringify(type)),
			'# Pictures',
			...pictures.map((picture) => JSON.stringify(picture)),
			'# Pages',
			...pages.flatMap((page, at) => pageInWords(resolver, page, at === seed % pages.length)),
			'# What is wrong with rules',
			...rules.flatMap((rule) =>
				checkRule(rule, context).map(
					(issue) =>
						`${rule.tag}: ${issue.severity}: ${formatIssue(issue, rule.kind === 'template' ? rule.template : rule.tag)}`
				)
			),
			'# What is wrong with them all',
			...findInRules(site, types, pages).map(findingInWords),
			'# What is wrong with pictures',
			...pictures
				.flatMap((picture) => findInPicture(picture, { shown: seed % 5, shownOn: ['/a', '/b', '/c', '/d'] }))
				.map(findingInWords),
			'# Icons',
			...pictures.map((picture) =>
				JSON.stringify([iconsOf(picture), webManifest({ name: site.name, language: 'en' }, picture)])
			),
			'# The hardest pages',
			JSON.stringify(findHard({ site, types, pictures }, pages, NOW)),
			'# Reach of edits',
			...reachInWords(world, seed),
			''
		].join('\n')
	);
}

describe('sites made by chance come to what is written down', () => {
	test.each(Array.from({ length: COUNT }, (_, at) => at + 1))('site %i', async (seed) => {
		await expect(worldInWords(seed)).toMatchFileSnapshot(file(seed));
	});
});
