import { describe, expect, test } from 'vitest';
import { contentsInWords } from './contents';
import { readPage } from './readPage';

/** What a person would quote of a page, and what not. */
const REAL = 'The marsh is flooded twice a day and is never the same.';

const best = (html: string) => readPage(html).paragraphs[0]?.text;

describe('text counts wherever it stands', () => {
	test.each([
		['a paragraph', `<p>${REAL}</p>`],
		['a box of its own', `<div>${REAL}</div>`],
		['the body itself', `<body>${REAL}`],
		['a table that is there for the layout', `<table><tr><td>menu</td><td>${REAL}</td></tr></table>`],
		['a definition', `<dl><dt>Marsh</dt><dd>${REAL}</dd></dl>`],
		['between two breaks', `<div>Marsh<br><br>${REAL}<br><br>Back</div>`],
		[
			'loose behind the heading, before paragraphs',
			`<h1>Marsh</h1>${REAL}<hr><p>How to get there is told at the hut.</p>`
		],
		['elements of old', '<p>The <acronym>marsh</acronym> is <big>flooded</big> twice a day and is never the same.</p>']
	])('%s', (_name, html) => {
		expect(best(html)).toBe(REAL);
	});
});

test('what tells of the page or of its words does not part a text', () => {
	const parts = REAL.split('twice');
	for (const element of [
		'<meta itemprop="floods" content="2">',
		'<link itemprop="url" href="/marsh">',
		'<title>Marsh</title>'
	])
		for (const [open, close] of [
			['<p>', '</p>'],
			['<div>', '</div>'],
			['', '']
		])
			expect(best(`${open}${parts[0]}${element}twice${parts[1]}${close}`), element).toBe(REAL);
});

describe('what stands before the text is passed over', () => {
	test.each([
		['a caption', '<p>Figure 6.1 The marsh at low tide, seen from the hide.</p>'],
		['a caption by its class', '<p class="caption">The marsh at low tide, seen from the hide.</p>'],
		[
			'the caption of a picture',
			'<figure><img src=a><figcaption>The marsh at low tide, seen from the hide.</figcaption></figure>'
		],
		[
			'a listing with numbers before its lines',
			'<div>1 /*</div><div>2 The marsh opens and shuts by the tide of the day.</div><div>4 Whoever reads this may change it.</div><div>5 */</div>'
		],
		['a listing by its class', '<div class="fragment">The marsh is opened by the hand of the reader.</div>'],
		['a step of several', '<p>1. Go to the hide by the long wall</p>'],
		['what only leads up to a list', '<p>likewise, the marsh can be reached by any of these ways and by boat:</p>'],
		[
			'the same in more words',
			'<p>The marsh and its hides can be reached by one of the following ways, on foot or by boat:</p>'
		],
		['a remark of the maker', '<p>[ The table of tides below holds for the marsh alone. ]</p>'],
		['how a function is called', '<p>OpenMarsh (Image *image, const Tide *tide, Metrics *metrics, int many)</p>'],
		['whose licence it is under', '<p>You may not use this file except in compliance with the License.</p>'],
		['who wrote it', '<p>This section has been written by A. Reader and B. Writer of the hide.</p>'],
		[
			'the rows of a table that boxes make',
			'<div class="summary-table"><div class="table-header col-first">Name</div><div class="col-first"><a href="x">tide</a></div><div class="col-last"><div class="block">Says when the tide comes in and goes out.</div></div></div>'
		],
		[
			'the rows of a table of data',
			'<table><tr><th>Name</th></tr><tr><td>Says when the tide comes in and goes out.</td></tr></table>'
		],
		['numbers', '<div>1 2 3 4 5 6 7 8 9 10 11 12</div>'],
		['a signature', '<p>int marsh_open(struct marsh *m, int flags, const char *name);</p>'],
		['code', '<p><code>marsh open --tide high --for two hours</code> now</p>'],
		[
			'names without a space',
			'<p>MarshTideTableReader MarshTideTableWriter MarshTideTableCalculator MarshTideTablePrinter MarshTideTableKeeper</p>'
		],
		['a way that leads here', '<div>Home » Reserves » Marsh » Tides » Table of the year</div>'],
		['a line of marks', '<div>1.0.0 · source · docs · about · other versions</div>'],
		[
			'links',
			'<ul><li><a href=a>All of the reserves that we keep</a></li></ul><p><a href=b>See the list of all walks this summer</a></p>'
		],
		['a banner', '<header><p>Welcome to the reserves on the shore, all of them.</p></header>'],
		['a notice', '<p class="deprecated">This page is kept for old links and is not brought up to date.</p>'],
		['a notice by its word', '<p>Note: the marsh is closed to visitors in March and April.</p>'],
		['an answer without its question', '<p>No. The gate of the marsh stays open all day.</p>'],
		[
			'a sentence that looks back',
			`<p>Way there: by bus or by boat, twice a day</p><p>However, the gate of the marsh stays open all day.</p>`
		],
		['a text that goes on', '<p>and so the gate of the marsh stays open all day.</p>'],
		['a name and what it means', '<p>gate: what keeps the cattle on the marsh all day.</p>'],
		['the title again', '<p>The Marsh, and how to get to it</p>'],
		[
			'one word in many languages',
			'<p>ES: marisma, I: palude salata, F: marais salant, D: Salzwiese, NL: kwelder.</p>'
		],
		['what is said of the page', '<p>Last modified on the third of May by the warden of the marsh.</p>']
	])('%s', (_name, before) => {
		expect(best(`<title>The marsh, and how to get to it</title>${before}<p>${REAL}</p>`)).toBe(REAL);
	});
	test('but a notice is better than nothing', () => {
		expect(best('<p class="note">The marsh is closed to visitors in March and April.</p>')).toContain('closed');
	});
});

