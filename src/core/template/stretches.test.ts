import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
	checkTemplate,
	compileTemplate,
	renameFieldInRule,
	Resolver,
	templateParts,
	type Page,
	type Site
} from '../index';
import type { ContentType } from '../model';
import { countGraphemes } from '../text/text';
import { measureText } from '../text/measure';
import { replaceWords } from './replace';
import { renameFieldInTemplate, variablesOf } from './variables';

const SITE: Site = {
	...{ name: 'Merrow Coast', base: 'https://merrow.example/', languages: ['en', 'fr'], separator: '–' },
	...{ fields: { tagline: 'Walks by the sea' }, rules: [] }
};
const TYPE: ContentType = { name: 'walk', label: 'Walk', fields: [], rules: [] };
const NOW = '2026-05-01T10:00:00Z';

interface World {
	readonly fields?: Page['fields'];
	readonly site?: Partial<Site>;
	readonly type?: Partial<ContentType>;
	readonly language?: string;
}

/** What a template comes to as the description of a page, and its scope. */
function look(template: string, { fields = {}, site = {}, type = {}, language }: World = {}) {
	const page: Page = {
		...{ path: '/x', type: 'walk', state: 'live' as const, fields, ...(language && { language }) },
		rules: [{ tag: 'author', kind: 'template', template }]
	};
	const model = { site: { ...SITE, ...site }, types: [{ ...TYPE, ...type }], pictures: [] };
	const { scope } = new Resolver(model, NOW).look(page);
	return { text: scope.textOf('author'), scope };
}
const run = (template: string, world: World = {}) => look(template, world).text;
const check = (template: string) =>
	checkTemplate(template, {
		...{
			fields: [
				{ name: 'free', kind: 'flag' as const },
				{ name: 'stock', kind: 'choice' as const }
			],
			tagNames: ['title']
		},
		...{
			words: ['book'],
			pieces: new Map([
				['price', '{page.price}'],
				['loop', '{piece.price}']
			])
		}
	}).map(({ code, start }) => `${code} ${start}`);

describe('a question', () => {
	const template = '{page.title}[[{page.free?} – free entry]]';
	test('prints nothing, and its stretch where it is so', () => {
		expect(run(template, { fields: { title: 'Head', free: true } })).toBe('Head – free entry');
		expect(run(template, { fields: { title: 'Head', free: false } })).toBe('Head');
		expect(run(template, { fields: { title: 'Head' } })).toBe('Head');
		expect(run('[[{page.places | under 6?}only {page.places} left]]', { fields: { places: 0 } })).toBe('only 0 left');
		expect(run('[[{page.places | under 6?}only {page.places} left]]', { fields: { places: 6 } })).toBe('');
		expect(run('[[{page.a ?? page.b?}one of them]]', { fields: { b: 'x' } })).toBe('one of them');
	});

	test('at the top it is asked of the whole template', () => {
		expect(run('{page.kind | is "event"?}{page.title}, live', { fields: { kind: 'event', title: 'T' } })).toBe(
			'T, live'
		);
		expect(run('{page.title}, live{page.kind | is "event"?}', { fields: { kind: 'shop', title: 'T' } })).toBe('');
		expect(run('{page.free?}', { fields: { free: true } })).toBe('');
	});

	test('what is asked leaves no gap and is none of what is empty', () => {
		const { scope } = look('', { fields: { title: 'T' } });
		const compiled = compileTemplate('In {page.region}[[{page.free?}free]]');
		expect(compiled.gapNames(scope)).toEqual(['page.region']);
		expect(compiled.emptyNames(scope)).toEqual(['page.region']);
	});

	test.each(['{page.free ??}', '{page.free?', '{page.free? | not}', '{?}', '{page.free ? x}'])(
		'%s is none',
		(broken) => {
			expect(compileTemplate(broken).fault).toBeDefined();
		}
	);
});

