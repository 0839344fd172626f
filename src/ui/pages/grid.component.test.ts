import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Grid } from './grid.svelte';

/** The rows of a table of 1,000 pages; what is asked for is noted, and can fail. */
let asked: number[] = [];
let fails = false;
beforeEach(() => {
	vi.useFakeTimers();
	[asked, fails] = [[], false];
	vi.spyOn(globalThis, 'fetch').mockImplementation(async (address) => {
		const query = new URL(String(address), 'http://here').searchParams;
		const offset = Number(query.get('row'));
		asked.push(offset);
		if (fails) return new Response('{"detail":"It is busy."}', { status: 503 });
		const rows = Array.from({ length: 100 }, (_, at) => ({ path: `/${offset + at}` }));
		return new Response(JSON.stringify({ rows, unseen: 0, ...(query.get('count') && { count: 1000 }) }));
	});
});
afterEach(() => {
	vi.useRealTimers();
	vi.restoreAllMocks();
});
const begin = async () => {
	const grid = new Grid('S', {}, { sort: 'path', down: false });
	await grid.show({}, { sort: 'path', down: false });
	return grid;
};
const settle = () => vi.advanceTimersByTimeAsync(0);

test('rows are there before they are reached, those in view first', async () => {
	const grid = await begin();
	expect(grid.count).toBe(1000);
	grid.want(170, 199);
	expect(asked).toEqual([0, 100, 200]);
	await settle();
	grid.want(180, 210);
	expect(asked).toEqual([0, 100, 200]);
	expect(grid.row(249)?.path).toBe('/249');
	// At its end nothing is asked for that is not there.
	grid.want(970, 999);
	await settle();
	expect(asked).toEqual([0, 100, 200, 900]);
});

test('what could not be fetched is said, and asked for again by itself', async () => {
	const grid = await begin();
	fails = true;
	grid.want(500, 530);
	await settle();
	expect(grid.refused).toBe('It is busy.');
	expect(grid.row(500)).toBeUndefined();
	fails = false;
	await vi.advanceTimersByTimeAsync(1100);
	expect(grid.row(500)?.path).toBe('/500');
	expect(grid.refused).toBe('');
});

test('who has left asks for nothing any more', async () => {
	const grid = await begin();
	fails = true;
	grid.want(500, 530);
	await settle();
	grid.leave();
	const before = asked.length;
	await vi.advanceTimersByTimeAsync(5000);
	expect(asked).toHaveLength(before);
});

test('again: what is in view alone, and what stands there stays until the answer comes', async () => {
	const grid = await begin();
	for (const from of [0, 300, 600]) {
		grid.want(from, from + 30);
		await settle();
	}
	asked = [];
	const done = grid.again();
	expect(grid.row(600)?.path).toBe('/600');
	await done;
	expect(asked).toEqual([600]);
	expect(grid.row(300)).toBeUndefined();
	grid.want(300, 330);
	await settle();
	expect(grid.row(300)?.path).toBe('/300');
});

test('it is not known how many there are before it was answered', async () => {
	fails = true;
	const grid = new Grid('S', {}, { sort: 'path', down: false });
	expect(grid.isCounted).toBe(false);
	await grid.show({}, { sort: 'path', down: false });
	expect([grid.isCounted, grid.refused]).toEqual([false, 'It is busy.']);
	grid.leave();
});
