import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
	findTag,
	injectHead,
	limitExtraMarkup,
	looseTags,
	managedBy,
	readPage,
	renderLines,
	Resolver,
	type Head
} from '../index';
import { htmlToText } from './plainText';

const head: Head = new Resolver(
	{
		site: {
			name: 'S',
			base: 'https://s.example/',
			languages: ['en'],
			separator: '',
			fields: {},
			families: { twitter: false },
			rules: []
		},
		types: [],
		pictures: []
	},
	''
).resolveHead({ path: '/x', type: '', state: 'live', fields: { title: 'New' }, rules: [] });
const lines = ['<title>New</title>', '<meta name="description" content="D">'];
const inject = (file: string, xhtml = false) =>
	injectHead(file, lines, (name) => ['title', 'description', 'og:title'].includes(name), xhtml);

describe('putting a head into a file', () => {
	test.each([
		[
			'behind the charset',
			'<head>\n  <meta charset="utf-8">\n  <title>Old</title>\n  <link rel="x">\n</head>',
			'<head>\n  <meta charset="utf-8">\n<title>New</title>\n<meta name="description" content="D">\n  <link rel="x">\n</head>'
		],
		[
			'behind a charset of the old form',
			'<head><meta http-equiv="Content-Type" content="text/html; charset=x"><title>a</title></head>',
			'<head><meta http-equiv="Content-Type" content="text/html; charset=x">\n<title>New</title>\n<meta name="description" content="D"></head>'
		],
		[
			'at the beginning of the head without one',
			'<html><head><script>1</script></head></html>',
			'<html><head>\n<title>New</title>\n<meta name="description" content="D"><script>1</script></head></html>'
		],
		[
			'without a head',
			'<!doctype html><p>Hi',
			'<!doctype html>\n<title>New</title>\n<meta name="description" content="D"><p>Hi'
		],
		['with nothing but text', 'Hi', '\n<title>New</title>\n<meta name="description" content="D">Hi'],
		[
			'two titles, two heads',
			'<head><title>a</title></head><head><title>b</title></head><p>x',
			'<head>\n<title>New</title>\n<meta name="description" content="D"></head><head></head><p>x'
		],
		[
			'a title of a drawing stays',
			'<head></head><body><svg><title>s</title></svg>',
			'<head>\n<title>New</title>\n<meta name="description" content="D"></head><body><svg><title>s</title></svg>'
		],
		[
			'line ends of the file',
			'<head>\r\n<title>a</title>\r\n</head>',
			'<head>\r\n<title>New</title>\r\n<meta name="description" content="D">\r\n</head>'
		],
		[
			'tags in any case',
			'<HEAD><META NAME="Description" CONTENT="x"><Title>a</Title></HEAD>',
			'<HEAD>\n<title>New</title>\n<meta name="description" content="D"></HEAD>'
		],
		[
			'what is not ours stays',
			'<head><meta name="viewport" content="w"><!-- <title>c</title> --></head>',
			'<head>\n<title>New</title>\n<meta name="description" content="D"><meta name="viewport" content="w"><!-- <title>c</title> --></head>'
		],
		[
			'a head that a stray element ends early',
			'<head><div></div><meta property="og:title" content="x"><title>y</title></head><p>z',
			'<head>\n<title>New</title>\n<meta name="description" content="D"><div></div></head><p>z'
		],
		[
			'what looks like a tag in the body',
			'<head></head><body><p><meta property="og:title" content="x"><svg><title>t</title></svg><pre><title>p</title></pre>',
			'<head>\n<title>New</title>\n<meta name="description" content="D"></head><body><p><meta property="og:title" content="x"><svg><title>t</title></svg><pre><title>p</title></pre>'
		],
		[
			'a script in the body that writes the end of a head',
			'<head></head><body><meta name="description" content="x"><script>write("</head>")</script>',
			'<head>\n<title>New</title>\n<meta name="description" content="D"></head><body><meta name="description" content="x"><script>write("</head>")</script>'
		]
	])('%s', (_name, file, wanted) => {
		expect(inject(file)).toBe(wanted);
		expect(inject(inject(file))).toBe(wanted);
	});

	test.each(['\n', '\r\n', '\r'])(
		'extra markup of several lines goes in once, whatever the file’s line ends are: %j',
		(end) => {
			const more = [...lines, '<style>\n\ti { color: red }\n</style>'];
			const into = (file: string) =>
				injectHead(file, more, (name) => name === 'title' || name === 'description', false);
			const once = into(['<head>', '<title>a</title>', '</head>'].join(end));
			expect(once).toContain(['<style>', '\ti { color: red }', '</style>'].join(end));
			expect(into(once)).toBe(once);
		}
	);
	test('the charset of a script is not that of the file', () => {
		expect(inject('<head><script charset="utf-8" src="/a.js"></script></head>')).toMatch(/^<head>\n<title>New/);
	});

	test('an element that closes itself does not hide what follows, in XHTML', () => {
		const file =
			'<?xml version="1.0"?>\n<html xmlns="http://www.w3.org/1999/xhtml"><head><script src="a.js" /><title>Old</title></head></html>';
		expect(inject(file, true)).toContain(
			'<head>\n<title>New</title>\n<meta name="description" content="D"><script src="a.js" /></head>'
		);
	});

	test.each([
		['<link rel="canonical" href="/old">', true],
		['<link rel="Canonical" href="/old">', true],
		['<link rel="icon" href="/i.png">', true],
		['<link rel="shortcut icon" href="/i.ico">', true],
		['<link rel="alternate" hreflang="fr" href="/fr">', true],
		['<link rel="alternate" type="application/atom+xml" href="/a.atom">', true],
		['<link rel="alternate" type="application/feed+json" href="/a.json">', true],
		['<link rel="alternate" type="application/rss+xml" href="/a.rss">', false],
		['<link rel="alternate" type="text/plain" href="/a.txt">', false],
		['<link rel="alternate" href="/a">', false],
		['<link rel="stylesheet" href="/a.css">', false],
		['<link rel="manifest" href="/m">', false],
		['<link rel="apple-touch-icon" href="/i.png">', false],
		['<link href="/x">', false],
		['<meta http-equiv="refresh" content="9">', false],
		['<svg><title>canonical</title></svg>', false],
		['<meta name=" OG:Title " content="x">', true],
		['<meta property="description" name="viewport" content="x">', false],
		['<meta itemprop="name" content="x">', false],
		['<template><title>x</title></template>', false]
	])('%s gives way to a head with links: %s', (element, goes) => {
		const isManaged = managedBy(
			{
				...head,
				tags: ['canonical', 'icon', 'alternate', 'feed:atom', 'feed:json'].map((name) => ({
					tag: findTag(name)!,
					value: 'https://s.example/',
					attributes: undefined
				}))
			},
			[]
		);
		const file = `<head>${element}</head><body>${element}</body>`;
		expect(injectHead(file, ['<x>'], isManaged, false)).toBe(
			`<head>\n<x>${goes ? '' : element}</head><body>${element}</body>`
		);
	});

	test('tags that a broken table throws out of it stand in the body all the same', () => {
		const body =
			'<body><table><title>t</title><tr><meta name="description" content="x"><td><link rel="canonical" href="/t"><title>u</title></table>';
		expect(inject(`<head><title>a</title></head>${body}`)).toBe(
			`<head>\n<title>New</title>\n<meta name="description" content="D"></head>${body}`
		);
		// A table before the head's end is the author's slip: what stands there is still the head's.
		expect(inject('<head><table><tr><meta name="description" content="x"></table><title>a</title></head><p>z')).toBe(
			'<head>\n<title>New</title>\n<meta name="description" content="D"><table><tr></table></head><p>z'
		);
	});

	test('tags are taken out where they stand, in whatever order a broken table has them read', () => {
		// The second is read before the first: the table throws it out, to before itself.
		const table =
			'<table><tr><td><meta name="description" content="1">x</td></tr><link rel="canonical" href="/2"></table>';
		expect(inject(`<head><title>a</title>${table}</head>`)).toBe(
			'<head>\n<title>New</title>\n<meta name="description" content="D"><table><tr><td>x</td></tr><link rel="canonical" href="/2"></table></head>'
		);
		const all = managedBy({ ...head, tags: [{ tag: findTag('description')!, value: 'D', attributes: undefined }] });
		const named =
			'<table><tr><td><meta name="description" content="1">x</td></tr><meta name="description" content="2"></table>';
		expect(injectHead(`<head>${named}</head>`, ['<x>'], all, false)).toBe(
			'<head>\n<x><table><tr><td>x</td></tr></table></head>'
		);
	});

	test('each tag that goes is told, but for those that come again as they were', () => {
		const gone: string[] = [];
		const file =
			'<head><title>New</title><meta name="description" content="old"><meta property="og:title" content="card"><meta name="other"></head>';
		injectHead(
			file,
			lines,
			(name) => name !== 'other',
			false,
			({ name, value }) => gone.push(`${name}=${value}`)
		);
		expect(gone).toEqual(['description=old', 'og:title=card']);
	});

	test('plain metadata gives way only to what the head has; the families give way whole', () => {
		const isManaged = managedBy(head, ['keywords']);
		expect(['title', 'canonical', 'og:video', 'article:tag', 'twitter:card', 'keywords'].map(isManaged)).toEqual([
			true,
			true,
			true,
			true,
			true,
			true
		]);
		expect(['description', 'author', 'viewport', 'theme-color', 'robots'].map(isManaged)).toEqual([
			false,
			false,
			false,
			false,
			false
		]);
		// A tag in a file is known by what it says itself, not by what the catalogue calls it.
		const called = (names: readonly string[]) =>
			managedBy({ ...head, tags: names.map((name) => ({ tag: findTag(name)!, value: 'x', attributes: undefined })) });
		expect(
			['theme-color', 'googlebot', 'rating'].map(called(['theme-color:dark', 'robots:googlebot', 'meta:rating']))
		).toEqual([...[true, true, true]]);
		expect(
			['theme-color:dark', 'robots:googlebot', 'alternate'].map(called(['theme-color:dark', 'feed:atom']))
		).toEqual([...[false, false, false]]);
		expect(renderLines(head, { xhtml: true })[0]).toBe('<title>New</title>');
		expect(renderLines(head, { xhtml: true })[1]).toBe('<link rel="canonical" href="https://s.example/x" />');
	});
});

