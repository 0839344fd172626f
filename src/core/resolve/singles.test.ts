import { describe, expect, test } from 'vitest';
import {
	AddressBook,
	cardOf,
	checkBase,
	editPage,
	findInPicture,
	fitText,
	headToJson,
	knownVariables,
	measureReach,
	parseTemplate,
	READERS,
	readPage,
	Resolver,
	type Page,
	type Rule,
	type Site
} from '../index';
import { recipeOf, STARTING_LAYOUTS } from '../index';
import { compileTemplate } from '../template/compile';
import { undeclaredPrefix } from '../catalogue/catalogue';
import { dropSiteName } from '../findings/mends';
import { readServedHead } from '../markup/served';
import { formsNeeded } from '../template/filters/numbers';
import { textOfValue } from './value';

/** Single cases, each the least that tells two ways apart. */

const site: Site = {
	name: 'Marl',
	base: 'https://marl.example/',
	languages: ['en'],
	separator: '·',
	fields: {},
	rules: []
};
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'isle', state: 'live', fields: { title: path }, rules: [] },
	...more
});
const type = { name: 'isle', fields: [], rules: [] as Rule[] };
const resolver = (more: Partial<Site> = {}, rules: readonly Rule[] = [], pictures: object[] = []) =>
	new Resolver({ site: { ...site, ...more }, types: [{ ...type, rules }], pictures: pictures as never }, 'now');
const valueOf = (made: Resolver, of: Page, tag: string) =>
	headToJson(made.resolveHead(of)).tags.find((one) => one.tag === tag)?.value;

describe('addresses of pictures', () => {
	test('a relative one is each page’s own, a whole one is not', () => {
		const book = new AddressBook('https://marl.example/');
		const at = (src: string, from: string) => book.ofPicture(src, `https://marl.example${from}`);
		for (const src of ['boat.jpg', 'boats/'])
			expect([at(src, '/a/'), at(src, '/b/')]).toEqual([
				`https://marl.example/a/${src}`,
				`https://marl.example/b/${src}`
			]);
		expect(at('my-https:boat.jpg', '/a/')).toBeUndefined();
		expect([at('/boat.jpg', '/a/'), at('/boat.jpg', '/b/')]).toEqual(Array(2).fill('https://marl.example/boat.jpg'));
	});
	test('alt texts of a mention are its page’s own', () => {
		const made = resolver();
		const withAlt = (path: string, alt: string) =>
			page(path, { fields: { title: path, picture: { src: '/p.jpg', alt } } });
		expect(valueOf(made, withAlt('/a', 'First'), 'og:image:alt')).toBe('First');
		expect(valueOf(made, withAlt('/b', 'Second'), 'og:image:alt')).toBe('Second');
	});
	test('a source that is no address is named in the trace', () => {
		const { traces } = resolver().resolveWithTrace(
			page('/a', { fields: { title: 'A', picture: 'ftp://x.example/a.jpg' } })
		);
		const steps = traces.find(({ tag }) => tag === 'og:image')!.steps;
		expect(JSON.stringify(steps)).toContain('ftp://x.example/a.jpg');
	});
	test('a page of no known type has what the site gives', () => {
		const made = resolver({ fields: { picture: '/site.jpg' } });
		expect(valueOf(made, page('/a', { type: 'none' }), 'og:image')).toBe('https://marl.example/site.jpg');
	});
});

describe('versions', () => {
	test('a page that names no language but its own has none', () => {
		const own = page('/a', { language: 'en', alternates: { en: '/a' } });
		expect(headToJson(resolver().resolveHead(own)).tags.filter(({ tag }) => tag === 'alternate')).toEqual([]);
		const two = page('/a', { language: 'en', alternates: { fr: '/b' } });
		expect(headToJson(resolver().resolveHead(two)).tags.filter(({ tag }) => tag === 'alternate')).toHaveLength(3);
	});
});

