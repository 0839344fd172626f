import fc from 'fast-check';
import { parse } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { describe, expect, test } from 'vitest';
import {
	CATALOGUE,
	settleText,
	editModel,
	editPage,
	headToJson,
	injectHead,
	managedBy,
	measureReach,
	PageRenderer,
	templateParts,
	renderHead,
	renderLines,
	Resolver,
	TAG_NAMES,
	type ContentType,
	type Head,
	type Page,
	type Rule,
	type Site,
	type Trace
} from '../index';

/** Texts that break things: markup, quotation marks, controls, lone surrogates, writing from right to left. */
const hostile = fc.oneof(
	fc.string(),
	fc.string({ unit: 'grapheme' }),
	fc.string({ unit: 'binary' }),
	fc.array(fc.integer({ min: 0, max: 0xffff }), { maxLength: 12 }).map((units) => String.fromCharCode(...units)),
	fc.constantFrom(
		'</title><script>alert(1)</script>',
		'"><meta name=x>',
		"' onload='x",
		'&amp;lt;',
		'\u0000\ud800',
		'<!--',
		']]>',
		'\u202eabc\u202c',
		'👩‍👩‍👧',
		'{page.title}',
		'[[x',
		'\\',
		'   ',
		'\u200b'
	)
);
const fieldValue = fc.oneof(
	hostile,
	fc.array(hostile, { maxLength: 4 }),
	fc.integer(),
	fc.boolean(),
	fc.constant(null),
	fc.record({ src: hostile, alt: hostile }),
	fc.record({ name: hostile, handle: hostile })
);
const fields = fc.dictionary(
	fc.constantFrom(
		'title',
		'summary',
		'body',
		'picture',
		'pictures',
		'author',
		'tags',
		'region',
		'__proto__',
		'constructor'
	),
	fieldValue
);
const variable = fc.constantFrom(
	'page.title',
	'page.summary',
	'page.region',
	'page.tags',
	'site.name',
	'head.title',
	'head.og:title',
	'type.name',
	'now',
	'page.nothing',
	'listing.count'
);
const filter = fc.constantFrom(
	'',
	' | clip 12',
	' | words 2',
	' | case "upper"',
	' | first',
	' | join',
	' | plain',
	' | hashtags',
	' | date "d MMM"',
	' | replace "a" "aa"',
	' | plural "x" "y"',
	' | number'
);
const piece: fc.Arbitrary<string> = fc.oneof(
	fc.tuple(variable, filter).map(([name, more]) => `{${name}${more}}`),
	fc.tuple(variable, variable).map(([a, b]) => `{${a} ?? ${b} ?? "x"}`),
	variable.map((name) => `[[ in {${name}}]]`),
	fc.constant(' {separator} '),
	hostile
);
const template = fc.array(piece, { maxLength: 5 }).map((pieces) => pieces.join(''));
const tagName = fc.oneof(
	fc.constantFrom(
		'title',
		'description',
		'og:title',
		'og:description',
		'og:image',
		'twitter:title',
		'twitter:image',
		'canonical',
		'robots',
		'article:tag',
		'og:type'
	),
	fc.constantFrom(...TAG_NAMES),
	hostile
);
const rule: fc.Arbitrary<Rule> = fc
	.tuple(
		tagName,
		fc.option(fc.constantFrom('fr', 'en', 'pt-BR'), { nil: undefined }),
		fc.oneof(
			template.map((text) => ({ kind: 'template' as const, template: text })),
			tagName.map((from) => ({ kind: 'borrow' as const, from })),
			fc.constant({ kind: 'leaveOut' as const }),
			fc.constant({
				kind: 'pictures' as const,
				sources: [{ from: 'lead' as const }, { from: 'body' as const }, { from: 'site' as const }],
				count: 3
			})
		)
	)
	.map(([tag, language, body]) => ({ tag, ...(language && { language }), ...body }));
/** A layer says one thing about a tag in a language. */
const rules = fc.uniqueArray(rule, { maxLength: 6, selector: ({ tag, language }) => `${tag} ${language}` });
const families = fc.constantFrom({}, { og: false }, { twitter: false }, { og: true, twitter: true });

const world = fc
	.record({
		site: fc.record({
			name: hostile,
			base: fc.constantFrom('https://site.example/', 'https://site.example/docs', 'nonsense'),
			separator: fc.constantFrom('·', '', ' | '),
			fields,
			rules,
			families,
			lean: fc.boolean()
		}),
		type: fc.record({ rules, families }),
		page: fc.record({
			path: hostile.map((text) => `/${text}`),
			language: fc.constantFrom('en', 'fr', 'pt-BR', 'not a tag'),
			fields,
			rules,
			families
		})
	})
	.map(({ site, type, page }) => ({
		site: { ...site, languages: ['en', 'fr'] } as Site,
		types: [{ name: 't', fields: [], ...type }] as ContentType[],
		page: { type: 't', state: 'live', ...page } as Page
	}));
