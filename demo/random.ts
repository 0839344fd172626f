/** Numbers from 0 to 1 that are the same for the same seed (mulberry32), so that what is drawn or made never changes. */
export function seeded(seed: string): () => number {
	let state = [...seed].reduce((sum, char) => Math.imul(sum ^ (char.codePointAt(0) ?? 0), 16777619), 2166136261);
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
		mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
		return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
	};
}