test('an edit of a page changes no other', () => {
	const edit = {
		place: { layer: 'page', path: '/a' },
		tag: 'title',
		body: { kind: 'template', template: 'New' }
	} as const;
	expect(editPage(page('/a'), edit).rules).toHaveLength(1);
	expect(editPage(page('/b'), edit)).toEqual(page('/b'));
	const ofType = { ...edit, place: { layer: 'type', name: 'isle' } } as const;
	expect(editPage(page('/a'), ofType)).toEqual(page('/a'));
});

describe('reading pages', () => {
	test('a heading of a lower rank does where there is no first one', () => {
		expect(readPage('<h2>Tides</h2><p>Text.</p>').heading).toBe('Tides');
		expect(readPage('<p>Text.</p>').heading).toBe('');
	});
	test('links to versions without the spaces round them', () => {
		const html = '<link rel="alternate" hreflang=" fr " href=" /fr ">';
		expect(readPage(html).versions).toMatchObject({ fr: '/fr' });
	});
	test('names of tags are read however they are written', () => {
		const { tags } = readServedHead('<head><META NAME="Description" CONTENT="Tides"></head>');
		expect(tags.map(({ name, value }) => [name, value])).toEqual([['description', 'Tides']]);
	});
});

test('of two tags of a name the first one is shown', () => {
	const rules: Rule[] = [{ tag: 'meta:description', kind: 'template', template: 'x' }];
	const head = resolver({}, rules).resolveHead(page('/a', { fields: { title: 'A', summary: 'S' } }));
	const first = head.tags.find(({ tag }) => tag.name === 'og:title')!;
	const doubled = { ...head, tags: [...head.tags, { ...first, value: 'Second' }] };
	for (const reader of READERS) expect(cardOf(reader, doubled).title.shown).not.toBe('Second');
});

test('a gradient stays one in a recipe', () => {
	const { layout } = STARTING_LAYOUTS[0]!;
	const parts = { title: 'T', line: '', language: 'en', picture: undefined, logo: undefined, play: false };
	const background = { kind: 'gradient', from: '#FFFFFF', to: 'ink', angle: 30 } as const;
	expect(recipeOf({ ...layout, background }, undefined, parts).background).toEqual({
		...{ kind: 'gradient', from: '#ffffff', to: '#16302d', angle: 30 }
	});
});

test('why a tag is not written is told on every page, when its text is the same on all', () => {
	const made = resolver({ rules: [{ tag: 'twitter:image:alt', kind: 'template', template: 'A boat' }] });
	for (const path of ['/a', '/b']) {
		const trace = made.resolveWithTrace(page(path)).traces.find(({ tag }) => tag === 'twitter:image:alt');
		expect(trace?.withheld).toBeDefined();
	}
});

test('values as one text', () => {
	expect(textOfValue(undefined)).toBe('');
	expect(textOfValue('one')).toBe('one');
	expect(textOfValue([])).toBe('');
	expect(textOfValue(['first', 'second'])).toBe('first');
	expect(textOfValue([{ kind: 'link', address: 'https://a.example/', attributes: {} }])).toBe('https://a.example/');
});

describe('templates', () => {
	test('fields of the site that it has of itself are offered once', () => {
		const known = knownVariables({ fields: [], siteFields: ['name', 'harbour'], tagNames: [] }).map(({ name }) => name);
		expect(known.filter((name) => name === 'site.name')).toHaveLength(1);
		expect(known).toContain('site.harbour');
	});
	test('each variable has its name in words', () => {
		const known = knownVariables({ fields: [], siteFields: [], tagNames: ['title'] });
		expect(known.filter(({ label }) => !label).map(({ name }) => name)).toEqual([]);
		expect(known.find(({ name }) => name === 'page.author.handle')?.label).toBe('Author: account');
		expect(known.find(({ name }) => name === 'head.title')?.label).toBe('What title comes to');
	});
	test('words in the place of a variable change nothing from page to page', () => {
		expect(compileTemplate('{site.tagline ?? "Isles"}').isConstant).toBe(true);
		expect(compileTemplate('{page.title ?? "Isles"}').isConstant).toBe(false);
	});
	test('a broken one reads nothing', () => {
		const broken = compileTemplate('{head.title | nothing}');
		expect([broken.reads, broken.fault !== undefined]).toEqual([[], true]);
	});
});