describe('a choice', () => {
	const template =
		'[[{page.stock | is 0?}Sold out]] {or} [[{page.stock | under 6?}only {page.stock} left]]{or}[[Book now]]';
	test('takes the first stretch that prints', () => {
		expect([0, 3, 10].map((stock) => run(template, { fields: { stock } }))).toEqual([
			'Sold out',
			'only 3 left',
			'Book now'
		]);
		expect(run('A [[{page.x}]] {or} [[{page.y}]] B', { fields: {} })).toBe('A B');
		expect(run('[[{page.x}]]\n{ or }\t[[{page.y}]]', { fields: { y: 'y' } })).toBe('y');
		expect(run('[[[[{page.x}]] {or} [[{page.y}]] in {page.z}]]', { fields: { y: 'y', z: 'z' } })).toBe('y in z');
	});
	test('separators in it stand as they do elsewhere', () => {
		expect(
			run('{page.title}[[{separator}{page.x}]] {or} [[{separator}{site.tagline}]]', { fields: { title: 'T' } })
		).toBe('T – Walks by the sea');
		expect(run('[[{separator}]] {or} [[x]]')).toBe('x');
	});
	test('`{or}` by itself is told', () => {
		expect(check('[[{page.title}]] {or} x')).toEqual(['template/or-alone 18']);
		expect(check('{or}[[{page.title}]]')).toEqual(['template/or-alone 1']);
		expect(check('[[a]] {or} [[{page.title}]]')).toEqual(['template/constant-optional 0']);
		expect(check('[[{page.title}]] {or} [[always]]')).toEqual([]);
	});
	test('has any number of stretches, nested as deep as others', () => {
		expect(compileTemplate('[['.repeat(9) + '{page.x}' + ']]'.repeat(9)).fault?.code).toBe('template/too-deep');
		expect(run(`${'[[{page.x}]]{or}'.repeat(100)}[[last]]`)).toBe('last');
	});
});

describe('room', () => {
	const template = '{fit 30}{page.title}[[{goes 1} in {page.region}]][[{separator}{site.name}]]';
	test.each([
		['Head', 'the West', 'Head in the West – Merrow Coast'.slice(0, 0) + 'Head – Merrow Coast'],
		['Seal', 'Ry', 'Seal in Ry – Merrow Coast'],
		['A title that is rather long', 'Ry', 'A title that is rather long'],
		['A title that is longer than there is room for', 'Ry', 'A title that is longer than…']
	])('%s in %s', (title, region, told) => {
		expect(run(template, { fields: { title, region } })).toBe(told);
	});

	test('what went last comes back where there is room for it', () => {
		const fields = { a: 'aaaaaaaaaa', b: 'bb', c: 'cccc' };
		// First b goes, then c; b alone fits again.
		expect(run('{fit 13}{page.a}[[{goes 1} {page.b}]][[{goes 2} {page.c}]]', { fields })).toBe('aaaaaaaaaa bb');
	});

	test('a choice gives way to its next reading, and always says something', () => {
		const choice = '{fit 12}[[{page.title} of the {site.name}]] {or} [[{page.title}]] {or} [[{page.short}]]';
		expect(run(choice, { fields: { title: 'Head', short: 'H' } })).toBe('Head');
		expect(run(choice, { fields: { title: 'Gannet Head Walk', short: 'GHW' } })).toBe('GHW');
		expect(run(choice, { fields: { title: 'Gannet Head Walk' } })).toBe('Gannet Head…');
	});

	test('of three readings the one that fits is drawn as there, and no other', () => {
		const template = '{fit 12}[[{page.title} of the {site.name}]] {or} [[{page.title}]] {or} [[{page.short}]]';
		const { scope } = look('', { fields: { title: 'Head', short: 'H' } });
		const there = templateParts(template, scope).filter(({ kind, gone }) => kind === 'value' && !gone);
		expect(there.map(({ text }) => text)).toEqual(['Head']);
		expect(
			compileTemplate(template)
				.gone(scope)
				.map(({ start, end }) => template.slice(start, end))
		).toEqual(['[[{page.title} of the {site.name}]]']);
	});

	test('by pixels', () => {
		const [title, region] = ['Gannet Head', 'the far West'];
		const text = run('{fit 200 px}{page.title}[[ in {page.region}]]', { fields: { title, region } });
		expect(text).toBe('Gannet Head');
		expect(measureText(`${title} in ${region}`, 20)).toBeGreaterThan(200);
		expect(run('{fit 400 px}{page.title}[[ in {page.region}]]', { fields: { title, region } })).toBe(
			`${title} in ${region}`
		);
	});

	test('which gave way is known by its place', () => {
		const { scope } = look('', { fields: { title: 'Gannet Head Walk', region: 'the far West' } });
		const compiled = compileTemplate(template);
		expect(compiled.gone(scope).map(({ start, end }) => template.slice(start, end))).toEqual([
			'[[{goes 1} in {page.region}]]',
			'[[{separator}{site.name}]]'
		]);
		expect(
			templateParts(template, scope)
				.filter(({ gone, text }) => !gone && text !== '')
				.map(({ text }) => text)
		).toEqual(['Gannet Head Walk']);
	});

	test('words that do nothing are told', () => {
		expect(check('{page.title}[[{goes 1}{page.title}]]')).toEqual(['template/idle-word 14']);
		expect(check('{fit 5}{goes 1}{page.title}')).toEqual(['template/idle-word 7']);
		expect(check('{fit 5}[[{fit 3}{page.title}]]')).toEqual(['template/idle-word 9']);
		expect(check('{fit 5}{fit 6}{page.title}')).toEqual(['template/idle-word 7']);
		expect(check('{fit 5}[[{goes 1}{page.title}]]')).toEqual([]);
		for (const broken of ['{fit}', '{fit 0}', '{fit x}', '{goes}', '{fit 5 em}'])
			expect(check(broken).length, broken).toBeGreaterThan(0);
	});

	const word = fc.constantFrom('a', 'bb ', ' ccc', 'dddd dddd', 'é', '👩‍👩‍👧');
	const stretch = fc.tuple(fc.constantFrom('', '{goes 1}', '{goes 2}'), word, fc.boolean());
	test('whatever it holds: it fits, and none that could stand is gone', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 25 }), word, fc.array(stretch, { maxLength: 5 }), (room, first, more) => {
				const parts = more.map(
					([goes, text, hasSeparator]) => `[[${goes}${hasSeparator ? '{separator}' : ''}{page.x}${text}]]`
				);
				const template = `{fit ${room}}${first}${parts.join('')}`;
				const { scope } = look('', { fields: { x: 'x' } });
				const compiled = compileTemplate(template);
				const out = compiled.run(scope);
				expect(countGraphemes(out)).toBeLessThanOrEqual(room);
				const gone = new Set(compiled.gone(scope).map(({ start }) => start));
				// With any one of them back, it does not fit.
				const places = parts.map((_, at) => `{fit ${room}}${first}${parts.slice(0, at).join('')}`.length);
				const left = (back: number) =>
					first +
					parts
						.filter((_, at) => !gone.has(places[at]!) || at === back)
						.join('')
						.replaceAll(/\{goes \d\}/g, '');
				const whole = (back: number) => compileTemplate(left(back)).run(scope).trim();
				if (out.endsWith('…')) return;
				for (const at of places.keys())
					if (gone.has(places[at]!)) expect(countGraphemes(whole(at))).toBeGreaterThan(room);
			}),
			{ numRuns: 300 }
		);
	});
});

