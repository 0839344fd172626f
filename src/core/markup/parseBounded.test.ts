import fc from 'fast-check';
import { parse, parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import { expect, test } from 'vitest';
import { parseDocument, parsePiece } from './parseBounded';

/** What a tree says, with all places but those of texts, which are not noted. */
function said(node: Tree.Node): unknown {
	const place = node.nodeName === '#text' ? undefined : node.sourceCodeLocation;
	return {
		name: node.nodeName,
		...('value' in node && { value: node.value }),
		...('data' in node && { data: node.data }),
		...('attrs' in node && { attrs: node.attrs }),
		...(place && { place: JSON.parse(JSON.stringify(place)) as unknown }),
		...('content' in node && { content: said(node.content) }),
		...('childNodes' in node && { children: node.childNodes.map(said) })
	};
}

/** Pieces of markup that change how what follows is read; what is whole is broken by what stands beside it. */
const PIECES = [
	...['<p>', '</p>', '<b>', '</b>', '<a href="x y=\'&amp;">', '<table>', '<tr>', '<td>', '</table>', '<colgroup>'],
	...['<frameset>', '<select>', '<option>', '<template>', '</template>', '<svg>', '<title>', '</title>', '<desc>'],
	...['<math>', '<mi>', '</svg>', '<pre>', '<textarea>', '</textarea>', '<script>', '</script>', '<style>', '</style>'],
	...[
		'<noscript>',
		'<plaintext>',
		'<![CDATA[a b]]>',
		'<!-- a -- b -->',
		'<!doctype html>',
		'<head>',
		'</head>',
		'<body>'
	],
	...[
		'</body>',
		'</html>',
		'<caption>',
		'<meta name=a content=b=c"d>',
		"<img alt='it`s <here> & there'",
		'<i a="1',
		'">'
	],
	...[
		'word and word',
		' ',
		'\n  <p>',
		'\r  \n<i>',
		'\r\n   <b c="d">',
		' \n\t  \n  </p>',
		'\n',
		'\r\n',
		'\r',
		'\t',
		'\f',
		'\0',
		'&amp;',
		'&copy',
		'&#x1F40C;',
		'&notit;',
		'&',
		'<',
		'>'
	],
	...['🐌', '\ud800', '\udc00', '\ufffe', 'é', '=', '"', "'", '`', '-->', ']]>', 'javascript', '</', '<!']
];
const soup = fc
	.array(fc.oneof(fc.constantFrom(...PIECES), fc.string({ unit: 'binary' })), { maxLength: 40 })
	.map((all) => all.join(''));

test.each([true, false])(
	'what is built is what its package builds letter by letter, scripts or none (%s)',
	(scriptingEnabled) => {
		const options = { sourceCodeLocationInfo: true, scriptingEnabled };
		fc.assert(
			fc.property(soup, (html) => {
				expect(said(parseDocument(html, options))).toEqual(said(parse(html, options)));
			}),
			{ numRuns: 1500 }
		);
	}
);

test('a piece is what its package builds', () => {
	fc.assert(
		fc.property(soup, (html) => {
			expect(said(parsePiece(html))).toEqual(said(parseFragment(html)));
		}),
		{ numRuns: 1000 }
	);
});

test('beyond what is kept of the text at once', () => {
	const html = `<p>${'a word of it &amp; one🐌\r\n'.repeat(8000)}<td>${'x'.repeat(70_000)} <b title="${'y z&lt;'.repeat(20_000)}">`;
	const options = { sourceCodeLocationInfo: true };
	expect(said(parseDocument(html, options))).toEqual(said(parse(html, options)));
});
