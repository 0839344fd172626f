/** So many addresses are remembered; then those that have asked least lately are forgotten. */
const MOST_KNOWN = 20_000;
/** Whether an address is this machine's own. */
export const isHere = (address: string) => /^127\.|^::1$/.test(address);

interface Known {
	/** How many requests are left at the moment. */
	left: number;
	/** When that was so, in milliseconds. */
	at: number;
}

/**
 * How many requests an address may send: so many a second, and twice as many at once. What comes from this machine, such as a
 * server that puts heads into pages, is not counted.
 */
export class Meter {
	private readonly known = new Map<string, Known>();

	/** `perSecond`: 0 counts nobody. */
	constructor(private readonly perSecond: number) {}

	/** Whether an address has a request left, which it has no more then; `now` in milliseconds. */
	takes(address: string, now = performance.now()): boolean {
		if (this.perSecond === 0 || isHere(address)) return true;
		const most = this.perSecond * 2;
		const one = this.known.get(address) ?? { left: most, at: now };
		if (!this.known.delete(address) && this.known.size >= MOST_KNOWN) this.forget();
		this.known.set(address, one);
		one.left = Math.min(most, one.left + ((now - one.at) / 1000) * this.perSecond);
		one.at = now;
		if (one.left < 1) return false;
		one.left--;
		return true;
	}

	/** How many requests an address has left, and in how many seconds it has all of them again. */
	left(address: string): { readonly requests: number; readonly seconds: number } {
		const most = this.perSecond * 2;
		const left = Math.floor(this.known.get(address)?.left ?? most);
		return { requests: left, seconds: Math.ceil((most - left) / this.perSecond) };
	}

	/** The first half: a map keeps the order in which they were put. */
	private forget() {
		let count = 0;
		for (const address of this.known.keys()) {
			if (count++ >= MOST_KNOWN / 2) return;
			this.known.delete(address);
		}
	}
}
