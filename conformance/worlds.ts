import {
	PAGE_STATES,
	SHAPE_NAMES,
	SPECIAL_KINDS,
	TAG_NAMES,
	type ContentType,
	type Field,
	type FoundPolicies,
	type FoundTag,
	type Page,
	type Picture,
	type PictureSource,
	type Rule,
	type ShareLayout,
	type Site,
	type TextPart
} from '$core';
import { Chance } from './chance';
import { ADDRESSES, DATES, EDGES, FIELDS, LANGUAGES, SOURCES, TEXTS, VALUES, fieldOf, templateOf } from './values';

/**
 * Sites made by chance, the same ones for the same number: every tag, every filter, sizes at the edges of every
 * threshold, values that are legal and values that are not. What they come to is written down in conformance/worlds.
 */
export interface World {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly pictures: readonly Picture[];
	readonly pages: readonly Page[];
}

function ruleOf(chance: Chance): Rule {
	const tag = chance.is(30)
		? chance.pick([
				'title',
				'description',
				'og:title',
				'og:description',
				'og:image',
				'twitter:image',
				'twitter:title',
				'canonical',
				'robots'
			])
		: chance.is(90)
			? chance.pick(TAG_NAMES)
			: chance.pick(['meta:geo', 'robots:gullbot', 'meta:description', 'tide:level', 'og:tilte', 'nothing']);
	const named = { tag, ...chance.maybe(12, () => ({ language: chance.pick([...LANGUAGES, 'nope!']) })) };
	const shapes = () => chance.maybe(25, () => ({ shapes: chance.some(SHAPE_NAMES, 2) }));
	const isPicture = /image|icon/.test(tag);
	if (isPicture && chance.is(60)) {
		const source = (): PictureSource =>
			chance.is(25)
				? { from: 'file', src: chance.pick(SOURCES), ...chance.maybe(50, () => ({ alt: chance.pick(TEXTS) })) }
				: chance.is(25)
					? { from: 'field', name: chance.pick(['mypicture', 'mypictures', 'nothing', 'picture']) }
					: { from: chance.pick(['lead', 'body', 'author', 'type', 'site', 'composed'] as const) };
		return {
			...named,
			kind: 'pictures',
			sources: Array.from({ length: 1 + chance.below(3) }, source),
			...chance.maybe(30, () => ({ count: 1 + chance.below(3) })),
			...chance.maybe(40, () => ({
				limits: {
					...chance.maybe(70, () => ({ minWidth: chance.pick(EDGES) })),
					...chance.maybe(40, () => ({ minHeight: chance.pick(EDGES) })),
					...chance.maybe(30, () => ({ minShape: chance.pick([1, 1.4, 1.91]) })),
					...chance.maybe(30, () => ({ maxShape: chance.pick([1, 1.4, 2]) }))
				}
			})),
			...shapes()
		};
	}
	const form = chance.below(100);
	if (form < 12) return { ...named, kind: 'borrow', from: chance.pick(TAG_NAMES), ...shapes() };
	if (form < 20) return { ...named, kind: 'leaveOut' };
	const isText = /title|description|alt|site_name|tag|section|author/.test(tag);
	return {
		...named,
		kind: 'template',
		template: chance.is(isText ? 75 : 30) ? templateOf(chance) : chance.pick(VALUES)
	};
}

