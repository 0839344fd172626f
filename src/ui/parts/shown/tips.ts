/** What is said beside something: where, and in which words. */
export interface Tip {
	readonly at: HTMLElement;
	readonly says: string;
}

/** What is cut off where there is no room for it. */
const CUT = '.truncate, .text-ellipsis';
const isCut = (one: HTMLElement) => one.scrollWidth > one.clientWidth;
const within = (one: HTMLElement, selector: string, fits: (found: HTMLElement) => boolean = () => true) =>
	[...one.querySelectorAll<HTMLElement>(selector)].find(fits);

function tipAt(one: HTMLElement): Tip | undefined {
	const marked = one.closest<HTMLElement>('[data-tip]');
	// What stands there already is not said twice.
	if (marked?.dataset.tip && (marked.textContent.trim() !== marked.dataset.tip || isCut(marked)))
		return { at: marked, says: marked.dataset.tip };
	const cut = one.closest<HTMLElement>(CUT);
	const text = cut?.textContent.trim();
	return cut && text && isCut(cut) ? { at: cut, says: text } : undefined;
}

/** What an element under the pointer has to say: of itself (`data-tip`), or its text where that is cut off. */
export const tipUnder = (target: EventTarget | null): Tip | undefined =>
	target instanceof HTMLElement ? tipAt(target) : undefined;

/** The same for one that has the focus; what stands in it cannot have it. */
export function tipOfFocused(target: EventTarget | null): Tip | undefined {
	if (!(target instanceof HTMLElement)) return undefined;
	const own = tipAt(target);
	// The whole of a table or a list is no one thing.
	if (own || !target.matches('a, button, [role=combobox]')) return own;
	const inner = within(target, '[data-tip]') ?? within(target, CUT, isCut);
	return inner ? tipAt(inner) : undefined;
}