describe('a text with marks between its words is a line of places, when they are many for its length', () => {
	const words =
		'The marsh floods twice each day and never looks the same way again when geese have come there from north shores'.split(
			' '
		);
	/** A text of so many words and marks, the marks between the first words. */
	const text = (count: number, marks: readonly string[], last = '') =>
		words
			.slice(0, count - marks.length - (last ? 1 : 0))
			.flatMap((word, at) => (at > 0 && marks[at - 1] ? [marks[at - 1], word] : [word]))
			.join(' ') + (last ? ` ${last}` : '.');
	test.each([
		['one in a short one', text(11, ['›']), true],
		['two in a short one', text(11, ['›', '›']), false],
		[
			'two in as many words as they need',
			text(24, ['›', '|'].concat()).replace(/$/, ' They rest and feed and leave.'),
			true
		],
		[
			'two in exactly two dozen',
			text(21, ['–', '•']).replace(/\.$/, ' and so on now.').split(' ').slice(0, 24).join(' '),
			true
		],
		[
			'three in two dozen',
			text(21, ['–', '•', '·']).replace(/\.$/, ' and so on now.').split(' ').slice(0, 24).join(' '),
			false
		],
		['a row of marks is one', text(11, ['---']), true],
		['two rows of marks', text(11, ['---', '»»']), false],
		['one between and one at the end', text(11, ['›'], '›'), false],
		['names with two colons', text(11, []).replace('marsh', 'marsh::tide').replace('day', 'day::night'), false],
		['hyphens within words', text(11, []).replace('marsh', 'salt-marsh').replace('day', 'half-day'), true]
	])('%s', (_, said, is) => {
		expect(readPage(`<p>${said.replaceAll('<', '&lt;')}</p>`).paragraphs.map((one) => one.text)).toEqual(
			is ? [said] : []
		);
	});
});