describe('what a page lets robots follow', () => {
	const linked = (robots: string) => readPage(`${robots}<p><a href="/a">A</a><a href="/b">B</a></p>`).links;
	test.each([
		['<meta name="Robots" content="noindex, NOFOLLOW">', 0],
		['<meta name="robots" content="none">', 0],
		['<meta name="robots" content="noindex">', 2],
		['<meta name="robots">', 2],
		['<meta name="description" content="none">', 2]
	])('%s', (robots, count) => {
		expect(linked(robots)).toHaveLength(count);
	});
});

describe('a page that goes elsewhere by itself', () => {
	test.each([
		['0;url=/b', { seconds: 0, to: '/b' }],
		[' 12 ; URL = "/b" ', { seconds: 12, to: '/b' }],
		["5,'/b'", { seconds: 5, to: '/b' }],
		['1.5; /b', { seconds: 1, to: '/b' }],
		['soon; url=/b', undefined],
		['x 5; url=/b', undefined],
		['5', undefined],
		['', undefined]
	])('%j', (content, refresh) => {
		expect(
			readServedHead(`<meta http-equiv="Refresh" content="${content.replaceAll('"', '&quot;')}">`).refresh
		).toEqual(refresh);
		expect(readServedHead('<meta http-equiv="refresh">').refresh).toBeUndefined();
	});
});

test('prefixes that are not declared', () => {
	expect([undeclaredPrefix('shop:price'), undeclaredPrefix('og:title')]).toEqual(['shop', undefined]);
	expect([undeclaredPrefix('meta:description'), undeclaredPrefix('plain')]).toEqual([undefined, undefined]);
});

test('of texts that stand twice in a repeated tag one goes out, and every text of a tag that is not repeated is one', () => {
	const rules: Rule[] = [{ tag: 'article:tag', kind: 'template', template: '{page.tags}' }];
	const tagged = page('/a', { fields: { title: 'A', tags: ['marsh', 'tides', 'marsh'] } });
	const article = new Resolver({ site, types: [{ ...type, kind: 'article', rules }], pictures: [] }, 'now');
	const values = (head: ReturnType<Resolver['resolveHead']>) =>
		headToJson(head).tags.flatMap(({ tag, value }) => (tag === 'article:tag' ? [value] : []));
	expect(values(article.resolveHead(tagged))).toEqual(['marsh', 'tides']);
});

describe('found links with facts of their own', () => {
	const found = (value: string) =>
		page('/a', { found: [{ name: 'icon', value, attributes: { sizes: '32x32', type: 'image/png' } }] });
	test('keep them, whole', () => {
		const icon = headToJson(resolver().resolveHead(found('/i.png'))).tags.find(({ tag }) => tag === 'icon');
		expect(icon).toMatchObject({
			value: 'https://marl.example/i.png',
			attributes: { sizes: '32x32', type: 'image/png' }
		});
	});
	test('that are no address come to nothing', () => {
		expect(
			headToJson(resolver().resolveHead(found('javascript:x'))).tags.find(({ tag }) => tag === 'icon')
		).toBeUndefined();
	});
});

describe('robots directives', () => {
	const robots = (template: string) =>
		valueOf(resolver({}, [{ tag: 'robots', kind: 'template', template }]), page('/a'), 'robots');
	test.each([
		['noindex, max-snippet : 50', 'noindex, max-snippet:50'],
		['MAX-IMAGE-PREVIEW:large', 'max-image-preview:large'],
		['unavailable_after: 2026-12-31', 'unavailable_after: 2026-12-31'],
		['noindex, noindex', 'noindex'],
		['max-snippet:many', undefined]
	])('%j', (template, value) => {
		expect(robots(template)).toBe(value);
	});
});