describe('reading a page', () => {
	const page = readPage(`<!doctype html><html lang="fr"><head><title> A
		title </title><meta property="og:title" content="Found"><meta name="description" content="D"><link rel="canonical" href="/c"></head>
		<body><nav><p>Home, and all the other places that one can go to from here.</p></nav><div class="menu"><p>More of the same, in a box with a name that tells what it is.</p></div>
		<h1>Heading</h1><p><a href="#">Only links in this paragraph, nothing else at all</a></p><p>Copyright by all who ever wrote a word of this page.</p>
		<p>The first real paragraph says what the page is about.</p><img src="a.png" alt=" A "><img src="data:image/gif;base64,x"><p id="sql-comment">Another one that has enough words.</p></body></html>`);
	test('the fields', () => {
		expect(page).toMatchObject({
			title: 'A title',
			heading: 'Heading',
			language: 'fr',
			pictures: [{ src: 'a.png', alt: 'A' }],
			leadsTo: undefined
		});
		expect(page.paragraphs[0]?.text).toBe(
			'The first real paragraph says what the page is about. Another one that has enough words.'
		);
		expect(page.body).not.toContain('Home, and all');
		expect(page.body.startsWith('Only links')).toBe(true);
	});
	test('the tags found are kept apart', () => {
		expect(page.found).toEqual([
			{ name: 'title', value: 'A title' },
			{ name: 'og:title', value: 'Found' },
			{ name: 'description', value: 'D' },
			{ name: 'canonical', value: '/c' }
		]);
	});
	test.each([
		['no title, but a heading', '<h2>Only this</h2>', { title: 'Only this' }],
		['two titles', '<title>One</title><title>Two</title>', { title: 'One' }],
		['an empty title, then one', '<title></title><title>Two</title>', { title: 'Two' }],
		[
			'the main element',
			'<div><p>Not this one, it stands outside of the main part.</p></div><main><p>This one is it, in the middle of things.</p></main>',
			{ paragraphs: [{ text: 'This one is it, in the middle of things.', cost: 0 }] }
		],
		[
			'a paragraph that leads up to a list',
			'<p>First we say a whole sentence. Then we lead up to this:</p><ul><li>x</li></ul>',
			{ paragraphs: [{ text: 'First we say a whole sentence.', cost: 0 }] }
		],
		[
			'one that leads on after a few seconds',
			'<meta http-equiv=refresh content="5;URL=b.html">',
			{ leadsTo: 'b.html' }
		],
		['one that loads itself again', '<meta http-equiv=refresh content="30">', { leadsTo: undefined }],
		['one that loads itself again soon', '<meta http-equiv=refresh content=" 10; ">', { leadsTo: undefined }],
		['one that comes again much later', '<meta http-equiv=refresh content="300; url=a.html">', { leadsTo: undefined }],
		[
			'a page of frames',
			'<frameset><frame src=a><noframes><p>What those see who have no frames at all.</p></noframes></frameset>',
			{ paragraphs: [{ text: 'What those see who have no frames at all.', cost: 0 }] }
		],
		['the base of its addresses', '<base href="../../"><base href=x>', { base: '../../' }],
		['the page above it', '<link rel=up title=Birds><p>x', { section: 'Birds' }],
		[
			'the way that leads to it',
			'<title>Eider</title><ol class="breadcrumbs"><li><a href=/>Home</a><li><a href=b>Sea  birds</a><li><a href=#>Eider</a></ol>',
			{ section: 'Sea birds' }
		],
		[
			'versions in other languages',
			'<link rel=alternate hreflang=fr href=/fr><link rel=alternate type=x href=/feed><p><a hreflang=pt_br href=/br>B</a><a hreflang=pt-br href=/br>B</a>',
			{ versions: { fr: '/fr', 'pt-BR': '/br' } }
		],
		['only a redirection', '<meta http-equiv="refresh" content="0; url=./b.html">', { leadsTo: './b.html' }],
		['nothing', '', { title: '', paragraphs: [], body: '' }]
	])('%s', (_name, html, wanted) => {
		expect(readPage(html)).toMatchObject(wanted);
	});
	test('markup nested deeper than calls can go', () => {
		expect(readPage('<div>'.repeat(20_000) + 'deep').body).toContain('deep');
		expect(htmlToText('<b>'.repeat(20_000) + 'deep')).toContain('deep');
	});
});

