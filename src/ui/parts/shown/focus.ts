/** Nothing has the focus: what had it is gone. */
const isLost = () => document.activeElement === null || document.activeElement === document.body;
const frame = () => new Promise(requestAnimationFrame);
/** So many frames the first of several places is waited for, before another will do. */
const FIRST = 12;
/** So many frames what comes in place of what went is waited for. */
const MOST = 60;

let turn = 0;
/**
 * Sees to it that the focus is not lost with what had it: it goes to the first of some places that is there, once no dialog is
 * open, and into view. Where it is not lost, nothing happens; of several calls the last one counts.
 */
export async function keepFocus(...places: readonly string[]): Promise<void> {
	const mine = ++turn;
	for (let tries = 0; tries < MOST; tries++) {
		await frame();
		if (mine !== turn) return;
		if (document.querySelector('[role=dialog], [role=alertdialog]')) continue;
		if (!isLost()) {
			// A dialog that closes gives it back a moment later.
			if (tries > 3) return;
			continue;
		}
		const found = places
			.slice(0, tries < FIRST ? 1 : places.length)
			.map((place) => document.querySelector<HTMLElement>(place))
			.find((one) => one !== null);
		if (!found) continue;
		found.focus({ preventScroll: true });
		found.scrollIntoView({ block: 'nearest' });
		return;
	}
}