describe('values in words', () => {
	const type: Partial<ContentType> = {
		fields: [
			{
				...{ name: 'stock', kind: 'choice' },
				words: [
					{ is: 'in-stock', words: { en: 'In stock', fr: 'En stock' } },
					{ is: 'sold-out', words: { en: 'Sold out' } }
				]
			},
			{ name: 'free', kind: 'flag', words: [{ is: true, words: { en: 'Free', fr: 'Gratuit' } }] },
			{
				...{ name: 'dogs', kind: 'flag' },
				words: [
					{ is: true, words: { en: 'Dogs welcome' } },
					{ is: false, words: { en: 'No dogs' } }
				]
			},
			{
				...{ name: 'places', kind: 'number' },
				words: [
					{ is: 0, words: { en: 'Sold out' } },
					{ from: 1, to: 5, words: { en: 'only {n} left', fr: 'plus que {n}' } },
					{ from: 2000, words: { en: '{n} places' } }
				]
			},
			{ name: 'uses', kind: 'list', words: [{ is: 'boat', words: { en: 'by boat' } }] }
		],
		names: { one: { en: 'Walk', fr: 'Promenade' }, many: { en: 'Walks', fr: 'Promenades' } }
	};
	const say = (template: string, fields: Page['fields'], language?: string) =>
		run(template, { type, fields, ...(language && { language }) });

	test('by language, the site’s first where a language has none', () => {
		expect(say('{page.stock}', { stock: 'in-stock' })).toBe('In stock');
		expect(say('{page.stock}', { stock: 'in-stock' }, 'fr-CA')).toBe('En stock');
		expect(say('{page.stock}', { stock: 'sold-out' }, 'fr')).toBe('Sold out');
		expect(say('{page.stock}', { stock: 'odd' })).toBe('odd');
		expect(say('[[{page.free} – ]]{page.dogs}', { free: true, dogs: true })).toBe('Free – Dogs welcome');
		expect(say('[[{page.free} – ]]{page.dogs}', { free: false })).toBe('No dogs');
		expect([0, 1, 5, 6, 2500, -1].map((places) => say('{page.places}', { places }))).toEqual([
			...['Sold out', 'only 1 left', 'only 5 left', '6', '2,500 places', '-1']
		]);
		expect(say('{page.uses | join}', { uses: ['boat', 'foot'] })).toBe('by boat and foot');
	});

	test('filters for texts take the words, filters for numbers and questions the value', () => {
		expect(say('{page.stock | case "upper"}', { stock: 'in-stock' })).toBe('IN STOCK');
		expect(say('{page.places | number 1}', { places: 3 })).toBe('3.0');
		expect(say('[[{page.stock | is "in-stock"?}{page.stock}]]', { stock: 'in-stock' })).toBe('In stock');
		expect(say('[[{page.dogs?}yes]] {or} [[no]]', { dogs: false })).toBe('no');
		expect(say('{page.title | unless page.stock}', { title: 'in-stock', stock: 'in-stock' })).toBe('');
	});

	test('names of types, and the site’s own words', () => {
		const site = { words: { book: { en: 'Book now', fr: 'Réserver' }, empty: {} } };
		expect(run('{words.book}', { site, language: 'fr' })).toBe('Réserver');
		expect(run('{words.book}', { site, language: 'de' })).toBe('Book now');
		expect(run('{words.empty}{words.none}{words.constructor}', { site })).toBe('');
		expect(run('{words.book}')).toBe('');
		expect(say('{type.many}, {type.one}', {}, 'fr')).toBe('Promenades, Promenade');
		expect(run('{type.one}')).toBe('Walk');
	});

	test('a flag that would print `true` is told, unless something has words for it', () => {
		expect(check('{page.free}')).toEqual(['template/prints-flag 0']);
		expect(check('{page.title | is "x"}')).toEqual(['template/prints-flag 0']);
		expect(check('[[{page.free?}Free]]')).toEqual([]);
		const fields = [{ name: 'free', kind: 'flag' as const, words: [{ is: true, words: { en: 'Free' } }] }];
		expect(checkTemplate('{page.free}', { fields, tagNames: [] })).toEqual([]);
	});
});