test('whatever is not ended is read to the end in one go, however much there is of it', () => {
	for (const piece of ['<a', '<a "', "<a '", '<!--', '<script>', '</div>', '<'])
		expect(looseTags(piece.repeat(50_000)).length).toBe(piece === '</div>' ? 50_000 : 0);
	expect(looseTags('<p>In</p></div>')).toEqual([{ start: 9, end: 15, tag: '</div>', isOfThePage: false }]);
});

describe('extra markup', () => {
	test.each([
		['<link rel="preload" href="/a">', ['<link rel="preload" href="/a">'], 0],
		['<script>1 < 2</script>', ['<script>1 < 2</script>'], 0],
		['<style>a{}', ['<style>a{}</style>'], 0],
		['<meta name="a" content="b"><p>x</p>', ['<meta name="a" content="b">'], 1],
		['</head><body onload="x"><script>1</script>', ['<script>1</script>'], 2],
		['<html lang="fr"><head><meta name="a" content="b"></head>', ['<meta name="a" content="b">'], 3],
		[
			'<meta name="a" content="<body>"><script>"</head>"</script>',
			['<meta name="a" content="&lt;body&gt;">', '<script>"</head>"</script>'],
			0
		],
		['<link rel="a" href="/b"></link><meta name="a"></div>', ['<link rel="a" href="/b">', '<meta name="a">'], 1],
		['<style></style></head><script></script></div>', ['<style></style>', '<script></script>'], 2],
		['</p><meta name="a">', ['<meta name="a">'], 1],
		['<!-- </head> --><style>a::after{content:"</body>"}</style>', ['<style>a::after{content:"</body>"}</style>'], 0],
		['<title>mine</title>', [], 1],
		['<base href="/x">', [], 1],
		['words', [], 1],
		['<frameset><frame src="x"></frameset>', [], 1],
		['<noscript><img src="x"></noscript>', ['<noscript></noscript>'], 1],
		[
			'<noscript><link rel="stylesheet" href="/a?b&c"></noscript>',
			['<noscript><link rel="stylesheet" href="/a?b&amp;c"></noscript>'],
			0
		],
		['<noscript><style>a > b{}</style></noscript>', ['<noscript><style>a > b{}</style></noscript>'], 0],
		['<svg><script>1</script></svg>', [], 1],
		['<!-- note -->\n<template><p>x</p></template>', ['<template><p>x</p></template>'], 0]
	])('%s', (markup, elements, issues) => {
		const limited = limitExtraMarkup(markup);
		expect(limited.elements).toEqual(elements);
		expect(limited.issues.length).toBe(issues);
	});
	test('what may not stand there is named, with its place and what to do', () => {
		const told = (markup: string) =>
			limitExtraMarkup(markup).issues.map(({ seen, expected, start, end }) => [
				seen,
				expected,
				markup.slice(start, end)
			]);
		expect(told('<link rel="a" href="b">Loose words')).toEqual([
			['plain text', 'Put it into an element, or remove it.', 'Loose words']
		]);
		expect(told('<meta name="a" content="b"><p>x</p>')).toEqual([
			['<p>', 'Remove it, or put it into the body of the page.', '<p>x</p>']
		]);
		expect(told('<body><meta name="a" content="b"></i>')).toEqual([
			['<body>', 'Remove it: the page has its own.', '<body>'],
			['</i>', 'Remove it: it ends nothing.', '</i>']
		]);
	});
});