describe('prose by its place', () => {
	const long = (name: string) => `The ${name} is flooded twice a day, and what grows on it is used to salt and wind.`;
	const best = (html: string) => readPage(html).paragraphs[0]?.text;
	test('one break goes on, two end it, and words between them count anew', () => {
		expect(best(`<div>The marsh is flooded<br>twice a day, and grows.</div>`)).toBe(
			'The marsh is flooded twice a day, and grows.'
		);
		expect(best(`<div>${long('marsh')}<br><br>${long('heath')}</div>`)).toBe(long('marsh'));
		expect(best(`<div>The marsh<br>is flooded<br>twice a day, and grows.</div>`)).toBe(
			'The marsh is flooded twice a day, and grows.'
		);
	});
	test('a paragraph goes before an item of a list', () => {
		expect(best(`<ul><li>${long('marsh')}</li></ul><p>${long('heath')}</p>`)).toBe(long('heath'));
	});
});

describe('plural forms and filters', () => {
	test('every category that a language counts with', () => {
		expect(formsNeeded('en')).toEqual(['one', 'other']);
		expect(formsNeeded('ar')).toEqual(['zero', 'one', 'two', 'few', 'many', 'other']);
		expect(formsNeeded('ja')).toEqual(['other']);
		// 100 and more: only then does this language have them all.
		expect(formsNeeded('mt')).toContain('many');
	});
	test('braces that are meant as words, one in another', () => {
		expect(compileTemplate('\\{a \\{b\\} c\\}').run({} as never)).toBe('{a {b} c}');
		expect(parseTemplate('\\{a} b}').issues.map(({ code }) => code)).toEqual(['template/stray-close']);
		expect(parseTemplate('\\{a} b').issues).toEqual([]);
		expect(compileTemplate('{}').fault?.code).toBe('template/empty-placeholder');
		expect(compileTemplate('{"open}').fault).toBeDefined();
	});
	test('the site’s name goes with what led to it', () => {
		expect(dropSiteName('{page.title} {separator} {site.name}')).toBe('{page.title}');
		expect(dropSiteName('{site.name} :: {page.title}')).toBe('{page.title}');
		expect(dropSiteName('{page.title} abc {site.name}')).toBe('{page.title}');
		expect(dropSiteName('{page.title} abcd {site.name}')).toBe('{page.title} abcd');
		expect([dropSiteName('{site.name}'), dropSiteName('{page.title}')]).toEqual([undefined, undefined]);
	});
});

test('a picture of the least shape is not tall yet', () => {
	const codes = (width: number, height: number) =>
		findInPicture({ width, height, alt: 'A' })
			.map((one) => one.code)
			.filter((code) => /tall|long/.test(code));
	expect([codes(1250, 1000), codes(1249, 1000)]).toEqual([[], ['picture-tall']]);
	expect([codes(2900, 1000), codes(2901, 1000)]).toEqual([[], ['picture-long']]);
});

test('a word too wide for its box is broken between its signs, where each has room', () => {
	const fit = (text: string, width: number) =>
		fitText(text, { width, height: 1000, size: 10, least: 10 }, 'en', (line, size) => [...line].length * size).lines;
	expect(fit('abcdef', 30)).toEqual(['abc', 'def']);
	expect(fit('abcdef', 10)).toEqual(['a', 'b', 'c', 'd', 'e', 'f']);
	expect(fit('ab', 9)).toEqual([]);
});

test('without a base there are no addresses of paths; the empty path is the base', () => {
	const none = new AddressBook('nowhere');
	expect([none.ofPath('/a'), none.ofValue('/a', undefined), none.ofPicture('/a.jpg', undefined)]).toEqual([
		...[undefined, undefined, undefined]
	]);
	expect(new AddressBook('https://marl.example').ofPath('')).toBe('https://marl.example/');
});

