/** Whether texts have every word that somebody typed, in any case and order; of nothing typed all have it. */
export function hasTyped(typed: string, ...texts: readonly (string | undefined)[]): boolean {
	const all = texts.join(' ').toLowerCase();
	const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
	return words.every((word) => all.includes(word));
}
