import { type Field, type FieldKind, type FieldValue, type PictureMention } from '$core';
import type { Chance } from './chance';

/** What fields, tags and templates of sites made by chance are made of: legal, illegal, at the edges of every threshold. */

/** The kinds that these worlds were made with: others that come later leave them as they are. */
const KINDS = ['text', 'rich', 'number', 'date', 'flag', 'link', 'list', 'picture', 'pictures', 'person'] as const;

export const LANGUAGES = ['en', 'fr', 'de', 'pt-BR', 'en-GB', 'ja', 'ar', 'zh-Hant-TW'];
export const TEXTS = [
	'Ember Heath',
	'Home',
	'A long walk over the heath to the old signal tower, and back along the shore by the ferry house before dark',
	'Two  spaces\tand\na line',
	'Fish & chips <b>"now"</b> it’s ‘here’',
	'   ',
	'\u00a0',
	'',
	'Ünïcödé 👩‍👩‍👧 ﬁn',
	'砂浜の鳥と潮の満ち引き。朝はやく。',
	'شاطئ طويل',
	'stat() and {page.title}',
	'One. Two! Three? Four… Five',
	'Merrow Trust',
	'Ember Heath · Merrow Trust',
	'-',
	'a',
	'<p>Paragraph one is about <em>birds</em> that come in spring and stay.</p><p>Another.</p>',
	'An opening sentence that goes on for a while so that it says something of worth. A second sentence follows it, and it is longer than the first by far, with commas, and with more of them. A third ends it.'
];
export const DATES = [
	'2026-05-03',
	'2026-05-03T10:20:30+02:00',
	'2026-12-31 23:59',
	'0050-01-02',
	'2026-02-30',
	'soon',
	'2026-03-29T01:30:00Z'
];
export const ADDRESSES = [
	'/visit',
	'https://other.example/a b?q=1#part',
	'//evil.example/x',
	'/p#part',
	'mailto:a@b.example',
	'javascript:alert(1)',
	'../up',
	'http://other.example/',
	'https://bücher.example/ä'
];
export const EDGES = [
	1, 119, 120, 143, 144, 199, 200, 299, 300, 314, 315, 420, 599, 600, 628, 629, 630, 1199, 1200, 1201, 4000
];
export const SOURCES = [
	'/p/heath.jpg',
	'/p/logo.png',
	'/p/tall.webp',
	'/p/drawing.svg',
	'/p/small.gif',
	'/p/sea.jpg',
	'https://img.example/far.jpg',
	'http://img.example/plain.jpg',
	'/p/unknown.jpg'
];
export const VALUES: readonly string[] = [
	...TEXTS.slice(0, 6),
	...DATES.slice(0, 4),
	...ADDRESSES,
	...[
		'12',
		'0',
		'-3',
		'1.5',
		'1e3',
		'many',
		'en_GB',
		'fr-FR',
		'fr_fr',
		'@merrow',
		'merrow',
		'@',
		'https://net.example/merrow',
		'#0a5f55',
		'teal',
		'rgb(1 2 3)',
		'#12',
		'noindex, nofollow',
		'noindex,follow',
		'max-snippet:20',
		'nonsense',
		'max-image-preview:large, noarchive',
		'unavailable_after: 2026-05-03',
		'image/png',
		'png',
		'video/mp4; codecs="x"',
		'summary',
		'summary_large_image',
		'player',
		'website',
		'article',
		'the',
		'auto',
		'male',
		'a\u0000b',
		'<script>'
	],
	...SOURCES.slice(0, 4)
];
export const FIELDS: readonly Field[] = [
	...KINDS.map((kind) => ({ name: `my${kind}`, kind })),
	{ name: 'region', kind: 'text' as const, label: 'Region' }
];
const VARIABLES = [
	...['title', 'heading', 'short', 'summary', 'body', 'picture', 'pictures', 'author', 'tags', 'section', 'published'],
	...['path', 'address', 'language', 'modified', 'minutes', 'region', 'nothing', ...FIELDS.map(({ name }) => name)]
].map((name) => `page.${name}`);
const OTHERS = [
	'site.name',
	'site.tagline',
	'site.base',
	'site.language',
	'site.nothing',
	'type.name',
	'type.label',
	'listing.title',
	'listing.number',
	'listing.pages',
	'listing.count',
	'now',
	'head.title',
	'head.description',
	'head.og:image',
	'head.og:title',
	'head.canonical',
	'page.author.name',
	'page.author.handle',
	'page.picture.alt',
	'page.picture.src'
];
const CALLS = [
	...[
		'clip 12',
		'clip 40',
		'clip 0',
		'clip',
		'clip 5 6',
		'words 3',
		'words 0',
		'case "upper"',
		'case "lower"',
		'case "title"',
		'case "sentence"',
		'case "shout"'
	],
	...[
		'date "yyyy-MM-dd"',
		'date "d MMMM yyyy"',
		`date "EEEE 'at' HH:mm:ss"`,
		'date "yy M d h a"',
		'date',
		'date "QQ"',
		'number',
		'number 2',
		'number 30',
		'money "EUR"',
		'money "EURO"',
		'money'
	],
	...[
		'plural "one page" "{} pages"',
		'plural "x" "y"',
		'plural "x"',
		'join',
		'join ", "',
		'join " / " " and "',
		'first',
		'first 2',
		'last',
		'last 2',
		'last 0',
		'plain',
		'hashtags',
		'replace "e" "E"',
		'replace "" "x"',
		'replace "e"',
		'nosuch',
		'plain | clip 30',
		'first 2 | join " + "'
	]
];

