import { describe, expect, test } from 'vitest';
import {
	headOfJson,
	headToJson,
	PageRenderer,
	renderHead,
	renderLines,
	renderTag,
	Resolver,
	type HeadJson,
	type Page,
	type SiteModel
} from '../index';
import { escapeAttribute, escapeText, isPlain } from './escape';

const input: SiteModel = {
	site: {
		name: 'Site',
		base: 'https://site.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		extra: { before: '<meta name="first" content="1">', after: '<link rel="last" href="/x">' },
		rules: [{ tag: 'meta:always', kind: 'template', template: 'a "b" & <c>' }]
	},
	types: [],
	pictures: []
};
const page = (fields: Page['fields'], more: Partial<Page> = {}): Page => ({
	path: '/p',
	type: '',
	state: 'live',
	rules: [],
	fields,
	...more
});
const resolver = new Resolver(input, '');
const odd = page(
	{ title: 'A "q" & <b>', summary: 'It\'s > "that" & more' },
	{ alternates: { fr: '/fr' }, extra: { before: '<meta name="mine" content="2">', after: '<style>i{}</style>' } }
);

describe.each([
	['HTML', false, '>'],
	['XHTML', true, ' />']
])('a head as %s', (_name, xhtml, end) => {
	const lines = renderLines(resolver.resolveHead(odd), { xhtml });

	test('has a line for each tag, extra markup of the site and the page around them', () => {
		expect(lines.slice(0, 4)).toEqual([
			'<meta name="first" content="1">',
			'<meta name="mine" content="2">',
			'<title>A "q" &amp; &lt;b&gt;</title>',
			`<meta name="description" content="It's &gt; &quot;that&quot; &amp; more"${end}`
		]);
		expect(lines.slice(-2)).toEqual(['<link rel="last" href="/x">', '<style>i{}</style>']);
		expect(lines).toContain(`<link rel="alternate" href="https://site.example/fr" hreflang="fr"${end}`);
		expect(lines).toContain(`<meta name="always" content="a &quot;b&quot; &amp; &lt;c&gt;"${end}`);
		expect(lines).toContain(`<meta property="og:title" content="A &quot;q&quot; &amp; &lt;b&gt;"${end}`);
	});
	test('is the same by lines, whole, and straight from the resolver', () => {
		const whole = `${lines.join('\n')}\n`;
		expect(renderHead(resolver.resolveHead(odd), { xhtml })).toBe(whole);
		const renderer = new PageRenderer(resolver, { xhtml });
		// What is kept from the page before must not show.
		for (const other of [odd, page({ title: 'B' }), odd, page({ title: 'A "q" & <c>' }), odd])
			expect(renderer.render(other)).toBe(renderHead(resolver.resolveHead(other), { xhtml }));
		expect(renderer.renderWithTrace(odd).markup).toBe(whole);
	});
	test('a page that says nothing is written as its title and address', () => {
		const bare = new Resolver(
			{
				...input,
				site: { ...input.site, extra: undefined, rules: [], families: { og: false, twitter: false } } as never
			},
			''
		);
		expect(renderHead(bare.resolveHead(page({})), { xhtml })).toBe(
			`<title>Site</title>\n<link rel="canonical" href="https://site.example/p"${end}\n`
		);
	});
});

test('texts of the same length are told apart from page to page', () => {
	const renderer = new PageRenderer(resolver);
	expect(renderer.render(page({ title: 'a&b' }))).toContain('<title>a&amp;b</title>');
	expect(renderer.render(page({ title: 'c&d' }))).toContain('<meta property="og:title" content="c&amp;d">');
	expect(renderer.render(page({ title: 'a&b' }))).toContain('<meta property="og:title" content="a&amp;b">');
});

