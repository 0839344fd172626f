import { afterEach, expect, test, vi } from 'vitest';
import { Findings } from './looking.svelte';

/** What is said of findings, from what was looked at: nothing yet, half, all, or a look that failed. */
afterEach(() => vi.restoreAllMocks());
const group = { code: 'gap', tag: 'title', weight: 5, pages: 3, says: 'A gap', mend: 'Mend it.' };
const spread = { matrix: [], widths: [] };
const counted = (groups: readonly object[], unknownPictures = 0) => ({ groups, spread, unknownPictures });

/** Answers one after the other; the last one stays. */
function answering(...answers: readonly (object | number)[]) {
	const asked: string[] = [];
	vi.spyOn(globalThis, 'fetch').mockImplementation(async (address) => {
		const answer = answers[Math.min(asked.length, answers.length - 1)]!;
		asked.push(String(address));
		return typeof answer === 'number'
			? new Response('{"detail":"The database is locked."}', { status: answer })
			: new Response(JSON.stringify({ aside: [], ...answer }));
	});
	return asked;
}
async function looked(...answers: readonly (object | number)[]) {
	answering(...answers);
	const findings = new Findings('S');
	await findings.look();
	return findings;
}

test('before anything was looked at nothing is said to be right', () => {
	const findings = new Findings('S');
	expect([findings.isNow, findings.nothing, findings.groups, findings.state]).toEqual([
		...[false, undefined, undefined, 'Counting …']
	]);
});
test('half looked at: the last count, told as that, and asked on until it is whole', async () => {
	const half = { counted: counted([]), isNow: false, unseen: 40, all: 1000 };
	const asked = answering(
		half,
		{ ...half, counted: null },
		{ counted: counted([]), isNow: true, unseen: 0, all: 1000 }
	);
	const findings = new Findings('S');
	await findings.look();
	expect(asked.map((address) => address.includes('wait=1'))).toEqual([false, true, true]);
	expect(findings.nothing).toBe('Nothing is wrong or weak.');
});
test('half looked at, it says how many are not yet, and never that nothing is wrong', async () => {
	answering({ counted: counted([]), isNow: false, unseen: 40, all: 1000 }, 500);
	const findings = new Findings('S');
	await findings.look();
	// The second question failed: what was known stays, and is not said to be how it stands.
	expect(findings.nothing).toBeUndefined();
	expect(findings.isNow).toBe(false);
	expect(findings.state).toBe('It could not be counted: The database is locked.');
	findings.refused = undefined;
	expect(findings.state).toBe('As counted before the last edits: 40 pages of 1,000 are yet to be looked at …');
	expect(findings.nothing).toBeUndefined();
});
test('a count that failed is no count', async () => {
	const findings = await looked({ counted: counted([]), isNow: false, unseen: 0, all: 9, failed: 'It failed.' });
	expect([findings.isNow, findings.nothing]).toEqual([false, undefined]);
	expect(findings.state).toBe('It could not be counted: It failed.');
});
test('all looked at: nothing is wrong; with no page, or pictures that nobody looked at, that is said', async () => {
	const whole = { isNow: true, unseen: 0, all: 9 };
	const said = async (more: object) => (await looked({ ...whole, ...more })).nothing;
	expect(await said({ counted: counted([]) })).toBe('Nothing is wrong or weak.');
	expect(await said({ counted: counted([]), all: 0 })).toBe('There is no page to look at.');
	expect(await said({ counted: counted([], 1) })).toBe(
		'Nothing is wrong or weak in what pages say; one picture was never looked at.'
	);
	expect(await said({ counted: counted([], 1200) })).toContain('1,200 pictures were never looked at.');
	expect(await said({ counted: counted([group]) })).toBeUndefined();
});
test('who has left asks no more', async () => {
	const asked = answering({ counted: null, isNow: false, unseen: 4, all: 9 });
	const findings = new Findings('S');
	const looking = findings.look();
	findings.leave();
	await looking;
	expect(asked).toHaveLength(1);
	expect(findings.told).toBeUndefined();
});