export const fieldOf = (chance: Chance, kind: FieldKind): FieldValue => {
	const text = () => chance.pick(TEXTS);
	const mention = (): PictureMention => ({ src: chance.pick(SOURCES), ...chance.maybe(50, () => ({ alt: text() })) });
	const person = () => ({
		name: text(),
		...chance.maybe(50, () => ({ handle: chance.pick(['@isla', 'isla', 'not one!']) })),
		...chance.maybe(40, () => ({ address: chance.pick(ADDRESSES) })),
		...chance.maybe(40, () => ({ picture: chance.pick(SOURCES) }))
	});
	if (chance.is(8)) return chance.pick<FieldValue>([null, 0, -1.5, true, false, 1234567.891, '']);
	switch (kind) {
		case 'number':
			return chance.pick<FieldValue>([0, 1, 2, 214, -3, 1234.5, '12', '1e3', 'many', 1e21]);
		case 'date':
			return chance.pick(DATES);
		case 'flag':
			return chance.is(50);
		case 'link':
			return chance.pick(ADDRESSES);
		case 'list':
			return chance.some(['birds', 'Sea View', '', 'été', 'rock-pool', 7], 5);
		case 'picture':
			return chance.is(70) ? mention() : chance.pick(SOURCES);
		case 'pictures':
			return Array.from({ length: chance.below(4) }, mention);
		case 'person':
			return chance.is(60) ? person() : chance.is(50) ? text() : [person(), text()];
		default:
			return text();
	}
};

export function templateOf(chance: Chance): string {
	const variable = () => chance.pick(chance.is(70) ? VARIABLES : OTHERS);
	const call = () => (chance.is(40) ? ` | ${chance.pick(CALLS)}` : '');
	const placeholder = () => `{${[variable(), ...chance.some([variable(), '"or this"'], 1)].join(' ?? ')}${call()}}`;
	const piece = () =>
		chance.pick([
			placeholder,
			placeholder,
			() => `[[ in ${placeholder()}]]`,
			() => `[[${placeholder()}: [[${placeholder()}]]]]`,
			() => ' {separator} ',
			() => chance.pick(['{site.name}', '{head.title}', '{site.name} and {site.name}']),
			() => chance.pick([' and ', ', ', ' <i> & ', '\\{', '\\\\', '  ', 'the ', ': ']),
			() => chance.pick(['{', '}', '[[', ']]', '{page.titel}', '{ }', '{page.title |}', '{page.title ?? }', '\\'])
		])();
	return Array.from({ length: 1 + chance.below(4) }, piece).join('');
}