describe('pieces', () => {
	const pieces = {
		price: '[[from {page.price | money "EUR" "short"}]]',
		line: '{page.title}[[, {piece.price}]]',
		a: '{piece.b}',
		b: '{piece.a}x'
	};
	test('are used by name, in each other, through filters; a type’s own go first', () => {
		const fields = { title: 'T', price: 20 };
		expect(run('{piece.line}', { site: { pieces }, fields })).toBe('T, from €20');
		expect(run('{piece.line}', { site: { pieces }, fields: { title: 'T' } })).toBe('T');
		expect(run('{piece.price | case "upper"}', { site: { pieces }, fields })).toBe('FROM €20');
		expect(run('{piece.line}', { site: { pieces }, type: { pieces: { price: 'for free' } }, fields })).toBe(
			'T, for free'
		);
		expect(run('{piece.none ?? "x"}', { fields })).toBe('x');
	});
	test('a circle comes to nothing, and is told', () => {
		expect(run('{piece.a}', { site: { pieces } })).toBe('');
		expect(run('{piece.b ?? piece.price}', { site: { pieces }, fields: { price: 5 } })).toBe('from €5');
		const context = { fields: [], tagNames: [], pieces: new Map(Object.entries(pieces)) };
		expect(checkTemplate(pieces.a, { ...context, pieceName: 'a' }).map(({ code }) => code)).toEqual([
			'template/piece-circle'
		]);
		expect(checkTemplate(pieces.line, { ...context, pieceName: 'line' })).toEqual([]);
		expect(checkTemplate('{piece.self}', { ...context, pieceName: 'self' }).map(({ code }) => code)).toContain(
			'template/piece-circle'
		);
		expect(checkTemplate('{piece.prise}', context)[0]).toMatchObject({
			code: 'template/unknown-variable',
			nearest: 'piece.price'
		});
	});
	test('pieces that use each other again and again take no time, and are too many', () => {
		const doubled = Object.fromEntries(
			Array.from({ length: 60 }, (_, at) => [`p${at}`, at === 59 ? 'x' : `{piece.p${at + 1}}{piece.p${at + 1}}`])
		);
		const site = { pieces: doubled };
		expect(run('{piece.p0}', { site })).toBe('');
		expect(run('{piece.p53}', { site })).toBe('x'.repeat(64));
		expect(run('{piece.p52}', { site })).toBe('');
		const context = { fields: [], tagNames: [], pieces: new Map(Object.entries(doubled)) };
		expect(checkTemplate('{piece.p0}', context)).toMatchObject([{ code: 'template/too-many-pieces', expected: '200' }]);
		expect(checkTemplate('{piece.p53}{piece.p53}', context)).toMatchObject([
			{ code: 'template/too-many-pieces', start: 12 }
		]);
		// In a mesh, each leads to all that come after.
		const mesh = Object.fromEntries(
			Array.from({ length: 80 }, (_, at) => [
				`m${at}`,
				Array.from({ length: 79 - at }, (_one, more) => `{piece.m${at + 1 + more}}`)
					.join('')
					.slice(0, 1900)
			])
		);
		expect(run('{piece.m0}', { site: { pieces: mesh } })).toBe('');
	});
	test('what a piece reads of the head is read by what uses it', () => {
		const loop = { p: '{head.author}' };
		expect(run('{piece.p}', { site: { pieces: loop } })).toBe('');
		expect(compileTemplate('{piece.p}', new Map(Object.entries(loop))).reads).toEqual(['author']);
	});
	test('where a piece comes to nothing, the variables that are empty in it are named', () => {
		const { scope } = look('', { fields: { title: 'T' } });
		const compiled = compileTemplate(
			'For {piece.line2} or {piece.none}',
			new Map([
				['line2', '{piece.price}'],
				['price', '{page.price | money "EUR"}']
			])
		);
		expect(compiled.gapNames(scope)).toEqual(['page.price', 'piece.none']);
		expect(compiled.emptyNames(scope)).toEqual(['page.price', 'piece.none']);
	});
	test('another text of the same piece comes to another head', () => {
		const rule = { tag: 'description', kind: 'template' as const, template: '{piece.p}' };
		const page: Page = { path: '/', type: 'walk', state: 'live', fields: {}, rules: [rule] };
		const said = ['one', 'two'].map((p) => {
			const site = { ...SITE, pieces: { p } };
			return new Resolver({ site, types: [TYPE], pictures: [] }, NOW).evaluate(page).textOf('description');
		});
		expect(said).toEqual(['one', 'two']);
	});
});