test('a head as data has the same tags in the same order, and extra markup only where there is some', () => {
	const head = resolver.resolveHead(odd);
	const json = headToJson(head);
	expect(json.tags.map(({ tag }) => tag)).toEqual(head.tags.map(({ tag }) => tag.name));
	expect(json.before).toEqual(['<meta name="first" content="1">', '<meta name="mine" content="2">']);
	expect(json.after).toEqual(['<link rel="last" href="/x">', '<style>i{}</style>']);
	expect(json.html).toEqual(head.html);
	expect(json).not.toHaveProperty('traces');
	const of = (tag: string) => json.tags.find((one) => one.tag === tag);
	expect(of('title')).toEqual({ tag: 'title', element: 'title', attributes: {}, value: 'A "q" & <b>' });
	expect(of('description')).toMatchObject({ element: 'meta', attributes: { name: 'description' } });
	expect(of('og:title')).toMatchObject({ element: 'meta', attributes: { property: 'og:title' } });
	expect(of('alternate')).toMatchObject({ element: 'link', attributes: { rel: 'alternate', hreflang: 'en' } });
	const { head: traced, traces } = resolver.resolveWithTrace(odd);
	expect(headToJson(traced, { traces }).traces).toBe(traces);
	const plain = new Resolver({ ...input, site: { ...input.site, extra: undefined } as never }, '');
	const bare = headToJson(plain.resolveHead(page({ title: 'T' })));
	expect(bare).not.toHaveProperty('before');
	expect(bare).not.toHaveProperty('after');
});

test('what is kept of a head renders to the same bytes, whatever became of the tags that its site declared', () => {
	const { head, traces } = resolver.resolveWithTrace(odd);
	const kept = JSON.parse(JSON.stringify(headToJson(head, { leftOut: ['robots'], traces }))) as HeadJson;
	expect(kept.leftOut).toEqual(['robots']);
	for (const xhtml of [false, true]) expect(renderHead(headOfJson(kept), { xhtml })).toBe(renderHead(head, { xhtml }));
	expect(headToJson(headOfJson(kept))).toEqual(headToJson(head));
	expect(headToJson(head)).not.toHaveProperty('leftOut');
});

test('one tag as markup has no line feed', () => {
	const head = resolver.resolveHead(odd);
	const alternate = head.tags.find(({ tag }) => tag.name === 'alternate')!;
	expect(renderTag(alternate)).toBe('<link rel="alternate" href="https://site.example/p" hreflang="en">');
	expect(renderTag(alternate, { xhtml: true })).toBe(
		'<link rel="alternate" href="https://site.example/p" hreflang="en" />'
	);
	expect(renderTag(head.tags[0]!)).toBe('<title>A "q" &amp; &lt;b&gt;</title>');
});

test('a picture goes out with all that is known of it, each fact once, in their order', () => {
	const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
	const picture = {
		...{ src: '/a.jpg', secure: 'https://s.example/secure.jpg', type: 'image/jpeg', width: 1200, height: 630 },
		alt: 'A “boat”'
	};
	const page: Page = {
		...{ path: '/', type: 't', state: 'live', rules: [] },
		fields: { title: 'T', picture: '/a.jpg' }
	};
	const resolver = new Resolver({ site, types: [], pictures: [picture] }, '');
	const written = new PageRenderer(resolver).render(page);
	expect(written).toBe(renderHead(resolver.resolveHead(page)));
	expect(written.split('\n').filter((line) => line.includes('og:image'))).toEqual([
		'<meta property="og:image" content="https://s.example/a.jpg">',
		'<meta property="og:image:secure_url" content="https://s.example/secure.jpg">',
		'<meta property="og:image:type" content="image/jpeg">',
		'<meta property="og:image:width" content="1200">',
		'<meta property="og:image:height" content="630">',
		'<meta property="og:image:alt" content="A “boat”">'
	]);
});

describe('escaping', () => {
	test.each([
		['&', '&amp;', '&amp;'],
		['<', '&lt;', '&lt;'],
		['>', '&gt;', '&gt;'],
		['"', '"', '&quot;'],
		["'", "'", "'"],
		['a&&b', 'a&amp;&amp;b', 'a&amp;&amp;b'],
		['plain', 'plain', 'plain'],
		['', '', '']
	])('%s', (text, inText, inAttribute) => {
		expect([escapeText(text), escapeAttribute(text)]).toEqual([inText, inAttribute]);
		expect(isPlain(text)).toBe(!/[&<>"]/.test(text));
	});
});