function pictureOf(chance: Chance, src: string): Picture {
	const file = `${[...src]
		.reduce((sum, sign) => (Math.imul(sum, 31) + sign.charCodeAt(0)) >>> 0, 7)
		.toString(16)
		.padStart(24, 'a')}.${chance.pick(['jpg', 'png'])}`;
	const [width, height] = chance.is(40)
		? chance.pick([
				[600, 300],
				[599, 300],
				[600, 299],
				[600, 428],
				[600, 429],
				[420, 300],
				[1200, 630],
				[144, 144],
				[143, 144]
			])
		: [chance.pick(EDGES), chance.pick(EDGES)];
	return {
		src,
		...chance.maybe(85, () => ({ width, height })),
		...chance.maybe(60, () => ({ bytes: chance.pick([9_000, 290_000, 310_000, 5_000_000, 9_000_000]) })),
		...chance.maybe(80, () => ({
			type: src.endsWith('svg') ? 'image/svg+xml' : chance.pick(['image/jpeg', 'image/png', 'image/webp', 'image/gif'])
		})),
		...chance.maybe(40, () => ({ alt: chance.pick(TEXTS) })),
		...chance.maybe(15, () => ({ alts: { fr: 'La lande', de: 'Die Heide' } })),
		...chance.maybe(50, () => ({ kept: { file, width, height } })),
		...chance.maybe(src.startsWith('http:') ? 60 : 5, () => ({ secure: src.replace('http:', 'https:') })),
		...chance.maybe(30, () => ({ focus: [chance.pick([0, 0.1, 0.5, 1]), chance.pick([0, 0.3, 0.9])] as const })),
		...chance.maybe(15, () => ({ cuts: { [chance.pick(SHAPE_NAMES)]: { focus: [0.2, 0.8] as const, zoom: 1.5 } } })),
		...chance.maybe(25, () => ({ text: [[0.1, 0.1, chance.pick([0.2, 0.7]), chance.pick([0.1, 0.5])] as const] })),
		...chance.maybe(20, () => ({ faces: [[0.6, 0.1, 0.3, 0.3] as const] })),
		...chance.maybe(12, () => ({ plain: true })),
		...chance.maybe(12, () => ({ mark: true })),
		...chance.maybe(15, () => ({ repeated: chance.pick([1, 3, 4, 40]) })),
		...chance.maybe(15, () => ({ alpha: true })),
		...chance.maybe(10, () => ({ animated: true })),
		...chance.maybe(70, () => ({ light: lightOf(chance) }))
	};
}

const policies = (chance: Chance): FoundPolicies => ({
	...chance.maybe(60, () => ({ all: chance.pick(['keep', 'last', 'never'] as const) })),
	...chance.maybe(50, () => ({
		tags: { [chance.pick(['title', 'description', 'og:image'])]: chance.pick(['keep', 'last', 'never'] as const) }
	}))
});
const settings = (chance: Chance) => ({
	...chance.maybe(15, () => ({
		families: {
			...chance.maybe(60, () => ({ og: chance.is(50) })),
			...chance.maybe(60, () => ({ twitter: chance.is(50) }))
		}
	})),
	...chance.maybe(20, () => ({ foundPolicy: policies(chance) })),
	...chance.maybe(15, () => ({
		extra: {
			...chance.maybe(70, () => ({
				before: chance.pick([
					'<link rel="preload" href="/a.css" as="style">',
					'<meta name="verify" content="x&amp;y"><b>no</b>',
					'<script>if (a < b) go()</script>'
				])
			})),
			...chance.maybe(50, () => ({
				after: chance.pick([
					'<!-- end -->',
					'<style>b{color:red}</style>',
					'<noscript><link rel=stylesheet href=/n.css></noscript>',
					'<title>twice</title>'
				])
			}))
		}
	}))
});
const rulesOf = (chance: Chance, most: number) => Array.from({ length: chance.below(most + 1) }, () => ruleOf(chance));

const colourOf = (chance: Chance) =>
	chance.pick(['paper', 'ink', 'accent', '#ffffff', '#808080', '#0a5f55', '#111111']);