test('an address that is the same text on all pages is still of each page where it is relative', () => {
	const rules: Rule[] = [
		{ tag: 'og:video', kind: 'template', template: 'film.mp4' },
		{ tag: 'og:image', kind: 'template', template: 'cover.jpg' }
	];
	const made = resolver({ rules });
	for (const at of ['/a/', '/b/', '/a/', '/c/x'])
		expect([valueOf(made, page(at), 'og:video'), made.evaluate(page(at)).pictureOf('og:image')?.address]).toEqual([
			`https://marl.example${at.replace(/[^/]*$/, '')}film.mp4`,
			`https://marl.example${at.replace(/[^/]*$/, '')}cover.jpg`
		]);
});

test('what is known of a picture goes from page to page, what a page says of it does not', () => {
	const made = resolver({}, [], [{ src: '/p.jpg', width: 1200, height: 630 }]);
	const alt = (picture: object | string) =>
		made.evaluate(page('/x', { fields: { title: 'X', picture: picture as never } })).pictureOf('og:image')?.alt;
	expect(alt({ src: '/p.jpg', alt: 'One' })).toBe('One');
	expect(alt({ src: '/p.jpg' })).not.toBe('One');
	expect(alt('/p.jpg')).not.toBe('One');
	expect(alt({ src: '/p.jpg', alt: 'Two' })).toBe('Two');
	const address = (path: string) =>
		made.evaluate(page(path, { fields: { title: 'X', picture: { src: 'q.jpg' } } })).pictureOf('og:image')?.address;
	expect([address('/a/'), address('/b/')]).toEqual([
		...['https://marl.example/a/q.jpg', 'https://marl.example/b/q.jpg']
	]);
});

test('only a meta element leads on or closes a page’s links', () => {
	const read = (element: string) =>
		readPage(`<body><${element}><a href="/north">North</a><p>The marsh floods twice a day.`);
	for (const name of ['input', 'div']) {
		expect(read(`${name} http-equiv=refresh content="0;url=/x"`).leadsTo).toBeUndefined();
		expect(read(`${name} name=robots content=nofollow`).links).toEqual(['/north']);
	}
	expect(read('meta http-equiv=refresh content="0;url=/x"').leadsTo).toBe('/x');
	expect(read('meta name=robots content=nofollow').links).toEqual([]);
	expect(read('meta name=keywords content=nofollow').links).toEqual(['/north']);
});

test('reach counts the pages that come in beside those that leave', () => {
	const pages = [page('/a', { state: 'draft' }), page('/b'), page('/c', { state: 'private' })];
	const reach = (path: string, state: Page['state']) =>
		measureReach(
			{ site, types: [type], pictures: [] },
			pages,
			{ place: { layer: 'page', path }, changes: { state } } as never,
			'2026-05-03T00:00:00Z'
		);
	expect(reach('/a', 'live')).toMatchObject({ under: 1, changed: 1, entering: 1, leaving: 0 });
	expect(reach('/b', 'draft')).toMatchObject({ under: 1, changed: 1, entering: 0, leaving: 1 });
	expect(reach('/c', 'draft')).toMatchObject({ under: 1, changed: 0, entering: 0, leaving: 0 });
});

test('what a file says twice alike is said once; with other attributes it is another', () => {
	const found = [
		{ name: 'og:image', value: '/a.jpg' },
		{ name: 'og:image:url', value: ' /a.jpg ' },
		{ name: 'og:image', value: '/b.jpg' },
		{ name: 'icon', value: '/i.png', attributes: { sizes: '32x32' } },
		{ name: 'icon', value: '/i.png', attributes: { sizes: '64x64' } },
		{ name: 'icon', value: '/i.png', attributes: { sizes: '32x32' } },
		{ name: 'article:tag', value: 'Tides' },
		{ name: 'article:tag', value: 'Tides' }
	];
	const made = resolver({}, [{ tag: 'og:type', kind: 'template', template: 'article' }]);
	const { tags } = made.headOf(made.evaluate(page('/x', { found })));
	const values = (name: string) => tags.filter(({ tag }) => tag.name === name).map(({ value }) => value);
	expect(values('og:image')).toEqual(['https://marl.example/a.jpg', 'https://marl.example/b.jpg']);
	expect(tags.filter(({ tag }) => tag.name === 'icon').map(({ attributes }) => attributes?.sizes)).toEqual([
		'32x32',
		'64x64'
	]);
	expect(values('article:tag')).toEqual(['Tides']);
});

