/** Nothing has the focus: what had it is gone. */
const isLost = () => document.activeElement === null || document.activeElement === document.body;
const frame = () => new Promise(requestAnimationFrame);
/** So many frames the first of several places is waited for, before another will do. */
const FIRST = 12;
/** So many frames what comes in place of what went is waited for. */
const MOST = 60;

let turn = 0;
/**
 * Brings the focus to the first of some places that is there, once no dialog is open, and into view; of several calls the last one
 * counts. `isWanted` is asked when it comes to it.
 */
async function bring(places: readonly string[], isWanted: () => boolean): Promise<void> {
	const mine = ++turn;
	for (let tries = 0; tries < MOST; tries++) {
		await frame();
		if (mine !== turn) return;
		if (document.querySelector('[role=dialog], [role=alertdialog]')) continue;
		if (!isWanted()) {
			// A dialog that closes gives the focus back a moment later.
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

/** Sees to it that the focus is not lost with what had it. Where it is not lost, nothing happens. */
export const keepFocus = (...places: readonly string[]) => bring(places, isLost);

/** Takes it there from wherever it is: somebody asked for that by its name or its key. */
export const takeFocus = (...places: readonly string[]) => bring(places, () => true);
