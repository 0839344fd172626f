/** A number of 53 bits for a text: texts themselves would fill the memory. Two that share one are taken for the same. */
export function hashOf(text: string): number {
	let [a, b] = [0xdeadbeef, 0x41c6ce57];
	for (let at = 0; at < text.length; at++) {
		const unit = text.charCodeAt(at);
		a = Math.imul(a ^ unit, 2_654_435_761);
		b = Math.imul(b ^ unit, 1_597_334_677);
	}
	a = Math.imul(a ^ (a >>> 16), 2_246_822_507) ^ Math.imul(b ^ (b >>> 13), 3_266_489_909);
	b = Math.imul(b ^ (b >>> 16), 2_246_822_507) ^ Math.imul(a ^ (a >>> 13), 3_266_489_909);
	return 4_294_967_296 * (2_097_151 & b) + (a >>> 0);
}

/** Which texts of many come more than once, each by its number; sixteen bytes for each that comes. Ask when all have come. */
export class Repeats {
	private readonly hashes: number[] = [];
	private readonly lengths: number[] = [];

	/** `key` is what makes it the same as others; of an empty one, nothing is the same. */
	add(text: string, key = text) {
		this.hashes.push(key === '' ? Number.NaN : hashOf(key));
		this.lengths.push(text.length);
	}

	/** The numbers of those that come again, and of those that come once. */
	parted(): { readonly again: readonly number[]; readonly once: readonly number[] } {
		const counts = new Map<number, number>();
		for (const hash of this.hashes) counts.set(hash, (counts.get(hash) ?? 0) + 1);
		const [again, once]: [number[], number[]] = [[], []];
		for (const [at, hash] of this.hashes.entries())
			if (!Number.isNaN(hash)) (counts.get(hash) === 1 ? once : again).push(at);
		return { again, once };
	}

	/** Of some, the shortest, in their order where they are as long. */
	shortest(numbers: readonly number[], most: number): number[] {
		return numbers.toSorted((a, b) => this.lengths[a]! - this.lengths[b]! || a - b).slice(0, most);
	}
}