test('a path that begins without a slash is one of the site; what is no address is refused in words', () => {
	const book = new AddressBook('https://marl.example/sub');
	expect([book.ofPath('a b'), book.ofPath('/a b'), book.ofPath('.')]).toEqual([
		...['https://marl.example/sub/a%20b', 'https://marl.example/sub/a%20b', 'https://marl.example/sub/']
	]);
	expect(checkBase('marl')).toMatchObject({ base: undefined, refused: 'It is not an absolute http or https address.' });
});

test('a reader with no room shows nothing, and cuts all of it', () => {
	const reader = READERS[0]!;
	const head = resolver({}, [{ tag: 'og:title', kind: 'template', template: 'Tides' }]).resolveHead(page('/x'));
	const none = { ...reader, shows: { ...reader.shows, title: { by: 'characters', limit: 0 } } };
	const { title } = cardOf(none as never, head);
	expect([title.shown, title.cut]).toEqual(['', 'Tides']);
});

test('only link elements link', () => {
	const served = readServedHead(
		'<head><meta rel="canonical" href="/no"><link rel="canonical" href="/yes"><link href="/none"></head>'
	);
	expect(served.tags.filter(({ name }) => name === 'canonical').map(({ value }) => value)).toEqual(['/yes']);
});

test('the table of contents is what a page says where it says nothing else, by its name alone', () => {
	const list = '<p>One of the parts of this book</p><p>Another part of the same book</p>';
	const body = (name: string) =>
		readPage(`<title>Book</title><body><div class="${name}">${list}</div><p>Short.</p>`).body;
	for (const name of ['toc', 'left toc', 'toc wide']) expect(body(name)).toContain('One of the parts');
	expect(
		readPage(`<title>B</title><body><div class="toc">${list}</div><p>${'A text that is long enough. '.repeat(4)}</p>`)
			.body
	).not.toContain('One of the parts');
	expect(
		readPage(`<title>B</title><body><div class="stoc">${list}</div><p>${'A text that is long enough. '.repeat(4)}</p>`)
			.body
	).toContain('One of the parts');
	expect(
		readPage(`<title>B</title><body><div class="tocs">${list}</div><p>${'A text that is long enough. '.repeat(4)}</p>`)
			.body
	).toContain('One of the parts');
});

test('pages of which other tags were found are not read by each other’s plan', () => {
	const made = resolver();
	const heads = [
		page('/a', { found: [{ name: 'description', value: 'Found of a.' }] }),
		page('/b', { found: [{ name: 'og:title', value: 'Found of b' }] }),
		page('/c', { found: [{ name: 'og:description', value: 'Found of c.' }] })
	].map((one) => [made.resolveHead(one), resolver().resolveHead(one)] as const);
	for (const [inTurn, alone] of heads) expect(headToJson(inTurn)).toEqual(headToJson(alone));
	expect(JSON.stringify(headToJson(heads[1]![0]))).toContain('Found of b');
});

