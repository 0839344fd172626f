import { parseFragment } from 'parse5';
import { describe, expect, test } from 'vitest';
import { isXhtml, readPage } from '../index';
import { foundTag } from './readPage';
import { hideSelfClosed } from './xhtml';

describe('whether a file is XHTML', () => {
	const plain = '<!doctype html><html><head>';
	test.each([
		['a.xhtml', plain, true],
		['a.xht', plain, true],
		['A.XHTML', plain, true],
		['a.xhtml.html', plain, false],
		['a.html', plain, false],
		['xhtml', plain, false],
		['', plain, false],
		['', '', false],
		['', '<?xml version="1.0"?><html>', true],
		['', '\uFEFF  <?xml version="1.0"?>', true],
		['', '<p><?xml version="1.0"?>', false],
		['', '<!DOCTYPE html PUBLIC "-//W3C//DTD XHTML 1.0 Strict//EN">', true],
		['', '<!DOCTYPE html PUBLIC "-//W3C//DTD HTML 4.01//EN">', false],
		['', '<html lang="en" xmlns="http://www.w3.org/1999/xhtml">', true],
		['', '<svg xmlns="http://www.w3.org/2000/svg">', false],
		['', `${' '.repeat(2040)}<html xmlns="http://www.w3.org/1999/xhtml">`, false]
	])('%s %j: %s', (name, source, wanted) => {
		expect(isXhtml(source, name)).toBe(wanted);
	});
	test.each([
		['<script src="a" />x', '                  x'],
		['<title/><p/>', '        <p/>'],
		['<iframe a="b"/>', '               '],
		['<scripts />', '<scripts />'],
		['<title>x</title>', '<title>x</title>']
	])('%j with what closes itself hidden', (source, wanted) => {
		expect(hideSelfClosed(source)).toBe(wanted);
	});
});

describe('what is a frame’s and what is the page’s', () => {
	const own = 'This sentence is what the page itself has to say about its matter.';
	const read = (html: string) => readPage(`<!doctype html><html><body>${html}</body></html>`);
	test.each([
		['nav', `<nav><p>${own}</p></nav>`],
		['aside', `<aside><p>${own}</p></aside>`],
		['footer', `<footer><p>${own}</p></footer>`],
		['a class among others', `<div class="left  sidebar wide"><p>${own}</p></div>`],
		['an id', `<div id="menu"><p>${own}</p></div>`],
		['a role', `<div role="navigation"><p>${own}</p></div>`],
		['what is hidden', `<div hidden><p>${own}</p></div>`],
		['what is hidden from those who listen', `<div aria-hidden="true"><p>${own}</p></div>`]
	])('%s is a frame', (_name, html) => {
		expect(read(html).paragraphs).toEqual([]);
	});
	test.each([
		['a class that only holds such a word', `<div class="menus-of-the-day"><p>${own}</p></div>`],
		['no class', `<div><p>${own}</p></div>`],
		['an empty class', `<div class=""><p>${own}</p></div>`],
		['what says that it is not hidden', `<div aria-hidden="false"><p>${own}</p></div>`],
		['a role of the text', `<div role="article" class="menu"><p>${own}</p></div>`],
		['a section', `<section><p>${own}</p></section>`]
	])('%s is not', (_name, html) => {
		expect(read(html).paragraphs[0]?.text).toBe(own);
	});
	test('the first heading of the main part goes before those around it', () => {
		expect(read('<h1>Site</h1><main><h2>Page</h2><h3>Part</h3></main>').heading).toBe('Page');
		// One that stands around it may be the site's name.
		expect(read('<h1>Site</h1><main><h4>Small</h4><p>x</p></main>').heading).toBe('');
		expect(read('<h2>Second</h2><h1>First</h1>').heading).toBe('First');
		expect(read('<p>None</p>').heading).toBe('');
	});
});

