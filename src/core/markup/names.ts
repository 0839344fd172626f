/** Names are few and stand on page after page; so many are remembered at the most. */
const MOST_NAMES = 5000;

/** A test of what elements are called by: what it said of a name is remembered. */
export function ofNames(test: (names: string) => boolean): (names: string | undefined) => boolean {
	const known = new Map<string, boolean>();
	return (names) => {
		if (names === undefined || names === '') return false;
		let said = known.get(names);
		if (said === undefined) {
			if (known.size >= MOST_NAMES) known.clear();
			known.set(names, (said = test(names)));
		}
		return said;
	};
}