test('the moment has no parts, and a tag may have dots in its name', () => {
	const said = (template: string) => {
		const { tags } = new Resolver(
			{
				site: {
					...site,
					prefixes: { x: 'https://marl.example/x#' },
					rules: [
						{ tag: 'x:a.b', kind: 'template', template: 'Dotted' },
						{ tag: 'title', kind: 'template', template }
					]
				},
				types: [],
				pictures: []
			},
			'2026-05-04T03:02:01Z'
		).resolveHead(page('/a'));
		return tags.find(({ tag }) => tag.name === 'title')?.value;
	};
	expect(said('At {now | date "yyyy"}.')).toBe('At 2026.');
	expect(said('At {now.year ?? "no time"}.')).toBe('At no time.');
	expect(said('It says {head.x:a.b}.')).toBe('It says Dotted.');
});

test('what stands between empty braces is nothing', () => {
	expect(parseTemplate('{}').nodes).toEqual([]);
	expect(parseTemplate('a{ }b').nodes.map((node) => node.kind)).toEqual(['text', 'text']);
});

test('a filter takes no more of a text than there may be', () => {
	const long = 'x'.repeat(100_010);
	const upper = (value: string) =>
		compileTemplate('{page.long | case "upper"}').run({ fields: { long: value }, language: 'en' } as never);
	expect(String(upper(long)).length).toBe(100_000);
	expect(upper('short')).toBe('SHORT');
});

test('a tag of texts that borrows pictures says their addresses', () => {
	const borrow = (tag: string): Rule => ({ tag, kind: 'borrow', from: 'og:image' });
	const made = resolver({}, [
		borrow('article:tag'),
		borrow('og:title'),
		{ tag: 'og:type', kind: 'template', template: 'article' }
	]);
	const { traces } = made.resolveWithTrace(page('/a', { fields: { title: 'A', picture: { src: '/p.jpg' } } }));
	const value = (name: string) => traces.find(({ tag }) => tag === name)?.value;
	expect(value('article:tag')).toEqual(['https://marl.example/p.jpg']);
	expect(value('og:title')).toBe('https://marl.example/p.jpg');
	expect(value('twitter:image')).toMatchObject([{ kind: 'picture', src: '/p.jpg' }]);
});

test('own tags that differ in the case of letters alone are one: the first is taken', () => {
	const rules: Rule[] = ['x:Mine', 'x:mine', 'x:MINE', 'x:other'].map((tag) => ({
		tag,
		kind: 'template',
		template: tag
	}));
	const { tags } = resolver({ prefixes: { x: 'https://marl.example/x#' } }, rules).resolveHead(page('/a'));
	expect(tags.filter(({ tag }) => tag.name.startsWith('x:')).map(({ value }) => value)).toEqual(['x:Mine', 'x:other']);
});

test('an optional part that is not ended, or stands too deep, is marked where it begins', () => {
	const told = (source: string) =>
		parseTemplate(source).issues.map(({ code, start, end }) => [code, source.slice(start, end), start]);
	expect(told('ab [[c')).toEqual([['template/unclosed-optional', '[[', 3]]);
	expect(told('ab {c')).toEqual([['template/unclosed-placeholder', '{', 3]]);
	const deep = `x${'[['.repeat(40)}y${']]'.repeat(40)}`;
	const [first] = told(deep);
	expect(first?.slice(0, 2)).toEqual(['template/too-deep', '[[']);
});

test('of a long page so much is read, and its text ends in a whole letter', () => {
	const filler = '<p>The marsh is flooded twice a day. </p>';
	const late = readPage(`<title>T</title><body>${filler}<!-- ${'x'.repeat(400_000)} --><p>Far below stands this.</p>`);
	expect(JSON.stringify(late.paragraphs)).not.toContain('Far below');
	const near = readPage(
		`<title>T</title><body>${filler}<!-- ${'x'.repeat(390_000)} --><p>Not so far below stands this.</p>`
	);
	expect(JSON.stringify(near.paragraphs)).toContain('Not so far below');
	for (const lead of ['', 'x']) {
		const { body } = readPage(`<title>T</title><body><p>${lead}${'😀'.repeat(20_000)}</p>`);
		expect(body.length).toBe(20_000);
		expect(body.isWellFormed()).toBe(true);
	}
});