describe('a text of links or signs is none', () => {
	const read = (html: string) => readPage(html).paragraphs.map(({ text }) => text);
	const [link, rest] = ['The marsh floods twice a day', 'and is never twice the same.'];
	test.each([
		['all of it', `<p><a href="/a">${link} ${rest}</a></p>`, false],
		['all of it, within another element', `<p><a href="/a"><b>${link}</b> <i>${rest}</i></a></p>`, false],
		['just half of it', `<p><a href="/a">${link}</a> ${rest}</p>`, true],
		['a letter more than half', `<p><a href="/a">${link} an</a>d is never twice the same</p>`, false],
		['a place that others lead to', `<p><a id="a" name="a">${link} ${rest}</a></p>`, true],
		['an address on another element', `<p><span href="/a">${link} ${rest}</span></p>`, true]
	])('%s', (_, html, is) => {
		expect(read(html)).toHaveLength(is ? 1 : 0);
	});
	test.each([
		[
			'one word in three languages',
			'ES: marisma y marea, FR: marais et estran, DE: Salzwiese und Watt, wie man sagt.',
			false
		],
		['one word in two', 'ES: marisma y marea, FR: marais et estran, as they say in the south of it.', true],
		[
			'abbreviations of one letter',
			'E: marisma y marea, F: marais et estran, D: Salzwiese und Watt, wie man sagt.',
			false
		],
		[
			'abbreviations of four',
			'SPAN: marisma y marea, FREN: marais et estran, GERM: Salzwiese und Watt, wie man sagt.',
			true
		]
	])('%s', (_, text, is) => expect(read(`<p>${text}</p>`)).toHaveLength(is ? 1 : 0));
	test('up to seven signs in a hundred', () => {
		const text = (signs: number) => {
			const words =
				'The marsh floods twice a day and is never the same one again for those who come to see it in spring. '.slice(
					0,
					100 - signs - 1
				);
			return `${'#'.repeat(signs)}${words.trimEnd().padEnd(100 - signs - 1, 'y')}.`;
		};
		expect([7, 8].map((signs) => text(signs).length)).toEqual([100, 100]);
		expect(read(`<p>${text(7)}</p>`)).toHaveLength(1);
		expect(read(`<p>${text(8)}</p>`)).toHaveLength(0);
	});
});

test('sentences before labels, the beginning before the end', () => {
	const far = Array.from(
		{ length: 40 },
		(_, at) => `<dd>Words go on here, ${at} of them and more, one after another.</dd>`
	).join('');
	expect(best(`<dl><dd>${REAL}</dd>${far}</dl><p>The last words of the page stand here.</p>`)).toBe(REAL);
	expect(best(`<p>Marsh, tides, and all that is between</p><p>${REAL}</p>`)).toBe(REAL);
	expect(best(`<p>In the marsh one finds the following:</p><ul><li>x</li></ul><p>${REAL}</p>`)).toBe(REAL);
});

test('a last sentence that is not ended is left out where enough is left', () => {
	const whole =
		'The marsh is flooded twice a day, and never the same; a book in the hut tells of all who saw it change.';
	expect(best(`<p>${whole} To open the gate, run</p><pre>gate open</pre>`)).toBe(whole);
	expect(best('<p>It is wet. To open the gate of the marsh, run</p><pre>gate open</pre>')).toMatch(/run$/);
});

test('a short first sentence takes the next one along', () => {
	expect(best('<p>The marsh is really wet.</p><p>It is flooded twice a day.</p>')).toBe(
		'The marsh is really wet. It is flooded twice a day.'
	);
	expect(best('<p>The marsh is really wet.</p><h2>Tides</h2><p>It is flooded twice a day.</p>')).toBe(
		'The marsh is really wet.'
	);
});

test('a name with a small letter begins a text behind its heading', () => {
	const name = 'tidegate opens and closes the gates of a marsh. It can be used by hand or by a clock.';
	expect(best(`<h1>tidegate</h1><p>${name}</p><p>${REAL}</p>`)).toBe(name);
	expect(best(`<h1>tidegate</h1><pre>open(gate)</pre><p>${name}</p><p>${REAL}</p>`)).toBe(REAL);
	expect(best(`<h1>tidegate</h1><ul><li>${name}</li></ul><p>${REAL}</p>`)).toBe(REAL);
});

test('scripts without spaces', () => {
	expect(best('<p>目次</p><p>この湿地は一日に二度、潮に沈みます。</p>')).toBe('この湿地は一日に二度、潮に沈みます。');
	// Text that stands loose behind the heading, and begins with a name of another script.
	const opening =
		'marsh は、一日に二度、潮に沈む湿地です。 冬には北から来る多くの鳥がここで休み、春になるとまた北へ帰って行きます。 湿地の西の端には小屋があり、満ち潮の前後にはそこから鳥の群れを間近に見ることができます。';
	const more = 'この湿地への道については、地図を見て下さい。';
	expect(best(`<h1>湿地</h1>${opening}<p>${more}</p>`)).toBe(opening);
});