test('a file is changed in the same way however much stands behind its head', () => {
	const pieces = [
		...['<!doctype html>', '<html>', '<head>', '</head>', '<body>', '<title>a', '</title>', '<p>', ' text '],
		...['<meta name=description content=x>', '<link rel=canonical href=x>', '<meta charset=utf-8>', '<!--', '-->'],
		...[
			'<script>',
			'</script>',
			'<style>',
			'</style>',
			'<noscript>',
			'</noscript>',
			'<template>',
			'</template>',
			'<svg>'
		]
	];
	const isManaged = (name: string) => name === 'title' || name === 'description' || name === 'canonical';
	const inject = (source: string, gone: string[]) =>
		injectHead(
			source,
			['<title>New</title>'],
			isManaged,
			false,
			({ name, value }) => void gone.push(`${name} ${value}`)
		);
	fc.assert(
		fc.property(fc.array(fc.constantFrom(...pieces), { maxLength: 14 }), (parts) => {
			const [short, long]: [string[], string[]] = [[], []];
			const wanted = inject(`${parts.join('')}q`, short);
			const got = inject(parts.join('') + 'q'.repeat(300_000), long);
			expect(got.replace(/q{300000}/, 'q')).toBe(wanted);
			expect(long.map((one) => one.replace(/q{300000}/, 'q'))).toEqual(short);
		}),
		{ numRuns: 300, examples: [[['-->', '<title>a', '</head>']], [['<title>', '</head>', '<title>b']]] }
	);
});
