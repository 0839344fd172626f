import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { compileTemplate, type Scope } from '../compile';
import { FILTERS } from '../filters';
import { toText, type Value } from '../values';

const scopeOf = (fields: Record<string, Value>, more: Partial<Scope> = {}): Scope => ({
	...{ language: 'en', separator: ' · ', now: '2026-05-01T10:00:00Z', timeZone: undefined, said: undefined },
	fields: fields as Scope['fields'],
	pageValue: () => undefined,
	siteValue: () => undefined,
	typeValue: () => undefined,
	listingValue: () => undefined,
	headValue: () => '',
	wordValue: () => undefined,
	partOfPage: () => undefined,
	changesAt: () => undefined,
	moment: '2026-05-01T10:00:00Z',
	...more
});

/** What a filter call makes of a value. */
const made = (value: Value, call: string, language = 'en', more: Partial<Scope> = {}) => {
	const compiled = compileTemplate(`{page.x | ${call}}`);
	expect(compiled.fault, call).toBeUndefined();
	const out = compiled.value!(scopeOf({ x: value }, { language, ...more }));
	return out === true ? 'yes' : toText(out);
};

describe('each filter does what its example says', () => {
	test.each(Object.entries(FILTERS).map(([name, { example }]) => [name, ...example] as const))(
		'%s: %j %s',
		(name, value, call, gives) => {
			expect(call.split(' ')[0]).toBe(name);
			expect(made(value, call)).toBe(gives);
		}
	);

	test('and says in one sentence what that is', () => {
		for (const [name, { purpose }] of Object.entries(FILTERS)) expect(purpose, name).toMatch(/^[A-Z].+[^.]\.$/);
	});
});

/** The vectors of conformance/language/, which another implementation can be held to. */
const read = <T>(name: string) =>
	(
		JSON.parse(readFileSync(new URL(`../../../../conformance/language/${name}.json`, import.meta.url), 'utf8')) as {
			vectors: T[];
		}
	).vectors;

describe('by language', () => {
	test.each(read<[call: string, value: Value, language: string, gives: string]>('filters'))(
		'%s of %j in %s is %s',
		(call, value, language, gives) => {
			expect(made(value, call, language)).toBe(gives);
		}
	);
});

describe('what is asked', () => {
	test.each(read<[value: Value, call: string, is: boolean, timeZone?: string]>('questions'))(
		'%j | %s? %s',
		(value, call, is, timeZone) => {
			const more = { timeZone };
			expect(made(value, call, 'en', more)).toBe(is ? 'yes' : '');
			expect(compileTemplate(`[[{page.x | ${call}?}so]] {or} [[no]]`).run(scopeOf({ x: value }, more))).toBe(
				is ? 'so' : 'no'
			);
		}
	);

	test('days and zones are those of the site', () => {
		// Late in the evening of the day before in New York.
		const late = { now: '2026-05-01T02:00:00Z', timeZone: 'America/New_York' };
		expect(made('2026-05-01', 'days', 'en', late)).toBe('1');
		expect(made('2026-05-01T01:00:00Z', 'days', 'en', late)).toBe('0');
		expect(made('2026-05-01T10:00', 'zone "Asia/Tokyo" | date "d MMM HH:mm"', 'en', { timeZone: 'Europe/Paris' })).toBe(
			'1 May 17:00'
		);
		expect(made('2026-05-01', 'zone "Asia/Tokyo" | date "d MMM"')).toBe('1 May');
	});
});

/** The processor's own time (milliseconds) of the shortest of three runs: a busy machine changes nothing. */
const spent = (work: () => unknown) =>
	Math.min(
		...Array.from({ length: 3 }, () => {
			const before = process.cpuUsage();
			work();
			const { user, system } = process.cpuUsage(before);
			return (user + system) / 1000;
		})
	);
const items = (size: number) => Array.from({ length: size }, (_, at) => `x${at % 7}`);

test.each<[call: string, make: (size: number) => Value]>([
	['typeset', (size) => "'a ".repeat(size)],
	['unmark', (size) => '[a]('.repeat(size)],
	['unmark', (size) => '*_'.repeat(size)],
	['unmark', (size) => '<a '.repeat(size)],
	['sentence', (size) => 'a. '.repeat(size)],
	['stop', (size) => '.'.repeat(size * 4)],
	['initials', (size) => 'x '.repeat(size)],
	['unless "b"', (size) => 'a-'.repeat(size)],
	['within 20000', items],
	['within 9000 "and {n} more"', items],
	['sorted | unique | some 3', items]
])('%s takes no more than four times as long for four times as much', (call, make) => {
	const [small, large] = [5_000, 20_000].map((size) => {
		const value = make(size);
		return spent(() => made(value, call));
	}) as [number, number];
	// What grows with the square takes sixteen times as long; below the least, nothing is measured but noise.
	expect(large < 60 ? 1 : large / Math.max(small, 15)).toBeLessThan(10);
});

