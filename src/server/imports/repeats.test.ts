import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hashOf, Repeats } from './repeats';

describe('what comes more than once', () => {
	it('is known whatever comes, in whatever order, and however much', () => {
		fc.assert(
			fc.property(fc.array(fc.string({ maxLength: 2 }), { maxLength: 3000 }), (texts) => {
				const repeats = new Repeats();
				for (const text of texts) repeats.add(text);
				const counts = new Map<string, number>();
				for (const text of texts) counts.set(text, (counts.get(text) ?? 0) + 1);
				const numbers = (fits: (count: number) => boolean) =>
					texts.flatMap((text, at) => (text !== '' && fits(counts.get(text)!) ? [at] : []));
				expect(repeats.parted()).toEqual({ again: numbers((of) => of > 1), once: numbers((of) => of === 1) });
			}),
			{ numRuns: 50 }
		);
	});
	it('goes by the key, and gives the shortest texts first, in their order', () => {
		const repeats = new Repeats();
		for (const [text, key] of [
			['A b.', 'ab'],
			['ab', 'ab'],
			['?', ''],
			['c', 'c'],
			['A, b', 'ab']
		] as const)
			repeats.add(text, key);
		const { again, once } = repeats.parted();
		expect([again, once]).toEqual([[0, 1, 4], [3]]);
		expect(repeats.shortest(again, 2)).toEqual([1, 0]);
		expect(repeats.shortest([], 2)).toEqual([]);
	});
	it('gives 200,000 texts that differ in one letter as many numbers, all whole and safe', () => {
		const hashes = new Set(Array.from({ length: 200_000 }, (_, at) => hashOf(`Heron ${at}`)));
		expect(hashes.size).toBe(200_000);
		for (const hash of hashes) if (!Number.isSafeInteger(hash) || hash < 0) throw new Error(`${hash}`);
	});
});
