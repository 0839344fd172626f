import { describe, expect, test } from 'vitest';
import { isXhtml, readPage } from '../index';
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
		['a role', `<div role="navigation"><p>${own}</p></div>`]
	])('%s is a frame', (_name, html) => {
		expect(read(html).paragraphs).toEqual([]);
	});
	test.each([
		['a class that only holds such a word', `<div class="menus-of-the-day"><p>${own}</p></div>`],
		['no class', `<div><p>${own}</p></div>`],
		['an empty class', `<div class=""><p>${own}</p></div>`],
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
