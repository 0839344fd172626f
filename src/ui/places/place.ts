/** Where one was in a site: in this browser, so that opening it goes on from there. */
const keyOf = (site: string) => `kephalon place ${site}`;

export function rememberPlace(site: string, address: string) {
	try {
		localStorage.setItem(keyOf(site), address);
	} catch {
		// A browser that stores nothing: the site opens at its overview.
	}
}

/** An address within Kephalon, or undefined where one was nowhere yet. */
export function placeIn(site: string): string | undefined {
	try {
		const address = localStorage.getItem(keyOf(site)) ?? '';
		return /^\/[a-z]/.test(address) ? address : undefined;
	} catch {
		return undefined;
	}
}

/** How many edits of a site wait in this browser to be kept. */
export function countWaiting(site: string): number {
	const count = (text: string | null) => Object.keys(JSON.parse(text ?? '{}') as object).length;
	try {
		const key = `kephalon drafts ${site}`;
		return Math.max(count(sessionStorage.getItem(key)), count(localStorage.getItem(key)));
	} catch {
		return 0;
	}
}