describe('the content of a page', () => {
	const body = (html: string) => readPage(`<!doctype html><html><body>${html}</body></html>`).body;
	test.each([
		['main', '<p>Around.</p><main><p>Inside, and long enough to be what is meant.</p></main>'],
		['a role', '<p>Around.</p><div role="main"><p>Inside, and long enough to be what is meant.</p></div>'],
		['the one article', '<p>Around.</p><article><p>Inside, and long enough to be what is meant.</p></article>']
	])('is what %s holds', (_name, html) => {
		expect(body(html)).toBe('Inside, and long enough to be what is meant.');
	});
	test('is all of the body where several articles are', () => {
		expect(body('<p>Around.</p><article><p>One.</p></article><article><p>Two.</p></article>')).toBe(
			'Around. One. Two.'
		);
	});
	test('is its table of contents, where it says next to nothing else', () => {
		const toc = '<div class="toc"><p>Table of Contents</p><p>Birds, seals and the weather</p></div>';
		const words = (count: number) => 'x'.repeat(count);
		expect(body(`<p>${words(39)}</p>${toc}`)).toBe(`${words(39)} Table of Contents Birds, seals and the weather`);
		expect(body(`<p>${words(40)}</p>${toc}`)).toBe(words(40));
		expect(body(toc)).toBe('Birds, seals and the weather');
		expect(body(`<div class="index">${toc}</div>`)).toBe('Birds, seals and the weather');
	});
	test('leaves out the heading that it begins with, and a sign beside it', () => {
		expect(body('<h1>Birds</h1><p>Birds come here in spring, and some of them stay.</p>')).toBe(
			'Birds come here in spring, and some of them stay.'
		);
		const page = readPage('<body><h1>Birds<a class="headerlink">¶</a></h1><p>x</p>');
		expect(page.heading).toBe('Birds');
		expect(readPage('<body><h1>Birds <a class="link">more</a></h1>').heading).toBe('Birds more');
	});
	test('its pictures are those with a source, with what they are said to show', () => {
		const { pictures } = readPage(
			'<body><img src=" /a.jpg " alt=" A  boat "><img src="data:image/png;base64,x"><img alt=x><nav><img src=/n.png></nav><img src=/b.jpg>'
		);
		expect(pictures).toEqual([{ src: '/a.jpg', alt: 'A boat' }, { src: '/b.jpg' }]);
	});
});

test.each<[string, unknown[]]>([
	['<meta name=" description " content=" The  pier ">', [{ name: 'description', value: 'The pier' }]],
	['<meta property="og:title" name="x" content="A">', [{ name: 'og:title', value: 'A' }]],
	['<meta name="description">', []],
	['<meta charset="utf-8">', []],
	['<link rel="Canonical" href="/a">', [{ name: 'canonical', value: '/a' }]],
	['<link rel="shortcut icon" href="/i.png">', [{ name: 'shortcut icon', value: '/i.png' }]],
	['<link rel="canonical">', []],
	['<link href="/a">', []],
	['<link rel="stylesheet" href="/a.css">', []],
	['<a rel="canonical" href="/a">x</a>', []],
	['<title> The  pier </title>', [{ name: 'title', value: 'The pier' }]]
])('what %s says in a head', (html, wanted) => {
	const [element] = parseFragment(html).childNodes;
	expect(foundTag(element as Parameters<typeof foundTag>[0])).toEqual(wanted);
});

test.each([
	['<html lang="fr">', 'fr'],
	['<html lang=" pt_BR ">', 'pt-BR'],
	['<html xml:lang="ja">', 'ja'],
	['<html lang="" xml:lang="ja">', 'ja'],
	['<html lang="not a tag" xml:lang="ja">', 'ja'],
	['<html><meta http-equiv=" Content-Language " content="de, en">', 'de'],
	['<html lang="fr"><meta http-equiv="content-language" content="de">', 'fr'],
	['<html><meta name="content-language" content="de">', undefined],
	['<html><body><p lang="fr">', undefined]
])('the language of %s', (html, wanted) => expect(readPage(html).language).toBe(wanted));

describe('what a page says of other versions', () => {
	const versions = (html: string) => readPage(`<html lang=en>${html}`).versions;
	test.each([
		['<link rel=alternate hreflang=fr href=/fr>', { fr: '/fr' }],
		['<link rel=alternate hreflang=x-default href=/>', {}],
		['<link rel=alternate hreflang="no tag" href=/a>', {}],
		['<link rel=alternate hreflang=fr>', {}],
		['<link rel=alternate href=/fr>', {}],
		['<link rel=alternate hreflang=fr href=/one><link rel=alternate hreflang=fr href=/two>', { fr: '/one' }],
		['<link rel=stylesheet hreflang=fr href=/fr>', {}]
	])('%s', (html, wanted) => {
		expect(versions(html) ?? {}).toMatchObject(wanted);
		if (Object.keys(wanted).length === 0)
			expect(Object.keys(versions(html) ?? {}).filter((tag) => tag !== 'x-default')).toEqual([]);
	});
});
