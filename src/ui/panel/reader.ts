import { READERS } from '$core';

const KEY = 'kephalon panel reader';

/** The reader whose card one looks at first: the one chosen last, in this browser. */
export function chosenReader(): string {
	const first = READERS[0]!.id;
	try {
		const kept = localStorage.getItem(KEY);
		return READERS.some(({ id }) => id === kept) ? kept! : first;
	} catch {
		return first;
	}
}

export function keepReader(id: string) {
	try {
		localStorage.setItem(KEY, id);
	} catch {
		// A browser that stores nothing for pages of others: the choice lives as long as the panel.
	}
}