describe('arguments that are variables', () => {
	const run = (template: string, fields: Record<string, Value>) => compileTemplate(template).run(scopeOf(fields));

	test('a currency, a number, a text', () => {
		expect(run('{page.price | money page.currency}', { price: 20, currency: 'EUR' })).toBe('€20.00');
		expect(run('{page.title | clip page.room}', { title: 'A long title of a page', room: 10 })).toBe('A long…');
		expect(run('{page.title | without page.brand}', { title: 'Acme Mill', brand: 'Acme ' })).toBe('Mill');
		expect(run('{page.low | to page.high | money page.currency "short"}', { low: 5, high: 9, currency: 'GBP' })).toBe(
			'£5 – £9'
		);
	});

	test('one that is missing or wrong leaves nothing; one that may be missing is', () => {
		for (const currency of ['', 'euro', undefined, 5])
			expect(run('{page.price | money page.currency}', { price: 20, currency })).toBe('');
		for (const room of [0, -3, 'x', 1.5, undefined])
			expect(run('{page.title | clip page.room}', { title: 'T', room })).toBe('');
		expect(run('{page.price | to page.high | money "EUR"}', { price: 20 })).toBe('€20.00');
		expect(run('{page.list | join page.between}', { list: ['a', 'b'] })).toBe('a and b');
		expect(run('{page.starts | to page.ends | date "d MMM"}', { starts: '2026-05-03', ends: '' })).toBe('3 May');
	});
});

describe('when what the clock says comes to something else', () => {
	const NOW = '2026-05-01T10:00:00+02:00';
	/** The moments that filters say on their way, in a zone two hours ahead. */
	const changes = (value: Value, call: string, now = NOW) => {
		const told: string[] = [];
		const changesAt = (moment: number) => void told.push(new Date(moment).toISOString());
		made(value, call, 'en', { now, timeZone: 'Europe/Paris', changesAt });
		return told;
	};
	const TOMORROW = '2026-05-01T22:00:00.000Z';
	test.each([
		['2026-05-03', 'days', [TOMORROW]],
		['2026-05-03', 'away', [TOMORROW]],
		['2020-01-01', 'days', [TOMORROW]],
		['2026-05-01', 'past', [TOMORROW]],
		['2026-04-30', 'past', []],
		['2026-05-01T18:00', 'past', ['2026-05-01T16:00:00.000Z']],
		['2026-05-01T18:00Z', 'coming', ['2026-05-01T18:00:00.000Z']],
		['2026-05-01', 'coming', []],
		['2026-05-03', 'coming', ['2026-05-02T22:00:00.000Z']],
		['2026-05-01', 'today', [TOMORROW]],
		['2026-05-03', 'today', ['2026-05-02T22:00:00.000Z']],
		['2026-04-30', 'today', []],
		['2026-04-30', 'to "2026-05-02" | today', ['2026-05-02T22:00:00.000Z']],
		['2026-04-28', 'to "2026-05-01" | past', [TOMORROW]],
		['2026-05-03', 'date "long"', []],
		['nonsense', 'days', []],
		['nonsense', 'past', []]
	] as const)('%s | %s', (value, call, wanted) => {
		expect(changes(value, call)).toEqual(wanted);
	});

	test('and it is so: a moment before it says the same, and from then on it may say another thing', () => {
		const dates = [
			'2026-04-29',
			'2026-05-01',
			'2026-05-01T18:30',
			'2026-05-04T02:00Z',
			'2026-10-25',
			'2026-10-25T02:30'
		];
		for (const date of dates)
			for (const call of ['days', 'away', 'past', 'coming', 'today']) {
				let now = new Date('2026-04-28T12:00:00Z').getTime();
				for (let step = 0; step < 12; step++) {
					let next = Infinity;
					const at = (moment: number) =>
						made(date, call, 'en', {
							...{ now: new Date(moment).toISOString(), timeZone: 'Europe/Paris' },
							changesAt: (change) => (next = Math.min(next, change))
						});
					const said = at(now);
					if (next === Infinity) break;
					expect(next).toBeGreaterThan(now);
					const then = next;
					expect([date, call, at(then - 1000)]).toEqual([date, call, said]);
					now = then;
				}
			}
	});
});