describe('the moment', () => {
	test('a head that asks for it says so', () => {
		const isTimed = (template: string, fields: Page['fields']) => {
			const page: Page = {
				path: '/',
				type: 'walk',
				state: 'live',
				fields,
				rules: [{ tag: 'description', kind: 'template', template }]
			};
			const evaluation = new Resolver({ site: SITE, types: [TYPE], pictures: [] }, NOW).evaluate(page);
			void evaluation.textOf('description');
			return evaluation.isTimed;
		};
		expect(isTimed('{page.x | days}', { x: '2026-05-03' })).toBe(true);
		expect(isTimed('[[{page.x | past?}over]]', { x: '2026-05-03' })).toBe(true);
		expect(isTimed('{page.x | date "long"}', { x: '2026-05-03' })).toBe(false);
		expect(isTimed('{page.x | days}', {})).toBe(false);
	});
	test('what a site says alike for all pages is looked at for each where it depends on the moment', () => {
		expect(compileTemplate('{site.launch | days}').isConstant).toBe(false);
		expect(compileTemplate('{site.launch | date "long"}').isConstant).toBe(true);
		expect(compileTemplate('{words.x}{type.one}').isConstant).toBe(true);
		expect(compileTemplate('{piece.p}', new Map([['p', '{page.x}']])).isConstant).toBe(false);
	});
});

describe('templates that are changed', () => {
	test('a field is renamed wherever it is asked for', () => {
		const template = '{page.price | money page.currency}[[{page.price?}{fit 5}]] {or} [[{page.price}]]';
		expect(renameFieldInTemplate(template, 'price', 'cost')).toBe(template.replaceAll('page.price', 'page.cost'));
		expect(renameFieldInTemplate(template, 'currency', 'coin', true)).toBe(
			template.replace('page.currency', 'page.coin')
		);
		expect(variablesOf(template).map(({ name }) => name)).toEqual([
			'page.price',
			'page.currency',
			'page.price',
			'page.price'
		]);
		expect(renameFieldInRule({ tag: 'title', kind: 'template', template }, 'currency', 'coin')).toMatchObject({
			template: template.replace('page.currency', 'page.coin')
		});
	});
	test('words in a choice are found', () => {
		expect(replaceWords('[[{page.x}old]] {or} [[old {goes 1}]]', 'old', 'new')).toBe(
			'[[{page.x}new]] {or} [[new {goes 1}]]'
		);
	});
});