const boxOf = (chance: Chance) => ({
	...{ x: chance.below(600), y: chance.below(300) },
	...{ width: 60 + chance.below(540), height: 40 + chance.below(280) }
});
export function layoutOf(chance: Chance): ShareLayout {
	const part = (): TextPart => ({
		...boxOf(chance),
		template: chance.pick(['{page.title}', '{page.section}', '{type.label}', '🐦 {page.title}', '{page.summary}']),
		font: chance.pick(['title', 'text'] as const),
		...{ size: 30 + chance.below(60), least: 20 + chance.below(20), weight: 500, colour: colourOf(chance) },
		align: chance.pick(['start', 'middle', 'end'] as const),
		stand: chance.pick(['top', 'middle', 'bottom'] as const)
	});
	return {
		background: chance.is(50)
			? { kind: 'colour', colour: colourOf(chance) }
			: { kind: 'gradient', from: colourOf(chance), to: colourOf(chance), angle: chance.pick([0, 20, 90, 200]) },
		...chance.maybe(70, () => ({
			picture: {
				...(chance.is(50) ? { x: 0, y: 0, width: 1200, height: 630 } : boxOf(chance)),
				...{ tint: colourOf(chance), strength: chance.pick([0, 0.3, 0.7, 1]) }
			}
		})),
		...chance.maybe(30, () => ({ frame: { colour: colourOf(chance), width: 12, inset: chance.pick([0, 24]) } })),
		...chance.maybe(40, () => ({ logo: boxOf(chance) })),
		title: part(),
		...chance.maybe(60, () => ({ line: part() }))
	};
}
/** Cells that get lighter to the right, downwards, or stay. */
export const lightOf = (chance: Chance) => {
	const form = chance.below(3);
	const grey = (at: number) => (form === 0 ? (at % 8) * 32 : form === 1 ? Math.floor(at / 8) * 32 : 120);
	return Array.from({ length: 64 }, (_, at) => grey(at).toString(16).padStart(2, '0')).join('');
};

function typeOf(chance: Chance, name: string): ContentType {
	return {
		name,
		...chance.maybe(50, () => ({ label: `The ${name}` })),
		...chance.maybe(50, () => ({
			kind: chance.pick(['article', 'book', 'profile', 'website', 'video.other', 'nonsense', 'music.song'])
		})),
		...chance.maybe(35, () => ({ special: chance.pick(SPECIAL_KINDS) })),
		...chance.maybe(8, () => ({ off: true })),
		fields: FIELDS.filter(() => chance.is(60)),
		...chance.maybe(40, () => ({ picture: { src: chance.pick(SOURCES), alt: 'Of the type' } })),
		...chance.maybe(15, () => ({
			pictureBy: { field: 'region', pictures: { 'Ember Heath': { src: chance.pick(SOURCES) } } }
		})),
		...chance.maybe(15, () => ({ playMark: true })),
		...chance.maybe(45, () => ({ layout: layoutOf(chance) })),
		...settings(chance),
		rules: rulesOf(chance, 9)
	};
}