test.each<[string, string, string | undefined]>([
	[
		'the text of a page goes before those of its parts',
		'<h1>List</h1><h2>Method Summary</h2><p>Adds one to the end of the list, and says whether it was there.</p>',
		undefined
	],
	[
		'a part of a reference by its name and brackets',
		'<h1>keys: keys of documents</h1><p>Keys are looked up in the document that they are of.</p><h3>addKey ()</h3><p>Adds a key to the table of keys of a document.</p>',
		'Keys are looked up in the document that they are of.'
	],
	[
		'footnote marks, backticks',
		'<p>The `tide` comes in[1] faster than one walks[*], so mind the table.</p>',
		'The tide comes in faster than one walks, so mind the table.'
	],
	['what only leads up to a list', '<p>Here are the parts of this guide:</p><ul><li>One</li></ul>', undefined],
	[
		'what leads up to a list, and says something',
		'<p>There is exactly one way to come to the island when the tide is high: take the ferry.</p><p>Then:</p>',
		'There is exactly one way to come to the island when the tide is high: take the ferry.'
	],
	['a list of names', '<p>Ada Tern Bea Gull Cid Auk Dot Skua Eve Knot Fin Ruff Gil Smew</p>', undefined],
	[
		'terms in capitals',
		'<p>THE TABLES ARE GIVEN AS THEY ARE, WITHOUT WARRANTY OF ANY KIND, FOR ANY PURPOSE AT ALL.</p>',
		undefined
	],
	['who wrote it', '<p>Author(s): Ada Tern and Bea Gull, who keep the tables of the harbour.</p>', undefined]
])('%s', (_, html, wanted) => {
	expect(best(html)).toBe(wanted);
});

describe('prose is prose', () => {
	test.each([
		['in a summary that holds no details', `<section><summary><div><p>${REAL}</p></div></summary></section>`],
		['behind a part of the page that a theme left empty', `<div role="main"> </div><main><p>${REAL}</p></main>`],
		['with spaces that do not break', `<p>${REAL.replaceAll(' ', '&nbsp;')}</p>`],
		['with a year before it', `<p>1871 was the year in which the marsh was first told of.</p>`],
		['in three words that open a page, for what they are', '<h1>Marsh.close</h1><p>Shuts the marsh.</p>'],
		[
			'where most of it is a name',
			'<h1>get_scale</h1><p>Gets the value of <code>MARSH_PRINT_SETTINGS_SCALE</code>.</p>'
		]
	])('%s', (_name, html) => {
		expect(best(html)).toBe(
			html
				.replace(/<h1>.*<\/h1>/, '')
				.replace(/<[^>]*>/g, '')
				.replaceAll('&nbsp;', ' ')
				.trim()
		);
	});
	test('a sentence that opens a page goes on with the next', () => {
		expect(best('<h1>pause</h1><p>Pauses the stream.</p><p>If the stream is not playing, do nothing.</p>')).toBe(
			'Pauses the stream. If the stream is not playing, do nothing.'
		);
	});
	test('the name of a part that opens is none', () => {
		expect(best(`<details><summary>The tides of the marsh in a table.</summary><p>${REAL}</p></details>`)).toBe(REAL);
	});
});

test('what a program marks as the title stands for a heading where there is no first one', () => {
	const page = (head: string) => readPage(`<h2>Latest version: 3.2</h2>${head}<h3>Members</h3>`).heading;
	expect(page('<div class="headertitle"><div class="title">Files and folders</div></div>')).toBe('Files and folders');
	expect(page('<h1>Tides</h1><div class="title">Files</div>')).toBe('Tides');
	expect(page('')).toBe('Latest version: 3.2');
});