type World = typeof world extends fc.Arbitrary<infer T> ? T : never;

const NOW = '2026-05-03T10:00:00Z';
const PICTURES = [{ src: '/a.jpg', width: 1200, height: 630 }];
const resolverOf = ({ site, types }: World) => new Resolver({ site, types, pictures: PICTURES }, NOW);
const pairs = (head: Head) => head.tags.map(({ tag, value }) => [tag.name, value]);

/** What an HTML parser reads in a head: the tags and their texts, in order. */
function readBack(html: string): string[] {
	const document = parse(`<!doctype html><html><head>${html}</head><body></body></html>`);
	const root = document.childNodes.find((node): node is Tree.Element => node.nodeName === 'html') as Tree.Element;
	const [head, body] = root.childNodes as [Tree.Element, Tree.Element];
	expect(body.childNodes, 'nothing escapes into the body').toEqual([]);
	return head.childNodes
		.filter((node): node is Tree.Element => 'tagName' in node)
		.map((element) => {
			const text = element.childNodes.map((node) => ('value' in node ? node.value : '?')).join('');
			return [element.tagName, ...element.attrs.flatMap(({ name, value }) => [name, value]), text].join('\n');
		});
}
const meant = (head: Head) =>
	headToJson(head).tags.map(({ element, attributes, value }) => {
		const own = Object.entries(attributes);
		const [first, ...rest] = own;
		const written =
			element === 'title' ? [] : [...(first ?? []), element === 'link' ? 'href' : 'content', value, ...rest.flat()];
		return [element, ...written, element === 'title' ? value : ''].join('\n');
	});