function pageOf(chance: Chance, at: number, types: readonly ContentType[]): Page {
	const path =
		at === 0
			? '/'
			: chance.pick([`/p${at}`, `/a b/é${at}`, `/deep/er/${at}.html`, `//odd.example/${at}`, `/q${at}?x=1`, `/404`]);
	const found = (): FoundTag => ({
		name: chance.pick([
			'title',
			'description',
			'og:title',
			'og:image',
			'canonical',
			'robots',
			'keywords',
			'alternate',
			'twitter:card',
			'twitter:image:alt'
		]),
		value: chance.pick(VALUES),
		...chance.maybe(15, () => ({ attributes: { hreflang: chance.pick(['fr', 'x-default', 'nope!']) } }))
	});
	const fields = [
		...(['title', 'heading', 'short', 'summary', 'section', 'body'] as const).map(
			(name) => ({ name, kind: name === 'body' ? 'rich' : 'text' }) as Field
		),
		...([
			{ name: 'picture', kind: 'picture' },
			{ name: 'pictures', kind: 'pictures' },
			{ name: 'author', kind: 'person' },
			{ name: 'tags', kind: 'list' },
			{ name: 'published', kind: 'date' }
		] as Field[]),
		...FIELDS
	].filter(({ name }) => chance.is(name === 'title' ? 85 : 45));
	return {
		path,
		type: chance.is(95) ? chance.pick(types).name : 'none',
		...chance.maybe(60, () => ({ language: chance.pick(LANGUAGES) })),
		state: chance.is(85) ? 'live' : chance.pick(PAGE_STATES),
		...chance.maybe(50, () => ({ modified: chance.pick(DATES) })),
		...chance.maybe(15, () => ({ hidden: true })),
		...chance.maybe(10, () => ({ playMark: chance.is(50) })),
		...chance.maybe(15, () => ({ key: true })),
		...chance.maybe(20, () => ({ target: 'heath walk' })),
		fields: Object.fromEntries(fields.map(({ name, kind }) => [name, fieldOf(chance, kind)])),
		...chance.maybe(25, () => ({
			listing: {
				title: 'Walks',
				number: chance.pick([1, 2]),
				pages: chance.pick([1, 3]),
				count: chance.pick([0, 1, 57])
			}
		})),
		...chance.maybe(25, () => ({
			alternates: {
				fr: '/fr/p',
				de: chance.pick(['//evil.example/x', '/de/p#part', path]),
				...chance.maybe(20, () => ({ 'x-default': '/p' })),
				...chance.maybe(15, () => ({ 'no tag': '/n' }))
			}
		})),
		...settings(chance),
		rules: rulesOf(chance, 6),
		...chance.maybe(35, () => ({ found: Array.from({ length: 1 + chance.below(4) }, found) }))
	};
}

export function makeWorld(seed: number): World {
	const chance = new Chance(seed * 7919);
	const types = ['note', 'place', 'story'].map((name) => typeOf(chance, name));
	const site: Site = {
		name: chance.pick(['Merrow Trust', 'Me', 'A & B', 'Ember Heath']),
		base: chance.pick(['https://merrow.example/', 'https://merrow.example/under/', 'http://merrow.example/']),
		languages: chance.pick([['en'], ['fr', 'en'], ['de', 'fr'], ['pt-BR', 'pt'], ['ja']]),
		separator: chance.pick(['·', '|', '–', '<']),
		fields: {
			...chance.maybe(60, () => ({ tagline: chance.pick(TEXTS) })),
			...chance.maybe(50, () => ({ description: chance.pick(TEXTS) })),
			...chance.maybe(60, () => ({ picture: { src: chance.pick(SOURCES), alt: 'Of the site' } })),
			...chance.maybe(50, () => ({ logo: { src: '/p/logo.png' } })),
			...chance.maybe(50, () => ({ icon: { src: chance.pick(SOURCES) } })),
			...chance.maybe(50, () => ({ handle: chance.pick(['@merrow', 'merrow', '!']) })),
			...chance.maybe(50, () => ({ publisher: chance.pick(ADDRESSES) }))
		},
		...chance.maybe(30, () => ({ translations: { fr: { name: 'Fondation Merrow', tagline: 'La côte' } } })),
		...chance.maybe(25, () => ({ lean: true })),
		...chance.maybe(30, () => ({ timeZone: chance.pick(['Europe/Paris', 'Asia/Tokyo']) })),
		...chance.maybe(30, () => ({ look: { ink: '#222222', accent: '#c04000', titleFont: 'Commissioner' as const } })),
		...chance.maybe(60, () => ({ prefixes: { tide: 'https://tide.example/ns#' } })),
		...chance.maybe(30, () => ({
			frames: [{ tag: 'description', value: TEXTS[2] as string, language: 'en', pages: 40 }]
		})),
		...settings(chance),
		rules: rulesOf(chance, 9)
	};
	const pictures = SOURCES.slice(0, -1)
		.filter(() => chance.is(85))
		.map((src) => pictureOf(chance, src));
	const pages = Array.from({ length: 4 }, (_, at) => pageOf(chance, at, types));
	return { site, types, pictures, pages };
}

/** A rule to put somewhere, for edits by chance. */
export const makeRule = (seed: number) => ruleOf(new Chance(seed));
