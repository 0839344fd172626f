import { describe, expect, test } from 'vitest';
import { readServedHead } from '../index';

const namesOf = (html: string) =>
	readServedHead(html).tags.map(({ name, isBelow }) => (isBelow ? `${name} below` : name));

describe('a head as it is served', () => {
	test.each([
		[
			'tags in order',
			'<title>T</title><meta name=description content=d><meta property=og:title content=o>',
			['title', 'description', 'og:title']
		],
		[
			'a tag in the body',
			'<head><title>T</title></head><body><meta property=og:title content=o>',
			['title', 'og:title below']
		],
		['a stray element ends the head', '<head><div></div><meta property=og:title content=o></head>', ['og:title below']],
		[
			'a picture in noscript ends it too, for who runs no scripts',
			'<head><title>T</title><noscript><img src=/pixel.gif></noscript><meta property=og:title content=o></head>',
			['title', 'og:title below']
		],
		[
			'style in noscript does not',
			'<head><noscript><style>a{}</style></noscript><meta property=og:title content=o></head>',
			['og:title']
		],
		['a title in a drawing is none', '<body><svg><title>x</title></svg>', []],
		[
			'names that are written otherwise',
			'<link rel="Shortcut Icon" href=/i><meta property=og:image:url content=/p>',
			['icon', 'og:image']
		],
		[
			'feeds and versions',
			'<link rel=alternate hreflang=fr href=/fr><link rel=alternate type=application/rss+xml href=/r><link rel=alternate type=application/atom+xml href=/a><link rel=alternate type=application/feed+json href=/j>',
			['alternate', 'feed:rss', 'feed:atom', 'feed:json']
		],
		['links that say nothing of the page', '<link rel=stylesheet href=/a><link rel=preload href=/b>', []],
		['nothing', '', []]
	])('%s', (_name, html, names) => {
		expect(namesOf(html)).toEqual(names);
	});
	test('says where each tag stands', () => {
		const html = '<head>\n  <title>T</title>\n<meta name="description"\n content="d"></head>';
		expect(readServedHead(html).tags).toMatchObject([
			{ name: 'title', value: 'T', line: 2, column: 3, end: html.indexOf('</title>') + 8 },
			{ name: 'description', value: 'd', line: 3, column: 1, end: html.indexOf('</head>') }
		]);
	});
	test.each([
		['<meta http-equiv=refresh content="5; url=/on">', { to: '/on', seconds: 5 }],
		['<meta http-equiv=Refresh content="0;URL=\'/on\'">', { to: '/on', seconds: 0 }],
		['<meta http-equiv=refresh content="3, /on">', { to: '/on', seconds: 3 }],
		['<meta http-equiv=refresh content="5">', undefined],
		['<meta http-equiv=other content="5; url=/on">', undefined]
	])('%s leads on', (html, refresh) => {
		expect(readServedHead(html).refresh).toEqual(refresh);
	});
	test('tells words, scripts, pictures, a field for a password and the encoding’s place', () => {
		const head = '<head><script>1</script><meta charset=utf-8>';
		const html = `${head}</head><body><p>Two words<img src=/a><img><script>2</script><input type=Password><img src=/b>`;
		expect(readServedHead(html)).toMatchObject({
			words: 2,
			scripts: 2,
			pictures: ['/a', '/b'],
			asksToSignIn: true,
			charsetAt: head.length
		});
		expect(readServedHead('<input type=text>')).toMatchObject({ asksToSignIn: false, charsetAt: undefined });
		expect(readServedHead('<meta http-equiv=Content-Type content="text/html; charset=x">').charsetAt).toBeGreaterThan(
			0
		);
		expect(readServedHead('<img src=/x>'.repeat(30)).pictures).toHaveLength(20);
	});
});

test('one element with a name and a property speaks under both, and the base of the page is its first', () => {
	const head = readServedHead(
		'<base href="/a/"><base href="/b/"><meta name="description" property="og:description" content="Both"><meta name="author" property="author" content="One">'
	);
	expect(head.tags.map(({ name, value }) => [name, value])).toEqual([
		['og:description', 'Both'],
		['description', 'Both'],
		['author', 'One']
	]);
	expect(head.base).toBe('/a/');
	expect(readServedHead('<title>T</title>').base).toBeUndefined();
});