describe('for any site and any values', () => {
	test('R10: an HTML parser reads back exactly the tags and the texts that were meant', () => {
		fc.assert(
			fc.property(world, (any) => {
				const head = resolverOf(any).resolveHead(any.page);
				expect(readBack(renderHead(head))).toEqual(meant(head));
				expect(readBack(renderHead(head, { xhtml: true }))).toEqual(meant(head));
			}),
			{ numRuns: 400 }
		);
	});

	test('R10: whatever stands in one title and description', () => {
		fc.assert(
			fc.property(hostile, hostile, (title, summary) => {
				const any = {
					site: { name: '', base: 'https://site.example/', languages: ['en'], separator: '', fields: {}, rules: [] },
					types: [],
					page: { path: '/', type: 't', state: 'live', fields: { title, summary }, rules: [] }
				} as unknown as World;
				const head = resolverOf(any).resolveHead(any.page);
				const values = new Map(pairs(head) as [string, string][]);
				expect(values.get('title')).toBe(settleText(title) || '/');
				expect(values.get('description')).toBe(settleText(summary) || undefined);
				expect(readBack(renderHead(head))).toEqual(meant(head));
			}),
			{ numRuns: 600 }
		);
	});

	test('it is deterministic, and the trace changes nothing', () => {
		fc.assert(
			fc.property(world, (any) => {
				const resolver = resolverOf(any);
				const first = renderHead(resolver.resolveHead(any.page));
				expect(renderHead(resolver.resolveHead(any.page))).toBe(first);
				expect(renderHead(resolverOf(any).resolveWithTrace(any.page).head)).toBe(first);
			}),
			{ numRuns: 200 }
		);
	});

	test('a single page looked at comes to the same, and its templates too', () => {
		fc.assert(
			fc.property(world, (any) => {
				const { head, traces, scope } = resolverOf(any).look(any.page);
				expect({ head, traces }).toEqual(resolverOf(any).resolveWithTrace(any.page));
				const plain = resolverOf(any).evaluate(any.page);
				const template = '{page.title ?? site.name} {separator} {head.title} {page.picture}';
				expect(templateParts(template, scope)).toEqual(templateParts(template, plain));
			}),
			{ numRuns: 200 }
		);
	});

	test('a page comes to the same whatever pages went before it, by the quick way and by the long one', () => {
		fc.assert(
			fc.property(world, fc.array(fc.tuple(fields, fc.boolean()), { minLength: 2, maxLength: 5 }), (any, others) => {
				const pages = others.map(([own, hasRules], at): Page => ({
					...any.page,
					path: `${any.page.path}${at}`,
					fields: own,
					rules: hasRules ? any.page.rules : []
				}));
				const quick = new PageRenderer(resolverOf(any));
				const telling = new PageRenderer(resolverOf(any), { xhtml: true });
				for (const page of [...pages, ...pages]) {
					const { head, traces } = resolverOf(any).resolveWithTrace(page);
					expect(quick.render(page)).toBe(renderHead(head));
					expect(telling.renderWithTrace(page)).toEqual({ markup: renderHead(head, { xhtml: true }), traces });
				}
			}),
			{ numRuns: 150 }
		);
	});

	test('reach counts exactly the pages whose markup changes', () => {
		const layer = fc.constantFrom('site', 'type', 'page');
		fc.assert(
			fc.property(world, fields, rules, layer, (any, other, edits, where) => {
				const pages = [any.page, { ...any.page, path: `${any.page.path}2`, fields: other, rules: [] }];
				const place =
					where === 'site'
						? { layer: 'site' as const }
						: where === 'type'
							? { layer: 'type' as const, name: 't' }
							: { layer: 'page' as const, path: any.page.path };
				for (const { tag, language, ...body } of edits.slice(0, 3)) {
					const edit = { place, tag, ...(language && { language }), body: body as Rule };
					const after = resolverOf({ ...any, ...editModel({ site: any.site, types: any.types }, edit) });
					const before = resolverOf(any);
					const changed = pages.filter(
						(page) => renderHead(before.resolveHead(page)) !== renderHead(after.resolveHead(editPage(page, edit)))
					);
					const model = { site: any.site, types: any.types, pictures: PICTURES };
					expect(measureReach(model, pages, edit, NOW).changed).toBe(changed.length);
				}
			}),
			{ numRuns: 200 }
		);
	});

	test('every trace names one winner or none, and the head has what won', () => {
		fc.assert(
			fc.property(world, (any) => {
				const { head, traces } = resolverOf(any).resolveWithTrace(any.page);
				for (const { steps, winner, value, tag } of traces) {
					const won = steps.flatMap((step, at) => (step.outcome.kind === 'won' ? [at] : []));
					expect(won, tag).toEqual(winner < 0 ? [] : [winner]);
					expect(value === undefined, tag).toBe(winner < 0);
				}
				const winners = new Set(
					traces.filter((trace) => trace.winner >= 0 && !trace.withheld).map((trace) => trace.tag)
				);
				for (const { tag } of head.tags) expect(winners.has(tag.name) || tag.fact !== undefined, tag.name).toBe(true);
			}),
			{ numRuns: 200 }
		);
	});

	test('no tag stands twice unless it may repeat; the order is the catalogue’s', () => {
		fc.assert(
			fc.property(world, (any) => {
				const { tags } = resolverOf(any).resolveHead(any.page);
				const main = tags.filter(({ tag }) => tag.fact === undefined);
				const places = main.map(({ tag }) => CATALOGUE.indexOf(tag)).filter((place) => place >= 0);
				expect(places).toEqual([...places].sort((a, b) => a - b));
				for (const { tag } of main)
					if (!tag.repeated) expect(main.filter((other) => other.tag === tag).length, tag.name).toBe(1);
			}),
			{ numRuns: 200 }
		);
	});

	test('every address is absolute, http or https, and as the URL standard writes it', () => {
		fc.assert(
			fc.property(world, (any) => {
				for (const { tag, value } of resolverOf(any).resolveHead(any.page).tags) {
					if (tag.kind !== 'address' && tag.kind !== 'picture') continue;
					expect(new URL(value).href).toBe(value);
					expect(value).toMatch(/^https?:\/\//);
				}
			}),
			{ numRuns: 200 }
		);
	});

	test('a rule that was not reached can say anything', () => {
		fc.assert(
			fc.property(world, template, (any, other) => {
				const { head, traces } = resolverOf(any).resolveWithTrace(any.page);
				const idle = (one: Rule) => passedOver(traces, one);
				const site = {
					...any.site,
					rules: any.site.rules.map((one) =>
						idle(one)
							? ({
									tag: one.tag,
									...(one.language && { language: one.language }),
									kind: 'template',
									template: other.replaceAll('head.', 'page.')
								} as Rule)
							: one
					)
				};
				fc.pre(site.rules.some((one, at) => one !== any.site.rules[at]));
				expect(pairs(resolverOf({ ...any, site }).resolveHead(any.page))).toEqual(pairs(head));
			}),
			{ numRuns: 200 }
		);
	});

	test('putting a head into a file and doing it again changes nothing more', () => {
		const files = fc.oneof(
			hostile,
			fc
				.tuple(hostile, hostile)
				.map(
					([a, b]) =>
						`<!doctype html><html><head><meta charset="utf-8">\n${a}<title>Old</title><meta property="og:title" content="x">\n</head><body>${b}</body></html>`
				)
		);
		fc.assert(
			fc.property(world, files, (any, file) => {
				const head = resolverOf(any).resolveHead(any.page);
				const once = injectHead(file, renderLines(head), managedBy(head), false);
				expect(injectHead(once, renderLines(head), managedBy(head), false)).toBe(once);
			}),
			{ numRuns: 200 }
		);
	});
});

/** Whether the trace says that nobody needed this rule of the site, and no rule of it is read by another. */
function passedOver(traces: readonly Trace[], { tag, language }: Rule): boolean {
	const step = traces
		.find((trace) => trace.tag === tag)
		?.steps.find((one) => one.layer === 'site' && one.language === language);
	return step?.outcome.kind === 'not-reached';
}
