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
				for (const [text, count] of counts) expect(repeats.has(text), text).toBe(count > 1);
				expect(repeats.has('never')).toBe(false);
			}),
			{ numRuns: 50 }
		);
	});
	it('can be asked, be added to, and asked again', () => {
		const repeats = new Repeats();
		expect(repeats.has('a')).toBe(false);
		repeats.add('a');
		expect(repeats.has('a')).toBe(false);
		for (let at = 0; at < 5000; at++) repeats.add(`${at}`);
		repeats.add('a');
		expect(repeats.has('a')).toBe(true);
		expect(repeats.has('4999')).toBe(false);
	});
	it('gives 200,000 texts that differ in one letter as many numbers, all whole and safe', () => {
		const hashes = new Set(Array.from({ length: 200_000 }, (_, at) => hashOf(`Heron ${at}`)));
		expect(hashes.size).toBe(200_000);
		for (const hash of hashes) if (!Number.isSafeInteger(hash) || hash < 0) throw new Error(`${hash}`);
	});
});
