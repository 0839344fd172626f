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

/** Which texts come more than once; eight bytes for each that comes. Ask when all have come. */
export class Repeats {
	private hashes = new Float64Array(1024);
	private count = 0;
	private isSorted = true;

	add(text: string) {
		if (this.count === this.hashes.length) {
			const larger = new Float64Array(2 * this.count);
			larger.set(this.hashes);
			this.hashes = larger;
		}
		this.hashes[this.count++] = hashOf(text);
		this.isSorted = false;
	}

	has(text: string): boolean {
		if (!this.isSorted) this.hashes.subarray(0, this.count).sort();
		this.isSorted = true;
		const hash = hashOf(text);
		let [low, high] = [0, this.count];
		while (low < high) {
			const middle = (low + high) >>> 1;
			if ((this.hashes[middle] as number) < hash) low = middle + 1;
			else high = middle;
		}
		return low + 1 < this.count && this.hashes[low + 1] === hash;
	}
}
