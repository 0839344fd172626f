import { afterEach, expect, test, vi } from 'vitest';
import { BenchRelease } from './release.svelte';

/** What is said of the next release: never that nothing differs before every page was looked at. */
afterEach(() => vi.restoreAllMocks());
const release = { number: 3, created: '2026-01-01T00:00:00Z', pages: 9 };
const same = { release, changed: 0, added: 0, removed: 0, paths: [], unseen: 0, all: 9 };
let waiting = 0;
function begun(...answers: readonly (object | number)[]) {
	let at = 0;
	vi.spyOn(globalThis, 'fetch').mockImplementation(async () => {
		const answer = answers[Math.min(at++, answers.length - 1)]!;
		return typeof answer === 'number'
			? new Response('{"detail":"It is busy."}', { status: answer })
			: new Response(JSON.stringify(answer));
	});
	waiting = 0;
	return { made: new BenchRelease('S', () => waiting), asked: () => at };
}

test('before it was compared, and where that failed, it is not known', async () => {
	const { made } = begun(503);
	expect(made.whyNot).toBe('The working copy is still being compared with the release.');
	await made.refresh();
	expect([made.pending, made.whyNot]).toEqual([undefined, 'It is busy.']);
});
test('half looked at, it is asked on; only the whole says that nothing differs', async () => {
	const { made, asked } = begun({ ...same, unseen: 5 }, { ...same, unseen: 1 }, same);
	await made.refresh();
	expect(asked()).toBe(3);
	expect(made.whyNot).toBe('Nothing differs from release 3.');
	made.pending = { ...same, unseen: 5 };
	expect(made.whyNot).toBeUndefined();
});
test('what was known is not known any more when asking fails', async () => {
	const { made } = begun(same, 503);
	await made.refresh();
	expect(made.whyNot).toBe('Nothing differs from release 3.');
	await made.refresh();
	expect([made.pending, made.unknown]).toEqual([undefined, 'It is busy.']);
});
test('edits that wait, and a first release', async () => {
	const { made } = begun({ ...same, release: null, added: 9 });
	await made.refresh();
	expect(made.whyNot).toBeUndefined();
	waiting = 1;
	expect(made.whyNot).toMatch(/^One edit waits to be kept/);
	waiting = 2;
	expect(made.whyNot).toMatch(/^2 edits wait to be kept/);
});
test('one that is refused, stopped or broken off is not said to be out', async () => {
	const lines = (text: string, status = 200) =>
		vi.spyOn(globalThis, 'fetch').mockImplementation(async () => new Response(text, { status }));
	const made = new BenchRelease('S', () => 0);
	lines('{"detail":"4 pages would go.","removes":4}', 409);
	expect(await made.make()).toEqual({
		isMade: false,
		says: '4 pages would go. The room of releases asks for it.'
	});
	lines('{"done":4,"all":9}\n');
	expect(await made.make()).toMatchObject({ isMade: false });
	lines('{"done":4,"all":9}\n{"refused":"It is full."}\n');
	expect(await made.make()).toEqual({ isMade: false, says: 'It is full.' });
	lines('{"done":9,"all":9}\n{"number":4,"pages":1,"faulty":[]}\n');
	expect(await made.make()).toEqual({ isMade: true, says: 'Release 4 is out: 1 page.' });
	expect(made.making).toBeUndefined();
});
