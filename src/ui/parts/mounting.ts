import { wording } from '$ui/words/en/parts';
import { flushSync, mount, unmount, type Component } from 'svelte';
import { vi } from 'vitest';

// What a browser has, and a document without one has not.
Element.prototype.scrollIntoView ??= () => undefined;
globalThis.ResizeObserver ??= class {
	observe() {}
	unobserve() {}
	disconnect() {}
};
globalThis.PointerEvent ??= class extends MouseEvent {
	readonly pointerType: string;
	constructor(type: string, init: PointerEventInit = {}) {
		super(type, init);
		this.pointerType = init.pointerType ?? 'mouse';
	}
} as typeof PointerEvent;

/** Puts a component into the document, for a test; gives the way to take it out again. */
export function mountIn<P extends Record<string, unknown>>(component: Component<P>, props: P) {
	const target = document.createElement('div');
	document.body.append(target);
	const made = mount(component, { target, props });
	flushSync();
	return { target, takeOut: () => void unmount(made).then(() => target.remove()) };
}

/** Writes into a field as a person does. */
export function write(field: Element | null, text: string) {
	const input = field as HTMLInputElement;
	input.value = text;
	input.dispatchEvent(new Event('input', { bubbles: true }));
	flushSync();
}

/** Presses a key where the focus is, or on an element. */
export function press(key: string, on: Element = document.activeElement ?? document.body) {
	on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
	flushSync();
}

/** Something that comes by and by: its modules are loaded first. */
export async function comes<T>(there: () => T | null | undefined): Promise<T> {
	const found = (await vi.waitUntil(() => there() ?? undefined, { timeout: 60_000 })) as T;
	flushSync();
	return found;
}

/** Chooses by keys what a select has under a value; its list is opened and gone again. */
export async function choose(select: Element | null, value: string) {
	press('ArrowDown', select!);
	const option = await comes(() => document.querySelector(`[data-choice="${value}"]`));
	for (let tries = 0; !option.matches('[data-highlighted], [data-selected]'); tries++) {
		if (tries > 50) throw new Error(wording.cannotBeReached(value));
		press('Home');
		for (let step = 0; step < tries; step++) press('ArrowDown');
	}
	press('Enter');
	await vi.waitFor(() => {
		if (document.querySelector('[data-choice]')) throw new Error(wording.theListStaysOpen);
	});
}