describe('a page that is there to lead says what it leads to', () => {
	const list = (...names: string[]) =>
		`<ul>${names.map((name) => `<li><a href="/${name}">${name}</a></li>`).join('')}</ul>`;
	const said = (html: string, language = 'en') => {
		const { contents } = readPage(html);
		return contents && contentsInWords(contents, language);
	};
	test.each([
		['en', 'Contains Tides, Walks, and Birds.', list('Tides', 'Walks', 'Birds')],
		['fr', 'Contient Tides, Walks et Birds.', list('Tides', 'Walks', 'Birds')],
		['de', 'Enthält Tides, Walks und Birds.', list('Tides', 'Walks', 'Birds', 'Birds')],
		[
			'en',
			'Contains Tides, Walks, and Birds.',
			'<dl class=toc><dt>1. <a href=a>Tides</a></dt><dt><span>2. </span><a href=b>Walks</a></dt><dt><a href=c>3. Birds</a></dt></dl>'
		],
		[
			'en',
			/^Contains Page 1 of the marsh, .* and \d+ more\.$/,
			list(...Array.from({ length: 30 }, (_, at) => `Page ${at + 1} of the marsh`))
		]
	])('in %s: %s', (language, wanted, html) => {
		expect(said(html, language)).toMatch(wanted);
		expect([...said(html, language)!].length).toBeLessThanOrEqual(150);
	});
	test.each([
		['of two', list('Tides', 'Walks')],
		['of parts of the page', '<ul><li><a href="#a">Tides</a><li><a href="#b">Walks</a><li><a href="#c">Birds</a></ul>'],
		['of names in programs', list('open_marsh', 'closeMarsh', 'Marsh::tide', 'Tides')],
		['where it says something else', `<p>${REAL}</p>${list('Tides', 'Walks', 'Birds')}`],
		['in a menu', `<nav>${list('Tides', 'Walks', 'Birds')}</nav>`],
		[
			'whose items say more than names',
			`<ul>${'<li>Read of the tides in <a href="/x">this table</a></li>'.repeat(5)}</ul>`
		]
	])('not %s', (_name, html) => expect(said(html)).toBeUndefined());
	test('nor in a language that it has no words for', () => {
		expect(said(list('Tides', 'Walks', 'Birds'), 'und')).toBeUndefined();
	});
});

describe('a page that tells its parts one by one, as programs write them', () => {
	const rows = '<table><tr><td>Gives the marsh as it was before the tide came in.</td></tr></table>';
	test('what is said of them is not said of it; under a heading for it, it goes on', () => {
		for (const name of ['Public Member Functions', 'Static Public Attributes', 'Public Types', 'Member Functions']) {
			expect(best(`<h1>Marsh</h1><h2>${name}</h2>${rows}`), name).toBeUndefined();
			expect(best(`<h1>Marsh</h1><h2>${name}</h2>${rows}<h2>Detailed Description</h2><p>${REAL}</p>`), name).toBe(REAL);
		}
		// A list of types is none of a page's own.
		expect(best(`<h1>Marsh</h1><h2>Types</h2><p>${REAL}</p>`)).toBe(REAL);
	});
	test('who inherits from it, and where it stands, is no text of it', () => {
		for (const said of [
			'Inherited by MarshException, TideException, and all of the other ones.',
			'Inherits marsh::Tide, and all that there is beside it in here.',
			'Definition at line 12 of the file that holds the marsh.',
			'Referenced by tide(), flood() and by all of the other ones.'
		])
			expect(best(`<p>${said}</p><p>${REAL}</p>`), said).toBe(REAL);
	});
	test('but what is inherited, or referred to, may be what a page is about', () => {
		for (const said of [
			'Inherited by eldest sons alone, the marsh was never parted among the rest of them.',
			'Inherited marshes are taxed at half of what they were worth on the day.',
			'Inherits the marsh from his uncle, and does not know what to do with it.',
			'References to the marsh are found in each of the letters that she wrote.'
		])
			expect(best(`<p>${said}</p>`)).toBe(said);
	});
	test('a way to more of it is taken off its end', () => {
		expect(best(`<p>${REAL} <a href="#more">More...</a></p>`)).toBe(REAL);
		expect(best(`<p>${REAL} Read more…</p>`)).toBe(REAL);
		const more = 'The marsh is flooded twice a day, and on some days it is flooded once more…';
		expect(best(`<p>${more}</p>`)).toBe(more);
	});
	test('what is marked as its title is no text of it', () => {
		expect(
			best(
				'<div class="title">Marsh Struct Template Reference of Tides</div><p>Marsh Struct Template Reference of Tides</p>'
			)
		).toBeUndefined();
	});
});
