import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { LiveRecords, type Known } from './liveRecords';
import type { RecordAnswer, RecordTask } from './readRecord';

/** How long records are kept, by what their answers say, and what goes out while their source is away. */
let asked: Omit<RecordTask, 'inside'>[];
let answers: (RecordAnswer | Promise<RecordAnswer> | Error)[];
let told: (readonly [string, string | undefined])[];
let records: LiveRecords;
let isNoted = true;
const began = Date.parse('2026-03-01T12:00:00Z');
beforeEach(() => {
	vi.useFakeTimers({ toFake: ['Date'], now: began });
	[asked, answers, told, isNoted] = [[], [], [], true];
	records = new LiveRecords(
		(task) => {
			asked.push(task);
			const next = answers.shift() ?? new Error('Nothing more is answered.');
			return next instanceof Error ? Promise.reject(next) : Promise.resolve(next);
		},
		(source, why) => {
			told.push([source, why]);
			return isNoted;
		}
	);
});
afterEach(() => vi.useRealTimers());

const there = (title: string, control?: string, more: object = {}): RecordAnswer => ({
	status: 200,
	headers: { ...(control !== undefined && { 'cache-control': control }), ...more },
	fields: { title }
});
const away: RecordAnswer = { headers: {}, why: 'Nobody listens there.' };
const get = (id = '7', source = 'boats') => records.get({ source, address: `https://data.example/${id}` });
const after = (seconds: number) => vi.setSystemTime(began + seconds * 1000);
const titleOf = (known: Known) =>
	known.is === 'there' ? `${String(known.fields.title)}${known.isLate ? ', late' : ''}` : known.is;

describe('how long a record is kept', () => {
	test.each([
		['max-age=60', 59, false],
		['max-age=60', 61, true],
		['s-maxage=10, max-age=60', 11, true],
		['max-age=60, private', 1, true],
		['no-store', 0, true],
		['no-cache', 1, true],
		[undefined, 1, true]
	])('%s after %d seconds: asked again %s', async (control, seconds, again) => {
		answers = [there('One', control), there('Two', control)];
		expect(titleOf(await get())).toBe('One');
		after(seconds);
		expect(titleOf(await get())).toBe(again ? 'Two' : 'One');
		expect(asked).toHaveLength(again ? 2 : 1);
	});
	test('its age elsewhere counts', async () => {
		answers = [there('One', 'max-age=60', { age: '50' }), there('Two')];
		await get();
		after(11);
		expect(titleOf(await get())).toBe('Two');
	});
	test('what is known is asked for by its tag, and 304 lets it go on', async () => {
		answers = [
			there('One', 'max-age=5', { etag: '"a"' }),
			{ status: 304, headers: { 'cache-control': 'max-age=100', etag: '"a"' } }
		];
		await get();
		after(6);
		expect(titleOf(await get())).toBe('One');
		expect(asked[1]!.known).toEqual({ 'if-none-match': '"a"' });
		after(100);
		expect(titleOf(await get())).toBe('One');
		expect(asked).toHaveLength(2);
	});
	test('304 for what is not known is no answer', async () => {
		answers = [{ status: 304, headers: {} }];
		expect((await get()).is).toBe('away');
	});
	test('late, it goes out while another is asked for, where it says so', async () => {
		answers = [there('One', 'max-age=5, stale-while-revalidate=20'), there('Two', 'max-age=5'), there('Three')];
		await get();
		after(6);
		expect(titleOf(await get())).toBe('One, late');
		await vi.waitFor(async () => expect(titleOf(await get())).toBe('Two'));
		expect(asked).toHaveLength(2);
		after(30);
		expect(titleOf(await get())).toBe('Three');
	});
	test('many at once ask once', async () => {
		answers = [there('One', 'max-age=5')];
		const all = await Promise.all(Array.from({ length: 50 }, () => get()));
		expect([asked.length, new Set(all.map(titleOf))]).toEqual([1, new Set(['One'])]);
	});
	test('another mapping is another record', async () => {
		answers = [there('One', 'max-age=60'), there('Two', 'max-age=60')];
		await get();
		const other = await records.get({
			source: 'boats',
			address: 'https://data.example/7',
			mapping: { title: '/name' }
		});
		expect(titleOf(other)).toBe('Two');
		expect(asked[1]!.mapping).toEqual({ title: '/name' });
	});
});

describe('a record that is gone', () => {
	test.each([404, 410])('%d is told, kept as long as it says, and nothing old comes back', async (status) => {
		answers = [there('One', 'max-age=5'), { status, headers: { 'cache-control': 'max-age=10' } }, away];
		await get();
		after(6);
		expect((await get()).is).toBe('gone');
		after(15);
		expect((await get()).is).toBe('gone');
		expect(asked).toHaveLength(2);
		after(17);
		// The source is away: it was gone, and stays so.
		expect((await get()).is).toBe('gone');
		expect(told).toEqual([
			['boats', undefined],
			['boats', 'Nobody listens there.']
		]);
	});
});

describe('while a source is away', () => {
	test.each([
		['nobody listens', away],
		['500', { status: 500, headers: {} }],
		['no JSON', { headers: {}, why: 'What it answers is no JSON.' }],
		['403', { status: 403, headers: {} }],
		['the thread has ended', new Error('terminated')]
	])('%s: the last good record goes out, and it is told once', async (_name, answer) => {
		answers = [there('One', 'max-age=5'), answer];
		await get();
		after(6);
		expect(titleOf(await get())).toBe('One, late');
		expect(titleOf(await get())).toBe('One, late');
		// What was never known cannot go out, and is not asked for now.
		expect(await get('8')).toMatchObject({ is: 'away' });
		expect([asked.length, told.length]).toEqual([2, 2]);
	});
	test.each(['must-revalidate', 'proxy-revalidate', 'no-cache'])('not where it says %s', async (word) => {
		answers = [there('One', `max-age=5, ${word}`), away];
		await get();
		after(6);
		expect((await get()).is).toBe('away');
	});
	test('it is asked after a second, then more and more seldom, by one request at a time; that it answers is told', async () => {
		answers = [away, away, away, there('One')];
		await get();
		after(0.9);
		await get();
		expect(asked).toHaveLength(1);
		after(1.1);
		const [first, second] = await Promise.all([get(), get('8')]);
		expect([first.is, second.is, asked.length]).toEqual(['away', 'away', 2]);
		after(3);
		await get();
		expect(asked).toHaveLength(2);
		after(3.2);
		await get();
		expect(asked).toHaveLength(3);
		after(8);
		expect(titleOf(await get())).toBe('One');
		expect(told).toEqual([
			['boats', 'Nobody listens there.'],
			['boats', undefined]
		]);
	});
	test('that it answers is told once, whatever an earlier process noted; what could not be noted is told again', async () => {
		answers = [there('One'), there('Two'), away, away, there('Three')];
		await get();
		await get();
		expect(told).toEqual([['boats', undefined]]);
		isNoted = false;
		await get();
		after(1.1);
		await get();
		isNoted = true;
		after(4);
		await get();
		expect(told.map(([, why]) => why !== undefined)).toEqual([false, true, true]);
	});
	test('others are asked as ever', async () => {
		answers = [away, there('One')];
		await get('7', 'boats');
		expect(titleOf(await get('9', 'birds'))).toBe('One');
	});
});
