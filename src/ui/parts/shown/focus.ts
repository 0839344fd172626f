/** Nothing has the focus: what had it is gone. */
const isLost = () => document.activeElement === null || document.activeElement === document.body;
const frame = () => new Promise(requestAnimationFrame);
/** So many frames what comes in place of what went is waited for. */
const MOST = 60;

let turn = 0;
/**
 * Sees to it that the focus is not lost with what had it: it goes to the first element that fits, as soon as one stands there
 * and no dialog is open, and into view. Where it is not lost, nothing happens; of several calls the last one counts.
 */
export async function keepFocus(selector: string): Promise<void> {
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
		const found = document.querySelector<HTMLElement>(selector);
		if (!found) continue;
		found.focus({ preventScroll: true });
		found.scrollIntoView({ block: 'nearest' });
		return;
	}
}
